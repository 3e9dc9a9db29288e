"""Where trials start: the rig as weighed, or as planned."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from noxel.core.limits import (
    CHECKS,
    BrokenRule,
    Checked,
    CheckId,
    broken_rules,
    run_checks,
    tightest_first,
)
from noxel.core.mechanics import (
    GROUPS,
    Weighing,
    change_uncertainty,
    in_the_rigs_unit,
    plan_from_weigh_in,
    predict,
    predicted_weighing,
    shifted_weighing,
    uncertainty,
    weigh,
)
from noxel.core.quantities import KG, Mass
from noxel.core.rig import Plan, RigFile, TrailerBase, VehicleBase
from noxel.errors import MissingInput


@dataclass(frozen=True, slots=True)
class Baseline:
    """The rig to try changes on: its plan started from the weigh-in where there is one, and the ±
    of each figure. [kg]

    A trial starts from what the ticket says: ``weighing`` is what the scale found of the rig as it
    was at the ``start``, and ``beyond`` what it found on each axle beyond the lever model. They
    stay whatever is tried, until the vehicle is another one; then only the trailer's do. ``parts``
    are the loads on single axles, tires, wheels and assemblies for each kilogram on their group.
    """

    rig: RigFile
    pm: Mapping[str, float]
    weighing: Weighing | None = None
    start: RigFile | None = None
    beyond: Mapping[str, float] = field(default_factory=dict)
    empty: float | None = None
    parts: Mapping[CheckId, float] = field(default_factory=dict)

    @property
    def weighed(self) -> bool:
        """Whether it starts from a weigh-in."""
        return self.weighing is not None

    def loads(self, rig: RigFile) -> dict[str, float]:
        """Every load of a changed rig. [kg], and the tongue share"""
        found = dict(predict(rig))
        if rig.vehicle is self.rig.vehicle and rig.towing:
            for key, kg in self.beyond.items():
                found[key] += kg
            found["vehicle_hitched"] = found["front_hitched"] + found["rear_hitched"]
            found["combination_gross"] = found["vehicle_hitched"] + found["trailer_axles"]
        if rig.vehicle is self.rig.vehicle and self.empty is not None:
            found["curb_measured"] = self.empty
        return found

    def rules(self, rig: RigFile) -> list[BrokenRule]:
        """The rules of maker and law that a changed rig does not keep, by its loads as they would
        be.
        """
        found = self.loads(rig)
        return broken_rules(rig, predicted_weighing(rig, found, uncertainty(rig)))

    def checks(self, rig: RigFile) -> list[Checked]:
        """The ordinary checks of a changed rig, with the scale's ± and that of what was changed;
        tightest first.
        """
        found = self.loads(rig)
        if self.weighing is None:
            return tightest_first(run_checks(rig, predicted_weighing(rig, found, uncertainty(rig))))
        start = self.start or self.rig
        moved, same = (
            change_uncertainty(start, rig),
            rig.vehicle is start.vehicle,
        )
        if not same:
            moved = {
                **uncertainty(rig),
                **{key: moved[key] for key in ("trailer_gross", "tongue_static") if key in moved},
            }
        return tightest_first(
            run_checks(rig, shifted_weighing(rig, found, self.weighing, moved, same_vehicle=same))
        )

    def changed(self, rig: RigFile) -> "Baseline":
        """The baseline of a changed rig: what is tried next starts there."""
        if rig.vehicle is self.rig.vehicle:
            return replace(self, rig=rig)
        parts = {
            check: share for check, share in self.parts.items() if CHECKS[check].group == "trailer"
        }
        return replace(self, rig=rig, beyond={}, empty=None, parts=parts)


def baseline_of(rig: RigFile, number: int | None = None) -> Baseline:
    """The rig as a baseline to try changes on.

    Parameters
    ----------
    rig : RigFile
        Its items and tanks need places.
    number : int or None
        Which weigh-in to start from; None is the last.

    Raises
    ------
    MissingInput
        Naming what neither the weigh-in nor the plan has.
    """
    why: MissingInput | None = None
    if rig.weigh_ins:
        try:
            found = plan_from_weigh_in(rig, number or 0)
        except MissingInput as exc:
            found, why = {}, exc
        weighing = weigh(rig, rig.weigh_ins[(number or 0) - 1])
        figures = weighing.figures
        if found and (not rig.towing or "plan.trailer_base.gross" in found):
            pm = {key: figure.plus_minus for key, figure in figures.items()}
            made = rig.model_copy(update={"plan": _plan(rig, found)})
            modelled = predict(made)
            beyond = {
                key: figures[key].value - modelled[key]
                for key in GROUPS.values()
                if key in figures and key in modelled
            }
            empty = figures["curb_measured"].value if "curb_measured" in figures else None
            return _with_parts(
                Baseline(
                    made,
                    {**uncertainty(made), **pm},
                    weighing,
                    made,
                    beyond,
                    empty,
                )
            )
    try:
        predict(rig)
        return Baseline(rig, uncertainty(rig))
    except MissingInput as exc:
        raise (why or exc) from exc


def _with_parts(base: Baseline) -> Baseline:
    loads = base.loads(base.rig)
    found: dict[CheckId, float] = {}
    for row in base.checks(base.rig):
        group, part = row.spec.group, row.spec.part
        if group is None or part == "load":
            continue
        whole = loads.get(GROUPS[group]) or (
            loads.get(f"{group}_solo") if not base.rig.towing else None
        )
        if row.actual is not None and whole:
            found[row.id] = row.actual.value / whole
    return replace(base, parts=found)


def _plan(rig: RigFile, found: Mapping[str, float]) -> Plan:
    def mass(path: str) -> Mass:
        # as the lists in Pack write it
        return Mass(round(found[path] / KG[rig.units.mass], 3), found[path])

    made: dict[str, object] = {
        "vehicle_base": VehicleBase(
            front=mass("plan.vehicle_base.front"),
            rear=mass("plan.vehicle_base.rear"),
            hitch_fitted=True,
        )
    }
    if "plan.trailer_base.gross" in found:
        made["trailer_base"] = TrailerBase(
            gross=mass("plan.trailer_base.gross"), tongue=mass("plan.trailer_base.tongue")
        )
    if "plan.effective_overhang" in found:
        metres = found["plan.effective_overhang"]
        made["effective_overhang"] = in_the_rigs_unit(rig, metres)
    if "plan.front_restoration" in found:
        made["front_restoration"] = found["plan.front_restoration"]
    return rig.plan.model_copy(update=made)
