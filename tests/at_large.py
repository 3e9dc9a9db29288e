"""Random rigs of every sort, and all that Noxel says of them: parts of worked cases, of the demo
household and of random rigs grafted on each other, figures made larger and smaller, parts left out.

``python -m tests.at_large ROOM NUMBER`` prints one answer in full, to be compared with what another
version prints.
"""

import datetime
import json
import random
import sys
from collections.abc import Callable
from functools import cache, lru_cache
from typing import Any, get_args

from pydantic_core import to_jsonable_python

from noxel.core.adjust import bar_curve, baseline_of, levers, propose, try_steps
from noxel.core.editing import Change, apply_changes, spell_out, switch_units
from noxel.core.editing.paths import copied
from noxel.core.evaluate import evaluate
from noxel.core.log import WeighInRef, compare_weigh_ins, merge_weigh_ins
from noxel.core.match import explain, how_much, match_pair, match_vehicle, trailer_of_rig
from noxel.core.pack import evaluate_pack
from noxel.core.plates import contradictions, evaluate_plates
from noxel.core.practice import (
    LESSONS,
    Missing,
    Run,
    Teller,
    Word,
    act_in,
    begin,
    challenge_view,
    do_act,
    exercise_of,
    lesson_view,
    open_lesson,
    solution_of,
    solved,
    yard_view,
)
from noxel.core.practice.diagnosis import diagnose
from noxel.core.practice.rigs import OverOn
from noxel.core.quantities import MassUnit
from noxel.core.rig import RigFile, Step, dump_rig, parse_rig
from noxel.core.weigh import plan, scales_for, visit_steps
from noxel.errors import InputError, RigFileError
from noxel.formats.print_page import print_page
from tests.campaign import half_forgotten, true_rig
from tests.core.practice.test_lessons import typed
from tests.core.practice.test_yard import KINDS, perfect
from tests.core.wording.test_golden_rooms import household, log
from tests.kept import written
from tests.texts_at_large import TEXTS
from tests.truth import CASES, Document, figures_of, part_at, parts_of, put_at, without

TODAY = datetime.date(2026, 11, 23)
FACTORS = (0.1, 0.5, 0.85, 0.95, 1.0001, 1.05, 1.2, 2.0)
MISTYPED = ("", "0", "7,2", "1 t", "1,200 lb", "12 ft 3 in", "80%", "-4", "?", "35 psi")


@cache
def _documents() -> list[list[Document]]:
    """Whole documents in pounds; whole documents in kilograms."""
    chance = random.Random(7)
    files = [json.loads(path.read_text(encoding="utf-8")) for path in sorted(CASES.glob("*.json"))]
    found = [file["file"] for file in files if "expect" in file and "error" not in file["expect"]]
    found += [dump_rig(rig) for rig in household().values()]
    found += [half_forgotten(true_rig(chance), chance) for _ in range(40)]
    whole = [entry for entry in found if _valid(entry)]
    pounds = [document for document in whole if document["units"]["mass"] == "lb"]
    return [pounds, [switch_units(document, "kg", "mm") for document in whole]]


def _valid(document: Document) -> bool:
    try:
        parse_rig(document)
    except (InputError, RigFileError):
        return False
    return True


def _graft(document: Document, other: Document, chance: random.Random) -> Document:
    """A part of another document in the place that it has there, if there is such a place."""
    at = chance.choice([*parts_of(other)])
    made: Document = copied(document)
    try:
        here = part_at(made, at[:-1])
    except (KeyError, IndexError, TypeError):
        return made
    if isinstance(here, list):
        here[int(at[-1]) :] = [copied(part_at(other, at))]
    elif isinstance(here, dict):
        here[at[-1]] = copied(part_at(other, at))
    return made


def _scaled(document: Document, chance: random.Random) -> Document:
    """One figure larger or smaller."""
    made: Document = copied(document)
    figures = [*figures_of(made, ())]
    if figures:
        at, figure = chance.choice(figures)
        put_at(made, at, round(figure * chance.choice(FACTORS), chance.choice((0, 0, 1, 3))))
    return made


def _changed(document: Document, pool: list[Document], chance: random.Random) -> Document:
    way = chance.random()
    if way < 0.6:
        return _graft(document, chance.choice(pool), chance)
    return (
        _scaled(document, chance)
        if way < 0.85
        else without(document, chance.choice([*parts_of(document)]))
    )


@lru_cache(8)
def document_at_large(number: int) -> Document:
    """A valid rig file, the same for the same number; not to be changed."""
    chance = random.Random(number)
    pool = chance.choice(_documents())
    document: Document = copied(chance.choice(pool))
    for _ in range(chance.choice((2, 5, 9, 14))):
        changed = _changed(document, pool, chance)
        document = changed if _valid(changed) else document
    return document


def _adjust(rig: RigFile, number: int) -> Any:
    try:
        base = baseline_of(rig)
    except InputError as exc:
        return str(exc)
    rows = base.checks(base.rig)
    chance = random.Random(number)
    other = parse_rig(document_at_large(number + 1))
    places = ("2.5 m", "-0.4 m", "80 in")
    steps = [
        *(Step(kind="leave", index=index) for index in range(min(2, len(rig.loads)))),
        *(Step(kind="tank", index=index, level=0.3) for index in range(min(2, len(rig.tanks)))),
        *(
            Step.model_validate({"kind": kind, "index": index, "position": chance.choice(places)})
            for index in range(min(3, len(rig.loads)))
            for kind in ("move", "swap")
        ),
        Step(kind="bars", level=chance.random()),
        Step.model_validate({"kind": "drop", "position": "0.4 m"}),
        Step.model_validate({"kind": "add", "on": "trailer", "mass": "90 lb", "position": "3 m"}),
        *(Step(kind=kind, thing="other") for kind in ("hitch", "vehicle")),
    ]
    done: list[Any] = []
    for step in steps:
        try:
            tried = try_steps(base, [step], {"other": other})
        except InputError as exc:
            done.append(str(exc))
        else:
            done.append([tried.says, tried.verdict, tried.bars, tried.changes, tried.loads_after])
    proposed = propose(base, seconds=600) if number % 8 == 0 else None
    return [levers(base, rows), bar_curve(base, rows), done, proposed]


def _edits(rig: RigFile, number: int) -> Any:
    """What comes of typing into some fields, parts removed and units switched."""
    chance, document = random.Random(number), dump_rig(rig)
    lines: list[Any] = []
    for _ in range(4):
        at = chance.choice([*parts_of(document)])
        value = part_at(document, at)
        path = "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in at)[1:]
        change = (
            Change(path, chance.choice((str(value), *MISTYPED)))
            if not isinstance(value, dict | list)
            else Change(path, op="remove")
        )
        try:
            edited = apply_changes(document, [change])
        except InputError as exc:
            lines.append([path, change.text, str(exc), exc.problems])
        else:
            document = edited.document
            lines.append([path, change.text, edited.fields])
    other = switch_units(document, "kg" if rig.units.mass == "lb" else "lb")
    return [lines, document, other, spell_out(document)]


def _weigh(rig: RigFile, number: int) -> Any:
    chance = random.Random(number)
    kind, *_ = chance.choice(scales_for(rig))
    uncouple = chance.random() < 0.5
    return [plan(rig, kind, uncouple=uncouple), visit_steps(rig, kind, uncouple=uncouple)]


def _plates(rig: RigFile, _: int) -> Any:
    return [contradictions(rig, TODAY), evaluate_plates(rig, evaluate(rig), TODAY)]


def _match(rig: RigFile, number: int) -> Any:
    """How much, and the rig's vehicle with the trailers of the two rigs before it."""
    others = [parse_rig(document_at_large(number - back)) for back in (1, 2) if number >= back]
    vehicle = match_vehicle("v", "vehicle", rig, None)
    trailers = {
        f"{index}": trailer
        for index, other in enumerate(others)
        if (trailer := trailer_of_rig(f"{index}", f"trailer {index}", other, in_a_rig=True))
    }
    pairs = [match_pair(vehicle, trailer, None, rig.units.mass) for trailer in trailers.values()]
    why = [explain(pairs[0], pair, {"v": vehicle}, trailers, "kg") for pair in pairs[1:]]
    return [how_much(rig), how_much(rig, added=10.0 * (number % 30)).says, pairs, why]


def _log(rig: RigFile, number: int) -> Any:
    """The log, and what comes of another rig's weigh-ins among its own."""
    other = dump_rig(parse_rig(document_at_large(number + 1))).get("weigh_ins", [])
    try:
        merged = merge_weigh_ins(dump_rig(rig), other)
        compared = compare_weigh_ins(
            [
                WeighInRef(parse_rig(merged[0]), number, number)
                for number in range(1, 1 + len(merged[0].get("weigh_ins", [])))
            ]
        )
    except (InputError, RigFileError) as exc:
        return [log(rig), str(exc), exc.problems]
    return [log(rig), merged, compared]


ROOMS: dict[str, Callable[[RigFile, int], Any]] = {
    "margins": lambda rig, _: evaluate(rig),
    "plates": _plates,
    "pack": lambda rig, _: evaluate_pack(rig),
    "weigh": _weigh,
    "adjust": _adjust,
    "match": _match,
    "log": _log,
    "edits": _edits,
    "paper": lambda rig, _: print_page(rig, today=TODAY),
    **TEXTS,
}


def _yard(number: int) -> Any:
    """A walk through the yard, each step one of those offered."""
    chance, text = random.Random(number), []
    yard = begin(
        Run(
            kind=chance.choice(KINDS),
            over=chance.choice(get_args(OverOn)),
            seed=f"{number}",
            unit=chance.choice(("lb", "kg")),
            terms=chance.choice(("north_america", "europe")),
        )
    )
    for _ in range(15):
        offer = chance.choice(yard_view(yard).acts)
        yard, view = act_in(yard, offer.act)
        text.append([offer.act, view])
    return text


def _challenge(number: int) -> Any:
    """A challenge with every ticket bought and words said at random."""
    chance = random.Random(number)
    run = Run(
        difficulty=number % 3 + 1,
        seed=f"{number}",
        unit=chance.choice(("lb", "kg")),
        terms=chance.choice(("north_america", "europe")),
    )
    yard, words = perfect(begin(run))
    guessed = {word: chance.choice(get_args(Word)) for word in words}
    cured = do_act(yard, "couple")
    return [challenge_view(yard, words), challenge_view(cured, guessed, cured=True)]


def _lesson(number: int) -> Any:
    """A lesson, and what is said to right and wrong answers."""
    chance, names = random.Random(number), [*LESSONS]
    name = names[number // 2 % len(names)]
    unit: MassUnit = chance.choice(("lb", "kg"))
    lesson = LESSONS[name]
    yard = open_lesson(name, f"{number}", unit, chance.choice(("north_america", "europe")))
    solved_yard = solved(lesson, yard)
    exercise, m = exercise_of(lesson, solved_yard), Teller(solved_yard.rig)
    lines: list[Any] = [lesson_view(name, yard), solution_of(lesson, yard)]
    if not isinstance(exercise, Missing) and exercise.form not in ("choice", "done"):
        for times in (1, 1.004, 1.02, 0.5, 2.2046, -1):
            text = typed(exercise, exercise.right * times, unit)
            lines.append([text, diagnose(exercise, text, m)])
    return [*lines, lesson_view(name, solved_yard, show=True)]


PRACTICE: dict[str, Callable[[int], Any]] = {
    "yard": _yard,
    "challenge": _challenge,
    "lesson": _lesson,
}


SELDOM = {
    **dict.fromkeys(("edits", "lesson"), 2),
    **dict.fromkeys(("paper", "yard", "challenge"), 3),
    "files": 30,
}
"""Which rooms are asked about some of the rigs only, such as every second: they take long."""


def answer(room: str, number: int) -> Any:
    """What a room answers of the rig of that number, as plain JSON."""
    if room in PRACTICE:
        found = PRACTICE[room](number)
    else:
        found = ROOMS[room](parse_rig(document_at_large(number)), number)
    return to_jsonable_python(found, serialize_unknown=True)


if __name__ == "__main__":
    print("\n".join(written([answer(sys.argv[1], int(sys.argv[2]))])))
