"""Tickets of the yard's scale: it keeps its own ±, and in a challenge some tickets are not what
they seem.
"""

import itertools
import math
import random
from collections.abc import Mapping
from dataclasses import replace
from typing import Literal

from noxel.core.mechanics import weigh
from noxel.core.practice.rigs import as_seen
from noxel.core.practice.true_loads import GAIN, GRADUATION, SWAY, on_platforms, true_loads
from noxel.core.practice.yard import Ticket, Yard, pass_of, visit_of
from noxel.core.quantities import KG, MassUnit

_USED_UP = (0.3, 0.45, 0.6, 1.0)
"""How much of the ± of its sums one ticket may use up, so that the pass it is compared with later
finds room; the least that there is.
"""


def _inside(yard: Yard) -> int:
    return sum(load.aboard for load in yard.rig.loads if load.category == "people")


def _off(yard: Yard, ticket: Ticket) -> float:
    """How far the figures that the tickets of this visit give lie from the truth: the worst of
    them, as a share of its ±.
    """
    rig = as_seen(yard.rig)
    unit = rig.units.mass
    same = [ticket for ticket in yard.tickets if ticket.visit == yard.visit]
    if any(earlier.people != ticket.people for earlier in same):
        return 0.0  # these tickets are not of one load: nothing that they give together is true
    tongues = tuple(
        tongue.measured for tongue in yard.tongues if tongue.visit == yard.visit and tongue.measured
    )
    passes = tuple(pass_of(printed, unit, clean=True) for printed in (*same, ticket))
    figures = weigh(rig, visit_of(unit, passes, tongues)).figures
    engaged = any(same.bars == "engaged" for same in (*same, ticket) if same.config == "hitched")
    truth = true_loads(yard.rig, "engaged" if engaged else "slack")
    known = [(figures[key], kg) for key, kg in truth.items() if key in figures]
    return max(
        (abs(figure.value - kg) / figure.plus_minus for figure, kg in known if figure.plus_minus),
        default=0.0,
    )


def next_ticket(yard: Yard) -> Ticket:
    """The ticket that is printed for the rig as it stands on the platforms.

    Notes
    -----
    Each platform prints the graduation nearest to what rests on it, after the scale's gain and the
    last trace of motion. One figure in twenty would then lie beyond its ±; in the yard the next
    nearest readings are printed instead, so that a lesson is not contradicted by chance.
    """
    unit, number = yard.rig.units.mass, len(yard.tickets) + 1
    step = GRADUATION[unit] * KG[unit]
    day, chance = (
        random.Random(f"scale/{yard.run.seed}/{yard.run.kind}"),
        random.Random(f"ticket/{yard.run.seed}/{number}"),
    )
    gain = 1 + max(-2 * GAIN, min(2 * GAIN, day.gauss(0.0, GAIN)))
    loads = on_platforms(yard.rig, yard.config, yard.bars)
    swaying = {name: kg * gain + chance.uniform(-SWAY, SWAY) * step for name, kg in loads.items()}
    station = 100 + day.randrange(800)
    kind: Literal["first weigh", "re-weigh"] = "re-weigh" if yard.tickets else "first weigh"
    near: list[tuple[float, Ticket]] = []
    around = [[round(kg / step) + more for more in (-1, 0, 1)] for kg in swaying.values()]
    for steps in itertools.product(*around):
        readings = {
            name: count * GRADUATION[unit] for name, count in zip(swaying, steps, strict=True)
        }
        ticket = Ticket(
            f"{station}-{number:04d}",
            kind,
            yard.config,
            yard.bars,
            readings,
            sum(readings.values()),
            yard.visit,
            readings,
            _inside(yard),
        )
        near.append(
            (sum((readings[name] * KG[unit] - kg) ** 2 for name, kg in swaying.items()), ticket)
        )
    ordered = [ticket for _, ticket in sorted(near, key=lambda pair: pair[0])]
    fair = (
        ticket
        for most in _USED_UP
        for ticket in ordered
        if _sums_off(ticket, loads, unit) <= most and _off(yard, ticket) <= 1
    )
    best = next(fair, None) or min(ordered, key=lambda ticket: _off(yard, ticket))
    return _spoiled(yard, best, random.Random(f"spoil/{yard.run.seed}/{number}"))


def _sums_off(ticket: Ticket, loads: Mapping[str, float], unit: MassUnit) -> float:
    """How far the vehicle's two readings together, and all of them, lie from the truth, as a share
    of two standard uncertainties.
    """
    step = GRADUATION[unit] * KG[unit]
    off = {name: ticket.readings[name] * KG[unit] - kg for name, kg in loads.items()}
    vehicle = abs(off["front"] + off["rear"]) / (step * math.sqrt(2 / 3))
    return max(vehicle, abs(sum(off.values())) / (step * math.sqrt(len(off) / 3)))


def _spoiled(yard: Yard, ticket: Ticket, chance: random.Random) -> Ticket:
    """The ticket as it is handed over where a trap is set: the first ticket with a digit wrong, the
    second another rig's.
    """
    number = len(yard.tickets) + 1
    if "typo" in yard.traps and number == 1:
        name = chance.choice(sorted(ticket.readings))
        step = (
            chance.choice((-900, 900, 300, -300))
            if yard.rig.units.mass == "lb"
            else chance.choice((-90, 90, 300, -300))
        )
        wrong = {**ticket.readings, name: max(20, ticket.readings[name] + step)}
        return replace(ticket, readings=wrong, trap="typo")
    if "other_ticket" in yard.traps and number == 2:
        wrong = {
            name: int(value * chance.uniform(1.12, 1.2) / 20) * 20
            for name, value in ticket.readings.items()
        }
        other = f"{ticket.number.split('-')[0]}-{chance.randrange(3000, 9000)}"
        return replace(
            ticket,
            readings=wrong,
            gross=sum(wrong.values()),
            number=other,
            kind="first weigh",
            trap="other_ticket",
        )
    return ticket
