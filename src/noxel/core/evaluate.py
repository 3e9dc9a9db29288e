"""The one entry point of an evaluation: everything there is to say about one weigh-in of one
rig.
"""

from dataclasses import replace

from noxel.core.drawing import geometry_of
from noxel.core.limits import (
    Checked,
    Judged,
    binding,
    foreseen,
    headroom,
    judge,
    outlook_of,
    tightest_first,
)
from noxel.core.mechanics import Knowledge, Weighing, other_ways, predict_known
from noxel.core.plates import contradictions
from noxel.core.quantities import KG, Figure, combine, print_date
from noxel.core.rig import RigFile, rating_in
from noxel.core.weigh import advise, pass_answers
from noxel.core.wording import (
    Printer,
    answers,
    beside_words,
    check_answer,
    check_label,
    figure_title,
    findings,
    headline,
    headline_of,
    sentences,
    still_open,
    tongue_ways,
    way_words,
    words_of,
)


def _bars_moved(weighing: Weighing, printer: Printer) -> answers.Value | None:
    tongue, net = weighing.amount("tongue_static"), weighing.amount("tongue_net")
    if weighing.engaged is None or tongue is None or net is None:
        return None
    return printer.value(
        Figure(
            "bars_moved",
            combine([(1.0, tongue), (-1.0, net)]),
            "tongue weight − net load on the vehicle",
        )
    )


def _chain(rig: RigFile, printer: Printer) -> list[answers.Link]:
    mode = rig.hitch.mode
    links = []
    for part in rig.hitch.parts:
        trailer, tongue = rating_in(part.trailer, mode), rating_in(part.tongue, mode)
        links.append(
            answers.Link(
                kind=part.kind,
                trailer=trailer.kg / printer.mass if trailer else None,
                tongue=tongue.kg / printer.mass if tongue else None,
            )
        )
    return links


def _rooms(
    rig: RigFile, weighing: Weighing, rows: list[Checked], printer: Printer
) -> list[answers.RoomLeft]:
    return [
        answers.RoomLeft(
            where=room.where,
            room=room.kg / printer.mass,
            check=room.check.id,
            sentence=sentences.room_sentence(rig, room),
        )
        for room in headroom(rig, weighing, rows)
    ]


def _estimate(rig: RigFile, judged: Judged, printer: Printer) -> answers.Estimate | None:
    if judged.since is None:
        return None
    rows, rules = tightest_first(judged.since.rows), judged.rules
    wrong = any(row.status in ("over", "low") for row in rows)
    shown = rows if wrong or judged.verdict != "stop" else judged.rows
    checks = [
        replace(check_answer(rig, judged.weighing, row, printer), working=None) for row in rows
    ]
    line = headline(rig, shown, judged.verdict, rules=rules)
    return answers.Estimate(verdict=judged.verdict, headline=line, checks=checks)


def evaluate(rig: RigFile, weigh_in: int | None = None) -> answers.Evaluation:
    """Evaluate one weigh-in of a rig: derived weights, checks, verdict, advisories and working.

    ``weigh_in``: which weigh-in, from 1; None is the last. A rig that was never weighed has every
    check unknown.

    All in the file's unit, unrounded; checks tightest first.

    Raises NotFound if the rig has no weigh-in of that number.
    """
    judged = judge(rig, weigh_in)
    known = foreseen(rig, judged)
    number, weighing, rows, reached = judged.number, judged.weighing, judged.rows, judged.verdict
    doubted, rules = judged.doubted, judged.rules
    printer = Printer(rig)
    derived = {key: printer.value(figure) for key, figure in weighing.figures.items()}
    working = {
        key: printer.working(figure, figure_title(rig, key))
        for key, figure in weighing.figures.items()
    }
    for row in rows:
        if row.actual and row.actual.key not in working:
            working[row.actual.key] = printer.working(row.actual, check_label(rig, row.id))
    expected = _expected(rig, number, known, printer) if known else None
    for key, beside in known.expected.items() if known else ():
        working[key] = printer.working(beside.figure, f"{figure_title(rig, key)}, expected")
        if expected and expected[key].beside:
            working[key].remarks = tuple(expected[key].beside)
    for row in rows:
        if row.expected and row.expected.actual.key not in working:
            working[row.expected.actual.key] = printer.working(
                row.expected.actual, f"{check_label(rig, row.id)}, expected"
            )
    for candidate in weighing.candidates:
        key = candidate.figure.key
        working[key] = printer.working(
            candidate.figure,
            f"{figure_title(rig, 'tongue_static')}, {_CANDIDATES[candidate.source]}",
        )
    bind = binding(rows)
    return answers.Evaluation(
        units=answers.MassIn(mass=rig.units.mass),
        length=printer.length,
        weigh_in=number,
        towing=rig.towing,
        verdict=reached,
        headline=headline_of(rig, judged, known),
        binding=bind.id if bind else None,
        derived=answers.Derived.model_validate(
            {**derived, "tongue_source": weighing.tongue_source}
        ),
        checks=[check_answer(rig, weighing, row, printer, known) for row in rows],
        advisories=advise(rig, number, weighing, rows, doubted, rules),
        working=working,
        passes=pass_answers(rig, number, weighing),
        bars_moved=_bars_moved(weighing, printer),
        tongue=tongue_ways(rig, weighing),
        findings=findings(rig, number, weighing),
        open=still_open(rig, weighing, rows),
        rooms=_rooms(rig, weighing, rows, printer),
        estimate=_estimate(rig, judged, printer),
        plates=contradictions(rig),
        chain=_chain(rig, printer),
        terms=words_of(rig),
        geometry=geometry_of(
            rig, len(weighing.hitched.each.trailer_axles) if weighing.hitched else 0
        ),
        caution=sentences.CAUTION,
        doubts=[doubt.code for doubt in doubted],
        expected=expected,
        outlook=outlook_of(rows, settled=not (doubted or rules or judged.since)) if known else None,
    )


def evaluate_at(rig: RigFile, looked_at: int | None) -> answers.Evaluation:
    """Evaluate a rig as its page looks at it: a weigh-in that was just begun changes no answer.

    ``looked_at``: the weigh-in that is looked at, from 1.

    The answer is of that weigh-in; where it holds nothing yet, of the latest before it, and
    ``of`` says so.
    """
    filled = rig.filled(looked_at)
    if filled == looked_at:
        return evaluate(rig, looked_at)
    answer, begun = evaluate(rig, filled), evaluate(rig, looked_at)
    date = rig.weigh_ins[filled - 1].date if filled else None
    weighed = f"weighed {print_date(date)}" if date else "weighed before"
    return answer.model_copy(
        update={
            "weigh_in": looked_at,
            "passes": begun.passes,
            "tongue": begun.tongue,
            "findings": begun.findings,
            "of": f"As {weighed}; the weigh-in that you began holds nothing yet.",
        }
    )


def _expected(
    rig: RigFile, number: int | None, known: Knowledge, printer: Printer
) -> dict[str, answers.ExpectedValue]:
    ways, others = {}, other_ways(rig, number, known)
    for key, expected in known.expected.items():
        value = printer.value(expected.figure)
        beside = [beside_words(rig, expected, other) for other in others.get(key, ())]
        ways[key] = answers.ExpectedValue(
            value.value, value.plus_minus, expected.way, way_words(rig, expected.way), beside
        )
    return ways


_CANDIDATES = {
    "passes": "from the passes",
    "direct": "measured directly",
    "trailer": "from the trailer alone",
    "moment": "by moments",
}


def evaluate_prediction(rig: RigFile) -> answers.Prediction:
    """The lever model's prediction as far as it goes, in the file's unit, and the paths of what
    would give the rest.
    """
    factor, predicted = KG[rig.units.mass], predict_known(rig)
    return answers.Prediction(
        units=answers.MassIn(mass=rig.units.mass),
        predicted={
            key: value if key == "tongue_share" else value / factor
            for key, value in predicted.loads.items()
        },
        missing=[problem.path for problem in predicted.missing],
    )


def evaluate_ceiling(rig: RigFile) -> answers.CeilingAnswer:
    """The heaviest trailer by every limit, in the file's unit."""
    from noxel.core.match import ceiling  # nothing else here waits for Match

    factor, highest = KG[rig.units.mass], ceiling(rig)
    return answers.CeilingAnswer(
        units=answers.MassIn(mass=rig.units.mass),
        tongue_share=highest.tongue_share,
        share_way=highest.share_way,
        limits={check: value / factor for check, value in highest.limits.items()},
        binding=highest.binding,
        ceiling=None if highest.ceiling is None else highest.ceiling / factor,
        estimated=list(highest.estimated),
        missing=list(highest.missing),
        unknown=list(highest.unknown),
    )
