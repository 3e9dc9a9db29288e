"""How much, and every vehicle with every trailer: ``/api/rigs/{id}/how-much`` and
``/api/match``.
"""

from collections.abc import Iterator, Sequence
from typing import Annotated

from fastapi import Query, Response
from pydantic import BaseModel

from noxel.api.deps import MOST, Id, Looking, TheGarage, TheRigs, as_json, new_router, open_at
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
    rigs: TheRigs,
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
    return as_json(how_much(rig, start=start, added=more, share=share, number=stored.window.at))


@router.get("/rigs/{rig_id}/can-tow", response_model=TowAnswer)
def ask_can_tow(rig_id: Id, rigs: TheRigs, weigh_in: Looking = None) -> Response:
    """Whether the rig's vehicle can tow its trailer: what is known so far, in the words of the
    question.
    """
    stored = open_at(rigs, rig_id, weigh_in)
    return as_json(can_tow(settle(stored.document).rig, stored.window.at))


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

    def __init__(self, entries: GarageEntries, aboard: float | None, hitch: float | None) -> None:
        self.damaged = list(entries.damaged)
        self.vehicles: dict[str, MatchVehicle] = {}
        self.trailers: dict[str, MatchTrailer] = {}
        for entry, rig in self._rigs(entries.vehicles):
            listed = aboard if aboard is not None or entry.in_a_rig else 0.0
            self.vehicles[entry.id] = match_vehicle(
                entry.id, entry.name, rig, listed, in_a_rig=entry.in_a_rig, hitch=hitch
            )
        for entry, rig in self._rigs(entries.trailers):
            trailer = trailer_of_rig(entry.id, entry.name, rig, in_a_rig=entry.in_a_rig)
            if trailer is not None:
                self.trailers[entry.id] = trailer

    def _rigs(self, entries: Sequence[GarageEntry]) -> Iterator[tuple[GarageEntry, RigFile]]:
        for entry in entries:
            try:
                yield entry, settle(entry.document).rig
            except InputError:
                self.damaged.append(entry.name)


def _cell(match: Match) -> Cell:
    return Cell(
        vehicle=match.vehicle,
        trailer=match.trailer,
        ceiling=match.ceiling,
        binding=match.binding_label,
        share=match.share,
        share_way=match.share_way,
        verdict=match.verdict,
        room=match.room,
        verdict_expected=match.verdict_expected,
        room_expected=match.room_expected,
        in_front=match.in_front,
        in_front_expected=match.in_front_expected,
        too_close=match.too_close,
        says=match.says,
        missing=match.missing,
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
    material = _Material(entries, _mass("aboard", aboard, unit), _mass("hitch", hitch, unit))
    vehicles, trailers = material.vehicles.values(), material.trailers.values()
    pairs = [
        _cell(match_pair(puller, trailer, share, unit))
        for puller in vehicles
        for trailer in trailers
    ]
    return as_json(
        MatchTable(
            unit=unit,
            vehicles=[MatchEntry(id=vehicle.id, name=vehicle.name) for vehicle in vehicles],
            trailers=[
                MatchEntry(
                    id=trailer.id,
                    name=trailer.name,
                    rated=None if trailer.rated is None else trailer.rated / KG[unit],
                    expected=None if trailer.expected is None else trailer.expected / KG[unit],
                    share=trailer.share.value,
                    share_way=SHARE_WORDS[trailer.share.way],
                )
                for trailer in trailers
            ],
            pairs=pairs,
            vehicle_count=entries.vehicle_count,
            trailer_count=entries.trailer_count,
            at_once=AT_ONCE,
            damaged=material.damaged,
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
    material = _Material(entries, _mass("aboard", aboard, unit), _mass("hitch", hitch, unit))
    pullers, pulled = material.vehicles, material.trailers
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
