"""The rig's loads from its state, and what a change does to the state: the only place with levers.

A state has no length in it: every load is a sum of its parts, added and subtracted. Lengths stand
in changes. What is not known is None, and only what needs it becomes None. Everything works on
floats and on uncertain amounts alike; derivations are in docs/formulas.md.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import reduce
from typing import NamedTuple

from noxel.core.quantities import Amount, nominal


class State(NamedTuple):
    """A rig at rest on level ground, or a change of it; None is not known. [kg]"""

    vehicle: Amount | None = 0.0
    """The vehicle without the trailer."""
    rear: Amount | None = 0.0
    """What of that is on the rear axle."""
    cargo: Amount | None = 0.0
    """People, gear and hitch in the vehicle."""
    trailer: Amount | None = 0.0
    """The trailer in total."""
    tongue: Amount | None = 0.0
    """What it puts on the hitch, bars slack."""
    lifted: Amount | None = 0.0
    """What the tongue takes off the front axle, bars slack."""
    returned: Amount | None = 0.0
    """What the spring bars give back to the front axle."""
    moved: Amount | None = 0.0
    """What the spring bars move to the trailer's axles."""

    def plus(self, other: "State") -> "State":
        """Both together."""
        return State._make(
            [
                None if own is None or more is None else own + more
                for own, more in zip(self, other, strict=True)
            ]
        )

    def times(self, factor: Amount) -> "State":
        """So many times as much."""
        return State._make([None if part is None else part * factor for part in self])

    def less(self, other: "State") -> "State":
        """What it has more than another."""
        return State._make(
            [
                None if own is None or part is None else own - part
                for own, part in zip(self, other, strict=True)
            ]
        )


def together(states: Iterable[State]) -> State:
    """All of them added."""
    return reduce(State.plus, states, State())


SUMS: Mapping[str, Mapping[str, int]] = {
    "front_solo": {"vehicle": 1, "rear": -1},
    "rear_solo": {"rear": 1},
    "vehicle_solo": {"vehicle": 1},
    "cargo": {"cargo": 1},
    "trailer_gross": {"trailer": 1},
    "tongue_static": {"tongue": 1},
    "combination_gross": {"vehicle": 1, "trailer": 1},
    "payload_used": {"cargo": 1, "tongue": 1},
    "vehicle_hitched": {"vehicle": 1, "tongue": 1, "moved": -1},
    "trailer_axles": {"trailer": 1, "tongue": -1, "moved": 1},
    "front_hitched": {"vehicle": 1, "rear": -1, "lifted": -1, "returned": 1},
    "rear_hitched": {"rear": 1, "tongue": 1, "lifted": 1, "returned": -1, "moved": -1},
}
"""Each load, by the keys of the rig-file format, as a sum of the state's parts."""
_TERMS = {
    key: tuple((State._fields.index(part), sign) for part, sign in parts.items())
    for key, parts in SUMS.items()
}


def load(state: State, key: str) -> float | None:
    """One load of a state without its ±, by its key in :data:`SUMS`; None where it is not known.
    [kg]
    """
    kg = _amount(state, key)
    return None if kg is None else nominal(kg)


def loads(state: State) -> dict[str, float]:
    """Every load of a state that is known, without its ±, by the keys of :data:`SUMS`. [kg]"""
    return {key: kg for key in _TERMS if (kg := load(state, key)) is not None}


def amounts(state: State) -> dict[str, Amount | None]:
    """Every load of a state with its ±, by the keys of :data:`SUMS`. [kg]"""
    return {key: _amount(state, key) for key in _TERMS}


def _amount(state: State, key: str) -> Amount | None:
    kg: Amount = 0.0
    for index, sign in _TERMS[key]:
        part = state[index]
        if part is None:
            return None
        kg = kg + part if sign > 0 else kg - part
    return kg


@dataclass(frozen=True, slots=True)
class Levers:
    """The lengths of the lever model, None where one is not known, and what the bars give back.

    ``wheelbase``; ``overhang`` is the hitch point behind the rear axle, negative when ahead of it;
    ``coupler`` is the coupler to the middle of the trailer's axles. [m] ``restored`` is the share
    of the front axle's loss that the bars give back; 0 without bars or with slack ones.
    """

    wheelbase: float | None
    overhang: float | None
    coupler: float | None
    restored: float = 0.0

    def in_vehicle(self, mass: Amount, moment: Amount | None) -> State:
        """A mass in the vehicle; its moment is about the front axle. [kg, kg m]"""
        rear = None if moment is None or self.wheelbase is None else moment / self.wheelbase
        return State(mass, rear, mass)

    def at_hitch(self, mass: Amount, behind: float) -> State:
        """A mass on the vehicle at the hitch point, or a length behind it. [kg, m]"""
        if self.wheelbase is None or self.overhang is None:
            return self.in_vehicle(mass, None)
        return self.in_vehicle(mass, mass * (self.wheelbase + self.overhang + behind))

    def in_trailer(
        self, mass: Amount, moment: Amount | None, restored: float | None = None
    ) -> State:
        """A mass in the trailer; its moment is about the coupler. [kg, kg m]

        ``restored`` as in :meth:`on_hitch`.
        """
        tongue = None if moment is None or self.coupler is None else mass - moment / self.coupler
        return self.on_hitch(tongue, restored)._replace(trailer=mass)

    def item(
        self, on: str, mass: Amount, moment: Amount | None, restored: float | None = None
    ) -> State:
        """A mass on one side, ``vehicle`` or ``trailer``. [kg, kg m]"""
        if on == "vehicle":
            return self.in_vehicle(mass, moment)
        return self.in_trailer(mass, moment, restored)

    def on_hitch(self, tongue: Amount | None, restored: float | None = None) -> State:
        """A load on the hitch. [kg]

        ``restored`` is the share of what it lifts that the bars give back, :attr:`restored` where
        it is None; 0 where they stay as they are.
        """
        share = self.restored if restored is None else restored
        lifted = _product(tongue, _ratio(self.overhang, self.wheelbase))
        returned = 0.0 if not share else _product(lifted, share)
        moved = 0.0 if not share else _product(tongue, share, self.moved_of_restored)
        return State(tongue=tongue, lifted=lifted, returned=returned, moved=moved)

    def tighten(self, returned: Amount) -> State:
        """Bars set to give back more of what the tongue lifts off the front axle. [kg]"""
        if self.wheelbase is None or self.overhang is None or self.coupler is None:
            return State(returned=returned, moved=None)
        moved = returned * self.wheelbase / (self.coupler + self.overhang)
        return State(returned=returned, moved=moved)

    @property
    def moved_of_restored(self) -> float | None:
        """What the bars move to the trailer's axles, as a share of the tongue, when they give all
        back: b / (L + b).
        """
        if self.overhang is None or self.coupler is None:
            return None
        return self.overhang / (self.coupler + self.overhang)

    def at_share(self, mass: Amount, share: Amount, restored: float | None = None) -> State:
        """A trailer, or more of it, with a share of its mass on the hitch. [kg]"""
        return self.on_hitch(mass * share, restored)._replace(trailer=mass)


def _ratio(part: float | None, other: float | None) -> float | None:
    return None if part is None or other is None else part / other


def _product(*factors: Amount | None) -> Amount | None:
    """Their product; nothing at all is nothing, whatever is not known beside it."""
    product: Amount = 1.0
    for factor in factors:
        if factor is None:
            return None
        if type(factor) in (int, float) and factor == 0:
            return 0.0
        product = product * factor
    return product
