"""Plates that contradict each other: which figures cannot both be right, and which label to read
again.

None of them blocks anything; half-filled labels are normal and contradict nothing.
"""

import datetime
from collections.abc import Iterator
from dataclasses import replace

from noxel.core.limits import OLD_YEARS, AxleSet, age_years, axle_sets, made_on, read_load_index
from noxel.core.plates.hitch_labels import OF_THE_HITCH
from noxel.core.plates.looked_at import LABEL_ROUNDING, Labels, above
from noxel.core.quantities import Mass, upper_first
from noxel.core.rig import RigFile, TrailerRatings, rating_in, share_range
from noxel.core.wording import Advisory, Fix, FixChange, term_name, terms_of


def _vehicle(plates: Labels) -> Iterator[Advisory]:
    vehicle, rig = plates.rig.vehicle, plates.rig
    ratings, curb = vehicle.ratings, vehicle.curb_weight
    gvwr, front, rear, gcwr = ratings.gvwr, ratings.gawr_front, ratings.gawr_rear, ratings.gcwr
    tow = rating_in(ratings.tow_rating, rig.hitch.mode)
    name = terms_of(rig)
    if gvwr and front and rear:
        axles = front.kg + (ratings.rear_axles or 0.0)
        if above(gvwr.kg, axles):
            yield plates.say(
                "axles_below_gvwr",
                "vehicle.ratings.gvwr",
                f"The axle ratings add up to {plates.mass(axles)}, less than the "
                f"{plates.mass(gvwr.kg)} {name['gvwr']}. "
                "Re-read all three on the certification label.",
                axles=axles,
                gvwr=gvwr.kg,
            )
        elif axles > 1.6 * gvwr.kg:
            yield plates.say(
                "axles_far_above_gvwr",
                "vehicle.ratings.gvwr",
                f"The axle ratings add up to {plates.mass(axles)}, far above the "
                f"{plates.mass(gvwr.kg)} {name['gvwr']}: "
                "a figure in the other unit?",
                axles=axles,
                gvwr=gvwr.kg,
            )
    reduction = ratings.payload_reduction.kg if ratings.payload_reduction else 0.0
    if gvwr and curb:
        if curb.kg >= gvwr.kg:
            yield plates.say(
                "curb_above_gvwr",
                "vehicle.curb_weight",
                f"A {name['curb_weight']} of {plates.mass(curb.kg)} leaves nothing of the "
                f"{plates.mass(gvwr.kg)} {name['gvwr']}. "
                "Re-read both.",
                curb=curb.kg,
                gvwr=gvwr.kg,
            )
        elif ratings.payload and ratings.payload.kg - reduction + curb.kg > gvwr.kg * (
            1 + 2 * LABEL_ROUNDING
        ):
            yield plates.say(
                "payload_above_gvwr",
                "vehicle.ratings.payload",
                f"Payload {plates.mass(ratings.payload.kg - reduction)} on top of the "
                f"{name['curb_weight']} {plates.mass(curb.kg)} is more than the "
                f"{plates.mass(gvwr.kg)} {name['gvwr']}. The placard is for the vehicle "
                f"as built: an add-on label missing, or the {name['curb_weight']} with equipment "
                "fitted later?",
                payload=ratings.payload.kg,
                curb=curb.kg,
            )
    if gcwr and gvwr and gcwr.kg < gvwr.kg:
        yield plates.say(
            "gcwr_below_gvwr",
            "vehicle.ratings.gcwr",
            f"The {name['gcwr']} {plates.mass(gcwr.kg)} is below the {name['gvwr']} "
            f"{plates.mass(gvwr.kg)}: it is for vehicle and "
            "trailer together.",
            gcwr=gcwr.kg,
            gvwr=gvwr.kg,
        )
    if gcwr and tow and curb and above(tow.kg + curb.kg, gcwr.kg):
        yield plates.say(
            "tow_above_gcwr",
            "vehicle.ratings.gcwr",
            f"The {name['tow_rating']} {plates.mass(tow.kg)} and the empty vehicle "
            f"{plates.mass(curb.kg)} are already more than "
            f"the {name['gcwr']} {plates.mass(gcwr.kg)}. Another row of the towing guide?",
            tow=tow.kg,
            gcwr=gcwr.kg,
        )


def _more_axles(plates: Labels, ratings: TrailerRatings) -> Fix | None:
    """As many axles like the only one entered as its trailer's rating takes: often the first of two
    was typed.
    """
    if len(ratings.gawr) != 1 or ratings.gvwr is None:
        return None
    rated, carried = ratings.gawr[0], ratings.gvwr.kg * (1 - share_range(plates.rig)[1])
    for count in (2, 3):
        if not above(carried, count * rated.kg):
            changes = [
                FixChange(f"trailer.ratings.gawr[{index}]", rated.written)
                for index in range(1, count)
            ]
            return Fix(f"{count} axles of {plates.mass(rated.kg)} each", changes)
    return None


def _trailer(plates: Labels) -> Iterator[Advisory]:
    trailer, rig = plates.rig.trailer, plates.rig
    if trailer is None:
        return
    ratings, dry = trailer.ratings, trailer.dry_weight
    axles = sum(rating.kg for rating in ratings.gawr)
    name, bare = term_name(rig, "trailer.gvwr"), term_name(rig, "dry_weight")
    most = axles / (1 - share_range(rig)[1])
    if ratings.gvwr and axles and above(ratings.gvwr.kg, most):
        single = len(ratings.gawr) == 1
        yield replace(
            plates.say(
                "trailer_above_axles",
                "trailer.ratings.gawr[0]" if single else "trailer.ratings.gvwr",
                f"The trailer's {name} {plates.mass(ratings.gvwr.kg)} is more than "
                f"{'one axle' if single else 'its axles'} ({plates.mass(axles)}) and a usual "
                f"{terms_of(rig)['tongue_weight']} can carry. "
                f"{'Another axle' if single else 'An axle missing'}, or a figure misread?",
                gvwr=ratings.gvwr.kg,
                axles=axles,
            ),
            fix=_more_axles(plates, ratings),
        )
    if ratings.gvwr and dry and dry.kg >= ratings.gvwr.kg:
        yield plates.say(
            "dry_above_gvwr",
            "trailer.dry_weight",
            f"A {bare} of {plates.mass(dry.kg)} leaves nothing of the "
            f"{plates.mass(ratings.gvwr.kg)} {name}.",
            dry=dry.kg,
            gvwr=ratings.gvwr.kg,
        )
    elif ratings.gvwr and dry and ratings.ccc and above(ratings.ccc.kg + dry.kg, ratings.gvwr.kg):
        yield plates.say(
            "ccc_above_gvwr",
            "trailer.ratings.ccc",
            f"Cargo {plates.mass(ratings.ccc.kg)} on top of the {bare} {plates.mass(dry.kg)} "
            f"is more than the {plates.mass(ratings.gvwr.kg)} {name}. A {bare} without the options "
            "that are always fitted?",
            ccc=ratings.ccc.kg,
            dry=dry.kg,
        )
    if dry and trailer.dry_tongue and trailer.dry_tongue.kg > 0.4 * dry.kg:
        called = term_name(rig, "dry_tongue")
        yield plates.say(
            "dry_tongue_large",
            "trailer.dry_tongue",
            f"{upper_first(called)}: {plates.mass(trailer.dry_tongue.kg)} is more than "
            "four tenths of the trailer. Re-read it.",
            tongue=trailer.dry_tongue.kg,
        )


def _tires(plates: Labels) -> Iterator[Advisory]:
    for axle_set in axle_sets(plates.rig):
        tires, rating = axle_set.tires, axle_set.rating
        parts = dict(axle_set.parts())
        rated = parts.get("axle rating")
        for name, code, field in (
            ("axle assembly", "assembly_below_axle", "assembly"),
            ("wheels", "wheels_below_axle", "wheel"),
            ("tires", "tires_below_axle", rating.field if rating else ""),
        ):
            if rated and name in parts and above(rated, parts[name]):
                subject = (
                    f"{tires.count} {axle_set.group} {name}"
                    if name != "axle assembly"
                    else f"the {axle_set.group} axle assembly"
                )
                verb = "carries" if name == "axle assembly" else "carry"
                yield plates.say(
                    code,
                    f"{axle_set.path}.{field}",
                    f"{upper_first(subject)} {verb} {plates.mass(parts[name])}, less "
                    f"than the {plates.mass(rated)} "
                    f"rating of the axle. That part is then the limit; read its marking again.",
                    part=parts[name],
                    axle=rated,
                )
        yield from _sidewall(plates, axle_set)


def _sidewall(plates: Labels, axle_set: AxleSet) -> Iterator[Advisory]:
    """What a sidewall says against the placard: index, pressure, age."""
    tires, path = axle_set.tires, axle_set.path
    if tires.load_index and tires.placard_load_index:
        fitted, asked = (
            read_load_index(text, dual=axle_set.dual)
            for text in (tires.load_index, tires.placard_load_index)
        )
        if fitted < asked:
            yield plates.say(
                "load_index_below_placard",
                f"{path}.load_index",
                f"Load index {tires.load_index} is smaller than the {tires.placard_load_index} "
                "that the placard asks for.",
                fitted=fitted,
                asked=asked,
            )
    if tires.max_load and tires.load_index:
        by_index = read_load_index(tires.load_index, dual=axle_set.dual)
        if abs(by_index - tires.max_load.kg) > 0.03 * by_index:
            yield plates.say(
                "load_index_disagrees",
                f"{path}.max_load",
                f"Load index {tires.load_index} stands for {plates.mass(by_index)}, the load "
                "typed is "
                f"{plates.mass(tires.max_load.kg)}. Re-read the sidewall.",
                by_index=by_index,
                typed=tires.max_load.kg,
            )
    known = {
        name: (value.kpa, value.written)
        for name, value in (
            ("set", tires.pressure),
            ("placard", tires.placard_pressure),
            ("sidewall", tires.sidewall_pressure),
        )
        if value
    }
    if "set" in known and "placard" in known and above(known["placard"][0], known["set"][0]):
        yield plates.say(
            "pressure_below_placard",
            f"{path}.pressure",
            "The pressure set is below the placard's. Never go below it, and set it cold.",
        )
    for name in ("set", "placard"):
        if name in known and "sidewall" in known and above(known[name][0], known["sidewall"][0]):
            yield plates.say(
                "pressure_above_sidewall",
                f"{path}.{'pressure' if name == 'set' else 'placard_pressure'}",
                f"The {'pressure set' if name == 'set' else 'placard'} is above the sidewall's "
                "maximum. Re-read both.",
            )
    if tires.date_code:
        made_in, age = made_on(tires.date_code), age_years(tires.date_code, plates.today)
        when = f"Week {made_in.isocalendar().week} of {made_in.isocalendar().year}"
        if age < -0.1:
            yield plates.say(
                "tire_from_the_future",
                f"{path}.date_code",
                f"{when} has not come yet. Re-read the last four digits.",
            )
        elif age >= OLD_YEARS:
            yield plates.say(
                "tire_old",
                f"{path}.date_code",
                f"Made in {when[0].lower()}{when[1:]}: more than {int(age)} years old. Tires age "
                "whatever their "
                "tread; ask their maker's advice.",
            )


def _misread(plates: Labels) -> Iterator[Advisory]:
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
        (
            "vehicle.ratings.gvwr",
            vehicle.ratings.gvwr,
            term_name(plates.rig, "curb_weight"),
            vehicle.curb_weight,
            "rating of the loaded vehicle",
        ),
    ]
    if trailer:
        pairs.append(
            (
                "trailer.dry_weight",
                trailer.dry_weight,
                "rating of the loaded trailer",
                trailer.ratings.gvwr,
                term_name(plates.rig, "dry_weight"),
            )
        )
        for index, gawr in enumerate(trailer.ratings.gawr[1:], 1):
            pairs.append(
                (
                    f"trailer.ratings.gawr[{index}]",
                    gawr,
                    "first axle's",
                    trailer.ratings.gawr[0],
                    f"rating of axle {index + 1}",
                )
            )
    for path, figure, other, against, called in pairs:
        if figure is None or against is None:
            continue
        ratio = max(figure.kg, against.kg) / min(figure.kg, against.kg)
        if ratio > 5:
            yield plates.say(
                "ten_times",
                path,
                f"The {called} {plates.mass(figure.kg)} and the {other} {plates.mass(against.kg)} "
                "are "
                f"{ratio:.0f} times apart: a digit too many, or too few?",
                figure=figure.kg,
                other=against.kg,
            )


def contradictions(rig: RigFile, today: datetime.date | None = None) -> list[Advisory]:
    """Everything about the plates that cannot be right together.

    ``rig``: its ratings, weights, hitch chain and tires; what is missing contradicts nothing.
    ``today``: for the age of tires; None is the machine's own date.

    Each comes with the path of the figure to read again, and its numbers.
    """
    plates = Labels(rig, today or datetime.date.today())
    looks = (_vehicle, _trailer, _tires, _misread, *OF_THE_HITCH)
    return [contradiction for look in looks for contradiction in look(plates)]
