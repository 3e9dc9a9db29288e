"""What checks, figures, limits and vehicles are called, in the rig's own set of terms."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from noxel.core.limits import CHECKS, Checked, CheckId, Limit
from noxel.core.quantities import lower_first, print_mass, upper_first
from noxel.core.rig import SETS, RigFile, TermSet, on_its_wheels, on_pin
from noxel.core.wording.signs import all_signs

_FIGURES = {
    "front_hitched": "Front axle, hitched",
    "rear_hitched": "Rear axle, hitched",
    "vehicle_hitched": "Vehicle, hitched",
    "front_solo": "Front axle, vehicle only",
    "rear_solo": "Rear axle, vehicle only",
    "vehicle_solo": "Vehicle only",
    "trailer_axles": "Trailer axles, hitched",
    "combination_gross": "Combination",
    "tongue_net": "Net load on the vehicle",
    "front_transfer": "Front axle's change",
    "rear_transfer": "Rear axle's change",
    "tongue_static": "{tongue_weight}",
    "trailer_gross": "Trailer, in total",
    "tongue_share": "{tongue_share}",
    "front_restored": "Given back to the front axle by the bars",
    "trailer_transfer": "Moved onto the trailer's axles by the bars",
    "front_restoration": "Share of the front axle's loss restored",
    "curb_measured": "Vehicle empty, weighed",
}


_SOURCES = {
    "gvwr_towing": "{gvwr} while towing",
    "gawr_rear_towing": "{gawr_rear} while towing",
    "gawr_tag": "tag axle's rating",
    "gawr_rear+gawr_tag": "{gawr_rear} + tag axle",
    "gvwr+tow_rating": "{gvwr} + {tow_rating}",
    "gcwr-gvwr": "{gcwr} − {gvwr}",
    "tongue_rating": "vehicle's {tongue_rating}",
    "10% of tow_rating": "10 % of {tow_rating}",
    "trailer.gvwr": "trailer {trailer_gvwr}",
    "tongue_table": "maker's table for the {tongue}",
}


_PIN = {
    "tongue": "pin",
    "tongue_share": "pin share",
    "tongue_weight": "pin weight",
    "tongue_rating": "pin limit",
    "dry_tongue": "dry pin weight",
}


def words_of(rig: RigFile) -> dict[str, str]:
    """Every word of the rig's term set; what rests on the hitch is the pin's where there is one."""
    return {**SETS[rig.terms], **all_signs(rig.terms), **(_PIN if on_pin(rig) else {})}


def term_name(rig: RigFile, key: str) -> str:
    """The word for a key in the rig's terms; a key without a word there stands for itself."""
    return (_PIN.get(key) if on_pin(rig) else None) or SETS[rig.terms].get(key, key)


def terms_of(rig: RigFile) -> dict[str, str]:
    """The words of :func:`words_of`, by keys with ``_`` for a dot: to fill a sentence with."""
    return _fill(rig.terms) | (_PIN if on_pin(rig) else {})


_SPOKEN = {
    "tongue limit": "tongue_rating",
    **{
        term: term.lower().replace(" ", "_")
        for term in (
            *("tongue weight", "tongue share", "tongue scale", "tongue"),
            *("curb weight", "dry weight", "tow rating", "GVWR", "GCWR"),
        )
    },
}
_STANDARD = re.compile(rf"\b({'|'.join((*_SPOKEN, *map(upper_first, _SPOKEN)))})\b")


def in_terms(rig: RigFile, text: str) -> str:
    """A text of the core, which speaks North American, in the rig's own terms; not for what holds a
    person's words.
    """
    return _in_terms(text, rig.terms, on_pin(rig))


@lru_cache(2048)  # formulas and names of loads, the same in every answer
def _in_terms(text: str, terms: TermSet, pin: bool) -> str:
    every = spoken_words(terms, pin=pin)
    return _STANDARD.sub(lambda match: every[match[0]], text)


@lru_cache(16)
def spoken_words(terms: TermSet, *, pin: bool = False) -> dict[str, str]:
    """For each North American term what a region says instead, as a first word of a line too."""
    words = _fill(terms) | (_PIN if pin else {})
    every = {spoken: words[key] for spoken, key in _SPOKEN.items()}
    return {upper_first(spoken): upper_first(word) for spoken, word in every.items()} | every


@lru_cache(16)
def _fill(terms: TermSet) -> dict[str, str]:
    return {key.replace(".", "_"): name for key, name in SETS[terms].items()}


@dataclass(frozen=True, slots=True)
class Phrase:
    label: str
    subject: str
    limit: str
    plural: bool = False

    @property
    def verb(self) -> str:
        return "are" if self.plural else "is"


_VEHICLES = {
    "pickup": "truck",
    "suv": "SUV",
    "wagon": "car",
    "van": "van",
    "motorhome": "motorhome",
    None: "tow vehicle",
}


def vehicle_word(rig: RigFile) -> str:
    """What to call the vehicle: truck, car, van, motorhome; without a body entered, by the kind of
    rig.
    """
    body = rig.vehicle.body or ("motorhome" if rig.kind == "motorhome" else None)
    return _VEHICLES[body]


def source_label(rig: RigFile, source: str) -> str:
    """A limit's source in the rig's terms; a hitch part's kind is its own."""
    return _labelled(source, rig.terms)


@lru_cache(512)
def _labelled(source: str, terms: TermSet) -> str:
    return (
        _SOURCES[source].format(**_fill(terms))
        if source in _SOURCES
        else SETS[terms].get(source, source)
    )


def figure_title(rig: RigFile, key: str) -> str:
    """The title of a derived figure."""
    if key.startswith("trailer_axle_"):
        return f"Trailer axle {key.rsplit('_', 1)[1]}"
    title = _FIGURES.get(key, key).format(**terms_of(rig))
    return upper_first(title)


# label, subject, limit; {v} the vehicle's word, {t} tongue or pin, {p} the hitch part that limits
_PHRASES: Mapping[CheckId, tuple[str, str, str]] = {
    "vehicle.front_axle": ("Front axle", "The front axle", "its {} rating"),
    "vehicle.rear_axle": ("Rear axle", "The rear axle", "its {} rating"),
    "vehicle.gross": ("{V}, loaded", "The {v}", "its {} {gvwr}"),
    "vehicle.payload": ("Payload", "The load in the {v}{with_tongue}", "the {} payload rating"),
    "combination.gross": ("Combination", "The {v} and trailer together", "the {} {gcwr}"),
    "vehicle.tow_rating": ("{Tow_rating}", "The trailer", "the {v}'s {} {tow_rating}"),
    "trailer.gross": ("Trailer, in total", "The trailer", "its {} {trailer_gvwr}"),
    "trailer.axles": ("Trailer axles", "The trailer's axles", "their {} rating"),
    "trailer.cargo": ("Trailer cargo", "The trailer's cargo", "its {} {trailer_ccc}"),
    "hitch.trailer": ("Trailer on the hitch", "The trailer", "the {p}'s {} trailer rating"),
    "hitch.tongue": ("{Tongue_weight}", "The {t}", "the {p}'s {} {tongue_rating}"),
    "tires.front": ("Front tires", "The front tire that carries most", "its {} rating"),
    "tires.rear": ("Rear tires", "The rear tire that carries most", "its {} rating"),
    "tires.trailer": ("Trailer tires", "The trailer tire that carries most", "its {} rating"),
    "wheels.front": ("Front wheels", "The front wheel that carries most", "its {} rating"),
    "wheels.rear": ("Rear wheels", "The rear wheel that carries most", "its {} rating"),
    "wheels.trailer": ("Trailer wheels", "The trailer wheel that carries most", "its {} rating"),
    "assembly.front": ("Front axle assembly", "The front axle assembly", "its {} rating"),
    "assembly.rear": ("Rear axle assembly", "The rear axle assembly", "its {} rating"),
    "assembly.trailer": (
        "Trailer axle assembly",
        "The trailer axle that carries most",
        "its assembly's {} rating",
    ),
    "tongue.share": ("{Share}", "The {t}", ""),
}


def phrase_of(rig: RigFile, check: CheckId, source: str | None) -> Phrase:
    if check == "vehicle.rear_axle" and rig.vehicle.ratings.gawr_tag:
        return Phrase("Rear axles", "The rear axles", "their {} rating", plural=True)
    carried = (
        ("pin" if on_pin(rig) else "tongue") if rig.towing and not on_its_wheels(rig) else None
    )
    return _filled(check, vehicle_word(rig), carried, source, rig.terms, _tow_key(rig))


def _tow_key(rig: RigFile) -> str:
    """Which tow rating counts: a trailer without brakes has one of its own."""
    bare = rig.vehicle.ratings.tow_unbraked and rig.trailer and rig.trailer.brakes == "none"
    return "tow_unbraked" if bare else "tow_rating"


@lru_cache(512)  # a hitch part may have any name
def _filled(
    check: CheckId, word: str, carried: str | None, source: str | None, terms: TermSet, tow: str
) -> Phrase:
    """``carried`` is what of the trailer rests on the vehicle: its tongue, its pin, or nothing;
    ``tow`` the key of the tow rating that counts.
    """
    if number := CHECKS[check].axle:
        axle = f"Trailer axle {number}"
        return Phrase(axle, axle, "its {} rating")
    part = "vehicle" if source == "tongue_rating" else source or "hitch"
    fill = dict(_fill(terms))
    if carried == "pin":
        fill |= _PIN
    tongue = fill["tongue"]
    fill |= {
        "v": word,
        "V": upper_first(word),
        "t": tongue,
        "p": part,
        "Share": upper_first(fill["tongue_share"]),
        "Tongue_weight": upper_first(fill["tongue_weight"]),
        "with_tongue": f", {fill['tongue_weight']} included," if carried else "",
        "tow_rating": fill[tow],
        "Tow_rating": upper_first(fill[tow]),
    }
    label, subject, limit = _PHRASES[check]
    plural = check in ("combination.gross", "trailer.axles")
    # "{}" in the limit stays, for the figure
    return Phrase(label.format(**fill), subject.format(**fill), limit.format("{}", **fill), plural)


def check_label(rig: RigFile, check: CheckId) -> str:
    """The check's name in the ledger."""
    return phrase_of(rig, check, None).label


_RATING_KEYS: Mapping[CheckId, str] = {
    "vehicle.front_axle": "gawr_front",
    "vehicle.rear_axle": "gawr_rear",
    "vehicle.gross": "gvwr",
    "combination.gross": "gcwr",
    "hitch.tongue": "tongue_rating",
    "vehicle.payload": "payload",
}


def missing_rating(rig: RigFile, check: CheckId) -> str:
    """The name of the rating that a check lacks."""
    key = _tow_key(rig) if check == "vehicle.tow_rating" else _RATING_KEYS.get(check)
    if key:
        return term_name(rig, key)
    names: Mapping[CheckId, str] = {
        "trailer.gross": f"trailer {term_name(rig, 'trailer.gvwr')}",
        "trailer.axles": f"trailer {term_name(rig, 'trailer.gawr')}",
        "trailer.cargo": term_name(rig, "trailer.ccc"),
        "hitch.trailer": "hitch's trailer rating",
    }
    return names.get(check, "rating")


def limiting_rating(rig: RigFile, check: CheckId) -> str:
    """The rating that sets a limit, inside a sentence: “the GCWR”, “the payload rating”, “the rear
    tires' rating”.
    """
    if check == "vehicle.payload" or missing_rating(rig, check) == "rating":
        return f"the {lower_first(check_label(rig, check))} rating"
    return f"the {missing_rating(rig, check)}"


def limit_words(rig: RigFile, row: Checked) -> str:
    """A check's limit inside a sentence: “its 4,140 lb rating”; one that was worked out is named
    for what it is.
    """
    if row.limit is None:
        return ""
    figure = print_mass(row.limit.kg, rig.units.mass)
    if row.limit.worked_out:
        return (
            f"a worked-out limit of {figure} ({source_label(rig, row.limit.source)}, "
            f"{row.limit.certainty})"
        )
    return phrase_of(rig, row.id, row.limit.source).limit.format(figure)


def base_guessed(rig: RigFile, limit: Limit) -> str | None:
    """What a guessed base weight is called, where the load compared with this limit was worked out
    from one.
    """
    return term_name(rig, limit.base.rpartition(".")[2]) if limit.base else None
