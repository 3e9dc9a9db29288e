"""What each act does to the yard: the yard as it stands afterwards, and what is said."""

from dataclasses import replace

from noxel.core.practice.runs import wrong
from noxel.core.practice.tickets import next_ticket
from noxel.core.practice.tongues import measured_tongue
from noxel.core.practice.yard import Yard
from noxel.core.quantities import Length, print_length, upper_first
from noxel.core.rig import RigFile, on_its_wheels, on_pin

FIRST, AGAIN = 15, 4
"""What a first weigh and a re-weigh cost in the yard, in the yard's own money."""


def apart(rig: RigFile) -> str:
    """What is done when the trailer is set down, in a line."""
    if on_its_wheels(rig):
        return "Lights and safety cables off, tow bar unpinned. The car stands on its own brake."
    if on_pin(rig):
        return "Landing legs down, wires off, coupling open. It stands free."
    return "Jack down, wires and chains off, coupler free. The hitch head stays on."


def together(rig: RigFile) -> str:
    """What is done when the trailer is coupled up again, in a line."""
    if on_its_wheels(rig):
        return (
            "Tow bar pinned, safety cables on, lights and brakes tried, steering and gearbox as "
            "its manual says."
        )
    if on_pin(rig):
        return "Coupling closed and locked, breakaway, plug, a tug against the brakes, legs up."
    return (
        "Coupler latched and pinned, lifted with the jack to try it; chains crossed, breakaway, "
        "plug, jack up, lights."
    )


def _person(yard: Yard, subject: str) -> int:
    """The place on the list of the person meant; the driver stays at the wheel."""
    people = [index for index, load in enumerate(yard.rig.loads) if load.category == "people"]
    if not (subject.isdigit() and int(subject) in people[1:]):
        raise wrong("There is nobody of that number who could step out.")
    return int(subject)


def _with_load(yard: Yard, index: int, **changed: object) -> RigFile:
    loads = list(yard.rig.loads)
    loads[index] = loads[index].model_copy(update=changed)
    return yard.rig.model_copy(update={"loads": tuple(loads)})


def wait(yard: Yard, _subject: str, _amount: int) -> Yard:
    ticket = next_ticket(yard)
    price = AGAIN if yard.tickets else FIRST
    return replace(
        yard,
        taken=True,
        tickets=(*yard.tickets, ticket),
        spent=yard.spent + price,
        said=f"“Weight is taken.” Ticket {ticket.number} costs {price}.",
    )


def step(yard: Yard, subject: str, _amount: int, *, inside: bool) -> Yard:
    index = _person(yard, subject)
    name = yard.rig.loads[index].name
    return replace(
        yard,
        rig=_with_load(yard, index, aboard=inside),
        said=f"{upper_first(name)} {'gets in' if inside else 'steps out'}.",
    )


def uncouple(yard: Yard, _subject: str, _amount: int) -> Yard:
    rig = yard.rig
    order = apart(rig)
    people = [index for index, load in enumerate(rig.loads) if load.category == "people"]
    if (
        "stepped_out" in yard.traps
        and len(people) > 1
        and not any("kiosk" in line for line in yard.log)
    ):
        rig = _with_load(yard, people[1], aboard=False)
        order += f" {upper_first(rig.loads[people[1]].name)} walks over to the kiosk."
    return replace(yard, rig=rig, coupled=False, said=order)


def _moved(yard: Yard, rig: RigFile, line: str) -> Yard:
    """Something was moved: the next ticket begins another weigh-in."""
    fresh = (
        yard.visit + 1
        if yard.visit
        in {ticket.visit for ticket in yard.tickets} | {tongue.visit for tongue in yard.tongues}
        else yard.visit
    )
    return replace(yard, rig=rig, visit=fresh, said=line)


def _item(yard: Yard, subject: str) -> int:
    if (
        subject.isdigit()
        and int(subject) < len(yard.rig.loads)
        and yard.rig.loads[int(subject)].category not in ("people", "fixed")
    ):
        return int(subject)
    raise wrong("There is no such item to move.")


def move(yard: Yard, subject: str, amount: int) -> Yard:
    """Move an item to a place, in centimetres behind the coupler or the front axle."""
    index = _item(yard, subject)
    load = yard.rig.loads[index]
    place = _place(yard, load.on, amount)
    rig = _with_load(yard, index, position=place)
    return _moved(yard, rig, f"{upper_first(load.name)}: {_place_words(yard, load.on, place)}.")


def _place(yard: Yard, on: str, centimetres: int) -> Length:
    """A place in the vehicle or on the trailer, behind the front axle or the coupler; refused where
    it is outside.
    """
    metres, trailer = centimetres / 100, yard.rig.trailer
    length = trailer.geometry.coupler_to_axles if trailer else None
    wheelbase = yard.rig.vehicle.geometry.wheelbase
    if on == "trailer" and length and not 0 <= metres <= 2 * length.m:
        raise wrong("The trailer does not reach that far.")
    if on == "vehicle" and wheelbase and not -0.3 <= metres / wheelbase.m <= 1.6:
        raise wrong("The vehicle does not reach that far.")
    return Length(f"{metres:.2f} m", metres)


def _place_words(yard: Yard, on: str, place: Length) -> str:
    distance = print_length(abs(place.m), "ft" if yard.rig.units.lengths in ("in", "ft") else "m")
    side = "behind" if place.m >= 0 else "ahead of"
    return f"now {distance} {side} {'the coupler' if on == 'trailer' else 'the front axle'}"


def swap(yard: Yard, subject: str, amount: int) -> Yard:
    index = _item(yard, subject)
    load = yard.rig.loads[index]
    other = "vehicle" if load.on == "trailer" else "trailer"
    place = _place(yard, other, amount)
    rig = _with_load(yard, index, on=other, position=place)
    line = f"{upper_first(load.name)}: {_place_words(yard, other, place)}"
    return _moved(yard, rig, f"{line}, {'on' if other == 'trailer' else 'in'} the {other}.")


def leave(yard: Yard, subject: str, _amount: int) -> Yard:
    index = _item(yard, subject)
    rig = _with_load(yard, index, aboard=False)
    return _moved(yard, rig, f"{upper_first(rig.loads[index].name)} stays behind.")


def take(yard: Yard, subject: str, _amount: int) -> Yard:
    index = _item(yard, subject)
    return _moved(
        yard,
        _with_load(yard, index, aboard=True),
        f"{upper_first(yard.rig.loads[index].name)} comes along again.",
    )


def set_tank(yard: Yard, subject: str, amount: int) -> Yard:
    """Drain or fill a tank to a level in per cent."""
    if not (subject.isdigit() and int(subject) < len(yard.rig.tanks) and 0 <= amount <= 100):
        raise wrong("There is no such tank, or the level is not between 0 and 100.")
    tanks = list(yard.rig.tanks)
    tank = tanks[int(subject)]
    if tank.fluid in ("grey", "black") and amount / 100 > tank.level(yard.rig.plan.phase):
        raise wrong("A waste tank fills by use. It can only be drained, at a dump station.")
    tanks[int(subject)] = tank.model_copy(
        update={"levels": {**tank.levels, yard.rig.plan.phase: amount / 100}}
    )
    return _moved(
        yard,
        yard.rig.model_copy(update={"tanks": tuple(tanks)}),
        f"{(tank.name or tank.fluid).capitalize()} at {amount} %.",
    )


def set_ball(yard: Yard, _subject: str, amount: int) -> Yard:
    """Raise or lower the ball by so many centimetres."""
    height = yard.rig.hitch.ball_height
    if height is None or not -15 <= amount <= 15 or not 0.2 < height.m + amount / 100 < 1.5:
        raise wrong("The ball mount does not go that far.")
    raised = height.m + amount / 100
    hitch = yard.rig.hitch.model_copy(update={"ball_height": Length(f"{raised:.3f} m", raised)})
    up = "up" if amount > 0 else "down"
    return _moved(
        yard,
        yard.rig.model_copy(update={"hitch": hitch}),
        f"The ball is {abs(amount)} cm further {up}.",
    )


def measure_tongue(yard: Yard, subject: str, _amount: int) -> Yard:
    reading = measured_tongue(yard, subject)
    return replace(yard, tongues=(*yard.tongues, reading), said=reading.says)


def drive_off(yard: Yard, _subject: str, _amount: int) -> Yard:
    return replace(
        yard,
        on_scale=False,
        asked=False,
        taken=False,
        said="Off the platforms, out of the way of the next one.",
    )
