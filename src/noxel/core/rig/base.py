"""What all models of the vocabulary share."""

import datetime
import re
from typing import Annotated, Any, Literal

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    SerializerFunctionWrapHandler,
    model_serializer,
)
from pydantic_core import PydanticCustomError

from noxel.core.quantities import LengthUnit, MassUnit, PressureUnit, VolumeUnit

Source = Literal["plate", "manual", "scale", "worked_out", "guess"]
"""Where a figure came from (copied off a label, read in a manual, weighed,
computed, guessed).
"""


def _iso_day(value: Any) -> Any:
    if isinstance(value, datetime.date) and not isinstance(value, datetime.datetime):
        return value
    if isinstance(value, str) and _DAY.fullmatch(value):
        return value
    raise PydanticCustomError("day", "must be a date such as 2026-05-02")


_DAY = re.compile(r"[0-9]{4}-[0-9]{2}-[0-9]{2}")


Day = Annotated[datetime.date, BeforeValidator(_iso_day)]


class Model(BaseModel):
    """A frozen model that refuses keys it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, defer_build=True)

    @model_serializer(mode="wrap")
    def _only_what_was_given(self, handler: SerializerFunctionWrapHandler) -> dict[str, Any]:
        return {key: value for key, value in handler(self).items() if key in self.model_fields_set}


class Entry(Model):
    """How a figure was entered: the text as typed, where it came from, when, and a note.

    A text that cannot be understood, or that cannot stand yet, is kept here while the figure itself
    is absent.
    """

    text: Annotated[str, Field(max_length=4000)] | None = None
    source: Source | None = None
    date: Day | None = None
    note: Annotated[str, Field(max_length=2000)] | None = None


class Entered(Model):
    """A part of the rig that remembers how its figures were entered, by their path within it."""

    entered: Annotated[dict[str, Entry], Field(max_length=500)] = Field(default_factory=dict)


ElementId = Annotated[str, Field(pattern=r"^[kw][0-9a-z]{1,60}$")]


class Element(Entered):
    """An element of a list. ``id`` is its identity while it is stored and worked on, never given
    again; a rig file has none.
    """

    id: ElementId | None = None


def misplaced(at: str, message: str, **values: object) -> PydanticCustomError:
    """An error of a whole object that really belongs to the path ``at`` inside it."""
    return PydanticCustomError("misplaced", message, {"at": at, **values})


def _no_bool(value: Any) -> Any:
    if isinstance(value, bool | str):
        raise PydanticCustomError("number_type", "must be a number")
    return value


def _fraction(value: float) -> float:
    if not 0 < value < 1:
        raise PydanticCustomError(
            "fraction", "must lie between 0 and 1 (13 % is 0.13), not {written}", {"written": value}
        )
    return value


Number = Annotated[float, BeforeValidator(_no_bool)]


SHARE = "share"
"""Marks a number that is a share: it may be typed in per cent."""


Share = Annotated[Number, SHARE]


Fraction = Annotated[Share, AfterValidator(_fraction)]


Name = Annotated[str, Field(max_length=200)]


Note = Annotated[str, Field(max_length=4000)]


class Units(Model):
    """The units of bare numbers."""

    mass: MassUnit
    length: Literal["in", "mm", "cm", "ft", "m"] | None = None
    pressure: PressureUnit | None = None
    volume: VolumeUnit | None = None

    @property
    def lengths(self) -> LengthUnit:
        """The unit that lengths are shown in: the file's own, else the usual one beside its mass
        unit.
        """
        return self.length or ("in" if self.mass == "lb" else "mm")

    @property
    def volumes(self) -> VolumeUnit:
        """The unit that volumes are shown in, likewise."""
        return self.volume or ("gal" if self.mass == "lb" else "l")

    @property
    def pressures(self) -> PressureUnit:
        """The unit that pressures are shown in, likewise."""
        return self.pressure or ("psi" if self.mass == "lb" else "kPa")
