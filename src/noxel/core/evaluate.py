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
from noxel.core.match import ceiling
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
    sentences,
    still_open,
    tongue_ways,
    way_words,
    words_of,
)


def _bars_moved(weighing: Weighing, to: Printer) -> answers.Value | None:
    tongue, net = weighing.amount("tongue_static"), weighing.amount("tongue_net")
    if weighing.engaged is None or tongue is None or net is None:
        return None
    return to.value(
        Figure(
            "bars_moved",
            combine([(1.0, tongue), (-1.0, net)]),
            "tongue weight − net load on the vehicle",
        )
    )


def _chain(rig: RigFile, to: Printer) -> list[answers.Link]:
    mode = rig.hitch.mode
    links = []
    for part in rig.hitch.parts:
        trailer, tongue = rating_in(part.trailer, mode), rating_in(part.tongue, mode)
        links.append(
            answers.Link(
                kind=part.kind,
                trailer=trailer.kg / to.mass if trailer else None,
                tongue=tongue.kg / to.mass if tongue else None,
            )
        )
    return links


def _rooms(
    rig: RigFile, weighing: Weighing, rows: list[Checked], to: Printer
) -> list[answers.RoomLeft]:
    return [
        answers.RoomLeft(
            where=room.where,
            room=room.kg / to.mass,
            check=room.check.id,
            sentence=sentences.room_sentence(rig, room),
        )
        for room in headroom(rig, weighing, rows)
    ]


def _estimate(rig: RigFile, judged: Judged, to: Printer) -> answers.Estimate | None:
    if judged.since is None:
        return None
    rows, rules = tightest_first(judged.since.rows), judged.rules
    wrong = any(row.status in ("over", "low") for row in rows)
    shown = rows if wrong or judged.verdict != "stop" else judged.rows
    checks = [replace(check_answer(rig, judged.weighing, row, to), working=None) for row in rows]
    headline = sentences.headline(rig, shown, judged.verdict, rules=rules)
    return answers.Estimate(verdict=judged.verdict, headline=headline, checks=checks)


def evaluate(rig: RigFile, weigh_in: int | None = None) -> answers.Evaluation:
    """Evaluate one weigh-in of a rig: derived weights, checks, verdict, advisories and working.

    Parameters
    ----------
    rig : RigFile
        The rig.
    weigh_in : int or None
        Which weigh-in, from 1; None is the last. A rig that was never weighed has every check
        unknown.

    Returns
    -------
    Evaluation
        In the file's unit, unrounded; checks tightest first.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    judged = judge(rig, weigh_in)
    known = foreseen(rig, judged)
    number, weighing, rows, found = judged.number, judged.weighing, judged.rows, judged.verdict
    doubted, rules = judged.doubted, judged.rules
    to = Printer(rig)
    derived = {key: to.value(figure) for key, figure in weighing.figures.items()}
    working = {
        key: to.working(figure, figure_title(rig, key)) for key, figure in weighing.figures.items()
    }
    for row in rows:
        if row.actual and row.actual.key not in working:
            working[row.actual.key] = to.working(row.actual, check_label(rig, row.id))
    expected = _expected(rig, number, known, to) if known else None
    for key, each in known.expected.items() if known else ():
        working[key] = to.working(each.figure, f"{figure_title(rig, key)}, expected")
        if expected and expected[key].beside:
            working[key].remarks = tuple(expected[key].beside)
    for row in rows:
        if row.expected and row.expected.actual.key not in working:
            working[row.expected.actual.key] = to.working(
                row.expected.actual, f"{check_label(rig, row.id)}, expected"
            )
    for candidate in weighing.candidates:
        key = candidate.figure.key
        working[key] = to.working(
            candidate.figure,
            f"{figure_title(rig, 'tongue_static')}, {_CANDIDATES[candidate.source]}",
        )
    bind = binding(rows)
    return answers.Evaluation(
        units=answers.MassIn(mass=rig.units.mass),
        length=to.length,
        weigh_in=number,
        towing=rig.towing,
        verdict=found,
        headline=sentences.headline_of(rig, judged, known),
        binding=bind.id if bind else None,
        derived=answers.Derived.model_validate(
            {**derived, "tongue_source": weighing.tongue_source}
        ),
        checks=[check_answer(rig, weighing, row, to, known) for row in rows],
        advisories=advise(rig, number, weighing, rows, doubted, rules),
        working=working,
        passes=pass_answers(rig, number, weighing),
        bars_moved=_bars_moved(weighing, to),
        tongue=tongue_ways(rig, weighing),
        findings=findings(rig, number, weighing),
        open=still_open(rig, weighing, rows),
        rooms=_rooms(rig, weighing, rows, to),
        estimate=_estimate(rig, judged, to),
        plates=contradictions(rig),
        chain=_chain(rig, to),
        terms=words_of(rig),
        geometry=geometry_of(
            rig, len(weighing.hitched.each.trailer_axles) if weighing.hitched else 0
        ),
        caution=sentences.CAUTION,
        doubts=[each.code for each in doubted],
        expected=expected,
        outlook=outlook_of(rows, settled=not (doubted or rules or judged.since)) if known else None,
    )


def evaluate_at(rig: RigFile, looked_at: int | None) -> answers.Evaluation:
    """Evaluate a rig as its page looks at it: a weigh-in that was just begun changes no answer.

    Parameters
    ----------
    rig : RigFile
        The rig.
    looked_at : int or None
        The weigh-in that is looked at, from 1.

    Returns
    -------
    Evaluation
        Of that weigh-in; where it holds nothing yet, of the latest before it, and ``of`` says so.
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
    rig: RigFile, number: int | None, known: Knowledge, to: Printer
) -> dict[str, answers.ExpectedValue]:
    found, others = {}, other_ways(rig, number, known)
    for key, each in known.expected.items():
        value = to.value(each.figure)
        beside = [beside_words(rig, each, other) for other in others.get(key, ())]
        found[key] = answers.ExpectedValue(
            value.value, value.plus_minus, each.way, way_words(rig, each.way), beside
        )
    return found


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
    factor, found = KG[rig.units.mass], predict_known(rig)
    return answers.Prediction(
        units=answers.MassIn(mass=rig.units.mass),
        predicted={
            key: value if key == "tongue_share" else value / factor
            for key, value in found.loads.items()
        },
        missing=[problem.path for problem in found.missing],
    )


def evaluate_ceiling(rig: RigFile) -> answers.CeilingAnswer:
    """The heaviest trailer by every limit, in the file's unit."""
    factor, found = KG[rig.units.mass], ceiling(rig)
    return answers.CeilingAnswer(
        units=answers.MassIn(mass=rig.units.mass),
        tongue_share=found.tongue_share,
        share_way=found.share_way,
        limits={check: value / factor for check, value in found.limits.items()},
        binding=found.binding,
        ceiling=None if found.ceiling is None else found.ceiling / factor,
        estimated=list(found.estimated),
        missing=list(found.missing),
        unknown=list(found.unknown),
    )
