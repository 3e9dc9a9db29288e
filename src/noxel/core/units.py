"""Masses and lengths as people write them: reading, converting, printing.

Two readers. :func:`read_mass` and :func:`read_length` are strict: one number and its unit, as the rig file
has it. :func:`read_typed` is for what a person types in a field: sums, feet and inches, a unit or none.
"""

import math
import re
from dataclasses import dataclass
from decimal import Decimal
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

FLUIDS: dict[str, float] = {"gasoline": 6.2, "diesel": 7.0, "def": 9.1, "water": 8.34, "propane": 4.2}
"""Mass of a US gallon, as tanks are reckoned in practice. [lb/US gal]"""

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

_NUMBER = r"(?:[0-9]{1,3}(?:,[0-9]{3})+|[0-9]+)(?:\.[0-9]+)?|\.[0-9]+"
_STRICT = re.compile(rf"\s*([+-]?)\s*({_NUMBER})\s*([A-Za-z]+)\s*")
_GAPS = re.compile("(?<=[0-9])[ \u00a0\u2009\u202f](?=[0-9]{3}(?![0-9]))")
_FRACTION = re.compile(r"(?:\b([0-9]+)[ -])?\b([0-9]{1,3})/([0-9]{1,3})\b")
_TERM = re.compile(rf"\s*([+\u2212-]?)\s*({_NUMBER})\s*([A-Za-z\"'\u2032\u2033%]*)\s*")
_DECIMAL_COMMA = re.compile(r"[0-9],(?![0-9]{3}(?![0-9]))")
_ALIASES = {
    "lbs": "lb", "pound": "lb", "pounds": "lb", "kgs": "kg", "tonne": "t", "tonnes": "t",
    "kpa": "kPa", "litre": "l", "litres": "l", "liter": "l", "liters": "l", "gallon": "gal", "gallons": "gal",
    "inch": "in", "inches": "in", '"': "in", "\u2033": "in", "feet": "ft", "foot": "ft", "'": "ft", "\u2032": "ft",
}  # fmt: skip


_FLUID = re.compile(
    rf"\s*([+\u2212-]?)\s*({_NUMBER})\s*(gal|gallons?|l|litres?|liters?)\s+(?:of\s+)?([a-z]+)\s*", re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Typed:
    """A typed quantity, understood.

    ``value`` is what a rig file keeps: a number in the unit that was assumed, or a string with its own unit.
    """

    value: float | int | str


def _factors(dimension: Dimension) -> dict[str, float]:
    return {"mass": KG, "length": METRES, "pressure": KPA, "volume": LITRES}.get(dimension, {})


def _explain(text: str, dimension: Dimension) -> QuantityError:
    kind = {
        "mass": "a mass",
        "length": "a length",
        "pressure": "a pressure",
        "volume": "a volume",
        "number": "a number",
        "share": "a share",
    }[dimension]
    letters = [
        word for word in re.sub(r"[0-9.,+\-\s]", " ", text).split() if _ALIASES.get(word, word) not in _factors(dimension)
    ]
    if _DECIMAL_COMMA.search(text) and not letters:
        return QuantityError(f"“{text}”: a comma only stands before groups of three digits; write a decimal point")
    if letters:
        units = ", ".join(_factors(dimension))
        hint = f" (units: {units})" if units else ""
        return QuantityError(f"“{text}” is not {kind}: “{letters[0]}” was not understood{hint}")
    return QuantityError(f"“{text}” is not {kind}")


def _decimal(match: re.Match[str]) -> str:
    whole, above, below = match.groups()
    return str(Decimal(whole or 0) + Decimal(above) / Decimal(below)) if int(below) else match[0]


def _plain(number: str) -> Decimal:
    return Decimal(number.replace(",", ""))


def _read_strict(text: str, dimension: Dimension) -> float:
    factors = _factors(dimension)
    match = _STRICT.fullmatch(text)
    if match is None:
        if re.fullmatch(rf"\s*[+-]?\s*(?:{_NUMBER})\s*", text):
            raise QuantityError(f"“{text}” has no unit; write it as a number, or with one of {', '.join(factors)}")
        raise _explain(text, dimension)
    sign, number, unit = match.groups()
    if unit not in factors:
        raise QuantityError(f"“{text}”: “{unit}” is not a unit of {dimension} (one of {', '.join(factors)})")
    return float(f"{sign}{_plain(number)}") * factors[unit]


def read_mass(text: str) -> float:
    """Read a mass that carries its own unit, as a rig file writes it: ``"1450 kg"``, ``"3,200 lb"``, ``"1.45 t"``.

    Parameters
    ----------
    text : str
        One number and one of lb, kg, t.

    Returns
    -------
    float
        The mass. [kg]

    Raises
    ------
    QuantityError
        If it is anything else; a comma may only stand before groups of three digits.
    """
    return _read_strict(text, "mass")


def read_length(text: str) -> float:
    """Read a length that carries its own unit: ``"150 mm"``.

    Parameters
    ----------
    text : str
        One number and one of in, mm, cm, ft, m.

    Returns
    -------
    float
        The length. [m]

    Raises
    ------
    QuantityError
        If it is anything else.
    """
    return _read_strict(text, "length")


def read_pressure(text: str) -> float:
    """Read a pressure that carries its own unit: ``"80 psi"``.

    Parameters
    ----------
    text : str
        One number and one of psi, kPa, bar.

    Returns
    -------
    float
        The pressure. [kPa]

    Raises
    ------
    QuantityError
        If it is anything else.
    """
    return _read_strict(text, "pressure")


def read_volume(text: str) -> float:
    """Read a volume that carries its own unit: ``"46 gal"`` (US), ``"175 l"``.

    Parameters
    ----------
    text : str
        One number and one of gal, l.

    Returns
    -------
    float
        The volume. [l]

    Raises
    ------
    QuantityError
        If it is anything else.
    """
    return _read_strict(text, "volume")


def fluid_density(fluid: str) -> float:
    """Mass of a litre of a fluid, from what a US gallon of it is reckoned at. [kg/l]"""
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
        If it is not finite, or beyond :data:`HEAVIEST`, :data:`LONGEST`, :data:`HARDEST` or :data:`FULLEST`.
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


def _terms(text: str, dimension: Dimension) -> list[tuple[Decimal, str | None]]:
    joined = _FRACTION.sub(_decimal, text) if dimension == "length" else _GAPS.sub("", text)
    found: list[tuple[Decimal, str | None]] = []
    at = 0
    while at < len(joined):
        match = _TERM.match(joined, at)
        if match is None:
            raise _explain(text, dimension)
        sign, number, unit = match.groups()
        unit = _ALIASES.get(unit.lower(), unit.lower()) or None
        if found and not sign and (found[-1][1] is None or unit is None):
            raise _explain(text, dimension)
        if unit is not None and unit not in _factors(dimension) and not (dimension == "share" and unit == "%"):
            raise _explain(text, dimension)
        amount = _plain(number)
        found.append((amount if sign in ("", "+") else -amount, unit))
        at = match.end()
    if not found:
        raise QuantityError("is empty")
    following: str | None = None
    for index in range(len(found) - 1, -1, -1):  # "180 + 20 kg": the bare number takes the unit that follows it
        amount, unit = found[index]
        following = unit or following
        found[index] = (amount, following)
    return found


def _pair(text: str, default: str | None) -> Typed:
    """A label often gives both: ``7,050 lb / 3,198 kg``. The first counts, when the second says the same."""
    first, second = (read_typed(part, "mass", default) for part in text.split("/"))
    a, b = (
        read_mass(each.value) if isinstance(each.value, str) else each.value * KG[default or "kg"] for each in (first, second)
    )
    if abs(a - b) > max(0.005 * abs(a), 1.0):
        raise QuantityError(
            f"“{text}”: the two do not agree: {print_mass(a, 'lb')} is {print_mass(a, 'kg')}. Re-read the label"
        )
    return first


def _fluid_mass(text: str, match: re.Match[str]) -> float:
    sign, number, volume, name = match.groups()
    density = FLUIDS.get({"petrol": "gasoline", "gas": "gasoline"}.get(name.lower(), name.lower()))
    if density is None:
        raise QuantityError(f"“{text}”: “{name}” is not a fluid that is known here ({', '.join(FLUIDS)})")
    gallons = float(_plain(number)) * LITRES["l" if volume.lower().startswith("l") else "gal"] / LITRES["gal"]
    return (-1 if sign in ("-", "−") else 1) * gallons * density * KG["lb"]


def _number(total: Decimal) -> float | int:
    return int(total) if total == total.to_integral_value() else float(total)


BARE_SHARE = 2
"""A share typed without its sign is a fraction up to this, 0.6 or 1.2, and per cent above, 60."""


def read_typed(text: str, dimension: Dimension, default: str | None) -> Typed:
    """Read what a person typed: ``1450 kg``, ``180+165+60``, ``5 ft 4 in``, ``12.5 %``, ``12 gal diesel``.

    Parameters
    ----------
    text : str
        What was typed.
    dimension : {"mass", "length", "pressure", "volume", "number", "share"}
        What the field holds.
    default : str or None
        The unit of a bare number.

    Returns
    -------
    Typed
        What it means, in the form that a rig file keeps.

    Raises
    ------
    QuantityError
        If it cannot be read; the message says which part.
    """
    if dimension == "mass" and text.count("/") == 1:
        return _pair(text, default)
    fluid = _FLUID.fullmatch(_GAPS.sub("", text)) if dimension == "mass" else None
    if fluid is not None and default is not None:
        return Typed(_fluid_mass(text, fluid) / KG[default])
    terms = _terms(text, dimension)
    units = {unit or default for _, unit in terms}
    total = sum((amount for amount, _ in terms), Decimal(0))
    if dimension in ("number", "share"):
        if units == {"%"}:
            return Typed(float(total / 100))
        if "%" in units:
            raise _explain(text, dimension)
        if dimension == "share" and abs(total) > BARE_SHARE:
            return Typed(float(total / 100))
        return Typed(_number(total))
    if len(units) == 1:
        unit = next(iter(units))
        return Typed(_number(total) if unit == default else f"{_number(total)} {unit}")
    if default is None:
        raise QuantityError(f"“{text}” mixes numbers with and without a unit")
    factors = _factors(dimension)
    return Typed(float(sum(float(amount) * factors[unit or default] for amount, unit in terms)) / factors[default])


def round_half_up(value: float) -> int:
    """Round to a whole number, halves away from zero, as people round on paper."""
    whole = math.floor(abs(value) + 0.5)
    return whole if value >= 0 else -whole


def print_mass(kg: float, unit: MassUnit) -> str:
    """Print a mass in whole units with its unit: ``"4,050 lb"``; minus as a minus sign.

    Parameters
    ----------
    kg : float
        The mass. [kg]
    unit : {"lb", "kg"}
        What to print it in.
    """
    whole = round_half_up(kg / KG[unit])
    return f"{'−' if whole < 0 else ''}{abs(whole):,} {unit}"


def print_length(metres: float, unit: LengthUnit, *, fine: bool = False) -> str:
    """Print a length with its unit, as close as a tape tells it: ``"145 in"``, ``"3.68 m"``; ``fine`` for heights: ``"1.5 in"``.

    Parameters
    ----------
    metres : float
        The length. [m]
    unit : {"in", "ft", "cm", "mm", "m"}
        What to print it in.
    fine : bool
        A tenth of an inch or of a centimetre where it is not whole.
    """
    places = {"m": 2, "ft": 2 if fine else 1, "in": int(fine), "cm": int(fine), "mm": 0}[unit]
    said = f"{metres / METRES[unit]:,.{places}f}"
    return f"{said.removesuffix('.0')} {unit}"


def print_pressure(kpa: float, unit: str) -> str:
    """Print a pressure in whole psi or kPa, or in tenths of a bar: ``"65 psi"``."""
    value = kpa / KPA[unit]
    return f"{value:.1f} bar" if unit == "bar" else f"{round_half_up(value):,} {unit}"


def print_share(share: float) -> str:
    """Print a share in per cent with one decimal: ``"12.6 %"``."""
    return f"{share * 100:.1f} %"
