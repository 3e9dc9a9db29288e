"""How far an entered mass may be off, by where it came from (rig-file format, “What half the facts
let us expect”).
"""

import math
from collections.abc import Mapping

from noxel.core.quantities import Amount, uncertain
from noxel.core.rig import RigFile, Source, WeighIn, entry_at

OFF: Mapping[Source | None, float] = {
    "scale": 0.005, "plate": 0.03, "manual": 0.03, "worked_out": 0.05, None: 0.10, "guess": 0.25,
}  # fmt: skip
"""How far a mass may be off, as a share of it: two standard uncertainties. Noxel's own judgement of
sources.
"""
BASE_OFF = 0.03
"""The same for a base weight (curb, dry, the plan's bases) of which no source was said."""


def between(low: float, high: float) -> Amount:
    """An amount of which only the ends are known: uniform between them."""
    return uncertain((low + high) / 2, (high - low) / 2 / math.sqrt(3))


def source_at(rig: RigFile, path: str) -> Source | None:
    """Where the figure at a path came from, if that was said."""
    entry = entry_at(rig, path)
    return entry.source if entry else None


def place_of(rig: RigFile, weigh_in: WeighIn) -> int:
    """Where a weigh-in stands in its rig, from 0; behind all of them where it is not in it."""
    places = (index for index, other in enumerate(rig.weigh_ins) if other is weigh_in)
    return next(places, len(rig.weigh_ins))


def share_off(source: Source | None, *, base: bool = False) -> float:
    """How far a mass from a source may be off, as a share of it; ``base`` for the weights that
    loads are added to.
    """
    return BASE_OFF if base and source is None else OFF[source]


def entered(rig: RigFile, path: str, kg: float, *, base: bool = False) -> Amount:
    """A mass as entered at a path, with the ± of its source. [kg]"""
    off = abs(kg) * share_off(source_at(rig, path), base=base)
    return uncertain(kg, off / 2) if off else kg
