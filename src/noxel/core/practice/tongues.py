"""The tongue by four methods: what is read, not what follows from it."""

import random
from collections.abc import Mapping
from typing import NamedTuple

from noxel.core.practice.runs import wrong
from noxel.core.practice.true_loads import true_loads
from noxel.core.practice.yard import TongueReading, Yard
from noxel.core.quantities import KG, MassUnit
from noxel.core.rig import ScaleMeasurement

METHODS = ("scale", "mount", "beam", "lever")
BATHROOM = 150.0
"""What a bathroom scale carries. [kg]"""
MOST: Mapping[MassUnit, int] = {"lb": 2_000, "kg": 900}
"""What a tongue scale carries."""
TARE: Mapping[MassUnit, int] = {"lb": 12, "kg": 5}
"""What the beam alone puts on the scale."""
KNOWN: Mapping[MassUnit, int] = {"lb": 60, "kg": 25}
LEVER: Mapping[MassUnit, int] = {"lb": 20, "kg": 8}
"""The known weight, and the lever's own."""


class Arms(NamedTuple):
    """What is read off a tape: the beam's support to scale and to coupler; the lever's middle and
    the coupler from the pipe, on its two sides; how finely the weight's arm is read.
    """

    unit: str
    scale: int
    coupler: int
    middle: int
    hangs: int
    step: float


ARMS: Mapping[MassUnit, Arms] = {
    "lb": Arms("in", 48, 12, 24, 8, 0.5),
    "kg": Arms("cm", 120, 30, 60, 20, 1.0),
}


def measured_tongue(yard: Yard, method: str) -> TongueReading:
    """The tongue by one of four methods; what is read, not what follows from it."""
    unit = yard.rig.units.mass
    arms = ARMS[unit]
    tongue = true_loads(yard.rig, "slack").get("tongue_static")
    if tongue is None or method not in METHODS:
        raise wrong("That is no way to measure this tongue.")
    chance = random.Random(f"tongue/{yard.run.seed}/{method}/{len(yard.tongues)}")
    step = 5 if unit == "lb" else 2
    off = 1 + max(-0.015, min(0.015, chance.gauss(0.0, 0.005)))
    read = round(tongue * off / KG[unit] / step) * step
    if method in ("scale", "mount") and read > MOST[unit]:
        raise wrong(
            f"More rests on this hitch than the {MOST[unit]:,} {unit} that such a scale is made "
            "for. Weigh on the platforms, hitched and alone."
        )
    if method == "scale" or (
        method == "mount" and any(tongue.method == "mount" for tongue in yard.tongues)
    ):
        name = "scale" if method == "scale" else "ball_mount_scale"
        measured = ScaleMeasurement.model_validate(
            {"method": name, "value": f"{read} {unit}", "resolution": f"{step} {unit}"}
        )
        where = (
            "The tongue scale"
            if method == "scale"
            else "The ball mount's display has stood still; it"
        )
        return TongueReading(method, f"{where} shows {read:,} {unit}.", read, measured, yard.visit)
    if method == "mount":
        early = round(read * chance.uniform(0.8, 0.86) / step) * step
        return TongueReading(
            method,
            f"The ball mount's display shows {early:,} {unit} and is still climbing.",
            early,
            None,
            yard.visit,
        )
    if method == "beam":
        tare = TARE[unit]
        on_scale = round(tongue * off / KG[unit] * arms.coupler / arms.scale) + tare
        if on_scale * KG[unit] > BATHROOM:
            raise wrong(
                f"The bathroom scale would read {on_scale:,} {unit}, more than it can carry: it "
                "would be crushed."
            )
        says = (
            f"Bathroom scale under the far end of a beam: {on_scale:,} {unit} with the tongue on "
            f"it, {tare} "
            f"{unit} with the beam alone. Support to scale {arms.scale} {arms.unit}, support to "
            f"coupler {arms.coupler} {arms.unit}."
        )
        return TongueReading(method, says, on_scale, None, yard.visit)
    known, beam, moment = KNOWN[unit], LEVER[unit], LEVER[unit] * arms.middle
    exact = (tongue / KG[unit] * arms.hangs - moment) / known
    reach = round(exact / arms.step) * arms.step
    if not 0 < reach <= 4 * arms.middle:
        raise wrong(
            "No beam at hand is long enough to balance this tongue, or it balances by its own "
            "weight."
        )
    says = (
        f"A lever over a pipe: it balances with {known} {unit} at {reach:g} {arms.unit} from the "
        f"pipe; the coupler hangs {arms.hangs} {arms.unit} on the other side. The beam weighs "
        f"{beam} {unit}, its middle lies {arms.middle} {arms.unit} out on the side of the weight."
    )
    return TongueReading(method, says, reach, None, yard.visit)
