"""Each way to relieve one limit: how much it takes, and what it does to the others."""

from collections.abc import Sequence

from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import (
    GROSS,
    TONGUE,
    Vector,
    forms,
    in_trailer,
    in_vehicle,
    state_of,
)
from noxel.core.limits import Checked
from noxel.core.mechanics import lever_lengths, load_place
from noxel.core.quantities import KG, print_length, print_mass, print_share
from noxel.core.rig import RigFile, share_range
from noxel.core.wording import Answer, check_label, term_name, vehicle_word


class Route(Answer):
    """One way to bring a check right: how much of it, and what it does to the others."""

    name: str
    amount: float | None
    says: str
    worsens: list[str]


class Lever(Answer):
    """A check that is over or too close, what it is short by, and every route."""

    check: str
    label: str
    excess: float
    says: str
    routes: list[Route]


def _routes(rig: RigFile) -> list[tuple[str, Vector]]:
    """Each route per kilogram: what leaving it out, or moving it, does to the state."""
    at, word = lever_lengths(rig), vehicle_word(rig)
    found = [
        (f"off the {word}, where its load lies", -in_vehicle(rig, 1.0, load_place(rig) * at.a)),
        (f"off the {word}, behind its rear axle", -in_vehicle(rig, 1.0, 1.12 * at.a)),
    ]
    if rig.trailer is not None:
        found += [
            ("off the trailer's nose", -in_trailer(rig, 1.0, 0.2 * at.length)),
            ("off the trailer, over its axles", -in_trailer(rig, 1.0, at.length)),
            ("off the trailer's tail", -in_trailer(rig, 1.0, 1.4 * at.length)),
            (
                "moved from the nose to over the axles",
                in_trailer(rig, 1.0, at.length) - in_trailer(rig, 1.0, 0.2 * at.length),
            ),
            (
                f"moved from the {word}'s rear to over the trailer's axles",
                in_trailer(rig, 1.0, at.length) - in_vehicle(rig, 1.0, 1.12 * at.a),
            ),
        ]
    return found


def _share(rig: RigFile) -> str:
    return term_name(rig, "tongue_share")


def _then(rig: RigFile, share: float) -> str:
    """What becomes of the trailer, in words."""
    if share < 0:
        return "the trailer would then lift the hitch"
    if share > 1:
        return "the trailer's axles would then carry nothing"
    return f"{_share(rig)} then {print_share(share)}"


def _moved_back(rig: RigFile, coefs: Vector, excess: float, state: Vector) -> list[Route]:
    """How far the heaviest item in the trailer would have to go, back or forward, to cure one check
    alone.
    """
    loads = [
        load for load in rig.loads if load.on == "trailer" and load.position is not None and load.kg
    ]
    load = max(loads, key=lambda each: each.kg, default=None)
    if load is None or load.position is None:
        return []
    at, x = lever_lengths(rig), load.position.m
    per_metre = in_trailer(rig, load.kg, x + 1.0) - in_trailer(rig, load.kg, x)
    gain = -float(coefs @ per_metre)
    name = (
        f"{load.name or 'the heaviest item'}, {print_mass(load.kg, rig.units.mass)}, moved "
        "along the trailer"
    )
    if abs(gain) <= 1e-9:
        return [Route(name=name, amount=None, says="does not help this limit", worsens=[])]
    by = excess / gain
    inside = 0.0 <= x + by <= 1.6 * at.length
    after = state + by * per_metre
    share = float(after[TONGUE] / after[GROSS]) if after[GROSS] > 0 else 0.0
    unit = rig.units.lengths
    far = f"{print_length(abs(by), unit)} {'back' if by > 0 else 'forward'}"
    low, high = share_range(rig)
    says = f"{far}; {_then(rig, share)}" if inside else f"{far}, which is beyond the trailer"
    return [
        Route(
            name=name,
            amount=None,
            says=says,
            worsens=[] if not inside or low <= share <= high else [_share(rig)],
        )
    ]


def levers(rig: RigFile, rows: Sequence[Checked], base: Baseline | None = None) -> list[Lever]:
    """Every check that is over or too close, with the mass that must go by each route, and what
    that route does besides.

    Parameters
    ----------
    rig : RigFile
        As predicted.
    rows : sequence of Checked
        Its checks; a cure must clear their ±.
    base : Baseline or None
        As for :func:`forms`.
    """
    state, form, unit, factor = state_of(rig), forms(rig, base), rig.units.mass, KG[rig.units.mass]
    margins = {row.id: row.margin for row in rows if row.margin is not None}
    low, high = share_range(rig)
    found = []
    for row in rows:
        if (
            row.status not in ("over", "tight")
            or row.limit is None
            or row.actual is None
            or row.id not in form
        ):
            continue
        excess = row.actual.value - min(
            row.cushion * row.limit.kg, row.limit.kg - row.actual.plus_minus
        )
        routes = []
        for name, per_kg in _routes(rig):
            gain = -float(form[row.id][0] @ per_kg)
            if gain <= 1e-9:
                routes.append(
                    Route(name=name, amount=None, says="does not help this limit", worsens=[])
                )
                continue
            amount = excess / gain
            after = state + amount * per_kg
            worsens = [
                check_label(rig, check)
                for check, (coefs, _) in form.items()
                if check in margins
                and margins[check] >= 0
                and float(coefs @ per_kg) * amount > margins[check]
            ]
            says = print_mass(amount, unit)
            if rig.trailer is not None and after[GROSS] > 0:
                share = after[TONGUE] / after[GROSS]
                says += f"; {_then(rig, float(share))}"
                if not low <= share <= high:
                    worsens.append(_share(rig))
            routes.append(Route(name=name, amount=amount / factor, says=says, worsens=worsens))
        routes += _moved_back(rig, form[row.id][0], excess, state)
        label = check_label(rig, row.id)
        says = f"{label}: {print_mass(excess, unit)} must come off it to clear the limit and the ±."
        found.append(
            Lever(check=row.id, label=label, excess=excess / factor, says=says, routes=routes)
        )
    return found
