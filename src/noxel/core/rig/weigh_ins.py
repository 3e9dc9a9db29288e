"""Weigh-ins as they were read: scales, passes, readings, direct tongue measurements."""

import re
from functools import lru_cache
from typing import Annotated, Any, Literal, Self

from pydantic import (
    Discriminator,
    Field,
    ModelWrapValidatorHandler,
    Tag,
    field_validator,
    model_validator,
)

from noxel.core.quantities import (
    Length,
    Mass,
    MassUnit,
    NonNegativeLength,
    NonNegativeMass,
    PositiveLength,
    PositiveMass,
    units_in_force,
)
from noxel.core.rig.base import Day, Element, Entered, Name, Note, Share, misplaced
from noxel.core.rig.loads import Listed

Config = Literal["hitched", "vehicle_only", "vehicle_empty", "trailer_only"]


SpringBars = Literal["engaged", "slack", "none"]


_READING = re.compile(r"(front|rear|trailer_[1-9])(_left|_right)?|trailer|vehicle|gross")
"""A wheel, an axle, or a sum: the trailer's axles, the vehicle, everything on the scale."""

Accuracy = Annotated[Share, Field(ge=0, le=0.1)]
"""One standard uncertainty of a scale, as a share of its reading."""


class Scale(Entered):
    """What the passes were weighed on; ``accuracy`` is its one error, as a share of every reading
    (0.1 % when not given).

    ``slope`` is how steeply the place falls towards the front or the rear, as a share, where axles
    are weighed one after the other.
    """

    kind: Name | None = None
    resolution: PositiveMass
    accuracy: Accuracy = 0.001
    slope: Annotated[Share, Field(ge=0, le=0.2)] | None = None


class Adjustment(Element):
    """Mass to add to a pass's vehicle so that it matches the other passes: fuel burned, a person
    who stepped out.
    """

    what: Name = ""
    mass: Mass
    front_share: Annotated[Share, Field(ge=-5, le=5)] = 0.5


class Pass(Element):
    """One drive onto the scale; ``scale`` is its own where it was driven on another scale or day
    than the weigh-in's.
    """

    config: Config
    scale: Scale | None = None
    spring_bars: SpringBars | None = None
    unit: MassUnit | None = None
    readings: dict[str, NonNegativeMass] = Field(default_factory=dict)
    adjustments: Annotated[tuple[Adjustment, ...], Field(max_length=100)] = ()
    printed_gross: PositiveMass | None = None
    ticket_number: Name | None = None
    time: Name | None = None
    fee: Name | None = None
    aboard: Note | None = None
    fuel: Name | None = None
    note: Note | None = None

    @model_validator(mode="wrap")
    @classmethod
    def _in_its_own_unit(cls, raw: Any, handler: ModelWrapValidatorHandler[Self]) -> Self:
        unit = raw.get("unit") if isinstance(raw, dict) else None
        if not isinstance(unit, str):
            return handler(raw)
        with units_in_force(mass=unit):
            return handler(raw)

    @field_validator("readings")
    @classmethod
    def _known_names(cls, readings: dict[str, Mass]) -> dict[str, Mass]:
        for name in readings:
            if not _READING.fullmatch(name):
                raise misplaced(
                    name,
                    "is not a reading (front, rear, vehicle, trailer, trailer_1, gross, "
                    "front_left …)",
                )
        return readings

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        _fit_together(self.config, tuple(self.readings))
        _no_negative_difference(self.readings)
        if self.config == "trailer_only" and self.adjustments:
            raise misplaced("adjustments", "a pass of the trailer alone has no vehicle to adjust")
        return self

    @property
    def trailer_axles(self) -> tuple[int, ...]:
        """Numbers of the trailer axles that were read singly or by wheel, in order."""
        return _single_axles(tuple(self.readings))


@lru_cache(1024)
def _single_axles(names: tuple[str, ...]) -> tuple[int, ...]:
    return tuple(sorted({int(name.split("_")[1]) for name in names if name.startswith("trailer_")}))


@lru_cache(1024)  # the same few names stand in nearly every pass
def _fit_together(config: Config, names: tuple[str, ...]) -> None:
    """Refuse readings that cannot stand in one pass."""
    for name in names:
        on_trailer = name.startswith("trailer")
        if on_trailer and config in ("vehicle_only", "vehicle_empty"):
            raise misplaced(
                f"readings.{name}", "a pass of the vehicle alone has no trailer reading"
            )
        if not on_trailer and name != "gross" and config == "trailer_only":
            raise misplaced(
                f"readings.{name}", "a pass of the trailer alone has no vehicle reading"
            )
        for whole in _wholes(name):
            if whole in names:
                raise misplaced(
                    f"readings.{whole}", "is a sum given beside its parts; give one or the other"
                )
        twin = _twin(name)
        if twin is not None and twin not in names:
            raise misplaced(
                f"readings.{name}", "“{twin}” is missing: give both wheels, or the axle", twin=twin
            )
    read = {name.split("_")[0] for name in names}
    if "vehicle" in read and {"front", "rear"} <= read:
        raise misplaced("readings.vehicle", "is a sum given beside both axles; leave it out")
    parts = (
        {"trailer"}
        if config == "trailer_only"
        else {"front", "rear"}
        if config != "hitched"
        else {"front", "rear", "trailer"}
    )
    known = read | {"front", "rear"} if "vehicle" in read else read
    if "gross" in read and parts <= known:
        raise misplaced(
            "readings.gross",
            "is a sum given beside all its parts; a total printed on the ticket goes into "
            "printed_gross",
        )
    axles = _single_axles(names)
    for number in range(1, max(axles, default=0)):
        if number not in axles:
            raise misplaced(
                f"readings.trailer_{number}",
                "is missing: the trailer's other axles were read singly",
            )


_PARTS_OF = {"vehicle": ("front", "rear"), "gross": ("front", "rear", "trailer")}


def _no_negative_difference(readings: dict[str, Mass]) -> None:
    """Refuse a sum that is less than the parts of it that were read."""
    for whole, parts in _PARTS_OF.items():
        total = readings.get(whole)
        if total is None:
            continue
        read = sum(mass.kg for name, mass in readings.items() if name.split("_")[0] in parts)
        if whole == "gross" and "vehicle" in readings:
            on_axles = sum(
                mass.kg
                for name, mass in readings.items()
                if name.split("_")[0] in ("front", "rear")
            )
            read += readings["vehicle"].kg - on_axles
        if read > total.kg * (1 + 1e-9):
            raise misplaced(
                f"readings.{whole}",
                "is less than the parts of it that were read: what is left would be negative",
            )


def _wholes(name: str) -> list[str]:
    wholes = []
    if name.endswith(("_left", "_right")):
        wholes.append(name.rsplit("_", 1)[0])
    if name.startswith("trailer_"):
        wholes.append("trailer")
    return wholes


def _twin(name: str) -> str | None:
    if name.endswith("_left"):
        return name.removesuffix("_left") + "_right"
    return name.removesuffix("_right") + "_left" if name.endswith("_right") else None


class AtHeight(Element):
    """A measurement of the tongue at a coupler height, which may differ from the height it is towed
    at.
    """

    height: PositiveLength | None = None
    towing_height: PositiveLength | None = None
    note: Note | None = None


class ScaleMeasurement(AtHeight):
    """The tongue on a tongue scale, or on a ball mount with a scale in it."""

    method: Literal["scale", "ball_mount_scale"]
    value: NonNegativeMass
    resolution: PositiveMass
    accuracy: Accuracy = 0.01


class BeamMeasurement(AtHeight):
    """The tongue on a beam between a fixed support and a scale; ``span`` is support to scale."""

    method: Literal["beam_scale"]
    reading: NonNegativeMass
    tare: NonNegativeMass | None = None
    span: PositiveLength
    span_pm: NonNegativeLength | None = None
    coupler_from_support: PositiveLength
    coupler_from_support_pm: NonNegativeLength | None = None
    resolution: PositiveMass
    accuracy: Accuracy = 0.01

    @model_validator(mode="after")
    def _possible(self) -> Self:
        if self.tare is not None and self.tare.kg > self.reading.kg:
            raise misplaced("tare", "is more than the reading, so the tongue would be negative")
        if self.coupler_from_support.m > self.span.m:
            raise misplaced(
                "coupler_from_support",
                "is beyond the scale: the coupler sits between support and scale",
            )
        return self


class LeverMeasurement(AtHeight):
    """The tongue balanced by a known weight over a fulcrum; arms are from the fulcrum."""

    method: Literal["lever"]
    counterweight: PositiveMass
    counterweight_pm: NonNegativeMass | None = None
    counterweight_arm: PositiveLength
    counterweight_arm_pm: PositiveLength
    tongue_arm: PositiveLength
    tongue_arm_pm: NonNegativeLength | None = None
    beam_mass: NonNegativeMass | None = None
    beam_cg_arm: Length | None = None
    accuracy: Accuracy = 0.0

    @model_validator(mode="after")
    def _beam_is_whole(self) -> Self:
        if self.beam_mass is not None and self.beam_mass.kg > 0 and self.beam_cg_arm is None:
            raise misplaced(
                "beam_cg_arm", "is missing: the beam's own weight counts where its middle is"
            )
        return self


_METHODS = {"scale": "scale", "ball_mount_scale": "scale", "beam_scale": "beam", "lever": "lever"}


def _method(raw: Any) -> str | None:
    method = raw.get("method") if isinstance(raw, dict) else getattr(raw, "method", None)
    return _METHODS.get(method) if isinstance(method, str) else None


TongueMeasurement = Annotated[
    Annotated[ScaleMeasurement, Tag("scale")]
    | Annotated[BeamMeasurement, Tag("beam")]
    | Annotated[LeverMeasurement, Tag("lever")],
    Discriminator(
        _method,
        custom_error_type="method",
        custom_error_message=f"needs a method: one of {', '.join(_METHODS)}",
    ),
]


class Added(Element):
    """An item that came aboard (or left, when negative) after the weighing; where it is may not be
    known.
    """

    what: Name = ""
    on: Literal["vehicle", "trailer"]
    mass: Mass
    position: Length | None = None


class Accepted(Element):
    """A warning that somebody looked at and found right; ``path`` is within the weigh-in."""

    code: Name
    path: Name = ""
    note: Note | None = None


class WeighIn(Element):
    """One visit to a scale: its passes, in the order driven, and any direct measurements of the
    tongue.

    ``tags`` and what was ``decided`` are for finding it again, and knowing why, years later;
    ``listed`` is what the lists added up to on that day, so that what was added since can be told.
    """

    date: Day | None = None
    place: Name | None = None
    note: Note | None = None
    tags: Annotated[tuple[Name, ...], Field(max_length=50)] = ()
    decided: Note | None = None
    listed: Listed | None = None
    scale: Scale | None = None
    passes: Annotated[tuple[Pass, ...], Field(max_length=200)] = ()
    tongue_measurements: Annotated[tuple[TongueMeasurement, ...], Field(max_length=200)] = ()
    added_since: Annotated[tuple[Added, ...], Field(max_length=500)] = ()
    accepted: Annotated[tuple[Accepted, ...], Field(max_length=500)] = ()

    @model_validator(mode="after")
    def _scale_is_known(self) -> Self:
        if self.scale is None and any(pass_.scale is None for pass_ in self.passes):
            raise misplaced(
                "scale.resolution",
                "is missing: without its graduation a reading would look perfect",
            )
        return self

    @property
    def holds_anything(self) -> bool:
        """Whether anything was read yet; one just begun says nothing."""
        return bool(self.tongue_measurements) or any(pass_.readings for pass_ in self.passes)

    def last(self, config: Config, *, engaged: bool | None = None) -> Pass | None:
        """The last pass of a configuration; hitched ones may be distinguished by whether the bars
        were engaged.
        """
        latest = None
        for pass_ in self.passes:
            if pass_.config == config and (
                engaged is None or (pass_.spring_bars == "engaged") == engaged
            ):
                latest = pass_
        return latest
