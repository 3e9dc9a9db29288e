"""Kept plans compared with the next weigh-in."""

import datetime
from collections.abc import Sequence

from noxel.core.mechanics import weigh
from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile
from noxel.core.wording import Answer, figure_title


class KeptAnswer(Answer):
    """A kept plan, and, when the rig was weighed since, what was predicted against what came."""

    index: int
    name: str
    date: datetime.date
    said: list[str]
    weigh_in: int | None
    rows: list[tuple[str, float, float]]
    verdict_says: str


def kept_answers(rig: RigFile, called: Sequence[int] | None = None) -> list[KeptAnswer]:
    """Kept plans; where the rig was weighed on or after their day, whether the cure did what was
    predicted.

    ``called`` are the numbers of the rig's weigh-ins in the whole log, where it holds only some of
    it.
    """
    plans = []
    for index, plan in enumerate(rig.kept_plans):
        number = next(
            (
                n
                for n, weigh_in in enumerate(rig.weigh_ins, 1)
                if weigh_in.date and weigh_in.date >= plan.date
            ),
            None,
        )
        rows: list[tuple[str, float, float]] = []
        says = "Not weighed since."
        if number is not None:
            figures = weigh(rig, rig.weigh_ins[number - 1]).figures
            factor = KG[rig.units.mass]
            off = [
                (key, figures[key].value - mass.kg, figures[key].plus_minus)
                for key, mass in plan.predicted.items()
                if key in figures
            ]
            rows = [
                (
                    figure_title(rig, key),
                    plan.predicted[key].kg / factor,
                    figures[key].value / factor,
                )
                for key, _, _ in off
            ]
            worst = max(off, key=lambda miss: abs(miss[1]) - miss[2], default=None)
            if worst is not None:
                apart = print_mass(abs(worst[1]), rig.units.mass)
                title = figure_title(rig, worst[0])
                says = (
                    f"It did what was predicted, within {apart}."
                    if abs(worst[1]) <= 2 * worst[2]
                    else f"{title} was measured {apart} {'above' if worst[1] > 0 else 'below'} "
                    "what was predicted."
                )
        plans.append(
            KeptAnswer(
                index=index,
                name=plan.name,
                date=plan.date,
                said=list(plan.said),
                weigh_in=called[number - 1] if called and number else number,
                rows=rows,
                verdict_says=says,
            )
        )
    return plans
