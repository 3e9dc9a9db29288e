"""What an evaluation answers with. Masses are in the rig file's unit, unrounded; shares are
fractions.

The small parts, of which an answer has hundreds, are plain dataclasses: nothing in them needs
validating. They are not frozen, which would make building one several times as slow; only what
builds one changes it.
"""

import datetime
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, PlainSerializer

from noxel.core.drawing import Geometry
from noxel.core.limits import CheckId, DoubtCode, Outlook, Status, Verdict
from noxel.core.mechanics import TongueSource
from noxel.core.quantities import LengthUnit, MassUnit, Op, Sort
from noxel.core.rig import Source


class Answer(BaseModel):
    """A frozen answer."""

    model_config = ConfigDict(frozen=True, defer_build=True)


class MissingFigure(Answer):
    """A figure that an answer needs and nobody has entered."""

    path: str
    message: str


@dataclass(slots=True, kw_only=True)
class MassIn:
    """The unit of the answer's masses."""

    mass: MassUnit


@dataclass(slots=True)
class Value:
    """A figure and its ± (two standard uncertainties)."""

    value: float
    plus_minus: float


@dataclass(slots=True)
class ExpectedValue:
    """A load that was not weighed, with its ±, and the way it is known; ``says`` is that way in
    words.

    ``beside`` are the other ways that are open, as sentences, best first.
    """

    value: float
    plus_minus: float
    way: str
    says: str
    beside: list[str]


@dataclass(slots=True)
class ExpectedCheck:
    """What a check that cannot be made is expected to find; a tongue share has no margin."""

    actual: float
    plus_minus: float
    margin: float | None
    outlook: Outlook
    sentence: str
    working: str


_IF_KNOWN = Field(exclude_if=lambda value: value is None)


_Known = Annotated[Value | None, _IF_KNOWN]


class Derived(Answer):
    """Everything the weigh-in lets us know; what cannot be known is left out."""

    front_hitched: _Known = None
    rear_hitched: _Known = None
    vehicle_hitched: _Known = None
    front_solo: _Known = None
    rear_solo: _Known = None
    vehicle_solo: _Known = None
    trailer_axles: _Known = None
    combination_gross: _Known = None
    tongue_net: _Known = None
    front_transfer: _Known = None
    rear_transfer: _Known = None
    tongue_static: _Known = None
    tongue_source: Annotated[TongueSource | None, _IF_KNOWN] = None
    trailer_gross: _Known = None
    tongue_share: _Known = None
    front_restored: _Known = None
    trailer_transfer: _Known = None
    front_restoration: _Known = None
    curb_measured: _Known = None


@dataclass(slots=True)
class Line:
    """One line of a working: an amount, how it enters, and where it came from."""

    op: Op
    label: str
    value: float
    plus_minus: float
    sort: Sort
    ref: str | None = None
    source: str | None = None


@dataclass(slots=True)
class Origin:
    """Where an entered figure came from, when, and the note to it."""

    source: Source | None
    date: datetime.date | None
    note: str | None


@dataclass(slots=True, kw_only=True)
class Check:
    """One check. A share check has ``low`` and ``high`` instead of a limit and a margin.

    ``working`` is the key of the actual load's working; ``limit_lines`` are the entered figures a
    limit is made of.
    """

    id: str
    group: Literal["vehicle", "trailer", "hitch", "combination", "tires"]
    label: str
    actual: float | None
    plus_minus: float | None
    limit: float | None = None
    limit_source: str | None = None
    margin: float | None = None
    status: Status
    at_least: float | None = None
    low: float | None = None
    high: float | None = None
    required: bool
    limit_label: str | None = None
    limit_path: str | None = None
    limit_entry: Origin | None = None
    limit_lines: list[Line] | None = None
    cushion: float | None = None
    working: str | None = None
    settled_by: str | None = None
    expected: ExpectedCheck | None = None
    sentence: str


_SPARE = (
    "at_least",
    "expected",
    "cushion",
    "limit_label",
    "limit_path",
    "limit_entry",
    "limit_lines",
    "working",
    "settled_by",
)


def _shape(check: Check) -> dict[str, Any]:
    document: dict[str, Any] = {"id": check.id, "group": check.group, "label": check.label,
                            "actual": check.actual, "plus_minus": check.plus_minus}  # fmt: skip
    if check.low is None:
        document |= {
            "limit": check.limit,
            "limit_source": check.limit_source,
            "margin": check.margin,
        }
    else:
        document |= {"low": check.low, "high": check.high}
    document |= {"status": check.status, "required": check.required, "sentence": check.sentence}
    for key in _SPARE:
        value = getattr(check, key)
        if value is not None:
            document[key] = value
    return document


Shaped = Annotated[Check, PlainSerializer(_shape)]
"""A check as it is sent: without the keys that do not apply to it. (A union of two kinds would be
written out twice as slowly.)
"""


@dataclass(slots=True)
class Working:
    """How a figure was worked out: the formula in words and the numbers put into it."""

    key: str
    title: str
    formula: str
    lines: list[Line]
    value: float
    plus_minus: float
    sort: Sort
    remarks: tuple[str, ...] = ()


@dataclass(slots=True)
class FixChange:
    """A value to set at a path, or an element to put into a list there."""

    path: str
    value: str | int | float | dict[str, object]
    op: Literal["set", "insert"] = "set"


@dataclass(slots=True)
class Fix:
    """A change that would right what an advisory is about, and what to call it."""

    label: str
    changes: list[FixChange]


@dataclass(slots=True, kw_only=True)
class Advisory:
    """Something to know beside the checks: a trap in the readings, a caution, what would settle the
    rest.

    ``doubt`` is whether it names two figures that cannot both be right; ``fix`` a change that would
    right it.
    """

    code: str
    level: Literal["warning", "note"]
    message: str
    path: str | None = None
    numbers: dict[str, float] = field(default_factory=dict)
    accepted: bool = False
    accepted_note: str | None = None
    doubt: bool = False
    fix: Fix | None = None


@dataclass(slots=True, kw_only=True)
class PassAnswer:
    """One pass of the weigh-in: what to do, what it settles, what its platforms add up to, in the
    pass's own unit.

    ``counts`` is false for a pass that a later one of the same kind replaced.
    """

    number: int
    name: str
    title: str
    instruction: str
    settles: str
    unit: MassUnit
    total: float | None
    counts: bool


@dataclass(slots=True, kw_only=True)
class TongueWay:
    """One way to the tongue weight. ``budget`` is what each input of a direct measurement adds to
    its ±.
    """

    key: str
    source: TongueSource
    title: str
    value: float
    plus_minus: float
    used: bool
    agrees: bool
    budget: dict[str, float]


@dataclass(slots=True, kw_only=True)
class Finding:
    """Something the passes prove beside the checks."""

    code: str
    message: str


@dataclass(slots=True, kw_only=True)
class Open:
    """Something that cannot be known yet: its range, whether the low end is proven, and what would
    settle it.

    ``standing`` are the checks whose verdicts hold regardless.
    """

    what: str
    low: float | None
    high: float | None
    proven: bool
    settled_by: str
    standing: list[str] = field(default_factory=list)


@dataclass(slots=True, kw_only=True)
class RoomLeft:
    """How much more can go into one place before the first limit is met, and which one that is."""

    where: Literal["vehicle", "trailer"]
    room: float
    check: CheckId
    sentence: str


@dataclass(slots=True, kw_only=True)
class Link:
    """One link of the hitch chain with its ratings in the mode used."""

    kind: str
    trailer: float | None
    tongue: float | None


class Estimate(Answer):
    """The checks with what was added since the weighing: worked out, not weighed."""

    verdict: Verdict
    headline: "Headline"
    checks: list[Shaped]


@dataclass(slots=True, kw_only=True)
class Headline:
    """The verdict in words: a lead, the sentence that names the binding limit, what else there is
    to say.
    """

    lead: str
    sentence: str
    rest: list[str]
    unknown: list["Unknown"] = field(default_factory=list)


@dataclass(slots=True, kw_only=True)
class Unknown:
    """Something that keeps the verdict open, and the field or the place that settles it."""

    label: str
    path: str | None


class Evaluation(Answer):
    """The whole answer about one weigh-in of one rig.

    ``plates`` are contradictions between labels, ``terms`` the words of the rig's term set.
    ``bars_moved`` is how much of the tongue the spring bars carry over to the trailer's axles, when
    both are known.
    """

    units: MassIn
    length: LengthUnit
    weigh_in: int | None
    of: str | None = None
    towing: bool
    verdict: Verdict
    headline: Headline
    binding: str | None
    derived: Derived
    checks: list[Shaped]
    advisories: list[Advisory]
    working: dict[str, Working]
    passes: list[PassAnswer]
    bars_moved: Value | None
    tongue: list[TongueWay]
    findings: list[Finding]
    open: list[Open]
    rooms: list[RoomLeft]
    estimate: Estimate | None
    plates: list[Advisory]
    chain: list[Link]
    terms: dict[str, str]
    geometry: Geometry
    caution: str
    doubts: list[DoubtCode]
    expected: Annotated[dict[str, ExpectedValue] | None, _IF_KNOWN] = None
    outlook: Annotated[Outlook | None, _IF_KNOWN] = None


class Prediction(Answer):
    """What the lever model predicts."""

    units: MassIn
    predicted: dict[str, float]
    missing: list[str]


class CeilingAnswer(Answer):
    """The heaviest trailer by each limit."""

    units: MassIn
    tongue_share: float
    share_way: Literal["towed_car", "plan", "weighed", "dry", "policy"]
    limits: dict[str, float]
    binding: str | None
    ceiling: float | None
    estimated: list[str]
    missing: list[str]
    unknown: list[str]
