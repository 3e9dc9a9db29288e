"""Which weigh-ins a rig's document holds: a long log is never read whole only to type a figure.

A weigh-in's key is its ``position``: it orders the log and never changes, whatever is taken out.
Its number, which people see, is its rank from 1.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document
from noxel.errors import Conflict, InputError
from noxel.store.equipment import read_rig_row
from noxel.store.models import RigRow, WeighInRow

RECENT = 10
"""How many of the last weigh-ins every document of a rig holds."""


@dataclass(frozen=True, slots=True)
class Window:
    """The weigh-ins in a document: their keys and numbers in order, how many the log has, which of
    these is looked at (from 1).
    """

    keys: tuple[int, ...]
    numbers: tuple[int, ...]
    count: int
    at: int | None

    @property
    def whole(self) -> bool:
        """Whether the document holds the whole log."""
        return len(self.keys) == self.count


def number_of(
    session: Session, rig_id: str, key: int, later: int | None = None, later_key: int = 0
) -> int:
    """The number of a weigh-in, from 1; counted back from a later one, where its number and key are
    given.
    """
    query = select(func.count()).where(WeighInRow.rig_id == rig_id)
    if later is None:
        return session.scalar(query.where(WeighInRow.position <= key)) or 0
    return later - (
        session.scalar(query.where(WeighInRow.position >= key, WeighInRow.position < later_key))
        or 0
    )


def count_of(session: Session, rig_id: str) -> int:
    """How many weigh-ins a rig has."""
    return session.scalar(select(func.count()).where(WeighInRow.rig_id == rig_id)) or 0


def key_of(session: Session, rig_id: str, number: int) -> int | None:
    """The key of a weigh-in by its number, from 1; None when there is none."""
    query = (
        select(WeighInRow.position).where(WeighInRow.rig_id == rig_id).order_by(WeighInRow.position)
    )
    return session.scalar(query.offset(number - 1).limit(1))


def _tail(session: Session, rig_id: str) -> list[int]:
    """The keys of the last weigh-ins, the last first."""
    query = (
        select(WeighInRow.position)
        .where(WeighInRow.rig_id == rig_id)
        .order_by(WeighInRow.position.desc())
    )
    return list(session.scalars(query.limit(RECENT)))


def look(session: Session, row: RigRow, number: int | None) -> Window:
    """The window for looking at a weigh-in: itself, the last ones, and those that kept plans are
    compared with.

    Parameters
    ----------
    number : int or None
        Which one, from 1; None, or one that is not there, is the last.
    """
    keys = set(_tail(session, row.id))
    wanted = key_of(session, row.id, number) if number else None
    if wanted is not None:
        keys.add(wanted)
    # most rigs have none, and a long list need not be read to find that out
    plans = read_rig_row(row).get("kept_plans", ()) if '"kept_plans"' in row.document else ()
    for day in {plan["date"] for plan in plans}:
        first = select(func.min(WeighInRow.position)).where(
            WeighInRow.rig_id == row.id, WeighInRow.date >= day
        )
        found = session.scalar(first)
        if found is not None:
            keys.add(found)
    return _window(session, row, keys, wanted)


def whole_log(session: Session, row: RigRow, number: int | None = None) -> Window:
    """Every weigh-in of a rig."""
    query = (
        select(WeighInRow.position).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.position)
    )
    keys = tuple(session.scalars(query))
    at = number if number and number <= len(keys) else len(keys) or None
    return Window(keys, tuple(range(1, len(keys) + 1)), len(keys), at)


def named(session: Session, row: RigRow, keys: Sequence[int]) -> Window:
    """The window that a page was typed under.

    Raises
    ------
    Conflict
        If one of its weigh-ins is there no longer.
    """
    query = select(WeighInRow.position).where(
        WeighInRow.rig_id == row.id, WeighInRow.position.in_(keys)
    )
    there = set(session.scalars(query))
    if len(there) < len(set(keys)):
        raise Conflict(
            "A weigh-in on this page was taken away elsewhere. Load the page again; nothing was "
            "changed."
        )
    return _window(session, row, there, None)


def numbered(session: Session, row: RigRow, numbers: Sequence[int]) -> Window:
    """The window of weigh-ins by their numbers; those that are not there are left out."""
    keys = {key_of(session, row.id, number) for number in numbers if number > 0}
    return _window(session, row, {key for key in keys if key is not None}, None)


def _window(session: Session, row: RigRow, keys: set[int], wanted: int | None) -> Window:
    count, ordered = count_of(session, row.id), tuple(sorted(keys))
    from_the_end = {key: count - index for index, key in enumerate(_tail(session, row.id))}
    numbers = tuple(from_the_end.get(key) or number_of(session, row.id, key) for key in ordered)
    at = ordered.index(wanted) + 1 if wanted is not None else len(ordered) or None
    return Window(ordered, numbers, count, at)


def keys_after(
    window: Window, old: Sequence[Document], new: Sequence[Document], last: int
) -> tuple[int, ...]:
    """The keys of a changed document's weigh-ins: those taken out lose theirs, those added come
    after the last.

    Parameters
    ----------
    window : Window
        Of the document before.
    old, new : sequence of dict
        The weigh-ins before and after.
    last : int
        The greatest key of the whole log, or -1.

    Raises
    ------
    InputError
        If one was put in before others, while the document does not hold the whole log.
    """
    gone = len(old) - len(new)
    if gone > 0:
        at = next((index for index, each in enumerate(new) if each != old[index]), len(new))
        return window.keys[:at] + window.keys[at + gone :]
    if gone < 0 and old and not window.whole and new[-1] == old[-1]:
        raise InputError("A new weigh-in goes after the last one.")
    return window.keys + tuple(range(last + 1, last + 1 - gone))
