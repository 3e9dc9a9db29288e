"""The units that Noxel knows, what one of each is in SI, and the largest figures that a road rig
can have.
"""

import math
from typing import Literal

from noxel.errors import QuantityError

MassUnit = Literal["lb", "kg"]


LengthUnit = Literal["in", "mm", "cm", "ft", "m"]


PressureUnit = Literal["psi", "kPa", "bar"]


VolumeUnit = Literal["gal", "l"]


Dimension = Literal["mass", "length", "pressure", "volume", "number", "share"]


KG: dict[str, float] = {"lb": 0.45359237, "kg": 1.0, "t": 1000.0}
"""Kilograms in one unit. The pound is exact: international yard and pound agreement, 1959."""


METRES: dict[str, float] = {"in": 0.0254, "mm": 0.001, "cm": 0.01, "ft": 0.3048, "m": 1.0}
"""Metres in one unit; the inch and the foot are exact by the same agreement."""


KPA: dict[str, float] = {"psi": KG["lb"] * 9.80665 / 0.0254**2 / 1000, "kPa": 1.0, "bar": 100.0}
"""Kilopascals in one unit; a psi is a pound at standard gravity (9.80665 m/s²) on a square inch."""


FLUIDS: dict[str, float] = {
    "gasoline": 6.2,
    "diesel": 7.0,
    "def": 9.1,
    "water": 8.34,
    "propane": 4.2,
}
"""Mass of a US gallon, as used in practice. [lb/US gal]"""


HEAVIEST = 200_000.0
"""No figure of a road rig is above this; more is a slip of the finger. [kg]"""


LONGEST = 100.0
"""Likewise for lengths. [m]"""


LITRES: dict[str, float] = {"gal": 3.785411784, "l": 1.0}
"""Litres in one unit; the US gallon is 231 cubic inches exactly."""


FULLEST = 20_000.0
"""No tank of a road rig holds more. [l]"""


HARDEST = 2000.0
"""Likewise for tire pressures. [kPa]"""


def factors_of(dimension: Dimension) -> dict[str, float]:
    return {"mass": KG, "length": METRES, "pressure": KPA, "volume": LITRES}.get(dimension, {})


def fluid_density(fluid: str) -> float:
    """Mass of a litre of a fluid, from what a US gallon of it weighs. [kg/l]"""
    return FLUIDS[fluid] * KG["lb"] / LITRES["gal"]


def check_range(si: float, dimension: Dimension) -> float:
    """Refuse what no road rig has.

    Parameters
    ----------
    si : float
        A mass [kg], a length [m], a pressure [kPa] or a volume [l].
    dimension : {"mass", "length", "pressure", "volume"}
        Which of them.

    Returns
    -------
    float
        ``si`` unchanged.

    Raises
    ------
    QuantityError
        If it is not finite, or beyond :data:`HEAVIEST`, :data:`LONGEST`, :data:`HARDEST` or
        :data:`FULLEST`.
    """
    if not math.isfinite(si):
        raise QuantityError("is not a finite number")
    if dimension == "mass" and abs(si) > HEAVIEST:
        raise QuantityError("is beyond 200 t, more than anything on a road weighs")
    if dimension == "length" and abs(si) > LONGEST:
        raise QuantityError("is beyond 100 m, longer than any rig")
    if dimension == "volume" and abs(si) > FULLEST:
        raise QuantityError("is beyond 20,000 l, more than any rig's tank holds")
    if dimension == "pressure" and abs(si) > HARDEST:
        raise QuantityError("is beyond 2,000 kPa (290 psi), more than any road tire holds")
    return si
