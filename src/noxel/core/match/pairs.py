"""Every vehicle of the garage with every trailer, by every limit that is known."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from noxel.core.limits import Limit, Status, Verdict, cushion
from noxel.core.match.candidates import MatchTrailer, MatchVehicle
from noxel.core.match.ceiling import ASKED, Use, every_use, in_front
from noxel.core.match.loaded_vehicle import ON_LIMIT
from noxel.core.quantities import KG, MassUnit, lower_first, print_mass
from noxel.core.wording import check_label, limiting_rating, term_name, vehicle_word

_BY_HITCH = (
    "vehicle.rear_axle",
    "vehicle.front_axle",
    "tires.rear",
    "tires.front",
    "hitch.trailer",
    "hitch.tongue",
)
"""What depends on where and by what the trailer is hitched."""


_OPTIONAL = ("tires.rear", "tires.front", "trailer.gross", "trailer.axles", "tires.trailer")
"""Judged where both load and limit are known, and not missed otherwise."""


_ORDER = (*ASKED, *_OPTIONAL)


_ONLY_A_GUIDE = ("rough", "conservative")
"""Limits worked out too low, or by a rule of thumb: they neither limit nor stop a pair."""


@dataclass(frozen=True, slots=True)
class MatchRow:
    """One limit of a pair, in the unit asked for; without a margin it says what is missing."""

    check: str
    label: str
    actual: float | None
    limit: float | None
    margin: float | None
    status: Status
    missing: str | None


@dataclass(frozen=True, slots=True)
class Match:
    """A pair: the heaviest this vehicle may pull of it, the room at its rating and as expected, the
    limit, what was not counted.

    ``in_front`` is by how much the front axle is over its limit, its tires included, though the
    trailer relieves it; None where it is not.
    """

    vehicle: str
    trailer: str
    ceiling: float | None
    binding: str | None
    binding_label: str | None
    share: float
    verdict: Verdict
    room: float | None
    verdict_expected: Verdict | None
    room_expected: float | None
    in_front: float | None
    in_front_expected: float | None
    says: str
    missing: list[str]
    rows: list[MatchRow]


def _trailer_uses(share: float, tires: int | None) -> dict[str, Use]:
    """How a trailer uses its own limits."""
    found = {"trailer.gross": Use(0.0, 1.0), "trailer.axles": Use(0.0, 1.0 - share)}
    return found | {"tires.trailer": Use(0.0, (1.0 - share) / tires)} if tires else found


def _why(
    vehicle: MatchVehicle, trailer: MatchTrailer, check: str, known: Mapping[str, Limit | None]
) -> str:
    """Why a limit of a pair cannot be judged."""
    if check in _BY_HITCH and _other_hitch(vehicle, trailer):
        stands, needs = ("above", "behind") if vehicle.on_pin else ("behind", "above")
        return (
            f"its hitch is {stands} the rear axle, this trailer needs one {needs} it: plan it "
            "with that hitch"
        )
    if known.get(check) is None:
        return "no rating entered"
    if trailer.rated is None and trailer.expected is None:
        return "the trailer's rating and its weight are not entered"
    return (
        "its axle loads are not known: weigh it or plan it"
        if check.endswith("axle")
        else "its curb weight, or GVWR and payload, is not entered"
    )


def _verdict(rows: Sequence[tuple[float, Limit]], missing: bool) -> Verdict:
    if any(margin < -1e-6 and limit.certainty not in _ONLY_A_GUIDE for margin, limit in rows):
        return "stop"
    if missing or not rows:
        return "incomplete"
    return "within" if all(limit.real for _, limit in rows) else "caution"


def _other_hitch(vehicle: MatchVehicle, trailer: MatchTrailer) -> bool:
    return None not in (vehicle.on_pin, trailer.on_pin) and vehicle.on_pin != trailer.on_pin


class _Pair:
    """One vehicle with one trailer, limit by limit."""

    def __init__(
        self, vehicle: MatchVehicle, trailer: MatchTrailer, share: float, unit: MassUnit
    ) -> None:
        self.vehicle, self.trailer, self.factor = vehicle, trailer, KG[unit]
        tires = trailer.trailer.tires.count if trailer.trailer.tires else None
        self.used = every_use(vehicle.rig, vehicle.solo, share) | _trailer_uses(share, tires)
        if _other_hitch(vehicle, trailer):
            self.used = {check: use for check, use in self.used.items() if check not in _BY_HITCH}
        self.known = {**vehicle.known, **trailer.known}
        self.rated = trailer.rated if trailer.rated is not None else trailer.expected
        self.rows: list[MatchRow] = []
        self.at_rated: list[tuple[float, Limit]] = []
        self.at_expected: list[tuple[float, Limit]] = []
        self.missing: list[str] = []
        self.tops: dict[str, float] = {}
        for check in _ORDER:
            self._look(check)

    def _look(self, check: str) -> None:
        use, limit, rated = self.used.get(check), self.known.get(check), self.rated
        # a ball takes load off it
        relieved = check in ("vehicle.front_axle", "tires.front") and (
            use is None or use.slope <= 0
        )
        if use is None or limit is None or rated is None:
            if not relieved and check not in _OPTIONAL:
                self._lacks(check, limit)
            return
        cap = cushion(self.vehicle.rig, check) * limit.kg
        margin = cap - use.used - use.slope * rated
        if (
            use.slope > 0
            and limit.certainty not in _ONLY_A_GUIDE
            and not check.startswith("trailer.")
        ):
            self.tops[check] = max(0.0, (cap - use.used) / use.slope)
        self.at_rated.append((margin, limit))
        if self.trailer.expected is not None:
            self.at_expected.append((cap - use.used - use.slope * self.trailer.expected, limit))
        over = margin < -1e-9 * cap and limit.certainty not in _ONLY_A_GUIDE
        status: Status = "over" if over else "within" if limit.real else "unconfirmed"
        factor = self.factor
        self.rows.append(
            MatchRow(
                check,
                self._label(check),
                (cap - margin) / factor,
                cap / factor,
                margin / factor,
                status,
                None,
            )
        )

    def _lacks(self, check: str, limit: Limit | None) -> None:
        label, why = self._label(check), _why(self.vehicle, self.trailer, check, self.known)
        self.missing.append(f"{label}: {why}")
        self.rows.append(
            MatchRow(
                check, label, None, limit.kg / self.factor if limit else None, None, "unknown", why
            )
        )

    def _label(self, check: str) -> str:
        return check_label(self.vehicle.rig, check)

    def over_in_front(self, kg: float | None) -> float:
        """By how much the front axle stays over its limit with a trailer of such a mass. [kg]"""
        if kg is None:
            return 0.0
        return max(
            (
                row.used + row.slope * kg
                for row in in_front(self.vehicle.rig, self.used, self.known)
            ),
            default=0.0,
        )


def match_pair(
    vehicle: MatchVehicle, trailer: MatchTrailer, share: float | None, unit: MassUnit
) -> Match:
    """Match a trailer with a vehicle, at the trailer's rating and as expected.

    Parameters
    ----------
    vehicle, trailer
        From the garage.
    share : float or None
        Tongue share; None is the one taken for the trailer.
    unit : {"lb", "kg"}
        Unit of the answer.

    Returns
    -------
    Match
        Where a rating is missing the verdict is at best incomplete and names it; a proven overload
        is a stop all the same.
    """
    share = trailer.share if share is None else share
    pair, factor = _Pair(vehicle, trailer, share, unit), KG[unit]
    binding = min(pair.tops, key=lambda check: pair.tops[check], default=None)
    top = pair.tops[binding] if binding else None
    room = top - pair.rated if top is not None and pair.rated is not None else None
    expected = top - trailer.expected if top is not None and trailer.expected is not None else None
    front, front_expected = pair.over_in_front(pair.rated), pair.over_in_front(trailer.expected)
    return Match(
        vehicle=vehicle.id,
        trailer=trailer.id,
        ceiling=None if top is None else top / factor,
        binding=binding,
        binding_label=check_label(vehicle.rig, binding) if binding else None,
        share=share,
        verdict=_verdict(pair.at_rated, bool(pair.missing)),
        room=None if room is None else room / factor,
        verdict_expected=_verdict(pair.at_expected, bool(pair.missing))
        if trailer.expected is not None
        else None,
        room_expected=None if expected is None else expected / factor,
        in_front=front / factor if front > ON_LIMIT else None,
        in_front_expected=front_expected / factor if front_expected > ON_LIMIT else None,
        says=_says(pair, binding, top, unit) + _in_front(front, front_expected, unit),
        missing=pair.missing,
        rows=pair.rows,
    )


def _in_front(rated: float, expected: float, unit: MassUnit) -> str:
    """A front axle over its limit, which a trailer relieves and does not cure. [kg]"""
    if max(rated, expected) <= ON_LIMIT:
        return ""
    if rated <= ON_LIMIT:
        return (
            " As expected the trailer takes too little off the front axle: "
            f"{print_mass(expected, unit)} over its limit."
        )
    return (
        f" The front axle stays {print_mass(rated, unit)} over its limit: too much lies in front."
    )


def _says(pair: _Pair, binding: str | None, top: float | None, unit: MassUnit) -> str:
    if binding is None or top is None:
        return "No limit is known yet."
    heavy, light = pair.trailer.rated, pair.trailer.expected
    said = f"Limited to {print_mass(top, unit)} by {limiting_rating(pair.vehicle.rig, binding)}"
    if heavy is not None and heavy > top and light is not None and light <= top:
        dry = pair.trailer.trailer.dry_weight
        cargo = (
            f", {print_mass(top - dry.kg, unit)} of cargo above its "
            f"{term_name(pair.vehicle.rig, 'dry_weight')}"
            if dry and top > dry.kg
            else ""
        )
        return (
            f"{said}. The trailer's rating, {print_mass(heavy, unit)}, is above that: the "
            "cautious school never couples such a pair; "
            f"the other loads it to at most {print_mass(top, unit)}{cargo}."
        )
    if heavy is not None and heavy > top:
        return (
            f"{said}; the trailer at its rating, {print_mass(heavy, unit)}, is "
            f"{print_mass(heavy - top, unit)} too heavy."
        )
    if heavy is None and light is not None:
        how = (
            f"leaves {print_mass(top - light, unit)} of room"
            if light <= top
            else f"is {print_mass(light - top, unit)} too heavy"
        )
        return f"{said}; the trailer as expected, {print_mass(light, unit)}, {how}."
    if heavy is None:
        return f"{said}; the trailer's rating and its weight are not entered."
    return f"{said}; {print_mass(top - heavy, unit)} of room with the trailer at its rating."


def explain(
    one: Match,
    other: Match,
    vehicles: Mapping[str, MatchVehicle],
    trailers: Mapping[str, MatchTrailer],
    unit: MassUnit,
) -> list[str]:
    """Why two pairs differ, limit by limit: the larger differences first."""
    a, b = vehicles[one.vehicle], vehicles[other.vehicle]
    same_vehicle, same_trailer = one.vehicle == other.vehicle, one.trailer == other.trailer
    factor, says = KG[unit], []
    if same_trailer and same_vehicle:
        return ["It is the same pair twice."]
    lead = (
        "Same trailer"
        if same_trailer
        else "Same vehicle"
        if same_vehicle
        else "Another vehicle and another trailer"
    )
    found = []
    there = {row.check: row for row in other.rows}
    for row in one.rows:
        across = there.get(row.check)
        if across is None or row.margin is None or across.margin is None:
            continue
        by = across.margin - row.margin
        if abs(by) * factor >= 1.0:
            found.append(
                (
                    abs(by),
                    f"{lower_first(row.label)} "
                    f"{print_mass(abs(by) * factor, unit)} {'more' if by > 0 else 'less'}",
                )
            )
    found.sort(reverse=True)
    if found:
        who = (
            f"the other {vehicle_word(b.rig)}"
            if same_trailer
            else "the other trailer"
            if same_vehicle
            else "the other pair"
        )
        says.append(f"{lead}: {who} leaves " + ", ".join(text for _, text in found[:6]) + ".")
    else:
        says.append(f"{lead}: every limit leaves the same.")
    if one.binding and other.binding:
        says.append(
            f"{a.name or 'The first'} with {trailers[one.trailer].name or 'its trailer'}: "
            f"{one.says}"
        )
        says.append(
            f"{b.name or 'The other'} with {trailers[other.trailer].name or 'its trailer'}: "
            f"{other.says}"
        )
    return says
