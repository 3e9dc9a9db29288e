"""A way to err: how it leads to a figure, and what is said to it."""

from collections.abc import Callable
from dataclasses import dataclass

from noxel.core.practice.facts import Facts


@dataclass(frozen=True, slots=True)
class WayToErr:
    """One way: its short name, the figure that it leads to, and what to answer. Masses in
    kilograms.

    ``says`` may name facts in braces; they are written in the reader's unit. What holds for one rig
    and not for another is ``more``: it is said only where these facts bear it out.
    """

    name: str
    figure: Callable[[Facts], float]
    says: str
    more: Callable[[Facts], str] = lambda _facts: ""


def ends(load: Callable[[Facts], float]) -> Callable[[Facts], str]:
    """Whether the limit that was asked for, ``right``, ends before another one does."""

    def compared(f: Facts) -> str:
        return (
            "The limit that was asked for ends sooner."
            if f["right"] < load(f)
            else "The limit that was asked for ends later; that is the other question."
        )

    return compared


def front_lost(f: Facts) -> str:
    """Whether the front axle got lighter when the trailer was coupled, with the bars as they are
    on the road.
    """
    return (
        "The front axle lost some of it: a lever lifts there."
        if f["front_h"] < f["front_s"]
        else "The front axle changed too."
    )


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
