"""The hidden true loads of a rig on a scale: per wheel, for every way to stand there."""

import random
from collections.abc import Mapping
from dataclasses import dataclass

from noxel.core.mechanics import GROUPS, Levers, State, load, weigh
from noxel.core.rig import RigFile


@dataclass(frozen=True, slots=True)
class TrueRig:
    """What a rig really weighs, alone and coupled up with its bars slack. [kg]"""

    state: State
    levers: Levers
    trailer_axles: int

    def axles(self, config: str, bars: str) -> Mapping[str, float]:
        """The load on each axle for one way to stand on the scale. [kg]"""
        if config == "trailer_only":
            return {"trailer": load(self.state, "trailer_gross") or 0.0}
        coupled, names = State(), {"front": "front_solo", "rear": "rear_solo"}
        if config not in ("vehicle_only", "vehicle_empty"):
            restored = self.levers.restored if bars == "engaged" else 0.0
            coupled = self.levers.on_hitch(self.state.tongue, restored)
            names = {name: GROUPS[name] for name in ("front", "rear", "trailer")}
        stands = self.state._replace(tongue=0.0).plus(coupled)
        return {name: load(stands, key) or 0.0 for name, key in names.items()}


def true_rig(rig: RigFile, seed: int = 7) -> TrueRig:
    """Make up the truth behind a rig: near its last weigh-in where there is one, else near its
    plates.

    ``rig``: whose loads. ``seed``: the same seed gives the same truth.
    """
    chance = random.Random(f"{rig.name}{seed}")
    figures = weigh(rig, rig.weigh_ins[-1] if rig.weigh_ins else None).figures

    def near(key: str, otherwise: float) -> float:
        known = figures[key].value if key in figures else otherwise
        return known * (1 + chance.uniform(-0.01, 0.01))

    geometry, trailer = rig.vehicle.geometry, rig.trailer
    gross = near(
        "trailer_gross", trailer.dry_weight.kg * 1.15 if trailer and trailer.dry_weight else 2500.0
    )
    tongue = near(
        "tongue_static", gross * (0.2 if rig.kind in ("fifth_wheel", "gooseneck") else 0.12)
    )
    overhang = geometry.hitch_offset.m if geometry.hitch_offset else 1.25
    length = (
        trailer.geometry.coupler_to_axles.m
        if trailer and trailer.geometry.coupler_to_axles
        else 5.2
    )
    front, rear = near("front_solo", 1400.0), near("rear_solo", 1250.0)
    bars = rig.hitch.weight_distribution and overhang > 0
    wheelbase = geometry.wheelbase.m if geometry.wheelbase else 3.6
    return TrueRig(
        State(vehicle=front + rear, rear=rear, trailer=gross, tongue=tongue),
        Levers(wheelbase, overhang, length, 0.6 if bars else 0.0),
        max(1, len(trailer.ratings.gawr) if trailer else 1),
    )
