"""What an edit did to a document, as JSON patches (RFC 6902): one that does it, one that takes it
back.
"""

from typing import Any

import jsonpatch
import jsonpointer

from noxel.core.editing.paths import Document, PathParts, copied, value_at
from noxel.core.editing.rebase import Splice, differences
from noxel.errors import Conflict

Patch = list[dict[str, Any]]
"""Operations of a JSON patch, in order."""


def _at(parts: PathParts) -> str:
    return str(jsonpointer.JsonPointer.from_parts(parts).path)


def _set(before: Document, after: Document, parts: PathParts) -> dict[str, Any]:
    """The operation that makes a value what it became."""
    was, is_now = value_at(before, parts), value_at(after, parts)
    if is_now is None:
        return {"op": "remove", "path": _at(parts)}
    return {"op": "add" if was is None else "replace", "path": _at(parts), "value": is_now}


def _splice(after: Document, splice: Splice) -> Patch:
    """The operations that take elements out of a list, then put those that came into it."""
    out = {"op": "remove", "path": _at((*splice.path, splice.at))}
    come = range(splice.at, splice.at + splice.come)
    places = [(*splice.path, index) for index in come]
    return [out] * splice.gone + [
        {"op": "add", "path": _at(place), "value": value_at(after, place)} for place in places
    ]


def patches(before: Document, after: Document) -> tuple[Patch, Patch]:
    """The patch that makes one document of another, and the one that takes it back.

    They are as long as what was changed, not as the document.
    """
    forth: Patch = []
    back: Patch = []
    for each in differences(before, after, ()):
        if not isinstance(each, Splice):
            forth.append(_set(before, after, each))
            back.append(_set(after, before, each))
        elif value_at(before, each.path) is None:  # a list that was not there
            forth.append(_set(before, after, each.path))
            back.append(_set(after, before, each.path))
        else:
            forth += _splice(after, each)
            back += _splice(before, Splice(each.path, each.at, each.come, each.gone))
    return forth, back


def patched(document: Document, patch: Patch) -> Document:
    """A document with a patch applied; the document itself is not changed.

    Raises
    ------
    Conflict
        If what the patch is about is not there.
    """
    try:
        made: Document = jsonpatch.apply_patch(copied(document), copied(patch), in_place=True)
    except (jsonpatch.JsonPatchException, jsonpointer.JsonPointerException) as exc:
        raise Conflict("What this step changed was changed again since.") from exc
    return made
