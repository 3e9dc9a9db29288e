"""What to say and do at each kind of scale when something goes wrong."""

from collections.abc import Mapping

from noxel.core.wording import Answer


class Say(Answer):
    """Something that is asked over the loudspeaker, and what to answer; or something that went
    wrong, and what to do.
    """

    what: str
    say: str


ASKED = [
    Say(what="Which company?", say="private"),
    Say(what="Vehicle number?", say="any, such as 27"),
]


TROUBLE: Mapping[str, list[Say]] = {
    "truck_scale": [
        Say(
            what="I rolled off before the weight was taken",
            say="Tell them at once, drive around and on again.",
        ),
        Say(
            what="A wheel stands on a seam, or two axles on one platform",
            say="Ask for a moment, move a little, stop, then ask for the weight again.",
        ),
        Say(
            what="I did not hear what they said", say="Press the button and ask again. Do not roll."
        ),
        Say(
            what="Somebody stepped out, or fuel was burned",
            say="Note who or how much. Enter it as a correction in Weigh.",
        ),
    ],
    "single_platform": [
        Say(
            what="Two axles do not fit on it singly", say="Weigh them as one group and note which."
        ),
        Say(
            what="The display jumps",
            say="Stand still, engine idling, nobody walking on it. Read it when it rests.",
        ),
    ],
    "wheel_pads": [
        Say(
            what="The wheels are higher than the others",
            say="Put boards of the pads' height under all other wheels.",
        ),
        Say(
            what="The display jumps",
            say="Brake off once stopped, wheels chocked, so that nothing is held.",
        ),
    ],
    "trailer_platform": [
        Say(
            what="It does not fit on the platform",
            say="Weigh its axles, and the load on the hitch by itself.",
        )
    ],
}
