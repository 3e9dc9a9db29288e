"""The acts that make sense in a yard as it stands, as they are offered."""

from collections.abc import Sequence

from noxel.core.practice.acts import ACTS
from noxel.core.practice.replies import Offer
from noxel.core.practice.tongues import METHODS
from noxel.core.practice.yard import Yard
from noxel.core.quantities import MassUnit, upper_first

_LABELS = {
    "on": "Drive on",
    "ask": "Ask to be weighed",
    "wait": "Wait for the word",
    "off": "Drive off",
    "chock": "Set the chocks",
    "unchock": "Take the chocks away",
    "slack": "Slacken the bars",
    "engage": "Engage the bars",
    "uncouple": "Uncouple",
    "couple": "Couple up",
    "go": "Out onto the road",
    "tongue:scale": "Tongue scale",
    "tongue:mount": "Scale in the ball mount",
    "tongue:beam": "Bathroom scale and beam",
    "tongue:lever": "Lever over a pipe",
}


def offers(yard: Yard, allowed: Sequence[str] | None) -> list[Offer]:
    """What can sensibly be done, the dangerous included: it is refused with its reason, which is
    what one comes to learn.
    """
    rig, bars = yard.rig, yard.bars
    words = (
        ["on"]
        if not yard.on_scale
        else ["off"]
        if yard.taken
        else ["off", "wait" if yard.asked else "ask"]
    )
    if rig.towing:
        words += ["unchock" if yard.chocked else "chock"]
        words += (
            ["slack"]
            if bars == "engaged"
            else ["engage"]
            if bars == "slack" and yard.coupled
            else []
        )
        words += ["uncouple" if yard.coupled else "couple"]
        if rig.kind == "conventional":
            words += [f"tongue:{method}" for method in METHODS]
            words += ["ball:13", "ball:-13"] if not yard.coupled else []
    words += ["go"]
    offers = [_offer(word, rig.units.mass) for word in words]
    for index, load in enumerate(rig.loads):
        if load.category == "people" and index:
            act = f"{'out' if load.aboard else 'in'}:{index}"
            offers.append(
                Offer(
                    act=act,
                    label=f"{upper_first(load.name)}: {'step out' if load.aboard else 'get in'}",
                    group="people",
                    minutes=1,
                )
            )
    return [offer for offer in offers if allowed is None or offer.group in allowed]


def _offer(word: str, unit: MassUnit) -> Offer:
    known = ACTS[word.partition(":")[0]]
    by = "5 in" if unit == "lb" else "13 cm"
    label = _LABELS.get(word) or f"Ball {by} {'down' if '-' in word else 'up'}"
    return Offer(act=word, label=label, group=known.group, minutes=known.minutes)
