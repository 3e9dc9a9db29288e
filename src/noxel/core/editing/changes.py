"""Changing a rig by what somebody types: understood texts become figures, the rest is kept as
typed.

A rig's document always holds a valid rig. A text that cannot be understood, or cannot stand yet
(one wheel of a pair), is kept in the ``entered`` map of the part it belongs to while the figure
itself is left out, or, where the format requires one, stays as it was. Nothing typed is ever
dropped.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from noxel.core.editing.entries import Edited, as_text, entries_of, must_stay, remember, understand
from noxel.core.editing.identities import positions
from noxel.core.editing.paths import Document, PathParts, copied, drop, kind_of, put, value_at
from noxel.core.editing.settle import mark_bars_absent, settle_this
from noxel.core.rig import Entry, Source, read_path, write_path
from noxel.errors import InputError, Problem, QuantityError


@dataclass(frozen=True, slots=True)
class Change:
    """One change at a path.

    The path names elements of lists by their identities (``loads[k3f9].mass``), or by their
    positions now. ``text`` is what was typed in a field; ``value`` sets a choice, a switch or a
    whole part as it stands; neither, and ``remove``, takes away what is there. ``insert`` puts
    ``value`` at the end of a list, or at a position; its figures may come as ``texts``, by name, to
    be understood like typed ones.
    """

    path: Annotated[str, Field(max_length=300)]
    text: Annotated[str, Field(max_length=4000)] | None = None
    value: Any = None
    op: Literal["type", "set", "insert", "remove", "source"] = "type"
    source: Source | None = None
    note: Annotated[str, Field(max_length=2000)] | None = None
    texts: dict[str, Annotated[str, Field(max_length=400)]] | None = None
    date: str | None = None


def _type(document: Document, change: Change, parts: PathParts) -> None:
    kept = {
        name: value
        for name, value in (("source", change.source), ("note", change.note))
        if value is not None
    }
    if (change.text or "").strip():
        remember(document, parts, text=change.text, **kept)
    elif must_stay(document, parts):
        remember(document, parts, text="", **kept)
    else:
        drop(document, parts)
        remember(document, parts, text=None, **kept)


def apply_changes(document: Document, changes: Iterable[Change]) -> Edited:
    """Apply changes to a rig's document.

    ``document``: a valid rig file, as parsed JSON; it is not changed. ``changes``: in order.

    Returns the new document (valid), its rig, and the state of every remembered field.

    Raises InputError if a path leads nowhere, or a choice or a whole part breaks a rule; nothing is
    changed then; Conflict if an element that a path names is not there.
    """
    edited = copied(document)
    for change in changes:
        parts = positions(edited, read_path(change.path))
        if not parts:
            raise InputError("A change needs a path.", [Problem("path", "is empty", "path")])
        if "entered" in parts:
            raise InputError(
                "How a figure was entered is changed with the figure.",
                [Problem(change.path, "is not a field", "path")],
            )
        if change.op == "type":
            _type(edited, change, parts)
        elif change.op == "source":
            if change.date:
                _check_day(change)
            remember(edited, parts, source=change.source, note=change.note, date=change.date)
        elif change.op == "remove":
            drop(edited, parts)
            _forget(edited, parts, shift=-1)
            _move_accepted(edited, parts, shift=-1)
        elif change.op == "insert":
            if not isinstance(parts[-1], int):  # a list grows at its end
                parts = (*parts, len(value_at(edited, parts) or ()))
            _forget(edited, parts, shift=1)
            _move_accepted(edited, parts, shift=1)
            _insert(edited, parts, change)
        else:
            kind_of(edited, parts)
            _forget(edited, parts)
            if change.value is None:
                drop(edited, parts)
            else:
                put(edited, parts, copied(change.value))
            if change.path == "hitch.weight_distribution" and change.value is True:
                mark_bars_absent(edited)
    return settle_this(edited)


def _check_day(change: Change) -> None:
    try:
        Entry.model_validate({"date": change.date})
    except ValidationError as exc:
        raise InputError(
            f"“{change.date}” is not a date: write it like 2026-05-02.",
            [Problem(change.path, f"“{change.date}” is not a date such as 2026-05-02", "day")],
        ) from exc


def _forget(document: Document, parts: PathParts, shift: int = 0) -> None:
    """Forget the texts of what was set or taken away, so that they do not come back over it.

    Where an element leaves a list or enters it, the texts of those after it move with them.
    """
    last, place = parts[-1], len(parts) - 1
    moved: dict[PathParts, dict[str, Any]] = {}
    for path, entry in entries_of(document).items():
        index = path[place] if len(path) > place else None
        if shift <= 0 and path[: len(parts)] == parts:
            moved[path] = {}
        elif (
            shift
            and isinstance(last, int)
            and isinstance(index, int)
            and path[:place] == parts[:-1]
            and index >= last
            and _held_above(document, path, parts)
        ):
            moved[path] = dict(entry)
    for path in moved:
        remember(document, path, **dict.fromkeys(("text", "source", "date", "note")))
    for path, entry in moved.items():
        index = path[place]
        if entry and isinstance(index, int):
            remember(document, (*path[:place], index + shift, *path[place + 1 :]), **entry)


def _move_accepted(document: Document, parts: PathParts, shift: int) -> None:
    """Warnings that were found right stay with their pass where another one before it goes or
    comes; with it they go.
    """
    weigh_in, last = value_at(document, parts[:2]), parts[-1]
    if (
        parts[:1] != ("weigh_ins",)
        or len(parts) != 4
        or not isinstance(last, int)
        or not isinstance(weigh_in, dict)
    ):
        return
    kept = []
    for accepted in weigh_in.get("accepted", ()):
        path = read_path(accepted.get("path", ""))
        index = path[1] if path[:1] == (parts[2],) and len(path) > 1 else None
        if not isinstance(index, int) or index < last:
            kept.append(accepted)
        elif shift > 0 or index > last:
            kept.append({**accepted, "path": write_path((path[0], index + shift, *path[2:]))})
    if kept:
        weigh_in["accepted"] = kept
    else:
        weigh_in.pop("accepted", None)


def _held_above(document: Document, path: PathParts, parts: PathParts) -> bool:
    """Whether a text is remembered outside the list's own elements, which move by themselves."""
    return len(kind_of(document, path).holder) < len(parts)


def _insert(document: Document, parts: PathParts, change: Change) -> None:
    try:
        kind_of(document, parts)
    except InputError as exc:
        raise InputError(
            exc.message, [Problem(write_path(parts[:-1]), "is not a list", "path")]
        ) from exc
    holder = value_at(document, parts[:-1])
    if holder is None:
        put(document, parts[:-1], [])
        holder = value_at(document, parts[:-1])
    holder.insert(parts[-1], copied(change.value))
    problems = []
    for name, text in (change.texts or {}).items():
        path = (*parts, *read_path(name))
        if not text.strip():
            continue
        try:
            value = understand(document, path, text)
        except QuantityError as exc:
            problems.append(Problem(name, exc.message, exc.code))
            continue
        put(document, path, value)
        if text.strip() != as_text(value):
            remember(document, path, text=text)
    if problems:
        raise InputError(str(problems[0]), problems)
