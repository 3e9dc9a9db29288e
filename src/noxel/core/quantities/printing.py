"""SI figures as text, in the unit asked for."""

import datetime
import math

from noxel.core.quantities.units import KG, KPA, METRES, LengthUnit, MassUnit


def round_half_up(value: float) -> int:
    """Round to a whole number, halves away from zero, as people round on paper."""
    whole = math.floor(abs(value) + 0.5)
    return whole if value >= 0 else -whole


def print_mass(kg: float, unit: MassUnit) -> str:
    """Print a mass in whole units with its unit: ``"3,950 lb"``; minus as a minus sign.

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
    """Print a length with its unit, as precisely as a tape reads: ``"145 in"``, ``"3.68 m"``;
    ``fine`` for heights: ``"1.5 in"``.

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
    text = f"{metres / METRES[unit]:,.{places}f}"
    return f"{text.removesuffix('.0')} {unit}"


def print_pressure(kpa: float, unit: str) -> str:
    """Print a pressure in whole psi or kPa, or in tenths of a bar: ``"65 psi"``."""
    value = kpa / KPA[unit]
    return f"{value:.1f} bar" if unit == "bar" else f"{round_half_up(value):,} {unit}"


def print_share(share: float) -> str:
    """Print a share in per cent with one decimal: ``"12.6 %"``."""
    return f"{share * 100:.1f} %".replace("-", "−")


def small_mass(kg: float, unit: MassUnit) -> str:
    """Print an amount that must not read as nothing: below half a unit it is “less than 1 lb”."""
    if kg and round_half_up(kg / KG[unit]) == 0:
        return f"less than 1 {unit}"
    return print_mass(kg, unit)


def upper_first(text: str) -> str:
    """A text as it begins a sentence or stands alone."""
    return text[:1].upper() + text[1:]


def lower_first(label: str) -> str:
    """A label inside a sentence: its first letter small, unless it is an abbreviation."""
    return label if label[:2].isupper() else label[:1].lower() + label[1:]


def with_article(word: str) -> str:
    """“a truck”, “an SUV”."""
    return f"{'an' if word == 'SUV' or word[:1] in 'aeiou' else 'a'} {word}"


_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sept", "Oct", "Nov", "Dec")


def print_date(day: datetime.date) -> str:
    """A day as it is written in a sentence: “18 Sept 2026”."""
    return f"{day.day} {_MONTHS[day.month - 1]} {day.year}"
