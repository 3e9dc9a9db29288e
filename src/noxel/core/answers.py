"""What an evaluation answers with. Masses are in the rig file's unit, unrounded; shares are fractions.

The small parts, of which an answer has hundreds, are plain dataclasses: nothing in them needs validating. They are not
frozen, which would make building one several times as slow; nobody changes them.
"""

from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, SerializerFunctionWrapHandler, WrapSerializer, model_serializer

from noxel.core.base import Entry
from noxel.core.checks import Status, Verdict
from noxel.core.figures import Op, Sort
from noxel.core.rig import Kind
from noxel.core.units import LengthUnit, MassUnit
from noxel.core.weighing import TongueSource


class Answer(BaseModel):
    """A frozen answer."""

    model_config = ConfigDict(frozen=True)


class MassIn(Answer):
    """The unit of the answer's masses."""

    mass: MassUnit


@dataclass(slots=True)
class Value:
    """A figure and its ± (two standard uncertainties)."""

    value: float
    plus_minus: float


class Derived(Answer):
    """Everything the weigh-in lets us know; what cannot be known is left out."""

    front_hitched: Value | None = None
    rear_hitched: Value | None = None
    vehicle_hitched: Value | None = None
    front_solo: Value | None = None
    rear_solo: Value | None = None
    vehicle_solo: Value | None = None
    trailer_axles: Value | None = None
    combination_gross: Value | None = None
    tongue_net: Value | None = None
    front_transfer: Value | None = None
    rear_transfer: Value | None = None
    tongue_static: Value | None = None
    tongue_source: TongueSource | None = None
    trailer_gross: Value | None = None
    tongue_share: Value | None = None
    front_restored: Value | None = None
    trailer_transfer: Value | None = None
    front_restoration: Value | None = None
    curb_measured: Value | None = None

    @model_serializer(mode="wrap")
    def _only_the_known(self, handler: SerializerFunctionWrapHandler) -> dict[str, Any]:
        return {key: value for key, value in handler(self).items() if value is not None}


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


@dataclass(slots=True, kw_only=True)
class Check:
    """One check. A share check has ``low`` and ``high`` instead of a limit and a margin.

    ``working`` is the key of the actual load's working; ``limit_lines`` are the entered figures a limit is made of.
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
    limit_entry: Entry | None = None
    limit_lines: list[Line] | None = None
    cushion: float | None = None
    working: str | None = None
    settled_by: str | None = None
    sentence: str


_SPARE = ("at_least", "cushion", "limit_entry", "limit_path", "limit_label", "limit_lines", "working", "settled_by")


def _shape(check: Check, handler: SerializerFunctionWrapHandler) -> dict[str, Any]:
    made: dict[str, Any] = handler(check)
    for key in ("limit", "limit_source", "margin") if check.low is not None else ("low", "high"):
        del made[key]
    for key in _SPARE:
        if made[key] is None:
            del made[key]
    return made


Shaped = Annotated[Check, WrapSerializer(_shape)]
"""A check as it is sent: without the keys that do not apply to it."""


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


class Advisory(Answer):
    """Something to know beside the checks: a trap in the readings, a caution, what would settle the rest."""

    code: str
    level: Literal["warning", "note"]
    message: str
    path: str | None = None
    numbers: dict[str, float] = Field(default_factory=dict)
    accepted: bool = False
    accepted_note: str | None = None


class PassAnswer(Answer):
    """One pass of the weigh-in: what to do, what it settles, what its platforms add up to, in the pass's own unit.

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


class TongueWay(Answer):
    """One way to the tongue weight. ``budget`` is what each input of a direct measurement adds to its ±."""

    key: str
    source: TongueSource
    title: str
    value: float
    plus_minus: float
    used: bool
    agrees: bool
    budget: dict[str, float]


class Finding(Answer):
    """Something the passes prove beside the checks."""

    code: str
    message: str


class Open(Answer):
    """Something that cannot be known yet: its range, whether the low end is proven, and what would settle it.

    ``standing`` are the checks whose verdicts hold regardless.
    """

    what: str
    low: float | None
    high: float | None
    proven: bool
    settled_by: str
    standing: list[str] = []


class RoomLeft(Answer):
    """How much more can go into one place before the first limit is met, and which one that is."""

    where: Literal["vehicle", "trailer"]
    room: float
    check: str
    sentence: str


class Link(Answer):
    """One link of the hitch chain with its ratings in the mode used."""

    kind: str
    trailer: float | None
    tongue: float | None


class Estimate(Answer):
    """The checks with what came aboard since the weighing: worked out, not weighed."""

    verdict: Verdict
    headline: "Headline"
    checks: list[Shaped]


class Geometry(Answer):
    """The rig's lengths for the drawing, in metres; ``assumed`` names those that nobody has entered."""

    kind: Kind
    body: str
    wheelbase: float
    hitch_offset: float
    coupler_to_axles: float
    trailer_axles: int
    style: str
    duals: bool
    assumed: list[str]


class Headline(Answer):
    """The verdict in words: a lead, the sentence that names the binding limit, what else there is to say."""

    lead: str
    sentence: str
    rest: list[str]


class Evaluation(Answer):
    """The whole answer about one weigh-in of one rig.

    ``plates`` are contradictions between labels, ``terms`` what things are called in the rig's set of terms.
    ``bars_moved`` is how much of the tongue the spring bars carry over to the trailer's axles, when both are known.
    """

    units: MassIn
    length: LengthUnit
    weigh_in: int | None
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


class Prediction(Answer):
    """What the lever model predicts."""

    units: MassIn
    predicted: dict[str, float]


class CeilingAnswer(Answer):
    """The heaviest trailer by each limit."""

    units: MassIn
    tongue_share: float
    limits: dict[str, float]
    binding: str | None
    ceiling: float | None
    estimated: list[str]
