"""Two pages, one rig: a change typed against an older state is carried to the state that is there
now.

An edit is kept as what it did to lists (elements put in or taken out) and which figures it set. A
path typed before it follows its item to its new place; a figure that somebody else set meanwhile is
a conflict, to be decided by a person.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import takewhile
from typing import Any

from noxel.core.editing.paths import PathParts
from noxel.core.rig import write_path

EVERYTHING = 1000
"""An edit that sets more figures than this counts as having set all of them."""


@dataclass(frozen=True, slots=True)
class Splice:
    """At a list, from an index on, so many elements went and so many came."""

    path: PathParts
    at: int
    gone: int
    come: int


@dataclass(frozen=True, slots=True)
class Edit:
    """What one edit did: to lists, outer ones first, and to figures; ``by`` is the page that made
    it. ``all`` says that it set too many figures to list.
    """

    splices: tuple[Splice, ...]
    touched: frozenset[PathParts]
    by: str | None = None
    all: bool = False


class Gone(Exception):
    """What a path led to was taken out by another edit."""


def _same(pairs: Iterator[tuple[Any, Any]]) -> int:
    return sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], pairs))


def differences(before: Any, after: Any, at: PathParts) -> Iterator[Splice | PathParts]:
    """What makes one document of another: lists that elements left or entered, outer ones first,
    and paths of what was set.
    """
    if before == after:
        return
    if isinstance(before, dict) and isinstance(after, dict):
        for key in before.keys() | after.keys():
            yield from differences(before.get(key), after.get(key), (*at, key))
    elif isinstance(before, list) and isinstance(after, list):
        same = _same(zip(before, after, strict=False))
        rest = min(len(before), len(after)) - same
        last = min(rest, _same(zip(reversed(before), reversed(after), strict=False)))
        gone, come = len(before) - same - last, len(after) - same - last
        both = min(gone, come)  # changed where they are
        if gone != come:
            yield Splice(at, same + both, gone - both, come - both)
        for index in range(same, same + both):
            yield from differences(before[index], after[index], (*at, index))
    elif isinstance(after, list) and before is None:
        yield Splice(at, 0, 0, len(after))
    else:
        yield at


def edit_of(before: dict[str, Any], after: dict[str, Any], by: str | None = None) -> Edit:
    """What an edit did.

    Parameters
    ----------
    before, after : dict
        Documents by name, as parsed JSON; a document that was not there, or is there no longer, is
        None.
    by : str or None
        The page that made it.

    Returns
    -------
    Edit
        Paths start with the document's name.
    """
    found = [each for name in after for each in differences(before.get(name), after[name], (name,))]
    splices = tuple(each for each in found if isinstance(each, Splice))
    touched = frozenset(each for each in found if not isinstance(each, Splice))
    return Edit(
        splices,
        frozenset() if len(touched) > EVERYTHING else touched,
        by,
        len(touched) > EVERYTHING,
    )


def _through(path: PathParts, splice: Splice, *, inserting: bool) -> PathParts:
    place = len(splice.path)
    if path[:place] != splice.path or len(path) <= place:
        return path
    index = path[place]
    if not isinstance(index, int) or index < splice.at:
        return path
    if index < splice.at + splice.gone:
        if not (inserting and len(path) == place + 1):
            raise Gone(write_path(path[1:]))
        index = splice.at + splice.gone
    return (*path[:place], index + splice.come - splice.gone, *path[place + 1 :])


def _meets(path: PathParts, touched: PathParts) -> bool:
    """Whether one of two paths is the other, or leads to it."""
    shorter = min(len(path), len(touched))
    return path[:shorter] == touched[:shorter]


def rebase(
    path: PathParts, edits: Sequence[Edit], by: str | None, *, inserting: bool = False
) -> tuple[PathParts, bool]:
    """Carry a path through edits that were made since it was typed.

    Parameters
    ----------
    path : tuple
        It starts with its document's name.
    edits : sequence of Edit
        In the order they were made.
    by : str or None
        The page that typed it; its own edits are no conflict.
    inserting : bool
        Whether something is to be put in there.

    Returns
    -------
    path : tuple
        Where it leads now.
    conflict : bool
        Whether another page set the same figure meanwhile.

    Raises
    ------
    Gone
        If what it led to was taken out.
    """
    conflict = False
    for edit in edits:
        for splice in edit.splices:
            path = _through(path, splice, inserting=inserting)
        if not inserting and (edit.by is None or edit.by != by):
            conflict = conflict or edit.all or any(_meets(path, each) for each in edit.touched)
    return path, conflict
