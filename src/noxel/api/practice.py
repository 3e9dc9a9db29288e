"""``/api/practice``: lessons, the yard, challenges, who practises here, exercises on paper. Nothing
here changes a rig.
"""

import datetime
import random
from typing import Annotated, Any, Literal

from fastapi import Depends, Path, Query, Request, Response
from pydantic import BaseModel, Field

from noxel.api.deps import Id, Looking, TheRigs, as_file, device_of, new_router, open_at
from noxel.core.adjust import rig_as_weighed
from noxel.core.editing import settle
from noxel.core.practice import (
    INTERVALS,
    LESSONS,
    UNITS,
    WAYS,
    ChallengeOut,
    LessonLine,
    LessonOut,
    Run,
    Word,
    Yard,
    YardOut,
    act_in,
    challenge_view,
    lesson_lines,
    lesson_of,
    lesson_view,
    open_lesson,
    play,
    read_run,
    slips_of,
)
from noxel.core.quantities import MassUnit
from noxel.core.rig import TermSet
from noxel.errors import InputError, Problem
from noxel.store.practice import Practice
from noxel.store.rigs import Rigs

router = new_router()
RunText = Annotated[str, Field(max_length=6000)]
ActText = Annotated[str, Field(max_length=40)]
Seed = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,40}$")]
LearnerId = Annotated[str, Field(max_length=64)]
Who = Annotated[str, Path(max_length=64)]


class LearnerOut(BaseModel):
    """Somebody who practises here."""

    id: str
    name: str


class NewLearner(BaseModel):
    """A name."""

    name: Annotated[str, Field(max_length=60)]


class Progress(BaseModel):
    """How a lesson or a slip stands: ``box`` of how many; how often right and wrong; when it comes
    back.
    """

    about: str
    name: str
    box: int
    boxes: int
    right: int
    wrong: int
    due: datetime.date
    learned: bool


class Due(BaseModel):
    """A slip that comes back today: the lesson that asks for it, with a new rig."""

    slip: str
    name: str
    lesson: str
    seed: str


class PracticeHome(BaseModel):
    """The lessons, who practises here, how far the one asked for is, and today's seed for
    everybody.
    """

    lessons: list[LessonLine]
    learners: list[LearnerOut]
    progress: list[Progress]
    due: list[Due]
    today: str


class LessonIn(BaseModel):
    """Where a lesson stands and what is done in it: a seed to begin with, or the run so far; an
    act, an answer, or both not.
    """

    seed: Seed = "1"
    unit: MassUnit = "lb"
    terms: TermSet = "north_america"
    run: RunText | None = None
    act: ActText | None = None
    answer: Annotated[str, Field(max_length=2000)] | None = None
    hints: Annotated[int, Field(ge=0, le=20)] = 0
    show: bool = False
    learner: LearnerId | None = None


class YardIn(BaseModel):
    """A run, an act to be done in it, and whether the true loads are to be shown."""

    run: RunText
    act: ActText | None = None
    truth: bool = False


class ChallengeIn(BaseModel):
    """A challenge as far as it was played; the player's words, and whether the cure is to be looked
    at.
    """

    run: RunText
    act: ActText | None = None
    words: dict[Annotated[str, Field(max_length=40)], Word] | None = None
    cured: bool = False


class RunOut(BaseModel):
    """A run as a text."""

    run: str


def practice_of(request: Request) -> Practice:
    """The progress kept by the running application."""
    practice: Practice = request.app.state.practice
    return practice


ThePractice = Annotated[Practice, Depends(practice_of)]


def _yard(text: str, rigs: Rigs) -> Yard:
    """The yard of a run; one of the reader's own rigs is copied from the store."""
    run = read_run(text)
    if run.own is None:
        return play(run)
    rig_id, number = run.own
    stored = open_at(rigs, rig_id, number or None)
    own = settle(stored.document).rig
    weighed = rig_as_weighed(own, (stored.window.at or 0) if number else 0, strict=False)
    return play(run, weighed if own.weigh_ins else own)


def _name(about: str) -> str:
    kind, _, code = about.partition(":")
    if kind == "lesson":
        return LESSONS[code].name if code in LESSONS else code
    return WAYS[code].name if code in WAYS else UNITS[code][0] if code in UNITS else code


@router.get("/practice")
def home(
    practice: ThePractice, learner: Annotated[str | None, Query(max_length=64)] = None
) -> PracticeHome:
    """Everything that the first page of the practice yard shows."""
    today = datetime.date.today()
    known = practice.known(learner) if learner else []
    progress = [
        Progress(
            about=learnt.about,
            name=_name(learnt.about),
            box=min(learnt.card.box, len(INTERVALS)),
            boxes=len(INTERVALS),
            right=learnt.right,
            wrong=learnt.wrong,
            due=learnt.card.due,
            learned=learnt.card.learned,
        )
        for learnt in known
    ]
    due = []
    for learnt in known:
        kind, _, slip = learnt.about.partition(":")
        if kind != "slip" or learnt.card.due > today or learnt.card.learned:
            continue
        asking = [name for name in LESSONS if slip in slips_of(name)]
        if asking:
            seed = f"{today.isoformat()}-{learnt.right + learnt.wrong}"
            due.append(
                Due(
                    slip=slip,
                    name=_name(learnt.about),
                    lesson=random.Random(f"{slip}/{seed}").choice(asking),
                    seed=seed,
                )
            )
    learners = [LearnerOut(id=learner.id, name=learner.name) for learner in practice.learners()]
    return PracticeHome(
        lessons=lesson_lines(),
        learners=learners,
        progress=progress,
        due=due,
        today=today.isoformat(),
    )


@router.post("/practice/lessons/{name}")
def lesson(
    name: Annotated[str, Path(max_length=40)],
    asked: LessonIn,
    rigs: TheRigs,
    practice: ThePractice,
    request: Request,
) -> LessonOut:
    """A lesson: begun from a seed, or as far as its run goes; an act done in it, or an answer
    replied to.

    A device that was invited to look practises like any other; nothing is kept of it.
    """
    known, refused = lesson_of(name), None
    if asked.run is None:
        yard = open_lesson(name, asked.seed, asked.unit, asked.terms)
    else:
        yard = _yard(asked.run, rigs)
        if yard.run.kind != known.kind or yard.run.own or yard.run.difficulty:
            raise InputError(
                "This run belongs to another lesson.",
                [Problem("run", "belongs to another lesson", "run")],
            )
    if asked.act is not None:
        yard, effects = act_in(yard, asked.act)
        refused = effects.refused
    lesson = lesson_view(
        name, yard, answer=asked.answer, hints=asked.hints, show=asked.show, refused=refused
    )
    device = device_of(request.scope)
    looking = device is not None and device.viewing
    if (
        asked.learner
        and not looking
        and lesson.reply is not None
        and lesson.reply.found != "unread"
    ):
        _note(practice, asked.learner, name, lesson, helped=asked.show)
    return lesson


def _note(practice: Practice, learner: str, name: str, lesson: LessonOut, *, helped: bool) -> None:
    """Keep what came of an answer: the lesson, and the slips that it asks for."""
    if lesson.reply is None or helped:
        return
    met = {learnt.about for learnt in practice.known(learner)}
    if lesson.reply.right:
        right = [
            f"lesson:{name}",
            *(f"slip:{slip}" for slip in slips_of(name) if f"slip:{slip}" in met),
        ]
        practice.note(learner, right, [], datetime.date.today())
    else:
        slip = [f"slip:{lesson.reply.way}"] if lesson.reply.way in slips_of(name) else []
        practice.note(learner, [], [f"lesson:{name}", *slip], datetime.date.today())


@router.post("/practice/yard")
def yard(asked: YardIn, rigs: TheRigs) -> YardOut:
    """The yard after a run, and after one more act."""
    return act_in(_yard(asked.run, rigs), asked.act, truth=asked.truth)[1]


@router.post("/practice/challenges")
def challenge(asked: ChallengeIn, rigs: TheRigs) -> ChallengeOut:
    """A challenge as far as it was played, its words judged where they are given."""
    now, refused = _yard(asked.run, rigs), None
    if not now.run.difficulty:
        raise InputError("This run is no challenge.", [Problem("run", "is no challenge", "run")])
    if asked.act is not None:
        now, effects = act_in(now, asked.act)
        refused = effects.refused
    return challenge_view(now, asked.words, refused=refused, cured=asked.cured)


@router.get("/practice/sheet.pdf", response_class=Response)
def sheet(
    seed: Annotated[str, Query(pattern=r"^[A-Za-z0-9-]{1,40}$")] = "1",
    lessons: Annotated[str, Query(max_length=1000)] = "",
    unit: MassUnit = "lb",
    terms: TermSet = "north_america",
) -> Response:
    """Exercises on paper, with an answer sheet and tickets to cut out; ``lessons`` are ids with
    commas between, all where it is empty.
    """
    from noxel.formats.practice_sheet import practice_sheet  # only who prints waits for it

    names = [name.strip() for name in lessons.split(",") if name.strip()]
    return as_file(
        practice_sheet(names, seed, unit, terms), f"exercises-{seed}.pdf", "application/pdf"
    )


@router.post("/practice/learners")
def add_learner(new: NewLearner, practice: ThePractice) -> LearnerOut:
    """Add somebody who practises here."""
    learner = practice.add(new.name)
    return LearnerOut(id=learner.id, name=learner.name)


@router.delete("/practice/learners/{learner}", status_code=204)
def remove_learner(learner: Who, practice: ThePractice) -> None:
    """Take somebody off, with all progress."""
    practice.remove(learner)


@router.post("/practice/learners/{learner}/reset", status_code=204)
def reset_learner(learner: Who, practice: ThePractice) -> None:
    """Forget the progress of a learner."""
    practice.reset(learner)


def _record(practice: Practice, learner: str) -> dict[str, Any]:
    rows = practice.known(learner)
    return {
        "name": practice.name(learner),
        "date": datetime.date.today().isoformat(),
        "lessons": [
            {
                "lesson": _name(row.about),
                "right": row.right,
                "wrong": row.wrong,
                "last": row.last.isoformat(),
            }
            for row in rows
            if row.about.startswith("lesson:")
        ],
        "slips": [
            {
                "slip": _name(row.about),
                "box": row.card.box,
                "made": row.wrong,
                "avoided": row.right,
                "last": row.last.isoformat(),
            }
            for row in rows
            if row.about.startswith("slip:")
        ],
    }


@router.get("/practice/learners/{learner}/record", response_class=Response)
def record(learner: Who, practice: ThePractice, form: Literal["text", "json"] = "text") -> Response:
    """What a learner has practised: a plain record to print, or a file."""
    import json

    record = _record(practice, learner)
    if form == "json":
        return as_file(
            json.dumps(record, ensure_ascii=False, indent=1), "practice.json", "application/json"
        )
    lines = [f"Practice record of {record['name']}, {record['date']}", "", "Lessons"]
    lines += [
        f"  {lesson['lesson']}: right {lesson['right']}, wrong {lesson['wrong']}, "
        f"last on {lesson['last']}"
        for lesson in record["lessons"]
    ]
    lines += ["", "Slips"]
    lines += [
        f"  {slip['slip']}: made {slip['made']} times, avoided {slip['avoided']} times since, box "
        f"{slip['box']}"
        for slip in record["slips"]
    ]
    return as_file("\n".join(lines) + "\n", "practice.txt", "text/plain; charset=utf-8", shown=True)


@router.post("/rigs/{rig_id}/yard")
def own_yard(rig_id: Id, rigs: TheRigs, weigh_in: Looking = None) -> RunOut:
    """A run that copies this rig into the yard, with its own weights as the truth; nothing comes
    back from there.
    """
    stored = open_at(rigs, rig_id, weigh_in)
    number = stored.window.numbers[stored.window.at - 1] if stored.window.at else 0
    run = Run(seed="1", own=(rig_id, number))
    _yard(str(run), rigs)
    return RunOut(run=str(run))
