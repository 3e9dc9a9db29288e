"""What one does in the yard, each act with its time and price. One that is dangerous, or cannot be
done as things stand, is refused.

The reasons follow the cautions of the trade; the same acts in the same order lead to the same yard.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from noxel.core.practice.runs import Run, wrong
from noxel.core.practice.tickets import next_ticket
from noxel.core.practice.tongues import measured_tongue
from noxel.core.practice.yard import Yard, begin
from noxel.core.quantities import Length, print_length
from noxel.core.rig import RigFile
from noxel.errors import InputError, Problem

FIRST, AGAIN = 15, 4
"""What a first weigh and a re-weigh cost in the yard, in the yard's own money."""


@dataclass(frozen=True, slots=True)
class Act:
    """What can be done: how long it takes, why it may be refused as things stand, and what it
    does.
    """

    group: str
    minutes: int
    refuse: Callable[[Yard, str, int], str | None]
    do: Callable[[Yard, str, int], Yard]


def _needs(*reasons: tuple[Callable[[Yard], bool], str]) -> Callable[[Yard, str, int], str | None]:
    """The first reason that applies."""

    def why(yard: Yard, _what: str, _amount: int) -> str | None:
        return next((says for applies, says in reasons if applies(yard)), None)

    return why


def _person(yard: Yard, what: str) -> int:
    """The place on the list of the person meant; the driver stays at the wheel."""
    people = [at for at, load in enumerate(yard.rig.loads) if load.category == "people"]
    if not (what.isdigit() and int(what) in people[1:]):
        raise wrong("There is nobody of that number who could step out.")
    return int(what)


def _with_load(yard: Yard, index: int, **changed: object) -> RigFile:
    loads = list(yard.rig.loads)
    loads[index] = loads[index].model_copy(update=changed)
    return yard.rig.model_copy(update={"loads": tuple(loads)})


def _wait(yard: Yard, _what: str, _amount: int) -> Yard:
    ticket = next_ticket(yard)
    price = AGAIN if yard.tickets else FIRST
    return replace(
        yard,
        taken=True,
        tickets=(*yard.tickets, ticket),
        spent=yard.spent + price,
        said=f"“Weight is taken.” Ticket {ticket.number} costs {price}.",
    )


def _step(yard: Yard, what: str, _amount: int, *, inside: bool) -> Yard:
    index = _person(yard, what)
    name = yard.rig.loads[index].name
    return replace(
        yard,
        rig=_with_load(yard, index, aboard=inside),
        said=f"{name.capitalize()} {'gets in' if inside else 'steps out'}.",
    )


def _uncouple(yard: Yard, _what: str, _amount: int) -> Yard:
    said = "Jack down, coupler free, wires and chains off. The hitch head stays on."
    rig = yard.rig
    people = [at for at, load in enumerate(rig.loads) if load.category == "people"]
    if (
        "stepped_out" in yard.traps
        and len(people) > 1
        and not any("kiosk" in line for line in yard.log)
    ):
        rig = _with_load(yard, people[1], aboard=False)
        said += f" {rig.loads[people[1]].name.capitalize()} walks over to the kiosk."
    return replace(yard, rig=rig, coupled=False, said=said)


def _moved(yard: Yard, rig: RigFile, said: str) -> Yard:
    """Something was moved: the next ticket begins another weigh-in."""
    fresh = (
        yard.visit + 1
        if yard.visit
        in {each.visit for each in yard.tickets} | {each.visit for each in yard.tongues}
        else yard.visit
    )
    return replace(yard, rig=rig, visit=fresh, said=said)


def _item(yard: Yard, what: str) -> int:
    if (
        what.isdigit()
        and int(what) < len(yard.rig.loads)
        and yard.rig.loads[int(what)].category not in ("people", "fixed")
    ):
        return int(what)
    raise wrong("There is no such item to move.")


def _move(yard: Yard, what: str, amount: int) -> Yard:
    """Move an item to a place, in centimetres behind the coupler or the front axle."""
    index = _item(yard, what)
    load = yard.rig.loads[index]
    place = Length(f"{amount / 100:.2f} m", amount / 100)
    return _moved(
        yard,
        _with_load(yard, index, position=place),
        f"{load.name.capitalize()} now {_place_words(yard, load.on, amount / 100)}.",
    )


def _place_words(yard: Yard, on: str, metres: float) -> str:
    said = print_length(metres, "ft" if yard.rig.units.lengths in ("in", "ft") else "m")
    return f"lies {said} behind {'the coupler' if on == 'trailer' else 'the front axle'}"


def _swap(yard: Yard, what: str, amount: int) -> Yard:
    index = _item(yard, what)
    load = yard.rig.loads[index]
    other = "vehicle" if load.on == "trailer" else "trailer"
    rig = _with_load(yard, index, on=other, position=Length(f"{amount / 100:.2f} m", amount / 100))
    return _moved(
        yard,
        rig,
        f"{load.name.capitalize()} {_place_words(yard, other, amount / 100)}, in the {other}.",
    )


def _leave(yard: Yard, what: str, _amount: int) -> Yard:
    index = _item(yard, what)
    rig = _with_load(yard, index, aboard=False)
    return _moved(yard, rig, f"{rig.loads[index].name.capitalize()} stays behind.")


def _take(yard: Yard, what: str, _amount: int) -> Yard:
    index = _item(yard, what)
    return _moved(
        yard,
        _with_load(yard, index, aboard=True),
        f"{yard.rig.loads[index].name.capitalize()} comes along again.",
    )


def _tank(yard: Yard, what: str, amount: int) -> Yard:
    """Drain or fill a tank to a level in per cent."""
    if not (what.isdigit() and int(what) < len(yard.rig.tanks) and 0 <= amount <= 100):
        raise wrong("There is no such tank, or the level is not between 0 and 100.")
    tanks = list(yard.rig.tanks)
    tank = tanks[int(what)]
    tanks[int(what)] = tank.model_copy(
        update={"levels": {**tank.levels, yard.rig.plan.phase: amount / 100}}
    )
    return _moved(
        yard,
        yard.rig.model_copy(update={"tanks": tuple(tanks)}),
        f"{(tank.name or tank.fluid).capitalize()} at {amount} %.",
    )


def _ball(yard: Yard, _what: str, amount: int) -> Yard:
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


def _tongue(yard: Yard, what: str, _amount: int) -> Yard:
    made = measured_tongue(yard, what)
    return replace(yard, tongues=(*yard.tongues, made), said=made.says)


def _off(yard: Yard, _what: str, _amount: int) -> Yard:
    return replace(
        yard,
        on_scale=False,
        asked=False,
        taken=False,
        said="Off the platforms, out of the way of the next one.",
    )


_GONE = (lambda yard: yard.gone, "You are on the road already. Start again to go on practising.")
_ON = (lambda yard: yard.on_scale, "Not on the platforms: drive off first, others are waiting.")
_NOT_ON = (lambda yard: not yard.on_scale, "The rig is not on the platforms.")
_SOLO = (lambda yard: not yard.rig.towing, "There is no trailer.")
_APART = (lambda yard: not yard.coupled, "The trailer is uncoupled.")
_TENSION = (
    lambda yard: yard.bars == "engaged",
    "The spring bars are under tension; they can strike. Slacken them first.",
)
_BUSY = (lambda yard: yard.on_scale, "Do not walk about a working scale. Drive off first.")
_LOOSE = (
    lambda yard: not yard.coupled,
    "Uncoupled, a trailer can tip on its jack when things are moved in it. Couple up, or block "
    "the tail, first.",
)

ACTS: Mapping[str, Act] = {
    "on": Act(
        "drive",
        3,
        _needs(
            _GONE,
            (lambda yard: yard.on_scale, "The rig stands on the platforms already."),
            (
                lambda yard: yard.coupled and yard.chocked,
                "The chocks are still under the trailer's wheels.",
            ),
        ),
        lambda yard, _w, _a: replace(
            yard,
            on_scale=True,
            asked=False,
            taken=False,
            said="Slowly, one axle on each platform, no wheel on a seam. It sways, then stands.",
        ),
    ),
    "ask": Act(
        "scale",
        1,
        _needs(_GONE, _NOT_ON, (lambda yard: yard.asked, "You have asked. Wait for the word.")),
        lambda yard, _w, _a: replace(
            yard, asked=True, said="“First weigh or re-weigh?” You answer, and stand still."
        ),
    ),
    "wait": Act(
        "scale",
        1,
        _needs(
            _GONE,
            _NOT_ON,
            (lambda yard: not yard.asked, "You have not asked to be weighed. Ask first."),
            (lambda yard: yard.taken, "The weight has been taken. Make room for the next one."),
        ),
        _wait,
    ),
    "off": Act(
        "drive",
        2,
        _needs(
            _GONE,
            _NOT_ON,
            (
                lambda yard: yard.asked and not yard.taken,
                "The weight has not been taken. Rolling off now would print a part of the rig. "
                "Wait for the word.",
            ),
        ),
        _off,
    ),
    "chock": Act(
        "couple",
        1,
        _needs(_GONE, _SOLO, _ON, (lambda yard: yard.chocked, "The chocks are set.")),
        lambda yard, _w, _a: replace(
            yard, chocked=True, said="Chocks on both sides of the trailer's wheels."
        ),
    ),
    "unchock": Act(
        "couple",
        1,
        _needs(
            _GONE,
            (lambda yard: not yard.chocked, "There are no chocks to take away."),
            (
                lambda yard: not yard.coupled,
                "The trailer is not coupled: without chocks it would roll.",
            ),
        ),
        lambda yard, _w, _a: replace(yard, chocked=False, said="Chocks stowed."),
    ),
    "slack": Act(
        "couple",
        3,
        _needs(
            _GONE,
            _SOLO,
            _ON,
            _APART,
            (lambda yard: yard.bars != "engaged", "There is no tension in any bar."),
        ),
        lambda yard, _w, _a: replace(
            yard,
            bars="slack",
            said="Jack up the coupler a little, lever the bars off. Inside the yard only.",
        ),
    ),
    "engage": Act(
        "couple",
        3,
        _needs(
            _GONE,
            _SOLO,
            _ON,
            _APART,
            (lambda yard: yard.bars != "slack", "There is no slack bar to tension."),
        ),
        lambda yard, _w, _a: replace(
            yard, bars="engaged", said="The bars are under tension again, as for the road."
        ),
    ),
    "uncouple": Act(
        "couple",
        5,
        _needs(
            _GONE,
            _SOLO,
            _ON,
            _APART,
            (
                lambda yard: not yard.chocked,
                "Chocks are not set: uncoupling now would let the trailer roll. Set them first.",
            ),
            _TENSION,
        ),
        _uncouple,
    ),
    "couple": Act(
        "couple",
        6,
        _needs(_GONE, _SOLO, _ON, (lambda yard: yard.coupled, "It is coupled.")),
        lambda yard, _w, _a: replace(
            yard,
            coupled=True,
            said="Latch, pin, chains crossed, breakaway, plug, jack up, lights, walk around.",
        ),
    ),
    "out": Act(
        "people",
        1,
        _needs(_GONE, _BUSY),
        lambda yard, what, amount: _step(yard, what, amount, inside=False),
    ),
    "in": Act(
        "people",
        1,
        _needs(_GONE, _BUSY),
        lambda yard, what, amount: _step(yard, what, amount, inside=True),
    ),
    "tongue": Act(
        "tongue",
        6,
        _needs(
            _GONE,
            _SOLO,
            _ON,
            (
                lambda yard: not yard.chocked,
                "Stop and chock before anything is measured at the tongue.",
            ),
            _TENSION,
        ),
        _tongue,
    ),
    "move": Act("load", 8, _needs(_GONE, _BUSY, _LOOSE), _move),
    "swap": Act("load", 8, _needs(_GONE, _BUSY, _LOOSE), _swap),
    "drop": Act("load", 5, _needs(_GONE, _BUSY, _LOOSE), _leave),
    "take": Act("load", 5, _needs(_GONE, _BUSY, _LOOSE), _take),
    "tank": Act("load", 10, _needs(_GONE, _BUSY), _tank),
    "ball": Act(
        "ball",
        15,
        _needs(
            _GONE,
            _SOLO,
            _ON,
            (lambda yard: yard.coupled, "The trailer rests on the ball. Uncouple first."),
        ),
        _ball,
    ),
    "go": Act(
        "drive",
        0,
        _needs(
            _GONE,
            _ON,
            (lambda yard: yard.rig.towing and not yard.coupled, "The trailer would stay behind."),
            (lambda yard: yard.chocked, "The chocks are still under the wheels."),
            (
                lambda yard: yard.bars == "slack",
                "Never onto the road with slack bars: the front axle is too light. Engage them "
                "first.",
            ),
            (
                lambda yard: any(
                    not each.aboard for each in yard.rig.loads if each.category == "people"
                ),
                "Somebody is not in yet.",
            ),
        ),
        lambda yard, _w, _a: replace(yard, gone=True, said="Out of the yard."),
    ),
}
"""Every act by its word. Prices and times are the yard's; reasons follow the cautions of the trade
(docs/formulas.md).
"""


def why_not(yard: Yard, act: str) -> str | None:
    """Why an act is refused as things stand; None where it can be done.

    Raises
    ------
    InputError
        If there is no such act.
    """
    word, what, amount = _taken_apart(act)
    refused = ACTS[word].refuse(yard, what, amount)
    if refused is None and word == "tongue" and what != "mount" and yard.coupled:
        return (
            "This one is measured uncoupled: the coupler must rest on the scale, the beam or "
            "the lever."
        )
    if refused is None and word == "tongue" and what == "mount" and not yard.coupled:
        return "The scale is in the ball mount: it reads only while the trailer hangs on it."
    return refused


def _taken_apart(act: str) -> tuple[str, str, int]:
    word, _, rest = act.partition(":")
    what, _, amount = rest.partition(":")
    if word not in ACTS:
        raise wrong(f"“{act[:30]}” is no act of the yard.")
    if word == "ball":
        what, amount = "", what
    return word, what, int(amount) if amount.lstrip("-").isdigit() else 0


def do_act(yard: Yard, act: str) -> Yard:
    """Do one act.

    Raises
    ------
    InputError
        If it is refused as things stand (with the reason), or not an act at all.
    """
    refused = why_not(yard, act)
    if refused is not None:
        raise InputError(refused, [Problem("act", refused, "refused")])
    word, what, amount = _taken_apart(act)
    known = ACTS[word]
    done = known.do(yard, what, amount)
    return replace(
        done,
        run=yard.run.then(act),
        minutes=yard.minutes + known.minutes,
        log=(*yard.log, done.said),
    )


@lru_cache(128)
def _played(run: Run) -> Yard:
    """A yard of a known rig, played from the longest part of its run that was played before."""
    if not run.acts:
        return begin(run)
    return do_act(_played(replace(run, acts=run.acts[:-1])), run.acts[-1])


def play(run: Run, own: RigFile | None = None) -> Yard:
    """The yard after all acts of a run.

    Raises
    ------
    InputError
        If an act of it is refused; the message names which.
    """
    yard = begin(run, own)
    for number, act in enumerate(run.acts, 1):
        try:
            yard = (
                do_act(yard, act)
                if own is not None
                else _played(replace(run, acts=run.acts[:number]))
            )
        except InputError as exc:
            says = f"Act {number} of the run, “{act}”: {exc.message}"
            raise InputError(says, [Problem("run", says, "run")]) from exc
    return yard
