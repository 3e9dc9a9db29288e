"""The verdict and the checks in plain sentences. Never “safe”: figures entered are compared with ratings entered."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from noxel.core.answers import Headline
from noxel.core.checks import Checked, Verdict, binding, tightest_first
from noxel.core.ratings import on_pin
from noxel.core.rigfile import RigFile
from noxel.core.rooms import Room
from noxel.core.terms import SETS, TermSet
from noxel.core.units import KG, MassUnit, print_mass, print_share, round_half_up

CAUTION = (
    "Noxel compares figures that you entered with ratings that you entered. Within them is no promise: the makers' "
    "manuals, local law and a qualified technician come first."
)
AT_THE_SCALE = (
    "Chock the wheels before uncoupling. Never crawl under a trailer on its jack. Stay clear of the tongue, of a loaded lever and of "
    "spring bars. Block the tail before loading an uncoupled trailer. Do not hold up or walk about a working scale. Never tow with "
    "slack bars where the maker requires them."
)

_FIGURES = {
    "front_hitched": "Front axle, hitched",
    "rear_hitched": "Rear axle, hitched",
    "vehicle_hitched": "Vehicle, hitched",
    "front_solo": "Front axle, vehicle only",
    "rear_solo": "Rear axle, vehicle only",
    "vehicle_solo": "Vehicle only",
    "trailer_axles": "Trailer axles, hitched",
    "combination_gross": "Together",
    "tongue_net": "Net load on the vehicle",
    "front_transfer": "Front axle's change",
    "rear_transfer": "Rear axle's change",
    "tongue_static": "Tongue weight",
    "trailer_gross": "Trailer, in total",
    "tongue_share": "Tongue share",
    "front_restored": "Given back to the front axle by the bars",
    "trailer_transfer": "Moved onto the trailer's axles by the bars",
    "front_restoration": "Share of the front axle's loss given back",
    "curb_measured": "Vehicle empty, weighed",
}

_SOURCES = {
    "gvwr+tow_rating": "{gvwr} + {tow_rating}",
    "gcwr-gvwr": "{gcwr} − {gvwr}",
    "tongue_rating": "vehicle's {tongue_rating}",
    "10% of tow_rating": "10 % of {tow_rating}",
    "trailer.gvwr": "trailer {trailer_gvwr}",
}


def term(rig: RigFile, key: str) -> str:
    """What a thing is called in the rig's set of terms; a thing that has no name of its own there keeps its key."""
    return SETS[rig.terms].get(key, key)


@lru_cache(16)
def _fill(terms: TermSet) -> dict[str, str]:
    return {key.replace(".", "_"): name for key, name in SETS[terms].items()}


@dataclass(frozen=True, slots=True)
class _Phrase:
    label: str
    subject: str
    limit: str
    plural: bool = False

    @property
    def verb(self) -> str:
        return "are" if self.plural else "is"


_VEHICLES = {"pickup": "truck", "wagon": "car", "van": "van", "motorhome": "motorhome", None: "tow vehicle"}


def vehicle_word(rig: RigFile) -> str:
    """What to call the vehicle: truck, car, van, motorhome; without a body entered, by the kind of rig."""
    body = rig.vehicle.body or ("motorhome" if rig.kind == "motorhome" else None)
    return _VEHICLES[body]


def source_label(rig: RigFile, source: str) -> str:
    """A limit's source in the rig's terms; a hitch part's kind is its own."""
    return _labelled(source, rig.terms)


@lru_cache(512)
def _labelled(source: str, terms: TermSet) -> str:
    return _SOURCES[source].format(**_fill(terms)) if source in _SOURCES else SETS[terms].get(source, source)


def figure_title(rig: RigFile, key: str) -> str:
    """The title of a derived figure."""
    if key.startswith("trailer_axle_"):
        return f"Trailer axle {key.rsplit('_', 1)[1]}"
    named = {"tongue_static": "tongue_weight", "tongue_share": "tongue_share"}.get(key)
    if named and not on_pin(rig):
        title = term(rig, named)
        return title[0].upper() + title[1:]
    return _FIGURES.get(key, key)


_PHRASES = {  # label, subject, limit; {v} the vehicle's word, {t} tongue or pin, {p} the hitch part that limits
    "vehicle.front_axle": ("Front axle", "The front axle", "its {} rating"),
    "vehicle.rear_axle": ("Rear axle", "The rear axle", "its {} rating"),
    "vehicle.gross": ("{V}, loaded", "The {v}", "its {} {gvwr}"),
    "vehicle.payload": ("Payload", "The load in the {v}, {t} included,", "the {} payload rating"),
    "combination.gross": ("Together", "The {v} and trailer together", "the {} {gcwr}"),
    "vehicle.tow_rating": ("{Tow_rating}", "The trailer", "the {v}'s {} {tow_rating}"),
    "trailer.gross": ("Trailer, in total", "The trailer", "its {} {trailer_gvwr}"),
    "trailer.axles": ("Trailer axles", "The trailer's axles", "their {} rating"),
    "trailer.cargo": ("Trailer cargo", "The trailer's cargo", "its {} {trailer_ccc}"),
    "hitch.trailer": ("Trailer on the hitch", "The trailer", "the {p}'s {} trailer rating"),
    "hitch.tongue": ("{T} on the hitch", "The {t}", "the {p}'s {} {t} rating"),
    "tires.front": ("Front tires", "The front tire that carries most", "its {} rating"),
    "tires.rear": ("Rear tires", "The rear tire that carries most", "its {} rating"),
    "tires.trailer": ("Trailer tires", "The trailer tire that carries most", "its {} rating"),
    "tongue.share": ("{T} share", "The {t}", ""),
}


def _phrase(rig: RigFile, check: str, source: str | None) -> _Phrase:
    return _filled(check, vehicle_word(rig), "pin" if on_pin(rig) else "tongue", source, rig.terms)


@lru_cache(512)  # a hitch part may have any name
def _filled(check: str, word: str, tongue: str, source: str | None, terms: TermSet) -> _Phrase:
    if check not in _PHRASES:
        axle = f"Trailer axle {check.rsplit('_', 1)[1]}"
        return _Phrase(axle, axle, "its {} rating")
    part = "vehicle" if source == "tongue_rating" else source or "hitch"
    fill = dict(_fill(terms))
    tongue = tongue if tongue == "pin" else fill["tongue"]
    tow = fill["tow_rating"]
    fill |= {"v": word, "V": word.capitalize(), "t": tongue, "T": tongue.capitalize(), "p": part,
             "Tow_rating": tow[0].upper() + tow[1:]}  # fmt: skip
    label, subject, limit = _PHRASES[check]
    plural = check in ("combination.gross", "trailer.axles")
    # "{}" in the limit stays, for the figure
    return _Phrase(label.format(**fill), subject.format(**fill), limit.format("{}", **fill), plural)


def check_label(rig: RigFile, check: str) -> str:
    """The check's name in the ledger."""
    return _phrase(rig, check, None).label


def small_mass(kg: float, unit: MassUnit) -> str:
    """Print an amount that must not read as nothing: below half a unit it is “less than 1 lb”."""
    if kg and round_half_up(kg / KG[unit]) == 0:
        return f"less than 1 {unit}"
    return print_mass(kg, unit)


def _share_sentence(rig: RigFile, row: Checked, phrase: _Phrase) -> str:
    low, high = row.range or (0.0, 1.0)
    wanted = f"{low * 100:g}–{high * 100:g} %"
    if row.actual is None:
        return f"{phrase.subject}'s share of the trailer is not known."
    share = print_share(row.actual.value)
    ending = {
        "low": f"below {low * 100:g} %: a light {phrase.label.split()[0].lower()} invites sway",
        "high": f"above {high * 100:g} %: it "
        + ("loads the rear axle" if on_pin(rig) else "squats the vehicle and lightens the front axle"),
        "tight": f"too near the edge of {wanted} to call",
        "within": f"inside {wanted}",
    }
    return f"{phrase.subject} carries {share} of the trailer, {ending[row.status]}."


def sentence(rig: RigFile, row: Checked) -> str:
    """Say what one check found.

    Parameters
    ----------
    rig : RigFile
        For its units and what its vehicle is called.
    row : Checked
        The check.
    """
    unit = rig.units.mass
    phrase = _phrase(rig, row.id, row.limit.source if row.limit else None)
    if row.range is not None:
        return _share_sentence(rig, row, phrase)
    if row.limit is None:
        return f"{phrase.subject} {phrase.verb} not judged: no {missing_rating(rig, row.id)} entered."
    limit = phrase.limit.format(print_mass(row.limit.kg, unit))
    if row.limit.worked_out:
        limit = f"a worked-out limit of {print_mass(row.limit.kg, unit)} ({source_label(rig, row.limit.source)}, {row.limit.certainty})"
    if row.margin is None or row.actual is None:
        if row.status == "over" and row.at_least is not None:
            by = small_mass(row.at_least.value - row.limit.kg, unit)
            return (
                f"{phrase.subject} cannot weigh less than {print_mass(row.at_least.value, unit)}: at least {by} over {limit}."
            )
        least = f"; at least {print_mass(row.at_least.value, unit)}" if row.at_least else ""
        return f"{phrase.subject} {phrase.verb} not known{least}; to be held against {limit}."
    left = small_mass(abs(row.margin), unit)
    if row.margin == 0:
        left = f"0 {unit}"
    if row.status == "over":
        return f"{phrase.subject} {phrase.verb} {left} over {limit}."
    if row.status == "unconfirmed":
        side = f"{left} over" if row.margin < 0 else f"{left} under"
        return f"{phrase.subject} {phrase.verb} {side} {limit}. Enter the real rating."
    if row.status == "tight" and row.margin <= row.actual.plus_minus * (1 + 1e-9):
        pm = small_mass(row.actual.plus_minus, unit)
        return f"{phrase.subject} {phrase.verb} too close to call: {left} left of {limit}, ± {pm}."
    if row.status == "tight":
        return f"{phrase.subject} {phrase.verb} past your cushion of {row.cushion * 100:g} %: {left} left of {limit}."
    return f"{phrase.subject} {'have' if phrase.plural else 'has'} {left} left of {limit}."


def missing_rating(rig: RigFile, check: str) -> str:
    """The name of the rating that a check lacks."""
    key = {
        "vehicle.front_axle": "gawr_front", "vehicle.rear_axle": "gawr_rear", "vehicle.gross": "gvwr", "combination.gross": "gcwr",
        "vehicle.tow_rating": "tow_rating", "hitch.tongue": "tongue_rating",
    }.get(check)  # fmt: skip
    if key:
        return term(rig, key)
    return {
        "trailer.gross": f"trailer {term(rig, 'trailer.gvwr')}", "trailer.axles": f"trailer {term(rig, 'trailer.gawr')}",
        "hitch.trailer": "trailer rating of the hitch",
    }.get(check, "rating")  # fmt: skip


_GROUPS: dict[str, Literal["vehicle", "trailer", "hitch", "combination", "tires"]] = {
    "vehicle": "vehicle", "trailer": "trailer", "hitch": "hitch", "tongue": "hitch", "combination": "combination", "tires": "tires",
}  # fmt: skip


def group_of(check: str) -> Literal["vehicle", "trailer", "hitch", "combination", "tires"]:
    """Which part of the rig a check belongs to; the tow rating and the GCWR are of both together."""
    return "combination" if check == "vehicle.tow_rating" else _GROUPS[check.split(".")[0]]


def room_sentence(rig: RigFile, room: Room) -> str:
    """Say how much more can go in somewhere, and what ends it."""
    unit = rig.units.mass
    place = vehicle_word(rig) if room.where == "vehicle" else "trailer"
    phrase = _phrase(rig, room.check.id, room.check.limit.source if room.check.limit else None)
    limit = phrase.limit.format(print_mass(room.check.limit.kg, unit)) if room.check.limit else ""
    whose = phrase.subject[0].lower() + phrase.subject[1:]
    if limit.startswith("its ") and " that " in whose:
        limit = f"the {limit.removeprefix('its ')} of {whose}"
    limit = limit.replace("its ", f"{whose}'s ", 1) if limit.startswith("its ") else limit.replace("their ", f"{whose}' ", 1)
    cushion = f" (used to {room.check.cushion * 100:g} %)" if room.check.cushion < 1 else ""
    unknown = f" {_many(room.unknown, 'One check', '{} checks')} could not be counted." if room.unknown else ""
    if room.kg < 0:
        return f"{print_mass(-room.kg, unit)} must come off, if all of it comes off the {place}: {limit}{cushion} is exceeded.{unknown}"
    return f"{print_mass(room.kg, unit)} more can go in the {place}, then {limit}{cushion} is met.{unknown}"


_LEADS = {"stop": "Stop.", "incomplete": "Not settled.", "caution": "Caution.", "within": "Within every rating entered."}


def _many(count: int, one: str, many: str) -> str:
    return one if count == 1 else many.format(count)


def headline(rig: RigFile, checks: list[Checked], found: Verdict) -> Headline:
    """The verdict in one sentence that names the binding limit, and what else stands out."""
    rows = tightest_first(checks)
    bind = binding(rows)
    wrong = [row for row in rows if row.status in ("over", "low")]
    unknown = [row for row in rows if row.required and row.status == "unknown"]
    near = [row for row in rows if row.status in ("tight", "high", "unconfirmed")]
    rest: list[str] = []
    if found == "stop":
        first = bind if bind in wrong else wrong[0]
        others = [row for row in wrong if row is not first]
        rest += [sentence(rig, row) for row in others]
        rest += [sentence(rig, row) for row in near if row.status in ("tight", "high")]
        if unknown:
            rest.append(_many(len(unknown), "One check could not be made.", "{} checks could not be made."))
        return Headline(lead=_LEADS[found], sentence=sentence(rig, first), rest=rest)
    if found == "incomplete":
        known = len([row for row in rows if row.status != "unknown"])
        said = _many(len(unknown), "One required check cannot be made", "{} required checks cannot be made")
        tail = "nothing that is known is over" if known else "nothing has been weighed yet"
        rest += [sentence(rig, bind)] if bind else []
        return Headline(lead=_LEADS[found], sentence=f"{said}; {tail}.", rest=rest)
    leading = near[0] if near else bind
    said = sentence(rig, leading) if leading else ""
    if found == "within" and said:
        said = f"What binds: {said[0].lower()}{said[1:]}"
    rest += [sentence(rig, row) for row in near[1:]]
    if bind and bind is not leading:
        rest.append(sentence(rig, bind))
    return Headline(lead=_LEADS[found], sentence=said, rest=rest)
