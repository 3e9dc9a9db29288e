"""Figures as people write them, and what they are worth in SI.

Units and their factors, the readers, the typed fields of the rig file, printing, and figures that carry their ±.
Knows nothing of rigs.
"""

from noxel.core.quantities.fields import (
    Length,
    Mass,
    NonNegativeLength,
    NonNegativeMass,
    PositiveLength,
    PositiveMass,
    PositivePressure,
    PositiveVolume,
    Pressure,
    Volume,
    units_in_force,
)
from noxel.core.quantities.figures import Amount, Figure, Op, Sort, Term, combine, nominal, plus_minus, ratio, total
from noxel.core.quantities.printing import (
    lower_first,
    print_length,
    print_mass,
    print_pressure,
    print_share,
    round_half_up,
    small_mass,
)
from noxel.core.quantities.reading import read_length, read_mass, read_typed
from noxel.core.quantities.units import (
    FLUIDS,
    KG,
    KPA,
    LITRES,
    METRES,
    Dimension,
    LengthUnit,
    MassUnit,
    PressureUnit,
    VolumeUnit,
    fluid_density,
)

__all__ = [
    "FLUIDS",
    "KG",
    "KPA",
    "LITRES",
    "METRES",
    "Amount",
    "Dimension",
    "Figure",
    "Length",
    "LengthUnit",
    "Mass",
    "MassUnit",
    "NonNegativeLength",
    "NonNegativeMass",
    "Op",
    "PositiveLength",
    "PositiveMass",
    "PositivePressure",
    "PositiveVolume",
    "Pressure",
    "PressureUnit",
    "Sort",
    "Term",
    "Volume",
    "VolumeUnit",
    "combine",
    "fluid_density",
    "lower_first",
    "nominal",
    "plus_minus",
    "print_length",
    "print_mass",
    "print_pressure",
    "print_share",
    "ratio",
    "read_length",
    "read_mass",
    "read_typed",
    "round_half_up",
    "small_mass",
    "total",
    "units_in_force",
]
