"""The bench that things are tried on: the rig as the scale found it, or as it is planned."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from noxel.core.checks import Checked, run_checks, tightest_first
from noxel.core.lengths import in_the_rigs_unit
from noxel.core.loads import Plan, TrailerBase, VehicleBase
from noxel.core.pack import predicted_weighing
from noxel.core.predict import predict
from noxel.core.quantities import Mass
from noxel.core.rigfile import RigFile
from noxel.core.spread import spread
from noxel.core.start import plan_from_weigh_in
from noxel.core.units import KG
from noxel.core.weighing import weigh
from noxel.errors import MissingInput

AXLES = ("front_hitched", "rear_hitched", "trailer_axles")


@dataclass(frozen=True, slots=True)
class Bench:
    """The rig to try things on: its plan started from the weigh-in where there is one, and the ± of each figure. [kg]

    ``beyond`` is what the scale found on each axle beyond the lever model, so that a trial starts from what the ticket says; it
    stays as it is whatever is tried, until the vehicle is another one.
    """

    rig: RigFile
    weighed: bool
    pm: Mapping[str, float]
    beyond: Mapping[str, float] = field(default_factory=dict)

    def loads(self, rig: RigFile) -> dict[str, float]:
        """Every load of a changed rig. [kg], and the tongue's share"""
        found = dict(predict(rig))
        if rig.vehicle is self.rig.vehicle and rig.towing:
            for key, kg in self.beyond.items():
                found[key] += kg
            found["vehicle_hitched"] = found["front_hitched"] + found["rear_hitched"]
            found["combination_gross"] = found["vehicle_hitched"] + found["trailer_axles"]
        return found

    def checks(self, rig: RigFile) -> list[Checked]:
        """The ordinary checks of a changed rig, with the scale's ±; tightest first."""
        return tightest_first(run_checks(rig, predicted_weighing(rig, self.loads(rig), self.pm)))

    def changed(self, rig: RigFile) -> "Bench":
        """The bench with a changed rig on it."""
        return replace(self, rig=rig, beyond=self.beyond if rig.vehicle is self.rig.vehicle else {})


def bench_of(rig: RigFile, number: int | None = None) -> Bench:
    """The rig as a bench to try things on.

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
        figures = weigh(rig, rig.weigh_ins[(number or 0) - 1]).figures
        if found and (not rig.towing or "plan.trailer_base.gross" in found):
            pm = {key: figure.plus_minus for key, figure in figures.items()}
            made = rig.model_copy(update={"plan": _plan(rig, found)})
            modelled = predict(made)
            beyond = {key: figures[key].value - modelled[key] for key in AXLES if key in figures and key in modelled}
            return Bench(made, True, {**spread(made, modelled), **pm}, beyond)
    try:
        return Bench(rig, False, spread(rig, predict(rig)))
    except MissingInput as exc:
        raise (why or exc) from exc


def _plan(rig: RigFile, found: Mapping[str, float]) -> Plan:
    def mass(path: str) -> Mass:
        return Mass(round(found[path] / KG[rig.units.mass], 3), found[path])  # as the lists in Pack write it

    made: dict[str, object] = {"vehicle_base": VehicleBase(front=mass("plan.vehicle_base.front"), rear=mass("plan.vehicle_base.rear"),
                                                           hitch_fitted=True)}  # fmt: skip
    if "plan.trailer_base.gross" in found:
        made["trailer_base"] = TrailerBase(gross=mass("plan.trailer_base.gross"), tongue=mass("plan.trailer_base.tongue"))
    if "plan.effective_overhang" in found:
        metres = found["plan.effective_overhang"]
        made["effective_overhang"] = in_the_rigs_unit(rig, metres)
    if "plan.front_restoration" in found:
        made["front_restoration"] = found["plan.front_restoration"]
    return rig.plan.model_copy(update=made)
