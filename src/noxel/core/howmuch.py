"""How much can it tow: the ceiling explained, break-even shares, and the question asked backwards."""

from noxel.core.answers import Answer
from noxel.core.ceiling import Ceiling, as_towing, ceiling_of, every_use, in_front, share_planned, uses
from noxel.core.loaded import SLACK, Asked, Start, load_place, small, solo_from_weigh_in, weigh_in_numbered, with_load
from noxel.core.loads import PHASES
from noxel.core.predict import overhang, predict_solo
from noxel.core.ratings import cushion, limits
from noxel.core.rigfile import RigFile
from noxel.core.room_chart import RoomChart, room_chart
from noxel.core.units import KG, print_share
from noxel.core.weighing import weigh
from noxel.core.words import check_label, source_label, vehicle_word


class LimitBar(Answer):
    """The heaviest trailer by one limit, with its working in words."""

    check: str
    label: str
    heaviest: float
    binding: bool
    worked_out: bool
    source: str
    working: str
    break_even: float | None


class Need(Answer):
    """One figure that a vehicle would need, and how it comes about."""

    key: str
    label: str
    value: float
    has: float | None
    enough: bool | None
    working: str


class HowMuch(Answer):
    """The heaviest trailer, why, and what follows; ``missing`` names what the answer could not count."""

    ceiling: float | None
    says: str
    share: float
    shares: tuple[float, float]
    added: float
    bars: list[LimitBar]
    break_even_says: str
    chart: RoomChart | None
    needs: list[Need]
    trailer_says: list[str]
    missing: list[str]
    start: Start
    can_start: list[Start]


def _bars(asked: Asked, found: Ceiling) -> list[LimitBar]:
    rig, used = asked.rig, every_use(asked.rig, asked.solo, asked.share)
    constant = min((found.limits[check] for check in found.limits if used[check].slope == 1.0), default=None)
    bars = []
    for check, heaviest in sorted(found.limits.items(), key=lambda each: each[1]):
        limit, use, share = asked.known[check], used[check], cushion(rig, check)
        if limit is None:
            continue
        cap = f"{asked.mass(limit.kg)}" + (f" × {share:g}" if share < 1 else "")
        working = cap
        if use.used:
            working = f"({cap} − {asked.mass(use.used)} already there)"
        if use.slope != 1.0:
            working += f" ÷ {use.slope * 100:.1f} %"
        meets = None
        if use.slope not in (0.0, 1.0) and constant:
            meets = asked.share * heaviest / constant  # the share at which this limit and the least fixed one are met together
        bars.append(LimitBar(check=check, label=check_label(as_towing(rig), check), heaviest=heaviest / KG[rig.units.mass],
                             binding=check == found.binding, worked_out=limit.worked_out, source=source_label(rig, limit.source),
                             working=f"{working} = {asked.mass(heaviest)}", break_even=meets))  # fmt: skip
    return bars


def _says(asked: Asked, found: Ceiling, missing: list[str]) -> str:
    if found.binding is None or found.ceiling is None:
        return "No limit of the vehicle or the hitch is known yet, so nothing can be said."
    word, rig = vehicle_word(asked.rig), as_towing(asked.rig)
    label = check_label(rig, found.binding)
    said = f"{label} {'end' if found.binding.startswith('tires.') else 'ends'} it at {asked.mass(found.ceiling)}"
    tow = found.limits.get("vehicle.tow_rating")
    if found.binding != "vehicle.tow_rating" and tow is not None and tow > found.ceiling:
        said += f"; the {asked.mass(tow)} tow rating cannot be used with this {word} loaded as it is"
    if found.binding in found.estimated:
        said += ". That limit was worked out, not entered: enter the real one"
    if missing:
        said += f". Not counted, because not entered: {', '.join(missing)}; the true answer may be lower"
    return f"{said}.{_in_front(asked, found.ceiling)}"


def _in_front(asked: Asked, heaviest: float) -> str:
    """What a trailer does not end but only relieves: a front axle that is over its rating without it."""
    rows = in_front(asked.rig, every_use(asked.rig, asked.solo, asked.share), asked.known)
    still, word = max((row.used + row.slope * heaviest for row in rows), default=0.0), vehicle_word(asked.rig)
    if still > SLACK:
        return f" Even with that trailer the front axle is {asked.mass(still)} over its limit: the {word} must carry less, or less of it in front."
    least = max((row.used / -row.slope for row in rows if row.used > SLACK), default=0.0)
    return f" With less than {asked.mass(least)} the front axle is over its limit, bars slack." if least else ""


def _break_even(bars: list[LimitBar]) -> str:
    turning = [(bar.break_even, bar) for bar in bars if bar.break_even is not None]
    fixed = [bar for bar in bars if bar.break_even is None]
    if not turning or not fixed:
        return ""
    share, bar = min(turning, key=lambda each: each[0])
    first = min(fixed, key=lambda each: each.heaviest)
    if share > 1:
        return f"At any tongue share {first.label[0].lower() + first.label[1:]} ends it first."
    return f"Up to a tongue share of {print_share(share)} {small(first.label)} ends it; above, {small(bar.label)} does."


def _needs(asked: Asked) -> list[Need]:
    """What a vehicle would need for this trailer, with us aboard: everything at the owner's cushion."""
    rig, share, solo, factor = asked.rig, asked.share, asked.solo, KG[asked.rig.units.mass]
    trailer = rig.trailer
    if trailer is None or not trailer.ratings.gvwr:
        return []
    heavy = trailer.ratings.gvwr.kg
    tongue = heavy * share
    used, like = uses(solo, share), f"for a {vehicle_word(rig)} like this one"
    rows = (
        ("vehicle.payload", "payload", solo.cargo + tongue, f"{asked.mass(solo.cargo)} aboard + {asked.mass(tongue)} on the hitch"),
        ("vehicle.tow_rating", "tow_rating", heavy, "the trailer at its rating"),
        ("combination.gross", "gcwr", solo.gross + heavy, f"{asked.mass(solo.gross)} + {asked.mass(heavy)}, {like}"),
        ("vehicle.gross", "gvwr", solo.gross + tongue, f"{asked.mass(solo.gross)} + {asked.mass(tongue)}, {like}"),
        ("vehicle.rear_axle", "gawr_rear", solo.rear + used["vehicle.rear_axle"].slope * heavy,
         f"{asked.mass(solo.rear)} + {asked.mass(used['vehicle.rear_axle'].slope * heavy)} from the hitch, {like}"),
        ("hitch.trailer", "hitch, trailer rating", heavy, "every part of the chain"),
        ("hitch.tongue", "hitch, tongue rating", tongue, f"{print_share(share)} of the trailer"),
    )  # fmt: skip
    found = []
    for check, key, kg, working in rows:
        part, limit = cushion(rig, check), asked.known.get(check)
        least = kg / part
        has = limit.kg if limit and not limit.worked_out else None
        words = working + (f", ÷ {part:g}" if part < 1 else "")
        found.append(Need(key=check, label=source_label(rig, key), value=least / factor, has=None if has is None else has / factor,
                          enough=None if has is None else has >= least * (1 - 1e-9), working=words))  # fmt: skip
    return found


def _trailer_says(asked: Asked, found: Ceiling) -> list[str]:
    """What a trailer may weigh for this vehicle, and which figure to look for in brochures."""
    if found.ceiling is None:
        return []
    rig = asked.rig
    cargo = sum(load.kg for load in rig.loads if load.on == "trailer")
    cargo += max(
        (sum(tank.full_kg() * tank.level(phase) for tank in rig.tanks if tank.on == "trailer") for phase in PHASES), default=0.0
    )
    says = [f"Loaded, at most {asked.mass(found.ceiling)} at a tongue share of {print_share(asked.share)}.",
            f"To plan at the trailer's own rating: a trailer rated at most {asked.mass(found.ceiling)}."]  # fmt: skip
    if cargo:
        says.append(f"With the {asked.mass(cargo)} you list for the trailer: a weight as built, options and all, of at most "
                    f"{asked.mass(max(0.0, found.ceiling - cargo))}. A brochure's dry weight leaves options out.")  # fmt: skip
    return says


_NAMED = {"vehicle.tow_rating": "the tow rating", "combination.gross": "the GCWR", "vehicle.gross": "the GVWR",
          "vehicle.rear_axle": "the rear axle's rating", "vehicle.payload": "the payload", "hitch.trailer": "the hitch's trailer rating",
          "hitch.tongue": "a tongue rating"}  # fmt: skip


def how_much(
    rig: RigFile, *, start: Start | None = None, added: float = 0.0, share: float | None = None, number: int | None = None
) -> HowMuch:
    """Answer how much the vehicle can tow, loaded as it is.

    Parameters
    ----------
    rig : RigFile
        The rig; a trailer is not needed.
    start : {"plan", "weigh_in"} or None
        From the plan's figures or from the solo weigh-in; None takes the weigh-in when there is one.
    added : float
        More (or less) in the vehicle than that, where its load lies on the average. [kg]
    share : float or None
        Tongue share; None is the one that was weighed, else the planned one.
    number : int or None
        Which weigh-in to start from, from 1; None is the last.

    Returns
    -------
    HowMuch
        In the file's unit.

    Raises
    ------
    MissingInput
        Naming the base, length or position without which nothing can be said.
    """
    towing = as_towing(rig)
    weigh_in = weigh_in_numbered(rig, number)
    weighed = solo_from_weigh_in(rig, weigh_in)
    can: list[Start] = ["plan"]
    if weighed is not None:
        can.append("weigh_in")
    begin: Start = start if start in can else ("weigh_in" if weighed is not None else "plan")
    solo = weighed if begin == "weigh_in" and weighed is not None else predict_solo(towing)
    place = load_place(rig)
    loaded = with_load(solo, added, place)
    measured = weigh(rig, weigh_in).figures.get("tongue_share") if begin == "weigh_in" else None
    wanted = share if share is not None else measured.value if measured else share_planned(rig)
    known = limits(towing)
    asked = Asked(rig, loaded, wanted, known, place, weigh_in)
    found = ceiling_of(towing, every_use(towing, loaded, wanted), wanted, known)
    missing = [
        name
        for check, name in _NAMED.items()
        if known.get(check) is None or (check == "vehicle.payload" and check not in found.limits)
    ]
    bars = _bars(asked, found)
    factor = KG[rig.units.mass]
    return HowMuch(
        ceiling=None if found.ceiling is None else found.ceiling / factor,
        says=_says(asked, found, missing),
        share=wanted,
        shares=(0.03, 0.30) if (overhang(rig) or 0) < 0 else (0.03, 0.20),
        added=added / factor,
        bars=bars,
        break_even_says=_break_even(bars),
        chart=room_chart(asked, begin),
        needs=_needs(asked),
        trailer_says=_trailer_says(asked, found),
        missing=missing,
        start=begin,
        can_start=can,
    )
