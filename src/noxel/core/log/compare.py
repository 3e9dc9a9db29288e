"""Two to four weigh-ins side by side: before and after a repack, hitch A and hitch B and a plain
ball.

What is the same within both ± counts as the same; where weigh-ins are not like for like, it is
said.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

from noxel.core.log.logbook import LINES
from noxel.core.mechanics import Weighing, weigh
from noxel.core.quantities import KG, Figure, print_mass
from noxel.core.rig import RigFile, WeighIn
from noxel.core.wording import Answer, figure_title
from noxel.errors import InputError, Problem

_ROWS = (
    *LINES,
    "front_solo",
    "rear_solo",
    "tongue_share",
    "tongue_net",
    "front_transfer",
    "rear_transfer",
    "front_restored",
    "front_restoration",
    "trailer_transfer",
)
"""What is compared, in this order."""


_SHARES = ("tongue_share", "front_restoration")


class WeighInRef(NamedTuple):
    """A weigh-in of a rig, by its place in it from 1 and by its number in the whole log."""

    rig: RigFile
    place: int
    number: int


class ComparedRow(Answer):
    """One figure in each of the weigh-ins compared; differences are from the first, real ones
    beyond both ±.
    """

    key: str
    label: str
    values: list[float | None]
    plus_minus: list[float | None]
    differences: list[float | None]
    real: list[bool]
    share: bool


class Comparison(Answer):
    """Two to four weigh-ins side by side; ``warnings`` say where they are not like for like,
    ``closure`` what their totals prove.
    """

    titles: list[str]
    rows: list[ComparedRow]
    says: list[str]
    closure: list[str]
    warnings: list[str]


class _Side(NamedTuple):
    rig: RigFile
    weigh_in: WeighIn
    weighing: Weighing
    title: str


def compare_weigh_ins(wanted: Sequence[WeighInRef]) -> Comparison:
    """Two to four weigh-ins side by side, in the first one's unit; of one rig, or of rigs that
    share a vehicle or a trailer.

    ``wanted``: differences are from the first.

    Raises InputError if there are fewer than two, more than four, one twice, or one that is not
    there.
    """
    if not 2 <= len(wanted) <= 4 or len({(id(side.rig), side.number) for side in wanted}) != len(
        wanted
    ):
        raise InputError(
            "Choose two to four different weigh-ins.",
            [Problem("numbers", "two to four different ones", "count")],
        )
    for chosen in wanted:
        if not 1 <= chosen.place <= len(chosen.rig.weigh_ins):
            message = f"there is no weigh-in {chosen.number}"
            raise InputError(f"T{message[1:]}.", [Problem("numbers", message, "missing")])
    several = len({side.rig.name for side in wanted}) > 1
    sides = []
    for rig, place, number in wanted:
        weigh_in = rig.weigh_ins[place - 1]
        sides.append(
            _Side(
                rig,
                weigh_in,
                weigh(rig, weigh_in),
                _title(rig if several else None, weigh_in, number),
            )
        )
    rows = [row for key in _ROWS if (row := _row(sides, key))]
    return Comparison(
        titles=[side.title for side in sides],
        rows=rows,
        says=_says(sides[0].rig, rows),
        closure=_closure(sides),
        warnings=_warnings(sides),
    )


def _title(rig: RigFile | None, weigh_in: WeighIn, number: int) -> str:
    when = weigh_in.date.isoformat() if weigh_in.date else f"no. {number}"
    tags = f" ({', '.join(weigh_in.tags)})" if weigh_in.tags else ""
    whose = f"{rig.name}: " if rig else ""
    where = f", {weigh_in.place}" if weigh_in.place else ""
    return f"{whose}{when}{where}{tags}"


def _row(sides: Sequence[_Side], key: str) -> ComparedRow | None:
    figures = [side.weighing.figures.get(key) for side in sides]
    if sum(figure is not None for figure in figures) < 2:
        return None
    share, first = key in _SHARES, figures[0]
    factor = 1.0 if share else KG[sides[0].rig.units.mass]
    apart = [
        None if figure is None or first is None else _apart(first, figure) for figure in figures
    ]
    return ComparedRow(
        key=key,
        label=figure_title(sides[0].rig, key),
        values=[None if figure is None else figure.value / factor for figure in figures],
        plus_minus=[None if figure is None else figure.plus_minus / factor for figure in figures],
        differences=[
            None if difference is None else difference[0] / factor for difference in apart
        ],
        real=[
            difference is not None and abs(difference[0]) > difference[1] for difference in apart
        ],
        share=share,
    )


def _apart(first: Figure, other: Figure) -> tuple[float, float]:
    """A difference and its ±."""
    return other.value - first.value, math.hypot(other.plus_minus, first.plus_minus)


def _names(side: _Side, part: str) -> str:
    return str(getattr(getattr(side.rig, part), "name", ""))


def _says(rig: RigFile, rows: Sequence[ComparedRow]) -> list[str]:
    unit, factor = rig.units.mass, KG[rig.units.mass]
    real = [row for row in rows if not row.share and any(row.real[1:])]
    if not real:
        return ["No load changed by more than the scales can tell."]
    parts = []
    for row in real:
        last = row.differences[-1]
        if row.key in LINES and last is not None and row.real[-1]:
            parts.append(
                f"{row.label} {'+' if last > 0 else '−'}{print_mass(abs(last) * factor, unit)}"
            )
    return (
        [f"From the first to the last: {', '.join(parts)}."]
        if parts
        else ["What changed on the way is back where it was."]
    )


def _closure(sides: Sequence[_Side]) -> list[str]:
    """Nothing loaded, nothing gone: all platforms added must agree, and what leaves one axle must
    arrive on another.
    """
    unit, rows = sides[0].rig.units.mass, []
    first = sides[0].weighing.figures.get("combination_gross")
    for side in sides[1:]:
        other = side.weighing.figures.get("combination_gross")
        if (
            first is None
            or other is None
            or any(_names(side, part) != _names(sides[0], part) for part in ("vehicle", "trailer"))
        ):
            continue
        by, pm = _apart(first, other)
        amount = f"{print_mass(abs(by), unit)} (± {print_mass(pm, unit)})"
        if abs(by) <= pm:
            rows.append(
                f"{side.title}: everything together agrees with the first within {amount}, so "
                "what left one axle arrived on another."
            )
        else:
            rows.append(
                f"{side.title}: everything together is {amount} {'more' if by > 0 else 'less'} "
                "than in the first: something was "
                "loaded, unloaded or burned, and a hitch cannot be judged from it."
            )
    return rows


def _warnings(sides: Sequence[_Side]) -> list[str]:
    """Where weigh-ins are not like for like: rig, scale, fuel, people, load, bars."""
    changes, unit = [], sides[0].rig.units.mass
    for part in ("vehicle", "trailer"):
        names = {_names(side, part) for side in sides}
        if len(names) > 1:
            changes.append(
                f"Not the same {part}: {', '.join(sorted(name or 'none' for name in names))}."
            )
    scales = {
        (weigh_in.scale.kind or "", round(weigh_in.scale.resolution.kg, 6))
        for weigh_in in (side.weigh_in for side in sides)
        if weigh_in.scale
    }
    if len(scales) > 1:
        changes.append(
            "Not the same scale, or not the same graduation: part of a difference may be the "
            "scales'."
        )
    places = {side.weigh_in.place for side in sides if side.weigh_in.place}
    if len(places) > 1:
        changes.append(
            f"Not weighed at the same place ({', '.join(sorted(places))}): two scales can differ "
            "by more than either's ±."
        )
    for name, part in (("fuel", "Fuel"), ("aboard", "What was aboard")):
        notes = {
            next(
                (getattr(pass_, name) for pass_ in side.weigh_in.passes if getattr(pass_, name)),
                None,
            )
            for side in sides
        }
        if len(notes) > 1:
            changes.append(
                f"{part} is noted differently: "
                f"{'; '.join(sorted(note or 'not noted' for note in notes))}."
            )
    first = sides[0].weighing.figures.get("vehicle_solo")
    for side in sides[1:]:
        solo = side.weighing.figures.get("vehicle_solo")
        if (
            first
            and solo
            and abs(solo.value - first.value) > math.hypot(solo.plus_minus, first.plus_minus)
        ):
            changes.append(
                f"The vehicle alone differs by {print_mass(abs(solo.value - first.value), unit)}: "
                "not the same load, so a hitch "
                "cannot be judged from it."
            )
            break
    bars = {
        "engaged" if side.weighing.engaged else "slack"
        for side in sides
        if side.weighing.hitched and side.rig.hitch.weight_distribution
    }
    if len(bars) > 1:
        changes.append("The bars were not set alike in all of them.")
    return changes
