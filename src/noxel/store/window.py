"""Which weigh-ins a rig's document holds: a long log is never read whole only to type a figure.

A weigh-in's key is its identity: it orders the log and is never given again. Its number, which
people see, is its rank from 1.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document
from noxel.store.database import row_count
from noxel.store.equipment import read_rig_row
from noxel.store.models import RigRow, WeighInRow

RECENT = 10
"""How many of the last weigh-ins every document of a rig holds."""


@dataclass(frozen=True, slots=True)
class Window:
    """The weigh-ins in a document: their keys and numbers in order, how many the log has, which of
    these is looked at (from 1).
    """

    keys: tuple[str, ...]
    numbers: tuple[int, ...]
    count: int
    at: int | None

    def at_in(self, document: Document) -> int | None:
        """Where the weigh-in looked at stands in a document, from 1; None where it does not."""
        key = self.keys[self.at - 1] if self.at else None
        keys = (weigh_in["id"] for weigh_in in document.get("weigh_ins", ()))
        return next((place for place, own in enumerate(keys, 1) if own == key), None)

    @property
    def whole(self) -> bool:
        """Whether the document holds the whole log."""
        return len(self.keys) == self.count


def number_of(
    session: Session, rig_id: str, key: str, later: int | None = None, later_key: str = ""
) -> int:
    """The number of a weigh-in, from 1; counted back from a later one, where its number and key are
    given.
    """
    in_rig = WeighInRow.rig_id == rig_id
    if later is None:
        return row_count(session, in_rig, WeighInRow.key <= key)
    return later - row_count(session, in_rig, WeighInRow.key >= key, WeighInRow.key < later_key)


def key_of(session: Session, rig_id: str, number: int) -> str | None:
    """The key of a weigh-in by its number, from 1; None when there is none."""
    query = select(WeighInRow.key).where(WeighInRow.rig_id == rig_id).order_by(WeighInRow.key)
    return session.scalar(query.offset(number - 1).limit(1))


def _tail(session: Session, rig_id: str) -> list[str]:
    """The keys of the last weigh-ins, the last first."""
    query = (
        select(WeighInRow.key).where(WeighInRow.rig_id == rig_id).order_by(WeighInRow.key.desc())
    )
    return list(session.scalars(query.limit(RECENT)))


def look(
    session: Session, row: RigRow, number: int | None = None, besides: Iterable[str] = ()
) -> Window:
    """The window for looking at a weigh-in: itself, the last ones, and those that kept plans are
    compared with.

    ``number``: which one, from 1; None, or one that is not there, is the last. ``besides``: the
    keys of further weigh-ins; those that are not there are left out.
    """
    keys = set(_tail(session, row.id))
    wanted = key_of(session, row.id, number) if number else None
    if wanted is not None:
        keys.add(wanted)
    further = set(besides) - keys
    if further:
        where = select(WeighInRow.key).where(
            WeighInRow.rig_id == row.id, WeighInRow.key.in_(further)
        )
        keys.update(session.scalars(where))
    # most rigs have none, and a long list need not be read to find that out
    plans = read_rig_row(row).get("kept_plans", ()) if '"kept_plans"' in row.document else ()
    for day in {plan["date"] for plan in plans}:
        first = select(func.min(WeighInRow.key)).where(
            WeighInRow.rig_id == row.id, WeighInRow.date >= day
        )
        key = session.scalar(first)
        if key is not None:
            keys.add(key)
    return _window(session, row, keys, wanted)


def whole_log(session: Session, row: RigRow, number: int | None = None) -> Window:
    """Every weigh-in of a rig."""
    query = select(WeighInRow.key).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.key)
    keys = tuple(session.scalars(query))
    number_or_last = number if number and number <= len(keys) else len(keys) or None
    return Window(keys, tuple(range(1, len(keys) + 1)), len(keys), number_or_last)


def numbered(session: Session, row: RigRow, numbers: Sequence[int]) -> Window:
    """The window of weigh-ins by their numbers; those that are not there are left out."""
    keys = {key_of(session, row.id, number) for number in numbers if number > 0}
    return _window(session, row, {key for key in keys if key is not None}, None)


def _window(session: Session, row: RigRow, keys: set[str], wanted: str | None) -> Window:
    count, ordered = row_count(session, WeighInRow.rig_id == row.id), tuple(sorted(keys))
    from_the_end = {key: count - index for index, key in enumerate(_tail(session, row.id))}
    numbers = tuple(from_the_end.get(key) or number_of(session, row.id, key) for key in ordered)
    place = ordered.index(wanted) + 1 if wanted is not None else len(ordered) or None
    return Window(ordered, numbers, count, place)
