"""Changing a rig by what somebody types: understood texts become figures, the rest is kept as typed.

A rig's document always holds a valid rig. A text that cannot be understood, or cannot stand yet (one wheel of a pair),
is kept in the ``entered`` map of the part it belongs to while the figure itself is left out, or, where the format
requires one, stays as it was. Nothing typed is ever dropped.
"""

import copy
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import ValidationError

from noxel.core.base import Entry, Source
from noxel.core.document import Document, Parts, drop, kind_of, put, value_at
from noxel.core.rigfile import RigFile, parse_rig, problems_of, read_path, write_path
from noxel.core.units import read_typed
from noxel.errors import InputError, Problem, QuantityError, RigFileError


@dataclass(frozen=True, slots=True)
class Change:
    """One change at a path.

    ``text`` is what was typed in a field; ``value`` sets a choice, a switch or a whole part as it stands; neither, and
    ``remove``, takes away what is there. ``insert`` puts ``value`` into a list instead of replacing an element; its figures may come
    as ``texts``, by name, to be understood like typed ones.
    """

    path: str
    text: str | None = None
    value: Any = None
    op: Literal["type", "set", "insert", "remove", "source"] = "type"
    source: Source | None = None
    note: str | None = None
    texts: Mapping[str, str] | None = None
    date: str | None = None


@dataclass(frozen=True, slots=True)
class FieldState:
    """How a field stands: as typed, what was understood, and what is wrong with it."""

    path: str
    entry: Entry
    problem: str | None = None


@dataclass(frozen=True, slots=True)
class Edited:
    """A rig after changes, with every field whose text is remembered."""

    document: Document
    rig: RigFile
    fields: tuple[FieldState, ...]


def _unit(document: Document, parts: Parts, dimension: str) -> str | None:
    if dimension == "length":
        return value_at(document, ("units", "length")) or None
    if dimension == "volume":
        return value_at(document, ("units", "volume")) or ("gal" if value_at(document, ("units", "mass")) == "lb" else "l")
    if dimension == "pressure":
        return value_at(document, ("units", "pressure")) or ("psi" if value_at(document, ("units", "mass")) == "lb" else "kPa")
    if parts[:1] == ("weigh_ins",) and len(parts) > 4 and parts[2] == "passes":
        own = value_at(document, (*parts[:4], "unit"))
        if own:
            return str(own)
    return value_at(document, ("units", "mass")) or None


def _understand(document: Document, parts: Parts, text: str) -> Any:
    kind = kind_of(document, parts)
    if kind.dimension == "text" or kind.dimension == "choice":
        return text
    return read_typed(text, kind.dimension, _unit(document, parts, kind.dimension)).value


def _entries(document: Document) -> dict[Parts, dict[str, Any]]:
    """Every remembered entry with the path of its figure."""
    found: dict[Parts, dict[str, Any]] = {}

    def walk(here: Any, at: Parts) -> None:
        if isinstance(here, dict):
            for key, entry in (here.get("entered") or {}).items():
                found[(*at, *read_path(key))] = entry
            for key, value in here.items():
                if key != "entered":
                    walk(value, (*at, key))
        elif isinstance(here, list):
            for index, value in enumerate(here):
                walk(value, (*at, index))

    walk(document, ())
    return found


def _remember(document: Document, parts: Parts, **keep: Any) -> None:
    """Keep or clear what is remembered about a figure; an entry that says nothing is taken away."""
    holder = kind_of(document, parts).holder
    if value_at(document, holder) is None:
        put(document, holder, {})
    part = value_at(document, holder)
    entered = part.setdefault("entered", {})
    key = write_path(parts[len(holder) :])
    entry = {**entered.get(key, {}), **keep}
    entry = {name: value for name, value in entry.items() if value is not None}
    if entry:
        entered[key] = entry
    else:
        entered.pop(key, None)
    if not entered:
        part.pop("entered")


def _as_text(value: Any) -> str:
    return value if isinstance(value, str) else repr(value)


def _type(document: Document, change: Change, parts: Parts) -> None:
    kept = {name: value for name, value in (("source", change.source), ("note", change.note)) if value is not None}
    if (change.text or "").strip():
        _remember(document, parts, text=change.text, **kept)
    elif _kept(document, parts):
        _remember(document, parts, text="", **kept)
    else:
        drop(document, parts)
        _remember(document, parts, text=None, **kept)


def _kept(document: Document, parts: Parts) -> bool:
    """Whether a figure cannot simply go: the format requires it, or its neighbours in a list would move up."""
    return kind_of(document, parts).required or isinstance(parts[-1], int)


def apply_changes(document: Document, changes: Iterable[Change]) -> Edited:
    """Apply changes to a rig's document.

    Parameters
    ----------
    document : dict
        A valid rig file, as parsed JSON; it is not changed.
    changes : iterable of Change
        In order.

    Returns
    -------
    Edited
        The new document (valid), its rig, and the state of every remembered field.

    Raises
    ------
    InputError
        If a path leads nowhere, or a choice or a whole part breaks a rule; nothing is changed then.
    """
    made = copy.deepcopy(document)
    for change in changes:
        parts = read_path(change.path)
        if not parts:
            raise InputError("A change needs a path.", [Problem("path", "is empty", "path")])
        if change.op == "type":
            _type(made, change, parts)
        elif change.op == "source":
            if change.date:
                _check_day(change)
            _remember(made, parts, source=change.source, note=change.note, date=change.date)
        elif change.op == "remove":
            drop(made, parts)
            _forget(made, parts, shift=-1)
            _move_accepted(made, parts, shift=-1)
        elif change.op == "insert":
            _forget(made, parts, shift=1)
            _move_accepted(made, parts, shift=1)
            _insert(made, parts, change)
        else:
            kind_of(made, parts)
            _forget(made, parts)
            if change.value is None:
                drop(made, parts)
            else:
                put(made, parts, copy.deepcopy(change.value))
            if change.path == "hitch.weight_distribution" and change.value is True:
                _say_bars_were_absent(made)
    return settle(made)


def _check_day(change: Change) -> None:
    try:
        Entry.model_validate({"date": change.date})
    except ValidationError as exc:
        raise InputError(f"“{change.date}” is no date: write it like 2026-05-02.",
                         [Problem(change.path, f"“{change.date}” is no date such as 2026-05-02", "day")]) from exc  # fmt: skip


def _forget(document: Document, parts: Parts, shift: int = 0) -> None:
    """Forget the texts of what was set or taken away, so that they do not come back over it.

    Where an element leaves a list or enters it, the texts of those after it move with them.
    """
    last, place = parts[-1], len(parts) - 1
    moved: dict[Parts, dict[str, Any]] = {}
    for at, entry in _entries(document).items():
        index = at[place] if len(at) > place else None
        if shift <= 0 and at[: len(parts)] == parts:
            moved[at] = {}
        elif (
            shift
            and isinstance(last, int)
            and isinstance(index, int)
            and at[:place] == parts[:-1]
            and index >= last
            and _held_above(document, at, parts)
        ):
            moved[at] = dict(entry)
    for at in moved:
        _remember(document, at, **dict.fromkeys(("text", "source", "date", "note")))
    for at, entry in moved.items():
        index = at[place]
        if entry and isinstance(index, int):
            _remember(document, (*at[:place], index + shift, *at[place + 1 :]), **entry)


def _move_accepted(document: Document, parts: Parts, shift: int) -> None:
    """Warnings that were found right stay with their pass where another one before it goes or comes; with it they go."""
    weigh_in, last = value_at(document, parts[:2]), parts[-1]
    if parts[:1] != ("weigh_ins",) or len(parts) != 4 or not isinstance(last, int) or not isinstance(weigh_in, dict):
        return
    kept = []
    for accepted in weigh_in.get("accepted", ()):
        at = read_path(accepted.get("path", ""))
        index = at[1] if at[:1] == (parts[2],) and len(at) > 1 else None
        if not isinstance(index, int) or index < last:
            kept.append(accepted)
        elif shift > 0 or index > last:
            kept.append({**accepted, "path": write_path((at[0], index + shift, *at[2:]))})
    if kept:
        weigh_in["accepted"] = kept
    else:
        weigh_in.pop("accepted", None)


def _held_above(document: Document, at: Parts, parts: Parts) -> bool:
    """Whether a text is remembered outside the list's own elements, which move by themselves."""
    return len(kind_of(document, at).holder) < len(parts)


def _say_bars_were_absent(document: Document) -> None:
    """What was weighed before the hitch got spring bars was weighed without them."""
    for weigh_in in document.get("weigh_ins", []):
        for each in weigh_in.get("passes", []):
            if each.get("config") == "hitched":
                each.setdefault("spring_bars", "none")


def _insert(document: Document, parts: Parts, change: Change) -> None:
    kind_of(document, parts)
    if not isinstance(parts[-1], int):
        raise InputError("Only a list takes an insertion.", [Problem(write_path(parts), "is no list", "path")])
    holder = value_at(document, parts[:-1])
    if holder is None:
        put(document, parts[:-1], [])
        holder = value_at(document, parts[:-1])
    holder.insert(parts[-1], copy.deepcopy(change.value))
    problems = []
    for name, text in (change.texts or {}).items():
        at = (*parts, *read_path(name))
        if not text.strip():
            continue
        try:
            value = _understand(document, at, text)
        except QuantityError as exc:
            problems.append(Problem(name, exc.message, exc.code))
            continue
        put(document, at, value)
        if text.strip() != _as_text(value):
            _remember(document, at, text=text)
    if problems:
        raise InputError(str(problems[0]), problems)


def fit(document: Document) -> Document:
    """A rig whose vehicle, hitch or trailer was changed in another rig: its own weigh-ins follow where they must.

    Raises
    ------
    RigFileError
        If they contradict the change.
    """
    made = copy.deepcopy(document)
    if made.get("hitch", {}).get("weight_distribution"):
        _say_bars_were_absent(made)
    return settle(made).document


def frame_of_weigh_ins(document: Document) -> tuple[object, ...]:
    """What the rules of every weigh-in depend on."""
    trailer, hitch = document.get("trailer"), document.get("hitch", {})
    axles = len((trailer or {}).get("ratings", {}).get("gawr", ()))
    return trailer is None, bool(hitch.get("weight_distribution")), axles, document["units"]


def settle(document: Document) -> Edited:
    """Put every remembered text to work that can stand, and say of the others why not.

    Raises
    ------
    RigFileError
        If the document itself breaks a rule that no remembered text explains.
    """
    made = copy.deepcopy(document)
    wrong: dict[Parts, str] = {}
    before: dict[Parts, Any] = {}
    for parts, entry in sorted(_entries(made).items(), key=_order):
        text = entry.get("text")
        if text is None:
            continue
        before[parts] = value_at(made, parts)
        if not text.strip():
            wrong[parts] = "is needed here"
            continue
        try:
            put(made, parts, _understand(made, parts, text))
        except InputError as exc:
            wrong[parts] = exc.message
            _set_back(made, parts, before[parts])
    _stand(made, before, wrong)
    fields = []
    for parts, entry in sorted(_entries(made).items(), key=_order):
        text = entry.get("text")
        if text is not None and parts not in wrong and text.strip() == _as_text(value_at(made, parts)).strip():
            _remember(made, parts, text=None)  # the figure itself says everything that the text did
            text = None
        said = wrong.get(parts)
        if said and value_at(made, parts) is not None:
            said = f"{said}. Still using {_as_text(value_at(made, parts))}"
        kept = Entry.model_validate({**entry, "text": text})
        if kept != Entry():
            fields.append(FieldState(write_path(parts), kept, said))
    return Edited(made, parse_rig(made), tuple(fields))


def _set_back(document: Document, parts: Parts, previous: Any) -> None:
    """A text that cannot stand: leave the figure out, or as it was where it cannot go."""
    if not _kept(document, parts):
        drop(document, parts)
    elif previous is not None:
        put(document, parts, previous)
    elif isinstance(parts[-1], int):
        del (value_at(document, parts[:-1]) or [])[parts[-1] :]  # a new element: those after it have no place either
    if value_at(document, parts[:-1]) == []:  # made for this element only
        drop(document, parts[:-1])


def _order(item: tuple[Parts, Any]) -> list[str]:
    return [f"{part:09d}" if isinstance(part, int) else part for part in item[0]]


def _stand(made: Document, before: dict[Parts, Any], wrong: dict[Parts, str]) -> None:
    """Validate; a problem at a figure turns that figure back into a text that waits. Each round settles one."""
    while True:
        try:
            RigFile.model_validate(made)
            return
        except ValidationError as exc:
            problems = problems_of(exc)
            found = ((problem, _cause(read_path(problem.path), before, wrong, made)) for problem in problems)
            problem, cause = next((pair for pair in found if pair[1] is not None), (problems[0], None))
            if cause is None:
                more = f" (and {len(problems) - 1} more)" if len(problems) > 1 else ""
                raise RigFileError(f"{problems[0]}{more}", problems) from exc
            if cause not in before:
                _remember(made, cause, text=_as_text(value_at(made, cause)))
            wrong[cause] = problem.message if read_path(problem.path) == cause else str(problem)
            _set_back(made, cause, before.get(cause))
            for known in before:
                if known[:-1] == cause[:-1] and isinstance(known[-1], int) and value_at(made, known) is None:
                    wrong.setdefault(known, "waits for the one before it")


def _cause(parts: Parts, before: dict[Parts, Any], wrong: dict[Parts, str], made: Document) -> Parts | None:
    """The figure that a problem comes from: the typed one that it names, a typed one beside it, else what stands there.

    A reading that is missing from its set is blamed on the readings that are there.
    """
    candidates = [parts, *(known for known in before if parts[:-1] == known[:-1] or parts == known[: len(parts)])]
    typed = [known for known in candidates if known in before and known not in wrong]
    if typed:
        return typed[0]
    beside = value_at(made, parts[:-1])
    siblings = [(*parts[:-1], name) for name in beside] if parts[-2:-1] == ("readings",) and isinstance(beside, dict) else []
    for each in (parts, *siblings):
        if isinstance(value_at(made, each), int | float | str) and each not in wrong and _figure(made, each):
            return each
    return None


def _figure(document: Document, parts: Parts) -> bool:
    try:
        return kind_of(document, parts).dimension not in ("text", "choice")
    except InputError:
        return False
