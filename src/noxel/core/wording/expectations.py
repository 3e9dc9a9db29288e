"""What is expected in words: how each load is known that was not weighed, and what the checks are
expected to find.
"""

import math

from noxel.core.limits import Checked
from noxel.core.mechanics import Expected, Knowledge, Way, somebody_listed
from noxel.core.quantities import KG, print_mass, print_share, small_mass, upper_first
from noxel.core.rig import RigFile
from noxel.core.wording.labels import (
    limit_words,
    phrase_of,
    terms_of,
    vehicle_word,
)

WAYS: dict[Way, str] = {
    "plan": "the plan's base weights, plus what you listed",
    "empty_weighed": "the empty {v} as weighed, plus what you listed",
    "curb": "the {curb_weight}, plus what you listed",
    "placard": "the empty weight from the labels ({gvwr} − {payload}), plus what you listed",
    "axles_and_tongue": "the trailer's axles as weighed, plus the {tongue} as measured",
    "axles_and_share": "the trailer's axles as weighed, at a usual {tongue_share}",
    "listed": "the {dry_weight}, plus what you listed in the trailer",
    "rating": "the trailer loaded to its {trailer_gvwr}",
    "planned_share": "the {tongue_share} that you plan with",
    "places": "the {tongue_weight} as built, and where everything listed in the trailer lies",
    "dry_share": "the trailer's dry {tongue_share}",
    "usual_share": "a usual {tongue_share}",
    "tongue_and_gross": "{tongue_weight} ÷ trailer in total",
    "vehicle_and_tongue": "the {v} alone, plus the load on the hitch",
    "vehicle_and_trailer": "the {v} alone, plus the trailer in total",
    "gross_and_tongue": "the trailer in total, less the load on the hitch",
    "lever": "the lever model: where everything on your list lies",
    "other_weigh_in": "the weigh-in before, plus what came aboard since",
}
"""Each way to know a load that was not weighed, in the rig's terms."""

_BASIS: dict[Way, tuple[str, ...]] = {
    "plan": ("your plan",),
    "empty_weighed": ("the scale", "your list"),
    "curb": ("the labels", "your list"),
    "placard": ("the labels", "your list"),
    "axles_and_tongue": ("the scale",),
    "axles_and_share": ("the scale", "a usual {tongue_share}"),
    "listed": ("the labels", "your list"),
    "rating": ("the trailer's rating",),
    "planned_share": ("your plan",),
    "places": ("the places on your list",),
    "dry_share": ("the labels",),
    "usual_share": ("a usual {tongue_share}",),
    "tongue_and_gross": (),
    "vehicle_and_tongue": (),
    "vehicle_and_trailer": (),
    "gross_and_tongue": (),
}
_MADE_OF = {
    "vehicle_hitched": ("vehicle_solo", "tongue_static"),
    "combination_gross": ("vehicle_solo", "trailer_gross"),
    "trailer_axles": ("trailer_gross", "tongue_static"),
    "tongue_static": ("trailer_gross",),
    "tongue_share": ("tongue_static", "trailer_gross"),
    "front_hitched": ("tongue_static",),
    "rear_hitched": ("tongue_static",),
}


def _filled(rig: RigFile, text: str) -> str:
    return text.format(v=vehicle_word(rig), **terms_of(rig))


def way_words(rig: RigFile, way: Way) -> str:
    """How a load is known that was not weighed: “the curb weight, plus what you listed”."""
    return _filled(rig, WAYS[way])


def beside_words(rig: RigFile, used: Expected, other: Expected) -> str:
    """Another way to an expected load, what it gives, and whether it agrees with the one that is
    used.
    """
    by = way_words(rig, other.way)
    date = rig.weigh_ins[other.weigh_in - 1].date if other.weigh_in else None
    if date is not None:
        by = f"the weigh-in of {date.isoformat()}, plus what came aboard since"
    figure = other.figure
    if figure.sort == "share":
        sentence = f"{print_share(figure.value)} ± {print_share(figure.plus_minus)}"
    else:
        pm = f" ± {small_mass(figure.plus_minus, rig.units.mass)}" if figure.plus_minus else ""
        sentence = f"{print_mass(figure.value, rig.units.mass)}{pm}"
    # a trailer at its rating is the most that it may weigh, not what it does
    measured = "rating" not in (used.way, other.way)
    apart = measured and abs(figure.value - used.figure.value) > math.hypot(
        figure.plus_minus, used.figure.plus_minus
    )
    return f"By {by}: {sentence}{', which does not agree' if apart else ''}."


def _ways(known: Knowledge, key: str) -> list[Way]:
    """Every way that an expected load rests on."""
    way = known.way(key)
    if way is None:
        return []
    return [way, *(deeper for part in _MADE_OF.get(key, ()) for deeper in _ways(known, part))]


WEIGHED = "worked out from what was weighed"


def basis(rig: RigFile, known: Knowledge, key: str) -> str:
    """What an expected load rests on: “by the labels and your list”."""
    reasons: list[str] = []
    for way in _ways(known, key):
        reasons += [
            _filled(rig, basis) for basis in _BASIS[way] if _filled(rig, basis) not in reasons
        ]
    if not reasons:
        return WEIGHED
    listed = [", ".join(reasons[:-1]), reasons[-1]] if len(reasons) > 1 else reasons
    return f"by {' and '.join(listed)}"


def most_at_rating(known: Knowledge, row: Checked, key: str) -> float | None:
    """The heaviest loaded trailer at which a check that is over at the trailer's rating would just
    be within. [kg]
    """
    gross, load = known.known("trailer_gross"), known.known(key)
    if (
        row.expected is None
        or row.limit is None
        or gross is None
        or load is None
        or not gross.value
        or not load.value
    ):
        return None
    alone = {
        "vehicle_hitched": "vehicle_solo",
        "front_hitched": "front_solo",
        "rear_hitched": "rear_solo",
        "combination_gross": "vehicle_solo",
    }.get(key)
    base = known.known(alone) if alone else None
    per_trailer = (load.value - (base.value if base else 0.0)) / gross.value
    if row.id.startswith(("tires.", "wheels.", "assembly.")):
        per_trailer *= row.expected.actual.value / load.value
    if per_trailer <= 0:
        return None
    return max(0.0, gross.value - (row.expected.actual.value - row.limit.kg) / per_trailer)


def expected_sentence(rig: RigFile, known: Knowledge, row: Checked, key: str) -> str:
    """Say what a check that cannot be made is expected to find, and from what.

    ``rig``: for its units and terms. ``known``: what was weighed and what is expected. ``row``: the
    check, with what it is expected to find. ``key``: the load that it rests on.
    """
    if row.expected is None:
        return ""
    unit, actual, outlook = rig.units.mass, row.expected.actual, row.expected.outlook
    phrase = phrase_of(rig, row.id, row.limit.source if row.limit else None)
    by = basis(rig, known, key)
    end = f". {upper_first(by)}." if by == WEIGHED else f". Expected {by}; not weighed."
    if row.range is not None:
        low, high = row.range
        where = {
            "low": f"below {low * 100:g} %",
            "high": f"above {high * 100:g} %",
            "within": f"inside {low * 100:g}–{high * 100:g} %",
        }
        sentence = (
            f"{phrase.subject} is expected to carry {print_share(actual.value)} ± "
            f"{print_share(actual.plus_minus)} of the trailer"
        )
        return (
            f"{sentence}, "
            f"{where.get(outlook, f'too uncertain against {low * 100:g}–{high * 100:g} %')}{end}"
        )
    if row.limit is None or row.expected.margin is None:
        return ""
    limit, left = limit_words(rig, row), small_mass(abs(row.expected.margin), unit)
    pm = f" ± {small_mass(actual.plus_minus, unit)}" if actual.plus_minus else ""
    verb = "are" if phrase.plural else "is"
    if outlook == "over":
        return (
            f"{phrase.subject} {verb} expected {left} over "
            f"{limit}{f', {pm.strip()}' if pm else ''}{end}"
        )
    if outlook == "over_at_rating":
        most = most_at_rating(known, row, key)
        may = (
            ""
            if most is None
            else f" With a loaded trailer of at most {print_mass(most, unit)} it is within."
            if most > 0.0
            else " It is over even without a trailer."
        )
        return f"{phrase.subject} {verb} {left} over {limit} if the trailer is at its rating.{may}"
    if outlook == "within":
        return (
            f"{phrase.subject} {verb} expected to have {left} left of "
            f"{limit}{f', {pm.strip()}' if pm else ''}{end}"
        )
    sentence = (
        f"{phrase.subject} {verb} planned right at {limit}{pm}"
        if abs(row.expected.margin) < 0.5 * KG[unit]
        else f"{phrase.subject} {verb} expected at {print_mass(actual.value, unit)}{pm}, against "
        f"{limit}"
    )
    return f"{sentence}{_why_open(rig, known, row)}{end}"


def _why_open(rig: RigFile, known: Knowledge, row: Checked) -> str:
    """Why an expected check is left open though its figure looks well."""
    if row.expected is None or row.limit is None or row.expected.margin is None:
        return ""
    actual = row.expected.actual
    if actual.value + actual.plus_minus > row.cushion * row.limit.kg:
        return ": too close to say" if actual.plus_minus else ""
    if not row.limit.real:
        return ", which is not confirmed"
    if known.way("trailer_gross") == "listed" and rig.plan.trailer_by != "listed":
        return ", if your list for the trailer is complete"
    if not somebody_listed(rig):
        return f", with no driver listed in the {vehicle_word(rig)} yet"
    return ""
