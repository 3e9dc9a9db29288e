"""The rig's lengths for its drawing, and its outline; usual lengths stand in for unknown ones."""

from dataclasses import asdict, dataclass

from noxel.core.drawing.outlines import Lengths, Outline, outline_of
from noxel.core.rig import Kind, RigFile, on_pin


@dataclass(slots=True, kw_only=True)
class Geometry:
    """The rig's lengths for the drawing, in metres; ``assumed`` names those that nobody has
    entered.
    """

    kind: Kind
    body: str
    wheelbase: float
    hitch_offset: float
    coupler_to_axles: float
    trailer_axles: int
    style: str
    duals: bool
    assumed: list[str]
    outline: Outline


def geometry_of(rig: RigFile, axles_read: int = 0) -> Geometry:
    """The shape of a rig; lengths that are not known are taken as usual, and named.

    ``axles_read``: how many trailer axles a scale has read one by one; counts where no label says
    it.
    """
    assumed: list[str] = []

    def known(value: float | None, name: str, usual: float) -> float:
        if value is None:
            assumed.append(name)
            return usual
        return value

    own, trailer, pin = rig.vehicle.geometry, rig.trailer, on_pin(rig)
    coupler = trailer.geometry.coupler_to_axles if trailer else None
    rear = rig.vehicle.tires.rear
    drawn = Lengths(
        kind=rig.kind,
        body=rig.vehicle.body or ("motorhome" if rig.kind == "motorhome" else "pickup"),
        style=(trailer.style if trailer else None) or "box",
        wheelbase=known(own.wheelbase.m if own.wheelbase else None, "wheelbase", 3.7),
        hitch_offset=known(
            own.hitch_offset.m if own.hitch_offset else None,
            "hitch_offset",
            -0.05 if pin else 1.3,
        ),
        coupler_to_axles=known(
            coupler.m if coupler else None, "coupler_to_axles", 8.0 if pin else 5.2
        ),
        trailer_axles=(len(trailer.ratings.gawr) if trailer else 0)
        or axles_read
        or int(known(None, "trailer_axles", 2)),
    )
    return Geometry(
        **asdict(drawn),
        duals=bool(rear and rear.count and rear.count > 2),
        assumed=assumed,
        outline=outline_of(drawn),
    )
