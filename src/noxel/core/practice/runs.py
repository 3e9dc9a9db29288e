"""A run of the yard as a text that can be copied, shared and played again:
``yard1/bars.lb.north_america/4c19/on.ask.wait.off``.

Version, rig (kind, units, terms, and which limit is exceeded), seed, acts in order. The same text
gives the same yard anywhere.
"""

import re
from dataclasses import dataclass, replace
from typing import get_args

from noxel.core.practice.rigs import OverOn, RigKind
from noxel.core.quantities import MassUnit
from noxel.core.rig import TermSet
from noxel.errors import InputError, Problem

VERSION = 1
MOST_ACTS = 300
_SEED = re.compile(r"[A-Za-z0-9-]{1,40}")
_ACT = re.compile(r"[a-z]+(:[a-z0-9]+)?(:-?[0-9]{1,5})?")
_OWN = re.compile(r"[A-Za-z0-9-]{1,64}")


@dataclass(frozen=True, slots=True)
class Run:
    """What a yard starts from, and what was done in it.

    ``difficulty`` is that of a challenge, 0 where it is none. ``own`` is the id of a rig of the
    reader's own that was copied into the yard, with the number of the weigh-in that is taken for
    true.
    """

    kind: RigKind = "bars"
    unit: MassUnit = "lb"
    terms: TermSet = "north_america"
    over: OverOn = "nothing"
    seed: str = "1"
    difficulty: int = 0
    own: tuple[str, int] | None = None
    acts: tuple[str, ...] = ()

    def __str__(self) -> str:
        if self.own:
            head = f"own.{self.own[0]}.{self.own[1]}"
        elif self.difficulty:
            head = f"challenge{self.difficulty}.{self.unit}.{self.terms}"
        else:
            head = f"{self.kind}.{self.unit}.{self.terms}" + (
                f".{self.over}" if self.over != "nothing" else ""
            )
        return f"yard{VERSION}/{head}/{self.seed}/{'.'.join(self.acts)}"

    def then(self, act: str) -> "Run":
        """The run with one more act."""
        return replace(self, acts=(*self.acts, act))


def wrong(says: str) -> InputError:
    """What a run asks for and the yard does not have."""
    return InputError(says, [Problem("run", says, "run")])


def _head(words: list[str], seed: str, acts: tuple[str, ...]) -> Run:
    name, *rest = words
    if name == "own":
        if (
            len(rest) == 2
            and _OWN.fullmatch(rest[0])
            and rest[1].isascii()
            and rest[1].isdigit()
            and len(rest[1]) < 8
        ):
            return Run(seed=seed, own=(rest[0], int(rest[1])), acts=acts)
        raise wrong("The run does not say which of your own rigs it copies.")
    if len(rest) < 2 or rest[0] not in get_args(MassUnit) or rest[1] not in get_args(TermSet):
        raise wrong(
            "The run does not say its units and terms: lb or kg, then north_america, australia or "
            "europe."
        )
    unit: MassUnit = "lb" if rest[0] == "lb" else "kg"
    terms: TermSet = next(choice for choice in get_args(TermSet) if choice == rest[1])
    if name in ("challenge1", "challenge2", "challenge3") and len(rest) == 2:
        return Run(unit=unit, terms=terms, seed=seed, difficulty=int(name[-1]), acts=acts)
    over = rest[2] if len(rest) == 3 else "nothing"
    if name not in get_args(RigKind) or over not in get_args(OverOn) or len(rest) > 3:
        raise wrong(f"“{'.'.join(words)[:60]}” is not a rig that the yard knows.")
    return Run(
        next(choice for choice in get_args(RigKind) if choice == name),
        unit,
        terms,
        next(choice for choice in get_args(OverOn) if choice == over),
        seed,
        acts=acts,
    )


def read_run(text: str) -> Run:
    """Read a run from its text.

    Raises InputError if it is no run, one of a newer version, or too long; the message says which
    part is wrong.
    """
    parts = text.strip().split("/")
    version = re.fullmatch(r"yard([0-9]{1,6})", parts[0])
    if version is None:
        raise wrong("This is not a run of the yard: it does not begin with “yard1/”.")
    if int(version[1]) != VERSION:
        raise wrong(
            f"This run is of version {int(version[1])}; this Noxel plays version {VERSION}. A "
            "newer Noxel may have made it."
        )
    if len(parts) not in (3, 4):
        raise wrong("The run is cut off: it needs a rig, a seed and its acts between slashes.")
    acts = tuple(parts[3].split(".")) if len(parts) == 4 and parts[3] else ()
    if len(acts) > MOST_ACTS:
        raise wrong(f"The run has {len(acts)} acts; more than {MOST_ACTS} are not played.")
    for number, act in enumerate(acts, 1):
        if not _ACT.fullmatch(act):
            raise wrong(f"Act {number}, “{act[:30]}”, is not understood.")
    if not _SEED.fullmatch(parts[2]):
        raise wrong("The seed must be letters, digits and hyphens, 40 at most.")
    return _head(parts[1].split("."), parts[2], acts)
