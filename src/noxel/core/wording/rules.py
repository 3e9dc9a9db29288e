"""Sentences for rules of makers and law that are not kept."""

from noxel.core.limits import BrokenRule
from noxel.core.quantities import KG, print_length, print_mass, print_share
from noxel.core.rig import RigFile
from noxel.core.wording.answers import Advisory
from noxel.core.wording.labels import term_name, vehicle_word


def rule_sentence(rig: RigFile, rule: BrokenRule) -> str:
    """What is required, what was weighed, what to do."""
    unit = rig.units.mass
    weighs = f"the trailer weighs {print_mass(rule.weighed, unit)}"
    if rule.code in _WITHOUT_FIGURES:
        return _WITHOUT_FIGURES[rule.code].format(
            vehicle=vehicle_word(rig), tongue=term_name(rig, "tongue_weight")
        )
    if rule.code == "brakes_missing":
        return (
            f"You entered that trailer brakes are required above {print_mass(rule.limit, unit)}; "
            f"{weighs} and has none. "
            "The figure is local law: check it where you drive."
        )
    if rule.code == "bars_missing":
        above = f" above {print_mass(rule.limit, unit)}" if rule.limit else ""
        return (
            f"The vehicle's maker requires weight distribution{above}; {weighs}, and this "
            "hitch has none."
        )
    if rule.code == "bars_too_weak":
        return (
            f"The {term_name(rig, 'tongue_weight')} is {print_mass(rule.weighed, unit)}; the "
            "spring bars are made for "
            f"{print_mass(rule.limit, unit)}. Ask the hitch's maker for stronger ones."
        )
    if rule.code == "d_value_low":
        return (
            f"By the plates this vehicle and trailer need a D-value of {rule.weighed:.1f} kN; the "
            f"part has {rule.limit:.1f} kN. "
            "Check the plate on it, and where you drive."
        )
    if rule.code == "tire_speed":
        which = (
            "trailer's"
            if rule.path.startswith("trailer")
            else "front"
            if "front" in rule.path
            else "rear"
        )
        speed = "mph" if rig.units.mass == "lb" else "km/h"
        return (
            f"You travel at {rule.weighed:g} {speed}; the {which} tires are made for "
            f"{rule.limit:g} {speed}. "
            "Drive slower, or fit others."
        )
    if rule.code == "camper_centre":
        unit_of_length = rig.units.lengths
        return (
            f"The camper's centre of mass is at {print_length(rule.weighed, unit_of_length)}; the "
            "truck's camper label ends at "
            f"{print_length(rule.limit, unit_of_length)}. Move what is heavy, or another camper."
        )
    if rule.code == "tongue_table":
        return (
            f"The {term_name(rig, 'tongue_weight')} is {print_mass(rule.weighed, unit)}"
            f"{_give_or_take(rig, rule)}; with what the {vehicle_word(rig)} carries itself its "
            f"maker's table allows {print_mass(rule.limit, unit)}. Carry less in it, or put less "
            "on the hitch."
        )
    if rule.code == "tongue_table_ends":
        return (
            f"The {vehicle_word(rig)} carries {print_mass(rule.weighed, unit)}"
            f"{_give_or_take(rig, rule)} itself; its maker's table for the "
            f"{term_name(rig, 'tongue_weight')} ends at {print_mass(rule.limit, unit)}. Carry "
            "less in it, or ask the maker."
        )
    if rule.code == "drop_beyond_table":
        return (
            f"The ball mount is set to {print_length(rule.weighed, rig.units.lengths)}; its "
            "maker's table ends at "
            f"{print_length(rule.limit, rig.units.lengths)}. Beyond it nothing is rated: another "
            "ball mount, or another height."
        )
    if rule.code == "frontal_area":
        return (
            f"The trailer's frontal area is {rule.weighed:g}; the vehicle's maker allows "
            f"{rule.limit:g}. Wind and cooling limit the speed, "
            "or the trailer."
        )
    less = "less" if rule.weighed < rule.limit else "more"
    return (
        f"The bars give back {print_share(rule.weighed)} of what the front axle had lost, far "
        f"{less} than the maker's target of "
        f"{print_share(rule.limit)}. Set them by the manual, then weigh again."
    )


_WITHOUT_FIGURES = {
    "bars_forbidden": "The vehicle's maker forbids weight distribution, and this hitch has it. Ask "
    "the maker before towing with the bars.",
    "tongue_table_open": "The {vehicle}'s maker lets the {tongue} fall with what the {vehicle} "
    "carries itself. That cannot be judged before both are known: weigh the {vehicle} alone, and "
    "enter its empty weight.",
    "drop_not_known": "The ball mount's rating depends on how far it is set up or down. Measure "
    "the drop and enter it.",
}


def _give_or_take(rig: RigFile, rule: BrokenRule) -> str:
    """The ±, where only with it the figure is beyond the limit."""
    if rule.weighed > rule.limit:
        return ""
    return f" ± {print_mass(rule.plus_minus, rig.units.mass)}"


_OF_MASS = (
    "brakes_missing",
    "bars_missing",
    "bars_forbidden",
    "bars_too_weak",
    "tongue_table",
    "tongue_table_ends",
    "tongue_table_open",
)


def rule_advisory(rig: RigFile, rule: BrokenRule) -> Advisory:
    """The same as an advisory."""
    factor = KG[rig.units.mass] if rule.code in _OF_MASS else 1.0
    numbers = {"weighed": rule.weighed / factor, "limit": rule.limit / factor}
    return Advisory(
        code=rule.code,
        level="warning",
        message=rule_sentence(rig, rule),
        path=rule.path,
        numbers=numbers,
    )
