"""What each vehicle and each trailer of the garage brings to every match, worked out once."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from noxel.core.limits import Limit, limits
from noxel.core.match.ceiling import as_towing, towing_limits
from noxel.core.match.loaded_vehicle import (
    solo_from_weigh_in,
    weigh_in_numbered,
    with_load,
)
from noxel.core.mechanics import Solo, items_kg, load_place, predict_solo, weigh
from noxel.core.rig import RigFile, Trailer, on_pin, share_range

BALL_USUAL, PIN_USUAL = 0.13, 0.20
"""Tongue share of a trailer that was never weighed, where its dry share is not larger: on a ball,
on a pin.
"""


@dataclass(frozen=True, slots=True)
class MatchVehicle:
    """A vehicle ready to be matched: as loaded, and its limits. [kg]

    ``on_pin`` is whether its hitch takes a pin, None where no rig says.
    """

    id: str
    name: str
    rig: RigFile
    known: Mapping[str, Limit | None]
    solo: Solo
    on_pin: bool | None = None


@dataclass(frozen=True, slots=True)
class MatchTrailer:
    """A trailer to be matched: at its own rating, and at what it is expected to weigh [kg], at the
    tongue share taken for it.
    """

    id: str
    name: str
    trailer: Trailer
    rated: float | None
    expected: float | None
    share: float
    on_pin: bool | None = None
    known: Mapping[str, Limit | None] = field(default_factory=dict)


def match_vehicle(
    id_: str,
    name: str,
    rig: RigFile,
    aboard: float | None,
    *,
    in_a_rig: bool = True,
    hitch: float | None = None,
) -> MatchVehicle:
    """Work out once what a vehicle brings to every match.

    Parameters
    ----------
    id_, name : str
        Of the vehicle.
    rig : RigFile
        The vehicle with its hitch, and the plan and loads of a rig that it is in, where there is
        one.
    aboard : float or None
        People and gear; None takes what that rig lists. [kg]
    in_a_rig : bool
        Whether a rig has it; else nothing says what its hitch takes.
    hitch : float or None
        The hitch's own mass where the rig does not say it. [kg]

    Returns
    -------
    MatchVehicle
        As weighed, else as planned, from its curb weight, or from its labels, as far as that goes.
    """
    towing = as_towing(rig)
    extra = 0.0 if aboard is None else aboard - items_kg(rig, "vehicle")
    if hitch is not None and not rig.hitch.own_mass:
        extra += hitch
    solo = with_load(
        solo_from_weigh_in(rig, weigh_in_numbered(rig)) or predict_solo(towing),
        extra,
        load_place(rig),
    )
    return MatchVehicle(
        id_, name, towing, towing_limits(rig), solo, on_pin(rig) if in_a_rig else None
    )


def match_trailer(
    id_: str,
    name: str,
    trailer: Trailer,
    cargo: float | None,
    *,
    share: float | None = None,
    pin: bool | None = None,
) -> MatchTrailer:
    """A trailer to be matched; what it is expected to weigh is its dry weight with what a rig lists
    for it, where one does. [kg]

    ``share`` is its tongue share where it was weighed; else the larger of the usual one, on a ball
    or on a pin, and its dry share.
    """
    pin = trailer.coupling == "pin" if trailer.coupling else pin
    rated = trailer.ratings.gvwr.kg if trailer.ratings.gvwr else None
    dry = trailer.dry_weight
    as_built = (
        dry.kg + sum(extra.mass.kg for extra in trailer.dry_extras if not extra.counted)
        if dry
        else None
    )
    expected = as_built + cargo if as_built is not None and cargo is not None else None
    usual = PIN_USUAL if pin else BALL_USUAL
    dry_share = trailer.dry_tongue.kg / dry.kg if dry and trailer.dry_tongue else 0.0
    alone = RigFile.model_validate({"units": {"mass": "kg"}, "kind": "conventional"}).model_copy(
        update={"trailer": trailer}
    )
    own = {
        check: limit
        for check, limit in limits(alone).items()
        if check.split(".")[-1] == "trailer" or check.startswith("trailer.")
    }
    return MatchTrailer(
        id_, name, trailer, rated, expected, share or max(usual, dry_share), pin, own
    )


def trailer_of_rig(id_: str, name: str, rig: RigFile, *, in_a_rig: bool) -> MatchTrailer | None:
    """A trailer as the rig that has it lists and weighed it; None where there is no trailer.

    A tongue that was weighed lighter than the usual range counts as its low end: it ought to be
    brought there.
    """
    if rig.trailer is None:
        return None
    if not in_a_rig:
        return match_trailer(id_, name, rig.trailer, None)
    tanks = sum(
        tank.full_kg() * tank.level(rig.plan.phase) for tank in rig.tanks if tank.on == "trailer"
    )
    cargo = items_kg(rig, "trailer") + tanks
    weighed = weigh(rig, weigh_in_numbered(rig)).figures.get("tongue_share")
    share = max(weighed.value, share_range(rig)[0]) if weighed else None
    return match_trailer(id_, name, rig.trailer, cargo or None, share=share, pin=on_pin(rig))
