"""Usual places for items, from the rig's own lengths."""

from noxel.core.mechanics import overhang
from noxel.core.pack.answers import UsualPlace
from noxel.core.quantities import print_length
from noxel.core.rig import RigFile
from noxel.core.wording import Printer

_IN_VEHICLE = {  # as shares of the wheelbase behind the front axle
    "pickup": (
        ("front seats", 0.46),
        ("rear seats", 0.70),
        ("bed, front", 0.92),
        ("bed, middle", 1.06),
        ("bed, tail", 1.22),
    ),
    "suv": (("front seats", 0.46), ("rear seats", 0.78), ("cargo area", 1.12)),
    "wagon": (("front seats", 0.46), ("rear seats", 0.76), ("cargo area", 1.08)),
    "van": (("front seats", 0.30), ("rear seats", 0.62), ("cargo area", 1.02)),
    "motorhome": (("front seats", 0.08), ("middle", 0.55), ("rear", 1.10)),
}


_IN_TRAILER = (
    ("nose", 0.18),
    ("ahead of the axles", 0.65),
    ("over the axles", 1.0),
    ("behind the axles", 1.2),
    ("tail", 1.45),
)


def usual_places(rig: RigFile, printer: Printer) -> list[UsualPlace]:
    """Places by their usual names, from this rig's own lengths; about right, to be measured where
    it matters.
    """
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    places = []

    def put(on: str, name: str, metres: float) -> None:
        places.append(UsualPlace(on=on, name=name, text=print_length(metres, printer.length)))

    if geometry.wheelbase:
        a = geometry.wheelbase.m
        body = rig.vehicle.body or ("motorhome" if rig.kind == "motorhome" else "pickup")
        for name, share in (*_IN_VEHICLE[body], ("roof", 0.62)):
            put("vehicle", name, share * a)
        b = overhang(rig)
        if b is not None and rig.towing:
            put("vehicle", "at the hitch", a + b)
    if trailer and trailer.geometry.coupler_to_axles:
        for name, share in _IN_TRAILER:
            put("trailer", name, share * trailer.geometry.coupler_to_axles.m)
    return places
