"""Short paths: one label a step, in the order that settles most, for this kind of rig and in the
words of its region.
"""

from typing import Literal

from noxel.core.quantities import upper_first
from noxel.core.rig import RigFile, on_its_wheels, on_pin
from noxel.core.wording import (
    Answer,
    Sign,
    in_terms,
    sign_words,
    term_name,
    vehicle_word,
)

Door = Literal["tow", "going", "labels", "tickets"]
More = Literal[
    "people",
    "bring",
    "passes",
    "hitch",
    "answer",
    "shape",
    "camper",
    "behind",
    "brakes",
    "extras",
]


class PathField(Answer):
    """A field of a step: its path in the rig file, and what its label says."""

    path: str
    label: str
    hint: str = ""
    term: str | None = None


class PathStep(Answer):
    """One step: a label or a question, its fields, and what else it holds."""

    id: str
    title: str
    where: str = ""
    sign: Sign | None = None
    fields: list[PathField] = []
    more: More | None = None


def short_path(rig: RigFile, door: Door) -> list[PathStep]:
    """The steps of a path.

    ``rig``: for its kind, its region and what follows it. ``door``: what somebody came with.
    """
    if door == "tickets":
        return [
            PathStep(
                id="shape",
                title="Which of these looks like your ticket?",
                where="The first one, of the whole rig. The others follow it.",
                more="shape",
            )
        ]
    if door == "going":
        return _going(rig)
    return _tow(rig) if door == "tow" else _labels(rig)


def _field(rig: RigFile, path: str, term: str, hint: str = "") -> PathField:
    label = upper_first(term_name(rig, term))
    return PathField(path=path, label=label, hint=in_terms(rig, hint), term=term)


def _sign(
    rig: RigFile,
    sign: Sign,
    fields: list[PathField],
    *,
    name: str | None = None,
    more: More | None = None,
    also: str = "",
) -> PathStep:
    title, where = sign_words(rig.terms, sign)
    return PathStep(
        id=name or sign, title=title + also, where=where, sign=sign, fields=fields, more=more
    )


def _certification(rig: RigFile, *, axles: tuple[str, ...]) -> PathStep:
    fields = [_field(rig, "vehicle.ratings.gvwr", "gvwr", f"the loaded {vehicle_word(rig)}")]
    if rig.terms == "europe" and rig.kind != "slide_in":
        fields.append(_field(rig, "vehicle.ratings.gcwr", "gcwr", "with the trailer"))
    fields += [_field(rig, f"vehicle.ratings.{axle}", axle) for axle in axles]
    return _sign(rig, "certification", fields)


def _payload(rig: RigFile, *, curb: bool) -> PathStep:
    """What may be put in: the placard where there is one, else the kerb mass."""
    empty = _field(rig, "vehicle.curb_weight", "curb_weight", "empty, with full fluids")
    payload = _field(rig, "vehicle.ratings.payload", "payload", "people and cargo, at most")
    if rig.terms == "europe":
        return PathStep(
            id="placard",
            title=upper_first(term_name(rig, "curb_weight")),
            where="In the registration document: G. It counts a driver of 75 kg; take them off.",
            sign="guide",
            fields=[empty],
        )
    fields = [payload, empty] if curb else [payload]
    if rig.kind == "motorhome":
        return PathStep(
            id="placard",
            title="The cargo label",
            where="Inside the entrance door: people and cargo, at most, with the tanks full.",
            sign="placard",
            fields=fields,
        )
    return _sign(rig, "placard", fields)


def _towing_figures(rig: RigFile, *, tongue: bool) -> PathStep:
    fields = [_field(rig, "vehicle.ratings.tow_rating", "tow_rating")]
    if rig.terms != "europe":
        gcwr = _field(rig, "vehicle.ratings.gcwr", "gcwr", "vehicle and trailer together")
        fields.insert(0 if tongue else 1, gcwr)
    if rig.trailer is not None and rig.trailer.brakes == "none" and not on_its_wheels(rig):
        fields.append(_field(rig, "vehicle.ratings.tow_unbraked", "tow_unbraked"))
    if tongue and not on_its_wheels(rig):
        fields.append(_tongue_rating(rig))
    return _sign(rig, "guide", fields)


def _tongue_rating(rig: RigFile) -> PathField:
    hint = f"most the {vehicle_word(rig)} may carry on its hitch"
    return _field(rig, "vehicle.ratings.tongue_rating", "tongue_rating", hint)


def _people(rig: RigFile) -> PathStep:
    word = vehicle_word(rig)
    bed = ", the bed's load" if word == "truck" else ""
    example = "82+75+27" if rig.units.mass == "kg" else "180+165+60"
    return PathStep(
        id="people",
        title=f"Who and what rides in the {word}",
        where=f"Everybody with their bags, tools, dogs{bed}. A sum will do: {example}.",
        more="people",
    )


def _trailer(rig: RigFile, *, brochure: bool) -> PathStep:
    """The trailer's label; of a car on its wheels its own label, its brakes and no tongue."""
    on_wheels = on_its_wheels(rig)
    hint = "on the towed car's own door frame" if on_wheels else "the loaded trailer in total"
    gvwr = _field(rig, "trailer.ratings.gvwr", "trailer.gvwr", hint)
    if on_wheels:
        empty = _field(rig, "trailer.dry_weight", "curb_weight", "from its manual, or a scale")
        return PathStep(
            id="trailer",
            title="The towed car's own label",
            where="It has a rating of its own, and most laws want brakes in it.",
            sign="certification",
            fields=[gvwr, empty],
            more="brakes",
        )
    if not brochure:
        first = _field(rig, "trailer.ratings.gawr[0]", "trailer.gawr", "first axle")
        second = _field(
            rig, "trailer.ratings.gawr[1]", "trailer.gawr", "second axle, where it has two"
        )
        return _sign(rig, "trailer", [gvwr, first, second])
    dry = _field(rig, "trailer.dry_weight", "dry_weight", "as built, empty, with its options")
    nose = _field(rig, "trailer.dry_tongue", "dry_tongue")
    more: More | None = "extras" if on_pin(rig) else None
    return _sign(rig, "trailer", [gvwr, dry, nose], more=more, also=", or its brochure")


def _hitch(rig: RigFile, *, parts: bool) -> PathStep:
    sign: Sign = "plate" if on_pin(rig) else "receiver"
    fields = [] if on_its_wheels(rig) or parts else [_tongue_rating(rig)]
    if on_pin(rig):
        weight = "hitch.weight"
        fields.append(
            PathField(path=weight, label="What the hitch itself weighs", hint="it rides in the bed")
        )
    if not parts and not on_its_wheels(rig):
        return _sign(rig, sign, fields, name="hitch")
    return PathStep(
        id="hitch",
        title="The labels of the hitch",
        where="On each part; the weakest one counts.",
        sign=sign,
        fields=fields,
        more="hitch",
    )


_BEHIND = PathStep(
    id="behind",
    title="What follows the motorhome?",
    where="A car can roll on its own wheels, ride on a dolly, or stand on a trailer.",
    more="behind",
)
_CAMPER = PathStep(
    id="camper",
    title="The camper, with what is in it",
    where="Its own label gives it empty: add water, gas, batteries and gear, or weigh it. The "
    "truck's camper label says where its centre of mass has to lie.",
    fields=[
        PathField(path="vehicle.camper_zone[0]", label="Centre of mass wanted from"),
        PathField(path="vehicle.camper_zone[1]", label="to"),
        PathField(
            path="vehicle.camper_centre",
            label="Where the camper has it",
            hint="from the same mark as the truck's label",
        ),
    ],
    more="camper",
)


def _tow(rig: RigFile) -> list[PathStep]:
    steps = [_certification(rig, axles=("gawr_rear",)), _payload(rig, curb=False)]
    if rig.kind == "motorhome":
        steps = [
            steps[0],
            _people(rig),
            _payload(rig, curb=True),
            _towing_figures(rig, tongue=False),
        ]
        steps.append(_BEHIND)
    elif rig.kind == "slide_in":
        steps += [_CAMPER, _people(rig), _towing_figures(rig, tongue=True)]
    else:
        steps += [_towing_figures(rig, tongue=False), _people(rig)]
    if rig.trailer is not None:
        steps.append(_trailer(rig, brochure=True))
    if rig.trailer is not None or rig.kind == "motorhome":
        steps.append(_hitch(rig, parts=rig.kind == "motorhome"))
    return [*steps, PathStep(id="answer", title="", more="answer")]


def _going(rig: RigFile) -> list[PathStep]:
    steps = [
        PathStep(
            id="bring", title="Before you drive there", where="Load as for the road.", more="bring"
        ),
        _certification(rig, axles=("gawr_rear",)),
    ]
    if rig.kind == "slide_in":
        steps.append(_CAMPER)
    return [
        *steps,
        PathStep(id="passes", title="What you will drive, and why", more="passes"),
    ]


def _labels(rig: RigFile) -> list[PathStep]:
    """After the tickets: the labels, those first that settle most."""
    steps = [_certification(rig, axles=("gawr_front", "gawr_rear"))]
    if rig.kind == "slide_in":
        steps.append(_CAMPER)
    if rig.trailer is not None:
        steps += [
            _trailer(rig, brochure=False),
            _towing_figures(rig, tongue=True),
            _hitch(rig, parts=True),
        ]
    return [*steps, _payload(rig, curb=True)]
