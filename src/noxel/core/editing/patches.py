"""What an edit did to a document: a JSON patch (RFC 6902) that does it, one that takes it back, and
the figures that it set, by identity. All three come from one comparison.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

import jsonpointer

from noxel.core.editing.paths import Document, PathParts, copied
from noxel.core.rig import Identity
from noxel.errors import Conflict

Patch = list[dict[str, Any]]
"""Operations of a JSON patch, in order."""


@dataclass(slots=True)
class Delta:
    """What makes one document of another, and back; ``touched`` are the paths of what was set or
    taken out, with identities.
    """

    forth: Patch = field(default_factory=list)
    back: Patch = field(default_factory=list)
    touched: list[PathParts] = field(default_factory=list)


def delta(before: Document, after: Document, name: PathParts = ()) -> Delta:
    """Compare two documents.

    ``before`` and ``after``: parsed JSON whose elements have identities. ``name``: what the paths
    of ``touched`` start with; those of the patches start in the document.

    It is as long as what was changed, not as the document.
    """
    comparison = Delta()
    _compare(before, after, (), (), name, comparison)
    return comparison


def _compare(
    before: Any, after: Any, old: PathParts, new: PathParts, name: PathParts, into: Delta
) -> None:
    """``old`` and ``new`` are where the value stands in the one document and in the other."""
    if before == after:
        return
    if isinstance(before, dict) and isinstance(after, dict):
        for key in before.keys() | after.keys():
            _compare(before.get(key), after.get(key), (*old, key), (*new, key), (*name, key), into)
        return
    if isinstance(before, list) and isinstance(after, list):
        if _identified(before) and _identified(after):
            if _compare_elements(before, after, old, new, name, into):
                return
        elif len(before) == len(after):
            for index, (was, is_now) in enumerate(zip(before, after, strict=True)):
                _compare(was, is_now, (*old, index), (*new, index), (*name, index), into)
            return
    into.forth.append(_set(before, after, new))
    into.back.append(_set(after, before, old))
    if not (before is None and isinstance(after, list) and _identified(after)):
        into.touched.append(name)


def _identified(elements: Sequence[Any]) -> bool:
    return all(isinstance(element, dict) and "id" in element for element in elements)


def _compare_elements(
    before: Sequence[Any],
    after: Sequence[Any],
    old: PathParts,
    new: PathParts,
    name: PathParts,
    into: Delta,
) -> bool:
    """Compare lists by identity; False, with nothing done, where their order differs."""
    was = {element["id"]: index for index, element in enumerate(before)}
    is_now = {element["id"]: index for index, element in enumerate(after)}
    both = [own for own in was if own in is_now]
    if both != [own for own in is_now if own in was]:
        return False
    gone = [index for own, index in was.items() if own not in is_now]
    come = [index for own, index in is_now.items() if own not in was]
    into.forth += [{"op": "remove", "path": _at((*new, index))} for index in reversed(gone)]
    into.forth += [_set(None, after[index], (*new, index)) for index in come]
    into.back += [{"op": "remove", "path": _at((*old, index))} for index in reversed(come)]
    into.back += [_set(None, before[index], (*old, index)) for index in gone]
    into.touched += [(*name, Identity(before[index]["id"])) for index in gone]
    for own in both:
        one, other = was[own], is_now[own]
        if before[one] != after[other]:
            places = ((*old, one), (*new, other), (*name, Identity(own)))
            _compare(before[one], after[other], *places, into)
    return True


def _at(parts: PathParts) -> str:
    return str(jsonpointer.JsonPointer.from_parts(parts).path)


def _set(was: Any, is_now: Any, parts: PathParts) -> dict[str, Any]:
    """The operation that makes a value what it became."""
    if is_now is None:
        return {"op": "remove", "path": _at(parts)}
    return {"op": "add" if was is None else "replace", "path": _at(parts), "value": is_now}


def patched(document: Document, patch: Patch) -> Document:
    """A document with a patch applied; the document itself is not changed.

    Raises Conflict if what the patch is about is not there.
    """
    import jsonpatch  # only undo and redo need it

    try:
        patched: Document = jsonpatch.apply_patch(copied(document), copied(patch), in_place=True)
    except (jsonpatch.JsonPatchException, jsonpointer.JsonPointerException) as exc:
        raise Conflict("What this step changed was changed again since.") from exc
    return patched
