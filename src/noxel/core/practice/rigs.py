"""Invented rigs for practice, each from a seed: labels that agree with each other, and true loads
that the reader does not see.

A rig is a rig file. Its plan holds the truth (what vehicle and trailer weigh without the listed
items), so that the lever model gives every load in every state of the rig. Figures are drawn here
and belong to nobody's rig.
"""

import random
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Literal

from noxel.core.mechanics import predict_known
from noxel.core.quantities import KG, MassUnit
from noxel.core.rig import EUROPE_SHARE, RigFile, TermSet, parse_rig

RigKind = Literal["bars", "plain", "torsion", "pin", "caravan", "motorhome"]
OverOn = Literal["nothing", "rear_axle", "gross", "trailer", "tongue", "combination", "cargo"]
"""Which limit the true loads exceed."""

_ITEMS = (
    ("folding chairs", 18),
    ("tool chest", 42),
    ("bicycles", 34),
    ("canoe", 29),
    ("generator", 48),
    ("firewood", 58),
    ("clay in bags", 66),
    ("books", 54),
    ("awning", 31),
    ("battery bank", 62),
    ("tent", 22),
    ("cooler", 37),
    ("telescope case", 27),
    ("spare parts", 24),
)


@dataclass(frozen=True, slots=True)
class _Frame:
    """The ranges that a kind of rig is drawn from. [kg, m], shares plain"""

    body: str
    wheelbase: tuple[float, float]
    offset: tuple[float, float]
    length: tuple[float, float]
    front: tuple[float, float]
    rear: tuple[float, float]
    hitch: tuple[float, float]
    dry: tuple[float, float]
    share: tuple[float, float]
    axles: int
    bars: bool = False
    kind: str = "conventional"
    items: int = 4
    suspension: str = "leaf"


_FRAMES: Mapping[RigKind, _Frame] = {
    "bars": _Frame(
        "pickup",
        (3.55, 3.75),
        (1.22, 1.4),
        (5.2, 6.4),
        (1360, 1480),
        (990, 1090),
        (34, 44),
        (2150, 2550),
        (0.118, 0.13),
        2,
        bars=True,
    ),
    "plain": _Frame(
        "pickup",
        (3.5, 3.7),
        (1.2, 1.35),
        (3.9, 4.6),
        (1340, 1440),
        (980, 1060),
        (14, 20),
        (1050, 1350),
        (0.118, 0.13),
        1,
    ),
    "torsion": _Frame(
        "pickup",
        (3.55, 3.75),
        (1.22, 1.38),
        (4.8, 5.6),
        (1370, 1480),
        (1000, 1090),
        (16, 22),
        (1650, 1950),
        (0.118, 0.13),
        2,
        suspension="torsion",
    ),
    "pin": _Frame(
        "pickup",
        (4.2, 4.4),
        (-0.12, -0.03),
        (8.0, 9.2),
        (1760, 1900),
        (1390, 1480),
        (75, 95),
        (4100, 4700),
        (0.195, 0.215),
        2,
        kind="fifth_wheel",
    ),
    "caravan": _Frame(
        "wagon",
        (2.75, 2.9),
        (1.0, 1.12),
        (3.8, 4.4),
        (900, 980),
        (690, 760),
        (12, 16),
        (1020, 1180),
        (0.06, 0.068),
        1,
        items=3,
    ),
    "motorhome": _Frame(
        "motorhome",
        (4.6, 5.0),
        (2.3, 2.6),
        (2.4, 2.8),
        (1980, 2150),
        (3900, 4250),
        (22, 28),
        (1180, 1420),
        (0.0, 0.0),
        2,
        kind="motorhome",
        items=0,
    ),
}


@dataclass(frozen=True, slots=True)
class _Writer:
    """Draws figures and writes them as a label or a list would, in the rig's unit."""

    chance: random.Random
    unit: MassUnit

    def between(self, span: tuple[float, float]) -> float:
        return self.chance.uniform(*span)

    def mass(self, kg: float, step: int | None = None) -> float | int:
        """A mass on a label: to 5 lb, to 5 kg."""
        grain = step or 5
        return round(kg / KG[self.unit] / grain) * grain

    def exact(self, kg: float) -> int:
        """A true mass, to one unit."""
        return round(kg / KG[self.unit])


def _items(write: _Writer, frame: _Frame, a: float, length: float) -> list[dict[str, Any]]:
    chance = write.chance
    names = chance.sample(_ITEMS, frame.items + 2)
    people = [("the driver", 84, 0.38), ("the passenger", 71, 0.4)]
    loads: list[dict[str, Any]] = [
        {
            "name": name,
            "on": "vehicle",
            "mass": write.exact(kg),
            "position": f"{place * a:.2f} m",
            "category": "people",
        }
        for name, kg, place in people
    ]
    for index, (name, kg) in enumerate(names):
        in_trailer = index >= 2 and frame.share[1] > 0
        place = (
            chance.uniform(0.7 if frame.body == "wagon" else 0.25, 1.25) * length
            if in_trailer
            else chance.uniform(0.85, 1.15) * a
        )
        loads.append(
            {
                "name": name,
                "on": "trailer" if in_trailer else "vehicle",
                "mass": write.exact(kg * chance.uniform(0.9, 1.2)),
                "position": f"{place:.2f} m",
                "category": "comfort",
            }
        )
    return loads


def _tanks(write: _Writer, frame: _Frame, length: float) -> list[dict[str, Any]]:
    if frame.share[1] == 0:
        return []
    small = frame.body == "wagon"
    return [
        {
            "name": "fresh water",
            "fluid": "fresh",
            "on": "trailer",
            "capacity": f"{45 if small else 170} l",
            "position": f"{write.chance.uniform(0.4, 0.6) * length:.2f} m",
            "levels": {"leaving": round(write.chance.uniform(0.5, 0.9), 1)},
        },
        {
            "name": "waste water",
            "fluid": "grey",
            "on": "trailer",
            "capacity": f"{30 if small else 130} l",
            "position": f"{write.chance.uniform(1.05, 1.2) * length:.2f} m",
            "levels": {"leaving": 0.0},
        },
    ]


def _truth(write: _Writer, frame: _Frame, kind: RigKind, terms: TermSet) -> dict[str, Any]:
    """The rig without its labels: lengths, lists, and what it truly weighs."""
    chance = write.chance
    a, b, length = (
        round(write.between(span), 2) for span in (frame.wheelbase, frame.offset, frame.length)
    )
    gross = write.between(frame.dry)
    trailer: dict[str, Any] = {
        "name": "the trailer",
        "style": "towed_car" if kind == "motorhome" else "box",
        "brakes": "none" if kind == "motorhome" else "electric",
        "suspension": frame.suspension,
        "geometry": {"coupler_to_axles": f"{length} m", "coupler_height": "0.52 m"},
    }
    return {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": write.unit, "length": "in" if write.unit == "lb" else "cm"},
        "name": "practice rig",
        "kind": frame.kind,
        "terms": terms,
        "vehicle": {
            "name": "the vehicle",
            "body": frame.body,
            "geometry": {"wheelbase": f"{a} m", "hitch_offset": f"{b} m"},
        },
        "hitch": {
            "name": "the hitch",
            "weight": write.exact(write.between(frame.hitch)),
            "weight_distribution": frame.bars,
            "ball_height": "1.2 m" if kind == "pin" else "0.52 m",
        },
        "trailer": trailer,
        "loads": _items(write, frame, a, length),
        "tanks": _tanks(write, frame, length),
        "plan": {
            "vehicle_base": {
                "front": write.exact(write.between(frame.front)),
                "rear": write.exact(write.between(frame.rear)),
            },
            "trailer_base": {
                "gross": write.exact(gross),
                "tongue": write.exact(gross * write.between(frame.share)),
            },
            **({"front_restoration": round(chance.uniform(0.45, 0.65), 2)} if frame.bars else {}),
        },
    }


def _label(
    document: dict[str, Any],
    loads: Mapping[str, float],
    write: _Writer,
    frame: _Frame,
    over: frozenset[OverOn],
) -> None:
    """Put the labels on, around the true loads: each a little above what it limits, but for those
    that are exceeded.
    """
    chance, mass = write.chance, write.mass
    base = document["plan"]["vehicle_base"]
    empty = (base["front"] + base["rear"]) * KG[write.unit]
    curb = empty - chance.uniform(55, 95)  # what was fitted since the factory

    def above(kg: float, limit: OverOn, low: float = 1.035, high: float = 1.09) -> float:
        return kg * (chance.uniform(0.955, 0.975) if limit in over else chance.uniform(low, high))

    hitched, gross, tongue = (
        loads["vehicle_hitched"],
        loads["trailer_gross"],
        loads.get("tongue_static", 0.0),
    )
    gvwr = above(hitched, "gross")
    front, rear = (
        loads["front_hitched"] * chance.uniform(1.06, 1.12),
        above(loads["rear_hitched"], "rear_axle", 1.05, 1.1),
    )
    front = max(front, gvwr * 1.02 - rear)
    gcwr = above(loads["combination_gross"], "combination", 1.05, 1.12)
    tow = max(gcwr - gvwr + chance.uniform(0.3, 0.8) * (gvwr - curb), gross * 1.02)
    dry = gross - chance.uniform(0.12, 0.16) * gross
    trailer_gvwr = above(gross, "trailer", 1.04, 1.09)
    vehicle, hitch, trailer = document["vehicle"], document["hitch"], document["trailer"]
    vehicle["curb_weight"] = mass(curb)
    vehicle["ratings"] = {
        "gvwr": mass(gvwr, 10),
        "gawr_front": mass(front, 10),
        "gawr_rear": mass(rear, 10),
        "gcwr": mass(gcwr, 10),
        "tow_rating": mass(tow, 10),
        "payload": mass(gvwr, 10) - mass(curb),
    }
    trailer["ratings"] = {
        "gvwr": mass(trailer_gvwr, 10),
        "gawr": [
            mass(
                max(
                    loads["trailer_axles"] * chance.uniform(1.04, 1.1),
                    trailer_gvwr * _axles_of(frame),
                )
                / frame.axles,
                5,
            )
        ]
        * frame.axles,
    }
    trailer["dry_weight"] = mass(dry)
    if "cargo" in over:
        trailer["ratings"]["ccc"] = mass((gross - dry) * 0.93)
    else:
        trailer["ratings"]["ccc"] = trailer["ratings"]["gvwr"] - trailer["dry_weight"]
    if tongue:
        weakest = above(tongue, "tongue", 1.1, 1.25)
        vehicle["ratings"]["tongue_rating"] = mass(tongue * chance.uniform(1.3, 1.5))
        trailer["dry_tongue"] = mass(tongue * 0.87)
        names = (
            ("fifth-wheel hitch", "pin box")
            if frame.kind == "fifth_wheel"
            else ("receiver", "ball mount", "ball", "coupler")
        )
        weak = chance.randrange(len(names))
        hitch["parts"] = [
            {
                "kind": name,
                "trailer": mass(gross * chance.uniform(1.25, 1.6)),
                "tongue": mass(weakest if index == weak else tongue * chance.uniform(1.32, 1.7)),
            }
            for index, name in enumerate(names)
        ]
    else:
        hitch["parts"] = [
            {"kind": name, "trailer": mass(gross * chance.uniform(1.3, 1.8))}
            for name in ("receiver", "tow bar")
        ]


def _axles_of(frame: _Frame) -> float:
    """Makers rate the axles for what a usual tongue leaves on them."""
    return 1 - 0.6 * frame.share[0]


def _hang(document: dict[str, Any], frame: _Frame, write: _Writer) -> RigFile:
    """Set the trailer's own tongue weight so that with all that is listed its share is the one
    drawn.
    """
    base = document["plan"]["trailer_base"]
    loads = predict_known(parse_rig(document)).loads
    wanted = loads["trailer_gross"] * write.between(frame.share)
    base["tongue"] = write.exact(
        max(base["tongue"] * KG[write.unit] + wanted - loads["tongue_static"], 0.0)
    )
    return parse_rig(document)


@lru_cache(256)
def make_rig(
    kind: RigKind,
    seed: str,
    unit: MassUnit = "lb",
    terms: TermSet = "north_america",
    *over: OverOn,
) -> RigFile:
    """An invented rig with its true loads in its plan.

    ``kind``: with spring bars, without, on torsion axles, on a pin, a caravan behind a car, or a
    motorhome with a towed car. ``seed``: the same text gives the same rig. ``unit`` and ``terms``:
    what its labels are written in. ``over``: which limits its true loads exceed.
    """
    frame, write = _FRAMES[kind], _Writer(random.Random(f"{kind}/{seed}"), unit)
    if terms == "europe" and frame.kind == "conventional" and kind != "caravan":
        frame = replace(frame, share=EUROPE_SHARE)
    document = _truth(write, frame, kind, terms)
    _label(
        document, predict_known(_hang(document, frame, write)).loads, write, frame, frozenset(over)
    )
    if kind == "caravan":
        document["policy"] = {"tongue_share": [0.05, 0.075]}
    return parse_rig(document)


def as_seen(rig: RigFile) -> RigFile:
    """The rig as its owner knows it: labels and lists, without the truth in the plan."""
    plan = rig.plan.model_copy(
        update={
            "vehicle_base": None,
            "trailer_base": None,
            "front_restoration": None,
            "effective_overhang": None,
        }
    )
    return rig.model_copy(update={"plan": plan, "weigh_ins": ()})
