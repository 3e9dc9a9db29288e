"""The outlook: what the checks that cannot be made are expected to find. It changes no status: an
estimate clears nothing.
"""

from collections.abc import Iterable

from noxel.core.limits.checks import (
    AXLE_LOAD,
    FIGURE_OF,
    Checked,
    Foreseen,
    Outlook,
    cargo_used,
    exceeds,
    payload_used,
)
from noxel.core.limits.ratings import Limit
from noxel.core.limits.tires import axle_sets
from noxel.core.limits.under_load import assembly_load, tire_load
from noxel.core.mechanics import Knowledge, anything_listed
from noxel.core.quantities import Figure
from noxel.core.rig import RigFile, share_range

NEEDS_SOMEBODY = ("vehicle.gross", "vehicle.payload", "combination.gross")
"""Not within while nothing is listed in a vehicle that somebody must drive."""


def _figures(rig: RigFile, known: Knowledge) -> dict[str, Figure | None]:
    """The load that each check is expected to find."""
    found: dict[str, Figure | None] = {check: known.known(key) for check, key in FIGURE_OF.items()}
    found["vehicle.payload"] = payload_used(rig, known.known("vehicle_hitched"), known.empty)
    if known.way("trailer_gross") != "rating":
        found["trailer.cargo"] = cargo_used(rig, known.known("trailer_gross"), known.dry)
    for each in axle_sets(rig):
        whole = known.known(AXLE_LOAD[each.group])
        found[f"tires.{each.group}"] = one = tire_load(
            rig, f"tire_{each.group}", None, each.group, whole, each.tires
        )
        found[f"wheels.{each.group}"] = one.renamed(f"wheel_{each.group}") if one else None
        found[f"assembly.{each.group}"] = assembly_load(
            rig, f"assembly_{each.group}", None, each.group, whole
        )
    return found


def _load_key(check: str) -> str:
    """The load that a check rests on."""
    group, _, name = check.partition(".")
    if group in ("tires", "wheels", "assembly"):
        return AXLE_LOAD[name]
    return {"vehicle.payload": "vehicle_hitched", "trailer.cargo": "trailer_gross"}.get(
        check
    ) or FIGURE_OF[check]


def _against_limit(actual: Figure, limit: Limit, cushion: float) -> Outlook:
    least, most = actual.value - actual.plus_minus, actual.value + actual.plus_minus
    if exceeds(least, limit.kg) and (not limit.worked_out or limit.certainty == "optimistic"):
        return "over"
    return "within" if limit.real and not exceeds(most, cushion * limit.kg) else "open"


def _of_share(actual: Figure, low: float, high: float) -> Outlook:
    least, most = actual.value - actual.plus_minus, actual.value + actual.plus_minus
    if exceeds(low, most):
        return "low"
    if exceeds(least, high):
        return "high"
    return "within" if not exceeds(low, least) and not exceeds(most, high) else "open"


def _cautious(rig: RigFile, known: Knowledge, check: str, found: Outlook) -> Outlook:
    """The four cautions: what an estimate must not say, from what it rests on."""
    rests, way = known.rests_on_trailer(_load_key(check)), known.way("trailer_gross")
    if rests and way == "rating":
        if found == "over":
            return "over_at_rating"
        if check == "trailer.gross" and found == "within":
            return "open"
    if (
        rests
        and way == "listed"
        and rig.plan.trailer_by != "listed"
        and (found == "within" or (check == "tongue.share" and found == "low"))
    ):
        return "open"
    nobody = known.way("vehicle_solo") in (
        "empty_weighed",
        "curb",
        "placard",
    ) and not anything_listed(rig, "vehicle")
    return "open" if nobody and check in NEEDS_SOMEBODY and found == "within" else found


def foresee(rig: RigFile, known: Knowledge, rows: Iterable[Checked]) -> None:
    """Add to each check that cannot be made what it is expected to find.

    Parameters
    ----------
    rig : RigFile
        Its labels, lists and policy.
    known : Knowledge
        What was weighed and what is expected.
    rows : iterable of Checked
        Their ``expected`` is set where a load is expected and the limit is known.
    """
    figures = _figures(rig, known)
    for row in rows:
        actual = figures.get(row.id)
        if row.status != "unknown" or actual is None:
            continue
        if row.range is not None:
            found, margin = _of_share(actual, *share_range(rig)), None
        elif row.limit is not None:
            found, margin = (
                _against_limit(actual, row.limit, row.cushion),
                row.limit.kg - actual.value,
            )
        else:
            continue
        row.expected = Foreseen(actual, margin, _cautious(rig, known, row.id, found))


def outlook_of(rows: Iterable[Checked], *, doubted: bool) -> Outlook:
    """One word over all checks, made or only expected: ``over``, ``within`` or ``open``.

    ``doubted`` is whether anything stands that cannot be right, accepted or not.
    """
    seen = [row.expected.outlook if row.expected else row.status for row in rows]
    if any(each in ("over", "low") for each in seen):
        return "over"
    return "within" if not doubted and all(each == "within" for each in seen) else "open"
