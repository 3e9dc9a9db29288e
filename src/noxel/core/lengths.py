"""The three lengths of the lever model."""

from dataclasses import dataclass

from noxel.core.predict import overhang
from noxel.core.rigfile import RigFile


@dataclass(frozen=True, slots=True)
class Lengths:
    """Wheelbase, overhang, coupler to axles. [m]"""

    a: float
    b: float
    length: float


def lever_lengths(rig: RigFile) -> Lengths:
    """The rig's lengths; it must be one that can be predicted."""
    wheelbase, coupler = rig.vehicle.geometry.wheelbase, rig.trailer.geometry.coupler_to_axles if rig.trailer else None
    return Lengths(wheelbase.m if wheelbase else 1.0, overhang(rig) or 0.0, coupler.m if coupler else 1.0)
