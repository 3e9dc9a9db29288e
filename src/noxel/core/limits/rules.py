"""Rules that are no rating: what the maker or the law requires from a mass on, judged by what was weighed.

Each rests on a figure that the owner looked up and entered. Where none is entered, nothing is required.
"""

from dataclasses import dataclass
from typing import Literal

from noxel.core.limits.checks import exceeds
from noxel.core.mechanics import Weighing
from noxel.core.rig import RigFile

RuleCode = Literal["brakes_missing", "bars_missing", "bars_forbidden", "bars_far_from_target"]
NEAR = 0.25
"""The bars' restoration may be this share of the maker's target away from it."""


@dataclass(frozen=True, slots=True)
class BrokenRule:
    """A rule that is not kept: which, the field that it stands in, what was weighed and from where on it holds. [kg, or shares]"""

    code: RuleCode
    path: str
    weighed: float
    plus_minus: float
    limit: float


def broken_rules(rig: RigFile, weighing: Weighing) -> list[BrokenRule]:
    """Every rule that the rig as weighed does not keep.

    Parameters
    ----------
    rig : RigFile
        What is fitted, and the rules that its owner entered.
    weighing : Weighing
        The trailer in total, else the load on its axles, which is the least it can weigh.

    Notes
    -----
    A mass rule is broken where the trailer weighs more than its figure, by however little: the scale's ± is not the owner's to
    use. Restoration is judged only beyond its ±.
    """
    if rig.trailer is None:
        return []
    figures = weighing.figures
    trailer = figures.get("trailer_gross") or figures.get("trailer_axles")
    rule, bars = rig.vehicle.distribution, rig.hitch.weight_distribution
    found = []
    above = rig.policy.brakes_above
    if trailer and above and rig.trailer.brakes == "none" and exceeds(trailer.value, above.kg):
        found.append(BrokenRule("brakes_missing", "trailer.brakes", trailer.value, trailer.plus_minus, above.kg))
    from_mass = rule.above.kg if rule and rule.above else 0.0
    if trailer and rule and rule.rule == "required" and not bars and exceeds(trailer.value, from_mass):
        found.append(BrokenRule("bars_missing", "hitch.weight_distribution", trailer.value, trailer.plus_minus, from_mass))
    if trailer and rule and rule.rule == "forbidden" and bars:
        found.append(BrokenRule("bars_forbidden", "hitch.weight_distribution", trailer.value, trailer.plus_minus, 0.0))
    target, restored = rig.hitch.target_restoration, figures.get("front_restoration")
    if target and restored and bars:
        beyond = abs(restored.value - target) - NEAR * target
        if beyond > restored.plus_minus:
            found.append(
                BrokenRule("bars_far_from_target", "hitch.target_restoration", restored.value, restored.plus_minus, target)
            )
    return found
