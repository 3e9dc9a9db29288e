"""What to say and do when something goes wrong, at each step of a visit and on each kind of
scale.
"""

from collections.abc import Mapping

from noxel.core.rig import RigFile, on_its_wheels, on_pin
from noxel.core.wording import Answer


class Say(Answer):
    """Something that is asked over the loudspeaker, and what to answer; or something that went
    wrong, and what to do.
    """

    what: str
    say: str
    sound: str | None = None
    """The name of the recording in which a voice says it."""


def _say(what: str, say: str, sound: str | None = None) -> Say:
    return Say(what=what, say=say, sound=sound)


def asked_over_the_speaker(*, first: bool) -> list[Say]:
    """What the voice at a truck stop's scale says, the first time or on a re-weigh."""
    return [
        _say("First weigh or re-weigh?", "first weigh" if first else "re-weigh", "first-or-again"),
        _say("Which company?", "private", "company"),
        _say("Vehicle number?", "any, such as 27", "number"),
        _say("Your weight is taken.", "now roll off", "taken"),
    ]


ASKED_AT_A_WEIGHBRIDGE = [
    _say("Gross, or axle by axle?", "axle by axle, and the total", "gross-or-axles"),
    _say("Registration?", "the number on your plate", "registration"),
]
_WAITING = _say(
    "Somebody is waiting behind",
    "Wait for the word all the same. Nobody minds; if you are not ready, drive round and come "
    "again.",
)
_IMPOSSIBLE = _say(
    "The scale shows something impossible",
    "Drive off and on again. If it says the same, note it and ask before you pay for more.",
)
TROUBLE: Mapping[str, list[Say]] = {
    "truck_scale": [
        _say(
            "I rolled off before the weight was taken",
            "Tell them at once, drive around and on again.",
        ),
        _say(
            "A wheel stands on a seam, or two axles on one platform",
            "Ask for a moment, move a little, stop, then ask for the weight again.",
        ),
        _say("I did not hear what they said", "Press the button and ask again. Do not roll."),
        _say(
            "Somebody stepped out, or fuel was burned",
            "Note who or how much. Enter it as a correction in Weigh.",
        ),
        _WAITING,
        _IMPOSSIBLE,
    ],
    "single_platform": [
        _say("Two axles do not fit on it singly", "Weigh them as one group and note which."),
        _say(
            "The display jumps",
            "Stand still, engine idling, nobody walking on it. Read it when it rests.",
        ),
        _WAITING,
        _IMPOSSIBLE,
    ],
    "wheel_pads": [
        _say(
            "The wheels are higher than the others",
            "Put boards of the pads' height under all other wheels.",
        ),
        _say(
            "The display jumps", "Brake off once stopped, wheels chocked, so that nothing is held."
        ),
        _IMPOSSIBLE,
    ],
    "trailer_platform": [
        _say(
            "It does not fit on the platform",
            "Weigh its axles, and the load on the hitch by itself.",
        ),
        _IMPOSSIBLE,
    ],
    "before": [
        _say(
            "Somebody or something is missing",
            "Weigh what is there and note what is not. It can be entered as a correction.",
        ),
        _say(
            "There is no lane for us, or they refuse",
            "Ask where private vehicles are weighed. Quarries, granaries and dumps have scales "
            "too.",
        ),
        _say(
            "A tank is fuller or emptier than planned",
            "Leave it; note how full it is. Waste goes out at a dump station only.",
        ),
    ],
    "ticket": [
        _say(
            "It cannot be read, or looks misprinted",
            "Go back to the desk while they still have it: they print it again. Type nothing that "
            "you cannot read.",
        ),
        _say(
            "The lines do not add up to the gross",
            "Say so at the desk, and weigh that pass again before you leave.",
        ),
        _say(
            "The time for a re-weigh is nearly over",
            "Ask whether the price still holds. A pass at full price is worth more than one that "
            "is missing.",
        ),
    ],
    "answer": [
        _say(
            "It says something that cannot be",
            "Compare each figure with the ticket, line by line; then which pass it was.",
        ),
    ],
}


def at_the_hitch(rig: RigFile) -> list[Say]:
    """What can go wrong where the trailer is set down or coupled up, for what this rig has."""
    if on_its_wheels(rig):
        free = "Straighten the rig, let the vehicles roll a hand's breadth, brakes on again."
        return [_say("The tow bar's pin sits tight", free), _MOVES, _BLOCKED]
    pin = on_pin(rig)
    feet = "landing legs" if pin else "jockey wheel" if rig.terms == "europe" else "jack"
    verb = "sink" if pin else "sinks"
    trouble = [
        _say(
            "The coupling will not open",
            "Take the load off it: a little up or down, a hand's breadth back, parking brake on "
            "again. Look at latch and pin. Never a hammer while it is under load.",
        ),
        _MOVES,
        _say(
            f"The {feet} {verb}",
            "Lower the coupling onto the vehicle again. A thick board under each foot, firmer "
            "ground, then anew.",
        ),
        _BLOCKED,
    ]
    if rig.hitch.weight_distribution:
        bars = _say(
            "The bars will not come off",
            f"Raise coupler and vehicle together with the {feet} until they hang free. Never lever "
            "a bar that is under load; stand aside of it.",
        )
        trouble.insert(0, bars)
    return trouble


_MOVES = _say(
    "The trailer moves",
    "Stop, step back, let it come to rest. Couple up again if you can; set the chocks anew on "
    "level ground.",
)
_BLOCKED = _say(
    "We stand in somebody's way",
    "Chocks away, drive to where you block nobody, and begin again there. Ask at the desk where.",
)


def after_a_stop(rig: RigFile) -> list[str]:
    """What may be done on the spot when something is over its rating, the easiest first."""
    lines = ["Move what is heavy off the axle that is over: Adjust says what moving it does"]
    if any(load.category != "people" for load in rig.loads) or not rig.loads:
        lines.append("Take off what can be fetched later, or leave it with somebody")
    if any(tank.fluid == "fresh" for tank in rig.tanks):
        lines.append("Let fresh water out where the place allows it")
    if any(tank.fluid in ("grey", "black") for tank in rig.tanks):
        lines.append("Drain waste at a dump station only")
    lines.append("Then weigh again while the re-weigh's price and time last")
    if rig.towing:
        lines.append(
            "What cannot be mended here: leave the trailer where it may stand, and ask "
            "somebody qualified"
        )
    return lines
