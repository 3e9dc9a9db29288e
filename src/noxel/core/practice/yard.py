"""The yard as it stands: a rig with hidden true loads, what was done with it, and what its owner
can know of it.
"""

import random
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from noxel.core.practice.rigs import OverOn, as_seen, make_rig
from noxel.core.practice.runs import Run
from noxel.core.practice.true_loads import ACCURACY, GRADUATION
from noxel.core.rig import Config, Pass, RigFile, ScaleMeasurement, SpringBars, WeighIn

Trap = Literal["typo", "stepped_out", "other_ticket"]


@dataclass(frozen=True, slots=True)
class Ticket:
    """A ticket as it was printed. [the scale's unit]

    ``visit`` counts the weigh-ins: after something was moved the next ticket begins a new one.
    ``trap`` is what is wrong with it.
    """

    number: str
    kind: Literal["first weigh", "re-weigh"]
    config: Config
    bars: SpringBars
    readings: Mapping[str, int]
    gross: int
    visit: int
    clean: Mapping[str, int]
    people: int
    trap: Trap | None = None


@dataclass(frozen=True, slots=True)
class TongueReading:
    """A direct measurement of the tongue: lines as they are read, in words, and as the rig file has
    them.
    """

    method: str
    says: str
    value: float
    measured: ScaleMeasurement | None
    visit: int


@dataclass(frozen=True, slots=True)
class Yard:
    """The yard as it stands. ``rig`` holds the truth in its plan; times in minutes, ``spent`` in
    the yard's money.
    """

    run: Run
    rig: RigFile
    on_scale: bool = False
    coupled: bool = True
    chocked: bool = False
    bars: SpringBars = "none"
    asked: bool = False
    taken: bool = False
    gone: bool = False
    minutes: int = 0
    spent: int = 0
    visit: int = 0
    tickets: tuple[Ticket, ...] = ()
    tongues: tuple[TongueReading, ...] = ()
    traps: tuple[Trap, ...] = ()
    said: str = ""
    log: tuple[str, ...] = field(default=())

    @property
    def config(self) -> Config:
        """How it would stand on the scale now."""
        return "hitched" if self.coupled and self.rig.towing else "vehicle_only"


def trapped(run: Run) -> tuple[Trap, ...]:
    """The traps of a challenge: none, one or two, by its difficulty."""
    every: tuple[Trap, ...] = ("typo", "stepped_out", "other_ticket")
    if run.difficulty < 2:
        return ()
    return tuple(
        random.Random(f"traps/{run.difficulty}/{run.seed}").sample(every, run.difficulty - 1)
    )


def rig_of(run: Run) -> RigFile:
    """The rig of a run that is not one of the reader's own, with its true loads."""
    if not run.difficulty:
        return make_rig(run.kind, run.seed, run.unit, run.terms, run.over)
    chance = random.Random(f"challenge/{run.difficulty}/{run.seed}")
    kind = chance.choice(
        ("bars", "plain", "bars", "pin", "caravan") if run.difficulty > 1 else ("plain", "bars")
    )
    limits: tuple[OverOn, ...] = ("rear_axle", "gross", "trailer", "tongue", "combination")
    over = chance.sample(limits, chance.choice((0, 2, 3, 3, 4, 5)))
    return make_rig(kind, run.seed, run.unit, run.terms, *over)


def begin(run: Run, own: RigFile | None = None) -> Yard:
    """The yard before the first act; ``own`` is the copy of the reader's rig where the run names
    one.
    """
    rig = own if own is not None else rig_of(run)
    bars: SpringBars = "engaged" if rig.hitch.weight_distribution and rig.towing else "none"
    return Yard(
        run=replace(run, acts=()),
        rig=rig,
        bars=bars,
        traps=trapped(run),
        said="You stand in the yard, loaded as for the road.",
    )


def crew(rig: RigFile) -> int:
    """How many people the rig is loaded with for the road."""
    return sum(1 for load in rig.loads if load.category == "people")


def seen_rig(yard: Yard, *, clean: bool = False) -> RigFile:
    """The rig as the reader can know it: labels, lists, and what the tickets say.

    ``clean`` is as they would say without a misprint or another rig's ticket, and of the passes
    with everyone aboard alone.
    """
    unit = yard.rig.units.mass
    visits = []
    for visit in sorted(
        {ticket.visit for ticket in yard.tickets} | {tongue.visit for tongue in yard.tongues}
    ):
        tickets = [
            ticket
            for ticket in yard.tickets
            if ticket.visit == visit and not (clean and ticket.people < crew(yard.rig))
        ]
        passes = tuple(pass_of(ticket, unit, clean=clean) for ticket in tickets)
        tongues = tuple(
            tongue.measured for tongue in yard.tongues if tongue.visit == visit and tongue.measured
        )
        visits.append(visit_of(unit, passes, tongues))
    return as_seen(yard.rig).model_copy(update={"weigh_ins": tuple(visits)})


def for_the_road(yard: Yard) -> RigFile:
    """The rig as it goes onto the road: with everybody in."""
    loads = tuple(
        load.model_copy(update={"aboard": True}) if load.category == "people" else load
        for load in yard.rig.loads
    )
    return yard.rig.model_copy(update={"loads": loads})


def visit_of(unit: str, passes: tuple[Pass, ...], tongues: tuple[ScaleMeasurement, ...]) -> WeighIn:
    """A weigh-in on the yard's scale."""
    scale = {
        "resolution": f"{GRADUATION['lb' if unit == 'lb' else 'kg']} {unit}",
        "accuracy": ACCURACY,
    }
    return WeighIn.model_validate({"scale": scale}).model_copy(
        update={"passes": passes, "tongue_measurements": tongues}
    )


def pass_of(ticket: Ticket, unit: str, *, clean: bool = False) -> Pass:
    """A ticket as a pass; ``clean`` as the scale read it, whatever was printed."""
    readings = ticket.clean if clean else ticket.readings
    document: dict[str, object] = {
        "config": ticket.config,
        "readings": {name: f"{value} {unit}" for name, value in readings.items()},
    }
    if ticket.config == "hitched":
        document["spring_bars"] = ticket.bars
    if not clean:
        document["printed_gross"] = f"{ticket.gross} {unit}"
    return Pass.model_validate(document)
