"""The rig as its labels describe it: vehicle, hitch chain, trailer, loads, plan and policy.

The names are those of the rig file. Every rating is optional; what is missing makes its check
unknown.
"""

from typing import Annotated, Any, Literal, Self, get_args

from pydantic import Discriminator, Field, Tag, model_validator

from noxel.core.quantities import Length, NonNegativeMass, PositiveLength, PositiveMass
from noxel.core.rig.base import Element, Entered, Fraction, Model, Name, Number, Share, misplaced
from noxel.core.rig.tires import AxleTires, VehicleTires

Kind = Literal["conventional", "fifth_wheel", "gooseneck", "motorhome", "slide_in"]


Mode = Literal["carrying", "distributing"]


Limited = Literal[
    "vehicle.front_axle",
    "vehicle.rear_axle",
    "vehicle.gross",
    "vehicle.payload",
    "combination.gross",
    "vehicle.tow_rating",
    "trailer.gross",
    "trailer.axles",
    "trailer.cargo",
    "hitch.trailer",
    "hitch.tongue",
    "tires.front",
    "tires.rear",
    "tires.trailer",
    "wheels.front",
    "wheels.rear",
    "wheels.trailer",
    "assembly.front",
    "assembly.rear",
    "assembly.trailer",
]
"""Every check that has a limit, but for the single axles."""
CHECKS: tuple[Limited, ...] = get_args(Limited)


Area = Annotated[Number, Field(gt=0, le=2000)]
"""A frontal area, in square feet or in square metres: the vehicle's limit and the trailer's figure
in the same.
"""


class ByMode(Model):
    """A rating that differs with the hitch's mode: weight-carrying or weight-distributing."""

    carrying: PositiveMass | None = None
    distributing: PositiveMass | None = None

    @model_validator(mode="after")
    def _has_one(self) -> Self:
        if self.carrying is None and self.distributing is None:
            raise misplaced(
                "carrying", "a rating by mode needs a carrying or a distributing figure"
            )
        return self


def _rating_form(raw: Any) -> str:
    return "by_mode" if isinstance(raw, dict | ByMode) else "one_figure"


Rating = Annotated[
    Annotated[PositiveMass, Tag("one_figure")] | Annotated[ByMode, Tag("by_mode")],
    Discriminator(_rating_form),
]
"""One figure for both modes, or one for each."""


def rating_in(rating: PositiveMass | ByMode | None, mode: Mode) -> PositiveMass | None:
    """The rating in force in a mode.

    A plain figure serves both. A missing distributing figure is replaced by the carrying one, never
    the reverse.
    """
    if not isinstance(rating, ByMode):
        return rating
    if mode == "distributing":
        return rating.distributing or rating.carrying
    return rating.carrying


def rating_path(rating: PositiveMass | ByMode | None, mode: Mode) -> str:
    """Where, below a rating, the figure in force stands: ``""``, ``".carrying"`` or
    ``".distributing"``.
    """
    if not isinstance(rating, ByMode):
        return ""
    return ".distributing" if mode == "distributing" and rating.distributing else ".carrying"


class VehicleRatings(Model):
    """The tow vehicle's ratings; ``…_towing`` are those that its maker grants while a trailer is
    coupled, where it grants more.

    ``gawr_tag`` is that of a second rear axle; both rear axles are then one group on the scale.
    """

    gvwr: PositiveMass | None = None
    gawr_front: PositiveMass | None = None
    gawr_rear: PositiveMass | None = None
    gcwr: PositiveMass | None = None
    tow_rating: Rating | None = None
    tow_unbraked: PositiveMass | None = None
    gvwr_towing: PositiveMass | None = None
    gawr_rear_towing: PositiveMass | None = None
    gawr_tag: PositiveMass | None = None
    payload: PositiveMass | None = None
    payload_reduction: NonNegativeMass | None = None
    tongue_rating: Rating | None = None

    @property
    def rear_axles(self) -> float | None:
        """What the rear axles may carry by their ratings, a tag axle's added. [kg]"""
        if self.gawr_rear is None:
            return None
        return self.gawr_rear.kg + (self.gawr_tag.kg if self.gawr_tag else 0.0)

    @model_validator(mode="after")
    def _some_payload_left(self) -> Self:
        if self.payload and self.payload_reduction and self.payload_reduction.kg >= self.payload.kg:
            raise misplaced(
                "payload_reduction", "takes away the whole payload rating; re-read the add-on label"
            )
        return self


class VehicleGeometry(Model):
    """Lengths of the tow vehicle; the hitch point is behind the rear axle when positive, ahead when
    negative.
    """

    wheelbase: PositiveLength | None = None
    hitch_offset: Length | None = None


class GuideRow(Model):
    """Which row of the towing guide the ratings were read from."""

    year: Name | None = None
    engine: Name | None = None
    axle_ratio: Name | None = None
    cab: Name | None = None
    drive: Name | None = None
    wheelbase: Name | None = None


class TongueRow(Model):
    """A row of the vehicle maker's table: with up to ``load`` carried in the vehicle the trailer
    may put ``tongue`` on the hitch.
    """

    load: NonNegativeMass
    tongue: PositiveMass


class DropRow(Model):
    """A row of a ball mount maker's table: its ratings with up to this drop (or rise)."""

    drop: PositiveLength
    trailer: PositiveMass | None = None
    tongue: PositiveMass | None = None


class DistributionRule(Model):
    """What the vehicle's maker says of weight distribution; ``above`` is the trailer mass from
    which it is required.
    """

    rule: Literal["required", "allowed", "forbidden"]
    above: PositiveMass | None = None


class Vehicle(Entered):
    """The tow vehicle, or the motorhome, or the truck that carries a camper.

    ``camper_zone`` is where the truck's camper label wants the camper's centre of mass,
    ``camper_centre`` where the camper's label has it, both from the same mark.
    """

    name: Name = ""
    body: Literal["pickup", "suv", "wagon", "van", "motorhome"] | None = None
    ratings: VehicleRatings = VehicleRatings()
    curb_weight: PositiveMass | None = None
    geometry: VehicleGeometry = VehicleGeometry()
    tires: VehicleTires = VehicleTires()
    guide: GuideRow | None = None
    distribution: DistributionRule | None = None
    mirror_span: PositiveLength | None = None
    frontal_area: Area | None = None
    camper_zone: tuple[Length, Length] | None = None
    camper_centre: Length | None = None
    tongue_table: Annotated[tuple[TongueRow, ...], Field(max_length=40)] = ()
    self_levelling: Annotated[bool, Field(strict=True)] = False


class HitchPart(Element):
    """One link of the hitch chain: receiver, ball mount, adapter, ball, coupler, fifth-wheel hitch.

    ``weight`` is its own mass; ``size`` the diameter of a ball, or of the ball that a coupler
    takes. ``d_value`` is stamped on European couplings [kN]; ``extension_leaves`` is the share of
    its ratings that its maker leaves with an extension in it. ``behind`` is how far behind the
    hitch point its own mass hangs (minus: ahead). ``drop`` is how it is set, up or down;
    ``by_drop`` what its maker rates it at then.
    """

    kind: Annotated[str, Field(min_length=1, max_length=60)]
    trailer: Rating | None = None
    tongue: Rating | None = None
    weight: NonNegativeMass | None = None
    size: PositiveLength | None = None
    d_value: Annotated[Number, Field(gt=0, le=1000)] | None = None
    extension_leaves: Annotated[Share, Field(gt=0, le=1)] | None = None
    behind: Length | None = None
    drop: PositiveLength | None = None
    by_drop: Annotated[tuple[DropRow, ...], Field(max_length=40)] = ()


class Hitch(Entered):
    """The hitch chain. With weight distribution its distributing ratings apply.

    ``ball_height`` is the top of the ball (or the plate of a fifth-wheel hitch) above level ground,
    coupled and loaded.
    """

    name: Name = ""
    weight: NonNegativeMass | None = None
    ball_height: PositiveLength | None = None
    target_restoration: Annotated[Share, Field(ge=0, le=1.5)] | None = None
    bar_rating: PositiveMass | None = None
    weight_distribution: Annotated[bool, Field(strict=True)] = False
    parts: Annotated[tuple[HitchPart, ...], Field(max_length=40)] = ()

    @property
    def mode(self) -> Mode:
        """Which ratings apply."""
        return "distributing" if self.weight_distribution else "carrying"

    @property
    def own_mass(self) -> float:
        """What the hitch itself puts on the vehicle: its weight, else that of its parts but the
        coupler. [kg]
        """
        if self.weight is not None:
            return self.weight.kg
        return sum(
            part.weight.kg
            for part in self.parts
            if part.weight and "coupler" not in part.kind.lower()
        )

    @property
    def own_lever(self) -> float:
        """How far behind the hitch point its own mass hangs: an adapter or an extension carries at
        its own lever. [m]
        """
        moment = sum(
            part.weight.kg * part.behind.m for part in self.parts if part.weight and part.behind
        )
        return moment / self.own_mass if moment and self.own_mass else 0.0


class TrailerRatings(Model):
    """The trailer's ratings; ``gawr`` is one figure an axle, ``axle_group`` the rating of all its
    axles together.
    """

    gvwr: PositiveMass | None = None
    gawr: Annotated[tuple[PositiveMass, ...], Field(max_length=9)] = ()
    axle_group: PositiveMass | None = None
    ccc: PositiveMass | None = None


class TrailerGeometry(Model):
    """Lengths of the trailer."""

    coupler_to_axles: PositiveLength | None = None
    coupler_height: PositiveLength | None = None
    width: PositiveLength | None = None


class DryExtra(Element):
    """An item the maker may or may not have counted in the dry weight: propane, battery, options,
    generator fuel.

    ``position`` is behind the coupler, minus when ahead of it.
    """

    name: Name = ""
    mass: NonNegativeMass
    counted: Annotated[bool, Field(strict=True)] = False
    position: Length | None = None


class Trailer(Entered):
    """The trailer."""

    name: Name = ""
    ratings: TrailerRatings = TrailerRatings()
    dry_weight: PositiveMass | None = None
    dry_tongue: NonNegativeMass | None = None
    dry_extras: Annotated[tuple[DryExtra, ...], Field(max_length=100)] = ()
    coupling: Literal["ball", "pin"] | None = None
    style: Literal["box", "utility", "boat", "car_carrier", "towed_car"] | None = None
    brakes: Literal["electric", "surge", "none"] | None = None
    geometry: TrailerGeometry = TrailerGeometry()
    suspension: Literal["leaf", "torsion", "other"] | None = None
    frontal_area: Area | None = None
    tires: AxleTires | None = None


class Policy(Entered):
    """How much of each rating the owner wants to use, and the tongue share aimed at."""

    school: Literal["plate", "cushion"] = "plate"
    cushions: dict[str, Annotated[Share, Field(gt=0, le=1)]] = {}
    tongue_share: tuple[Fraction, Fraction] | None = None
    brakes_above: PositiveMass | None = None
    tire_reserve: Annotated[Share, Field(ge=0, le=0.5)] | None = None
    gcwr_derate: Annotated[Share, Field(ge=0, le=0.5)] | None = None
    travel_speed: Annotated[Number, Field(gt=0, le=400)] | None = None

    @model_validator(mode="after")
    def _sound(self) -> Self:
        for check in self.cushions:
            axle = check.removeprefix("trailer.axle_")
            if check not in CHECKS and not (axle != check and axle.isascii() and axle.isdigit()):
                raise misplaced(f"cushions.{check}", "is not a check that has a limit")
        if self.tongue_share and self.tongue_share[0] >= self.tongue_share[1]:
            raise misplaced("tongue_share[1]", "must be above the low end")
        return self
