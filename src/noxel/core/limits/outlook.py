"""The outlook: what the checks that cannot be made are expected to find. It changes no status: an
estimate clears nothing.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from noxel.core.limits.checks import (
    Checked,
    Foreseen,
    Outlook,
    bases_of,
    cargo_used,
    exceeds,
    payload_used,
)
from noxel.core.limits.ratings import Limit
from noxel.core.limits.specs import CHECKS, CheckId
from noxel.core.limits.under_load import under_load
from noxel.core.mechanics import (
    Knowledge,
    anything_listed,
    items_kg,
    listed,
    somebody_listed,
    uncounted,
)
from noxel.core.quantities import Figure, Term, total
from noxel.core.rig import RigFile, share_range

NEEDS_SOMEBODY = ("vehicle.gross", "vehicle.payload", "combination.gross")
"""Not within while nothing is listed in a vehicle that somebody must drive."""


@dataclass(slots=True)
class _Prospect:
    """The load that a check is expected to find, the same by the other of two labels, and whether
    it is what a list adds up to.
    """

    figure: Figure
    by_other_label: Figure | None = None
    by_list: bool = False


def _prospects(rig: RigFile, known: Knowledge) -> dict[CheckId, _Prospect]:
    loads = {
        spec.load: figure
        for spec in CHECKS.values()
        if (figure := known.known(spec.load)) is not None
    }
    prospects = {
        check: _Prospect(loads[spec.load])
        for check, spec in CHECKS.items()
        if spec.part in ("load", "share") and spec.load in loads
    }
    beyond: dict[CheckId, _Prospect | None] = {
        "vehicle.payload": _payload(rig, known),
        "trailer.cargo": _cargo(rig, known),
    }
    prospects |= {check: prospect for check, prospect in beyond.items() if prospect is not None}
    for check, figure in under_load(rig, None, loads).items():
        if figure is not None:
            prospects[check] = _Prospect(figure)
    return prospects


def _payload(rig: RigFile, known: Knowledge) -> _Prospect | None:
    """The loaded vehicle less the empty one; without either what is listed and what the hitch
    carries.
    """
    if known.empty is not None:
        used = payload_used(rig, known.known("vehicle_hitched"), known.empty)
        if used is None:
            return None
        figures = known.weighing.figures
        bases = bases_of(rig, known.weighing)
        if bases.empty_by_label is None or not figures.keys() & {"vehicle_solo", "vehicle_hitched"}:
            return _Prospect(used)
        other = known.empties[1][1] if len(known.empties) > 1 else None
        return _Prospect(used, payload_used(rig, known.known("vehicle_hitched"), other))
    net = known.net_on_hitch if rig.towing else 0.0
    if net is None or not items_kg(rig, "vehicle"):
        return None
    terms = [Term("", "listed in the vehicle, hitch included", listed(rig, "vehicle"))]
    if rig.towing:
        terms.append(Term("+", "load on the hitch", net))
    figure = total("payload_used", "what is listed + the load on the hitch", terms)
    return _Prospect(figure, by_list=True)


def _cargo(rig: RigFile, known: Knowledge) -> _Prospect | None:
    """The trailer in total less its weight as built; without either what is listed in it."""
    gross, way = known.known("trailer_gross"), known.way("trailer_gross")
    entered = next((base for base in known.dries if base.key == "dry_weight"), None)
    base = rig.plan.trailer_base
    from_it = way == "listed" and not (base and base.gross)  # then it cancels
    dry = (None if from_it else entered) or next(iter(known.dries), None)
    if gross is not None and way != "rating" and dry is not None:
        used = cargo_used(rig, gross, dry)
        other = bases_of(rig, known.weighing).dry_by_label
        if used is None or other is None or "trailer_axles" not in known.weighing.figures:
            return _Prospect(used) if used else None
        label = next(base for base in known.dries if base.key == "dry_by_label")
        return _Prospect(used, cargo_used(rig, gross, label))
    extras = [extra for extra in rig.trailer.dry_extras if not extra.counted] if rig.trailer else []
    if not extras and not anything_listed(rig, "trailer"):
        return None
    terms = [Term("", "listed in the trailer", listed(rig, "trailer"))]
    terms += uncounted(rig)
    return _Prospect(total("cargo_used", "what is listed in the trailer", terms), by_list=True)


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


def _cautious(rig: RigFile, known: Knowledge, check: CheckId, outlook: Outlook) -> Outlook:
    """The four cautions: what an estimate must not say, from what it rests on."""
    rests, way = known.rests_on_trailer(CHECKS[check].load), known.way("trailer_gross")
    if rests and way == "rating":
        if outlook == "over":
            return "over_at_rating"
        if check == "trailer.gross" and outlook == "within":
            return "open"
    if (
        rests
        and way == "listed"
        and rig.plan.trailer_by != "listed"
        and (outlook == "within" or (check == "tongue.share" and outlook == "low"))
    ):
        return "open"
    nobody = known.way("vehicle_solo") in (
        "empty_weighed",
        "curb",
        "placard",
    ) and not somebody_listed(rig)
    return "open" if nobody and check in NEEDS_SOMEBODY and outlook == "within" else outlook


def _of_list(rig: RigFile, known: Knowledge, check: CheckId, outlook: Outlook) -> Outlook:
    """The cautions about what only a list adds up to."""
    if check == "trailer.cargo":
        complete = rig.plan.trailer_by == "listed"
        return "open" if outlook == "within" and not complete else outlook
    if outlook == "within" and not somebody_listed(rig):
        return "open"
    return _cautious(rig, known, "hitch.tongue", outlook)  # it rests on the trailer by its tongue


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
    prospects = _prospects(rig, known)
    for row in rows:
        prospect = prospects.get(row.id)
        if row.status != "unknown" or row.actual is not None or prospect is None:
            continue
        actual, margin = prospect.figure, None
        if row.range is not None:
            status = _of_share(actual, *share_range(rig))
        elif row.limit is not None:
            status = _against_limit(actual, row.limit, row.cushion)
            margin = row.limit.kg - actual.value
            other = prospect.by_other_label
            if other is not None and _against_limit(other, row.limit, row.cushion) != status:
                status = "open"
        else:
            continue
        caution = _of_list if prospect.by_list else _cautious
        row.expected = Foreseen(actual, margin, caution(rig, known, row.id, status))


def outlook_of(rows: Iterable[Checked], *, settled: bool) -> Outlook:
    """One word over all checks, made or only expected: ``over``, ``within`` or ``open``.

    ``settled`` is that nothing stands that cannot be right, accepted or not, and that nothing came
    aboard since the weighing.
    """
    statuses = [row.expected.outlook if row.expected else row.status for row in rows]
    if any(status in ("over", "low") for status in statuses):
        return "over"
    return "within" if settled and all(status == "within" for status in statuses) else "open"
