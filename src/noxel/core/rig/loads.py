"""What is aboard and what is planned: loads, tanks, the plan, steps that change them. The names are
those of the rig file.
"""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from noxel.core.quantities import (
    FLUIDS,
    Length,
    Mass,
    NonNegativeLength,
    NonNegativeMass,
    PositiveMass,
    PositiveVolume,
    fluid_density,
)
from noxel.core.rig.base import Day, Element, Entered, Fraction, Model, Name, Note, Number, Share

Category = Literal["people", "essential", "comfort", "fixed"]


Fluid = Literal["gasoline", "diesel", "def", "propane", "fresh", "hot_water", "grey", "black"]


Phase = Literal["leaving", "half_way", "arriving", "heading_home"]


PHASES: tuple[Phase, ...] = ("leaving", "half_way", "arriving", "heading_home")
"""The phases of a trip, in order."""


Trouble = Annotated[Number, Field(ge=0, le=1000)] | Literal["never"]
"""The effort of a step, on the owner's own scale; ``never`` rules it out."""


class Effort(Model):
    """The effort to leave an item at home, to move it where it is, to put it in the other
    vehicle.
    """

    leave: Trouble | None = None
    move: Trouble | None = None
    swap: Trouble | None = None


class Load(Element):
    """An item aboard; its position is behind the front axle (vehicle) or behind the coupler
    (trailer).

    ``side`` is right of the middle (minus left), ``height`` above the floor; ``aboard`` is false
    when it stays at home this time; ``secured`` is how it is held.
    """

    name: Name = ""
    on: Literal["vehicle", "trailer"]
    mass: NonNegativeMass
    quantity: Annotated[Number, Field(ge=0, le=100_000)] = 1
    position: Length | None = None
    aboard: Annotated[bool, Field(strict=True)] = True
    category: Category | None = None
    side: Length | None = None
    height: NonNegativeLength | None = None
    effort: Effort | None = None
    secured: Name | None = None

    @property
    def kg(self) -> float:
        """All of it, or nothing when it stays at home this time. [kg]"""
        return self.mass.kg * self.quantity if self.aboard else 0.0


def _level(value: float) -> float:
    if not 0 <= value <= 1:
        raise PydanticCustomError(
            "level",
            "must lie between 0 and 100 %, not {percent} %",
            {"percent": f"{value * 100:g}"},
        )
    return value


Level = Annotated[Share, AfterValidator(_level)]


class Tank(Element):
    """A tank: what is in it, how much it holds, where it is, and how full it is in each phase of a
    trip.

    ``in_base`` is how full it was when the plan's base was weighed or published: fuel 1, water 0
    unless said otherwise.
    """

    name: Name = ""
    fluid: Fluid
    on: Literal["vehicle", "trailer"]
    capacity: PositiveVolume
    position: Length | None = None
    levels: dict[Phase, Level] = Field(default_factory=dict)
    in_base: Level | None = None
    effort: Trouble | None = None

    def level(self, phase: Phase) -> float:
        """How full it is in a phase; where that is not said, as in the phase before it, and full of
        fuel to begin with.
        """
        for earlier in reversed(PHASES[: PHASES.index(phase) + 1]):
            if earlier in self.levels:
                return self.levels[earlier]
        return self.base_level

    @property
    def base_level(self) -> float:
        """How full it counts as in the plan's base."""
        if self.in_base is not None:
            return self.in_base
        return 1.0 if self.fluid in ("gasoline", "diesel", "def") and self.on == "vehicle" else 0.0

    def full_kg(self) -> float:
        """What it holds when full. [kg]"""
        return self.capacity.litres * fluid_density(self.fluid if self.fluid in FLUIDS else "water")


class Listed(Model):
    """What the listed items added up to when the rig was weighed."""

    vehicle: NonNegativeMass | None = None
    trailer: NonNegativeMass | None = None


class Trip(Element):
    """A trip to weigh before."""

    date: Day
    name: Name = ""


class Reminders(Entered):
    """When to be reminded: so many months after the last weigh-in, so much added since it, before
    trips, at a tire's age.
    """

    months: Annotated[Number, Field(ge=1, le=240)] | None = None
    added: PositiveMass | None = None
    tire_years: Annotated[Number, Field(ge=1, le=30)] | None = None
    trips: Annotated[tuple[Trip, ...], Field(max_length=100)] = ()


class VehicleBase(Model):
    """The vehicle without the listed loads, axle by axle, with or without the hitch's own mass.

    ``front_pm`` and ``rear_pm`` are the ± of a base that was weighed (two standard uncertainties).
    """

    front: NonNegativeMass | None = None
    rear: NonNegativeMass | None = None
    front_pm: NonNegativeMass | None = None
    rear_pm: NonNegativeMass | None = None
    hitch_fitted: Annotated[bool, Field(strict=True)] = False


class TrailerBase(Model):
    """The trailer without the listed loads; ``gross_pm`` and ``tongue_pm`` are the ± of a base that
    was weighed.
    """

    gross: PositiveMass | None = None
    tongue: NonNegativeMass | None = None
    gross_pm: NonNegativeMass | None = None
    tongue_pm: NonNegativeMass | None = None


class Step(Model):
    """One change to the load; ``kind`` says what it does; ``index`` counts loads or tanks as
    listed.

    ``leave`` and ``take`` a load; ``move`` it to ``position``; ``swap`` it to the other vehicle at
    ``position``; fill or drain a tank to ``level``; set the ``bars`` to a restoration ``level``;
    put ``add`` of a mass ``on`` a vehicle at ``position``; ``drop`` the ball by ``position`` (minus
    raises it); couple another ``hitch`` or ``vehicle`` of the garage, ``thing`` its id.
    """

    kind: Literal[
        "leave", "take", "move", "swap", "tank", "bars", "add", "drop", "hitch", "vehicle"
    ]
    thing: Name | None = None
    index: Annotated[int, Field(strict=True, ge=0)] | None = None
    position: Length | None = None
    level: Annotated[Number, Field(ge=0, le=2)] | None = None
    mass: NonNegativeMass | None = None
    on: Literal["vehicle", "trailer"] | None = None
    name: Name = ""


class KeptPlan(Element):
    """Steps kept under a name, and what was predicted, to compare with the next weigh-in. [file's
    unit]
    """

    name: Name
    date: Day
    steps: Annotated[tuple[Step, ...], Field(max_length=200)] = ()
    said: Annotated[tuple[Note, ...], Field(max_length=200)] = ()
    predicted: dict[Name, Mass] = Field(default_factory=dict)


class Plan(Entered):
    """What predictions start from: the vehicle and trailer without the listed loads, and how they
    ride.

    ``effective_overhang`` is the hitch point behind the rear axle as a slack pass showed it; it
    goes before the tape's. ``trailer_by`` is ``listed`` once the owner has said that the trailer's
    list is complete.
    """

    vehicle_base: VehicleBase | None = None
    trailer_base: TrailerBase | None = None
    phase: Phase = "leaving"
    effective_overhang: Length | None = None
    bars_effort: Trouble | None = None
    front_restoration: Annotated[Share, Field(ge=0, le=2)] | None = None
    tongue_share: Fraction | None = None
    trailer_by: Literal["listed"] | None = None
