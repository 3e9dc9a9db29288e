"""Where trials start: the rig as weighed, whatever was weighed of it, or as planned."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from noxel.core.limits import (
    BrokenRule,
    Checked,
    CheckId,
    broken_rules,
    judge,
    run_checks,
    tightest_first,
)
from noxel.core.mechanics import (
    GROUPS,
    RESTORED_OFF,
    Change,
    Levers,
    State,
    Weighing,
    change_between,
    given_back,
    in_the_rigs_unit,
    levers_as_weighed,
    levers_of,
    load,
    loads,
    norms,
    plan_from_weigh_in,
    planned,
    predicted_weighing,
    restored,
    shifted_weighing,
    uncertainty,
)
from noxel.core.quantities import KG, Mass
from noxel.core.rig import Plan, RigFile, TrailerBase, VehicleBase
from noxel.errors import MissingInput, Problem

_STANDS = (
    *("front_hitched", "rear_hitched", "vehicle_hitched", "trailer_axles"),
    *("combination_gross", "vehicle_solo", "trailer_gross"),
)
"""Loads of which one must have been weighed for trials to start from the scale."""


@dataclass(frozen=True, slots=True)
class Baseline:
    """The rig to try changes on, as weighed or as planned.

    From a weigh-in a trial starts from what the scale says, axle by axle, and only changes are
    computed: ``weighing`` is what it found of the rig as it was at the ``start``, with what came
    aboard since. The bars stay as they were until they are set anew. From a plan every trial is
    predicted, the bars at their share. ``parts`` are the loads on single axles, tires, wheels and
    assemblies for each kilogram on their group.
    """

    rig: RigFile
    start: RigFile
    weighing: Weighing
    weighed: bool
    levers: Levers
    parts: Mapping[CheckId, float] = field(default_factory=dict)

    def figure(self, key: str) -> float | None:
        """A load at the start. [kg]"""
        known = self.weighing.figures.get(key)
        return known.value if known else None

    def change(self, rig: RigFile) -> Change:
        """What a changed rig has more than the one that was weighed. [kg]"""
        change = change_between(self.start, rig, replace(self.levers, restored=0.0))
        before, after = restored(self.start), restored(rig)
        if before == after:
            return change
        if not self.bars_known:
            return replace(change, state=change.state._replace(returned=None, moved=None))
        tongue, more = self.figure("tongue_static"), load(change.state, "tongue_static")
        then = None if tongue is None or more is None else tongue + more
        off = self.levers.on_hitch(then, after + RESTORED_OFF).less(
            self.levers.on_hitch(then, after)
        )
        bars = self.bars(then, after).less(self.bars(tongue, before))
        return change.plus(Change(bars, (off,) if after else ()))

    @property
    def bars_known(self) -> bool:
        """Whether it is known what the bars give back now."""
        engaged = self.weighed and self.weighing.engaged is not None
        return not engaged or self.start.plan.front_restoration is not None

    @property
    def restored(self) -> float:
        """The share of what more tongue lifts that the bars give back: none while they stay as they
        were weighed.
        """
        held = self.weighed and restored(self.start) == restored(self.rig)
        return 0.0 if held else restored(self.rig)

    def bars(self, tongue: float | None, share: float) -> State:
        """What the spring bars do at a share of what a tongue lifts. [kg]"""
        at_share = self.levers.on_hitch(tongue, share)
        return State(returned=at_share.returned, moved=at_share.moved)

    def state(self) -> State:
        """The rig now, as far as it is known; what a weigh-in leaves unknown counts from 0. [kg]"""
        if not self.weighed:
            return planned(self.rig).state()
        vehicle, rear, trailer, tongue = (
            self.figure(key) or 0.0
            for key in ("vehicle_solo", "rear_solo", "trailer_gross", "tongue_static")
        )
        coupled = self.levers.on_hitch(tongue, restored(self.start))
        known = State(*(part or 0.0 for part in coupled))
        start = known._replace(vehicle=vehicle, rear=rear, trailer=trailer)
        return start.plus(self.change(self.rig).state)

    def loads(self, rig: RigFile) -> dict[str, float]:
        """Every load of a changed rig that is known. [kg], and the tongue share"""
        if not self.weighed:
            return planned(rig).loads()
        change, empty = self.change(rig).state, self.figure("curb_measured")
        known = {
            key: figure.value + more
            for key, figure in self.weighing.figures.items()
            if key in _CHANGED and (more := load(change, key)) is not None
        }
        if rig.vehicle is not self.start.vehicle:
            known = self._before_another(rig, known)
        elif empty is not None:
            known["curb_measured"] = empty
        if "tongue_static" in known and known.get("trailer_gross"):
            known["tongue_share"] = known["tongue_static"] / known["trailer_gross"]
        return known

    def _before_another(self, rig: RigFile, known: Mapping[str, float]) -> dict[str, float]:
        """The trailer as weighed, before another vehicle as planned. [kg]"""
        tongue, gross = known.get("tongue_static"), known.get("trailer_gross")
        coupled = planned(rig).solo().plus(levers_of(rig).on_hitch(tongue))
        return loads(coupled._replace(trailer=gross))

    def after(self, rig: RigFile) -> Weighing:
        """A changed rig as the scale would find it, with the scale's ± and that of the change."""
        known = self.loads(rig)
        if not self.weighed:
            return predicted_weighing(rig, known, uncertainty(rig))
        same, off = rig.vehicle is self.start.vehicle, norms(self.change(rig).causes, known)
        if not same:
            off = uncertainty(rig) | {
                key: off[key] for key in ("trailer_gross", "tongue_static") if key in off
            }
        return shifted_weighing(rig, known, self.weighing, off, same_vehicle=same)

    def rules(self, rig: RigFile) -> list[BrokenRule]:
        """The rules of maker and law that a changed rig does not keep, by its loads as they would
        be.
        """
        return broken_rules(rig, self.after(rig))

    def checks(self, rig: RigFile) -> list[Checked]:
        """The ordinary checks of a changed rig; tightest first."""
        return tightest_first(run_checks(rig, self.after(rig)))

    def changed(self, rig: RigFile) -> "Baseline":
        """The baseline of a changed rig: what is tried next starts there."""
        if rig.vehicle is self.start.vehicle or not self.weighed:
            return replace(self, rig=rig)
        return _with_parts(Baseline(rig, rig, self.after(rig), True, levers_of(rig)))

    @property
    def missing(self) -> list[Problem]:
        """The lengths and places that would tell what each change does to every load."""
        bases = ("plan.", "trailer.dry_") if self.weighed else ()
        return [
            problem for problem in planned(self.rig).missing if not problem.path.startswith(bases)
        ]


_CHANGED = (
    *("front_solo", "rear_solo", "vehicle_solo", "trailer_gross", "tongue_static"),
    *("front_hitched", "rear_hitched", "vehicle_hitched", "trailer_axles", "combination_gross"),
)
"""The loads that a change of the load changes."""


def baseline_of(rig: RigFile, number: int | None = None) -> Baseline:
    """The rig as a baseline to try changes on.

    Parameters
    ----------
    rig : RigFile
        As far as it was weighed or planned.
    number : int or None
        Which weigh-in to start from; None is the last.

    Raises
    ------
    MissingInput
        Naming what neither the weigh-in nor the plan has, where no load is known at all.
    """
    judged = judge(rig, rig.filled(number))
    weighing = judged.since.weighing if judged.since else judged.weighing
    if any(key in weighing.figures for key in _STANDS):
        levers, share = levers_as_weighed(rig, weighing), given_back(rig, weighing)
        start = rig_as_weighed(rig, judged.number or 0, strict=False)
        plan = start.plan.model_copy(update={"front_restoration": share})
        start = start.model_copy(update={"plan": plan})
        return _with_parts(Baseline(start, start, weighing, True, levers))
    bare = planned(rig)
    if not bare.loads():
        raise MissingInput(bare.missing[0].path, bare.missing[0].message)
    predicted = predicted_weighing(rig, bare.loads(), uncertainty(rig))
    return Baseline(rig, rig, predicted, False, bare.levers)


def rig_as_weighed(rig: RigFile, number: int = 0, *, strict: bool = True) -> RigFile:
    """The rig with a plan that starts from a weigh-in; as it is where that cannot be, unless
    ``strict``.

    Raises
    ------
    MissingInput
        Naming the pass, place or length that is not there.
    """
    try:
        return rig.model_copy(update={"plan": _plan(rig, plan_from_weigh_in(rig, number))})
    except MissingInput:
        if strict:
            raise
        return rig


def _with_parts(base: Baseline) -> Baseline:
    parts: dict[CheckId, float] = {}
    for row in run_checks(base.start, base.weighing):
        group, part = row.spec.group, row.spec.part
        whole = None if group is None or part == "load" else base.figure(GROUPS[group])
        if row.actual is not None and whole:
            parts[row.id] = row.actual.value / whole
    return replace(base, parts=parts)


def _plan(rig: RigFile, loads: Mapping[str, float]) -> Plan:
    def mass(path: str) -> Mass:
        # as the lists in Pack write it
        return Mass(round(loads[path] / KG[rig.units.mass], 3), loads[path])

    fields: dict[str, object] = {
        "vehicle_base": VehicleBase(
            front=mass("plan.vehicle_base.front"),
            rear=mass("plan.vehicle_base.rear"),
            hitch_fitted=True,
        )
    }
    if "plan.trailer_base.gross" in loads:
        fields["trailer_base"] = TrailerBase(
            gross=mass("plan.trailer_base.gross"), tongue=mass("plan.trailer_base.tongue")
        )
    if "plan.effective_overhang" in loads:
        metres = loads["plan.effective_overhang"]
        fields["effective_overhang"] = in_the_rigs_unit(rig, metres)
    if "plan.front_restoration" in loads:
        fields["front_restoration"] = loads["plan.front_restoration"]
    return rig.plan.model_copy(update=fields)
