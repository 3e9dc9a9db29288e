"""What the spring bars can do, and what they cannot."""

import math
from collections.abc import Sequence

from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import amount, forms, state_of, vector
from noxel.core.limits import Checked
from noxel.core.mechanics import load
from noxel.core.quantities import KG, print_mass
from noxel.core.wording import Answer, check_label


class BarPoint(Answer):
    """Axle loads at one restoration of the front axle by the bars."""

    restoration: float
    front: float
    rear: float
    trailer: float


class BarCurve(Answer):
    """Predicted axle loads from slack bars to the front axle's solo load, where limits are met, and
    what that means.
    """

    points: list[BarPoint]
    now: float
    front_limit: float | None
    rear_limit: float | None
    trailer_limit: float | None
    front_solo: float
    says: list[str]


def bar_curve(base: Baseline, rows: Sequence[Checked]) -> BarCurve | None:
    """What the spring bars can do, and what they cannot.

    Parameters
    ----------
    base : Baseline
        With weight distribution, a ball behind the axle and its axles known; else there is nothing
        to draw.
    rows : sequence of Checked
        For the limits.
    """
    rig, levers, form = base.rig, base.levers, forms(base)
    drawn = ("vehicle.front_axle", "vehicle.rear_axle", "trailer.axles")
    if not rig.hitch.weight_distribution or not base.bars_known or (levers.overhang or 0.0) <= 0:
        return None
    state, solo = state_of(base), load(base.state(), "front_solo")
    lifted, returned = amount(state, "lifted"), amount(state, "returned")
    if math.isnan(lifted) or not lifted or solo is None or not set(drawn) <= form.keys():
        return None
    factor, unit = KG[rig.units.mass], rig.units.mass
    limits = {row.id: row.limit.kg for row in rows if row.limit is not None}

    def loads(restoration: float) -> dict[str, float]:
        tightened = state + vector(levers.tighten(restoration * lifted - returned))
        return {
            check: float(coefs[coefs != 0] @ tightened[coefs != 0]) + constant
            for check, (coefs, constant) in form.items()
        }

    points = [
        BarPoint(
            restoration=step / 10,
            front=loads(step / 10)["vehicle.front_axle"] / factor,
            rear=loads(step / 10)["vehicle.rear_axle"] / factor,
            trailer=loads(step / 10)["trailer.axles"] / factor,
        )
        for step in range(11)
    ]
    says = []
    slack, tight = loads(0.0), loads(1.0)
    for check in ("vehicle.rear_axle", "tires.rear", "vehicle.gross", "vehicle.payload"):
        limit = limits.get(check)
        if limit is None or check not in slack:
            continue
        label = check_label(rig, check)
        if tight[check] > limit:
            says.append(
                f"{label}: over at any tension, {print_mass(tight[check] - limit, unit)} even "
                "fully restored. The bars cannot cure it."
            )
        elif slack[check] > limit:
            meets = (slack[check] - limit) / (slack[check] - tight[check])
            says.append(f"{label}: within from {meets * 100:.0f} % restoration on.")
    limit = limits.get("trailer.axles")
    if limit is not None and tight["trailer.axles"] > limit:
        says.append(
            "Trailer axles: over when fully restored, by "
            f"{print_mass(tight['trailer.axles'] - limit, unit)}."
        )
    says.append(
        "The bars move load, they take none away and raise no rating. The front axle should not "
        "end above its load without the trailer."
    )
    if rig.hitch.target_restoration is not None:
        target = rig.hitch.target_restoration
        by_model = loads(target)
        says.insert(
            0,
            f"At the maker's target, {target * 100:.0f} %: front "
            f"{print_mass(by_model['vehicle.front_axle'], unit)}, rear "
            f"{print_mass(by_model['vehicle.rear_axle'], unit)}, trailer axles "
            f"{print_mass(by_model['trailer.axles'], unit)}.",
        )
    return BarCurve(
        points=points,
        now=rig.plan.front_restoration or 0.0,
        front_limit=limits["vehicle.front_axle"] / factor
        if "vehicle.front_axle" in limits
        else None,
        rear_limit=limits["vehicle.rear_axle"] / factor if "vehicle.rear_axle" in limits else None,
        trailer_limit=limits["trailer.axles"] / factor if "trailer.axles" in limits else None,
        front_solo=solo / factor,
        says=says,
    )
