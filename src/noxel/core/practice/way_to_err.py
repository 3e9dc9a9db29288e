"""A way to err: how it leads to a figure, and what is said to it."""

from collections.abc import Callable
from dataclasses import dataclass

from noxel.core.practice.facts import Facts


@dataclass(frozen=True, slots=True)
class WayToErr:
    """One way: its short name, the figure that it leads to, and what to answer. Masses in
    kilograms.

    ``says`` may name facts in braces; they are written in the reader's unit.
    """

    name: str
    figure: Callable[[Facts], float]
    says: str


def solo(f: Facts) -> float:
    """The vehicle alone. [kg]"""
    return f["front_s"] + f["rear_s"]


def hitched(f: Facts) -> float:
    """The vehicle with the trailer on it. [kg]"""
    return f["front_h"] + f["rear_h"]


def net(f: Facts) -> float:
    """What the trailer puts on the vehicle. [kg]"""
    return hitched(f) - solo(f)


def trailer(f: Facts) -> float:
    """The trailer in total. [kg]"""
    return f["gross_h"] - solo(f)
