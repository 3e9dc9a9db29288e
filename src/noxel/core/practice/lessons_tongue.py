"""Lessons: the tongue measured by other means, and what moves it."""

from noxel.core.mechanics import Levers, load, statics
from noxel.core.practice.exercises import Exercise, Lesson, Line, Paper, Teller
from noxel.core.practice.facts import Facts
from noxel.core.practice.tongues import ARMS, KNOWN, LEVER, TARE
from noxel.core.practice.yard import Yard
from noxel.core.quantities import KG, nominal
from noxel.core.rig import RigFile

APART = ("chock", "uncouple")


def _reading(yard: Yard, method: str) -> float:
    """What was read last by a method. [the rig's unit]"""
    readings = [tongue.value for tongue in yard.tongues if tongue.method == method]
    if not readings:
        raise KeyError(f"tongue:{method}")
    return readings[-1]


def _beam(yard: Yard, f: Facts, m: Teller) -> Exercise:
    unit = KG[m.unit]
    reading, tare = _reading(yard, "beam") * unit, TARE[m.unit] * unit
    arms = ARMS[m.unit]
    support, scale = f"{arms.coupler} {arms.unit}", f"{arms.scale} {arms.unit}"
    more = {"reading": reading, "tare": tare, "span": arms.scale, "support": arms.coupler}
    right = nominal(statics.beam_tongue(reading, tare, arms.scale, arms.coupler))
    return Exercise(
        question=f"What is the {m.term('tongue_weight')}?",
        right=right,
        give=m.give / 2,
        facts={**f, **more},
        ways=("tare_forgotten", "beam_upside_down", "reading_believed", "reading_less_tare"),
        papers=(
            Paper(
                "Read and measured",
                (
                    Line("scale, tongue on the beam", m(reading)),
                    Line("scale, beam alone", m(tare)),
                    Line("support to scale", scale),
                    Line("support to coupler", support),
                ),
            ),
        ),
        working=(
            Line("scale less beam", m(reading - tare)),
            Line(f"{scale} ÷ {support}", "4", "×"),
            Line(m.term("tongue_weight"), m(right), "="),
        ),
        because=(
            "The scale is four times as far from the support as the coupler: it feels a quarter. "
            "A bathroom "
            "scale under the coupler itself would be crushed."
        ),
        hints=(
            "What does the beam itself put on the scale?",
            "Moments about the support: scale × its distance = tongue × its distance.",
        ),
    )


def _lever(yard: Yard, f: Facts, m: Teller) -> Exercise:
    unit = KG[m.unit]
    reach, arms = _reading(yard, "lever"), ARMS[m.unit]
    weight, beam = KNOWN[m.unit] * unit, LEVER[m.unit] * unit
    right = nominal(statics.lever_tongue(weight, reach, arms.hangs, beam, arms.middle))
    return Exercise(
        question=f"What is the {m.term('tongue_weight')}?",
        right=right,
        give=2 * m.give,
        facts={**f, "weight": weight, "arm": reach, "tongue_arm": float(arms.hangs)},
        ways=("lever_upside_down", "beam_left_out", "weight_believed"),
        papers=(
            Paper(
                "Read and measured",
                (
                    Line("known weight", m(weight)),
                    Line("its arm", f"{reach:g} {arms.unit}"),
                    Line("coupler's arm", f"{arms.hangs} {arms.unit}"),
                    Line("beam", m(beam)),
                    Line("its middle, on the weight's side", f"{arms.middle} {arms.unit}"),
                ),
            ),
        ),
        working=(
            Line("weight × its arm", f"{weight / unit:.0f} × {reach:g}"),
            Line("beam × its middle", f"{beam / unit:.0f} × {arms.middle}", "+"),
            Line("coupler's arm", f"{arms.hangs}", "÷"),
            Line(m.term("tongue_weight"), m(right), "="),
        ),
        because=(
            "Moments about the pipe balance: what turns one way equals what turns the other way, "
            "the beam "
            "itself included. Stay clear of a loaded lever: it can strike."
        ),
        hints=(
            "What balances about the pipe?",
            "The beam has a weight of its own, and its middle is not over the pipe.",
        ),
    )


def _heaviest(rig: RigFile) -> int:
    """The heaviest item in the trailer."""
    on_trailer = [index for index, load in enumerate(rig.loads) if load.on == "trailer"]
    return max(on_trailer, key=lambda index: rig.loads[index].kg)


def _position(yard: Yard, f: Facts, m: Teller) -> Exercise:
    load = yard.rig.loads[_heaviest(yard.rig)]
    tongue = _reading(yard, "scale") * KG[m.unit]
    mass, d = load.kg, 0.25 * f["length"]
    right = tongue - mass * d / f["length"]
    return Exercise(
        question=f"The {load.name} ({m(mass)}) moves {m.length(d)} back in the trailer. What "
        "is the tongue weight then?",
        right=right,
        give=m.give,
        facts={**f, "tongue": tongue, "m": mass, "d": d},
        ways=("wrong_sign", "ratio_turned", "all_of_it", "nothing_changes"),
        papers=(
            Paper(
                "Measured",
                (
                    Line(m.term("tongue_weight"), m(tongue)),
                    Line("coupler to axles", m.length(f["length"])),
                ),
            ),
        ),
        working=(
            Line(m.term("tongue_weight"), m(tongue)),
            Line(
                f"{m(mass)} × {m.length(d)} ÷ {m.length(f['length'])}",
                m(mass * d / f["length"]),
                "−",
            ),
            Line("then", m(right), "="),
        ),
        because=(
            "Moving m back by d takes m × d ÷ L off the tongue weight, L from coupler to axles. "
            "The trailer in total stays the same."
        ),
        hints=(
            "Heavier or lighter? The axles are the pivot.",
            "What share of its mass moves over: the move against the length from coupler to axles.",
        ),
    )


def _water(yard: Yard, f: Facts, m: Teller) -> Exercise:
    tank = yard.rig.tanks[0]
    mass = tank.full_kg() * tank.level(yard.rig.plan.phase)
    x = tank.position.m if tank.position else 0.0
    right = load(Levers(None, None, f["length"]).in_trailer(mass, mass * x), "tongue_static") or 0.0
    return Exercise(
        question=f"{m(mass)} of fresh water is drained. How much less is the tongue weight?",
        right=right,
        give=m.give,
        facts={**f, "m": mass, "x": x},
        ways=("water_all", "water_other_arm"),
        papers=(
            Paper(
                "Measured",
                (
                    Line("water aboard", m(mass)),
                    Line("tank behind the coupler", m.length(x)),
                    Line("coupler to axles", m.length(f["length"])),
                ),
            ),
        ),
        working=(
            Line("water", m(mass)),
            Line(
                "tank to axles ÷ coupler to axles",
                f"{m.length(f['length'] - x)} ÷ {m.length(f['length'])}",
                "×",
            ),
            Line("off the tongue weight", m(right), "="),
        ),
        because=(
            "On the way out the fresh tank is full, on the way home the waste tank: the same "
            "water, at "
            "another place, with another tongue weight."
        ),
        hints=(
            "The axles carried a part of it.",
            "How far is the tank from the axles, against the whole length?",
        ),
    )


def _nose_up(yard: Yard, f: Facts, m: Teller) -> Exercise:
    read = [tongue.value * KG[m.unit] for tongue in yard.tongues if tongue.method == "scale"]
    if len(read) < 2:
        raise KeyError("tongue:scale")
    first, second = read[0], read[1]
    return Exercise(
        question=f"Which {m.term('tongue_weight')} counts, for this trailer as it is towed?",
        right=second,
        give=m.give,
        facts={**f, "first": first, "second": second},
        ways=("level_first", "mean_of_both"),
        papers=(
            Paper(
                "Tongue scale",
                (
                    Line(f"coupler raised by {'5 in' if m.unit == 'lb' else '13 cm'}", m(first)),
                    Line("at towing height", m(second)),
                ),
            ),
        ),
        working=(Line("raised", m(first)), Line("at towing height", m(second))),
        because=(
            "Two torsion axles do not share the load: tilt the trailer, and one carries more. "
            "With leaf springs joined by an equaliser it changes little."
        ),
        hints=("How high is the coupler on the road?", "One of the two was read with the nose up."),
    )


LESSONS = (
    Lesson(
        "beam",
        "Tongue weight with a beam",
        "A bathroom scale under the far end of a beam.",
        _beam,
        kind="plain",
        preset=(*APART, "tongue:beam"),
    ),
    Lesson(
        "lever",
        "Tongue weight with a lever",
        "A known weight balances the coupler over a pipe.",
        _lever,
        kind="caravan",
        preset=(*APART, "tongue:lever"),
    ),
    Lesson(
        "position",
        "Where it lies, and the tongue weight",
        "The tongue weight was measured. Now something moves in the trailer.",
        _position,
        kind="plain",
        preset=(*APART, "tongue:scale"),
    ),
    Lesson(
        "water",
        "Water out and home",
        "The fresh tank is drained before the journey home.",
        _water,
        minutes=4,
    ),
    Lesson(
        "nose-up",
        "Nose-up, and axles that do not share",
        "A trailer on two torsion axles, its tongue weight measured at two heights.",
        _nose_up,
        kind="torsion",
        preset=(*APART, "ball:13", "tongue:scale"),
        solution=("ball:-13", "tongue:scale"),
        allowed=("ball", "tongue"),
    ),
)
