"""Passes of another day, or of another scale, that would complete this weigh-in."""

from collections.abc import Iterator

from noxel.core.quantities import print_date
from noxel.core.rig import Config, Pass, RigFile, WeighIn
from noxel.core.weigh.notes import Notes
from noxel.core.wording import Advisory, Fix, FixChange, vehicle_word


def _stands(rig: RigFile, config: Config) -> str:
    names: dict[Config, str] = {
        "hitched": "The whole rig",
        "vehicle_only": f"The {vehicle_word(rig)} alone",
        "trailer_only": "The trailer alone",
    }
    return names[config]


def _wanted(weigh_in: WeighIn) -> Config | None:
    """The pass that this weigh-in lacks to tell vehicle and trailer apart."""
    weighed = {driven.config for driven in weigh_in.passes if driven.readings}
    if "hitched" not in weighed:
        return "hitched" if weighed else None
    return None if weighed & {"vehicle_only", "trailer_only"} else "vehicle_only"


def _copied(driven: Pass, weigh_in: WeighIn, origin: str) -> dict[str, object]:
    """The pass with its own scale, and where it comes from in its note."""
    scale = driven.scale or weigh_in.scale
    note = f"{origin}. {driven.note}" if driven.note else origin
    copied = driven.model_copy(update={"id": None, "scale": scale, "note": note})
    return copied.model_dump(mode="json")


def joinable(notes: Notes) -> Iterator[Advisory]:
    """The latest pass elsewhere in the log that this weigh-in lacks, to be added with its own ±."""
    rig, wanted = notes.rig, _wanted(notes.weigh_in)
    if wanted is None or not rig.towing or "tongue_static" in notes.weighing.figures:
        return
    for other in reversed(rig.weigh_ins):
        driven = None if other is notes.weigh_in else other.last(wanted)
        if driven is None or not driven.readings:
            continue
        when = f" {print_date(other.date)}" if other.date else " on another day"
        place = f", {other.place}" if other.place else ""
        origin = f"Weighed{when}{place}"
        number = len(notes.weigh_in.passes)
        added = FixChange(
            f"{notes.at}.passes[{number}]", _copied(driven, other, origin), op="insert"
        )
        advisory = notes.say(
            "join_pass",
            f"{_stands(rig, wanted)} was weighed{when}{place}. If it was loaded then as it is now, "
            "add that pass to this weigh-in; it keeps the ± of its own scale.",
            notes.at,
            note=True,
        )
        advisory.fix = Fix("Add that pass", [added])
        yield advisory
        return
