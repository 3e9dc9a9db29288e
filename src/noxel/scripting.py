"""Noxel from a script or a notebook: ``noxel.load`` and ``noxel.evaluate`` (docs/python.md).

The server and the database take no part in it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

from noxel.core.evaluate import evaluate as evaluate_rig
from noxel.core.limits import Verdict
from noxel.core.quantities import MassUnit
from noxel.core.rig import RigFile
from noxel.core.wording import Check, Evaluation
from noxel.formats.rig_json import load_rig, read_rig


@dataclass(frozen=True, slots=True)
class Answer:
    """What Noxel says of a rig, in the file's own unit.

    ``checks`` are by their id, the tightest first; ``whole`` is all of the answer, as
    ``noxel check --json`` prints it.
    """

    verdict: Verdict
    sentence: str
    unit: MassUnit
    checks: Mapping[str, Check]
    whole: Evaluation


def load(rig: str | Path) -> RigFile:
    """Read a rig file.

    ``rig``: where it is; or its text, which begins with a brace.

    Raises RigFileError naming every field that cannot be read, and why.
    """
    if isinstance(rig, str) and rig.lstrip().startswith("{"):
        return read_rig(rig.encode())
    return load_rig(Path(rig))


def evaluate(rig: RigFile, weigh_in: int | None = None) -> Answer:
    """Compare a weigh-in of a rig with every rating.

    ``rig``: from :func:`load`. ``weigh_in``: which weigh-in, from 1; None is the last.

    Raises NotFound if the rig has no weigh-in of that number.
    """
    evaluation = evaluate_rig(rig, weigh_in)
    sentence = f"{evaluation.headline.lead} {evaluation.headline.sentence}"
    checks = {check.id: check for check in evaluation.checks}
    return Answer(evaluation.verdict, sentence, evaluation.units.mass, checks, evaluation)
