"""How the rig's own lists write a length."""

from noxel.core.quantities import METRES, Length, LengthUnit
from noxel.core.rig import RigFile


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
