"""The checks in plain sentences. Never “safe”: figures are compared with ratings."""

from noxel.core.limits import (
    Checked,
    CheckId,
    Headroom,
    exceeds,
)
from noxel.core.quantities import lower_first, print_mass, print_share, small_mass
from noxel.core.rig import RigFile, on_its_wheels, on_pin
from noxel.core.wording.labels import (
    Phrase,
    base_guessed,
    check_label,
    limit_words,
    missing_rating,
    phrase_of,
    term_name,
    vehicle_word,
)

CAUTION = (
    "Noxel compares figures that you entered with ratings that you entered. Being within them is "
    "no guarantee: the makers' "
    "manuals, local law and a qualified technician come first."
)


AT_THE_SCALE = (
    "Chock the wheels before uncoupling. Never crawl under a trailer on its jack. Stay clear of "
    "the hitch, of a loaded lever and of "
    "spring bars. Block the tail before loading an uncoupled trailer. Do not hold up or walk "
    "about a working scale. Never tow with "
    "slack bars where the maker requires them."
)


def _share_sentence(rig: RigFile, row: Checked, phrase: Phrase) -> str:
    low, high = row.range or (0.0, 1.0)
    wanted = f"{low * 100:g}–{high * 100:g} %"
    if row.actual is None or row.status == "unknown":
        return f"{phrase.subject}'s share of the trailer is not known."
    share = print_share(row.actual.value)
    ending = {
        "low": f"below {low * 100:g} %: a light {term_name(rig, 'tongue')} invites sway",
        "high": f"above {high * 100:g} %: it "
        + (
            "loads the rear axle"
            if on_pin(rig)
            else "squats the vehicle and lightens the front axle"
        ),
        "tight": f"too near the edge of {wanted} to call",
        "within": f"inside {wanted}",
    }
    return f"{phrase.subject} carries {share} of the trailer, {ending[row.status]}."


def _left(row: Checked, unit: str) -> str:
    """What is left below the limit, or by how much it is exceeded."""
    if not row.margin:
        return f"0 {unit}"
    return small_mass(abs(row.margin), "kg" if unit == "kg" else "lb")


def _not_known(rig: RigFile, row: Checked) -> str:
    load, limit = _load_words(rig, row.id), limit_words(rig, row)
    if row.status == "over" and row.at_least is not None and row.limit is not None:
        by = small_mass(row.at_least.value - row.limit.kg, rig.units.mass)
        least = print_mass(row.at_least.value, rig.units.mass)
        phrase = phrase_of(rig, row.id, row.limit.source)
        known = f"{load} is not known; it is at least {least}."
        return f"{phrase.subject} {phrase.verb} at least {by} over {limit}. {known}"
    least = f", at least {print_mass(row.at_least.value, rig.units.mass)}" if row.at_least else ""
    return f"{load} is not known yet{least}; the limit is {limit}."


def _load_words(rig: RigFile, check: CheckId) -> str:
    """What a check judges, as the subject of a sentence."""
    word, behind = vehicle_word(rig), "towed car" if on_its_wheels(rig) else "trailer"
    named = {
        "vehicle.payload": f"The load in the {word}",
        "vehicle.gross": f"The weight of the {word}",
        "combination.gross": f"The weight of {word} and {behind} together",
        "trailer.cargo": f"The cargo in the {behind}",
        "hitch.tongue": f"The {term_name(rig, 'tongue_weight')}",
        **dict.fromkeys(
            ("vehicle.tow_rating", "trailer.gross", "hitch.trailer"), f"The {behind}'s weight"
        ),
    }
    return named.get(
        check, f"The load on the {lower_first(check_label(rig, check)).partition(',')[0]}"
    )


def _why_unconfirmed(rig: RigFile, row: Checked) -> str:
    """Why a limit cannot confirm that a load is within it, and what would."""
    other = row.by_other_label
    if other and row.limit and row.actual:
        over = exceeds(other.value, row.limit.kg)
        if over != exceeds(row.actual.value, row.limit.kg):
            by = small_mass(abs(row.limit.kg - other.value), rig.units.mass)
            which = "over" if over else "under"
            return f"By its own label it is {by} {which}: only weighing it empty can tell."
    if row.limit is None or row.limit.worked_out:
        return "A calculated limit cannot confirm “within”: enter the rating from the label."
    if row.limit.certainty == "incomplete_chain":
        parts = " and ".join(dict.fromkeys(row.limit.lacking))
        return f"Not confirmed: no rating read off the {parts}."
    base = base_guessed(rig, row.limit)
    return (
        f"The {base} is only a guess: weigh it or enter the maker's figure."
        if base
        else "The rating is only a guess: read its label."
    )


def sentence(rig: RigFile, row: Checked) -> str:
    """Say what one check found.

    ``rig``: for its units and what its vehicle is called. ``row``: the check.
    """
    unit = rig.units.mass
    phrase = phrase_of(rig, row.id, row.limit.source if row.limit else None)
    if row.range is not None:
        return _share_sentence(rig, row, phrase)
    if row.limit is None:
        return f"{phrase.subject} cannot be judged: no {missing_rating(rig, row.id)} is entered."
    if row.margin is None or row.actual is None:
        return _not_known(rig, row)
    limit, left = limit_words(rig, row), _left(row, unit)
    if row.status == "over":
        return f"{phrase.subject} {phrase.verb} {left} over {limit}."
    if row.status == "unconfirmed":
        return (
            f"{phrase.subject} {phrase.verb} {left} {'over' if row.margin < 0 else 'under'} "
            f"{limit}. {_why_unconfirmed(rig, row)}"
        )
    if row.status == "tight" and row.margin <= row.actual.plus_minus * (1 + 1e-9):
        pm = small_mass(row.actual.plus_minus, unit)
        return f"{phrase.subject} {phrase.verb} too close to call: {left} left of {limit}, ± {pm}."
    if row.status == "tight":
        return (
            f"{phrase.subject} {phrase.verb} past your cushion of {row.cushion * 100:g} %: "
            f"{left} left of {limit}."
        )
    return f"{phrase.subject} {'have' if phrase.plural else 'has'} {left} left of {limit}."


def many(count: int, singular: str, several: str) -> str:
    """A sentence for one, or for several with their number."""
    return singular if count == 1 else several.format(count)


def room_sentence(rig: RigFile, room: Headroom) -> str:
    """Say how much more can go in somewhere, where it is taken to lie, and which rating limits
    it.
    """
    unit = rig.units.mass
    place = vehicle_word(rig) if room.where == "vehicle" else "trailer"
    phrase = phrase_of(rig, room.check.id, room.check.limit.source if room.check.limit else None)
    limit = phrase.limit.format(print_mass(room.check.limit.kg, unit)) if room.check.limit else ""
    whose = lower_first(phrase.subject)
    if limit.startswith("its ") and " that " in whose:
        limit = f"the {limit.removeprefix('its ')} of {whose}"
    limit = (
        limit.replace("its ", f"{whose}'s ", 1)
        if limit.startswith("its ")
        else limit.replace("their ", f"{whose}' ", 1)
    )
    if room.by_table:
        point = term_name(rig, "tongue")
        limit = f"what the {vehicle_word(rig)}'s maker's table leaves for the {point}"
    cushion = f" (used to {room.check.cushion * 100:g} %)" if room.check.cushion < 1 else ""
    unknown = (
        f" {many(room.unknown, 'One check', '{} checks')} could not be counted."
        if room.unknown
        else ""
    )
    spread = (
        "spread as its load is now"
        if room.where == "trailer" or room.listed
        else "just ahead of the rear axle"
    )
    if room.kg < 0:
        move = room.check.id in (
            "vehicle.front_axle",
            "vehicle.rear_axle",
            "hitch.tongue",
            "tires.front",
            "tires.rear",
        )
        other = " Moving load may do as well: try it in Adjust." if move else ""
        return (
            f"Remove {print_mass(-room.kg, unit)} from the {place}, {spread}, to get within "
            f"{limit}{cushion}.{other}{unknown}"
        )
    return (
        f"{print_mass(room.kg, unit)} more can go in the {place}, {spread}: limited by "
        f"{limit}{cushion}.{unknown}"
    )


PHASE_NAMES = {
    "leaving": "leaving",
    "half_way": "half-way",
    "arriving": "arriving",
    "heading_home": "heading home",
}
