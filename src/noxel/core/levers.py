"""The lever model as one linear map: what each kilogram in each place, and the bars' moment, does to every check.

A rig's state is five numbers: the vehicle's axles alone, the trailer in total, the tongue, the bars' moment. Every load
that a check judges is a linear form of them, so cures can be reckoned, and proved absent, exactly.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from noxel.core import statics
from noxel.core.answers import Answer
from noxel.core.bench import Bench
from noxel.core.checks import Checked
from noxel.core.lengths import lever_lengths
from noxel.core.loaded import load_place
from noxel.core.predict import predict
from noxel.core.ratings import share_range
from noxel.core.rigfile import RigFile
from noxel.core.units import KG, print_length, print_mass, print_share
from noxel.core.words import check_label, vehicle_word

Vector = NDArray[np.float64]
FRONT, REAR, GROSS, TONGUE, MOMENT = range(5)
"""Places in a state: front and rear solo, trailer in total, tongue [kg]; bars' moment [kg m]."""


def state_of(rig: RigFile) -> Vector:
    """The state of a rig as predicted."""
    found, at = predict(rig), lever_lengths(rig)
    tongue = found.get("tongue_static", 0.0)
    restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    moment = statics.bar_moment(restoration, tongue, at.b, at.length) if restoration else 0.0
    return np.array([found["front_solo"], found["rear_solo"], found.get("trailer_gross", 0.0), tongue, moment])


def forms(rig: RigFile, bench: Bench | None = None) -> dict[str, tuple[Vector, float]]:
    """Every check's load as a linear form of the state: coefficients and a constant. [kg]

    ``bench`` tells what the scale found besides the lever model; None is the model alone.
    """
    at, seen = lever_lengths(rig), bench.changed(rig) if bench else Bench(rig, False, {})
    lever, bars = at.b / at.a, (1 + at.b / at.length) / at.a
    front = np.array([1, 0, 0, -lever, bars]), seen.beyond.get("front_hitched", 0.0)
    rear = np.array([0, 1, 0, 1 + lever, -1 / at.length - bars]), seen.beyond.get("rear_hitched", 0.0)
    axles = np.array([0, 0, 1, -1, 1 / at.length]), seen.beyond.get("trailer_axles", 0.0)
    if not rig.towing:
        front, rear = (np.array([1.0, 0, 0, 0, 0]), 0.0), (np.array([0, 1.0, 0, 0, 0]), 0.0)
    gross = front[0] + rear[0], front[1] + rear[1]
    trailer, tongue = np.array([0, 0, 1.0, 0, 0]), np.array([0, 0, 0, 1.0, 0])
    found: dict[str, tuple[Vector, float]] = {"vehicle.front_axle": front, "vehicle.rear_axle": rear, "vehicle.gross": gross}
    curb = seen.empty if seen.empty is not None else rig.vehicle.curb_weight.kg if rig.vehicle.curb_weight else None
    if curb is not None:
        found["vehicle.payload"] = gross[0], gross[1] - curb
    tires, of_trailer = rig.vehicle.tires, rig.trailer.tires if rig.trailer else None
    for check, form, each in (
        ("tires.front", front, tires.front),
        ("tires.rear", rear, tires.rear),
        ("tires.trailer", axles, of_trailer),
    ):
        if each and each.count:
            share = seen.parts.get(check, 1 / each.count)
            found[check] = form[0] * share, form[1] * share
    if rig.trailer is None:
        return found
    found |= {"combination.gross": (gross[0] + axles[0], gross[1] + axles[1]), "vehicle.tow_rating": (trailer, 0.0),
              "trailer.gross": (trailer, 0.0), "hitch.trailer": (trailer, 0.0), "trailer.axles": axles, "hitch.tongue": (tongue, 0.0)}  # fmt: skip
    found |= {
        check: (axles[0] * share, axles[1] * share) for check, share in seen.parts.items() if check.startswith("trailer.axle_")
    }
    if rig.trailer.dry_weight:
        found["trailer.cargo"] = (trailer, -rig.trailer.dry_weight.kg)
    return found


def in_vehicle(rig: RigFile, kg: float, place: float) -> Vector:
    """What a mass in the vehicle adds to the state; ``place`` is behind the front axle. [kg, m]"""
    change = statics.split_item(kg, place, lever_lengths(rig).a)
    return np.array([change.front, change.rear, 0, 0, 0])


def in_trailer(rig: RigFile, kg: float, place: float) -> Vector:
    """What a mass in the trailer adds to the state, the bars' share of the front axle's loss kept; ``place`` is behind the coupler."""
    at = lever_lengths(rig)
    tongue = statics.item_on_tongue(kg, place, at.length)
    return np.array([0, 0, kg, tongue, tongue * moment_per_tongue(rig)])


def moment_per_tongue(rig: RigFile) -> float:
    """The bars' moment for each kilogram of tongue, at the restoration in force. [m]"""
    at = lever_lengths(rig)
    restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    return statics.bar_moment(restoration, 1.0, at.b, at.length) if restoration else 0.0


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
    found = [(f"off the {word}, where its load lies", -in_vehicle(rig, 1.0, load_place(rig) * at.a)),
             (f"off the {word}, behind its rear axle", -in_vehicle(rig, 1.0, 1.12 * at.a))]  # fmt: skip
    if rig.trailer is not None:
        found += [("off the trailer's nose", -in_trailer(rig, 1.0, 0.2 * at.length)),
                  ("off the trailer, over its axles", -in_trailer(rig, 1.0, at.length)),
                  ("off the trailer's tail", -in_trailer(rig, 1.0, 1.4 * at.length)),
                  ("moved from the nose to over the axles", in_trailer(rig, 1.0, at.length) - in_trailer(rig, 1.0, 0.2 * at.length)),
                  (f"moved from the {word}'s rear to over the trailer's axles",
                   in_trailer(rig, 1.0, at.length) - in_vehicle(rig, 1.0, 1.12 * at.a))]  # fmt: skip
    return found


def _moved_back(rig: RigFile, coefs: Vector, excess: float, state: Vector) -> list[Route]:
    """How far the heaviest thing in the trailer would have to go, back or forward, to cure one check alone."""
    loads = [load for load in rig.loads if load.on == "trailer" and load.position is not None and load.kg]
    load = max(loads, key=lambda each: each.kg, default=None)
    if load is None or load.position is None:
        return []
    at, x = lever_lengths(rig), load.position.m
    per_metre = in_trailer(rig, load.kg, x + 1.0) - in_trailer(rig, load.kg, x)
    gain = -float(coefs @ per_metre)
    name = f"{load.name or 'the heaviest thing'}, {print_mass(load.kg, rig.units.mass)}, moved along the trailer"
    if abs(gain) <= 1e-9:
        return [Route(name=name, amount=None, says="does not help this limit", worsens=[])]
    by = excess / gain
    inside = 0.0 <= x + by <= 1.6 * at.length
    after = state + by * per_metre
    share = float(after[TONGUE] / after[GROSS]) if after[GROSS] > 0 else 0.0
    unit = rig.units.lengths
    far = f"{print_length(abs(by), unit)} {'back' if by > 0 else 'forward'}"
    low, high = share_range(rig)
    says = f"{far}; tongue share then {print_share(share)}" if inside else f"{far}, which is beyond the trailer"
    return [Route(name=name, amount=None, says=says, worsens=[] if not inside or low <= share <= high else ["tongue share"])]


def levers(rig: RigFile, rows: Sequence[Checked], bench: Bench | None = None) -> list[Lever]:
    """Every check that is over or too close, with the mass that must go by each route, and what that route does besides.

    Parameters
    ----------
    rig : RigFile
        As predicted.
    rows : sequence of Checked
        Its checks; a cure must clear their ±.
    bench : Bench or None
        As for :func:`forms`.
    """
    state, form, unit, factor = state_of(rig), forms(rig, bench), rig.units.mass, KG[rig.units.mass]
    margins = {row.id: row.margin for row in rows if row.margin is not None}
    low, high = share_range(rig)
    found = []
    for row in rows:
        if row.status not in ("over", "tight") or row.limit is None or row.actual is None or row.id not in form:
            continue
        excess = row.actual.value - min(row.cushion * row.limit.kg, row.limit.kg - row.actual.plus_minus)
        routes = []
        for name, per_kg in _routes(rig):
            gain = -float(form[row.id][0] @ per_kg)
            if gain <= 1e-9:
                routes.append(Route(name=name, amount=None, says="does not help this limit", worsens=[]))
                continue
            amount = excess / gain
            after = state + amount * per_kg
            worsens = [check_label(rig, check) for check, (coefs, _) in form.items()
                       if check in margins and margins[check] >= 0 and float(coefs @ per_kg) * amount > margins[check]]  # fmt: skip
            says = print_mass(amount, unit)
            if rig.trailer is not None and after[GROSS] > 0:
                share = after[TONGUE] / after[GROSS]
                says += f"; tongue share then {print_share(float(share))}"
                if not low <= share <= high:
                    worsens.append("tongue share")
            routes.append(Route(name=name, amount=amount / factor, says=says, worsens=worsens))
        routes += _moved_back(rig, form[row.id][0], excess, state)
        label = check_label(rig, row.id)
        says = f"{label}: {print_mass(excess, unit)} must come off it to clear the limit and the ±."
        found.append(Lever(check=row.id, label=label, excess=excess / factor, says=says, routes=routes))
    return found


class BarPoint(Answer):
    """Axle loads at one restoration of the front axle by the bars."""

    restoration: float
    front: float
    rear: float
    trailer: float


class BarCurve(Answer):
    """Predicted axle loads from slack bars to the front axle's solo load, where limits are met, and what that means."""

    points: list[BarPoint]
    now: float
    front_limit: float | None
    rear_limit: float | None
    trailer_limit: float | None
    front_solo: float
    says: list[str]


def bar_curve(rig: RigFile, rows: Sequence[Checked], bench: Bench | None = None) -> BarCurve | None:
    """What the spring bars can do, and what they cannot.

    Parameters
    ----------
    rig : RigFile
        As predicted, with weight distribution and a ball behind the axle; else there is nothing to draw.
    rows : sequence of Checked
        For the limits.
    bench : Bench or None
        As for :func:`forms`.
    """
    at = lever_lengths(rig)
    if not rig.hitch.weight_distribution or rig.trailer is None or at.b <= 0:
        return None
    state, form, factor, unit = state_of(rig), forms(rig, bench), KG[rig.units.mass], rig.units.mass
    full = statics.bar_moment(1.0, float(state[TONGUE]), at.b, at.length)
    limits = {row.id: row.limit.kg for row in rows if row.limit is not None}

    def loads(restoration: float) -> dict[str, float]:
        there = state.copy()
        there[MOMENT] = restoration * full
        return {check: float(coefs @ there) + constant for check, (coefs, constant) in form.items()}

    points = [BarPoint(restoration=step / 10, front=loads(step / 10)["vehicle.front_axle"] / factor,
                       rear=loads(step / 10)["vehicle.rear_axle"] / factor, trailer=loads(step / 10)["trailer.axles"] / factor)
              for step in range(11)]  # fmt: skip
    says = []
    slack, tight = loads(0.0), loads(1.0)
    for check in ("vehicle.rear_axle", "tires.rear", "vehicle.gross", "vehicle.payload"):
        limit = limits.get(check)
        if limit is None or check not in slack:
            continue
        label = check_label(rig, check)
        if tight[check] > limit:
            says.append(
                f"{label}: over at any tension, {print_mass(tight[check] - limit, unit)} even fully restored. The bars cannot cure it."
            )
        elif slack[check] > limit:
            meets = (slack[check] - limit) / (slack[check] - tight[check])
            says.append(f"{label}: within from {meets * 100:.0f} % restoration on.")
    limit = limits.get("trailer.axles")
    if limit is not None and tight["trailer.axles"] > limit:
        says.append(f"Trailer axles: over when fully restored, by {print_mass(tight['trailer.axles'] - limit, unit)}.")
    says.append(
        "The bars move load, they take none away and raise no rating. The front axle should not end above its load without the trailer."
    )
    if rig.hitch.target_restoration is not None:
        target = rig.hitch.target_restoration
        said = loads(target)
        says.insert(0, f"At the maker's target, {target * 100:.0f} %: front {print_mass(said['vehicle.front_axle'], unit)}, rear "
                    f"{print_mass(said['vehicle.rear_axle'], unit)}, trailer axles {print_mass(said['trailer.axles'], unit)}.")  # fmt: skip
    return BarCurve(
        points=points,
        now=rig.plan.front_restoration or 0.0,
        front_limit=limits["vehicle.front_axle"] / factor if "vehicle.front_axle" in limits else None,
        rear_limit=limits["vehicle.rear_axle"] / factor if "vehicle.rear_axle" in limits else None,
        trailer_limit=limits["trailer.axles"] / factor if "trailer.axles" in limits else None,
        front_solo=float(state[FRONT]) / factor,
        says=says,
    )
