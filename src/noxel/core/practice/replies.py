"""What the page is answered with: the yard, a lesson, a challenge, in the reader's units and
words.
"""

from noxel.core.drawing import Geometry
from noxel.core.limits import CheckId
from noxel.core.practice.challenge import Word
from noxel.core.practice.exercises import Form
from noxel.core.quantities import MassUnit
from noxel.core.wording import Answer


class Offer(Answer):
    """An act that makes sense now; it may still be refused, with the reason."""

    act: str
    label: str
    group: str
    minutes: int


class TicketOut(Answer):
    """A ticket as it was handed over. [the rig's unit]"""

    number: str
    kind: str
    title: str
    lines: list[tuple[str, int]]
    gross: int
    earlier: bool


class ItemOut(Answer):
    """Something that can be moved: where it lies, in metres behind the coupler or the front
    axle.
    """

    index: int
    name: str
    mass: float
    on: str
    metres: float | None
    place: str
    aboard: bool
    person: bool


class TankOut(Answer):
    """A tank and how full it is, in per cent."""

    index: int
    name: str
    level: int


class Thing(Answer):
    """Something to be drawn where it lies: an item, or a tank with its level as a share."""

    name: str
    on: str
    metres: float
    level: float | None = None


class TrueLine(Answer):
    """A true load beside what the tickets give for it. [the rig's unit]"""

    label: str
    true: float
    known: float | None
    plus_minus: float | None


class YardOut(Answer):
    """The yard as it stands; ``truth`` is there only once it has been earned."""

    run: str
    said: str
    refused: str | None
    minutes: int
    spent: int
    unit: MassUnit
    geometry: Geometry
    trailer: bool
    towing: bool
    on_scale: bool
    asked: bool
    taken: bool
    gone: bool
    outside: int
    coupled: bool
    chocked: bool
    bars: str
    acts: list[Offer]
    tickets: list[TicketOut]
    readings: list[str]
    items: list[ItemOut]
    tanks: list[TankOut]
    things: list[Thing]
    truth: list[TrueLine] | None


class LineOut(Answer):
    """A line of a paper or a working."""

    label: str
    value: str
    op: str


class PaperOut(Answer):
    """A label, a list, a table."""

    title: str
    lines: list[LineOut]


class Reply(Answer):
    """What is said to an answer; ``name`` is the slip's."""

    right: bool
    found: str
    says: str
    way: str
    name: str


class LessonOut(Answer):
    """A lesson as it stands: its question, or what has to be done first; what was said to the
    answer; the working once it is earned.
    """

    id: str
    number: int
    of: int
    name: str
    task: str
    school: str
    question: str
    needs: str | None
    form: Form
    options: list[tuple[str, str]]
    papers: list[PaperOut]
    hints: list[str]
    more_hints: bool
    reply: Reply | None
    working: list[LineOut]
    because: str
    next: str | None
    yard: YardOut


class LessonLine(Answer):
    """A lesson in the list."""

    id: str
    number: int
    name: str
    task: str
    minutes: int
    slips: list[str]


class JudgedOut(Answer):
    """One word judged. [the rig's unit]"""

    check: CheckId
    label: str
    word: Word
    right: bool
    knowable: Word
    says: str
    true: float
    limit: float


class TrapOut(Answer):
    """A trap of a challenge, and whether the tickets counted last still hold it."""

    says: str
    standing: bool


class ChallengeOut(Answer):
    """A challenge as it stands: the budget, what a word is asked for, and the judgement once it was
    given.
    """

    difficulty: int
    minutes: int
    money: int
    asked: list[tuple[str, str]]
    judged: list[JudgedOut] | None
    traps: list[TrapOut]
    right: int
    of: int
    still_over: list[str] | None
    yard: YardOut
