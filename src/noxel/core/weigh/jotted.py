"""A ticket as somebody jots it down at the scale, with or without a network: put into its weigh-in,
or into a new one.
"""

import datetime
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from noxel.core.editing import Change, Document, apply_changes
from noxel.core.quantities import MassUnit
from noxel.core.rig import Config, SpringBars, parse_rig
from noxel.core.weigh.passes import GRADUATIONS, ScaleKind, new_weigh_in
from noxel.errors import InputError, Problem


@dataclass(frozen=True, slots=True)
class Jotted:
    """One pass, or one reading of a tongue scale, as it was jotted down: texts as typed, readings
    by name (``front``, ``rear``, ``trailer`` …).
    """

    day: datetime.date
    config: Config | None
    spring_bars: SpringBars | None
    unit: MassUnit
    scale: ScaleKind
    readings: Mapping[str, str]
    facts: Mapping[str, str]
    """Place, ticket number, time, fee and note, where they were typed."""
    tongue: str = ""
    """What a tongue scale read, instead of a pass."""


def add_jotted(document: Document, index: int | None, ticket: Jotted) -> Document:
    """Put a ticket into the weigh-in of its visit.

    ``document``: a valid rig file. ``index``: where the weigh-in of the same visit stands in the
    document; None begins a new one. ``ticket``: what was typed; a text that cannot be read waits at
    its field.

    Returns the new document. The ticket fills a pass of its kind that has no reading yet, or
    follows the passes that are there.

    Raises InputError if it breaks a rule of the format, such as a trailer's reading in a pass of
    the vehicle alone.
    """
    if ticket.config is None and not ticket.tongue.strip():
        raise InputError(
            "Say which pass it is of, or what the tongue scale read.",
            [Problem("config", "is missing", "missing")],
        )
    if index is None:
        rig = parse_rig(document)
        index = len(rig.weigh_ins)
        fresh = new_weigh_in(rig, ticket.day, ticket.scale)
        fresh["passes"] = []
        fresh["scale"] = _in(fresh["scale"], rig.units.mass, ticket)
        document = apply_changes(
            document, [Change(f"weigh_ins[{index}]", op="insert", value=fresh)]
        ).document
    path = f"weigh_ins[{index}]"
    if ticket.config is None:
        return _add_tongue(document, index, ticket)
    passes = document["weigh_ins"][index].get("passes", [])
    waiting = (
        number
        for number, pass_ in enumerate(passes)
        if _same(pass_, ticket) and not pass_.get("readings") and not _typed(pass_)
    )
    place = next(waiting, len(passes))
    changes = []
    if place == len(passes):
        value: dict[str, Any] = {"config": ticket.config, "unit": ticket.unit, "readings": {}}
        if ticket.spring_bars is not None:
            value["spring_bars"] = ticket.spring_bars
        changes.append(Change(f"{path}.passes[{place}]", op="insert", value=value))
    else:
        changes.append(Change(f"{path}.passes[{place}].unit", value=ticket.unit, op="set"))
    changes += [
        Change(f"{path}.passes[{place}].readings.{name}", text)
        for name, text in ticket.readings.items()
        if text.strip()
    ]
    for name, text in ticket.facts.items():
        if text.strip():
            changes.append(
                Change(
                    f"{path}.{name}" if name == "place" else f"{path}.passes[{place}].{name}", text
                )
            )
    return apply_changes(document, changes).document


def _add_tongue(document: Document, index: int, ticket: Jotted) -> Document:
    """A direct measurement of the tongue; bare figures are in the ticket's unit."""
    path, unit = f"weigh_ins[{index}]", document["units"]["mass"]
    count = len(document["weigh_ins"][index].get("tongue_measurements", []))
    step = GRADUATIONS["tongue_scale"][ticket.unit]
    texts = {"value": ticket.tongue, "resolution": str(step)}
    if ticket.unit != unit:
        texts = {
            name: f"{text} {ticket.unit}" if _BARE.fullmatch(text.strip()) else text
            for name, text in texts.items()
        }
    changes = [
        Change(
            f"{path}.tongue_measurements[{count}]",
            op="insert",
            value={"method": "scale"},
            texts=texts,
        ),
        Change(f"{path}.tongue_measurements[{count}].resolution", op="source", source="guess"),
    ]
    for name in ("place", "note"):
        if ticket.facts.get(name, "").strip():
            changes.append(Change(f"{path}.{name}", ticket.facts[name]))
    return apply_changes(document, changes).document


_BARE = re.compile(r"[0-9.,]+")


def _same(pass_: Mapping[str, Any], ticket: Jotted) -> bool:
    return pass_["config"] == ticket.config and pass_.get("spring_bars") == ticket.spring_bars


def _typed(pass_: Mapping[str, Any]) -> bool:
    """Whether a text waits at one of a pass's readings."""
    return any(name.startswith("readings.") for name in pass_.get("entered", ()))


def _in(scale: dict[str, Any], unit: MassUnit, ticket: Jotted) -> dict[str, Any]:
    """The usual graduation of such a scale in the ticket's unit."""
    step = GRADUATIONS[ticket.scale][ticket.unit]
    return {**scale, "resolution": step if ticket.unit == unit else f"{step} {ticket.unit}"}
