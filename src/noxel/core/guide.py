"""What to do at each pass over the scale, and what the pass will settle."""

from noxel.core.answers import PassAnswer
from noxel.core.ratings import on_pin
from noxel.core.rigfile import RigFile
from noxel.core.tickets import Pass
from noxel.core.units import KG
from noxel.core.weighing import Weighing, describe_pass
from noxel.core.words import vehicle_word


def _title(each: Pass, word: str) -> str:
    if each.config == "hitched":
        return {"engaged": "Hitched, bars engaged", "slack": "Hitched, bars slack"}.get(each.spring_bars or "", "Hitched")
    return {"vehicle_only": f"{word.capitalize()} only", "vehicle_empty": f"{word.capitalize()} empty"}.get(
        each.config, "Trailer only"
    )


def _instruction(each: Pass, rig: RigFile) -> str:
    if each.config == "hitched":
        bars = {
            "engaged": " Bars tensioned as for the road.",
            "slack": " Bars slack: inside the scale yard only, and tension them again before you leave.",
        }.get(each.spring_bars or "", "")
        return f"Loaded as for the road, everyone aboard. Each axle on its own platform. Wait for the weight before you roll.{bars}"
    if each.config == "vehicle_only":
        if not rig.towing:
            return (
                "Loaded as for the road, everyone aboard. Each axle on its own platform. Wait for the weight before you roll."
            )
        chock = "Chock the trailer's wheels before uncoupling."
        kept = "" if on_pin(rig) else " Leave the hitch head and bars on."
        return f"{chock} The same people and the same fuel as before.{kept}"
    if each.config == "vehicle_empty":
        return "No people, no cargo, tanks full: what the vehicle really weighs empty."
    return "Chock the wheels. The whole trailer on the platform, jack and all."


def _settles(each: Pass, rig: RigFile, word: str) -> str:
    if each.config == "hitched":
        if not rig.towing:
            return "every axle and the total"
        return {"slack": "true tongue weight, what the bars do"}.get(
            each.spring_bars or "", f"every axle, {word} and trailer together, GVWR and GCWR"
        )
    tongue = "pin" if on_pin(rig) else "tongue"
    return {
        "vehicle_only": f"{tongue} weight, trailer in total" if rig.towing else "every axle and the total",
        "vehicle_empty": "what is aboard, against the payload placard",
    }.get(each.config, "the trailer in total, directly")


def guide(rig: RigFile, number: int | None, weighing: Weighing) -> list[PassAnswer]:
    """Each pass of a weigh-in: its title, what to do, what it settles, what its platforms add up to.

    Parameters
    ----------
    rig : RigFile
        The rig.
    number : int or None
        Which weigh-in, from 1.
    weighing : Weighing
        What it lets us know.
    """
    if number is None:
        return []
    word = vehicle_word(rig)
    weigh_in = rig.weigh_ins[number - 1]
    used = {
        id(loads.each)
        for loads in (weighing.engaged, weighing.slack, weighing.solo, weighing.empty, weighing.trailer_only)
        if loads
    }
    found = []
    for index, each in enumerate(weigh_in.passes, 1):
        added = sum(mass.kg for mass in each.readings.values())
        found.append(
            PassAnswer(
                number=index,
                name=describe_pass(each, index),
                title=_title(each, word),
                instruction=_instruction(each, rig),
                settles=_settles(each, rig, word),
                unit=each.unit or rig.units.mass,
                total=added / KG[each.unit or rig.units.mass] if each.readings else None,
                counts=id(each) in used,
            )
        )
    return found
