"""An exercise: papers on the table, one question with one right answer, hints, and the working on
this very rig.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.practice.facts import Facts
from noxel.core.practice.rigs import OverOn, RigKind
from noxel.core.practice.yard import Yard
from noxel.core.quantities import KG, print_length, print_mass, print_share
from noxel.core.rig import RigFile
from noxel.core.wording import term_name, vehicle_word

Form = Literal["mass", "share", "pressure", "choice", "done"]
"""What is asked for: a figure, one of a few statements, or a rig brought within its limits."""
Op = Literal["", "+", "−", "×", "÷", "="]


@dataclass(frozen=True, slots=True)
class Line:
    """One line of a paper or of a working, its figure in words."""

    label: str
    value: str
    op: Op = ""


@dataclass(frozen=True, slots=True)
class Paper:
    """A label, a list, a table: a title and its lines."""

    title: str
    lines: tuple[Line, ...]


@dataclass(frozen=True, slots=True)
class Option:
    """One statement to choose; ``says`` answers whoever chooses it, ``way`` names the slip behind
    it.
    """

    code: str
    label: str
    says: str
    way: str = ""


@dataclass(frozen=True, slots=True)
class Exercise:
    """A question about a yard. Figures in kilograms, shares plain, pressures in the table's own
    unit.

    ``right`` is right to within ``give``. ``ways`` are the slips that may lead to a wrong figure
    here (:mod:`ways_to_err`).
    """

    question: str
    facts: Facts
    working: tuple[Line, ...]
    because: str
    hints: tuple[str, ...]
    form: Form = "mass"
    right: float = 0.0
    give: float = 0.0
    choice: str = ""
    ways: tuple[str, ...] = ()
    papers: tuple[Paper, ...] = ()
    options: tuple[Option, ...] = ()


class Teller:
    """Writes figures as the rig's papers do."""

    def __init__(self, rig: RigFile) -> None:
        self.rig = rig
        self.unit = rig.units.mass
        self.word = vehicle_word(rig)

    def __call__(self, kg: float) -> str:
        """A mass."""
        return print_mass(kg, self.unit)

    def share(self, share: float) -> str:
        """A share in per cent."""
        return print_share(share)

    def length(self, metres: float) -> str:
        """A length as it is measured with a tape."""
        return print_length(metres, "ft" if self.unit == "lb" else "m", fine=True)

    def term(self, key: str) -> str:
        """What the rig's terms call a key."""
        return term_name(self.rig, key)

    @property
    def give(self) -> float:
        """How far a figure that was worked out by hand may be rounded. [kg]"""
        return 2.0 * KG[self.unit]


_LABELS: dict[str, tuple[str, str]] = {
    "gvwr": ("On the door", "gvwr"),
    "gawr_front": ("On the door", "gawr_front"),
    "gawr_rear": ("On the door", "gawr_rear"),
    "payload": ("Loading placard", "payload"),
    "gcwr": ("Towing guide", "gcwr"),
    "tow_rating": ("Towing guide", "tow_rating"),
    "curb_weight": ("Brochure", "curb_weight"),
    "t_gvwr": ("On the trailer", "trailer.gvwr"),
    "t_gawr": ("On the trailer", "all axles together"),
    "ccc": ("On the trailer", "trailer.ccc"),
    "dry_weight": ("The trailer's brochure", "dry_weight"),
    "dry_tongue": ("The trailer's brochure", "dry_tongue"),
    "people": ("Your list", "people"),
    "gear": ("Your list", "gear in the {v}"),
    "hitch": ("Your list", "the hitch's own mass"),
}


def labels(m: Teller, f: Facts, *keys: str) -> tuple[Paper, ...]:
    """Labels and lists with the figures named, one paper for each place that they stand in."""
    papers: dict[str, list[Line]] = {}
    for key in keys:
        title, word = _LABELS[key]
        papers.setdefault(title, []).append(Line(m.term(word).format(v=m.word), m(f[key])))
    return tuple(Paper(title, tuple(lines)) for title, lines in papers.items())


def sum_lines(
    m: Teller, result: tuple[str, float], *terms: tuple[Op, str, float]
) -> tuple[Line, ...]:
    """A sum as it is written on paper, its result last."""
    return (
        *(Line(label, m(kg), op) for op, label, kg in terms),
        Line(result[0], m(result[1]), "="),
    )


Builder = Callable[[Yard, Facts, Teller], Exercise]


@dataclass(frozen=True, slots=True)
class Lesson:
    """A lesson: where it stands in the order of the work, the rig that it needs, and what is asked.

    ``preset`` is what was done before the reader comes; ``solution`` what the reader does before
    the question can be answered; ``allowed`` the acts that are offered. ``school`` names a school
    where experienced people differ.
    """

    id: str
    name: str
    task: str
    build: Builder
    kind: RigKind = "bars"
    over: OverOn = "nothing"
    preset: tuple[str, ...] = ()
    solution: tuple[str, ...] = ()
    allowed: tuple[str, ...] = ()
    school: str = ""
    minutes: int = 5
    extra: Callable[[Yard], Sequence[str]] | None = field(default=None)
