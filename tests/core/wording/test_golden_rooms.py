"""What every room answers for the demo household and a packed rig, figures and sentences: kept, and
read through by a person.
"""

import datetime
import unittest
from collections.abc import Callable, Iterator
from importlib.resources import files
from typing import Any

from noxel.core.adjust import Tried, bar_curve, baseline_of, levers, propose, try_steps
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
from noxel.core.plates import contradictions, evaluate_plates
from noxel.core.rig import RigFile, Step, parse_rig
from noxel.core.weigh import ScaleKind, plan, scales_for, visit_steps
from noxel.errors import InputError
from noxel.formats.rig_json import read_rig
from tests.kept import as_kept
from tests.truth import rig_of

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


def household() -> dict[str, RigFile]:
    demo = {
        each.name.partition(".")[0]: read_rig(each.read_bytes())
        for each in files("noxel.demo").iterdir()
        if each.name.endswith(".json")
    }
    return {
        **dict(sorted(demo.items())),
        "alone": _alone(),
        "packed": parse_rig(rig_of("predict--packed")),
    }


def _steps(rig: RigFile) -> Iterator[Step]:
    """One step of each kind that the rig allows."""
    on = {
        side: next(
            (
                at
                for at, load in enumerate(rig.loads)
                if load.on == side and load.kg and load.position
            ),
            None,
        )
        for side in ("vehicle", "trailer")
    }
    for at in on.values():
        if at is not None:
            yield Step(kind="leave", index=at)
            yield Step.model_validate({"kind": "move", "index": at, "position": "2.5 m"})
    if on["vehicle"] is not None and rig.towing:
        yield Step.model_validate({"kind": "swap", "index": on["vehicle"], "position": "3 m"})
    yield from (Step(kind="tank", index=at, level=0.25) for at in range(len(rig.tanks)))
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


def adjust(rig: RigFile) -> Any:
    try:
        base = baseline_of(rig)
    except InputError as exc:
        return str(exc)
    rows = base.checks(base.rig)
    return {
        "proposals": propose(base, seconds=600),
        "levers": levers(base.rig, rows, base),
        "bars": bar_curve(base.rig, rows, base),
        "tried": [_told(try_steps(base, [step])) for step in _steps(base.rig)],
    }


def match(rig: RigFile) -> Any:
    all_rigs = household()
    vehicles = {name: match_vehicle(name, name, each, None) for name, each in all_rigs.items()}
    trailers = {
        name: found
        for name, each in all_rigs.items()
        if (found := trailer_of_rig(name, name, each, in_a_rig=True))
    }
    own = next(name for name, each in all_rigs.items() if each == rig)
    pairs = [match_pair(vehicles[own], each, None, rig.units.mass) for each in trailers.values()]
    return {
        "how much": how_much(rig),
        "more aboard": how_much(rig, added=150.0).says,
        "pairs": pairs,
        "why": [explain(pairs[0], each, vehicles, trailers, rig.units.mass) for each in pairs[1:]],
    }


def log(rig: RigFile) -> Any:
    run = [Recorded(number, facts_of(rig, each)) for number, each in enumerate(rig.weigh_ins, 1)]
    lines = [line_of(rig, each, run[at - 1].facts if at else None) for at, each in enumerate(run)]
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
    kept = ("tongue", "findings", "rooms", "passes", "open", "expected", "geometry")
    steps = visit_steps(rig, "truck_scale", uncouple=True)
    return {
        "plan": plan(rig, "truck_scale", uncouple=True),
        "visit": [
            {"title": each.title, "lead": each.lead, "lines": each.lines, "caution": each.caution}
            for each in steps
        ],
        "answer": {name: getattr(evaluation, name) for name in kept},
        "working": evaluation.working,
    }


def _visit(rig: RigFile, scale: ScaleKind, uncouple: bool) -> dict[str, Any]:
    return {
        "plan": plan(rig, scale, uncouple=uncouple),
        "steps": visit_steps(rig, scale, uncouple=uncouple),
    }


ROOMS: dict[str, Callable[[RigFile], Any]] = {
    "plates": plates,
    "pack": evaluate_pack,
    "weigh": weigh,
    "adjust": adjust,
    "match": match,
    "log": log,
}


class GoldenRooms(unittest.TestCase):
    maxDiff = 3000

    def test_every_answer_as_it_was_read(self) -> None:
        for name, rig in household().items():
            for room, ask in ROOMS.items():
                with self.subTest(rig=name, room=room):
                    as_kept(self, f"rooms/{name}-{room}", ask(rig), LEFT_OUT)

    def test_every_visit_to_every_kind_of_scale(self) -> None:
        for name in ("observatory", "pottery", "alone"):
            rig = household()[name]
            for kind, title, says in scales_for(rig):
                whole, coupled = (_visit(rig, kind, uncouple) for uncouple in (True, False))
                with self.subTest(rig=name, scale=kind):
                    as_kept(self, f"visits/{name}-{kind}", {"scale": f"{title}: {says}", **whole})
                    if coupled != whole:
                        as_kept(self, f"visits/{name}-{kind}-coupled", coupled)

    def test_ordinary_items(self) -> None:
        as_kept(self, "catalogue", CATALOGUE)
