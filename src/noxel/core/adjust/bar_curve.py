"""What the spring bars can do, and what they cannot."""

from collections.abc import Sequence

from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import amount, forms, state_of, vector
from noxel.core.limits import Checked
from noxel.core.mechanics import levers_of
from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile
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


def bar_curve(
    rig: RigFile, rows: Sequence[Checked], base: Baseline | None = None
) -> BarCurve | None:
    """What the spring bars can do, and what they cannot.

    Parameters
    ----------
    rig : RigFile
        As predicted, with weight distribution and a ball behind the axle; else there is nothing to
        draw.
    rows : sequence of Checked
        For the limits.
    base : Baseline or None
        As for :func:`forms`.
    """
    levers = levers_of(rig)
    if not rig.hitch.weight_distribution or rig.trailer is None or (levers.overhang or 0.0) <= 0:
        return None
    state, form, factor, unit = state_of(rig), forms(rig, base), KG[rig.units.mass], rig.units.mass
    lifted, returned = amount(state, "lifted"), amount(state, "returned")
    limits = {row.id: row.limit.kg for row in rows if row.limit is not None}

    def loads(restoration: float) -> dict[str, float]:
        there = state + vector(levers.tighten(restoration * lifted - returned))
        return {check: float(coefs @ there) + constant for check, (coefs, constant) in form.items()}

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
        said = loads(target)
        says.insert(
            0,
            f"At the maker's target, {target * 100:.0f} %: front "
            f"{print_mass(said['vehicle.front_axle'], unit)}, rear "
            f"{print_mass(said['vehicle.rear_axle'], unit)}, trailer axles "
            f"{print_mass(said['trailer.axles'], unit)}.",
        )
    return BarCurve(
        points=points,
        now=rig.plan.front_restoration or 0.0,
        front_limit=limits["vehicle.front_axle"] / factor
        if "vehicle.front_axle" in limits
        else None,
        rear_limit=limits["vehicle.rear_axle"] / factor if "vehicle.rear_axle" in limits else None,
        trailer_limit=limits["trailer.axles"] / factor if "trailer.axles" in limits else None,
        front_solo=(amount(state, "vehicle") - amount(state, "rear")) / factor,
        says=says,
    )
