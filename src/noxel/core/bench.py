"""The bench that things are tried on: the rig as the scale found it, or as it is planned."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from noxel.core.checks import Checked, run_checks, tightest_first
from noxel.core.figures import nominal, plus_minus
from noxel.core.lengths import in_the_rigs_unit
from noxel.core.loads import Plan, TrailerBase, VehicleBase
from noxel.core.pack import GROUPS, Split, predicted_weighing
from noxel.core.predict import predict
from noxel.core.quantities import Mass
from noxel.core.rigfile import RigFile
from noxel.core.spread import spread
from noxel.core.start import plan_from_weigh_in
from noxel.core.units import KG
from noxel.core.weighing import Weighing, weigh
from noxel.errors import MissingInput


@dataclass(frozen=True, slots=True)
class Bench:
    """The rig to try things on: its plan started from the weigh-in where there is one, and the ± of each figure. [kg]

    A trial starts from what the ticket says: ``beyond`` is what the scale found on each axle beyond the lever model, ``split`` how
    single axles and wheels share their group, ``empty`` what the vehicle weighed empty. They stay whatever is tried, until the
    vehicle is another one; then only the trailer's do. ``parts`` are the loads on single axles and tires for each kilogram on
    their group.
    """

    rig: RigFile
    weighed: bool
    pm: Mapping[str, float]
    beyond: Mapping[str, float] = field(default_factory=dict)
    split: Split = field(default_factory=dict)
    empty: float | None = None
    parts: Mapping[str, float] = field(default_factory=dict)

    def loads(self, rig: RigFile) -> dict[str, float]:
        """Every load of a changed rig. [kg], and the tongue's share"""
        found = dict(predict(rig))
        if rig.vehicle is self.rig.vehicle and rig.towing:
            for key, kg in self.beyond.items():
                found[key] += kg
            found["vehicle_hitched"] = found["front_hitched"] + found["rear_hitched"]
            found["combination_gross"] = found["vehicle_hitched"] + found["trailer_axles"]
        if rig.vehicle is self.rig.vehicle and self.empty is not None:
            found["curb_measured"] = self.empty
        return found

    def checks(self, rig: RigFile) -> list[Checked]:
        """The ordinary checks of a changed rig, with the scale's ±; tightest first."""
        return tightest_first(run_checks(rig, predicted_weighing(rig, self.loads(rig), self.pm, self.changed(rig).split)))

    def changed(self, rig: RigFile) -> "Bench":
        """The bench with a changed rig on it."""
        if rig.vehicle is self.rig.vehicle:
            return replace(self, rig=rig)
        split = {name: share for name, share in self.split.items() if name.startswith("trailer")}
        parts = {check: share for check, share in self.parts.items() if "trailer" in check}
        return replace(self, rig=rig, beyond={}, split=split, empty=None, parts=parts)


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
        weighing = weigh(rig, rig.weigh_ins[(number or 0) - 1])
        figures = weighing.figures
        if found and (not rig.towing or "plan.trailer_base.gross" in found):
            pm = {key: figure.plus_minus for key, figure in figures.items()}
            made = rig.model_copy(update={"plan": _plan(rig, found)})
            modelled = predict(made)
            beyond = {key: figures[key].value - modelled[key] for key in GROUPS.values() if key in figures and key in modelled}
            empty = figures["curb_measured"].value if "curb_measured" in figures else None
            return _with_parts(Bench(made, True, {**spread(made, modelled), **pm}, beyond, _split(weighing), empty))
    try:
        return Bench(rig, False, spread(rig, predict(rig)))
    except MissingInput as exc:
        raise (why or exc) from exc


def _split(weighing: Weighing) -> Split:
    """How the readings share their group, where they are finer than it."""
    found = {}
    for name, amount in weighing.hitched.readings.items() if weighing.hitched else ():
        group = weighing.figures.get(GROUPS[name.split("_")[0]])
        if name not in GROUPS and group is not None and group.value > 0:
            found[name] = nominal(amount) / group.value, plus_minus(amount)
    return found


def _with_parts(bench: Bench) -> Bench:
    loads, found = bench.loads(bench.rig), {}
    for row in bench.checks(bench.rig):
        group = "trailer" if row.id.startswith("trailer.axle_") else row.id.removeprefix("tires.")
        whole = loads.get(GROUPS.get(group, "")) or (loads.get(f"{group}_solo") if not bench.rig.towing else None)
        if row.actual is not None and whole and group in GROUPS:
            found[row.id] = row.actual.value / whole
    return replace(bench, parts=found)


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
