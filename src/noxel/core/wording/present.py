"""From the core's SI figures to the file's units and words: what an answer is made of."""

from dataclasses import replace

from noxel.core.limits import Checked, Limit
from noxel.core.mechanics import Knowledge, Weighing
from noxel.core.quantities import KG, METRES, Figure, LengthUnit, nominal
from noxel.core.rig import RigFile, entry_at, source_words
from noxel.core.wording import answers, sentences
from noxel.core.wording.evidence import settled_by
from noxel.core.wording.expectations import expected_sentence
from noxel.core.wording.labels import (
    check_label,
    in_terms,
    source_label,
    term_name,
)


class Printer:
    """Turns SI figures into the file's units."""

    def __init__(self, rig: RigFile) -> None:
        self._rig = rig
        self.mass = KG[rig.units.mass]
        self.length: LengthUnit = rig.units.lengths
        self._factors = {"mass": self.mass, "length": METRES[self.length]}

    def factor(self, sort: str) -> float:
        """What one unit of a sort of figure is in SI."""
        return self._factors.get(sort, 1.0)

    def value(self, figure: Figure) -> answers.Value:
        """A figure and its ±."""
        factor = self.factor(figure.sort)
        return answers.Value(value=figure.value / factor, plus_minus=figure.plus_minus / factor)

    def working(self, figure: Figure, title: str) -> answers.Working:
        """How a figure was worked out."""
        lines = []
        for term in figure.terms:
            factor, of = self._factors.get(term.sort, 1.0), term.of
            value, pm = (of.value, of.plus_minus) if of else (nominal(term.amount), term.plus_minus)
            lines.append(
                answers.Line(
                    term.op,
                    in_terms(self._rig, term.label) if term.label in _OWN_LABELS else term.label,
                    value / factor,
                    pm / factor,
                    term.sort,
                    of.key if of else None,
                    term.source,
                )
            )
        factor = self._factors.get(figure.sort, 1.0)
        return answers.Working(
            figure.key,
            title,
            in_terms(self._rig, figure.formula),
            lines,
            figure.value / factor,
            figure.plus_minus / factor,
            figure.sort,
            figure.remarks,
        )


_OWN_LABELS = {
    *("curb weight", "dry weight", "tongue weight", "tongue weight, less what the bars move"),
    *("usual tongue share", "dry tongue share", "lifted by the tongue", "tongue scale"),
    "tongue to fulcrum",
}
"""Terms of the core's own, not a person's."""


def _limit_lines(rig: RigFile, limit: Limit, printer: Printer) -> list[answers.Line] | None:
    if not limit.terms:
        return None
    return [
        answers.Line(
            op=term.op,
            label=term_name(rig, term.label),
            value=term.kg / printer.mass,
            plus_minus=0.0,
            sort="mass",
            source=source_words(rig, term.path),
        )
        for term in limit.terms
    ]


def check_answer(
    rig: RigFile, weighing: Weighing, row: Checked, printer: Printer, known: Knowledge | None = None
) -> answers.Check:
    """One check, in the file's unit and in words."""
    limit, actual, least, span = row.limit, row.actual, row.at_least, row.range
    factor = printer.mass if span is None else 1.0
    shown = actual or least
    check = answers.Check(
        id=row.id,
        group=row.spec.subject,
        label=check_label(rig, row.id),
        actual=actual.value / factor if actual else None,
        plus_minus=actual.plus_minus / factor if actual else None,
        margin=None if row.margin is None else row.margin / factor,
        status=row.status,
        at_least=least.value / factor if least else None,
        required=row.required,
        limit_path=row.rating_path,
        cushion=row.cushion if row.cushion < 1 else None,
        working=shown.key if shown else None,
        settled_by=settled_by(rig, weighing, row),
        sentence=sentences.sentence(rig, row),
    )
    if row.expected is not None:
        ahead, expected = row.expected.actual, row.expected
        margin = None if expected.margin is None else expected.margin / factor
        sentence = expected_sentence(rig, known, row, row.spec.load) if known else ""
        check.expected = answers.ExpectedCheck(
            ahead.value / factor,
            ahead.plus_minus / factor,
            margin,
            expected.outlook,
            sentence,
            ahead.key,
        )
    if span:
        check.low, check.high = span
    if limit:
        entry = entry_at(rig, limit.path)
        check.limit, check.limit_source, check.limit_label = (
            limit.kg / factor,
            limit.source,
            source_label(rig, limit.source),
        )
        check.limit_entry = answers.Origin(entry.source, entry.date, entry.note) if entry else None
        check.limit_lines = _limit_lines(rig, limit, printer)
    return check


def check_answers(
    rig: RigFile, rows: list[Checked], printer: Printer, known: Knowledge | None = None
) -> list[answers.Check]:
    """Predicted checks as they are sent: without a working, for there was no weighing."""
    return [
        replace(check_answer(rig, _NOTHING_WEIGHED, row, printer, known), working=None)
        for row in rows
    ]


_NOTHING_WEIGHED = Weighing()
