"""What each vehicle and each trailer of the garage brings to every match, worked out once."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from noxel.core.limits import CHECKS, CheckId, Limit, limits, tow_limit
from noxel.core.match.ceiling import as_towing, towing_limits
from noxel.core.match.loaded_vehicle import (
    Solo,
    solo_planned,
    solo_weighed,
    weigh_in_numbered,
    with_load,
)
from noxel.core.match.own_share import Share, share_planned
from noxel.core.mechanics import Weighing, expect, items_kg, load_place, weigh
from noxel.core.rig import RigFile, Trailer, on_pin


@dataclass(frozen=True, slots=True)
class MatchVehicle:
    """A vehicle ready to be matched: as loaded, and its limits. [kg]

    ``on_pin`` is whether its hitch takes a pin, None where no rig says.
    """

    id: str
    name: str
    rig: RigFile
    known: Mapping[CheckId, Limit | None]
    solo: Solo
    on_pin: bool | None = None

    def limits_with(self, trailer: Trailer) -> dict[CheckId, Limit | None]:
        """Its limits with a trailer; one without brakes has a tow rating of its own."""
        own, known = self.rig.trailer, dict(self.known)
        if "none" in (trailer.brakes, own.brakes if own else None):
            coupled = self.rig.model_copy(update={"trailer": trailer})
            known["vehicle.tow_rating"] = tow_limit(coupled)
        return known


@dataclass(frozen=True, slots=True)
class MatchTrailer:
    """A trailer to be matched: at its own rating, and at what it weighs or is expected to, with the
    ± of that [kg]; at the tongue share taken for it.
    """

    id: str
    name: str
    trailer: Trailer
    rated: float | None
    expected: float | None
    share: Share
    expected_off: float = 0.0
    on_pin: bool | None = None
    known: Mapping[CheckId, Limit | None] = field(default_factory=dict)


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
        solo_weighed(rig, weigh(rig, weigh_in_numbered(rig))) or solo_planned(towing),
        extra,
        load_place(rig),
    )
    return MatchVehicle(
        id_, name, towing, towing_limits(rig, solo), solo, on_pin(rig) if in_a_rig else None
    )


def trailer_of_rig(id_: str, name: str, rig: RigFile, *, in_a_rig: bool) -> MatchTrailer | None:
    """A trailer as the rig that has it weighed and lists it; None where there is no trailer. [kg]

    One that no rig has is rated only; what it puts on a hitch is its dry share, else the high end
    of what its coupling usually does.
    """
    trailer = rig.trailer
    if trailer is None:
        return None
    pin = on_pin(rig) if in_a_rig else None
    if trailer.coupling is not None:
        pin = trailer.coupling == "pin"
    kind = "fifth_wheel" if pin else "conventional"
    alone = RigFile.model_validate({"units": {"mass": "kg"}, "kind": kind})
    alone = alone.model_copy(update={"trailer": trailer})
    weighing = weigh(rig, weigh_in_numbered(rig)) if in_a_rig else Weighing()
    share = share_planned(rig if in_a_rig else alone, weighing, places=in_a_rig)
    knowledge = expect(rig, weighing) if in_a_rig else None
    gross = knowledge.known("trailer_gross") if knowledge is not None else None
    if knowledge is None or knowledge.way("trailer_gross") == "rating":
        gross = None
    own = {
        check: limit
        for check, limit in limits(alone).items()
        if CHECKS[check].subject == "trailer" or CHECKS[check].group == "trailer"
    }
    return MatchTrailer(
        id_,
        name,
        trailer,
        trailer.ratings.gvwr.kg if trailer.ratings.gvwr else None,
        gross.value if gross is not None else None,
        share,
        gross.plus_minus if gross is not None else 0.0,
        pin,
        own,
    )
