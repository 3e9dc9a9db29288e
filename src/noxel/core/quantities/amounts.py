"""Amounts that carry their uncertainty: a value, and how it hangs on each independent reading.

To first order, and with the correlations of shared readings (JCGM 100:2008, 5.1 and 5.2): every
amount knows by how much each reading, one standard uncertainty off, would move it.
"""

import math
from collections.abc import Iterable, Mapping
from typing import Union

Amount = Union[float, "Uncertain"]
"""A float or an uncertain one; both obey the same arithmetic."""


class Uncertain:
    """A value in SI with its shares: for each independent reading the change that one standard
    uncertainty of it makes.
    """

    __slots__ = ("shares", "value")

    def __init__(self, value: float, shares: Mapping[object, float]) -> None:
        self.value, self.shares = value, shares

    def __add__(self, other: Amount) -> "Uncertain":
        return _linear(self, 1.0, other, 1.0)

    def __radd__(self, other: float) -> "Uncertain":
        return _linear(self, 1.0, other, 1.0)

    def __sub__(self, other: Amount) -> "Uncertain":
        return _linear(self, 1.0, other, -1.0)

    def __rsub__(self, other: float) -> "Uncertain":
        return _linear(self, -1.0, other, 1.0)

    def __mul__(self, other: Amount) -> "Uncertain":
        value = nominal(other)
        return _at(self.value * value, _linear(self, value, other, self.value))

    def __rmul__(self, other: float) -> "Uncertain":
        return self * other

    def __truediv__(self, other: Amount) -> "Uncertain":
        divisor = nominal(other)
        value = self.value / divisor
        return _at(value, _linear(self, 1 / divisor, other, -value / divisor))

    def __rtruediv__(self, other: float) -> "Uncertain":
        return Uncertain(other, {}) / self

    def __neg__(self) -> "Uncertain":
        return _linear(self, -1.0, 0.0, 0.0)


def uncertain(value: float, off: float) -> Uncertain:
    """A reading of its own, with its standard uncertainty."""
    return Uncertain(value, {object(): off} if off else {})


def nominal(amount: Amount) -> float:
    """The value without its uncertainty."""
    return amount.value if isinstance(amount, Uncertain) else float(amount)


def plus_minus(amount: Amount) -> float:
    """The printed ±: two standard uncertainties (JCGM 100:2008, coverage factor 2)."""
    if not isinstance(amount, Uncertain):
        return 0.0
    return 2.0 * math.sqrt(sum(share * share for share in amount.shares.values()))


def part_of(amount: Amount, reading: Amount) -> float:
    """How much of an amount's standard uncertainty the readings in another one make."""
    if not (isinstance(amount, Uncertain) and isinstance(reading, Uncertain)):
        return 0.0
    return math.hypot(*(amount.shares.get(key, 0.0) for key in reading.shares))


def combine(parts: Iterable[tuple[float, Amount]]) -> Amount:
    """Amounts times plain factors, added: all in one sum."""
    value = 0.0
    shares: dict[object, float] = {}
    for factor, amount in parts:
        if isinstance(amount, Uncertain):
            value += factor * amount.value
            for reading, share in amount.shares.items():
                shares[reading] = shares.get(reading, 0.0) + factor * share
        else:
            value += factor * amount
    return Uncertain(value, shares) if shares else value


def ratio(amount: Amount, by: Amount) -> Amount:
    """One amount divided by another."""
    return amount / by


def _linear(one: Uncertain, factor: float, other: Amount, times: float) -> Uncertain:
    """Two amounts times plain factors, added."""
    shares = {reading: factor * share for reading, share in one.shares.items()}
    value = factor * one.value
    if not isinstance(other, Uncertain):
        return Uncertain(value + times * other, shares)
    for reading, share in other.shares.items():
        shares[reading] = shares.get(reading, 0.0) + times * share
    return Uncertain(value + times * other.value, shares)


def _at(value: float, slopes: Uncertain) -> Uncertain:
    return Uncertain(value, slopes.shares)
