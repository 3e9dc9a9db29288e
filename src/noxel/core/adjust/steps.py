"""Adjust: steps tried on the rig as it was weighed (or planned), and what each does to every limit
at once.
"""

import datetime
from collections.abc import Callable, Mapping, Sequence

from noxel.core.adjust.baseline import Baseline, rig_as_weighed
from noxel.core.limits import Checked, CheckId, Status, Verdict, verdict
from noxel.core.mechanics import GROUPS, in_the_rigs_unit, levers_of, load, restored
from noxel.core.quantities import KG, LITRES, Mass, print_length, print_mass
from noxel.core.rig import KeptPlan, Load, RigFile, Step, Tank
from noxel.core.wording import (
    Answer,
    Headline,
    Printer,
    Shaped,
    attitude,
    check_answers,
    check_label,
    headline,
)
from noxel.errors import InputError, MissingInput, Problem

NOTICED = 4.0
"""From how much on an axle on it is worth saying what else the bars may do. [kg]"""
KEYS = (
    "front_hitched",
    "rear_hitched",
    "vehicle_hitched",
    "tongue_static",
    "trailer_axles",
    "trailer_gross",
    "combination_gross",
    "front_solo",
    "rear_solo",
)


class CheckChange(Answer):
    """One check before and after; ``change`` is what its margin gained, minus lost."""

    check: CheckId
    label: str
    before: float | None
    after: float | None
    change: float | None
    was: Status
    now: Status
    share: bool


class Tried(Answer):
    """What the steps do: every load and every check, before and after; ``bars`` says what else the
    spring bars may do.
    """

    weighed: bool
    says: list[str]
    loads_before: dict[str, float]
    loads_after: dict[str, float]
    checks_before: list[Shaped]
    checks_after: list[Shaped]
    changes: list[CheckChange]
    verdict: Verdict
    verdict_before: Verdict
    headline: Headline
    attitude: str | None
    bars: str | None


def _no(message: str, number: int) -> InputError:
    return InputError(message, [Problem(f"steps[{number}]", message, "step")])


def _length(rig: RigFile, metres: float) -> str:
    unit = rig.units.lengths
    if unit == "in" and abs(metres) >= 0.6:
        return print_length(metres, "ft")
    return print_length(metres, unit)


def _volume(rig: RigFile, litres: float) -> str:
    unit = rig.units.volumes
    return f"{litres / LITRES[unit]:.0f}"


def _load(rig: RigFile, step: Step, number: int) -> tuple[int, Load]:
    if step.index is None or step.index >= len(rig.loads):
        raise _no("names an item that is not on the list", number)
    return step.index, rig.loads[step.index]


def _put(rig: RigFile, index: int, **changed: object) -> RigFile:
    loads = list(rig.loads)
    loads[index] = loads[index].model_copy(update=changed)
    return rig.model_copy(update={"loads": tuple(loads)})


GarageParts = Mapping[str, RigFile]
"""Equipment of the garage by its id, each in a rig of its own."""


def do_step(
    rig: RigFile, step: Step, number: int = 0, parts: GarageParts | None = None
) -> tuple[RigFile, str]:
    """Do one step to a rig; ``parts`` is the equipment of the garage that a step may name.

    Returns
    -------
    (RigFile, str)
        The changed rig, and the step in words.

    Raises
    ------
    InputError
        If the step names what is not there, or lacks what it needs.
    """
    if step.kind in ("hitch", "vehicle"):
        other = (parts or {}).get(step.thing or "")
        if other is None:
            raise _no(f"names a {step.kind} that is not in the garage", number)
        return _other_hitch(rig, other) if step.kind == "hitch" else _other_vehicle(rig, other)
    return _DONE[step.kind](rig, step, number)


def _leave_or_take(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    index, load = _load(rig, step, number)
    name, take = load.name or "an item", step.kind == "take"
    return _put(rig, index, aboard=take), f"Take {name} along" if take else f"Leave {name} behind"


def _move(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    index, load = _load(rig, step, number)
    if step.position is None:
        raise _no("needs a place", number)
    where = f"to {_length(rig, step.position.m)}"
    if load.position:
        by = step.position.m - load.position.m
        where = f"{_length(rig, abs(by))} {'back' if by > 0 else 'forward'}"
    moved = _put(rig, index, position=in_the_rigs_unit(rig, step.position.m))
    return moved, f"Move {load.name or 'an item'} {where}"


def _swap(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    """Put an item that is in one vehicle into the other."""
    index, load = _load(rig, step, number)
    if step.position is None:
        raise _no("needs a place", number)
    other = "trailer" if load.on == "vehicle" else "vehicle"
    if other == "trailer" and rig.trailer is None:
        raise _no("there is no trailer to put it in", number)
    if other == "trailer" and load.category == "people":
        raise _no(
            "people do not ride in a trailer on the road: the law forbids it in most places, and "
            "they count in the vehicle",
            number,
        )
    place = _length(rig, step.position.m)
    behind = "the coupler" if other == "trailer" else "the front axle"
    swapped = _put(rig, index, on=other, position=in_the_rigs_unit(rig, step.position.m))
    return swapped, f"Put {load.name or 'an item'} in the {other}, {place} behind {behind}"


def _tank(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    if step.index is None or step.index >= len(rig.tanks) or step.level is None or step.level > 1:
        raise _no("names a tank that is not there, or a level beyond full", number)
    return _fill(rig, step.index, step.level)


def _bars(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    """Tension the spring bars for another share of the front axle's loss."""
    if step.level is None or not rig.hitch.weight_distribution:
        raise _no("needs a restoration, and a hitch with spring bars", number)
    before = rig.plan.front_restoration or 0.0
    how = "Tighten" if step.level > before else "Slacken"
    sentence = (
        f"{how} the bars: give back {step.level * 100:.0f} % of what the front axle loses, "
        f"from {before * 100:.0f} %"
    )
    if rig.hitch.target_restoration is None:
        sentence += (
            ". No maker's target is entered: manuals commonly ask for half to all of it, "
            "never for more"
        )
    return rig.model_copy(
        update={"plan": rig.plan.model_copy(update={"front_restoration": step.level})}
    ), sentence


def _add(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    nowhere = step.on is None or (step.on == "trailer" and rig.trailer is None)
    if step.mass is None or step.on is None or step.position is None or nowhere:
        raise _no("needs a mass, where it goes, and its place", number)
    extra = Load(name=step.name or "one more", on=step.on, mass=step.mass, position=step.position)
    sentence = f"Add {extra.name}, {print_mass(extra.kg, rig.units.mass)}, in the {step.on}"
    return rig.model_copy(update={"loads": (*rig.loads, extra)}), sentence


def _drop(rig: RigFile, step: Step, number: int) -> tuple[RigFile, str]:
    ball = rig.hitch.ball_height
    if ball is None or step.position is None or ball.m - step.position.m <= 0:
        raise _no("needs the ball's height (Plates) and how much lower it comes", number)
    lower = step.position.m
    height = in_the_rigs_unit(rig, ball.m - lower)
    sentence = f"{_length(rig, abs(lower))} {'more drop' if lower > 0 else 'more rise'}"
    return rig.model_copy(
        update={"hitch": rig.hitch.model_copy(update={"ball_height": height})}
    ), sentence


_DONE: Mapping[str, Callable[[RigFile, Step, int], tuple[RigFile, str]]] = {
    "leave": _leave_or_take,
    "take": _leave_or_take,
    "move": _move,
    "swap": _swap,
    "tank": _tank,
    "bars": _bars,
    "drop": _drop,
    "add": _add,
}
"""What does each kind of step that needs nothing of the garage."""


def _other_hitch(rig: RigFile, other: RigFile) -> tuple[RigFile, str]:
    """Another hitch: its ratings and its mode, and its own mass instead of this one's at the hitch
    point.
    """
    base, now, then = rig.plan.vehicle_base, rig.hitch, other.hitch
    same = (now.own_mass, now.own_lever) == (then.own_mass, then.own_lever)
    changed = rig.model_copy(update={"hitch": other.hitch})
    if base and base.hitch_fitted and base.front and base.rear and not same:
        levers = levers_of(rig)
        change = levers.at_hitch(then.own_mass, then.own_lever).less(
            levers.at_hitch(now.own_mass, now.own_lever)
        )
        front, rear = (
            mass.kg + (load(change, key) or 0.0)
            for mass, key in ((base.front, "front_solo"), (base.rear, "rear_solo"))
        )
        moved = base.model_copy(
            update={"front": Mass(f"{front!r} kg", front), "rear": Mass(f"{rear!r} kg", rear)}
        )
        changed = changed.model_copy(
            update={"plan": rig.plan.model_copy(update={"vehicle_base": moved})}
        )
    return changed, f"Another hitch: {other.hitch.name or 'unnamed'}"


def _other_vehicle(rig: RigFile, other: RigFile) -> tuple[RigFile, str]:
    """Another vehicle with the same items in it, from what was weighed or planned of it in its own
    rig.
    """
    own = rig_as_weighed(other, strict=False) if other.weigh_ins else other
    if own.plan.vehicle_base is None:
        raise MissingInput(
            "plan.vehicle_base.front",
            f"is needed for {other.vehicle.name or 'the other vehicle'}: weigh or plan it first",
        )
    base = own.plan.vehicle_base
    plan = rig.plan.model_copy(
        update={"vehicle_base": base, "effective_overhang": own.plan.effective_overhang}
    )
    changed = rig.model_copy(update={"vehicle": other.vehicle, "plan": plan})
    if base.hitch_fitted:
        kept = changed.model_copy(update={"hitch": other.hitch})
        changed, _ = _other_hitch(kept, rig)
    return changed, f"Another vehicle: {other.vehicle.name or 'unnamed'}"


def _fill(rig: RigFile, index: int, level: float) -> tuple[RigFile, str]:
    tank: Tank = rig.tanks[index]
    before = tank.level(rig.plan.phase)
    tanks = list(rig.tanks)
    tanks[index] = tank.model_copy(update={"levels": {**tank.levels, rig.plan.phase: level}})
    unit = rig.units.volumes
    moved = abs(level - before) * tank.capacity.litres
    verb = "Drain" if level < before else "Fill in"
    sentence = (
        f"{verb} {_volume(rig, moved)} of {_volume(rig, before * tank.capacity.litres)} {unit} "
        f"of {tank.name or tank.fluid}"
    )
    if level > before:
        sentence = f"{verb} {_volume(rig, moved)} {unit} of {tank.name or tank.fluid}"
    return rig.model_copy(update={"tanks": tuple(tanks)}), sentence


def do_steps(
    rig: RigFile, steps: Sequence[Step], parts: GarageParts | None = None
) -> tuple[RigFile, list[str]]:
    """Do steps in order; each in words."""
    says = []
    for number, step in enumerate(steps):
        rig, sentence = do_step(rig, step, number, parts)
        says.append(sentence)
    return rig, says


def try_steps(base: Baseline, steps: Sequence[Step], parts: GarageParts | None = None) -> Tried:
    """Try steps: before and after, every load and every check.

    Raises
    ------
    InputError
        If a step cannot be done.
    MissingInput
        If an item has no place.
    """
    changed, says = do_steps(base.rig, steps, parts)
    before, after = base.checks(base.rig), base.checks(changed)
    printer = Printer(base.rig)
    rules = base.rules(changed)
    reached = verdict(after, broken=bool(rules))
    return Tried(
        weighed=base.weighed,
        says=says,
        loads_before={
            key: kg / printer.mass for key, kg in base.loads(base.rig).items() if key in KEYS
        },
        loads_after={
            key: kg / printer.mass for key, kg in base.loads(changed).items() if key in KEYS
        },
        checks_before=check_answers(base.rig, before, printer),
        checks_after=check_answers(changed, after, printer),
        changes=check_changes(base.rig, before, after, printer),
        verdict=reached,
        verdict_before=verdict(before, broken=bool(base.rules(base.rig))),
        headline=headline(changed, after, reached, rules=rules),
        attitude=level.says if (level := attitude(changed)) else None,
        bars=_bars_held(base, changed, steps),
    )


def _bars_held(base: Baseline, changed: RigFile, steps: Sequence[Step]) -> str | None:
    """What the axles carry at the other end of what the spring bars may do, where the load on the
    hitch changed and nobody set them anew.

    Notes
    -----
    Bars are springs: weighed ones are counted with their moment, planned ones with their share of
    the front axle's loss. The other end is the share, or the moment.
    """
    share = restored(base.rig)
    if not share or any(step.kind in ("bars", "hitch", "vehicle") for step in steps):
        return None
    before, after = (base.loads(rig).get("tongue_static") for rig in (base.rig, changed))
    if before is None or after is None or before <= 0 or after <= 0:
        return None
    other = base.bars(after, share).less(base.bars(before, share))
    if not base.weighed:
        other = other.times(-1.0)
    loads = {
        key: kg + more
        for key, kg in base.loads(changed).items()
        if key in GROUPS.values() and (more := load(other, key)) is not None
    }
    if len(loads) < len(GROUPS) or abs(load(other, "front_hitched") or 0.0) < NOTICED:
        return None
    front, rear, trailer = (print_mass(loads[key], base.rig.units.mass) for key in GROUPS.values())
    counted, instead = (
        ("with the bars left as they are", "Set anew to give back the same share")
        if base.weighed
        else ("with the bars giving back the same share", "Left as they are, by their pull")
    )
    return (
        f"Counted {counted}. {instead}: front axle {front}, rear axle {rear}, trailer axles "
        f"{trailer}. Weigh again."
    )


def check_changes(
    rig: RigFile, before: Sequence[Checked], after: Sequence[Checked], printer: Printer
) -> list[CheckChange]:
    """Every check's margin before and after, in the order of after."""
    was = {row.id: row for row in before}
    changed = []
    for row in after:
        old = was.get(row.id)
        share = row.range is not None
        if share:
            a, b = (
                row_then.actual.value if row_then and row_then.actual else None
                for row_then in (old, row)
            )
        else:
            a, b = (
                None
                if row_then is None or row_then.margin is None
                else row_then.margin / printer.mass
                for row_then in (old, row)
            )
        changed.append(
            CheckChange(
                check=row.id,
                label=check_label(rig, row.id),
                before=a,
                after=b,
                change=None if a is None or b is None else b - a,
                was=old.status if old else "unknown",
                now=row.status,
                share=share,
            )
        )
    return changed


def keep(
    base: Baseline,
    name: str,
    steps: Sequence[Step],
    today: datetime.date,
    parts: GarageParts | None = None,
) -> KeptPlan:
    """The steps under a name, with what is predicted of them."""
    changed, says = do_steps(base.rig, steps, parts)
    by_key, unit = base.loads(changed), base.rig.units.mass
    predicted = {
        key: Mass(f"{by_key[key] / KG[unit]:.1f} {unit}", by_key[key])
        for key in KEYS
        if key in by_key
    }
    return KeptPlan(
        name=name, date=today, steps=tuple(steps), said=tuple(says), predicted=predicted
    )
