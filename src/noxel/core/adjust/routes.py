"""Each way to relieve one limit: how much it takes, and what it does to the others."""

import math
from collections.abc import Sequence

import numpy as np

from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import (
    Vector,
    amount,
    forms,
    in_trailer,
    in_vehicle,
    state_of,
    vector,
)
from noxel.core.limits import Checked, CheckId
from noxel.core.mechanics import State, load_place
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

    check: CheckId
    label: str
    excess: float
    says: str
    routes: list[Route]


def _routes(base: Baseline) -> list[tuple[str, Vector]]:
    """Each route per kilogram: what leaving it out, or moving it, does to the state, as far as the
    lengths are known.
    """
    rig, levers, word = base.rig, base.levers, vehicle_word(base.rig)
    a, place = levers.wheelbase, load_place(rig)
    where_it_lies = vector(State(vehicle=1.0, rear=place, cargo=1.0))
    routes = [(f"off the {word}, where its load lies", -where_it_lies)]
    behind = in_vehicle(base, 1.0, 1.12 * (a if a is not None else math.nan))
    if a is not None:
        routes.append((f"off the {word}, behind its rear axle", -behind))
    if levers.coupler is not None:
        nose, axles, tail = (
            in_trailer(base, 1.0, share * levers.coupler) for share in (0.2, 1.0, 1.4)
        )
        routes += [
            ("off the trailer's nose", -nose),
            ("off the trailer, over its axles", -axles),
            ("off the trailer's tail", -tail),
            ("moved from the nose to over the axles", axles - nose),
        ]
        if a is not None:
            routes.append(
                (f"moved from the {word}'s rear to over the trailer's axles", axles - behind)
            )
    elif rig.towing and (share := _share_of(state_of(base))) is not None:
        spread = vector(levers.at_share(1.0, share, base.restored))
        routes.append(("off the trailer, spread as it is", -spread))
    return routes


def _share(rig: RigFile) -> str:
    return term_name(rig, "tongue_share")


def _share_of(state: Vector) -> float | None:
    """The tongue share; None without a trailer."""
    gross, tongue = amount(state, "trailer"), amount(state, "tongue")
    return tongue / gross if gross > 0 and not math.isnan(tongue) else None


def _then(rig: RigFile, share: float) -> str:
    """What becomes of the trailer, in words."""
    if share < 0:
        return "the trailer would then lift the hitch"
    if share > 1:
        return "the trailer's axles would then carry nothing"
    return f"{_share(rig)} then {print_share(share)}"


def _moved_back(base: Baseline, coefs: Vector, excess: float, state: Vector) -> list[Route]:
    """How far the heaviest item in the trailer would have to go, back or forward, to cure one check
    alone.
    """
    rig, coupler = base.rig, base.levers.coupler
    loads = [
        load for load in rig.loads if load.on == "trailer" and load.position is not None and load.kg
    ]
    load = max(loads, key=lambda load: load.kg, default=None)
    if load is None or load.position is None or coupler is None:
        return []
    x = load.position.m
    per_metre = in_trailer(base, load.kg, x + 1.0) - in_trailer(base, load.kg, x)
    gain = _gain(coefs, per_metre)
    name = (
        f"{load.name or 'the heaviest item'}, {print_mass(load.kg, rig.units.mass)}, moved "
        "along the trailer"
    )
    if gain is None or abs(gain) <= 1e-9:
        return [Route(name=name, amount=None, says="does not help this limit", worsens=[])]
    by = excess / gain
    inside = 0.0 <= x + by <= 1.6 * coupler
    after = state + by * per_metre
    share = _share_of(after) or 0.0
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


def _gain(coefs: Vector, per_kg: Vector) -> float | None:
    """What a kilogram by a route takes off a load; None where that needs a length."""
    counts = coefs != 0
    return None if np.isnan(per_kg[counts]).any() else -float(coefs[counts] @ per_kg[counts])


def levers(base: Baseline, rows: Sequence[Checked]) -> list[Lever]:
    """Every check that is over or too close, with the mass that must go by each route, and what
    that route does besides.

    Parameters
    ----------
    base : Baseline
        The rig as it is tried.
    rows : sequence of Checked
        Its checks; a cure must clear their ±.
    """
    rig, state, form = base.rig, state_of(base), forms(base)
    unit, factor = rig.units.mass, KG[rig.units.mass]
    margins = {row.id: row.margin for row in rows if row.margin is not None}
    low, high = share_range(rig)
    ways = []
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
        for name, per_kg in _routes(base):
            gain = _gain(form[row.id][0], per_kg)
            if gain is None:
                continue
            if gain <= 1e-9:
                routes.append(
                    Route(name=name, amount=None, says="does not help this limit", worsens=[])
                )
                continue
            kg = excess / gain
            after = state + kg * per_kg
            worsens = [
                check_label(rig, check)
                for check, (coefs, _) in form.items()
                if check in margins
                and margins[check] >= 0
                and -(_gain(coefs, per_kg) or 0.0) * kg > margins[check]
            ]
            says = print_mass(kg, unit)
            share = _share_of(after)
            if share is not None:
                says += f"; {_then(rig, share)}"
                if not low <= share <= high:
                    worsens.append(_share(rig))
            routes.append(Route(name=name, amount=kg / factor, says=says, worsens=worsens))
        routes += _moved_back(base, form[row.id][0], excess, state)
        label = check_label(rig, row.id)
        says = f"{label}: {print_mass(excess, unit)}"
        ways.append(
            Lever(check=row.id, label=label, excess=excess / factor, says=says, routes=routes)
        )
    return ways
