"""Before it rolls: a list beyond weight, each line tied to the facts of this rig, ticked with the
day it was done.

Nothing here is a check and nothing here blocks. Makers' manuals and local law come first.
"""

import datetime
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from noxel.core.quantities import KG, print_length, print_mass, upper_first
from noxel.core.rig import RigFile, on_its_wheels, on_pin
from noxel.core.wording import Evaluation, attitude, coupling_test

STALE_DAYS = 30
"""A tick this old is asked for again. [days]"""


@dataclass(frozen=True, slots=True)
class ReadinessItem:
    """One line: what to do, why for this rig, and when it was last done.

    ``state`` is ``missing`` where a figure of this rig says that it is not so, ``ask`` where a
    figure is not known.
    """

    code: str
    text: str
    fact: str
    state: Literal["plain", "missing", "ask"]
    done: datetime.date | None
    stale: bool


_Line = tuple[str, str, str, Literal["plain", "missing", "ask"]]


def _brakes(rig: RigFile, mass: float | None) -> Iterator[_Line]:
    trailer, above, unit = rig.trailer, rig.policy.brakes_above, rig.units.mass
    if trailer is None:
        return
    if trailer.brakes is None:
        yield (
            "brakes",
            "Say in Plates whether the trailer has brakes of its own",
            "not said yet",
            "ask",
        )
    if above is None:
        yield (
            "brakes_law",
            "Look up above which mass trailer brakes are required where you travel",
            "it differs by state and country; put the figure in Plates, under your own rules",
            "ask",
        )
    elif mass is not None and mass > above.kg:
        has = trailer.brakes in ("electric", "surge")
        yield (
            "brakes_law",
            "Trailer brakes on every axle that the law asks for",
            f"{print_mass(mass, unit)} is above the {print_mass(above.kg, unit)} you set"
            + ("" if has or trailer.brakes is None else ", and the trailer has none"),
            "plain" if has else "missing",
        )
    if trailer.brakes == "electric":
        yield (
            "controller",
            "Brake controller fitted, set for this load, tried at walking pace",
            "electric trailer brakes",
            "plain",
        )
        yield (
            "seven_way",
            "7-way plug clean and seated: brakes, charge line, lights",
            "electric trailer brakes",
            "plain",
        )
    if trailer.brakes in ("electric", "surge"):
        yield (
            "breakaway",
            "Breakaway cable on the vehicle itself, long enough to turn, short enough to pull "
            "first; battery charged",
            "the trailer has brakes",
            "plain",
        )


def _hitch(rig: RigFile) -> Iterator[_Line]:
    pin = on_pin(rig)
    if (not pin or rig.kind == "gooseneck") and rig.terms != "europe":
        chains = [part for part in rig.hitch.parts if "chain" in part.kind.lower()]
        yield (
            "chains",
            "Safety chains crossed under the coupler, hooks closed, nothing dragging",
            "chains are in the hitch chain"
            if chains
            else "not in the hitch chain yet: their rating counts too",
            "plain" if chains else "ask",
        )
    how = rig.kind.replace("_", " ") if pin else "ball"
    yield "lock", upper_first(coupling_test(rig)), f"{how} hitch", "plain"
    if rig.hitch.weight_distribution:
        yield (
            "bars",
            "Spring bars tensioned as they were weighed; stay clear, they can strike",
            "the hitch has spring bars",
            "plain",
        )
    yield _heights(rig)
    yield (
        "jack",
        "Jockey wheel and corner steadies up, handbrake off, chocks off last"
        if rig.terms == "europe" and not pin
        else f"{'Landing legs' if pin else 'Jack'} and stabilisers up, chocks off last",
        "the trailer stands on its own feet when parked",
        "plain",
    )


def _heights(rig: RigFile) -> _Line:
    """The coupling as it was measured: how high, how level, which drop."""
    parts = "Hitch plate and pin box" if on_pin(rig) else "Ball and coupler"
    ball, coupler = (
        rig.hitch.ball_height,
        rig.trailer.geometry.coupler_height if rig.trailer else None,
    )
    stance, unit = attitude(rig), rig.units.lengths
    if ball is None or coupler is None or stance is None:
        return (
            "heights",
            f"{parts} measured: how high, trailer level",
            "put both heights in Plates, under the hitch",
            "ask",
        )
    drops = [part.drop for part in rig.hitch.parts if part.drop]
    set_to = f", ball mount set to {print_length(drops[0].m, unit, fine=True)}" if drops else ""
    high = (
        f"{print_length(ball.m, unit, fine=True)} and "
        f"{print_length(coupler.m, unit, fine=True)} high"
    )
    return (
        "heights",
        f"{parts} as measured: {high}{set_to}",
        stance.says.rstrip("."),
        "plain" if stance.level else "missing",
    )


def _secured(rig: RigFile) -> Iterator[_Line]:
    """A line for each item aboard whose owner said how it is held."""
    counts: dict[str, int] = {}
    for load in rig.loads:
        if load.secured and load.kg:
            code = "secured_" + (re.sub(r"[^a-z0-9]+", "_", load.name.lower()).strip("_") or "item")
            counts[code] = counts.get(code, 0) + 1
            number = f"_{counts[code]}" if counts[code] > 1 else ""
            yield (
                f"{code}{number}",
                f"{load.name or 'Item'}: {load.secured}",
                f"in the {load.on}, as you secure it",
                "plain",
            )


def _around(rig: RigFile, evaluation: Evaluation) -> Iterator[_Line]:
    vehicle, trailer = rig.vehicle, rig.trailer
    if trailer is not None:
        width, span = trailer.geometry.width, vehicle.mirror_span
        if width and span:
            wide = span.m > width.m
            yield (
                "mirrors",
                "Mirrors that see past the trailer's side",
                "mirror to mirror is wider than the trailer"
                if wide
                else "mirror to mirror is not wider than the trailer",
                "plain" if wide else "missing",
            )
        else:
            yield (
                "mirrors",
                "Mirrors that see past the trailer's side",
                "its width and yours are not entered",
                "ask",
            )
        yield (
            "lights",
            "Brake, turn, running and reversing lights, seen by a second person",
            "the trailer is coupled",
            "plain",
        )
    sets = [
        (group, tires)
        for group, tires in (
            ("front", vehicle.tires.front),
            ("rear", vehicle.tires.rear),
            ("trailer", trailer.tires if trailer else None),
        )
        if tires
    ]
    low = [
        group
        for group, tires in sets
        if tires.pressure
        and tires.placard_pressure
        and tires.pressure.kpa < tires.placard_pressure.kpa
    ]
    known = bool(sets) and all(tires.pressure for _, tires in sets)
    short = [
        advisory.message
        for advisory in evaluation.advisories
        if advisory.code in ("pressure_below_need", "pressure_none_carries")
    ]
    fact = (
        f"{', '.join(low)} set below the placard"
        if low
        else short[0].rstrip(".")
        if short
        else "set as entered"
        if known
        else "not all pressures are entered"
    )
    low += short
    yield (
        "pressure",
        "Tire pressures cold, spare too",
        fact,
        "missing" if low else "plain" if known else "ask",
    )
    old = [advisory for advisory in evaluation.plates if advisory.code == "tire_old"]
    if old:
        yield (
            "old_tires",
            "Tires looked at by somebody who knows: age, cracks, bulges",
            old[0].message.split(":")[0],
            "missing",
        )
    yield (
        "load",
        "Everything lashed, doors and drawers shut, gas off where it must be",
        "the load as packed",
        "plain",
    )


def readiness(rig: RigFile, evaluation: Evaluation, today: datetime.date) -> list[ReadinessItem]:
    """What this rig needs before it rolls.

    ``rig``: its facts, and the days on which lines were ticked. ``evaluation``: for what the
    trailer weighs. ``today``: ticks older than :data:`STALE_DAYS` are asked for again.
    """
    lines: list[_Line] = []
    if rig.towing:
        gross, gvwr = (
            evaluation.derived.trailer_gross,
            rig.trailer.ratings.gvwr if rig.trailer else None,
        )
        mass = (
            max(gross.value * KG[rig.units.mass] if gross else 0.0, gvwr.kg if gvwr else 0.0)
            or None
        )
        lines += _brakes(rig, mass)
        if not on_its_wheels(rig):
            lines += _hitch(rig)
        else:
            lines.append(
                (
                    "towed_car",
                    "Tow bar pinned, steering free, gearbox and brakes as its maker's manual says",
                    "a car towed on its own wheels",
                    "plain",
                )
            )
            lines.append(
                (
                    "towed_car_cables",
                    "Safety cables on, breakaway cable and supplemental brake tried",
                    "a car towed on its own wheels",
                    "plain",
                )
            )
    lines += _around(rig, evaluation)
    lines += _secured(rig)
    steps = []
    for code, text, fact, state in lines:
        ready = rig.ready.get(code)
        stale = ready is not None and (today - ready).days > STALE_DAYS
        steps.append(ReadinessItem(code, text, fact, state, ready, stale))
    return steps
