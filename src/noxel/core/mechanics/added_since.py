"""What came aboard after the weighing, or left, as changes of every load, by the lever model.

A change that needs a place or a length that is not known cannot be told; nothing is guessed. The
spring bars stay as they were: the moment that they apply is the same.
"""

from collections.abc import Iterable, Mapping

from uncertainties import ufloat

from noxel.core.mechanics.predict import overhang
from noxel.core.mechanics.sources import entered, place_of
from noxel.core.quantities import Amount
from noxel.core.rig import RigFile, WeighIn, on_its_wheels

PLACE_OFF = 0.3
"""How far the place of what came aboard may be off, two standard uncertainties. [m]"""

Placed = tuple[Amount, Amount | None]
"""A mass [kg] and its place [m], as far as that is known."""


def _placed(rig: RigFile, weigh_in: WeighIn, on: str) -> list[Placed]:
    number = place_of(rig, weigh_in)
    return [
        (
            entered(rig, f"weigh_ins[{number}].added_since[{index}].mass", added.mass.kg),
            ufloat(added.position.m, PLACE_OFF / 2) if added.position else None,
        )
        for index, added in enumerate(weigh_in.added_since)
        if added.on == on
    ]


def _moment(things: Iterable[Placed]) -> Amount | None:
    """The sum of mass × place; None where a place is not known. [kg m]"""
    moment: Amount = 0.0
    for mass, place in things:
        if place is None:
            return None
        moment = moment + mass * place
    return moment


def _sum(*parts: Amount | None) -> Amount | None:
    whole: Amount = 0.0
    for part in parts:
        if part is None:
            return None
        whole = whole + part
    return whole


def changes_since(rig: RigFile, weigh_in: WeighIn) -> Mapping[str, Amount | None]:
    """How each load changed since a weighing.

    Parameters
    ----------
    rig : RigFile
        For its lengths.
    weigh_in : WeighIn
        Its ``added_since``.

    Returns
    -------
    Mapping
        By the keys of the rig-file format; None where a change cannot be told; empty where nothing
        was added. [kg]

    Notes ----- With wheelbase a, overhang b and coupler to axles L: a thing of mass m at x in the
    trailer changes the tongue by m·(L − x)/L; a tongue's change t changes the front axle by −t·b/a;
    a thing at x in the vehicle puts m·x/a on the rear axle.
    """
    if not weigh_in.added_since:
        return {}
    own, towed = (_placed(rig, weigh_in, on) for on in ("vehicle", "trailer"))
    in_vehicle: Amount = sum((mass for mass, _ in own), start=0.0)
    in_trailer: Amount = sum((mass for mass, _ in towed), start=0.0)
    tongue = _tongue_change(rig, in_trailer, towed)
    wheelbase, b = rig.vehicle.geometry.wheelbase, overhang(rig)
    a = wheelbase.m if wheelbase else None
    rear: Amount | None = 0.0
    if own:
        moment = _moment(own)
        rear = moment / a if moment is not None and a else None
    lifted: Amount | None = 0.0
    if towed and not on_its_wheels(rig):
        lifted = tongue * (b / a) if tongue is not None and a and b is not None else None
    front = None if rear is None else in_vehicle - rear
    return {
        "vehicle_solo": in_vehicle,
        "front_solo": front,
        "rear_solo": rear,
        "tongue_static": tongue,
        "trailer_gross": in_trailer,
        "combination_gross": in_vehicle + in_trailer,
        "vehicle_hitched": _sum(in_vehicle, tongue),
        "front_hitched": _sum(front, None if lifted is None else -lifted),
        "rear_hitched": _sum(rear, tongue, lifted),
        "trailer_axles": None if tongue is None else in_trailer - tongue,
    }


def _tongue_change(rig: RigFile, mass: Amount, things: list[Placed]) -> Amount | None:
    if not things or on_its_wheels(rig):
        return 0.0
    length = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
    moment = _moment(things)
    return mass - moment / length.m if length and moment is not None else None
