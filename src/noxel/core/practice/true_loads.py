"""What truly rests on each axle of a rig in the yard, and what a scale prints of it."""

from collections.abc import Mapping

from noxel.core.mechanics import predict_known
from noxel.core.quantities import KG, Mass, MassUnit
from noxel.core.rig import Config, RigFile, SpringBars
from noxel.errors import MissingInput

GRADUATION: Mapping[MassUnit, int] = {"lb": 20, "kg": 10}
"""What the yard's scale prints in steps of."""
ACCURACY = 0.0015
"""What the yard's scale states of its one error, as a standard share."""
GAIN, SWAY = 0.0003, 0.3
"""How far the whole scale is off today, as one standard share; how far a settled reading still
moves, in graduations.
"""
_SPACING, _DEFLECTION, _HEIGHT = 0.86, 0.04, 1.1
"""Between tandem axles; how far a torsion axle gives under its rating; the height of a trailer's
centre of mass. [m]
"""


def graduate(kg: float, unit: str, step: float) -> float:
    """What a scale of that graduation prints, in its own unit."""
    return round(kg / KG[unit] / step) * step


def nose_up_shift(rig: RigFile) -> float:
    """What the height of the ball adds to the tongue weight. [kg]

    Notes
    -----
    A trailer pitched by θ = (ball − level coupler) / L: its centre of mass moves back by h·θ, which
    takes W·h·θ/L off the tongue. Two axles that share no load (torsion) tilt with it: the rear one
    is pressed by k·s·θ/2 more, the front one by as much less, so the tongue gains k·s²·θ/(2·L). An
    equaliser between leaf springs keeps the two alike.
    """
    trailer, ball = rig.trailer, rig.hitch.ball_height
    if (
        trailer is None
        or ball is None
        or not trailer.geometry.coupler_height
        or not trailer.geometry.coupler_to_axles
    ):
        return 0.0
    length, axles = trailer.geometry.coupler_to_axles.m, trailer.ratings.gawr
    pitch = (ball.m - trailer.geometry.coupler_height.m) / length
    base = rig.plan.trailer_base
    shift = -(base.gross.kg if base and base.gross else 0.0) * _HEIGHT * pitch / length
    if trailer.suspension == "torsion" and len(axles) > 1:
        stiffness = axles[0].kg / _DEFLECTION
        shift += stiffness * _SPACING**2 * pitch / (2 * length)
    return shift


def true_loads(rig: RigFile, bars: SpringBars) -> Mapping[str, float]:
    """Every true load of the rig as it is loaded, by the lever model's keys. [kg]

    Raises MissingInput if the rig lacks what places its loads: only a rig of one's own can.
    """
    plan, base = rig.plan, rig.plan.trailer_base
    update: dict[str, object] = {} if bars == "engaged" else {"front_restoration": 0.0}
    shift = nose_up_shift(rig)
    if shift and base is not None and base.tongue is not None:
        tongue = max(base.tongue.kg + shift, 0.0)
        update["trailer_base"] = base.model_copy(update={"tongue": Mass(f"{tongue!r} kg", tongue)})
    predicted = predict_known(
        rig.model_copy(update={"plan": plan.model_copy(update=update)}) if update else rig
    )
    if predicted.missing and (
        (rig.towing and "front_hitched" not in predicted.loads)
        or "front_solo" not in predicted.loads
    ):
        raise MissingInput(predicted.missing[0].path, predicted.missing[0].message)
    return predicted.loads


def on_platforms(rig: RigFile, config: Config, bars: SpringBars) -> Mapping[str, float]:
    """What each platform carries. [kg]"""
    loads = true_loads(rig, bars)
    if config == "hitched":
        return {
            "front": loads["front_hitched"],
            "rear": loads["rear_hitched"],
            "trailer": loads["trailer_axles"],
        }
    return {"front": loads["front_solo"], "rear": loads["rear_solo"]}
