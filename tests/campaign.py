"""Random rigs with known true loads, weighed on an imperfect scale, then half forgotten or
mistyped: what the campaign throws.
"""

import copy
import random
from dataclasses import dataclass
from typing import Any

KG = 0.45359237
Document = dict[str, Any]


@dataclass(frozen=True)
class TrueRig:
    """A rig file in pounds as a careful owner fills it in, and its true loads and derived figures.
    [lb]
    """

    document: Document
    true: dict[str, float]


def _coupled(true: dict[str, float], moment: float) -> dict[str, float]:
    """Axle loads with the bars at a moment, by taking moments about the rear axle and the trailer's
    axles. [lb, lb·in]
    """
    net = true["tongue"] - moment / true["length"]
    front = true["front"] - net * true["b"] / true["a"] + moment / true["a"]
    return {
        "front": front,
        "rear": true["front"] + true["rear"] + net - front,
        "trailer": true["gross"] - net,
    }


def weighed(loads: dict[str, float], gain: float) -> dict[str, float]:
    """Readings of a platform scale: one gain for the whole scale (0.1 %), each platform rounded to
    20 lb.
    """
    return {name: round(load * gain / 20) * 20 for name, load in loads.items()}


def true_rig(draw: random.Random, *, spread: tuple[float, float] = (0.9, 1.3)) -> TrueRig:
    """A pickup and a two-axle trailer on spring bars; ratings lie ``spread`` around the true loads,
    labels agree with each other.
    """
    curb, hitch, aboard = draw.uniform(4200, 6800), draw.uniform(70, 110), draw.uniform(250, 1100)
    gross, share = draw.uniform(3000, 8500), draw.uniform(0.105, 0.145)
    true = {
        "a": draw.uniform(125, 165),
        "b": draw.uniform(45, 60),
        "length": draw.uniform(170, 290),
        "gross": gross,
        "tongue": gross * share,
        "front": curb * 0.56 + aboard * 0.4 - hitch * 0.35,
    }
    true["rear"] = curb + aboard + hitch - true["front"]
    moment = draw.uniform(0.4, 0.8) * true["tongue"] * true["b"] / (1 + true["b"] / true["length"])
    engaged, slack, gain = _coupled(true, moment), _coupled(true, 0.0), draw.gauss(1.0, 0.001)
    alone = {"front": true["front"], "rear": true["rear"]}
    true |= {f"{name}_hitched": engaged[name] for name in ("front", "rear")} | {
        "trailer_axles": engaged["trailer"],
        "curb": curb,
    }
    true |= {
        "front_slack": slack["front"],
        "rear_slack": slack["rear"],
        "trailer_slack": slack["trailer"],
    }
    true |= {
        "vehicle_hitched": engaged["front"] + engaged["rear"],
        "vehicle_solo": true["front"] + true["rear"],
    }
    true["combination_gross"], true["aboard"] = (
        true["vehicle_hitched"] + engaged["trailer"],
        aboard + hitch,
    )

    def near(load: float) -> int:
        return round(load * draw.uniform(*spread) / 5) * 5

    gvwr, tow, trailer = near(true["vehicle_hitched"]), near(gross), near(gross)
    gawr_front, gawr_rear = max(near(engaged["front"]), round(0.45 * gvwr)), near(engaged["rear"])
    gawr_rear = max(gawr_rear, gvwr - gawr_front)
    dry = min(gross - draw.uniform(300, 1500), trailer - 200)
    curb_label = round(curb * draw.uniform(0.99, 1.01))
    document: Document = {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": "lb", "length": "in"},
        "name": "true",
        "kind": "conventional",
        "vehicle": {
            "body": "pickup",
            "curb_weight": curb_label,
            "geometry": {"wheelbase": true["a"], "hitch_offset": true["b"]},
            "ratings": {
                "gvwr": gvwr,
                "gawr_front": gawr_front,
                "gawr_rear": gawr_rear,
                "gcwr": gvwr + tow - round(tow * draw.uniform(0, 0.1)),
                "tow_rating": tow,
                "payload": max(gvwr - curb_label, 100),
                "tongue_rating": near(true["tongue"]),
            },
        },
        "hitch": {
            "weight": round(hitch),
            "weight_distribution": True,
            "parts": [
                {"kind": "receiver", "trailer": near(gross), "tongue": near(true["tongue"])},
                {"kind": "ball", "trailer": near(gross)},
            ],
        },
        "trailer": {
            "dry_weight": round(dry),
            "ratings": {
                "gvwr": trailer,
                "gawr": [max(near(engaged["trailer"] / 2), round(0.36 * trailer))] * 2,
                "ccc": trailer - round(dry),
            },
            "geometry": {"coupler_to_axles": true["length"]},
        },
        "loads": [{"name": "all aboard", "on": "vehicle", "mass": round(aboard), "position": 80}],
        "weigh_ins": [
            {
                "date": "2026-05-02",
                "scale": {"kind": "truck_scale", "resolution": 20},
                "passes": [
                    {
                        "config": "hitched",
                        "spring_bars": "engaged",
                        "readings": weighed(engaged, gain),
                    },
                    {"config": "hitched", "spring_bars": "slack", "readings": weighed(slack, gain)},
                    {"config": "vehicle_only", "readings": weighed(alone, gain)},
                ],
            }
        ],
    }
    for at in document["weigh_ins"][0]["passes"]:
        at["printed_gross"] = sum(at["readings"].values())
    return TrueRig(document, true)


def loads_of(rig: TrueRig, document: Document) -> dict[str, float]:
    """The true load of each check, with the bars as in the pass that the document kept. [lb]

    Payload is what the curb weight on the label leaves: the label's own error is not the scale's.
    """
    true = rig.true
    kept = [
        each.get("spring_bars")
        for weigh_in in document.get("weigh_ins", ())
        for each in weigh_in["passes"]
    ]
    slack = "slack" in kept and "engaged" not in kept
    front, rear, axles = (
        true[name]
        for name in (
            ("front_slack", "rear_slack", "trailer_slack")
            if slack
            else ("front_hitched", "rear_hitched", "trailer_axles")
        )
    )
    return {
        "vehicle.front_axle": front,
        "vehicle.rear_axle": rear,
        "vehicle.gross": front + rear,
        "combination.gross": true["combination_gross"],
        "vehicle.tow_rating": true["gross"],
        "trailer.gross": true["gross"],
        "trailer.axles": axles,
        "hitch.trailer": true["gross"],
        "hitch.tongue": true["tongue"],
        "vehicle.payload": front + rear - rig.document["vehicle"]["curb_weight"],
    }


_OPTIONAL = (
    "curb_weight",
    "geometry",
    "ratings.gvwr",
    "ratings.gcwr",
    "ratings.tow_rating",
    "ratings.payload",
    "ratings.tongue_rating",
    "ratings.gawr_front",
    "ratings.gawr_rear",
)


def half_forgotten(rig: TrueRig, draw: random.Random) -> Document:
    """The same rig from someone who has half: figures missing, passes missing, or one total where
    there were three platforms.
    """
    document = copy.deepcopy(rig.document)
    for path in draw.sample(_OPTIONAL, draw.randint(1, 5)):
        place = document["vehicle"]
        *on, last = path.split(".")
        for key in on:
            place = place[key]
        del place[last]
    for name in ("dry_weight", "geometry"):
        if draw.random() < 0.4:
            del document["trailer"][name]
    if draw.random() < 0.3:
        document["loads"] = []
    passes = document["weigh_ins"][0]["passes"]
    for pass_ in passes:
        readings = pass_["readings"]
        form = draw.choice(("axles", "axles", "vehicle", "gross", "front and gross"))
        if form == "gross" or (form == "vehicle" and pass_["config"] == "vehicle_only"):
            pass_["readings"] = {"gross": sum(readings.values())}
        elif form == "vehicle":
            pass_["readings"] = {
                "vehicle": readings["front"] + readings["rear"],
                "trailer": readings["trailer"],
            }
        elif form == "front and gross":
            pass_["readings"] = {"front": readings["front"], "gross": sum(readings.values())}
        pass_.pop("printed_gross")
    document["weigh_ins"][0]["passes"] = [pass_ for pass_ in passes if draw.random() < 0.65]
    if not document["weigh_ins"][0]["passes"]:
        del document["weigh_ins"]
    return document


def _typed(readings: dict[str, float], factor: float) -> dict[str, float]:
    return {name: round(value * factor, 1) for name, value in readings.items()}


def slipped(rig: TrueRig, other: TrueRig, kind: str, draw: random.Random) -> Document:
    """The same rig with one slip of a kind named in :data:`SLIPS`; ``other`` is whose ticket may be
    picked up by mistake.
    """
    document = copy.deepcopy(rig.document)
    passes = document["weigh_ins"][0]["passes"]
    for pass_ in passes:
        if kind != "someone else's ticket":
            # the owner copies the axles; the total on the ticket would tell
            pass_.pop("printed_gross")
    chosen = draw.choice(passes)
    if kind == "all readings in the other unit":
        for pass_ in passes:
            pass_["readings"] = _typed(pass_["readings"], KG)
    elif kind == "one ticket in the other unit":
        chosen["readings"] = _typed(chosen["readings"], KG)
    elif kind == "one reading ten times or a tenth":
        name = draw.choice(sorted(chosen["readings"]))
        chosen["readings"][name] = round(chosen["readings"][name] * draw.choice((0.1, 10)))
    elif kind == "one rating ten times or a tenth":
        ratings = document["vehicle"]["ratings"]
        name = draw.choice(sorted(ratings))
        ratings[name] = round(ratings[name] * draw.choice((0.1, 10)))
    elif kind == "front and rear swapped":
        readings = chosen["readings"]
        readings["front"], readings["rear"] = readings["rear"], readings["front"]
    elif kind == "two tickets swapped":
        first, last = passes[0]["readings"], passes[2]["readings"]
        for name in ("front", "rear"):
            first[name], last[name] = last[name], first[name]
    elif kind == "someone else's ticket":
        number = passes.index(chosen)
        passes[number] = copy.deepcopy(other.document["weigh_ins"][0]["passes"][number])
    return document


SLIPS = (
    "all readings in the other unit",
    "one ticket in the other unit",
    "one reading ten times or a tenth",
    "one rating ten times or a tenth",
    "front and rear swapped",
    "two tickets swapped",
    "someone else's ticket",
)
