"""What the listed items add up to on each side, in one pass over the list: their mass, how far that
may be off, and the moments that a lever model needs.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, cast

from noxel.core.mechanics.sources import OFF
from noxel.core.rig import Entry, Load, RigFile, Source

Side = Literal["vehicle", "trailer"]
SIDES: tuple[Side, ...] = ("vehicle", "trailer")


@dataclass(frozen=True, slots=True)
class Aboard:
    """The items of one side that come along.

    ``kg`` is their mass and ``variance`` its covariance with itself, of twice the standard
    uncertainty [kg²]. Of those with a place: ``placed`` is their mass [kg], ``moment`` the sum of
    mass × place [kg m], ``squares`` of mass² [kg²], ``offs`` of off² × place⁰, ¹ and ² [kg², kg² m,
    kg² m²]. ``unplaced`` are index and mass of those without.
    """

    kg: float
    variance: float
    placed: float
    moment: float
    squares: float
    offs: tuple[float, float, float]
    unplaced: tuple[tuple[int, float], ...]


class Same:
    """Something that is compared by what it is, not by what is in it."""

    __slots__ = ("of",)

    def __init__(self, of: object) -> None:
        self.of = of

    def __hash__(self) -> int:
        return id(self.of)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Same) and other.of is self.of


def aboard(rig: RigFile, on: Side) -> Aboard:
    """What the list adds up to on one side; added up once as long as the rig is looked at."""
    return _sums(Same(rig.loads), Same(rig.entered))[on]


def load_source(rig: RigFile, index: int, load: Load) -> Source | None:
    """Where the mass of a listed item came from, if that was said."""
    return _source(load, index, rig.entered)


def load_off(rig: RigFile, index: int, load: Load) -> float:
    """How far the mass of a listed item may be off (two standard uncertainties). [kg]"""
    return load.kg * OFF[load_source(rig, index, load)]


def _source(load: Load, index: int, entered: Mapping[str, Entry]) -> Source | None:
    entry = load.entered.get("mass") or (entered.get(f"loads[{index}].mass") if entered else None)
    return entry.source if entry else None


@lru_cache(maxsize=2)
def _sums(loads: Same, entered: Same) -> Mapping[Side, Aboard]:
    return _add_up(cast(Sequence[Load], loads.of), cast(Mapping[str, Entry], entered.of))


def _add_up(loads: Sequence[Load], entered: Mapping[str, Entry]) -> Mapping[Side, Aboard]:
    sums = {on: [0.0] * 8 for on in SIDES}
    unplaced: dict[Side, list[tuple[int, float]]] = {on: [] for on in SIDES}
    bare = OFF[None]
    for index, load in enumerate(loads):
        kg, sum_here = load.kg, sums[load.on]
        if not kg:
            continue
        share = OFF[_source(load, index, entered)] if load.entered or entered else bare
        off = (kg * share) ** 2
        sum_here[0] += kg
        sum_here[1] += off
        if load.position is None:
            unplaced[load.on].append((index, kg))
            continue
        place = load.position.m
        sum_here[2] += kg
        sum_here[3] += kg * place
        sum_here[4] += kg * kg
        sum_here[5] += off
        sum_here[6] += off * place
        sum_here[7] += off * place * place
    return {
        on: Aboard(kg, variance, placed, moment, squares, (flat, first, second), tuple(lost))
        for lost, (on, (kg, variance, placed, moment, squares, flat, first, second)) in zip(
            unplaced.values(), sums.items(), strict=True
        )
    }
