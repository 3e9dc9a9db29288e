"""How much, and every vehicle with every trailer: ``/api/rigs/{id}/how-much`` and
``/api/match``.
"""

from collections.abc import Iterator, Sequence
from typing import Annotated

from fastapi import Query, Response
from pydantic import BaseModel

from noxel.api.deps import MOST, Id, Looking, Store, TheGarage, new_router, open_at, sheet_as_json
from noxel.core.editing import settle
from noxel.core.match import (
    SHARE_WORDS,
    HowMuch,
    Match,
    MatchRow,
    MatchTrailer,
    MatchVehicle,
    Start,
    TowAnswer,
    can_tow,
    explain,
    how_much,
    match_pair,
    match_vehicle,
    trailer_of_rig,
)
from noxel.core.quantities import KG, MassUnit, read_mass, read_typed
from noxel.core.rig import RigFile
from noxel.errors import InputError, NotFound, Problem
from noxel.store.garage import GarageEntries, GarageEntry

router = new_router()
Share = Annotated[float | None, Query(ge=0.001, lt=0.5, description="Tongue share, such as 0.13.")]
Typed = Annotated[str, Query(max_length=100)]
From = Annotated[int, Query(ge=0, le=MOST)]
AT_ONCE = 50
"""How many vehicles and how many trailers one table holds."""


class Cell(BaseModel):
    """One pair in the table."""

    vehicle: str
    trailer: str
    ceiling: float | None
    binding: str | None
    share: float
    share_way: str
    verdict: str
    room: float | None
    verdict_expected: str | None
    room_expected: float | None
    in_front: float | None
    in_front_expected: float | None
    too_close: bool
    says: str
    missing: list[str]


class MatchEntry(BaseModel):
    """A vehicle or a trailer of the table; a trailer with what it is rated and expected to weigh,
    and its tongue share.
    """

    id: str
    name: str
    rated: float | None = None
    expected: float | None = None
    share: float | None = None
    share_way: str | None = None


class MatchTable(BaseModel):
    """Every vehicle before every trailer."""

    unit: MassUnit
    vehicles: list[MatchEntry]
    trailers: list[MatchEntry]
    pairs: list[Cell]
    vehicle_count: int
    trailer_count: int
    at_once: int
    damaged: list[str]


class PairsCompared(BaseModel):
    """Two pairs in full, and why they differ."""

    one: Cell
    other: Cell
    one_rows: list[MatchRow]
    other_rows: list[MatchRow]
    says: list[str]


@router.get("/rigs/{rig_id}/how-much", response_model=HowMuch)
def ask_how_much(
    rig_id: Id,
    rigs: Store,
    start: Start | None = None,
    added: Typed = "",
    share: Share = None,
    weigh_in: Looking = None,
) -> Response:
    """The heaviest trailer by every limit, with so much more aboard and at such a tongue share; the
    room as a picture.
    """
    stored = open_at(rigs, rig_id, weigh_in)
    rig = settle(stored.document).rig
    more = _mass("added", added, rig.units.mass) or 0.0
    return sheet_as_json(
        how_much(rig, start=start, added=more, share=share, number=stored.window.at)
    )


@router.get("/rigs/{rig_id}/can-tow", response_model=TowAnswer)
def ask_can_tow(rig_id: Id, rigs: Store, weigh_in: Looking = None) -> Response:
    """Whether the rig's vehicle can tow its trailer: what is known so far, in the words of the
    question.
    """
    stored = open_at(rigs, rig_id, weigh_in)
    return sheet_as_json(can_tow(settle(stored.document).rig, stored.window.at))


def _mass(name: str, text: str, unit: MassUnit) -> float | None:
    if not text.strip():
        return None
    try:
        value = read_typed(text, "mass", unit).value
    except InputError as exc:
        raise InputError(exc.message, [Problem(name, exc.message, exc.code)]) from exc
    return read_mass(value) if isinstance(value, str) else value * KG[unit]


class _Material:
    """All that the garage offers for a match; what is damaged is named and left out."""

    def __init__(self, found: GarageEntries, aboard: float | None, hitch: float | None) -> None:
        self.damaged = list(found.damaged)
        self.vehicles: dict[str, MatchVehicle] = {}
        self.trailers: dict[str, MatchTrailer] = {}
        for each, rig in self._rigs(found.vehicles):
            listed = aboard if aboard is not None or each.in_a_rig else 0.0
            self.vehicles[each.id] = match_vehicle(
                each.id, each.name, rig, listed, in_a_rig=each.in_a_rig, hitch=hitch
            )
        for each, rig in self._rigs(found.trailers):
            trailer = trailer_of_rig(each.id, each.name, rig, in_a_rig=each.in_a_rig)
            if trailer is not None:
                self.trailers[each.id] = trailer

    def _rigs(self, entries: Sequence[GarageEntry]) -> Iterator[tuple[GarageEntry, RigFile]]:
        for each in entries:
            try:
                yield each, settle(each.document).rig
            except InputError:
                self.damaged.append(each.name)


def _cell(made: Match) -> Cell:
    return Cell(
        vehicle=made.vehicle,
        trailer=made.trailer,
        ceiling=made.ceiling,
        binding=made.binding_label,
        share=made.share,
        share_way=made.share_way,
        verdict=made.verdict,
        room=made.room,
        verdict_expected=made.verdict_expected,
        room_expected=made.room_expected,
        in_front=made.in_front,
        in_front_expected=made.in_front_expected,
        too_close=made.too_close,
        says=made.says,
        missing=made.missing,
    )


@router.get("/match", response_model=MatchTable)
def match_all(
    garage: TheGarage,
    unit: MassUnit = "lb",
    aboard: Typed = "",
    hitch: Typed = "",
    share: Share = None,
    vehicles_from: From = 0,
    trailers_from: From = 0,
) -> Response:
    """Vehicles of the garage before its trailers, so many at once, with the same people and gear
    aboard where a mass is given.
    """
    entries = garage.entries(first=(vehicles_from, trailers_from), most=AT_ONCE)
    found = _Material(entries, _mass("aboard", aboard, unit), _mass("hitch", hitch, unit))
    vehicles, trailers = found.vehicles.values(), found.trailers.values()
    pairs = [
        _cell(match_pair(puller, each, share, unit)) for puller in vehicles for each in trailers
    ]
    return sheet_as_json(
        MatchTable(
            unit=unit,
            vehicles=[MatchEntry(id=each.id, name=each.name) for each in vehicles],
            trailers=[
                MatchEntry(
                    id=each.id,
                    name=each.name,
                    rated=None if each.rated is None else each.rated / KG[unit],
                    expected=None if each.expected is None else each.expected / KG[unit],
                    share=each.share.value,
                    share_way=SHARE_WORDS[each.share.way],
                )
                for each in trailers
            ],
            pairs=pairs,
            vehicle_count=entries.vehicle_count,
            trailer_count=entries.trailer_count,
            at_once=AT_ONCE,
            damaged=found.damaged,
        )
    )


@router.get("/match/compare")
def compare(
    garage: TheGarage,
    vehicle: str,
    trailer: str,
    other_vehicle: str,
    other_trailer: str,
    unit: MassUnit = "lb",
    aboard: Typed = "",
    hitch: Typed = "",
    share: Share = None,
) -> PairsCompared:
    """Two pairs in full, side by side, and why they differ."""
    entries = garage.entries(only={vehicle, trailer, other_vehicle, other_trailer})
    found = _Material(entries, _mass("aboard", aboard, unit), _mass("hitch", hitch, unit))
    pullers, pulled = found.vehicles, found.trailers
    for key, among in (
        (vehicle, pullers),
        (other_vehicle, pullers),
        (trailer, pulled),
        (other_trailer, pulled),
    ):
        if key not in among:
            raise NotFound("There is no such equipment in the garage, or it is retired.")
    one, other = (
        match_pair(pullers[vehicle], pulled[trailer], share, unit),
        match_pair(pullers[other_vehicle], pulled[other_trailer], share, unit),
    )
    return PairsCompared(
        one=_cell(one),
        other=_cell(other),
        one_rows=one.rows,
        other_rows=other.rows,
        says=explain(one, other, pullers, pulled, unit),
    )
