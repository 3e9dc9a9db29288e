"""The three lengths of the lever model, and how the rig's own lists write a length."""

from dataclasses import dataclass

from noxel.core.mechanics.predict import overhang
from noxel.core.quantities import METRES, Length, LengthUnit
from noxel.core.rig import RigFile


@dataclass(frozen=True, slots=True)
class Lengths:
    """Wheelbase, overhang, coupler to axles. [m]"""

    a: float
    b: float
    length: float


def lever_lengths(rig: RigFile) -> Lengths:
    """The rig's lengths; it must be one that can be predicted."""
    wheelbase, coupler = (
        rig.vehicle.geometry.wheelbase,
        rig.trailer.geometry.coupler_to_axles if rig.trailer else None,
    )
    return Lengths(
        wheelbase.m if wheelbase else 1.0, overhang(rig) or 0.0, coupler.m if coupler else 1.0
    )


def rounded_length(metres: float, unit: LengthUnit) -> float:
    """A length in a unit, to about a tenth of a millimetre."""
    return round(metres / METRES[unit], {"m": 4, "ft": 3, "in": 2, "cm": 2, "mm": 1}[unit])


def in_the_rigs_unit(rig: RigFile, metres: float) -> Length:
    """A length as the rig's own lists write it, to a tenth of a millimetre; its unit said where the
    file has none.
    """
    unit = rig.units.lengths
    value = rounded_length(metres, unit)
    return Length(value if rig.units.length else f"{value} {unit}", metres)
