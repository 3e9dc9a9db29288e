"""Stowage sense: where the cargo lies, what that really does to the tongue, left against right,
heavy and high.
"""

from collections.abc import Sequence

from noxel.core.mechanics import aboard, levers_of, load
from noxel.core.pack.answers import Stowage
from noxel.core.quantities import KG, print_mass, print_share
from noxel.core.rig import Load, RigFile, share_range
from noxel.core.wording import term_name

HEAVY, HIGH = 20.0, 1.0
"""From this mass [kg] and this height above the floor [m] on, an item is heavy and high."""


RULE = 0.60
"""The rule of thumb: this share of the cargo ahead of the axles."""


LEAN = 0.10
"""Left and right differing by more than this share of what has a side is worth a caution."""


def _sides(loads: Sequence[Load], unit_kg: float) -> tuple[float, float]:
    left = sum(load.kg for load in loads if load.side and load.side.m < 0)
    right = sum(load.kg for load in loads if load.side and load.side.m > 0)
    return left / unit_kg, right / unit_kg


def stowage(rig: RigFile, predicted_share: float | None) -> Stowage | None:
    """How the trailer's cargo lies, against the rule of thumb and against what it really does.

    ``rig``: its loads with their places; sides and heights where they were said.
    ``predicted_share``: the tongue share that the lever model predicts.

    None when nothing on the trailer has a place.
    """
    trailer, unit = rig.trailer, rig.units.mass
    length = trailer.geometry.coupler_to_axles if trailer else None
    carried = aboard(rig, "trailer")
    high = [
        load.name or "an item"
        for load in rig.loads
        if load.height and load.height.m >= HIGH and load.kg >= HEAVY
    ]
    factor = KG[unit]
    left, right = _sides(rig.loads, factor)
    says = []
    if left + right > 0 and abs(left - right) > LEAN * (left + right):
        heavy, by = ("left", left - right) if left > right else ("right", right - left)
        says.append(
            f"The {heavy} side carries {print_mass(by * factor, unit)} more. Wheels of one axle "
            "should be loaded alike: weigh each side."
        )
    if high:
        says.append(
            f"Heavy and high: {', '.join(high)}. Low and near the axles, they sway less and "
            "cannot fall far."
        )
    if length is None or not carried.placed:
        return (
            Stowage(
                ahead=0.0,
                behind=0.0,
                ahead_share=None,
                cargo_tongue=0.0,
                left=left,
                right=right,
                high=high,
                says=says,
            )
            if says
            else None
        )
    placed = [
        (load, load.position.m) for load in rig.loads if load.on == "trailer" and load.position
    ]
    ahead = sum(load.kg for load, place in placed if place < length.m)
    share = ahead / carried.placed
    tongue = load(levers_of(rig).in_trailer(carried.placed, carried.moment), "tongue_static") or 0.0
    added = print_mass(abs(tongue), unit)
    point = term_name(rig, "tongue")
    does = f"adds {added} to the {point}" if tongue >= 0 else f"takes {added} off the {point}"
    first = (
        f"{print_share(share)} of the trailer's cargo lies ahead of the axles; all of it "
        f"together {does}."
    )
    low, high_end = share_range(rig)
    if predicted_share is not None:
        inside = low <= predicted_share <= high_end
        if share >= RULE and predicted_share < low:
            first += (
                " The rule of thumb (60 % ahead) is kept, yet the share is "
                f"{print_share(predicted_share)}: how far ahead counts, not how much."
            )
        elif share < RULE and inside:
            first += (
                " The rule of thumb asks for 60 % ahead; the share is "
                f"{print_share(predicted_share)} all the same, inside what you aim at."
            )
    says.insert(0, first)
    tail = [load for load, place in placed if place > 1.3 * length.m and load.kg >= HEAVY]
    if tail:
        names = ", ".join(load.name or "an item" for load in tail)
        says.append(
            f"Far behind the axles: {names}. Weight at the tail swings like a pendulum and takes "
            "load off the hitch."
        )
    return Stowage(
        ahead=ahead / factor,
        behind=(carried.placed - ahead) / factor,
        ahead_share=share,
        cargo_tongue=tongue / factor,
        left=left,
        right=right,
        high=high,
        says=says,
    )
