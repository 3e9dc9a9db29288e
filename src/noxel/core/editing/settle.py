"""Turning typed texts into figures as far as they are valid, and saying why not for the others."""

from typing import Any

from pydantic import ValidationError

from noxel.core.editing.entries import (
    Edited,
    FieldState,
    as_text,
    entries_of,
    entry_order,
    must_stay,
    remember,
    understand,
)
from noxel.core.editing.paths import Document, PathParts, copied, drop, kind_of, put, value_at
from noxel.core.rig import Entry, RigFile, problems_of, read_path, write_path
from noxel.errors import InputError, Problem, RigFileError


def mark_bars_absent(document: Document) -> None:
    """What was weighed before the hitch got spring bars was weighed without them."""
    for weigh_in in document.get("weigh_ins", []):
        for pass_ in weigh_in.get("passes", []):
            if pass_.get("config") == "hitched":
                pass_.setdefault("spring_bars", "none")


def fit(document: Document) -> Document:
    """A rig whose vehicle, hitch or trailer was changed in another rig: its own weigh-ins follow
    where they must.

    Raises RigFileError if they contradict the change.
    """
    settled = copied(document)
    if settled.get("hitch", {}).get("weight_distribution"):
        mark_bars_absent(settled)
    return settle_this(settled).document


def frame_of_weigh_ins(document: Document) -> tuple[object, ...]:
    """What the rules of every weigh-in depend on."""
    trailer, hitch = document.get("trailer"), document.get("hitch", {})
    axles = len((trailer or {}).get("ratings", {}).get("gawr", ()))
    return trailer is None, bool(hitch.get("weight_distribution")), axles, document["units"]


def settle(document: Document) -> Edited:
    """Put every remembered text to work that can stand, and say of the others why not. The document
    is not changed.

    Raises RigFileError if the document itself breaks a rule that no remembered text explains.
    """
    return settle_this(copied(document))


def settle_this(document: Document) -> Edited:
    """The same of a document that is the caller's own; it is changed.

    Raises RigFileError as :func:`settle`.
    """
    wrong: dict[PathParts, str] = {}
    before: dict[PathParts, Any] = {}
    for parts, entry in sorted(entries_of(document).items(), key=entry_order):
        text = entry.get("text")
        if text is None:
            continue
        before[parts] = value_at(document, parts)
        if not text.strip():
            wrong[parts] = "is needed here"
            continue
        try:
            value = understand(document, parts, text)
            put(document, parts, value)
            if text.strip() == as_text(value).strip():
                remember(document, parts, text=None)  # the figure says everything that the text did
        except InputError as exc:
            wrong[parts] = exc.message
            _set_back(document, parts, before[parts])
    rig = _stand(document, before, wrong)
    fields = []
    for parts, entry in sorted(entries_of(document).items(), key=entry_order):
        text = entry.get("text")
        problem = wrong.get(parts)
        if problem and value_at(document, parts) is not None:
            problem = f"{problem}. Still using {as_text(value_at(document, parts))}"
        kept = Entry.model_validate({**entry, "text": text})
        if kept != Entry():
            fields.append(FieldState(write_path(parts), kept, problem))
    return Edited(document, rig, tuple(fields))


def _set_back(document: Document, parts: PathParts, previous: Any) -> None:
    """A text that cannot stand: leave the figure out, or as it was where it cannot go."""
    if not must_stay(document, parts):
        drop(document, parts)
    elif previous is not None:
        put(document, parts, previous)
    elif isinstance(parts[-1], int):
        # a new element: those after it have no place either
        del (value_at(document, parts[:-1]) or [])[parts[-1] :]
    if value_at(document, parts[:-1]) == []:  # made for this element only
        drop(document, parts[:-1])


def _stand(
    document: Document, before: dict[PathParts, Any], wrong: dict[PathParts, str]
) -> RigFile:
    """Validate; a problem at a figure turns that figure back into a text that waits. Each round
    settles one.
    """
    while True:
        try:
            return RigFile.model_validate(document)
        except ValidationError as exc:
            problems, entries = problems_of(exc), entries_of(document)
            cause_here = (
                (problem, _cause(read_path(problem.path), before, wrong, document))
                for problem in problems
            )
            problem, cause = next(
                (pair for pair in cause_here if pair[1] is not None), (problems[0], None)
            )
            if cause is None:
                more = f" (and {len(problems) - 1} more)" if len(problems) > 1 else ""
                raise RigFileError(_in_words(document, problems[0], more), problems) from exc
            if cause not in entries or "text" not in entries[cause]:
                remember(document, cause, text=as_text(value_at(document, cause)))
            wrong[cause] = problem.message if read_path(problem.path) == cause else str(problem)
            _set_back(document, cause, before.get(cause))
            for known in before:
                if (
                    known[:-1] == cause[:-1]
                    and isinstance(known[-1], int)
                    and value_at(document, known) is None
                ):
                    wrong.setdefault(known, "waits for the one before it")


def _in_words(document: Document, problem: Problem, more: str) -> str:
    """What is wrong; of a weigh-in, which may not be in view, by its day and place, and what to do
    about it.
    """
    if not problem.path.startswith("weigh_ins["):
        return f"{problem}{more}"
    parts = read_path(problem.path)
    weigh_in, what = value_at(document, parts[:2]), str(parts[-1]).replace("_", " ")
    which = ", ".join(str(weigh_in[key]) for key in ("date", "place") if weigh_in.get(key))
    name = f"The weigh-in of {which}" if which else "A weigh-in without a day"
    return (
        f"{name} contradicts this: {what} {problem.message}{more}. Correct it in Weigh first, or "
        "delete it in the Log."
    )


def _cause(
    parts: PathParts, before: dict[PathParts, Any], wrong: dict[PathParts, str], document: Document
) -> PathParts | None:
    """The figure that a problem comes from: the typed one that it names, a typed one beside it,
    else what stands there.

    A reading that is missing from its set is blamed on the readings that are there.
    """
    candidates = [
        parts,
        *(known for known in before if parts[:-1] == known[:-1] or parts == known[: len(parts)]),
    ]
    typed = [known for known in candidates if known in before and known not in wrong]
    if typed:
        return typed[0]
    beside = value_at(document, parts[:-1])
    siblings = (
        [(*parts[:-1], name) for name in beside]
        if parts[-2:-1] == ("readings",) and isinstance(beside, dict)
        else []
    )
    for path in (parts, *siblings):
        if (
            isinstance(value_at(document, path), int | float | str)
            and path not in wrong
            and _figure(document, path)
        ):
            return path
    return None


def _figure(document: Document, parts: PathParts) -> bool:
    try:
        return kind_of(document, parts).dimension not in ("text", "choice")
    except InputError:
        return False
