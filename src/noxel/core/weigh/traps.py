"""Slips at the scale and at the keyboard: figures of one weigh-in that cannot be right together."""

from collections.abc import Callable, Iterator, Sequence

from noxel.core.mechanics import reading_words
from noxel.core.quantities import KG, Mass, nominal, print_share
from noxel.core.rig import Pass, on_its_wheels, on_pin
from noxel.core.weigh.notes import Notes
from noxel.core.wording import (
    Advisory,
    vehicle_word,
)

FRONT_LOSS = 0.10
"""A front axle lighter by more than this share when hitched is worth a caution."""


IMBALANCE = 0.10
"""Left and right differing by more than this share of their axle is worth a caution."""


PLATFORM_MOST = 40_000.0
"""No single platform of a road scale reads more. [kg]"""


SWAPPED = 0.06
"""A front axle's share of the vehicle this far from the usual one is worth a second look at which
axle is which.
"""


FAR_BELOW = 0.35
"""Trailer axles below this share of their ratings: an axle off the platform, the other unit, or a
digit lost.
"""


_LB_PER_KG = 1 / KG["lb"]


def _tickets(notes: Notes) -> Iterator[Advisory]:
    weigh_in = notes.weigh_in
    for number, pass_ in enumerate(weigh_in.passes, 1):
        path = f"{notes.at}.passes[{number - 1}]"
        yield from _total_printed(notes, pass_, path)
        for name, mass in pass_.readings.items():
            where = f"{path}.readings.{name}"
            if mass.kg == 0:
                yield notes.say(
                    "reading_zero",
                    f"The {reading_words(name)} reads zero. Leave it empty if it was not weighed.",
                    where,
                )
            if mass.kg > PLATFORM_MOST:
                yield notes.say(
                    "reading_beyond_platform",
                    f"{notes.mass(mass.kg)} on one platform is more than any road scale reads: a "
                    "digit too many?",
                    where,
                    reading=mass.kg,
                )


def _total_printed(notes: Notes, pass_: Pass, path: str) -> Iterator[Advisory]:
    if pass_.printed_gross is None or not pass_.readings:
        return
    added, printed = sum(mass.kg for mass in pass_.readings.values()), pass_.printed_gross.kg
    missing = {"hitched": {"front", "rear", "trailer"}, "vehicle_only": {"front", "rear"}}.get(
        pass_.config, set()
    )
    lacking = missing - {name.split("_")[0] for name in pass_.readings}
    if lacking and not {"vehicle", "gross"} & set(pass_.readings):
        sentence = (
            f"The ticket prints {notes.mass(printed)} in all; its platforms add up to "
            f"{notes.mass(added)}. "
            f"Not typed yet: {', '.join(reading_words(name) for name in sorted(lacking))}."
        )
        yield notes.say(
            "ticket_incomplete",
            sentence,
            f"{path}.printed_gross",
            note=True,
            printed=printed,
            added=added,
        )


def _unit_slips(notes: Notes) -> Iterator[Advisory]:
    weighing, ratings = notes.weighing, notes.rig.vehicle.ratings
    hitched, solo = weighing.hitched, weighing.solo
    if (
        hitched
        and solo
        and hitched is not solo
        and hitched.vehicle is not None
        and solo.vehicle is not None
    ):
        ratio = solo.vehicle.value / max(hitched.vehicle.value, 1e-9)
        for name, off, wrong in (
            ("vehicle only", ratio, solo),
            ("hitched", 1 / max(ratio, 1e-9), hitched),
        ):
            if 1.65 < off < 2.9:
                yield notes.say(
                    "unit_slip",
                    f"The {name} pass is {off:.1f} times the other pass: pounds typed as "
                    "kilograms? One kilogram is "
                    f"{_LB_PER_KG:.2f} lb.",
                    notes.path(wrong, "unit"),
                )
    front = ratings.gawr_front.kg if ratings.gawr_front else None
    for name, limit in (("front", front), ("rear", ratings.rear_axles)):
        axle = getattr(hitched, name) if hitched else None
        if axle is None or limit is None:
            continue
        ratio = axle.value / limit
        where = notes.path(hitched, f"readings.{name}") if hitched else None
        if ratio > 5:
            yield notes.say(
                "ten_times",
                f"The {name} axle reads {ratio:.0f} times its rating: a digit too many?",
                where,
                reading=axle.value,
                rating=limit,
            )
        elif ratio > 1.7:
            yield notes.say(
                "unit_slip",
                f"The {name} axle reads {ratio:.1f} times its rating: pounds typed as kilograms, "
                "or a rating in the other unit?",
                where,
                reading=axle.value,
                rating=limit,
            )
        elif 0 < ratio < 0.14:
            yield notes.say(
                "tenth",
                f"The {name} axle reads only {ratio * 100:.0f} % of its rating: a digit too few?",
                where,
                reading=axle.value,
                rating=limit,
            )


def _rolled_off(notes: Notes) -> Iterator[Advisory]:
    axles, trailer, hitched = (
        notes.weighing.figures.get("trailer_axles"),
        notes.rig.trailer,
        notes.weighing.hitched,
    )
    dry = trailer.dry_weight if trailer else None
    if axles and dry and hitched and 0 < axles.value < 0.6 * dry.kg:
        yield notes.say(
            "trailer_too_light",
            f"The trailer's axles read {notes.mass(axles.value)}, of a trailer that weighs "
            f"{notes.mass(dry.kg)} dry: driven off "
            "before the weight was taken, or an axle off the platform?",
            notes.path(hitched, "readings.trailer"),
            reading=axles.value,
            dry=dry.kg,
        )


def _far_below(notes: Notes) -> Iterator[Advisory]:
    axles, trailer, hitched = (
        notes.weighing.figures.get("trailer_axles"),
        notes.rig.trailer,
        notes.weighing.hitched,
    )
    if axles is None or trailer is None or hitched is None or trailer.dry_weight:
        return
    rated = sum(gawr.kg for gawr in trailer.ratings.gawr or ())
    if 0 < axles.value < FAR_BELOW * rated:
        yield notes.say(
            "trailer_far_below",
            f"The trailer's axles read {notes.mass(axles.value)}, "
            f"{print_share(axles.value / rated)} of their ratings. An empty "
            "trailer can be that light; else an axle stood off the platform, or the unit is "
            "another one.",
            notes.path(hitched, "readings.trailer"),
            reading=axles.value,
            rating=rated,
        )


def _front_share(loads: Sequence[Mass | None]) -> float | None:
    front, rear = loads
    total = (front.kg if front else 0.0) + (rear.kg if rear else 0.0)
    return front.kg / total if front and rear and total > 0 else None


def _usual_front_share(notes: Notes) -> tuple[float, str] | None:
    """What share of the vehicle alone its front axle carries, from the last other weigh-in, else
    from the plan's base.
    """
    for other in reversed(notes.rig.weigh_ins):
        alone = other.last("vehicle_only") if other is not notes.weigh_in else None
        share = (
            _front_share([alone.readings.get("front"), alone.readings.get("rear")])
            if alone
            else None
        )
        if share is not None:
            return (
                share,
                f"in the weigh-in of {other.date}" if other.date else "in another weigh-in",
            )
    plan = notes.rig.plan
    share = (
        _front_share([plan.vehicle_base.front, plan.vehicle_base.rear])
        if plan.vehicle_base
        else None
    )
    return (share, "empty, by Pack") if share is not None else None


def _swapped(notes: Notes) -> Iterator[Advisory]:
    """Front and rear typed the other way round: the share of the front axle is then another
    rig's.
    """
    alone, usual = notes.weighing.solo, _usual_front_share(notes)
    if alone is None or alone.front is None or alone.rear is None or usual is None:
        return
    total = alone.front.value + alone.rear.value
    share = alone.front.value / total if total > 0 else usual[0]
    if abs(share - usual[0]) > SWAPPED and abs(1 - share - usual[0]) < abs(share - usual[0]) / 2:
        yield notes.say(
            "axles_swapped",
            f"The front axle carries {print_share(share)} of the {vehicle_word(notes.rig)} alone, "
            "and carried "
            f"{print_share(usual[0])} {usual[1]}. Front and rear swapped?",
            notes.path(alone, "readings.front"),
        )


def _repeated(notes: Notes) -> Iterator[Advisory]:
    """The same ticket twice: a number or all readings of another pass, or the same readings of the
    same pass in another weigh-in.
    """
    passes = notes.weigh_in.passes
    for number, pass_ in enumerate(passes, 1):
        mine = {name: mass.kg for name, mass in pass_.readings.items()}
        for earlier, before in enumerate(passes[: number - 1], 1):
            printed = pass_.ticket_number
            if printed and printed == before.ticket_number:
                yield notes.say(
                    "pass_repeated",
                    f"Ticket {printed} is also pass {earlier}'s. One ticket, typed twice?",
                    f"{notes.at}.passes[{number - 1}].ticket_number",
                )
            elif len(mine) > 1 and mine == {k: mass.kg for k, mass in before.readings.items()}:
                yield notes.say(
                    "pass_repeated",
                    f"Every reading of this pass is the same in pass {earlier}. One ticket, typed "
                    "twice?",
                    f"{notes.at}.passes[{number - 1}]",
                )
        for other in notes.rig.weigh_ins:
            if len(mine) < 2 or other is notes.weigh_in:
                continue
            if any(
                pass_.config == past.config
                and mine == {name: mass.kg for name, mass in past.readings.items()}
                for past in other.passes
            ):
                when = f"of {other.date}" if other.date else "before or after it"
                yield notes.say(
                    "pass_repeated",
                    f"Every reading of this pass is the same in the weigh-in {when}. An old "
                    "ticket, typed again?",
                    f"{notes.at}.passes[{number - 1}]",
                )
                break


def _between_passes(notes: Notes) -> Iterator[Advisory]:
    weighing, word = notes.weighing, vehicle_word(notes.rig)
    figures, hitched, solo = weighing.figures, weighing.hitched, weighing.solo
    if not (notes.rig.towing and hitched and solo) or on_its_wheels(notes.rig):
        return
    net, front, rear = (
        figures.get("tongue_net"),
        figures.get("front_transfer"),
        figures.get("rear_transfer"),
    )
    if net and net.value < -net.plus_minus:
        yield notes.say(
            "solo_heavier",
            f"The {word} alone weighs {notes.mass(-net.value)} more than with the trailer on: a "
            f"negative {notes.hitch_load}. Passes "
            "swapped, a wrong platform, or a tail-heavy trailer that must not be towed so.",
            notes.path(solo),
            net=net.value,
        )
    if (
        front
        and weighing.engaged is None
        and not on_pin(notes.rig)
        and front.value > front.plus_minus
    ):
        yield notes.say(
            "front_gains",
            f"The front axle gains {notes.mass(front.value)} when hitched. On a ball without "
            "tensioned bars it must get "
            "lighter: were front and rear on the right platforms, the same people aboard, the "
            "bars tensioned?",
            notes.path(hitched, "readings.front"),
            gained=front.value,
        )
    if front and weighing.engaged is not None and front.value > front.plus_minus:
        yield notes.say(
            "front_over_restored",
            f"With the bars engaged the front axle carries {notes.mass(front.value)} more than "
            "without the trailer: "
            "the bars are too tight, or the passes differ.",
            notes.path(hitched, "readings.front"),
            gained=front.value,
        )
    solo_front = figures.get("front_solo")
    if (
        front
        and solo_front
        and solo_front.value > 0
        and -front.value / solo_front.value > FRONT_LOSS
    ):
        yield notes.say(
            "front_lightened",
            f"The front axle is {notes.mass(-front.value)} "
            f"({print_share(-front.value / solo_front.value)}) lighter when "
            "hitched: steering and front brakes lose grip, headlights aim high.",
            notes.path(hitched, "readings.front"),
            lost=-front.value,
        )
    if rear and not on_pin(notes.rig) and rear.value < -rear.plus_minus:
        yield notes.say(
            "rear_lightened",
            f"The rear axle is {notes.mass(-rear.value)} lighter when hitched. A trailer loads "
            "it: an axle may have "
            "stood on the wrong platform, or across two.",
            notes.path(hitched, "readings.rear"),
            lost=-rear.value,
        )


def _bars(notes: Notes) -> Iterator[Advisory]:
    engaged, slack = notes.weighing.engaged, notes.weighing.slack
    if notes.rig.hitch.weight_distribution and slack and not engaged:
        yield notes.say(
            "bars_slack",
            "These axle loads were taken with the bars slack. Weigh once more with the bars "
            "engaged as for the "
            "road. Do not leave the yard on slack bars where the maker requires them.",
            notes.path(slack, "spring_bars"),
            note=True,
        )


def _sides(notes: Notes) -> Iterator[Advisory]:
    hitched = notes.weighing.hitched
    if hitched is None:
        return
    for name in sorted(hitched.readings):
        if not name.endswith("_left"):
            continue
        stem = name.removesuffix("_left")
        left, right = nominal(hitched.readings[name]), nominal(hitched.readings[f"{stem}_right"])
        if abs(left - right) > IMBALANCE * (left + right):
            heavy = "left" if left > right else "right"
            yield notes.say(
                "side_imbalance",
                f"The {reading_words(stem)} carries {notes.mass(abs(left - right))} more on the "
                f"{heavy}.",
                notes.path(hitched, f"readings.{stem}_{heavy}"),
                left=left,
                right=right,
            )


TRAPS: tuple[Callable[[Notes], Iterator[Advisory]], ...] = (
    _tickets,
    _unit_slips,
    _rolled_off,
    _far_below,
    _between_passes,
    _swapped,
    _repeated,
    _bars,
    _sides,
)
"""Every look for a slip, in the order they are listed."""
