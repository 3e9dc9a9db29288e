"""Advisories: traps in the readings, cautions beside the checks, and what would settle the rest.

Each has a stable code, a sentence with its numbers, and the path it belongs to. None of them blocks
anything.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from noxel.core.limits import (
    UNDER_LOAD,
    BrokenRule,
    Checked,
    Doubt,
    axle_sets,
    pressure_for,
    under_load,
)
from noxel.core.mechanics import Weighing, describe_pass, reading_words
from noxel.core.quantities import KG, print_mass, print_pressure, upper_first
from noxel.core.rig import RigFile, share_range
from noxel.core.weigh.joining import joinable
from noxel.core.weigh.notes import Notes
from noxel.core.weigh.places import by_place
from noxel.core.weigh.slope import on_a_slope
from noxel.core.weigh.splits import axle_split, side_split, tag_split
from noxel.core.weigh.traps import TRAPS
from noxel.core.wording import (
    Advisory,
    base_guessed,
    check_label,
    doubt_advisory,
    missing_rating,
    rule_advisory,
    source_label,
    term_name,
    vehicle_word,
)


def _missing(notes: Notes) -> Iterator[Advisory]:
    weighing, figures = notes.weighing, notes.weighing.figures
    if not notes.rig.towing:
        return
    if weighing.hitched is None:
        yield notes.say(
            "missing_hitched",
            "A hitched pass is missing. It settles every axle, and both together.",
            notes.at,
            note=True,
        )
        return
    for loads in (weighing.hitched, weighing.solo):
        wanted = ("front", "rear", "trailer") if loads is weighing.hitched else ("front", "rear")
        lacking = [name for name in wanted if loads and getattr(loads, name) is None]
        if loads and lacking:
            yield notes.say(
                "pass_incomplete",
                f"{upper_first(describe_pass(loads.each, loads.number))}: still to come: "
                f"{', '.join(reading_words(name) for name in lacking)}.",
                notes.path(loads),
                note=True,
            )
    axles = figures.get("trailer_axles")
    if "trailer_gross" not in figures and weighing.solo is None and axles:
        low, high = share_range(notes.rig)
        least, most = axles.value / (1 - low), axles.value / (1 - high)
        yield notes.say(
            "missing_vehicle_only",
            f"With one hitched pass the {notes.hitch_load} and the trailer's total cannot be "
            "known. Weigh the "
            f"{vehicle_word(notes.rig)} alone: it settles both. The trailer cannot weigh less "
            "than its axles, "
            f"{notes.mass(axles.value)}; at a usual share of {low * 100:g}–{high * 100:g} % it "
            "would weigh "
            f"{notes.mass(least)} to {notes.mass(most)}, {notes.mass(least * low)} to "
            f"{notes.mass(most * high)} of it on the hitch.",
            notes.at,
            note=True,
            least=least,
            most=most,
        )
    elif (
        weighing.solo and weighing.engaged and not weighing.slack and "tongue_static" not in figures
    ):
        yield notes.say(
            "missing_slack_pass",
            "With the bars engaged the two passes give only the net load on the vehicle; part of "
            "it was moved to the "
            "trailer's axles. A hitched pass with the bars slack, or a scale under the coupler, "
            "settles all of it. "
            "Wheelbase, hitch offset and coupler-to-axle length would let it be worked out.",
            notes.at,
            note=True,
        )


def _payload(notes: Notes, rows: Iterable[Checked]) -> Iterator[Advisory]:
    loaded, gvwr = notes.weighing.figures.get("vehicle_hitched"), notes.rig.vehicle.ratings.gvwr
    if loaded is None or gvwr is None:
        return
    left = gvwr.kg - loaded.value
    row = next((row for row in rows if row.id == "vehicle.payload"), None)
    if row is None or row.margin is None:
        return
    gap = left - row.margin
    if abs(gap) > 2 * loaded.plus_minus:
        yield notes.say(
            "payload_gap",
            f"The scale leaves {notes.mass(left)} to the {term_name(notes.rig, 'gvwr')}, the "
            f"placard {notes.mass(row.margin)}: "
            f"{notes.mass(abs(gap))} {'more' if gap > 0 else 'less'} by the scale. The placard is "
            "for the vehicle as it left the "
            "factory. Keep to the smaller.",
            "vehicle.ratings.payload",
            note=True,
            by_scale=left,
            by_placard=row.margin,
        )


_STANDS_IN = {
    "optimistic": "The published one is often lower.",
    "conservative": "A hitch or cooling limit can be lower still.",
    "rough": "It is a rule of thumb, for ball hitches only.",
}


def _ratings(rig: RigFile, rows: Iterable[Checked]) -> Iterator[Advisory]:
    """Ratings that are missing, worked out, guessed, or of a chain with a link unrated."""
    for row in rows:
        name, limit = missing_rating(rig, row.id), row.limit
        if limit is None:
            if row.required and row.range is None:
                yield Advisory(
                    code="rating_missing",
                    level="note",
                    path=row.spec.rating,
                    message=f"No {name} is entered; this check cannot be made without it.",
                )
            continue
        figure = print_mass(limit.kg, rig.units.mass)
        if limit.worked_out:
            code, sentence = (
                "rating_worked_out",
                (
                    f"{source_label(rig, limit.source)}, {figure}, stands in for the {name}, "
                    "which is not entered. "
                    f"{_STANDS_IN[limit.certainty]} A calculated limit cannot confirm “within”: "
                    "enter the rating from the label."
                ),
            )
        elif limit.certainty == "incomplete_chain":
            parts = " and ".join(dict.fromkeys(limit.lacking))
            code, sentence = (
                "hitch_chain_incomplete",
                (
                    f"{check_label(rig, row.id)}: the least rating known is {figure}; the rating "
                    f"of the {parts} is not known. "
                    "The weakest link counts."
                ),
            )
        elif limit.certainty == "guessed":
            base = base_guessed(rig, limit)
            code, sentence = (
                "rating_guessed",
                f"{check_label(rig, row.id)}: "
                + (
                    f"the load is worked out from a {base} that is only a guess, so nothing "
                    f"confirms that it is within {figure}. "
                    "Weigh it empty, or enter the maker's figure."
                    if base
                    else f"the limit of {figure} is a guess or a worked-out figure, so it cannot "
                    "confirm “within”. Read the label."
                ),
            )
        else:
            continue
        yield Advisory(
            code=code,
            level="note",
            path=limit.path,
            message=sentence,
            numbers={"limit": limit.kg / KG[rig.units.mass]},
        )


def _pressures(notes: Notes) -> Iterator[Advisory]:
    """Pressures against the load that was weighed."""
    carried = under_load(notes.rig, notes.weighing.hitched, notes.weighing.figures)
    loads = {check: figure.value for check, figure in carried.items() if figure is not None}
    for axle_set in axle_sets(notes.rig):
        group = f"{axle_set.group} axle" if axle_set.group != "trailer" else "trailer's axles"
        load = loads.get(UNDER_LOAD[axle_set.group][0])
        need = pressure_for(axle_set.tires, load, car=axle_set.car) if load is not None else None
        if need is None or load is None:
            continue
        unit, path = notes.rig.units.pressures, f"{axle_set.path}.pressure"
        if need.kpa is None:
            yield notes.say(
                "pressure_none_carries",
                "No pressure that the tire maker and the sidewall allow carries the "
                f"{notes.mass(load)} on one tire of the "
                f"{group}.",
                path,
                load=load,
            )
        elif axle_set.tires.pressure and axle_set.tires.pressure.kpa < need.kpa * (1 - 1e-6):
            yield notes.say(
                "pressure_below_need",
                f"The tires of the {group} are set to "
                f"{print_pressure(axle_set.tires.pressure.kpa, unit)}; {notes.mass(load)} on one "
                f"tire needs at least {print_pressure(need.kpa, unit)}, cold.",
                path,
                load=load,
            )


def _accepted(rig: RigFile, number: int, advisory: Advisory) -> Advisory:
    """A warning that somebody looked at and found right stays on the record, as a note."""
    prefix = f"weigh_ins[{number - 1}]"
    path = (advisory.path or "").removeprefix(prefix).removeprefix(".")
    for accepted in rig.weigh_ins[number - 1].accepted:
        same = accepted.code == advisory.code and (advisory.doubt or accepted.path == path)
        if advisory.level == "warning" and same:
            return replace(advisory, level="note", accepted=True, accepted_note=accepted.note)
    return advisory


def advise(
    rig: RigFile,
    number: int | None,
    weighing: Weighing,
    rows: list[Checked],
    doubted: Sequence[Doubt] = (),
    rules: Sequence[BrokenRule] = (),
) -> list[Advisory]:
    """Everything there is to say beside the checks, warnings first.

    ``number``: which weigh-in was evaluated, from 1. ``weighing``: what it lets us know. ``rows``:
    the checks made of it. ``doubted``: what cannot be right about it; each is an advisory, and they
    come first. ``rules``: rules of the maker or the law that are not kept; they come next.
    """
    notices = sorted(
        (doubt_advisory(rig, number, doubt) for doubt in doubted),
        key=lambda advisory: advisory.fix is None,
    )
    notices += [rule_advisory(rig, rule) for rule in rules]
    if number is not None:
        notes = Notes(rig, number, weighing)
        for look in (
            *TRAPS,
            _missing,
            axle_split,
            tag_split,
            by_place,
            on_a_slope,
            joinable,
        ):
            notices += look(notes)
        notices += side_split(notes, rows)
        notices += [*(() if doubted else _payload(notes, rows)), *_pressures(notes)]
    notices += _ratings(rig, rows)
    if number is not None:
        notices = [_accepted(rig, number, advisory) for advisory in notices]
    return sorted(notices, key=lambda advisory: advisory.level == "note")
