"""The rig as its labels describe it: vehicle, hitch chain, trailer, loads, plan and policy.

The names are those of the rig file. Every rating is optional; what is missing makes its check unknown.
"""

from typing import Annotated, Any, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from noxel.core.base import Entered, Fraction, Model, Name, Number, misplaced
from noxel.core.quantities import Length, NonNegativeMass, PositiveLength, PositiveMass

Kind = Literal["conventional", "fifth_wheel", "gooseneck", "motorhome", "slide_in"]
Mode = Literal["carrying", "distributing"]

CHECKS = (
    "vehicle.front_axle", "vehicle.rear_axle", "vehicle.gross", "vehicle.payload", "combination.gross",
    "vehicle.tow_rating", "trailer.gross", "trailer.axles", "trailer.cargo", "hitch.trailer", "hitch.tongue",
    "tires.front", "tires.rear", "tires.trailer",
)  # fmt: skip
"""Every check that has a limit, but for the single axles ``trailer.axle_1``, ``trailer.axle_2`` …"""


class ByMode(Model):
    """A rating that differs with the hitch's mode: weight-carrying or weight-distributing."""

    carrying: PositiveMass | None = None
    distributing: PositiveMass | None = None

    @model_validator(mode="after")
    def _has_one(self) -> Self:
        if self.carrying is None and self.distributing is None:
            raise misplaced("carrying", "a rating by mode needs a carrying or a distributing figure")
        return self


def _rating_form(raw: Any) -> str:
    return "by_mode" if isinstance(raw, dict | ByMode) else "one_figure"


Rating = Annotated[Annotated[PositiveMass, Tag("one_figure")] | Annotated[ByMode, Tag("by_mode")], Discriminator(_rating_form)]
"""One figure for both modes, or one for each."""


def rating_in(rating: PositiveMass | ByMode | None, mode: Mode) -> PositiveMass | None:
    """The rating in force in a mode.

    A plain figure serves both. A missing distributing figure is replaced by the carrying one, never the reverse.
    """
    if not isinstance(rating, ByMode):
        return rating
    if mode == "distributing":
        return rating.distributing or rating.carrying
    return rating.carrying


def rating_path(rating: PositiveMass | ByMode | None, mode: Mode) -> str:
    """Where, below a rating, the figure in force stands: ``""``, ``".carrying"`` or ``".distributing"``."""
    if not isinstance(rating, ByMode):
        return ""
    return ".distributing" if mode == "distributing" and rating.distributing else ".carrying"


class VehicleRatings(Model):
    """The tow vehicle's ratings."""

    gvwr: PositiveMass | None = None
    gawr_front: PositiveMass | None = None
    gawr_rear: PositiveMass | None = None
    gcwr: PositiveMass | None = None
    tow_rating: Rating | None = None
    payload: PositiveMass | None = None
    payload_reduction: NonNegativeMass | None = None
    tongue_rating: Rating | None = None

    @model_validator(mode="after")
    def _some_payload_left(self) -> Self:
        if self.payload and self.payload_reduction and self.payload_reduction.kg >= self.payload.kg:
            raise misplaced("payload_reduction", "takes away the whole payload rating; re-read the add-on label")
        return self


class VehicleGeometry(Model):
    """Lengths of the tow vehicle; the hitch point is behind the rear axle when positive, ahead when negative."""

    wheelbase: PositiveLength | None = None
    hitch_offset: Length | None = None


class AxleTires(Model):
    """The tires of one axle (or of all trailer axles): how many, and the most that each may carry as fitted."""

    count: Annotated[int, Field(strict=True, ge=1, le=64)] | None = None
    max_load: PositiveMass | None = None


class VehicleTires(Model):
    """The tow vehicle's tires, by axle."""

    front: AxleTires | None = None
    rear: AxleTires | None = None


class Vehicle(Entered):
    """The tow vehicle, or the motorhome, or the truck that carries a camper."""

    name: Name = ""
    body: Literal["pickup", "wagon", "van", "motorhome"] | None = None
    ratings: VehicleRatings = VehicleRatings()
    curb_weight: PositiveMass | None = None
    geometry: VehicleGeometry = VehicleGeometry()
    tires: VehicleTires = VehicleTires()


class HitchPart(Entered):
    """One link of the hitch chain: receiver, ball mount, adapter, ball, coupler, fifth-wheel hitch."""

    kind: Annotated[str, Field(min_length=1, max_length=60)]
    trailer: Rating | None = None
    tongue: Rating | None = None


class Hitch(Entered):
    """The hitch chain. With weight distribution its distributing ratings apply."""

    weight: NonNegativeMass | None = None
    weight_distribution: Annotated[bool, Field(strict=True)] = False
    parts: Annotated[tuple[HitchPart, ...], Field(max_length=40)] = ()

    @property
    def mode(self) -> Mode:
        """Which ratings apply."""
        return "distributing" if self.weight_distribution else "carrying"


class TrailerRatings(Model):
    """The trailer's ratings; ``gawr`` is one figure an axle, ``axle_group`` the rating of all its axles together."""

    gvwr: PositiveMass | None = None
    gawr: Annotated[tuple[PositiveMass, ...], Field(max_length=9)] = ()
    axle_group: PositiveMass | None = None
    ccc: PositiveMass | None = None


class TrailerGeometry(Model):
    """Lengths of the trailer."""

    coupler_to_axles: PositiveLength | None = None


class Trailer(Entered):
    """The trailer."""

    name: Name = ""
    ratings: TrailerRatings = TrailerRatings()
    dry_weight: PositiveMass | None = None
    dry_tongue: NonNegativeMass | None = None
    geometry: TrailerGeometry = TrailerGeometry()
    suspension: Literal["leaf", "torsion", "other"] | None = None
    tires: AxleTires | None = None


class Load(Entered):
    """A thing aboard; its position is behind the front axle (vehicle) or behind the coupler (trailer)."""

    name: Name = ""
    on: Literal["vehicle", "trailer"]
    mass: NonNegativeMass
    quantity: Annotated[Number, Field(ge=0, le=100_000)] = 1
    position: Length | None = None


class VehicleBase(Model):
    """The vehicle without the listed loads, axle by axle, with or without the hitch's own mass."""

    front: NonNegativeMass | None = None
    rear: NonNegativeMass | None = None
    hitch_fitted: Annotated[bool, Field(strict=True)] = False


class TrailerBase(Model):
    """The trailer without the listed loads."""

    gross: PositiveMass | None = None
    tongue: NonNegativeMass | None = None


class Plan(Entered):
    """What predictions start from."""

    vehicle_base: VehicleBase | None = None
    trailer_base: TrailerBase | None = None
    front_restoration: Annotated[Number, Field(ge=0, le=2)] | None = None
    tongue_share: Fraction | None = None


class Policy(Entered):
    """How much of each rating the owner wants to use, and the tongue share aimed at."""

    school: Literal["plate", "cushion"] = "plate"
    cushions: dict[str, Annotated[Number, Field(gt=0, le=1)]] = {}
    tongue_share: tuple[Fraction, Fraction] | None = None

    @model_validator(mode="after")
    def _sound(self) -> Self:
        for check in self.cushions:
            axle = check.removeprefix("trailer.axle_")
            if check not in CHECKS and not (axle != check and axle.isascii() and axle.isdigit()):
                raise misplaced(f"cushions.{check}", "is not a check that has a limit")
        if self.tongue_share and self.tongue_share[0] >= self.tongue_share[1]:
            raise misplaced("tongue_share[1]", "must be above the low end")
        return self
