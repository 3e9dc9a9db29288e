"""Which with which: every vehicle of the garage before every trailer, by every limit that is known."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from noxel.core.ceiling import Use, as_towing, every_use, in_front
from noxel.core.checks import Status, Verdict
from noxel.core.loaded import SLACK, load_place, solo_from_weigh_in, weigh_in_numbered
from noxel.core.predict import Solo, predict_solo
from noxel.core.ratings import Limit, cushion, limits, on_pin, share_range
from noxel.core.rig import Trailer
from noxel.core.rigfile import RigFile
from noxel.core.units import KG, MassUnit, print_mass
from noxel.core.weighing import weigh
from noxel.core.words import check_label, vehicle_word
from noxel.errors import MissingInput

BALL_USUAL, PIN_USUAL = 0.13, 0.20
"""Tongue share taken for a trailer that was never weighed: on a ball, on a pin."""
_BY_HITCH = ("vehicle.rear_axle", "vehicle.front_axle", "tires.rear", "tires.front", "hitch.trailer", "hitch.tongue")
"""What depends on where and by what the trailer is hitched."""
_ORDER = ("vehicle.tow_rating", "combination.gross", "vehicle.gross", "vehicle.rear_axle", "vehicle.front_axle", "vehicle.payload",
          "hitch.trailer", "hitch.tongue", "tires.rear", "tires.front")  # fmt: skip
_WHERE_KNOWN = ("tires.rear", "tires.front")
"""What is held against its limit where both are known, and is not missed otherwise."""


@dataclass(frozen=True, slots=True)
class Puller:
    """A vehicle ready to be matched: what is aboard, and how each of its limits is used. [kg]

    ``uses`` holds only what can be reckoned; ``missing`` says what could not and why; ``on_pin`` whether its hitch takes a pin,
    None where no rig says.
    """

    id: str
    name: str
    rig: RigFile
    known: Mapping[str, Limit | None]
    solo: Solo | None
    cargo: float
    missing: Mapping[str, str]
    on_pin: bool | None = None


@dataclass(frozen=True, slots=True)
class Pulled:
    """A trailer to be matched: at its own rating, and at what it is expected to weigh [kg], at the tongue share taken for it."""

    id: str
    name: str
    trailer: Trailer
    rated: float | None
    expected: float | None
    share: float
    on_pin: bool | None = None


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
    """A pair: the heaviest this vehicle may pull of it, the room at its rating and as expected, what binds, and what was not counted.

    ``in_front`` is by how much the front axle is over its limit, its tires included, though the trailer relieves it; None where it is not.
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


def ready_puller(id_: str, name: str, rig: RigFile, aboard: float | None, *, in_a_rig: bool = True) -> Puller:
    """Reckon once what a vehicle brings to every match.

    Parameters
    ----------
    id_, name : str
        Of the vehicle.
    rig : RigFile
        The vehicle with its hitch, and the plan and loads of a rig that it is in, where there is one.
    aboard : float or None
        People and gear; None takes what that rig lists. [kg]
    in_a_rig : bool
        Whether a rig has it; else nothing says what its hitch takes.

    Returns
    -------
    Puller
        Axle loads as weighed, else where the plan allows them; totals from the curb weight, else from GVWR − payload; payload always.
    """
    towing = as_towing(rig)
    listed = sum(load.kg for load in rig.loads if load.on == "vehicle")
    cargo = (listed if aboard is None else aboard) + rig.hitch.own_mass
    solo: Solo | None = None
    missing: dict[str, str] = {}
    try:
        planned = solo_from_weigh_in(rig, weigh_in_numbered(rig)) or predict_solo(towing)
        extra = 0.0 if aboard is None else aboard - listed
        place = load_place(rig)
        solo = Solo(
            planned.front + extra * (1 - place),
            planned.rear + extra * place,
            planned.cargo + extra,
            planned.wheelbase,
            planned.overhang,
        )
        cargo = solo.cargo
    except MissingInput as exc:
        missing["axles"] = exc.problems[0].message if exc.problems else exc.message
    known, pin = limits(towing), on_pin(rig) if in_a_rig else None
    return Puller(id_, name, towing, known, solo, cargo, missing, pin)


def _gross(puller: Puller) -> float | None:
    """The vehicle as loaded, without a trailer. [kg]"""
    if puller.solo is not None:
        return puller.solo.gross
    vehicle = puller.rig.vehicle
    if vehicle.curb_weight:
        return vehicle.curb_weight.kg + puller.cargo
    ratings = vehicle.ratings
    if ratings.gvwr and ratings.payload:
        return ratings.gvwr.kg - ratings.payload.kg + puller.cargo
    return None


def _uses(puller: Puller, share: float) -> dict[str, Use]:
    if puller.solo is not None:
        return every_use(puller.rig, puller.solo, share)
    found = {"vehicle.tow_rating": Use(0.0, 1.0), "hitch.trailer": Use(0.0, 1.0), "hitch.tongue": Use(0.0, share),
             "vehicle.payload": Use(puller.cargo, share)}  # fmt: skip
    gross = _gross(puller)
    if gross is not None:
        found |= {"combination.gross": Use(gross, 1.0), "vehicle.gross": Use(gross, share)}
    return found


def _why(puller: Puller, pulled: Pulled, check: str, used: Mapping[str, Use]) -> str:
    if check in _BY_HITCH and _other_hitch(puller, pulled):
        stands, needs = ("above", "behind") if puller.on_pin else ("behind", "above")
        return f"its hitch is {stands} the rear axle, this trailer needs one {needs} it: plan it with that hitch"
    if puller.known.get(check) is None:
        return "no rating entered"
    if check not in used:
        return "its axle loads are not planned" if check.endswith("axle") else "no curb weight and no payload to work it out"
    return ""


def _verdict(rows: Sequence[tuple[float, bool]], missing: bool) -> Verdict:
    if any(margin < -1e-6 for margin, _ in rows):
        return "stop"
    if missing or not rows:
        return "incomplete"
    return "caution" if any(worked_out for _, worked_out in rows) else "within"


def _other_hitch(puller: Puller, pulled: Pulled) -> bool:
    return None not in (puller.on_pin, pulled.on_pin) and puller.on_pin != pulled.on_pin


def match(puller: Puller, pulled: Pulled, share: float | None, unit: MassUnit) -> Match:
    """Hold a trailer against a vehicle, at the trailer's rating and as expected.

    Parameters
    ----------
    puller, pulled
        From the garage.
    share : float or None
        Tongue share; None is the one taken for the trailer.
    unit : {"lb", "kg"}
        Unit of the answer.

    Returns
    -------
    Match
        Where a rating is missing the verdict is at best incomplete and names it; a proven overload is a stop all the same.
    """
    share = pulled.share if share is None else share
    used, factor = _uses(puller, share), KG[unit]
    if _other_hitch(puller, pulled):
        used = {check: use for check, use in used.items() if check not in _BY_HITCH}
    rated = pulled.rated if pulled.rated is not None else pulled.expected
    rows, at_rated, at_expected, missing = [], [], [], []
    tops: dict[str, float] = {}
    for check in _ORDER:
        use, limit = used.get(check), puller.known.get(check)
        relieved = check in ("vehicle.front_axle", "tires.front") and (
            use is None or use.slope <= 0
        )  # on a ball it gets lighter
        if (relieved or check in _WHERE_KNOWN) and None in (use, limit, rated):
            continue
        label = check_label(puller.rig, check)
        if use is None or limit is None or rated is None:
            why = _why(puller, pulled, check, used) or "the trailer has no rating and no weight"
            missing.append(f"{label}: {why}")
            rows.append(MatchRow(check, label, None, limit.kg / factor if limit else None, None, "unknown", why))
            continue
        cap = cushion(puller.rig, check) * limit.kg
        actual = use.used + use.slope * rated
        if use.slope > 0:
            tops[check] = max(0.0, (cap - use.used) / use.slope)
        at_rated.append((cap - actual, limit.worked_out))
        if pulled.expected is not None:
            at_expected.append((cap - use.used - use.slope * pulled.expected, limit.worked_out))
        status: Status = "over" if actual > cap * (1 + 1e-9) else "unconfirmed" if limit.worked_out else "within"
        rows.append(MatchRow(check, label, actual / factor, cap / factor, (cap - actual) / factor, status, None))
    front, front_expected = (
        max((row.used + row.slope * kg for row in in_front(puller.rig, used, puller.known)), default=0.0)
        if kg is not None
        else 0.0
        for kg in (rated, pulled.expected)
    )
    binding = min(tops, key=lambda check: tops[check], default=None)
    top = tops[binding] if binding else None
    room = top - rated if top is not None and rated is not None else None
    expected = top - pulled.expected if top is not None and pulled.expected is not None else None
    return Match(
        vehicle=puller.id,
        trailer=pulled.id,
        ceiling=None if top is None else top / factor,
        binding=binding,
        binding_label=check_label(puller.rig, binding) if binding else None,
        share=share,
        verdict=_verdict(at_rated, bool(missing)),
        room=None if room is None else room / factor,
        verdict_expected=_verdict(at_expected, bool(missing)) if pulled.expected is not None else None,
        room_expected=None if expected is None else expected / factor,
        in_front=front / factor if front > SLACK else None,
        in_front_expected=front_expected / factor if front_expected > SLACK else None,
        says=_says(puller, pulled, binding, top, unit) + _in_front(front, front_expected, unit),
        missing=missing,
        rows=rows,
    )


def _in_front(rated: float, expected: float, unit: MassUnit) -> str:
    """A front axle over its limit, which a trailer relieves and does not cure. [kg]"""
    if max(rated, expected) <= SLACK:
        return ""
    if rated <= SLACK:
        return f" As expected the trailer takes too little off the front axle: {print_mass(expected, unit)} over its limit."
    return f" The front axle stays {print_mass(rated, unit)} over its limit: too much lies in front."


def _says(puller: Puller, pulled: Pulled, binding: str | None, top: float | None, unit: MassUnit) -> str:
    if binding is None or top is None:
        return "No limit is known yet."
    label = check_label(puller.rig, binding)
    heavy, light = pulled.rated, pulled.expected
    said = f"{label} {'end' if binding.startswith('tires.') else 'ends'} it at {print_mass(top, unit)}"
    if heavy is not None and heavy > top and light is not None and light <= top:
        dry = pulled.trailer.dry_weight
        cargo = f", {print_mass(top - dry.kg, unit)} of cargo above its dry weight" if dry and top > dry.kg else ""
        return (f"{said}. Its rating, {print_mass(heavy, unit)}, is above that: one school never couples such a pair; the other loads it to at most "
                f"{print_mass(top, unit)}{cargo}.")  # fmt: skip
    if heavy is not None and heavy > top:
        return f"{said}; the trailer at its rating, {print_mass(heavy, unit)}, is {print_mass(heavy - top, unit)} more."
    return f"{said}; {print_mass(top - (heavy or light or 0.0), unit)} of room with the trailer at its rating."


def ready_pulled(
    id_: str, name: str, trailer: Trailer, cargo: float | None, *, share: float | None = None, on_pin: bool | None = None
) -> Pulled:
    """A trailer to be matched; what it is expected to weigh is its dry weight with what a rig lists for it, where one does. [kg]

    ``share`` is its tongue share where it was weighed; else the usual one on a ball, or on a pin.
    """
    rated = trailer.ratings.gvwr.kg if trailer.ratings.gvwr else None
    dry = (
        trailer.dry_weight.kg + sum(extra.mass.kg for extra in trailer.dry_extras if not extra.counted)
        if trailer.dry_weight
        else None
    )
    expected = dry + cargo if dry is not None and cargo is not None else None
    return Pulled(id_, name, trailer, rated, expected, share or (PIN_USUAL if on_pin else BALL_USUAL), on_pin)


def pulled_of(id_: str, name: str, rig: RigFile, *, in_a_rig: bool) -> Pulled | None:
    """A trailer as the rig that has it lists and weighed it; None where there is no trailer.

    A tongue that was weighed lighter than the usual range counts as its low end: it ought to be brought there.
    """
    if rig.trailer is None:
        return None
    if not in_a_rig:
        return ready_pulled(id_, name, rig.trailer, None)
    cargo = sum(load.kg for load in rig.loads if load.on == "trailer")
    weighed = weigh(rig, weigh_in_numbered(rig)).figures.get("tongue_share")
    share = max(weighed.value, share_range(rig)[0]) if weighed else None
    return ready_pulled(id_, name, rig.trailer, cargo or None, share=share, on_pin=on_pin(rig))


def explain(
    one: Match, other: Match, pullers: Mapping[str, Puller], trailers: Mapping[str, Pulled], unit: MassUnit
) -> list[str]:
    """Why two pairs differ, limit by limit: the larger differences first."""
    a, b = pullers[one.vehicle], pullers[other.vehicle]
    same_vehicle, same_trailer = one.vehicle == other.vehicle, one.trailer == other.trailer
    factor, says = KG[unit], []
    if same_trailer and same_vehicle:
        return ["It is the same pair twice."]
    lead = "Same trailer" if same_trailer else "Same vehicle" if same_vehicle else "Another vehicle and another trailer"
    found = []
    there = {row.check: row for row in other.rows}
    for row in one.rows:
        across = there.get(row.check)
        if across is None or row.margin is None or across.margin is None:
            continue
        by = across.margin - row.margin
        if abs(by) * factor >= 1.0:
            found.append((abs(by), f"{row.label[0].lower() if not row.label[:2].isupper() else row.label[0]}{row.label[1:]} "
                          f"{print_mass(abs(by) * factor, unit)} {'more' if by > 0 else 'less'}"))  # fmt: skip
    found.sort(reverse=True)
    if found:
        who = f"the other {vehicle_word(b.rig)}" if same_trailer else "the other trailer" if same_vehicle else "the other pair"
        says.append(f"{lead}: {who} leaves " + ", ".join(text for _, text in found[:6]) + ".")
    else:
        says.append(f"{lead}: every limit leaves the same.")
    if one.binding and other.binding:
        says.append(f"{a.name or 'The first'} with {trailers[one.trailer].name or 'its trailer'}: {one.says}")
        says.append(f"{b.name or 'The other'} with {trailers[other.trailer].name or 'its trailer'}: {other.says}")
    return says
