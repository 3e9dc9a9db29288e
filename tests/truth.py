"""Rigs whose true loads are known: what the tests hold the answers against."""

import copy
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from hypothesis import strategies as st

from noxel.core.editing import without_identities
from noxel.core.editing.paths import copied

CASES = Path(__file__).parent / "cases"
Document = dict[str, Any]


def case(name: str) -> Document:
    """A worked case by name: verb, file and expected answer."""
    document: Document = json.loads((CASES / f"{name}.json").read_text(encoding="utf-8"))
    return document


def rig_of(name: str) -> Document:
    """The rig file of a worked case, free to be changed."""
    return copy.deepcopy(case(name)["file"])


def bare(stored: Any) -> Document:
    """A stored rig as its file would have it."""
    return without_identities(stored.document)


@st.composite
def exact_rigs(draw: st.DrawFn) -> tuple[Document, dict[str, float]]:
    """A ball-hitch rig weighed on a perfect scale in three passes, and its true loads in kg.

    The passes are made from the true tongue by taking moments about the rear axle by hand (not by
    the code under test): front loses T_net·b/a and gains M/a, the trailer's axles gain M/L.
    """
    a = draw(st.floats(2.4, 4.5))
    b = draw(st.floats(0.8, 1.7))
    length = draw(st.floats(3.0, 9.0))
    front, rear = draw(st.floats(900, 2500)), draw(st.floats(800, 2500))
    gross = draw(st.floats(1000, 5000))
    tongue = gross * draw(st.floats(0.06, 0.2))
    moment = draw(st.floats(0.05, 1.0)) * tongue * b / (1 + b / length)
    loads = {
        "a": a,
        "b": b,
        "length": length,
        "front": front,
        "rear": rear,
        "gross": gross,
        "tongue": tongue,
        "moment": moment,
    }

    def hitched(bars: float, name: str) -> Document:
        net = tongue - bars / length
        on_front = front - net * b / a + bars / a
        readings = {
            "front": on_front,
            "rear": front + rear + net - on_front,
            "trailer": gross - net,
        }
        return {"config": "hitched", "spring_bars": name, "readings": readings}

    document = {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": "kg", "length": "m"},
        "name": "exact",
        "kind": "conventional",
        "vehicle": {
            "geometry": {"wheelbase": a, "hitch_offset": b},
            "ratings": {
                "gvwr": draw(st.floats(2000, 6000)),
                "gawr_front": draw(st.floats(1000, 3000)),
                "gawr_rear": draw(st.floats(1000, 4000)),
                "gcwr": draw(st.floats(4000, 9000)),
                "tow_rating": draw(st.floats(1000, 5000)),
                "tongue_rating": draw(st.floats(80, 700)),
            },
        },
        "hitch": {
            "weight_distribution": True,
            "parts": [
                {
                    "kind": "receiver",
                    "trailer": draw(st.floats(1000, 5000)),
                    "tongue": draw(st.floats(80, 700)),
                }
            ],
        },
        "trailer": {
            "ratings": {
                "gvwr": draw(st.floats(1000, 5000)),
                "gawr": [draw(st.floats(800, 2500))] * 2,
            },
            "geometry": {"coupler_to_axles": length},
        },
        "weigh_ins": [
            {
                "scale": {"resolution": 10},
                "passes": [
                    hitched(moment, "engaged"),
                    hitched(0.0, "slack"),
                    {"config": "vehicle_only", "readings": {"front": front, "rear": rear}},
                ],
            }
        ],
    }
    return document, loads


At = tuple[str | int, ...]
"""The place of a figure in a document."""


def figures_of(node: Any, path: At) -> Iterator[tuple[At, float]]:
    """Every bare figure of a document, with its path."""
    parts = node.items() if isinstance(node, dict) else enumerate(node)
    for key, value in parts:
        if isinstance(value, dict | list):
            yield from figures_of(value, (*path, key))
        elif isinstance(value, int | float) and not isinstance(value, bool) and key != "version":
            yield (*path, key), value


def put_at(document: Any, path: At, value: float) -> None:
    for part in path[:-1]:
        document = document[part]
    document[path[-1]] = value


NEVER_LEFT_OUT = ("entered", "ready", "kept_plans", "format", "version", "units", "name")


def parts_of(node: Any, path: At = ()) -> Iterator[At]:
    """The path of everything in a document that can be left out, lists and their parts included."""
    for key, value in node.items() if isinstance(node, dict) else enumerate(node):
        if key not in NEVER_LEFT_OUT:
            yield (*path, key)
            if isinstance(value, dict | list):
                yield from parts_of(value, (*path, key))


def part_at(document: Document, path: At) -> Any:
    """What stands at a path."""
    node: Any = document
    for part in path:
        node = node[part]
    return node


def without(document: Document, path: At) -> Document:
    """The document with one part less."""
    left: Document = copied(document)
    del part_at(left, path[:-1])[path[-1]]
    return left
