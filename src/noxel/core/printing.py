"""From the core's SI figures to the file's units and words: what an answer is made of."""

from noxel.core import answers, words
from noxel.core.checks import Checked
from noxel.core.figures import Figure, nominal
from noxel.core.proof import settled_by
from noxel.core.ratings import RATING_PATHS, Limit
from noxel.core.rigfile import RigFile, entry_at, source_words
from noxel.core.units import KG, METRES, LengthUnit
from noxel.core.weighing import Weighing


class Printer:
    """Turns SI figures into the file's units."""

    def __init__(self, rig: RigFile) -> None:
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
                answers.Line(term.op, term.label, value / factor, pm / factor, term.sort, of.key if of else None, term.source)
            )
        factor = self._factors.get(figure.sort, 1.0)
        return answers.Working(figure.key, title, figure.formula, lines, figure.value / factor, figure.plus_minus / factor,
                               figure.sort, figure.remarks)  # fmt: skip


def _limit_lines(rig: RigFile, limit: Limit, to: Printer) -> list[answers.Line] | None:
    if not limit.terms:
        return None
    return [
        answers.Line(op=term.op, label=words.term(rig, term.label), value=term.kg / to.mass, plus_minus=0.0, sort="mass",
                     source=source_words(rig, term.path))
        for term in limit.terms
    ]  # fmt: skip


def check_answer(rig: RigFile, weighing: Weighing, row: Checked, to: Printer) -> answers.Check:
    """One check, in the file's unit and in words."""
    limit, actual, least, span = row.limit, row.actual, row.at_least, row.range
    factor = to.mass if span is None else 1.0
    shown = actual or least
    made = answers.Check(
        id=row.id,
        group=words.group_of(row.id),
        label=words.check_label(rig, row.id),
        actual=actual.value / factor if actual else None,
        plus_minus=actual.plus_minus / factor if actual else None,
        margin=None if row.margin is None else row.margin / factor,
        status=row.status,
        at_least=least.value / factor if least else None,
        required=row.required,
        limit_path=limit.path if limit else RATING_PATHS.get(row.id),
        cushion=row.cushion if row.cushion < 1 else None,
        working=shown.key if shown else None,
        settled_by=settled_by(rig, weighing, row),
        sentence=words.sentence(rig, row),
    )
    if span:
        made.low, made.high = span
    if limit:
        entry = entry_at(rig, limit.path)
        made.limit, made.limit_source, made.limit_label = limit.kg / factor, limit.source, words.source_label(rig, limit.source)
        made.limit_entry = answers.Origin(entry.source, entry.date, entry.note) if entry else None
        made.limit_lines = _limit_lines(rig, limit, to)
    return made
