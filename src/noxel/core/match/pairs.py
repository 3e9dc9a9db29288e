"""Every vehicle of the garage with every trailer, by every limit that is known."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from noxel.core.limits import CheckId, Limit, Status, Verdict, cushion, status_at
from noxel.core.match.candidates import MatchTrailer, MatchVehicle
from noxel.core.match.ceiling import ASKED, ceiling_of, every_use, in_front, trailer_uses
from noxel.core.match.loaded_vehicle import ON_LIMIT
from noxel.core.match.own_share import SHARE_WORDS, Share
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


_OPTIONAL: tuple[CheckId, ...] = (
    "tires.rear",
    "tires.front",
    "trailer.gross",
    "trailer.axles",
    "tires.trailer",
)
"""Judged where both load and limit are known, and not missed otherwise."""


_ORDER = (*ASKED, *_OPTIONAL)


@dataclass(frozen=True, slots=True)
class MatchRow:
    """One limit of a pair, in the unit asked for; without a margin it says what is missing."""

    check: CheckId
    label: str
    actual: float | None
    plus_minus: float | None
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
    binding: CheckId | None
    binding_label: str | None
    share: float
    share_way: str
    verdict: Verdict
    room: float | None
    verdict_expected: Verdict | None
    room_expected: float | None
    in_front: float | None
    in_front_expected: float | None
    too_close: bool
    says: str
    missing: list[str]
    rows: list[MatchRow]


def _why(
    vehicle: MatchVehicle,
    trailer: MatchTrailer,
    check: CheckId,
    known: Mapping[CheckId, Limit | None],
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


def _verdict(statuses: Sequence[Status], missing: bool) -> Verdict:
    if "over" in statuses:
        return "stop"
    if missing or not statuses:
        return "incomplete"
    return "within" if all(status == "within" for status in statuses) else "caution"


def _other_hitch(vehicle: MatchVehicle, trailer: MatchTrailer) -> bool:
    return None not in (vehicle.on_pin, trailer.on_pin) and vehicle.on_pin != trailer.on_pin


class _Pair:
    """One vehicle with one trailer, limit by limit."""

    def __init__(
        self, vehicle: MatchVehicle, trailer: MatchTrailer, share: Share, unit: MassUnit
    ) -> None:
        self.vehicle, self.trailer, self.factor = vehicle, trailer, KG[unit]
        self.used = every_use(vehicle.rig, vehicle.solo, share)
        if _other_hitch(vehicle, trailer):
            self.used = {check: use for check, use in self.used.items() if check not in _BY_HITCH}
        own = trailer_uses(trailer.trailer, share)
        self.known = vehicle.limits_with(trailer.trailer) | dict(trailer.known)
        self.top = ceiling_of(vehicle.rig, self.used, share, self.known)
        self.used |= own
        self.rows: list[MatchRow] = []
        self.at_expected: list[Status] = []
        self.missing: list[str] = []
        for check in _ORDER:
            self._look(check)

    @property
    def rated(self) -> tuple[float, float] | None:
        """What the trailer is looked at with, and its ±: its rating, else what it weighs. [kg]"""
        if self.trailer.rated is not None:
            return self.trailer.rated, 0.0
        return self.expected

    @property
    def expected(self) -> tuple[float, float] | None:
        """What it weighs or is expected to, and its ±. [kg]"""
        kg = self.trailer.expected
        return None if kg is None else (kg, self.trailer.expected_off)

    def _look(self, check: CheckId) -> None:
        use, limit, rated = self.used.get(check), self.known.get(check), self.rated
        # a ball takes load off it
        relieved = check in ("vehicle.front_axle", "tires.front") and (
            use is None or use.slope <= 0
        )
        if use is None or limit is None or rated is None:
            if not relieved and check not in _OPTIONAL:
                self._lacks(check, limit)
            return
        cushioned, factor = cushion(self.vehicle.rig, check), self.factor
        load, off = use.load(*rated)
        status = status_at(load, off, limit, cushioned)
        if check == "trailer.gross" and not off and load <= limit.kg:
            status = "within"  # loaded just to its rating
        if self.expected is not None:
            self.at_expected.append(status_at(*use.load(*self.expected), limit, cushioned))
        self.rows.append(
            MatchRow(
                check,
                self._label(check),
                load / factor,
                off / factor,
                limit.kg / factor,
                (limit.kg - load) / factor,
                status,
                None,
            )
        )

    def _lacks(self, check: CheckId, limit: Limit | None) -> None:
        label, why = self._label(check), _why(self.vehicle, self.trailer, check, self.known)
        self.missing.append(f"{label}: {why}")
        self.rows.append(
            MatchRow(
                check,
                label,
                None,
                None,
                limit.kg / self.factor if limit else None,
                None,
                "unknown",
                why,
            )
        )

    def _label(self, check: CheckId) -> str:
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
    assumed = trailer.share if share is None else Share(share, "typed")
    pair, factor = _Pair(vehicle, trailer, assumed, unit), KG[unit]
    binding, top = pair.top.binding, pair.top.ceiling
    rated, light = pair.rated[0] if pair.rated else None, trailer.expected
    room = None if top is None or rated is None else top - rated
    expected = None if top is None or light is None else top - light
    statuses = [row.status for row in pair.rows if row.missing is None]
    front, front_expected = pair.over_in_front(rated), pair.over_in_front(light)
    return Match(
        vehicle=vehicle.id,
        trailer=trailer.id,
        ceiling=None if top is None else top / factor,
        binding=binding,
        binding_label=check_label(vehicle.rig, binding) if binding else None,
        share=assumed.value,
        share_way=SHARE_WORDS[assumed.way],
        verdict=_verdict(statuses, bool(pair.missing)),
        room=None if room is None else room / factor,
        verdict_expected=_verdict(pair.at_expected, bool(pair.missing))
        if trailer.expected is not None
        else None,
        room_expected=None if expected is None else expected / factor,
        in_front=front / factor if front > ON_LIMIT else None,
        in_front_expected=front_expected / factor if front_expected > ON_LIMIT else None,
        too_close="over" not in statuses and "tight" in statuses,
        says=_says(pair, binding, top, unit)
        + _in_front(front, front_expected, unit)
        + _too_close(pair.rows),
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


def _too_close(rows: Sequence[MatchRow]) -> str:
    """The limits of which it cannot be told whether they are kept."""
    labels = [
        lower_first(row.label)
        for row in rows
        if row.status == "tight" and (row.margin or 0.0) <= (row.plus_minus or 0.0)
    ]
    return f" Too close to say: {', '.join(labels)}, by the ±." if labels else ""


def _says(pair: _Pair, binding: CheckId | None, top: float | None, unit: MassUnit) -> str:
    if binding is None or top is None:
        return "No limit is known yet."
    heavy, light = pair.trailer.rated, pair.trailer.expected
    sentence = f"Limited to {print_mass(top, unit)} by {limiting_rating(pair.vehicle.rig, binding)}"
    if heavy is not None and heavy > top and light is not None and light <= top:
        dry = pair.trailer.trailer.dry_weight
        cargo = (
            f", {print_mass(top - dry.kg, unit)} of cargo above its "
            f"{term_name(pair.vehicle.rig, 'dry_weight')}"
            if dry and top > dry.kg
            else ""
        )
        return (
            f"{sentence}. The trailer's rating, {print_mass(heavy, unit)}, is above that: the "
            "cautious school never couples such a pair; "
            f"the other loads it to at most {print_mass(top, unit)}{cargo}."
        )
    if heavy is not None and heavy > top:
        return (
            f"{sentence}; the trailer at its rating, {print_mass(heavy, unit)}, is "
            f"{print_mass(heavy - top, unit)} too heavy."
        )
    if heavy is None and light is not None:
        how = (
            f"leaves {print_mass(top - light, unit)} of room"
            if light <= top
            else f"is {print_mass(light - top, unit)} too heavy"
        )
        return f"{sentence}; the trailer as expected, {print_mass(light, unit)}, {how}."
    if heavy is None:
        return f"{sentence}; the trailer's rating and its weight are not entered."
    return f"{sentence}; {print_mass(top - heavy, unit)} of room with the trailer at its rating."


def explain(
    first: Match,
    other: Match,
    vehicles: Mapping[str, MatchVehicle],
    trailers: Mapping[str, MatchTrailer],
    unit: MassUnit,
) -> list[str]:
    """Why two pairs differ, limit by limit: the larger differences first."""
    a, b = vehicles[first.vehicle], vehicles[other.vehicle]
    same_vehicle, same_trailer = first.vehicle == other.vehicle, first.trailer == other.trailer
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
    changes = []
    by_check = {row.check: row for row in other.rows}
    for row in first.rows:
        across = by_check.get(row.check)
        if across is None or row.margin is None or across.margin is None:
            continue
        by = across.margin - row.margin
        if abs(by) * factor >= 1.0:
            changes.append(
                (
                    abs(by),
                    f"{lower_first(row.label)} "
                    f"{print_mass(abs(by) * factor, unit)} {'more' if by > 0 else 'less'}",
                )
            )
    changes.sort(reverse=True)
    if changes:
        who = (
            f"the other {vehicle_word(b.rig)}"
            if same_trailer
            else "the other trailer"
            if same_vehicle
            else "the other pair"
        )
        says.append(f"{lead}: {who} leaves " + ", ".join(text for _, text in changes[:6]) + ".")
    else:
        says.append(f"{lead}: every limit leaves the same.")
    if first.binding and other.binding:
        says.append(
            f"{a.name or 'The first'} with {trailers[first.trailer].name or 'its trailer'}: "
            f"{first.says}"
        )
        says.append(
            f"{b.name or 'The other'} with {trailers[other.trailer].name or 'its trailer'}: "
            f"{other.says}"
        )
    return says
