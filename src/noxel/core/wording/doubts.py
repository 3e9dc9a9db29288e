"""Doubts in words: both figures, the likely cause, what to read again, and where it is simple, the
change that rights it.
"""

from noxel.core.limits import Doubt, DoubtCode
from noxel.core.mechanics import describe_pass
from noxel.core.quantities import KG, lower_first, print_mass
from noxel.core.rig import Pass, RigFile
from noxel.core.wording.answers import Advisory, Fix, FixChange
from noxel.core.wording.labels import figure_title, term_name, vehicle_word

_SAYS: dict[DoubtCode, str] = {
    "vehicle_lighter_than_empty": "The {v} weighs {figure} in {where}, less than its {name} of "
    "{other}.{cause}",
    "vehicle_far_below_gvwr": "The {v} weighs {figure} in {where}, less than half of its {other} "
    "{gvwr}.{cause}",
    "vehicle_far_above_gvwr": "The {v} weighs {figure} in {where}, more than half as much again as "
    "its {other} {gvwr}. Pounds typed as kilograms, or a digit too many?",
    "trailer_far_below_gvwr": "The trailer weighs {figure}, little more than half of its {other} "
    "{trailer_gvwr}. Its label in the other unit, or a digit too many?",
    "trailer_gvwr_against_axle_ratings": "The {trailer_gvwr} of {figure} does not fit the axle "
    "ratings of the trailer, which add up to {other}. Read them again on its label.",
    "bars_do_the_reverse": "With the bars engaged the {reversed} carry {less} less (± {pm}) than "
    "with the bars slack. Are the two passes swapped?",
    "negative_load": "The {load} comes out at {figure} (± {pm}), and no load is below nothing. An "
    "axle off the platform, or two readings swapped?",
    "trailer_lighter_than_dry": "The trailer weighs {figure}, less than its {dry_weight} of "
    "{other}. An axle off the platform, passes of "
    "different loads, or a weight misread?",
    "gvwr_against_axle_ratings": "The {gvwr} of {figure} does not fit the axle ratings, which add "
    "up to {other}.{cause} Read all three again "
    "on the certification label.",
    "tongue_sources_disagree": "Two ways to the {tongue_weight} differ by {apart} (± {pm}): "
    "{figure} and {other}. They cannot both be "
    "right: same load, same coupler height?",
    "passes_do_not_close": "Nothing was loaded between bars engaged and bars slack, yet the "
    "totals differ by {apart} (± {pm}): {figure} "
    "and {other}. An axle across two platforms, or someone aboard only once?",
    "trailer_totals_disagree": "The trailer alone weighs {figure}; the passes with the {v} make "
    "it {other}, {apart} apart (± {pm}). Not the "
    "same load, or an axle off the platform?",
    "ticket_total_differs": "The ticket of {where} prints {figure} in all; its readings add up to "
    "{other}, {apart} {more}.{cause}",
}


def _nines(rig: RigFile, apart: float) -> str:
    whole = abs(apart) / KG[rig.units.mass]
    if abs(whole - round(whole)) < 1e-6 and round(whole) % 9 == 0:
        return " A difference divisible by nine often means two digits swapped."
    return ""


def _vehicle(pass_: Pass) -> float:
    """What a pass reads of the vehicle; nothing where it reads only totals. [kg]"""
    return sum(
        mass.kg
        for name, mass in pass_.readings.items()
        if name.partition("_")[0] in ("front", "rear", "vehicle")
    )


def _unit_fix(rig: RigFile, doubt: Doubt, number: int) -> Fix | None:
    """Kilograms typed as pounds: the change that says so, of each pass whose figures then make
    sense.
    """
    weigh_in = rig.weigh_ins[number - 1]
    if doubt.number is None or (weigh_in.passes[doubt.number - 1].unit or rig.units.mass) != "lb":
        return None
    gvwr = rig.vehicle.ratings.gvwr
    meant = doubt.figure / KG["lb"]
    most = 1.5 * (gvwr.kg if gvwr else 2 * doubt.other)
    if not 0.6 * doubt.other <= meant <= most:
        return None
    same = [
        index
        for index, pass_ in enumerate(weigh_in.passes)
        if (pass_.unit or rig.units.mass) == "lb" and _vehicle(pass_) / KG["lb"] <= most
    ]
    changes = [FixChange(f"weigh_ins[{number - 1}].passes[{index}].unit", "kg") for index in same]
    return Fix("These are kilograms", changes)


def _digit_fix(rig: RigFile, doubt: Doubt) -> Fix | None:
    """A rating with a digit too many or too few: the one that fits its neighbours."""
    for factor in (0.1, 10.0):
        if 0.7 * doubt.other <= doubt.figure * factor <= 1.05 * doubt.other:
            meant = round(doubt.figure * factor / KG[rig.units.mass], 3)
            return Fix(
                f"It is {print_mass(doubt.figure * factor, rig.units.mass)}",
                [FixChange(doubt.path, meant)],
            )
    return None


def doubt_advisory(rig: RigFile, number: int | None, doubt: Doubt) -> Advisory:
    """A doubt as a warning, with its figures, its likely cause, and a change that would right it
    where that is plain.
    """
    unit, fix, cause = rig.units.mass, None, ""
    apart = doubt.figure - doubt.other
    if (
        doubt.code in ("vehicle_lighter_than_empty", "vehicle_far_below_gvwr")
        and number is not None
    ):
        fix = _unit_fix(rig, doubt, number)
        cause = (
            " Kilograms typed as pounds?"
            if fix
            else " An axle off the platform, a digit lost, or another vehicle's ticket?"
        )
    elif doubt.code == "gvwr_against_axle_ratings":
        fix = _digit_fix(rig, doubt)
        cause = " A digit too many or too few?" if fix else ""
    elif doubt.code == "ticket_total_differs":
        cause = _nines(rig, apart) or f" Read it again: {doubt.names[0]}."
    where = ""
    if number is not None and doubt.number is not None:
        where = describe_pass(rig.weigh_ins[number - 1].passes[doubt.number - 1], doubt.number)
    sentence = _SAYS[doubt.code].format(
        v=vehicle_word(rig),
        figure=print_mass(doubt.figure, unit),
        other=print_mass(doubt.other, unit),
        apart=print_mass(abs(apart), unit),
        pm=print_mass(doubt.plus_minus, unit),
        where=where,
        name=doubt.names[1].replace("curb weight", term_name(rig, "curb_weight")),
        gvwr=term_name(rig, "gvwr"),
        trailer_gvwr=term_name(rig, "trailer.gvwr"),
        less=print_mass(abs(doubt.figure), unit),
        reversed="front wheels" if doubt.names[0] == "front_restored" else "trailer's axles",
        load=lower_first(figure_title(rig, doubt.names[0]))
        if doubt.code == "negative_load"
        else "",
        dry_weight=term_name(rig, "dry_weight"),
        tongue_weight=term_name(rig, "tongue_weight"),
        more="less" if apart > 0 else "more",
        cause=cause,
    )
    numbers = {"figure": doubt.figure / KG[unit], "other": doubt.other / KG[unit]}
    return Advisory(
        code=doubt.code,
        level="warning",
        message=sentence,
        path=doubt.path,
        numbers=numbers,
        doubt=True,
        fix=fix,
    )
