"""What a weigh-in teaches the lever model: where the hitch point really acts, and how hard the
spring bars pull.
"""

from dataclasses import dataclass, field, replace

from noxel.core.mechanics.model import Levers
from noxel.core.mechanics.predict import levers_of
from noxel.core.mechanics.weighing import Weighing
from noxel.core.quantities import Amount, Figure, Term, nominal, plus_minus
from noxel.core.rig import RigFile


@dataclass(frozen=True, slots=True)
class Calibration:
    """``overhang`` as the slack pass shows it [m]; the bars' moment found two ways [kg m], and
    whether they agree within their ±.
    """

    overhang: Figure | None = None
    moment_front: Figure | None = None
    moment_trailer: Figure | None = None
    agrees: bool = True
    apart: float = field(default=0.0)
    apart_pm: float = field(default=0.0)


def calibrate(rig: RigFile, weighing: Weighing) -> Calibration:
    """Read the effective overhang out of the slack pass, and the bars' moment out of the engaged
    one.

    Parameters
    ----------
    rig : RigFile
        Its wheelbase, and for the moment its coupler-to-axles length.
    weighing : Weighing
        A slack pass and the vehicle alone for the overhang; an engaged pass too for the moment.

    Returns
    -------
    Calibration
        What can be known; the rest is None.

    Notes
    -----
    Slack: front loses T·b/a, so b = a·(front solo − front slack)/T. Engaged against slack: the
    front axle gains M·(1 + b/L)/a and the trailer's axles gain M/L; each gives M.
    """
    geometry, trailer, slack = rig.vehicle.geometry, rig.trailer, weighing.slack
    tongue, solo = weighing.amount("tongue_static"), weighing.amount("front_solo")
    if (
        geometry.wheelbase is None
        or slack is None
        or slack.front is None
        or tongue is None
        or solo is None
        or nominal(tongue) <= 0
    ):
        return Calibration()
    a = geometry.wheelbase.m
    lost = solo - slack.front.amount
    overhang = Figure(
        "effective_overhang",
        a * lost / tongue,
        "wheelbase × (front solo − front slack) ÷ tongue weight",
        (
            Term("", "wheelbase", a, "length"),
            Term("×", "lost by the front axle", lost),
            Term("÷", "tongue weight", tongue),
        ),
        "length",
    )
    length = trailer.geometry.coupler_to_axles if trailer else None
    restored, moved = weighing.amount("front_restored"), weighing.amount("trailer_transfer")
    if length is None or restored is None or moved is None:
        return Calibration(overhang)
    front: Amount = a * restored / (1 + overhang.amount / length.m)
    back: Amount = length.m * moved
    apart = front - back
    return Calibration(
        overhang,
        Figure("moment_front", front, "wheelbase × restored ÷ (1 + overhang ÷ coupler to axles)"),
        Figure("moment_trailer", back, "coupler to axles × moved onto the trailer's axles"),
        abs(nominal(apart)) <= 1.5 * plus_minus(apart) + 1e-9,
        nominal(apart),
        plus_minus(apart),
    )


def levers_as_weighed(rig: RigFile, weighing: Weighing) -> Levers:
    """The rig's levers, its hitch point as a slack pass shows it where there is one."""
    learned, levers = calibrate(rig, weighing).overhang, levers_of(rig)
    return levers if learned is None else replace(levers, overhang=learned.value)
