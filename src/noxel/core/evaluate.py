"""The one entry point of an evaluation: everything there is to say about one weigh-in of one rig."""

from noxel.core import answers, words
from noxel.core.advisories import advise
from noxel.core.base import Entry
from noxel.core.ceiling import ceiling
from noxel.core.checks import Checked, binding, run_checks, tightest_first, verdict
from noxel.core.contradictions import contradictions
from noxel.core.figures import Figure, nominal
from noxel.core.guide import guide
from noxel.core.predict import predict
from noxel.core.proof import findings, settled_by, still_open, tongue_ways
from noxel.core.ratings import RATING_PATHS, on_pin
from noxel.core.rig import rating_in
from noxel.core.rigfile import RigFile, entry_at, source_words
from noxel.core.rooms import rooms
from noxel.core.terms import SETS
from noxel.core.units import KG, METRES, LengthUnit
from noxel.core.weighing import Weighing, weigh
from noxel.errors import NotFound


def pick_weigh_in(rig: RigFile, number: int | None) -> int | None:
    """Which weigh-in to look at, from 1: the one asked for, else the last; None when there is none.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    have = len(rig.weigh_ins)
    if number is None:
        return have or None
    if not 1 <= number <= have:
        raise NotFound(f"There is no weigh-in {number}; the rig has {have or 'none'}.")
    return number


class _Printer:
    """Turns SI figures into the file's units."""

    def __init__(self, rig: RigFile) -> None:
        self.mass = KG[rig.units.mass]
        self.length: LengthUnit = rig.units.length or ("in" if rig.units.mass == "lb" else "mm")

    def factor(self, sort: str) -> float:
        return {"mass": self.mass, "length": METRES[self.length]}.get(sort, 1.0)

    def value(self, figure: Figure) -> answers.Value:
        factor = self.factor(figure.sort)
        return answers.Value(value=figure.value / factor, plus_minus=figure.plus_minus / factor)

    def working(self, figure: Figure, title: str) -> answers.Working:
        lines = [
            answers.Line(op=term.op, label=term.label, value=nominal(term.amount) / self.factor(term.sort),
                         plus_minus=term.plus_minus / self.factor(term.sort), sort=term.sort,
                         ref=term.of.key if term.of else None, source=term.source)
            for term in figure.terms
        ]  # fmt: skip
        made = self.value(figure)
        return answers.Working(key=figure.key, title=title, formula=figure.formula, lines=lines, value=made.value,
                               plus_minus=made.plus_minus, sort=figure.sort, remarks=figure.remarks)  # fmt: skip


def _limit_lines(rig: RigFile, row: Checked, to: _Printer) -> list[answers.Line] | None:
    if row.limit is None or not row.limit.terms:
        return None
    return [
        answers.Line(op=term.op, label=words.term(rig, term.label), value=term.kg / to.mass, plus_minus=0.0, sort="mass",
                     source=source_words(rig, term.path))
        for term in row.limit.terms
    ]  # fmt: skip


def _check(rig: RigFile, weighing: Weighing, row: Checked, to: _Printer) -> answers.Check:
    share = row.range is not None
    factor = 1.0 if share else to.mass
    shown = row.actual or row.at_least
    entry: Entry | None = entry_at(rig, row.limit.path) if row.limit else None
    return answers.Check(
        id=row.id,
        group=words.group_of(row.id),
        label=words.check_label(rig, row.id),
        actual=row.actual.value / factor if row.actual else None,
        plus_minus=row.actual.plus_minus / factor if row.actual else None,
        limit=row.limit.kg / factor if row.limit else None,
        limit_source=row.limit.source if row.limit else None,
        margin=None if row.margin is None else row.margin / factor,
        status=row.status,
        at_least=row.at_least.value / factor if row.at_least else None,
        low=row.range[0] if row.range else None,
        high=row.range[1] if row.range else None,
        required=row.required,
        limit_label=words.source_label(rig, row.limit.source) if row.limit else None,
        limit_path=row.limit.path if row.limit else RATING_PATHS.get(row.id),
        limit_entry=entry,
        limit_lines=_limit_lines(rig, row, to),
        cushion=row.cushion if row.cushion < 1 else None,
        working=shown.key if shown else None,
        settled_by=settled_by(rig, weighing, row),
        sentence=words.sentence(rig, row),
    )


def _geometry(rig: RigFile, weighing: Weighing) -> answers.Geometry:
    assumed: list[str] = []

    def known(value: float | None, name: str, usual: float) -> float:
        if value is None:
            assumed.append(name)
            return usual
        return value

    geometry, trailer = rig.vehicle.geometry, rig.trailer
    pin = on_pin(rig)
    read = len(weighing.hitched.each.trailer_axles) if weighing.hitched else 0
    axles = len(trailer.ratings.gawr) if trailer else 0
    rear = rig.vehicle.tires.rear
    return answers.Geometry(
        kind=rig.kind,
        body=rig.vehicle.body or ("motorhome" if rig.kind == "motorhome" else "pickup"),
        wheelbase=known(geometry.wheelbase.m if geometry.wheelbase else None, "wheelbase", 3.7),
        hitch_offset=known(geometry.hitch_offset.m if geometry.hitch_offset else None, "hitch_offset", -0.05 if pin else 1.3),
        coupler_to_axles=known(trailer.geometry.coupler_to_axles.m if trailer and trailer.geometry.coupler_to_axles else None,
                               "coupler_to_axles", 8.0 if pin else 5.2),
        trailer_axles=axles or read or int(known(None, "trailer_axles", 2)),
        duals=bool(rear and rear.count and rear.count > 2),
        assumed=assumed,
    )  # fmt: skip


def _bars_moved(weighing: Weighing, to: _Printer) -> answers.Value | None:
    tongue, net = weighing.amount("tongue_static"), weighing.amount("tongue_net")
    if weighing.engaged is None or tongue is None or net is None:
        return None
    return to.value(Figure("bars_moved", tongue - net, "tongue weight − net load on the vehicle"))


def _chain(rig: RigFile, to: _Printer) -> list[answers.Link]:
    mode = rig.hitch.mode
    links = []
    for part in rig.hitch.parts:
        trailer, tongue = rating_in(part.trailer, mode), rating_in(part.tongue, mode)
        links.append(answers.Link(kind=part.kind, trailer=trailer.kg / to.mass if trailer else None,
                                  tongue=tongue.kg / to.mass if tongue else None))  # fmt: skip
    return links


def _rooms(rig: RigFile, weighing: Weighing, rows: list[Checked], to: _Printer) -> list[answers.RoomLeft]:
    return [
        answers.RoomLeft(where=room.where, room=room.kg / to.mass, check=room.check.id, sentence=words.room_sentence(rig, room))
        for room in rooms(rig, weighing, rows)
    ]


def _estimate(rig: RigFile, number: int | None, to: _Printer) -> answers.Estimate | None:
    weigh_in = rig.weigh_ins[number - 1] if number else None
    if weigh_in is None or not weigh_in.added_since:
        return None
    weighing = weigh(rig, weigh_in, with_added=True)
    rows = tightest_first(run_checks(rig, weighing))
    found = verdict(rows)
    made = [_check(rig, weighing, row, to).model_copy(update={"working": None}) for row in rows]
    return answers.Estimate(verdict=found, headline=words.headline(rig, rows, found), checks=made)


def evaluate(rig: RigFile, weigh_in: int | None = None) -> answers.Evaluation:
    """Evaluate one weigh-in of a rig: derived weights, checks, verdict, advisories and working.

    Parameters
    ----------
    rig : RigFile
        The rig.
    weigh_in : int or None
        Which weigh-in, from 1; None is the last. A rig that was never weighed has every check unknown.

    Returns
    -------
    Evaluation
        In the file's unit, unrounded; checks tightest first.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    number = pick_weigh_in(rig, weigh_in)
    weighing = weigh(rig, rig.weigh_ins[number - 1] if number else None)
    rows = tightest_first(run_checks(rig, weighing))
    found = verdict(rows)
    to = _Printer(rig)
    derived = {key: to.value(figure) for key, figure in weighing.figures.items()}
    working = {key: to.working(figure, words.figure_title(rig, key)) for key, figure in weighing.figures.items()}
    for row in rows:
        if row.actual and row.actual.key not in working:
            working[row.actual.key] = to.working(row.actual, words.check_label(rig, row.id))
    for candidate in weighing.candidates:
        key = candidate.figure.key
        working[key] = to.working(candidate.figure, f"Tongue weight, {_CANDIDATES[candidate.source]}")
    bind = binding(rows)
    return answers.Evaluation(
        units=answers.MassIn(mass=rig.units.mass),
        length=to.length,
        weigh_in=number,
        towing=rig.towing,
        verdict=found,
        headline=words.headline(rig, rows, found),
        binding=bind.id if bind else None,
        derived=answers.Derived.model_validate({**derived, "tongue_source": weighing.tongue_source}),
        checks=[_check(rig, weighing, row, to) for row in rows],
        advisories=advise(rig, number, weighing, rows),
        working=working,
        passes=guide(rig, number, weighing),
        bars_moved=_bars_moved(weighing, to),
        tongue=tongue_ways(rig, weighing),
        findings=findings(rig, number, weighing),
        open=still_open(rig, weighing, rows),
        rooms=_rooms(rig, weighing, rows, to),
        estimate=_estimate(rig, number, to),
        plates=contradictions(rig),
        chain=_chain(rig, to),
        terms=dict(SETS[rig.terms]),
        geometry=_geometry(rig, weighing),
        caution=words.CAUTION,
    )


_CANDIDATES = {"passes": "from the passes", "direct": "measured directly", "trailer": "from the trailer alone",
               "moment": "by moments"}  # fmt: skip


def evaluate_prediction(rig: RigFile) -> answers.Prediction:
    """The lever model's prediction, in the file's unit.

    Raises
    ------
    MissingInput
        Naming the base, length or position that is not there.
    """
    factor = KG[rig.units.mass]
    found = {key: value if key == "tongue_share" else value / factor for key, value in predict(rig).items()}
    return answers.Prediction(units=answers.MassIn(mass=rig.units.mass), predicted=found)


def evaluate_ceiling(rig: RigFile) -> answers.CeilingAnswer:
    """The heaviest trailer by every limit, in the file's unit.

    Raises
    ------
    MissingInput
        Naming the base, length or position that is not there.
    """
    factor, found = KG[rig.units.mass], ceiling(rig)
    return answers.CeilingAnswer(
        units=answers.MassIn(mass=rig.units.mass),
        tongue_share=found.tongue_share,
        limits={check: value / factor for check, value in found.limits.items()},
        binding=found.binding,
        ceiling=None if found.ceiling is None else found.ceiling / factor,
        estimated=list(found.estimated),
    )
