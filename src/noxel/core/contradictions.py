"""Plates that contradict each other: which figures cannot both be right, and which label to read again.

None of them blocks anything; half-filled labels are normal and contradict nothing.
"""

from collections.abc import Iterator

from noxel.core.answers import Advisory
from noxel.core.quantities import Mass
from noxel.core.ratings import share_range
from noxel.core.rig import rating_in
from noxel.core.rigfile import RigFile
from noxel.core.units import KG, print_mass
from noxel.core.words import term

SLACK = 0.01
"""Labels round; figures this close, relatively, do not contradict each other."""


class _Plates:
    def __init__(self, rig: RigFile) -> None:
        self.rig, self.unit = rig, rig.units.mass

    def mass(self, kg: float) -> str:
        return print_mass(kg, self.unit)

    def say(self, code: str, path: str, message: str, **kg: float) -> Advisory:
        numbers = {key: value / KG[self.unit] for key, value in kg.items()}
        return Advisory(code=code, level="warning", path=path, message=message, numbers=numbers)


def _above(a: float, b: float) -> bool:
    return a > b * (1 + SLACK)


def _vehicle(plates: _Plates) -> Iterator[Advisory]:
    vehicle, rig = plates.rig.vehicle, plates.rig
    ratings, curb = vehicle.ratings, vehicle.curb_weight
    gvwr, front, rear, gcwr = ratings.gvwr, ratings.gawr_front, ratings.gawr_rear, ratings.gcwr
    tow = rating_in(ratings.tow_rating, rig.hitch.mode)
    name = {key: term(rig, key) for key in ("gvwr", "gcwr", "tow_rating", "payload")}
    if gvwr and front and rear:
        axles = front.kg + rear.kg
        if _above(gvwr.kg, axles):
            yield plates.say("axles_below_gvwr", "vehicle.ratings.gvwr",
                             f"The axle ratings add up to {plates.mass(axles)}, less than the {plates.mass(gvwr.kg)} {name['gvwr']}. "
                             "Re-read all three on the certification label.", axles=axles, gvwr=gvwr.kg)  # fmt: skip
        elif axles > 1.6 * gvwr.kg:
            yield plates.say("axles_far_above_gvwr", "vehicle.ratings.gvwr",
                             f"The axle ratings add up to {plates.mass(axles)}, far above the {plates.mass(gvwr.kg)} {name['gvwr']}: "
                             "a figure in the other unit?", axles=axles, gvwr=gvwr.kg)  # fmt: skip
    reduction = ratings.payload_reduction.kg if ratings.payload_reduction else 0.0
    if gvwr and curb:
        if curb.kg >= gvwr.kg:
            yield plates.say("curb_above_gvwr", "vehicle.curb_weight",
                             f"A curb weight of {plates.mass(curb.kg)} leaves nothing of the {plates.mass(gvwr.kg)} {name['gvwr']}. "
                             "Re-read both.", curb=curb.kg, gvwr=gvwr.kg)  # fmt: skip
        elif ratings.payload and ratings.payload.kg - reduction + curb.kg > gvwr.kg * (1 + 2 * SLACK):
            yield plates.say("payload_above_gvwr", "vehicle.ratings.payload",
                             f"Payload {plates.mass(ratings.payload.kg - reduction)} on top of the curb weight "
                             f"{plates.mass(curb.kg)} is more than the {plates.mass(gvwr.kg)} {name['gvwr']}. The placard is for the vehicle "
                             "as built: an add-on label missing, or the curb weight with things fitted later?",
                             payload=ratings.payload.kg, curb=curb.kg)  # fmt: skip
    if gcwr and gvwr and gcwr.kg < gvwr.kg:
        yield plates.say("gcwr_below_gvwr", "vehicle.ratings.gcwr",
                         f"The {name['gcwr']} {plates.mass(gcwr.kg)} is below the {name['gvwr']} {plates.mass(gvwr.kg)}: it is for vehicle and "
                         "trailer together.", gcwr=gcwr.kg, gvwr=gvwr.kg)  # fmt: skip
    if gcwr and tow and curb and _above(tow.kg + curb.kg, gcwr.kg):
        yield plates.say("tow_above_gcwr", "vehicle.ratings.gcwr",
                         f"The {name['tow_rating']} {plates.mass(tow.kg)} and the empty vehicle {plates.mass(curb.kg)} are already more than "
                         f"the {name['gcwr']} {plates.mass(gcwr.kg)}. Another row of the towing guide?", tow=tow.kg, gcwr=gcwr.kg)  # fmt: skip


def _trailer(plates: _Plates) -> Iterator[Advisory]:
    trailer, rig = plates.rig.trailer, plates.rig
    if trailer is None:
        return
    ratings, dry = trailer.ratings, trailer.dry_weight
    axles = sum(rating.kg for rating in ratings.gawr)
    name = term(rig, "trailer.gvwr")
    most = axles / (1 - share_range(rig)[1])
    if ratings.gvwr and axles and _above(ratings.gvwr.kg, most):
        yield plates.say("trailer_above_axles", "trailer.ratings.gvwr",
                         f"The trailer's {name} {plates.mass(ratings.gvwr.kg)} is more than its axles ({plates.mass(axles)}) and a usual tongue "
                         "can carry. An axle missing, or a figure misread?", gvwr=ratings.gvwr.kg, axles=axles)  # fmt: skip
    if ratings.gvwr and dry and dry.kg >= ratings.gvwr.kg:
        yield plates.say("dry_above_gvwr", "trailer.dry_weight",
                         f"A dry weight of {plates.mass(dry.kg)} leaves nothing of the {plates.mass(ratings.gvwr.kg)} {name}.",
                         dry=dry.kg, gvwr=ratings.gvwr.kg)  # fmt: skip
    elif ratings.gvwr and dry and ratings.ccc and _above(ratings.ccc.kg + dry.kg, ratings.gvwr.kg):
        yield plates.say("ccc_above_gvwr", "trailer.ratings.ccc",
                         f"Cargo {plates.mass(ratings.ccc.kg)} on top of the dry weight {plates.mass(dry.kg)} is more than the "
                         f"{plates.mass(ratings.gvwr.kg)} {name}. A dry weight without the options that are always fitted?",
                         ccc=ratings.ccc.kg, dry=dry.kg)  # fmt: skip
    if dry and trailer.dry_tongue and trailer.dry_tongue.kg > 0.4 * dry.kg:
        yield plates.say("dry_tongue_large", "trailer.dry_tongue",
                         f"A dry tongue of {plates.mass(trailer.dry_tongue.kg)} is more than four tenths of the trailer. Re-read it.",
                         tongue=trailer.dry_tongue.kg)  # fmt: skip


def _tires(plates: _Plates) -> Iterator[Advisory]:
    vehicle, trailer = plates.rig.vehicle, plates.rig.trailer
    sets: list[tuple[str, str, Mass | float | None, object]] = [
        ("front", "vehicle.tires.front.max_load", vehicle.ratings.gawr_front, vehicle.tires.front),
        ("rear", "vehicle.tires.rear.max_load", vehicle.ratings.gawr_rear, vehicle.tires.rear),
    ]
    if trailer and trailer.ratings.gawr:
        sets.append(("trailer", "trailer.tires.max_load", sum(each.kg for each in trailer.ratings.gawr), trailer.tires))
    for which, path, rated, tires in sets:
        count, most = getattr(tires, "count", None), getattr(tires, "max_load", None)
        kg = rated.kg if isinstance(rated, Mass) else rated
        if kg and count and most and _above(kg, count * most.kg):
            yield plates.say("tires_below_axle", path,
                             f"{count} {which} tires carry {plates.mass(count * most.kg)}, less than the {plates.mass(kg)} rating of what "
                             "stands on them. The tires are then the limit; read their sidewalls again.",
                             tires=count * most.kg, axle=kg)  # fmt: skip


def _misread(plates: _Plates) -> Iterator[Advisory]:
    """A figure in the other unit, or with a digit too many or too few, against its neighbours."""
    vehicle, trailer = plates.rig.vehicle, plates.rig.trailer
    pairs: list[tuple[str, Mass | None, str, Mass | None, str]] = [
        (
            "vehicle.ratings.gawr_front",
            vehicle.ratings.gawr_front,
            "rear axle rating",
            vehicle.ratings.gawr_rear,
            "front axle rating",
        ),
        ("vehicle.ratings.gvwr", vehicle.ratings.gvwr, "curb weight", vehicle.curb_weight, "rating of the loaded vehicle"),
    ]
    if trailer:
        pairs.append(
            ("trailer.dry_weight", trailer.dry_weight, "rating of the loaded trailer", trailer.ratings.gvwr, "dry weight")
        )
        for index, each in enumerate(trailer.ratings.gawr[1:], 1):
            pairs.append(
                (f"trailer.ratings.gawr[{index}]", each, "first axle's", trailer.ratings.gawr[0], f"rating of axle {index + 1}")
            )
    for path, figure, other, against, called in pairs:
        if figure is None or against is None:
            continue
        ratio = max(figure.kg, against.kg) / min(figure.kg, against.kg)
        if ratio > 5:
            yield plates.say("ten_times", path, f"The {called} {plates.mass(figure.kg)} and the {other} {plates.mass(against.kg)} are "
                             f"{ratio:.0f} times apart: a digit too many, or too few?", figure=figure.kg, other=against.kg)  # fmt: skip


def _hitch(plates: _Plates) -> Iterator[Advisory]:
    for index, part in enumerate(plates.rig.hitch.parts):
        for field in ("trailer", "tongue"):
            rating = getattr(part, field)
            carrying, distributing = getattr(rating, "carrying", None), getattr(rating, "distributing", None)
            if carrying and distributing and carrying.kg > distributing.kg:
                yield plates.say("modes_swapped", f"hitch.parts[{index}].{field}.carrying",
                                 f"The {part.kind}'s weight-carrying figure {plates.mass(carrying.kg)} is above its weight-distributing one "
                                 f"{plates.mass(distributing.kg)}: usually it is the other way round.",
                                 carrying=carrying.kg, distributing=distributing.kg)  # fmt: skip


def contradictions(rig: RigFile) -> list[Advisory]:
    """Everything about the plates that cannot be right together.

    Parameters
    ----------
    rig : RigFile
        Its ratings, weights and tires; what is missing contradicts nothing.

    Returns
    -------
    list of Advisory
        Each with the path of the figure to read again, and its numbers.
    """
    plates = _Plates(rig)
    return [found for look in (_vehicle, _trailer, _tires, _misread, _hitch) for found in look(plates)]
