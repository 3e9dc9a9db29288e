"""The headroom as a picture: load in the vehicle against loaded trailer, each limit a line, within
all of them the region.
"""

import itertools
from dataclasses import dataclass

from noxel.core.limits import CHECKS, CheckId, cushion
from noxel.core.match.ceiling import (
    NEVER_BINDS,
    Use,
    as_towing,
    every_use,
    tire_share,
    trailer_uses,
)
from noxel.core.match.loaded_vehicle import ON_LIMIT, Start, TowQuestion, with_load
from noxel.core.mechanics import (
    State,
    Weighing,
    anything_listed,
    expect,
    in_phase,
    items_kg,
    loads,
    planned,
    predict_known,
    uncertainty,
    weigh,
)
from noxel.core.quantities import KG, lower_first, upper_first
from noxel.core.rig import PHASES
from noxel.core.wording import PHASE_NAMES, Answer, check_label, limiting_rating, vehicle_word


class RoomLine(Answer):
    """One limit in the room: the trailer mass at which it is met, at no load and at the most load
    drawn.

    ``relieved`` is true where a heavier trailer helps: a ball hitch takes load off the front axle.
    """

    check: CheckId
    label: str
    start: float
    end: float
    relieved: bool


class RoomPoint(Answer):
    """A rig in the room: load in the vehicle, loaded trailer, and their ±."""

    name: str
    load: float
    trailer: float
    load_pm: float
    trailer_pm: float
    measured: bool


class RoomChart(Answer):
    """Load in the vehicle against loaded trailer: each limit a line, within all of them the region.

    ``more_trailer`` and ``more_load`` are the room at the point, below 0 where it is outside;
    ``exceeded`` the limits that are not met there; ``off_trailer`` and ``off_load`` what alone
    brings it within all of them, None where that alone does not.
    """

    most_load: float
    most_trailer: float
    lines: list[RoomLine]
    region: list[tuple[float, float]]
    point: RoomPoint | None
    phases: list[RoomPoint]
    nearest: CheckId | None
    more_load: float | None
    more_trailer: float | None
    exceeded: list[CheckId]
    off_trailer: float | None
    off_load: float | None
    says: str


def room_chart(asked: TowQuestion, start: Start) -> RoomChart | None:
    """Draw the room: every limit as a line over the load in the vehicle, the region within all of
    them, the rig as a point.

    Parameters
    ----------
    asked : TowQuestion
        The vehicle as loaded, the share, the limits known.
    start : {"plan", "weigh_in"}
        Where the point comes from.

    Returns
    -------
    RoomChart or None
        In the file's unit; None with no limit known. Loads as with slack bars.
    """
    rig, factor = asked.rig, KG[asked.rig.units.mass]
    listed = items_kg(rig, "vehicle")
    bounds = _bounds(asked, listed)
    if not bounds:
        return None
    point = _point(asked, start, listed)
    ends = [
        bound.room / bound.per_load for bound in bounds if bound.per_load > 0 and bound.room > 0
    ]
    most_load = 1.1 * max([*(end for end in ends if end < 1.6 * min(ends)), listed, 100.0])
    region = _region(bounds, most_load)
    most_trailer = 1.25 * max(
        [*(y for _, y in region), point.trailer * factor if point else 0.0, 500.0]
    )
    room = (
        _Room.at(bounds, *(kg * factor for kg in (point.load, point.trailer, point.trailer_pm)))
        if point
        else _Room()
    )
    drawn = [
        RoomLine(
            check=bound.check,
            label=check_label(as_towing(rig), bound.check),
            start=bound.met(0.0) / factor,
            end=bound.met(most_load) / factor,
            relieved=bound.per_trailer < 0,
        )
        for bound in bounds
        if bound.per_trailer > 0 or bound.met(most_load) > 0
    ]
    return RoomChart(
        most_load=most_load / factor,
        most_trailer=most_trailer / factor,
        lines=drawn,
        region=[(x / factor, y / factor) for x, y in region],
        point=point,
        phases=_phases(asked),
        nearest=room.nearest,
        more_load=_in_unit(room.more_load, factor),
        more_trailer=_in_unit(room.more_trailer, factor),
        exceeded=[bound.check for bound in room.exceeded],
        off_trailer=_in_unit(room.off_trailer, factor),
        off_load=_in_unit(room.off_load, factor),
        says=_chart_says(asked, room),
    )


@dataclass(frozen=True, slots=True)
class _Bound:
    """One limit: the room it leaves an empty vehicle, and what a kilogram of load and of trailer
    takes of it. [kg]
    """

    check: CheckId
    room: float
    per_load: float
    per_trailer: float
    use: Use

    def left(self, load: float, trailer: float) -> float:
        return self.room - self.per_load * load - self.per_trailer * trailer

    def met(self, load: float) -> float:
        """The trailer at which it is met; from below where a trailer relieves it."""
        return (self.room - self.per_load * load) / self.per_trailer

    def full(self, trailer: float) -> float:
        """The load at which it is met; from below where a load relieves it."""
        return (self.room - self.per_trailer * trailer) / self.per_load


_GROUND = _Bound("trailer.gross", 0.0, 0.0, -1.0, Use(0.0, -1.0))
"""No trailer weighs less than nothing."""


@dataclass(frozen=True, slots=True)
class _Room:
    """What the bounds leave at one point, or what alone brings it within all of them. [kg]"""

    nearest: CheckId | None = None
    first_by_load: CheckId | None = None
    more_trailer: float | None = None
    more_load: float | None = None
    exceeded: tuple[_Bound, ...] = ()
    off_trailer: float | None = None
    off_load: float | None = None
    too_close: tuple[CheckId, ...] = ()

    @classmethod
    def at(cls, bounds: list[_Bound], load: float, trailer: float, off: float) -> "_Room":
        by_trailer = {
            bound.check: bound.met(load) - trailer for bound in bounds if bound.per_trailer > 0
        }
        by_load = {
            bound.check: bound.full(trailer) - load for bound in bounds if bound.per_load > 0
        }
        exceeded = tuple(bound for bound in bounds if bound.left(load, trailer) < -ON_LIMIT)
        nearest = min(by_trailer, key=lambda check: by_trailer[check], default=None)
        if exceeded and (nearest is None or by_trailer[nearest] >= 0):
            # by the vehicle's load alone: a heavier trailer relieves it
            nearest = exceeded[0].check
        more_trailer, more_load = (
            min(by_trailer.values(), default=None),
            min(by_load.values(), default=None),
        )

        def within(load: float, trailer: float) -> bool:
            return (
                load >= 0
                and trailer >= 0
                and all(bound.left(load, trailer) >= -ON_LIMIT for bound in bounds)
            )

        first = min(by_load, key=lambda check: by_load[check], default=None)
        lighter = -more_trailer if more_trailer is not None and more_trailer < 0 else None
        less = -more_load if more_load is not None and more_load < 0 else None
        return cls(
            nearest,
            first,
            more_trailer,
            more_load,
            exceeded,
            lighter
            if exceeded and lighter is not None and within(load, trailer - lighter)
            else None,
            less if exceeded and less is not None and within(load - less, trailer) else None,
            tuple(
                bound.check
                for bound in bounds
                if bound.left(load, trailer) <= bound.use.load(trailer, off)[1]
            ),
        )


def _bounds(asked: TowQuestion, listed: float) -> list[_Bound]:
    rig, share = asked.rig, asked.share
    more = loads(State(vehicle=1.0, rear=asked.place, cargo=1.0))
    lines = []
    for check, use in every_use(rig, with_load(asked.solo, -listed, asked.place), share).items():
        limit, takes = asked.known.get(check), more.get(CHECKS[check].load, 0.0)
        if check in ("tires.front", "tires.rear"):
            takes *= tire_share(rig, check)
        if limit is not None and limit.certainty not in NEVER_BINDS and use.slope:
            room = cushion(rig, check) * limit.kg - use.used
            lines.append(_Bound(check, room, takes, use.slope, use))
    own = trailer_uses(rig.trailer, share) if rig.trailer is not None else {}
    for check, use in own.items():
        limit = asked.known.get(check)
        if limit is not None and use.slope:  # with all of it on the hitch, nothing is on its wheels
            lines.append(_Bound(check, cushion(rig, check) * limit.kg, 0.0, use.slope, use))
    return lines


def _region(bounds: list[_Bound], most_load: float) -> list[tuple[float, float]]:
    """The corners of what lies within every bound, from no load to the most: along the top, and
    back along the bottom.
    """
    corners = {0.0, most_load}
    for first, other in itertools.combinations([*bounds, _GROUND], 2):
        across = first.per_load / first.per_trailer - other.per_load / other.per_trailer
        if across:
            x = (first.room / first.per_trailer - other.room / other.per_trailer) / across
            if 0 < x < most_load:
                corners.add(x)
    top, bottom = [], []
    for x in sorted(corners):
        high = min((bound.met(x) for bound in bounds if bound.per_trailer > 0), default=0.0)
        low = max([0.0, *(bound.met(x) for bound in bounds if bound.per_trailer < 0)])
        if low <= high + 1e-6:
            top.append((x, max(low, high)))
            bottom.append((x, low))
    return [*top, *reversed(bottom)]


def _in_unit(kg: float | None, factor: float) -> float | None:
    return None if kg is None else kg / factor


def _chart_says(asked: TowQuestion, room: _Room) -> str:
    if room.nearest is None:
        return "Enter what the trailer weighs, or its rating, to see this rig as a point."
    word = vehicle_word(asked.rig)
    slack = ", bars slack" if asked.rig.hitch.weight_distribution else ""

    def named(check: CheckId) -> str:
        return lower_first(check_label(as_towing(asked.rig), check))

    if room.exceeded:
        off = [(room.off_trailer, "the trailer"), (room.off_load, f"the {word}")]
        ways = " or ".join(f"{asked.mass(kg)} off {part}" for kg, part in off if kg is not None)
        cure = (
            f"To get within: {ways}"
            if ways
            else f"Neither a lighter trailer nor less in the {word} is enough alone"
        )
        others = len(room.exceeded) - 1
        also = f", with {others} more limit{'' if others == 1 else 's'}" if others else ""
        counted = " (counted with the bars slack)" if slack else ""
        limit = upper_first(limiting_rating(as_towing(asked.rig), room.nearest))
        return f"{limit} is exceeded{also}. {cure}{counted}."
    parts = [
        (room.nearest, room.more_trailer, "more trailer"),
        (room.first_by_load, room.more_load, f"more in the {word}"),
    ]
    rooms = [
        f"{asked.mass(kg)} {part} ({named(check)})"
        for check, kg, part in parts
        if check is not None and kg is not None
    ]
    close = ", ".join(named(check) for check in room.too_close)
    return f"Room for {' or '.join(rooms)}{slack}." + (
        f" Too close to say: {close}, by the ±." if close else ""
    )


def _point(asked: TowQuestion, start: Start, listed: float) -> RoomPoint | None:
    rig, factor = asked.rig, KG[asked.rig.units.mass]
    if rig.trailer is None:
        return None
    if start == "weigh_in":
        figure = weigh(rig, asked.weigh_in).figures.get("trailer_gross")
        if figure is not None:
            return RoomPoint(
                name="as weighed",
                load=listed / factor,
                trailer=figure.value / factor,
                load_pm=0.0,
                trailer_pm=figure.plus_minus / factor,
                measured=True,
            )
    predicted, known = predict_known(rig).loads, expect(rig, Weighing())
    gross, solo = known.expected.get("trailer_gross"), known.expected.get("vehicle_solo")
    name, off = "as planned", uncertainty(rig)
    if "trailer_gross" in predicted and (
        rig.plan.trailer_base is not None or anything_listed(rig, "trailer")
    ):
        trailer, pm = (
            predicted["trailer_gross"],
            off.get("trailer_gross", gross.figure.plus_minus if gross else 0.0),
        )
    elif gross is not None:
        trailer, pm = gross.figure.value, gross.figure.plus_minus
        name = "at the trailer's rating" if gross.way == "rating" else name
    else:
        return None
    load_pm = off.get("vehicle_solo", solo.figure.plus_minus if solo else 0.0)
    return RoomPoint(
        name=name,
        load=listed / factor,
        trailer=trailer / factor,
        load_pm=load_pm / factor,
        trailer_pm=pm / factor,
        measured=False,
    )


def _phases(asked: TowQuestion) -> list[RoomPoint]:
    rig, factor = asked.rig, KG[asked.rig.units.mass]
    if not rig.tanks or rig.trailer is None:
        return []
    points = []
    listed, base = items_kg(rig, "vehicle"), planned(rig).base.vehicle
    for phase in PHASES:
        loads = predict_known(in_phase(rig, phase)).loads
        if base is None or "vehicle_solo" not in loads or "trailer_gross" not in loads:
            return []
        points.append(
            RoomPoint(
                name=PHASE_NAMES[phase],
                load=(listed + loads["vehicle_solo"] - base) / factor,
                trailer=loads["trailer_gross"] / factor,
                load_pm=0.0,
                trailer_pm=0.0,
                measured=False,
            )
        )
    return points
