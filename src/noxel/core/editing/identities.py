"""Identities: what names an element of a list, whatever comes or goes before it.

Every element of a rig's document that is an object (an item, a tank, a pass, a hitch part …)
carries ``id`` while it is stored and while the page works on it; a rig file that is exported has
none. An identity is random and never given again. Those of weigh-ins also sort in the order of the
log, so that one can come between two others without either changing. Axle ratings are plain
figures: an axle is named by its number from the front, which nothing shifts.
"""

import re
import secrets
import string
from collections.abc import Iterable, Iterator
from typing import Any

from noxel.core.editing.paths import Document, PathParts, value_at
from noxel.core.rig import Identity, write_path
from noxel.errors import Gone, Problem

_DIGITS = string.digits + string.ascii_lowercase
_TAIL = 6


def _random(length: int) -> str:
    return "".join(secrets.choice(_DIGITS) for _ in range(length))


def new_identity() -> Identity:
    """An identity that nothing has."""
    return Identity(f"k{_random(9)}")


def weigh_in_identity(after: str | None, before: str | None = None) -> Identity:
    """An identity for a weigh-in that sorts between those of its neighbours.

    ``after`` and ``before``: the identities of the one before it and of the one after it; None
    where there is none.
    """
    if before is None:
        number = int(after[1:9], 36) + 1 if after else 1
        return Identity(f"w{_written(number, 8)}{_random(_TAIL)}")
    low, high = (after or "w")[1:], before[1:]
    size = max(len(low), len(high)) + 1
    least, most = (int(text.ljust(size, "0"), 36) for text in (low, high))
    return Identity(f"w{_written((least + most) // 2, size)}{_random(_TAIL)}")


def _written(number: int, size: int) -> str:
    """A number in base 36, in so many digits."""
    digits = ""
    for _ in range(size):
        number, digit = divmod(number, 36)
        digits = _DIGITS[digit] + digits
    return digits


def _lists(part: Document) -> Iterator[list[Any]]:
    """Every list of elements that have identities, inside one object, inner ones too."""
    for key, value in part.items():
        if type(value) is dict:
            if key != "entered":
                yield from _lists(value)
        elif type(value) is list and key in ELEMENTS:
            yield value
            if key in _DEEP:
                for element in value:
                    yield from _lists(element)


_IN_RIG = frozenset(("loads", "tanks", "parts", "dry_extras", "kept_plans", "trips", "weigh_ins"))
_IN_WEIGH_IN = ("passes", "adjustments", "tongue_measurements", "added_since", "accepted")
ELEMENTS = _IN_RIG.union(_IN_WEIGH_IN)
"""The lists whose elements have identities."""
_DEEP = frozenset(("weigh_ins", "passes"))


def identify(document: Document) -> Document:
    """Give an identity to every element that has none, or that of another one; the document is
    changed.

    Returns the same document.
    """
    for elements in _lists(document):
        if elements is document.get("weigh_ins"):
            _identify_weigh_ins(elements)
            continue
        present = set()
        for element in elements:
            own = element.get("id")
            if own is None or own in present:
                own = element["id"] = new_identity()
            present.add(own)
    return document


def _identify_weigh_ins(weigh_ins: list[Any]) -> None:
    """Those that are there keep theirs as long as these sort."""
    last = ""
    sorted_so_far: list[str | None] = []
    for weigh_in in weigh_ins:
        own = _own(weigh_in)
        sorted_so_far.append(own if own is not None and own > last else None)
        last = sorted_so_far[-1] or last
    bounds: list[str | None] = []
    for own in reversed(sorted_so_far):
        bounds.append(own or (bounds[-1] if bounds else None))
    before: str | None = None
    for weigh_in, own, bound in zip(weigh_ins, sorted_so_far, reversed(bounds), strict=True):
        weigh_in["id"] = before = own or weigh_in_identity(before, bound)


def _own(weigh_in: Document) -> str | None:
    own = str(weigh_in.get("id"))
    return own if _SORTS.fullmatch(own) else None


_SORTS = re.compile(r"w[0-9a-z]{8,}")


def without_identities(document: Document) -> Document:
    """A document as it is exported; the one given is not changed."""
    bare: Document = {}
    for key, value in document.items():
        if type(value) is dict and key != "entered":
            value = without_identities(value)
        elif type(value) is list and key in ELEMENTS:
            value = [
                {name: kept for name, kept in without_identities(element).items() if name != "id"}
                for element in value
            ]
        bare[key] = value
    return bare


def identified_at(document: Document) -> str | None:
    """The path of the first identity in a document; None where it has none, as a rig file must."""
    for key, value in document.items():
        if type(value) is dict and key != "entered":
            below = identified_at(value)
            if below:
                return f"{key}.{below}"
        elif type(value) is list and key in ELEMENTS:
            for index, element in enumerate(value):
                below = "id" if "id" in element else identified_at(element)
                if below:
                    return f"{key}[{index}].{below}"
    return None


def positions(document: Document, parts: Iterable[str | int]) -> PathParts:
    """A path with each identity as the position that its element has now.

    Raises Gone if an element was taken away; the problem's path ends in its identity.
    """
    node: Any = document
    placed: list[str | int] = []
    named: list[str | int] = []
    for part in parts:
        named.append(part)
        if isinstance(part, Identity):
            elements = node if isinstance(node, list) else ()
            place = next(
                (index for index, element in enumerate(elements) if element.get("id") == part), None
            )
            if place is None:
                raise Gone(
                    "What you typed into was taken away elsewhere. Nothing was changed.",
                    [Problem(write_path(named), "was taken away", "conflict.gone")],
                )
            part = place
        placed.append(part)
        node = value_at(node, (part,))
    return tuple(placed)


def named(document: Document, parts: PathParts) -> PathParts:
    """A path with each position of an element as its identity; what has none stays a number."""
    node: Any = document
    path: list[str | int] = []
    for part in parts:
        node = value_at(node, (part,))
        own = value_at(node, ("id",)) if isinstance(part, int) else None
        path.append(Identity(own) if own else part)
    return tuple(path)
