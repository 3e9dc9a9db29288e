"""What the page shows of the yard, of a lesson and of a challenge: the reader's side of it, in the
reader's units and words.
"""

from collections.abc import Mapping, Sequence

from noxel.core.drawing import geometry_of
from noxel.core.mechanics import weigh
from noxel.core.practice.acts import do_act
from noxel.core.practice.challenge import Word, asked_of, budget_of, judge, still_over, traps_told
from noxel.core.practice.diagnosis import Diagnosis, diagnose
from noxel.core.practice.exercises import Exercise, Line, Paper, Teller
from noxel.core.practice.lessons import LESSONS, Missing, exercise_of, lesson_of, slips_of
from noxel.core.practice.offers import offers
from noxel.core.practice.replies import (
    ChallengeOut,
    ItemOut,
    JudgedOut,
    LessonLine,
    LessonOut,
    LineOut,
    PaperOut,
    Reply,
    TankOut,
    Thing,
    TicketOut,
    TrapOut,
    TrueLine,
    YardOut,
)
from noxel.core.practice.spoken import spoken
from noxel.core.practice.true_loads import true_loads
from noxel.core.practice.yard import Ticket, Yard, for_the_road, seen_rig
from noxel.core.quantities import KG
from noxel.core.wording import figure_title
from noxel.errors import InputError


def _ticket_out(ticket: Ticket, *, earlier: bool, bars: bool) -> TicketOut:
    title = (
        "vehicle alone"
        if ticket.config == "vehicle_only"
        else "hitched" + (f", bars {ticket.bars}" if bars else "")
    )
    words = {"front": "platform 1", "rear": "platform 2", "trailer": "platform 3"}
    return TicketOut(
        number=ticket.number,
        kind=ticket.kind,
        title=title,
        gross=ticket.gross,
        earlier=earlier,
        lines=[(words[name], value) for name, value in ticket.readings.items()],
    )


_TRUE = (
    "front_hitched",
    "rear_hitched",
    "vehicle_hitched",
    "trailer_axles",
    "combination_gross",
    "trailer_gross",
    "tongue_static",
    "vehicle_solo",
)


def _truth(yard: Yard) -> list[TrueLine]:
    rig, unit = seen_rig(yard), KG[yard.rig.units.mass]
    figures = weigh(rig, rig.weigh_ins[-1]).figures if rig.weigh_ins else {}
    loads = true_loads(
        for_the_road(yard),
        "engaged"
        if any(ticket.bars == "engaged" for ticket in yard.tickets) or yard.bars == "engaged"
        else "slack",
    )
    lines = []
    for key in _TRUE:
        if key in loads:
            figure = figures.get(key)
            lines.append(
                TrueLine(
                    label=figure_title(rig, key),
                    true=loads[key] / unit,
                    known=figure.value / unit if figure else None,
                    plus_minus=figure.plus_minus / unit if figure else None,
                )
            )
    return lines


def _things(yard: Yard) -> list[Thing]:
    rig = yard.rig
    items = [
        Thing(name=load.name, on=load.on, metres=load.position.m)
        for load in rig.loads
        if load.aboard and load.position is not None and load.category != "people"
    ]
    tanks = [
        Thing(
            name=tank.name or tank.fluid,
            on=tank.on,
            metres=tank.position.m,
            level=tank.level(rig.plan.phase),
        )
        for tank in rig.tanks
        if tank.position is not None
    ]
    return [*items, *tanks]


def yard_view(
    yard: Yard,
    *,
    refused: str | None = None,
    allowed: Sequence[str] | None = None,
    truth: bool = False,
) -> YardOut:
    """The yard as the reader sees it; ``allowed`` are the groups of acts that are offered, all of
    them where it is None.
    """
    rig = yard.rig
    unit, m = KG[rig.units.mass], Teller(rig)
    movable = allowed is None or "load" in allowed
    view = YardOut(
        run=str(yard.run),
        said=yard.said,
        refused=refused,
        minutes=yard.minutes,
        spent=yard.spent,
        unit=rig.units.mass,
        geometry=geometry_of(rig),
        towing=yard.coupled and rig.towing,
        trailer=rig.towing,
        asked=yard.asked,
        taken=yard.taken,
        gone=yard.gone,
        outside=sum(not load.aboard for load in rig.loads if load.category == "people"),
        on_scale=yard.on_scale,
        coupled=yard.coupled,
        chocked=yard.chocked,
        bars=yard.bars,
        acts=offers(yard, allowed) if allowed != () else [],
        tickets=[
            _ticket_out(
                ticket,
                earlier=ticket.visit < yard.tickets[-1].visit,
                bars=rig.hitch.weight_distribution,
            )
            for ticket in yard.tickets
        ],
        readings=[tongue.says for tongue in yard.tongues],
        items=[
            ItemOut(
                index=index,
                name=load.name,
                mass=load.mass.kg * load.quantity / unit,
                on=load.on,
                metres=load.position.m if load.position else None,
                place=f"{m.length(load.position.m)} behind the "
                f"{'coupler' if load.on == 'trailer' else 'front axle'}"
                if load.position
                else "",
                aboard=load.aboard,
                person=load.category == "people",
            )
            for index, load in enumerate(rig.loads)
        ]
        if movable
        else [],
        tanks=[
            TankOut(
                index=index,
                name=tank.name or tank.fluid,
                level=round(tank.level(rig.plan.phase) * 100),
            )
            for index, tank in enumerate(rig.tanks)
        ]
        if movable
        else [],
        things=_things(yard),
        truth=_truth(yard) if truth else None,
    )
    return spoken(view, rig)


def act_in(
    yard: Yard, act: str | None, *, allowed: Sequence[str] | None = None, truth: bool = False
) -> tuple[Yard, YardOut]:
    """Do an act where one is given; one that is refused leaves the yard as it was and says why."""
    refused = None
    if act is not None:
        try:
            yard = do_act(yard, act)
        except InputError as exc:
            refused = exc.message
    return yard, yard_view(yard, refused=refused, allowed=allowed, truth=truth)


def _lines(lines: Sequence[Line]) -> list[LineOut]:
    return [LineOut(label=line.label, value=line.value, op=line.op) for line in lines]


def _papers(papers: Sequence[Paper]) -> list[PaperOut]:
    return [PaperOut(title=paper.title, lines=_lines(paper.lines)) for paper in papers]


def reply_to(exercise: Exercise, yard: Yard, answer: str) -> Diagnosis:
    """The reply to an answer; where the rig is to be brought within its limits, which are still
    exceeded.
    """
    if exercise.form != "done":
        return diagnose(exercise, answer, Teller(yard.rig))
    over = still_over(yard)
    if not over:
        return Diagnosis("right", exercise.because)
    m = Teller(yard.rig)
    names = ", ".join(
        f"{label}: {m(kg)} too much" if kg else f"{label}: out of its range" for label, kg in over
    )
    return Diagnosis("not_yet", f"{names}.")


def lesson_view(
    name: str,
    yard: Yard,
    *,
    answer: str | None = None,
    hints: int = 0,
    show: bool = False,
    refused: str | None = None,
) -> LessonOut:
    """A lesson about the yard as it stands, and what is said to the answer, where one is given.

    Raises NotFound if there is no such lesson; InputError if the answer to a choice is none of the
    statements.
    """
    lesson, verdict = lesson_of(name), None
    exercise = exercise_of(lesson, yard)
    names = list(LESSONS)
    number = names.index(name)
    base = {
        "id": name,
        "number": number + 1,
        "of": len(names),
        "name": lesson.name,
        "task": lesson.task,
        "school": lesson.school,
        "next": names[number + 1] if number + 1 < len(names) else None,
    }
    if isinstance(exercise, Missing):
        view = yard_view(yard, refused=refused, allowed=lesson.allowed)
        asked = LessonOut(
            **base,
            question=exercise.question,
            needs=exercise.needs,
            form="mass",
            options=[],
            papers=[],
            hints=[],
            more_hints=False,
            reply=None,
            working=[],
            because="",
            yard=view,
        )
        return spoken(asked, yard.rig)
    if answer is not None:
        verdict = reply_to(exercise, yard, answer)
    over = show or (verdict is not None and verdict.right)
    shown = exercise.hints if over else exercise.hints[: max(0, hints)]
    asked = LessonOut(
        **base,
        question=exercise.question,
        needs=None,
        form=exercise.form,
        options=[(option.code, option.label) for option in exercise.options],
        papers=_papers(exercise.papers),
        hints=list(shown),
        more_hints=len(shown) < len(exercise.hints),
        reply=Reply(
            right=verdict.right,
            found=verdict.found,
            says=verdict.says,
            way=verdict.way,
            name=verdict.name,
        )
        if verdict
        else None,
        working=_lines(exercise.working) if over else [],
        because=exercise.because if over else "",
        yard=yard_view(yard, refused=refused, allowed=lesson.allowed, truth=over),
    )
    return spoken(asked, yard.rig)


def challenge_view(
    yard: Yard,
    words: Mapping[str, Word] | None = None,
    *,
    refused: str | None = None,
    cured: bool = False,
) -> ChallengeOut:
    """A challenge as it stands; ``words`` are judged where they are given, ``cured`` asks what is
    still wrong with the rig.
    """
    unit = KG[yard.rig.units.mass]
    judged = None
    if words is not None:
        judged = [
            JudgedOut(
                check=judgement.check,
                label=judgement.label,
                word=judgement.word,
                right=judgement.right,
                knowable=judgement.knowable,
                says=judgement.says,
                true=judgement.true / unit,
                limit=judgement.limit / unit,
            )
            for judgement in judge(yard, words)
        ]
    minutes, money = budget_of(yard)
    m = Teller(yard.rig)
    over = (
        [
            f"{label}: {m(kg)} over" if kg else f"{label}: out of its range"
            for label, kg in still_over(yard)
        ]
        if cured
        else None
    )
    shown = judged is not None
    traps = traps_told(yard) if shown else []
    right = sum(judgement.right for judgement in judged or ()) + sum(not here for _, here in traps)
    challenge_out = ChallengeOut(
        difficulty=yard.run.difficulty,
        minutes=minutes,
        money=money,
        asked=asked_of(yard),
        judged=judged,
        traps=[TrapOut(says=says, standing=standing) for says, standing in traps],
        right=right,
        of=len(judged or ()) + len(traps),
        still_over=over,
        yard=yard_view(yard, refused=refused, truth=shown),
    )
    return spoken(challenge_out, yard.rig)


def lesson_lines() -> list[LessonLine]:
    """All lessons in the order of the work, with the slips that each can answer."""
    return [
        LessonLine(
            id=lesson.id,
            number=number,
            name=lesson.name,
            task=lesson.task,
            minutes=lesson.minutes,
            slips=list(slips_of(lesson.id)),
        )
        for number, lesson in enumerate(LESSONS.values(), 1)
    ]
