"""Masses and lengths as people write them, read into SI.

Two readers. :func:`read_mass` and :func:`read_length` are strict: one number and its unit, as the
rig file has it. :func:`read_typed` is for what a person types in a field: sums, feet and inches, a
unit or none.
"""

import re
from dataclasses import dataclass
from decimal import Decimal

from noxel.core.quantities.printing import print_mass
from noxel.core.quantities.units import FLUIDS, KG, LITRES, Dimension, factors_of
from noxel.errors import QuantityError

_NUMBER = r"(?:[0-9]{1,3}(?:,[0-9]{3})+|[0-9]+)(?:\.[0-9]+)?|\.[0-9]+"


_STRICT = re.compile(rf"\s*([+-]?)\s*({_NUMBER})\s*([A-Za-z]+)\s*")


_GAPS = re.compile("(?<=[0-9])[ \u00a0\u2009\u202f](?=[0-9]{3}(?![0-9]))")


_FRACTION = re.compile(r"(?:\b([0-9]+)[ -])?\b([0-9]{1,3})/([0-9]{1,3})\b")


_TERM = re.compile(rf"\s*([+\u2212-]?)\s*({_NUMBER})\s*([A-Za-z\"'\u2032\u2033%]*)\s*")


_DECIMAL_COMMA = re.compile(r"[0-9],(?![0-9]{3}(?![0-9]))")


_ALIASES = {
    "lbs": "lb",
    "pound": "lb",
    "pounds": "lb",
    "kgs": "kg",
    "tonne": "t",
    "tonnes": "t",
    "kpa": "kPa",
    "litre": "l",
    "litres": "l",
    "liter": "l",
    "liters": "l",
    "gallon": "gal",
    "gallons": "gal",
    "inch": "in",
    "inches": "in",
    '"': "in",
    "\u2033": "in",
    "feet": "ft",
    "foot": "ft",
    "'": "ft",
    "\u2032": "ft",
}


_FLUID = re.compile(
    rf"\s*([+\u2212-]?)\s*({_NUMBER})\s*(gal|gallons?|l|litres?|liters?)\s+(?:of\s+)?([a-z]+)\s*",
    re.IGNORECASE,
)


LONGEST = 40
"""A number with more digits than this is a slip of the hand."""


@dataclass(frozen=True, slots=True)
class Typed:
    """A typed quantity, understood.

    ``value`` is what a rig file keeps: a number in the unit that was assumed, or a string with its
    own unit.
    """

    value: float | int | str


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
        word
        for word in re.sub(r"[0-9.,+\-\s]", " ", text).split()
        if _ALIASES.get(word, word) not in factors_of(dimension)
    ]
    if _DECIMAL_COMMA.search(text) and not letters:
        return QuantityError(
            f"“{text}”: a comma only stands before groups of three digits; write a decimal point"
        )
    if letters:
        units = ", ".join(factors_of(dimension))
        hint = f" (units: {units})" if units else ""
        return QuantityError(f"“{text}” is not {kind}: “{letters[0]}” was not understood{hint}")
    return QuantityError(f"“{text}” is not {kind}")


def _decimal(match: re.Match[str]) -> str:
    whole, above, below = match.groups()
    return str(Decimal(whole or 0) + Decimal(above) / Decimal(below)) if int(below) else match[0]


def _plain(number: str) -> Decimal:
    if len(number) > LONGEST:
        raise QuantityError(f"“{number[:12]}…” has {len(number)} digits: a key held down?")
    return Decimal(number.replace(",", ""))


def _read_strict(text: str, dimension: Dimension) -> float:
    factors = factors_of(dimension)
    match = _STRICT.fullmatch(text)
    if match is None:
        if re.fullmatch(rf"\s*[+-]?\s*(?:{_NUMBER})\s*", text):
            raise QuantityError(
                f"“{text}” has no unit; write it as a number, or with one of {', '.join(factors)}"
            )
        raise _explain(text, dimension)
    sign, number, unit = match.groups()
    if unit not in factors:
        raise QuantityError(
            f"“{text}”: “{unit}” is not a unit of {dimension} (one of {', '.join(factors)})"
        )
    return float(f"{sign}{_plain(number)}") * factors[unit]


def read_mass(text: str) -> float:
    """Read a mass that carries its own unit, as a rig file writes it: ``"1380 kg"``, ``"3,200
    lb"``, ``"1.38 t"``.

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


def _terms(text: str, dimension: Dimension) -> list[tuple[Decimal, str | None]]:
    joined = _FRACTION.sub(_decimal, text) if dimension == "length" else _GAPS.sub("", text)
    parts: list[tuple[Decimal, str | None]] = []
    start = 0
    while start < len(joined):
        match = _TERM.match(joined, start)
        if match is None:
            raise _explain(text, dimension)
        sign, number, unit = match.groups()
        unit = _ALIASES.get(unit.lower(), unit.lower()) or None
        if parts and not sign and (parts[-1][1] is None or unit is None):
            raise _explain(text, dimension)
        if (
            unit is not None
            and unit not in factors_of(dimension)
            and not (dimension == "share" and unit == "%")
        ):
            raise _explain(text, dimension)
        amount = _plain(number)
        parts.append((amount if sign in ("", "+") else -amount, unit))
        start = match.end()
    if not parts:
        raise QuantityError("is empty")
    following: str | None = None
    # "180 + 20 kg": the bare number takes the unit that follows it
    for index in range(len(parts) - 1, -1, -1):
        amount, unit = parts[index]
        following = unit or following
        parts[index] = (amount, following)
    return parts


def _pair(text: str, default: str | None) -> Typed:
    """A label often gives both: ``6,900 lb / 3,130 kg``. The first counts, when the second says the
    same.
    """
    first, second = (read_typed(part, "mass", default) for part in text.split("/"))
    a, b = (
        read_mass(part.value) if isinstance(part.value, str) else part.value * KG[default or "kg"]
        for part in (first, second)
    )
    if abs(a - b) > max(0.005 * abs(a), 1.0):
        raise QuantityError(
            f"“{text}”: the two do not agree: {print_mass(a, 'lb')} is {print_mass(a, 'kg')}. "
            "Re-read the label"
        )
    return first


def _fluid_mass(text: str, match: re.Match[str]) -> float:
    sign, number, volume, name = match.groups()
    density = FLUIDS.get({"petrol": "gasoline", "gas": "gasoline"}.get(name.lower(), name.lower()))
    if density is None:
        raise QuantityError(
            f"“{text}”: “{name}” is not a fluid that is known here ({', '.join(FLUIDS)})"
        )
    gallons = (
        float(_plain(number))
        * LITRES["l" if volume.lower().startswith("l") else "gal"]
        / LITRES["gal"]
    )
    return (-1 if sign in ("-", "−") else 1) * gallons * density * KG["lb"]


def _number(total: Decimal) -> float | int:
    return int(total) if total == total.to_integral_value() else float(total)


BARE_SHARE = 2
"""A share typed without its sign is a fraction up to this, 0.6 or 1.2, and per cent above, 60."""


_THOUSANDS = re.compile(
    r"\s*([1-9]\d{0,2})[.,](\d{3})(?!\d)(?=\s*(?:[a-z]+\.?)?\s*$)", re.IGNORECASE
)
_HEAVY = 100.0
"""No axle and no vehicle is lighter, in either unit."""


def with_thousands(text: str) -> str:
    """A mass that cannot be as small as its point says, its point read as a thousands mark: no axle
    is rated 1.060 kg. Texts of another form come back as they are.
    """
    match = _THOUSANDS.match(text)
    if match is None or float(f"{match[1]}.{match[2]}") >= _HEAVY:
        return text
    return f"{match[1]}{match[2]}{text[match.end() :]}"


def read_typed(text: str, dimension: Dimension, default: str | None) -> Typed:
    """Read what a person typed: ``1380 kg``, ``180+165+60``, ``5 ft 4 in``, ``12.5 %``, ``12 gal
    diesel``.

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
    factors = factors_of(dimension)
    return Typed(
        float(sum(float(amount) * factors[unit or default] for amount, unit in terms))
        / factors[default]
    )
