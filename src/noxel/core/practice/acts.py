"""What one does in the yard, each act with its time and price. One that is dangerous, or cannot be
done as things stand, is refused.

The reasons follow the cautions of the trade; the same acts in the same order lead to the same yard.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from noxel.core.practice.effects import (
    drive_off,
    leave,
    measure_tongue,
    move,
    set_ball,
    set_tank,
    step,
    swap,
    take,
    together,
    uncouple,
    wait,
)
from noxel.core.practice.runs import Run, wrong
from noxel.core.practice.yard import Yard, begin
from noxel.core.rig import RigFile
from noxel.errors import InputError, Problem


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

    def why(yard: Yard, _subject: str, _amount: int) -> str | None:
        return next((says for applies, says in reasons if applies(yard)), None)

    return why


_GONE = (lambda yard: yard.gone, "You are on the road already. Start again to go on practising.")
_ON = (lambda yard: yard.on_scale, "Not on the platforms: drive off first, others are waiting.")
_NOT_ON = (lambda yard: not yard.on_scale, "The rig is not on the platforms.")
_SOLO = (lambda yard: not yard.rig.towing, "There is no trailer.")
_APART = (lambda yard: not yard.coupled, "The trailer is uncoupled.")
_TENSION = (
    lambda yard: yard.bars == "engaged",
    "The spring bars are under tension; they can strike. Slacken them first.",
)
_UNCHOCKED = (
    lambda yard: not yard.chocked,
    "Chocks first: a jack or a lever comes to the hitch, and the trailer could roll.",
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
        wait,
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
        drive_off,
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
            _UNCHOCKED,
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
            _UNCHOCKED,
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
        uncouple,
    ),
    "couple": Act(
        "couple",
        6,
        _needs(_GONE, _SOLO, _ON, (lambda yard: yard.coupled, "It is coupled.")),
        lambda yard, _w, _a: replace(
            yard,
            coupled=True,
            said=together(yard.rig),
        ),
    ),
    "out": Act(
        "people",
        1,
        _needs(_GONE, _BUSY),
        lambda yard, subject, amount: step(yard, subject, amount, inside=False),
    ),
    "in": Act(
        "people",
        1,
        _needs(_GONE, _BUSY),
        lambda yard, subject, amount: step(yard, subject, amount, inside=True),
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
        measure_tongue,
    ),
    "move": Act("load", 8, _needs(_GONE, _BUSY, _LOOSE), move),
    "swap": Act("load", 8, _needs(_GONE, _BUSY, _LOOSE), swap),
    "drop": Act("load", 5, _needs(_GONE, _BUSY, _LOOSE), leave),
    "take": Act("load", 5, _needs(_GONE, _BUSY, _LOOSE), take),
    "tank": Act("load", 10, _needs(_GONE, _BUSY), set_tank),
    "ball": Act(
        "ball",
        15,
        _needs(
            _GONE,
            _SOLO,
            _ON,
            (lambda yard: yard.coupled, "The trailer rests on the ball. Uncouple first."),
        ),
        set_ball,
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
                    not person.aboard for person in yard.rig.loads if person.category == "people"
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

    Raises InputError if there is no such act.
    """
    word, subject, amount = _taken_apart(act)
    refused = ACTS[word].refuse(yard, subject, amount)
    if refused is None and word == "tongue" and subject != "mount" and yard.coupled:
        return (
            "This one is measured uncoupled: the coupler must rest on the scale, the beam or "
            "the lever."
        )
    if refused is None and word == "tongue" and subject == "mount" and not yard.coupled:
        return "The scale is in the ball mount: it reads only while the trailer hangs on it."
    return refused


def _taken_apart(act: str) -> tuple[str, str, int]:
    word, _, rest = act.partition(":")
    subject, _, amount = rest.partition(":")
    if word not in ACTS:
        raise wrong(f"“{act[:30]}” is no act of the yard.")
    if word == "ball":
        subject, amount = "", subject
    return word, subject, int(amount) if amount.lstrip("-").isdigit() else 0


def do_act(yard: Yard, act: str) -> Yard:
    """Do one act.

    Raises InputError if it is refused as things stand (with the reason), or not an act at all.
    """
    refused = why_not(yard, act)
    if refused is not None:
        raise InputError(refused, [Problem("act", refused, "refused")])
    word, subject, amount = _taken_apart(act)
    known = ACTS[word]
    yard_after = known.do(yard, subject, amount)
    return replace(
        yard_after,
        run=yard.run.then(act),
        minutes=yard.minutes + known.minutes,
        log=(*yard.log, yard_after.said),
    )


@lru_cache(128)
def _played(run: Run) -> Yard:
    """A yard of a known rig, played from the longest part of its run that was played before."""
    if not run.acts:
        return begin(run)
    return do_act(_played(replace(run, acts=run.acts[:-1])), run.acts[-1])


def play(run: Run, own: RigFile | None = None) -> Yard:
    """The yard after all acts of a run.

    Raises InputError if an act of it is refused; the message names which.
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
