"""The figures of an exercise by name: what stands on its tickets and labels. Masses in kilograms,
lengths in metres.
"""

from collections.abc import Mapping

from noxel.core.limits import limits, tongue_limit
from noxel.core.practice.rigs import as_seen
from noxel.core.practice.yard import Ticket, Yard
from noxel.core.quantities import KG
from noxel.core.rig import Config, RigFile

Facts = Mapping[str, float]
"""``front_h``, ``rear_h``, ``trailer_h``, ``gross_h``: the hitched pass; ``…_k``: with slack bars;
``front_s``, ``rear_s``: vehicle only.

Ratings by the rig file's names, trailer's as ``t_gvwr``, ``t_gawr`` (all axles), ``ccc``;
``people``, ``gear``, ``hitch`` as listed; ``a``, ``b``, ``length`` as measured. A figure that
nobody has is absent.
"""


def _of_ticket(ticket: Ticket, ending: str, kg: float) -> dict[str, float]:
    figures = {f"{name}_{ending}": value * kg for name, value in ticket.readings.items()}
    figures[f"gross_{ending}"] = ticket.gross * kg
    return figures


def _of_labels(rig: RigFile) -> dict[str, float]:
    ratings, trailer = rig.vehicle.ratings, rig.trailer
    rated = limits(rig)
    facts: dict[str, float] = {
        check: limit.kg for check, limit in rated.items() if limit is not None
    }
    named = {
        "gvwr": ratings.gvwr,
        "gawr_front": ratings.gawr_front,
        "gawr_rear": ratings.gawr_rear,
        "gcwr": ratings.gcwr,
        "payload": ratings.payload,
        "curb_weight": rig.vehicle.curb_weight,
    }
    if trailer is not None:
        named |= {
            "t_gvwr": trailer.ratings.gvwr,
            "ccc": trailer.ratings.ccc,
            "dry_weight": trailer.dry_weight,
            "dry_tongue": trailer.dry_tongue,
        }
        facts["t_gawr"] = sum(gawr.kg for gawr in trailer.ratings.gawr)
    facts |= {key: mass.kg for key, mass in named.items() if mass is not None}
    if "vehicle.tow_rating" in facts:
        facts["tow_rating"] = facts["vehicle.tow_rating"]
    tongue = tongue_limit(rig)
    if tongue is not None:
        facts["tongue_limit"] = tongue.kg
    return facts


def facts_of(yard: Yard) -> dict[str, float]:
    """Every figure that the yard's papers give: the last ticket of each kind, the labels, the
    lists, the tape.
    """
    rig, kg = as_seen(yard.rig), KG[yard.rig.units.mass]
    labels = _of_labels(rig)
    endings: Mapping[tuple[Config, bool], str] = {
        ("hitched", False): "h",
        ("hitched", True): "k",
        ("vehicle_only", False): "s",
        ("vehicle_only", True): "s",
    }
    for ticket in yard.tickets:
        labels |= _of_ticket(ticket, endings[ticket.config, ticket.bars == "slack"], kg)
    aboard = [load for load in yard.rig.loads if load.on == "vehicle"]
    labels["people"] = sum(load.kg for load in aboard if load.category == "people")
    labels["gear"] = sum(load.kg for load in aboard if load.category != "people")
    labels["hitch"] = yard.rig.hitch.own_mass
    geometry, trailer = yard.rig.vehicle.geometry, yard.rig.trailer
    lengths = {
        "a": geometry.wheelbase,
        "b": geometry.hitch_offset,
        "length": trailer.geometry.coupler_to_axles if trailer else None,
    }
    return labels | {name: length.m for name, length in lengths.items() if length is not None}
