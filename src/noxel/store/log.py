"""The log in the database: a page of it, a run for the charts, found by words; as quick with ten
thousand as with ten.

The facts of each weigh-in are kept beside it with a mark of all that they rest on: its own figures
and the rig's plates. Where the mark no longer fits they are recomputed, for the weigh-ins that are
asked for.
"""

import hashlib
import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TypeVar

from sqlalchemy import Select, func, select
from sqlalchemy.orm import Session, aliased

from noxel.core.editing import Document, settle, without_identities
from noxel.core.log import Facts, Recorded, Rejudged, facts_of
from noxel.store.database import InDatabase, row_count
from noxel.store.documents import dump, read_document
from noxel.store.equipment import assemble
from noxel.store.models import FactsRow, RigRow, WeighInRow
from noxel.store.parts import row_of, weigh_in_words
from noxel.store.window import key_of, number_of
from noxel.version import RELEASES, VERSION

_APART = ("name", "note", "loads", "tanks", "plan", "kept_plans", "ready", "reminders")
"""Documents of a rig that no weigh-in's facts rest on."""


Made = TypeVar("Made")


@dataclass(frozen=True, slots=True)
class Page:
    """Some weigh-ins with their facts, the last first, each with the one before it; how many there
    are in all.
    """

    lines: tuple[tuple[Recorded, Facts | None], ...]
    more: bool
    count: int


class Logs(InDatabase):
    """The logs of all rigs of one database. NotFound is raised where there is no such
    rig.
    """

    def page(
        self, rig_id: str, *, words: str = "", before: int | None = None, size: int = 20
    ) -> Page:
        """A page of the log, the last first.

        ``words``: what each must have in its date, place, notes, tags or decisions, in any order.
        ``before``: only weigh-ins with a smaller number. ``size``: how many at most.
        """

        def make(session: Session, keep: bool) -> Page:
            row = row_of(session, rig_id)
            query = _all(rig_id)
            if words.strip():
                query = query.join(FactsRow, FactsRow.weigh_in_id == WeighInRow.id)
            for word in words.casefold().split():
                query = query.where(FactsRow.words.contains(word, autoescape=True))
            limit = key_of(session, rig_id, before) if before is not None else None
            if limit is not None:
                query = query.where(WeighInRow.key < limit)
            asked = session.scalars(query.order_by(WeighInRow.key.desc()).limit(size + 1)).all()
            rows = asked[:size]
            earlier = _ones_before(session, rig_id, rows)
            facts = _facts(session, row, [*rows, *earlier.values()], keep=keep)
            lines: list[tuple[Recorded, Facts | None]] = []
            last = ""
            for weigh_in_row in rows:
                number = number_of(
                    session, rig_id, weigh_in_row.key, lines[-1][0].number if lines else None, last
                )
                last = weigh_in_row.key
                recorded = earlier.get(weigh_in_row.id)
                lines.append(
                    (
                        Recorded(number, facts[weigh_in_row.id], weigh_in_row.key),
                        facts[recorded.id] if recorded else None,
                    )
                )
            count = row_count(session, WeighInRow.rig_id == rig_id)
            return Page(tuple(lines), len(asked) > size, count)

        return self._looked(make)

    def _looked(self, make: Callable[[Session, bool], Made]) -> Made:
        """Only read, as long as nothing has to be recomputed: a reader never waits for a long
        import.
        """
        try:
            with self._database.reading() as session:
                return make(session, False)
        except _Stale:
            with self._database.writing() as session:
                return make(session, True)

    def run(
        self, rig_id: str, *, until: int | None = None, size: int = 300
    ) -> tuple[list[Recorded], int]:
        """Weigh-ins in a row, in order, up to one of them or to the last; and how many there are in
        all.
        """

        def make(session: Session, keep: bool) -> tuple[list[Recorded], int]:
            row = row_of(session, rig_id)
            query, count = _all(rig_id), row_count(session, WeighInRow.rig_id == rig_id)
            last = min(until or count, count)
            following = key_of(session, rig_id, last + 1)
            if following is not None:
                query = query.where(WeighInRow.key < following)
            rows = session.scalars(query.order_by(WeighInRow.key.desc()).limit(size)).all()[::-1]
            facts = _facts(session, row, rows, keep=keep)
            first = last - len(rows) + 1
            return [Recorded(first + index, facts[row.id]) for index, row in enumerate(rows)], count

        return self._looked(make)


def _all(rig_id: str) -> Select[WeighInRow]:
    return select(WeighInRow).where(WeighInRow.rig_id == rig_id)


def _ones_before(
    session: Session, rig_id: str, rows: Sequence[WeighInRow]
) -> dict[int, WeighInRow]:
    """For each weigh-in the one before it in the log, by the id of the later one."""
    other = aliased(WeighInRow)
    before = select(func.max(other.key)).where(other.rig_id == rig_id, other.key < WeighInRow.key)
    query = select(WeighInRow.id, before.scalar_subquery()).where(
        WeighInRow.id.in_([row.id for row in rows])
    )
    before_it = {own: key for own, key in session.execute(query) if key is not None}
    asked = _all(rig_id).where(WeighInRow.key.in_(before_it.values()))
    rows_before = {row.key: row for row in session.scalars(asked)}
    return {own: rows_before[key] for own, key in before_it.items()}


def _basis(release: str, document: Document) -> str:
    """A mark of all that a weigh-in's facts rest on beside its own figures."""
    return hashlib.sha256(f"{release} {dump(without_identities(document))}".encode()).hexdigest()


def _otherwise(release: str, before: str | None, now: Facts) -> Rejudged | None:
    """What was said before, where the verdict is another now."""
    facts = json.loads(before or "{}")
    verdict, sentence = facts.get("verdict"), facts.get("sentence")
    if verdict in (None, now.verdict):
        return None
    return Rejudged(release=release, verdict=verdict, sentence=sentence or "")


class _Stale(Exception):
    """Facts have to be recomputed, which only a session that writes may do."""


def _facts(
    session: Session, row: RigRow, wanted: Sequence[WeighInRow], *, keep: bool
) -> dict[int, Facts]:
    """The facts of some weigh-ins, recomputed where what they rest on has changed since."""
    document = {key: value for key, value in assemble(session, row).items() if key not in _APART}
    basis = _basis(VERSION, document)
    rows = {row.id: row for row in wanted}
    kept = {
        facts.weigh_in_id: facts
        for facts in session.scalars(select(FactsRow).where(FactsRow.weigh_in_id.in_(rows)))
    }
    stale = [key for key, facts in kept.items() if facts.basis != basis or facts.facts is None]
    if stale and not keep:
        raise _Stale
    if stale:
        weighed: Document = {
            **document,
            "weigh_ins": [
                read_document(rows[key], weigh_in_words(rows[key].date)) for key in stale
            ],
        }
        rig = settle(weighed).rig
        earlier = {_basis(release, document): release for release in RELEASES}
        for number, key in enumerate(stale, 1):
            facts, release = facts_of(rig, number), earlier.get(kept[key].basis or "")
            if release:  # the same figures, under the rules of another release
                before = _otherwise(release, kept[key].facts, facts)
                facts = facts.model_copy(update={"rejudged": before})
            kept[key].basis, kept[key].facts = basis, facts.model_dump_json()
    return {key: Facts.model_validate_json(facts.facts or "") for key, facts in kept.items()}
