"""The plates of the workbook, and each check's limit as a formula over them."""

from collections.abc import Iterator, Mapping
from typing import Literal

from noxel.core.limits import CheckId, axle_sets, limits, part_rating
from noxel.core.rig import RigFile, Trailer, rating_in, share_range

CellNames = Mapping[str, str]
"""Cells of the sheet “Plates” by the rig file's paths."""
Plate = tuple[str, str, float, Literal["mass", "length", "share", "count"]]
"""A path, its label, the figure in SI, what it is."""


def plates(rig: RigFile) -> Iterator[Plate]:
    """Every figure of the rig that the formulas use."""
    yield from _of_vehicle(rig)
    yield from _of_hitch(rig)
    yield from _of_tires(rig)
    if rig.trailer is not None:
        yield from _of_trailer(rig.trailer)
        for end, share in enumerate(share_range(rig)):
            yield (
                f"policy.tongue_share[{end}]",
                f"tongue share aimed at, {'from' if end == 0 else 'to'}",
                share,
                "share",
            )


def _of_vehicle(rig: RigFile) -> Iterator[Plate]:
    ratings, mode = rig.vehicle.ratings, rig.hitch.mode
    named = (
        ("gvwr", "GVWR of the vehicle", ratings.gvwr),
        ("gawr_front", "front GAWR", ratings.gawr_front),
        ("gawr_rear", "rear GAWR", ratings.gawr_rear),
        ("gcwr", "GCWR", ratings.gcwr),
        ("tow_rating", "tow rating", rating_in(ratings.tow_rating, mode)),
        ("payload", "payload on the placard", ratings.payload),
        ("payload_reduction", "add-on label", ratings.payload_reduction),
        ("tow_unbraked", "tow rating without trailer brakes", ratings.tow_unbraked),
        ("gvwr_towing", "GVWR while towing", ratings.gvwr_towing),
        ("gawr_rear_towing", "rear GAWR while towing", ratings.gawr_rear_towing),
        ("gawr_tag", "GAWR of the tag axle", ratings.gawr_tag),
        ("tongue_rating", "tongue limit", rating_in(ratings.tongue_rating, mode)),
    )
    for name, label, mass in named:
        if mass is not None:
            yield f"vehicle.ratings.{name}", label, mass.kg, "mass"
    if rig.policy.gcwr_derate:
        yield (
            "policy.gcwr_derate",
            "taken off the GCWR for altitude",
            rig.policy.gcwr_derate,
            "share",
        )
    if rig.vehicle.curb_weight:
        yield "vehicle.curb_weight", "curb weight", rig.vehicle.curb_weight.kg, "mass"
    geometry = rig.vehicle.geometry
    if geometry.wheelbase:
        yield "vehicle.geometry.wheelbase", "wheelbase", geometry.wheelbase.m, "length"
    if geometry.hitch_offset:
        offset = geometry.hitch_offset.m
        yield "vehicle.geometry.hitch_offset", "hitch point behind the rear axle", offset, "length"


def _of_hitch(rig: RigFile) -> Iterator[Plate]:
    sides: tuple[Literal["trailer", "tongue"], ...] = ("trailer", "tongue")
    for index, part in enumerate(rig.hitch.parts):
        extended = ", with its extension" if part.extension_leaves else ""
        for side in sides:
            mass, path = part_rating(part, side, rig.hitch.mode)
            if mass is not None:
                kg = mass.kg * (part.extension_leaves or 1.0)
                yield (
                    f"hitch.parts[{index}].{path}",
                    f"{part.kind}: {side} rating{extended}",
                    kg,
                    "mass",
                )


def _of_tires(rig: RigFile) -> Iterator[Plate]:
    for axle_set in axle_sets(rig):
        named = (
            ("wheel", f"one wheel, {axle_set.group}", axle_set.tires.wheel),
            ("assembly", f"one axle assembly, {axle_set.group}", axle_set.tires.assembly),
        )
        if axle_set.rating:
            yield (
                f"{axle_set.path}.{axle_set.rating.field}",
                f"one tire, {axle_set.group}, as fitted",
                axle_set.rating.kg,
                "mass",
            )
        for field, label, mass in named:
            if mass is not None:
                yield f"{axle_set.path}.{field}", label, mass.kg, "mass"
        if axle_set.tires.count:
            yield (
                f"tires.{axle_set.group}.count",
                f"tires, {axle_set.group}",
                float(axle_set.tires.count),
                "count",
            )


def _of_trailer(trailer: Trailer) -> Iterator[Plate]:
    for index, rating in enumerate(trailer.ratings.gawr):
        yield (
            f"trailer.ratings.gawr[{index}]",
            f"GAWR of trailer axle {index + 1}",
            rating.kg,
            "mass",
        )
    own = (
        ("ratings.gvwr", "GVWR of the trailer", trailer.ratings.gvwr),
        ("ratings.axle_group", "axle group", trailer.ratings.axle_group),
        ("ratings.ccc", "cargo carrying capacity", trailer.ratings.ccc),
        ("dry_weight", "dry weight", trailer.dry_weight),
    )
    for name, label, mass in own:
        if mass is not None:
            yield f"trailer.{name}", label, mass.kg, "mass"
    length = trailer.geometry.coupler_to_axles
    if length:
        yield (
            "trailer.geometry.coupler_to_axles",
            "coupler to the middle of the axles",
            length.m,
            "length",
        )


def limit_formula(rig: RigFile, check: CheckId, known: CellNames) -> str | None:
    """A check's limit over the cells of the plates, or None where it is not known."""
    limit = limits(rig).get(check)
    if limit is None:
        return None
    if check in ("hitch.trailer", "hitch.tongue", "trailer.axles") and not limit.worked_out:
        return _least(check, known)
    if limit.certainty == "rough":
        return f"0.1*{known['vehicle.ratings.tow_rating']}"
    if rig.policy.gcwr_derate and limit.source == "gcwr":
        return f"{known['vehicle.ratings.gcwr']}*(1-{known['policy.gcwr_derate']})"
    if limit.terms:
        return "".join(
            f"{'-' if term.op == '−' else '+' if term.op == '+' else ''}{known[_plain(term.path)]}"
            for term in limit.terms
        )
    return known[_plain(limit.path)]


def _plain(path: str) -> str:
    """The vehicle's ratings by mode stand under their plain name."""
    return (
        path.removesuffix(".carrying").removesuffix(".distributing")
        if path.startswith("vehicle.")
        else path
    )


def _least(check: str, known: CellNames) -> str:
    if check == "trailer.axles":
        axles = [known[path] for path in known if path.startswith("trailer.ratings.gawr[")]
        group = known.get("trailer.ratings.axle_group")
        sums = [f"SUM({','.join(axles)})"] if axles else []
        return f"MIN({','.join([*sums, *([group] if group else [])])})"
    field = check.removeprefix("hitch.")
    cells = [
        cell
        for path, cell in known.items()
        if path.startswith("hitch.parts[") and f"].{field}" in path
    ]
    own = known.get("vehicle.ratings.tongue_rating") if field == "tongue" else None
    return f"MIN({','.join([*([own] if own else []), *cells])})"
