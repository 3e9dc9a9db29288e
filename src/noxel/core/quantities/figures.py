"""Figures: worked-out amounts with their uncertainty and the terms they were worked out from.

An amount is a `uncertainties` number in SI (kg, m, or a plain share), so that readings shared
between two figures stay correlated. A figure's working is made of the same terms as its value.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from uncertainties import UFloat
from uncertainties.core import AffineScalarFunc, LinearCombination, Variable

Amount = float | UFloat
"""A float or an uncertainties number; both obey the same arithmetic."""


Op = Literal["", "+", "−", "×", "÷"]


Sort = Literal["mass", "length", "share", "count"]


def nominal(amount: Amount) -> float:
    """The value without its uncertainty."""
    return float(amount.nominal_value) if isinstance(amount, UFloat) else float(amount)


def plus_minus(amount: Amount) -> float:
    """The printed ±: two standard uncertainties (JCGM 100:2008, coverage factor 2)."""
    if not isinstance(amount, UFloat):
        return 0.0
    if isinstance(amount, Variable):
        return 2.0 * float(amount.std_dev)
    # the same sum as the library's own, without the dictionary that it makes for it
    variance = 0.0
    for variable, slope in amount.derivatives.items():
        share = slope * variable.std_dev
        variance += share * share
    return 2.0 * math.sqrt(variance)


@dataclass(slots=True, eq=False)
class Term:
    """One line of a working: an amount, ``of`` a figure or typed; ``source`` says where a typed one
    came from.
    """

    op: Op
    label: str
    amount: Amount
    sort: Sort = "mass"
    source: str | None = None
    of: "Figure | None" = None

    @property
    def plus_minus(self) -> float:
        """Its ±, in SI."""
        return self.of.plus_minus if self.of else plus_minus(self.amount)


@dataclass(slots=True, eq=False)
class Figure:
    """An amount, what it is called, the formula in words and the terms put into it.

    ``value`` and ``plus_minus`` are the amount without its uncertainty, and its ±, in SI.
    """

    key: str
    amount: Amount
    formula: str
    terms: tuple[Term, ...] = ()
    sort: Sort = "mass"
    remarks: tuple[str, ...] = ()
    value: float = field(init=False, compare=False)
    plus_minus: float = field(init=False, compare=False)

    def __post_init__(self) -> None:
        self.value = nominal(self.amount)
        self.plus_minus = plus_minus(self.amount)

    def renamed(self, key: str) -> "Figure":
        """The same figure under another name."""
        # not built anew: its ± is known, and finding it is the costly part
        figure = object.__new__(Figure)
        for name in self.__slots__:
            setattr(figure, name, getattr(self, name))
        figure.key = key
        return figure

    def term(self, op: Op, label: str) -> Term:
        """This figure as a term of another."""
        return Term(op, label, self.amount, self.sort, of=self)


def total(key: str, formula: str, terms: Sequence[Term], remarks: Sequence[str] = ()) -> Figure:
    """The figure whose value is its terms (at least one) added and subtracted as they are
    marked.
    """
    return Figure(key, _sum(terms), formula, tuple(terms), "mass", tuple(remarks))


def _sum(terms: Sequence[Term]) -> Amount:
    if len(terms) == 1 and terms[0].op != "−":
        return terms[0].amount
    return combine([(-1.0 if term.op == "−" else 1.0, term.amount) for term in terms])


def combine(parts: Iterable[tuple[float, Amount]]) -> Amount:
    """Amounts times plain factors, added: all in one linear combination.

    One library operation for each would cost several times as much.
    """
    value = 0.0
    shares: dict[Any, float] = {}
    for factor, amount in parts:
        if type(amount) is Variable:  # a reading: most amounts are
            value += factor * amount.nominal_value
            shares[amount] = shares.get(amount, 0.0) + factor
        elif isinstance(amount, UFloat):
            value += factor * amount.nominal_value
            for variable, slope in amount.derivatives.items():
                shares[variable] = shares.get(variable, 0.0) + factor * slope
        else:
            value += factor * amount
    return AffineScalarFunc(value, LinearCombination(shares)) if shares else value


def ratio(amount: Amount, by: Amount) -> Amount:
    """One amount divided by another, to first order: the same as the library's division, in one
    step.
    """
    divisor = nominal(by)
    value = nominal(amount) / divisor
    slopes = combine([(1 / divisor, amount), (-value / divisor, by)])
    return (
        AffineScalarFunc(value, LinearCombination(slopes.derivatives))
        if isinstance(slopes, UFloat)
        else value
    )
