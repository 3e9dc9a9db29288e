"""What every room answers for the demo household and a packed rig, figures and sentences: kept, and
read through by a person.
"""

import copy
import datetime
import re
import unittest
from collections import Counter
from collections.abc import Callable, Iterator
from importlib.resources import files
from typing import Any

from pydantic_core import to_jsonable_python

from noxel.core.adjust import Baseline, Tried, bar_curve, baseline_of, levers, propose, try_steps
from noxel.core.evaluate import evaluate
from noxel.core.log import (
    Recorded,
    WeighInRef,
    chart_of,
    compare_weigh_ins,
    facts_of,
    kept_answers,
    line_of,
    reminders,
)
from noxel.core.match import explain, how_much, match_pair, match_vehicle, trailer_of_rig
from noxel.core.pack import CATALOGUE, evaluate_pack
from noxel.core.plates import CUSHIONS, SHARES, contradictions, evaluate_plates
from noxel.core.rig import RigFile, Step, dump_rig, on_pin, parse_rig
from noxel.core.weigh import ScaleKind, plan, scales_for, visit_steps
from noxel.errors import InputError, RigFileError
from noxel.formats.rig_json import read_rig
from tests.core.wording.test_golden import LEAK, rigs
from tests.kept import as_kept, texts_of
from tests.truth import figures_of, put_at, rig_of

TODAY = datetime.date(2026, 11, 23)
LEFT_OUT = {"checks", "checks_before", "checks_after", "numbers", "index"}
"""Kept elsewhere, or of no meaning to a reader."""


def _alone() -> RigFile:
    """A motorhome that tows nothing, its rear axle a little over, with two things aboard."""
    document = rig_of("check--motorhome")
    document["vehicle"]["ratings"]["gawr_rear"] = 2_350
    document["loads"] = [
        {"name": "kiln shelves", "on": "vehicle", "mass": 120, "position": 150, "secured": "rope"},
        {"name": "clay", "on": "vehicle", "mass": 200, "position": 30},
    ]
    return parse_rig(document)


def _crowded(observatory: RigFile) -> RigFile:
    """The observatory with whatever else a rig file can hold: parts of the hitch that weigh and
    hang behind, an extension, no brakes, shares off ratings, more aboard, wheels weighed side by
    side, the tongue measured, things added since.
    """
    document = dump_rig(observatory)
    document["name"] = "Crowded"
    document["policy"] |= {
        "brakes_above": 2_000,
        "gcwr_derate": 0.12,
        "tire_reserve": 0.1,
        "travel_speed": 75,
        "cushions": {"vehicle.rear_axle": 0.95},
    }
    vehicle, trailer, hitch = document["vehicle"], document["trailer"], document["hitch"]
    vehicle["ratings"] |= {"gvwr_towing": 7_040, "gawr_rear_towing": 4_070, "tow_unbraked": 3_400}
    vehicle["tongue_table"] = [{"load": 500, "tongue": 900}, {"load": 800, "tongue": 780}]
    trailer |= {"brakes": "none", "suspension": "leaf"}
    trailer["dry_extras"].append({"name": "awning", "mass": 55, "position": 100})
    trailer["ratings"]["axle_group"] = 7_600
    del hitch["weight"]
    hitch |= {"target_restoration": 0.9, "bar_rating": 800}
    hitch["parts"][0] |= {"weight": 30, "extension_leaves": 0.8}
    hitch["parts"][1] |= {
        "weight": 62,
        "behind": 9,
        "drop": 5,
        "by_drop": [{"drop": 4, "trailer": 10_000}, {"drop": 6, "trailer": 6_600, "tongue": 860}],
    }
    document["loads"] += [
        {"name": "generator", "on": "vehicle", "mass": 115, "position": 175, "category": "comfort"},
        {
            "name": "glass plates in a rack",
            "on": "trailer",
            "mass": 85,
            "position": 300,
            "side": 20,
            "height": 50,
            "effort": {"leave": 2, "swap": "never"},
        },
        {"name": "spare dome panel", "on": "trailer", "mass": 40, "aboard": False, "position": 90},
        {"name": "steps", "on": "trailer", "mass": 18, "position": 210, "category": "fixed"},
    ]
    last = document["weigh_ins"][-1]
    wheels = {"front_left": 1_480, "front_right": 1_540, "rear_left": 1_880, "rear_right": 2_160}
    last["passes"][0]["readings"] = {**wheels, "trailer_1": 2_620, "trailer_2": 3_260}
    last["tongue_measurements"] = [{"method": "scale", "value": 1_040, "resolution": 10}]
    last["added_since"] = [
        {"what": "water", "on": "trailer", "mass": 120, "position": 132},
        {"what": "guest", "on": "vehicle", "mass": 170},
    ]
    return parse_rig(document)


def _torn() -> RigFile:
    """Figures that cannot all be right: each is typed as people mistype it."""
    document = rig_of("check--three-passes")
    document["name"] = "Torn"
    document["vehicle"]["curb_weight"] = 8_800
    document["trailer"] |= {"dry_weight": 9_900, "dry_tongue": 90}
    document["trailer"]["ratings"]["ccc"] = 5_000
    document["vehicle"]["ratings"] |= {"payload": 4_000, "gcwr": 6_500}
    engaged, slack, alone = document["weigh_ins"][0]["passes"]
    engaged["printed_gross"] = 12_000
    slack["readings"]["front"], slack["readings"]["rear"] = (
        slack["readings"]["rear"],
        slack["readings"]["front"],
    )
    alone["unit"] = "kg"
    document["trailer"]["suspension"] = "torsion"
    document["weigh_ins"][0]["tongue_measurements"] = [
        {"method": "scale", "value": 95, "resolution": 5, "height": 24, "towing_height": 19}
    ]
    return parse_rig(document)


def household() -> dict[str, RigFile]:
    demo = {
        path.name.partition(".")[0]: read_rig(path.read_bytes())
        for path in files("noxel.demo").iterdir()
        if path.name.endswith(".json")
    }
    return {
        **dict(sorted(demo.items())),
        "alone": _alone(),
        "packed": parse_rig(rig_of("predict--packed")),
        "crowded": _crowded(demo["observatory"]),
        "torn": _torn(),
    }


def _steps(rig: RigFile) -> Iterator[Step]:
    """One step of each kind that the rig allows."""
    on = {
        side: next(
            (
                index
                for index, load in enumerate(rig.loads)
                if load.on == side and load.kg and load.position
            ),
            None,
        )
        for side in ("vehicle", "trailer")
    }
    for index in on.values():
        if index is not None:
            yield Step(kind="leave", index=index)
            yield Step.model_validate({"kind": "move", "index": index, "position": "2.5 m"})
    if on["vehicle"] is not None and rig.towing:
        yield Step.model_validate({"kind": "swap", "index": on["vehicle"], "position": "3 m"})
    yield from (Step(kind="tank", index=index, level=0.25) for index in range(len(rig.tanks)))
    if rig.hitch.weight_distribution:
        yield Step(kind="bars", level=0.4)
    yield Step.model_validate(
        {"kind": "add", "on": "vehicle", "mass": "40 kg", "position": "3 m", "name": "crate"}
    )


def _told(tried: Tried) -> Any:
    """What a step does, without the checks: they are the ordinary ones."""
    return {
        "says": tried.says,
        "verdict": tried.verdict,
        "bars": tried.bars,
        "loads": tried.loads_after,
        "changes": tried.changes,
    }


def _tried(base: Baseline, step: Step) -> Any:
    try:
        return _told(try_steps(base, [step]))
    except InputError as exc:
        return str(exc)


def adjust(rig: RigFile) -> Any:
    try:
        base = baseline_of(rig)
    except InputError as exc:
        return str(exc)
    rows = base.checks(base.rig)
    return {
        "proposals": propose(base, seconds=600),
        "levers": levers(base, rows),
        "bars": bar_curve(base, rows),
        "tried": [_tried(base, step) for step in _steps(base.rig)],
    }


def match(rig: RigFile) -> Any:
    all_rigs = household()
    vehicles = {name: match_vehicle(name, name, rig, None) for name, rig in all_rigs.items()}
    trailers = {
        name: trailer
        for name, rig in all_rigs.items()
        if (trailer := trailer_of_rig(name, name, rig, in_a_rig=True))
    }
    own = next(name for name, each in all_rigs.items() if each == rig)
    pairs = [
        match_pair(vehicles[own], trailer, None, rig.units.mass) for trailer in trailers.values()
    ]
    return {
        "how much": how_much(rig),
        "more aboard": how_much(rig, added=150.0).says,
        "pairs": pairs,
        "why": [explain(pairs[0], pair, vehicles, trailers, rig.units.mass) for pair in pairs[1:]],
    }


def log(rig: RigFile) -> Any:
    run = [
        Recorded(number, facts_of(rig, number), f"w{number}")
        for number, weigh_in in enumerate(rig.weigh_ins, 1)
    ]
    lines = [
        line_of(rig, row, run[index - 1].facts if index else None) for index, row in enumerate(run)
    ]
    refs = [WeighInRef(rig, number, number) for number in range(1, len(run) + 1)]
    return {
        "lines": lines,
        "chart": chart_of(rig, run, len(run)),
        "kept": kept_answers(rig),
        "reminders": reminders(rig, TODAY),
        "compared": compare_weigh_ins(refs[-2:]) if len(refs) > 1 else None,
    }


def plates(rig: RigFile) -> Any:
    return {
        "contradictions": contradictions(rig, TODAY),
        "plates": evaluate_plates(rig, evaluate(rig), TODAY),
    }


def weigh(rig: RigFile) -> Any:
    evaluation = evaluate(rig)
    kept = (
        *("headline", "advisories", "chain", "estimate", "bars_moved", "outlook"),
        *("tongue", "findings", "rooms", "passes", "open", "expected", "geometry"),
    )
    return {
        "answer": {name: getattr(evaluation, name) for name in kept},
        "working": evaluation.working,
    }


def _visit(rig: RigFile, scale: ScaleKind, uncouple: bool) -> dict[str, Any]:
    return {
        "plan": plan(rig, scale, uncouple=uncouple),
        "steps": visit_steps(rig, scale, uncouple=uncouple),
    }


SLIPPED = ("check--three-passes", "check--fifth-wheel", "check--kilograms", "check--motorhome")


def _alarms(document: Any) -> Iterator[tuple[str, str]]:
    """What is said against a document; nothing where it is refused as a whole."""
    try:
        rig = parse_rig(document)
    except RigFileError:
        return
    for advisory in (*evaluate(rig).advisories, *contradictions(rig, TODAY)):
        yield advisory.code, advisory.message


ROOMS: dict[str, Callable[[RigFile], Any]] = {
    "plates": plates,
    "pack": evaluate_pack,
    "weigh": weigh,
    "adjust": adjust,
    "match": match,
    "log": log,
}


KEPT = {
    "crowded": ("plates", "pack", "weigh"),
    "library": ("adjust", "match", "log"),
    "alone": ("weigh",),
    "torn": ("plates",),
}
"""What each room says of whom: enough to read, and each kind of rig."""


class GoldenRooms(unittest.TestCase):
    maxDiff = 3000

    def test_every_answer_as_it_was_read(self) -> None:
        rigs_at_home = household()
        for name, rooms in KEPT.items():
            for room in rooms:
                with self.subTest(rig=name, room=room):
                    answer = ROOMS[room](rigs_at_home[name])
                    as_kept(self, f"rooms/{name}-{room}", answer, LEFT_OUT)

    def test_no_word_of_one_place_in_a_room_of_another(self) -> None:
        """Nor a tongue where there is a pin."""
        demo = household()
        for name, rig in (*((each, demo[each]) for each in ("library", "shadows")), *rigs()):
            at_home = rig.terms == "north_america"
            if at_home and not on_pin(rig):
                continue
            rooms = [ROOMS[room](rig) for room in ("plates", "pack", "weigh", "adjust", "log")]
            visits = [visit_steps(rig, kind, uncouple=True) for kind, *_ in scales_for(rig)]
            answers = [*rooms, how_much(rig), visits, scales_for(rig)]
            for text in texts_of(to_jsonable_python(answers, serialize_unknown=True)):
                leak = re.search(r"\btongue\b", text) if at_home else LEAK.search(text)
                self.assertIsNone(leak if " " in text else None, f"{name}: {text}")

    def test_every_visit_to_every_kind_of_scale(self) -> None:
        """Two of them word for word."""
        for name in ("observatory", "pottery", "alone"):
            rig = household()[name]
            for kind, title, says in scales_for(rig):
                whole, coupled = (_visit(rig, kind, uncouple) for uncouple in (True, False))
                self.assertTrue(whole["steps"] and coupled["steps"], (name, kind))
                if (name, kind) in (("observatory", "truck_scale"), ("alone", "wheel_pads")):
                    as_kept(self, f"visits/{name}-{kind}", {"scale": f"{title}: {says}", **whole})

    def test_ordinary_items_and_schools(self) -> None:
        as_kept(self, "catalogue", CATALOGUE)
        as_kept(self, "schools", [*SHARES, *CUSHIONS])

    def test_what_a_slip_in_one_figure_says(self) -> None:
        """Each figure of some rigs ten times too large or small, or in the other unit: of each
        warning the first that comes, and how many do.
        """
        first: dict[str, str] = {}
        count: Counter[str] = Counter()
        for rig in (household()["observatory"], *(parse_rig(rig_of(name)) for name in SLIPPED)):
            document = dump_rig(rig)
            for path, figure in figures_of(document, ()):
                for factor in (10, 0.1, 2.2046, 0.4536):
                    changed = copy.deepcopy(document)
                    put_at(changed, path, figure * factor)
                    for code, says in _alarms(changed):
                        count[code] += 1
                        first.setdefault(code, says)
        as_kept(self, "slips", [f"{code} ({count[code]}): {first[code]}" for code in sorted(first)])
