"""How much can it tow: the ceiling explained, break-even shares, and the question asked
backwards.
"""

from collections.abc import Mapping

from noxel.core.limits import CheckId, Limit, cushion, doubts, unanswered
from noxel.core.match.ceiling import (
    NEVER_BINDS,
    Ceiling,
    as_towing,
    ceiling_of,
    every_use,
    in_front,
    towing_limits,
    uses,
)
from noxel.core.match.loaded_vehicle import (
    ON_LIMIT,
    Start,
    TowQuestion,
    solo_planned,
    solo_weighed,
    weigh_in_numbered,
    with_load,
)
from noxel.core.match.own_share import SHARE_WORDS, Share, share_known, share_planned
from noxel.core.match.room_chart import RoomChart, room_chart
from noxel.core.mechanics import items_kg, load_place, overhang, weigh
from noxel.core.quantities import KG, lower_first, print_share, with_article
from noxel.core.rig import PHASES, RigFile, share_range
from noxel.core.wording import (
    Answer,
    check_label,
    doubt_advisory,
    limiting_rating,
    missing_rating,
    source_label,
    term_name,
    vehicle_word,
)


class LimitBar(Answer):
    """The heaviest trailer by one limit, with its working in words."""

    check: CheckId
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
    """The heaviest trailer, why, and what follows; ``missing`` names what the answer could not
    count.
    """

    ceiling: float | None
    says: str
    share: float
    share_way: str
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


def _bars(asked: TowQuestion, ceiling: Ceiling) -> list[LimitBar]:
    rig, used = asked.rig, every_use(asked.rig, asked.solo, asked.share)
    constant = min(
        (ceiling.limits[check] for check in ceiling.limits if used[check].slope == 1.0),
        default=None,
    )
    bars = []
    for check, heaviest in sorted(ceiling.limits.items(), key=lambda limit: limit[1]):
        limit, use, share = asked.known[check], used[check], cushion(rig, check)
        if limit is None:
            continue
        cap = f"{asked.mass(limit.kg)}" + (f" × {share:g}" if share < 1 else "")
        working = cap
        if use.used:
            words = f"− {asked.mass(use.used)} already there"
            lifted = f"+ {asked.mass(-use.used)} of room beyond it"
            working = f"({cap} {words if use.used > 0 else lifted})"
        if use.slope != 1.0:
            working += f" ÷ {use.slope * 100:.1f} %"
        meets = None
        if use.slope not in (0.0, 1.0) and constant:
            # the share at which this limit and the least fixed one are met together
            meets = asked.share.value * heaviest / constant
        bars.append(
            LimitBar(
                check=check,
                label=check_label(as_towing(rig), check),
                heaviest=heaviest / KG[rig.units.mass],
                binding=check == ceiling.binding,
                worked_out=not limit.real,
                source=source_label(rig, limit.source),
                working=f"{working} = {asked.mass(heaviest)}",
                break_even=meets,
            )
        )
    return bars


def _says(asked: TowQuestion, ceiling: Ceiling, *, weighed: bool) -> str:
    if ceiling.binding is None or ceiling.ceiling is None:
        return "No limit of the vehicle or the hitch is known yet. Enter a rating to start."
    rig, word = as_towing(asked.rig), vehicle_word(asked.rig)
    tow = asked.known.get("vehicle.tow_rating")
    worked_out = tow is not None and tow.source == "gcwr-gvwr"
    by = limiting_rating(rig, ceiling.binding)
    if ceiling.binding == "vehicle.tow_rating" and worked_out:
        by = "GCWR less GVWR, in place of a tow rating"
    over = ceiling.ceiling <= ON_LIMIT
    sentences = [f"Over even without a trailer, by {by}." if over else f"Limited by {by}."]
    if not over and ceiling.binding != "vehicle.tow_rating" and tow and tow.kg > ceiling.ceiling:
        sentences.append(
            f"The {asked.mass(tow.kg)} {_tow_words(rig, worked_out)} is out of reach with this "
            f"{word} loaded as it is."
        )
    if ceiling.binding in ceiling.estimated:
        sentences.append("That limit is not confirmed: enter the rating from its label.")
    if ceiling.unknown:
        names = ", ".join(missing_rating(rig, check) for check in ceiling.unknown)
        sentences.append(
            f"Not counted, because not entered: {names}. The true answer may be lower."
        )
    unplaced = [
        lower_first(check_label(rig, check)) for check in ceiling.missing if check != "loads"
    ]
    if unplaced:
        sentences.append(
            f"Not counted, because the load on it is not known: {', '.join(unplaced)}."
        )
    if "loads" in ceiling.missing and not weighed:
        sentences.append(
            f"Nobody is in the {word} yet: add people and gear, and the answer goes down."
        )
    return " ".join(sentences) + _in_front(asked, ceiling.ceiling)


def _tow_words(rig: RigFile, worked_out: bool) -> str:
    """A tow rating, or what is no rating but worked out."""
    return (
        f"left by {source_label(rig, 'gcwr-gvwr')}" if worked_out else term_name(rig, "tow_rating")
    )


def _doubted(rig: RigFile, number: int | None) -> list[str]:
    """What of the vehicle cannot all be right, so that the answer may be wrong."""
    weighing = weigh(rig, rig.weigh_ins[number - 1] if number else None)
    return [
        f"In doubt: {doubt_advisory(rig, number, doubt).message}"
        for doubt in unanswered(rig, number, doubts(rig, number, weighing))
        if "vehicle" in doubt.code or "gvwr" in doubt.code
    ]


def _in_front(asked: TowQuestion, heaviest: float) -> str:
    """What a trailer does not limit but only relieves: a front axle that is over its rating without
    it.
    """
    rows = in_front(asked.rig, every_use(asked.rig, asked.solo, asked.share), asked.known)
    still, word = (
        max((row.used + row.slope * heaviest for row in rows), default=0.0),
        vehicle_word(asked.rig),
    )
    if still > ON_LIMIT:
        return (
            f" Even with that trailer the front axle is {asked.mass(still)} over its limit: "
            f"the {word} must carry less, or less of it in front."
        )
    least = max((row.used / -row.slope for row in rows if row.used > ON_LIMIT), default=0.0)
    return (
        f" With less than {asked.mass(least)} of trailer the front axle is over its limit, bars "
        "slack."
        if least
        else ""
    )


def _never_binds(known: Mapping[CheckId, Limit | None], bar: LimitBar) -> bool:
    limit = known.get(bar.check)
    return limit is not None and limit.certainty in NEVER_BINDS


def _break_even(rig: RigFile, bars: list[LimitBar]) -> str:
    turning = [(bar.break_even, bar) for bar in bars if bar.break_even is not None]
    fixed = [bar for bar in bars if bar.break_even is None]
    if not turning or not fixed:
        return ""
    word = term_name(rig, "tongue_share")
    share, bar = min(turning, key=lambda turn: turn[0])
    first = limiting_rating(rig, min(fixed, key=lambda bar: bar.heaviest).check)
    if share > 1:
        return f"At any {word} {first} is the limit."
    return (
        f"Up to a {word} of {print_share(share)} {first} is the limit; above that, "
        f"{limiting_rating(rig, bar.check)} is."
    )


def _needs(asked: TowQuestion) -> list[Need]:
    """What a vehicle would need for this trailer, with us aboard: everything at the owner's
    cushion.
    """
    rig, share, solo, factor = asked.rig, asked.share, asked.solo, KG[asked.rig.units.mass]
    trailer = rig.trailer
    if trailer is None or not trailer.ratings.gvwr:
        return []
    heavy = trailer.ratings.gvwr.kg
    tongue, like = heavy * share.value, f"for {with_article(vehicle_word(rig))} like this one"
    names = {
        "vehicle.payload": "payload",
        "vehicle.tow_rating": "tow_rating",
        "combination.gross": "gcwr",
        "vehicle.gross": "gvwr",
        "vehicle.front_axle": "gawr_front",
        "vehicle.rear_axle": "gawr_rear",
        "hitch.trailer": "hitch, trailer rating",
        "hitch.tongue": f"hitch, {term_name(rig, 'tongue_weight')} rating",
    }
    plain = {
        "vehicle.tow_rating": "the trailer at its rating",
        "hitch.trailer": "every part of the chain",
        "hitch.tongue": f"{print_share(share.value)} of the trailer",
    }
    used = uses(solo, share)
    ways = []
    for check in (
        "vehicle.payload",
        "vehicle.tow_rating",
        "combination.gross",
        "vehicle.gross",
        "vehicle.front_axle",
        "vehicle.rear_axle",
        "hitch.trailer",
        "hitch.tongue",
    ):
        use = used.get(check)
        if use is None:
            continue
        kg = use.used + use.slope * heavy
        adds = "+" if use.slope >= 0 else "−"
        words = (
            plain.get(check)
            or f"{asked.mass(use.used)} {adds} {asked.mass(abs(use.slope) * heavy)}, {like}"
        )
        if check == "vehicle.payload":
            words = f"{asked.mass(use.used)} aboard + {asked.mass(tongue)} on the hitch"
        part, limit = cushion(rig, check), asked.known.get(check)
        least = kg / part
        has = limit.kg if limit and limit.real else None
        ways.append(
            Need(
                key=check,
                label=source_label(rig, names[check]),
                value=least / factor,
                has=None if has is None else has / factor,
                enough=None if has is None else has >= least * (1 - 1e-9),
                working=words + (f", ÷ {part:g}" if part < 1 else ""),
            )
        )
    return ways


def _trailer_says(asked: TowQuestion, ceiling: Ceiling) -> list[str]:
    """What a trailer may weigh for this vehicle, and which figure to look for in brochures."""
    if ceiling.ceiling is None:
        return []
    rig = asked.rig
    cargo = items_kg(rig, "trailer")
    cargo += max(
        (
            sum(tank.full_kg() * tank.level(phase) for tank in rig.tanks if tank.on == "trailer")
            for phase in PHASES
        ),
        default=0.0,
    )
    says = [
        f"Loaded, at most {asked.mass(ceiling.ceiling)} at a {term_name(rig, 'tongue_share')} of "
        f"{print_share(asked.share.value)}.",
        "To plan at the trailer's own rating: a trailer rated at most "
        f"{asked.mass(ceiling.ceiling)}.",
    ]
    if cargo:
        says.append(
            f"With the {asked.mass(cargo)} you list for the trailer: at most "
            f"{asked.mass(max(0.0, ceiling.ceiling - cargo))} as built, "
            f"options included. A brochure's {term_name(rig, 'dry_weight')} leaves options out."
        )
    return says


def how_much(
    rig: RigFile,
    *,
    start: Start | None = None,
    added: float = 0.0,
    share: float | None = None,
    number: int | None = None,
) -> HowMuch:
    """Answer how much the vehicle can tow, loaded as it is.

    Parameters
    ----------
    rig : RigFile
        The rig; a trailer is not needed.
    start : {"plan", "weigh_in"} or None
        From the plan's figures or from the solo weigh-in; None takes the weigh-in when there is
        one.
    added : float
        More (or less) in the vehicle than that, where its load lies on average. [kg]
    share : float or None
        Tongue share; None is the one that was weighed, else the planned one.
    number : int or None
        Which weigh-in to start from, from 1; None is the last.

    Returns
    -------
    HowMuch
        In the file's unit.

    """
    towing, weigh_in = as_towing(rig), weigh_in_numbered(rig, number)
    weighing = weigh(rig, weigh_in)
    weighed = solo_weighed(rig, weighing)
    can: list[Start] = ["plan"] if weighed is None else ["plan", "weigh_in"]
    begin: Start = start if start in can else can[-1]
    solo = weighed if begin == "weigh_in" and weighed is not None else solo_planned(towing)
    place = load_place(rig)
    loaded = with_load(solo, added, place)
    own = share_planned(rig, weighing, places=True)
    if begin == "weigh_in" and own.way == "plan":  # weighed goes before planned
        own = share_known(rig, weighing, share_range(rig)[0]) or own
    wanted = own if share is None else Share(share, "typed")
    known = towing_limits(rig, loaded)
    asked = TowQuestion(rig, loaded, wanted, known, place, weigh_in)
    highest = ceiling_of(rig, every_use(towing, loaded, wanted), wanted, known)
    doubted = _doubted(rig, number or len(rig.weigh_ins) if begin == "weigh_in" else None)
    bars = _bars(asked, highest)
    factor = KG[rig.units.mass]
    return HowMuch(
        ceiling=None if highest.ceiling is None else highest.ceiling / factor,
        says=" ".join([_says(asked, highest, weighed=begin == "weigh_in"), *doubted]),
        share=wanted.value,
        share_way=SHARE_WORDS[wanted.way],
        shares=(0.03, 0.30) if (overhang(rig) or 0) < 0 else (0.03, 0.20),
        added=added / factor,
        bars=bars,
        break_even_says=_break_even(towing, [bar for bar in bars if not _never_binds(known, bar)]),
        chart=room_chart(asked, begin),
        needs=_needs(asked),
        trailer_says=_trailer_says(asked, highest),
        missing=[missing_rating(towing, check) for check in highest.unknown],
        start=begin,
        can_start=can,
    )
