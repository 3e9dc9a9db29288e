"""Figures: worked-out amounts with their uncertainty and the terms they were worked out from.

A figure's amount is in SI (kg, m, or a plain share), and its working is made of the same terms as
its value.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.quantities.amounts import Amount, combine, nominal, plus_minus

Op = Literal["", "+", "−", "×", "÷"]


Sort = Literal["mass", "length", "share", "count"]


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
