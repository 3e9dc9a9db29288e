"""The rig as it stands now: the checks as weighed, with what came aboard since.

It starts from what was weighed and only ever makes a verdict worse (rig-file format, “Added
since”).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from noxel.core.limits.checks import (
    Checked,
    Verdict,
    share_status,
    status_of,
)
from noxel.core.limits.specs import AxleGroup, CheckId
from noxel.core.limits.tires import axle_sets
from noxel.core.mechanics import Weighing, changes_since
from noxel.core.quantities import Amount, Figure, Term, combine, nominal, ratio, total
from noxel.core.rig import RigFile, WeighIn, share_range

Changes = Mapping[str, Amount | None]


@dataclass(frozen=True, slots=True)
class Since:
    """The checks with what came aboard since, and which of them it changes by an amount that cannot
    be told.
    """

    rows: list[Checked]
    untold: tuple[CheckId, ...]
    weighing: Weighing
    """What was weighed, with the changes that can be told."""

    def verdict(self, weighed: Verdict) -> Verdict:
        """The verdict about the rig as it stands now."""
        rows = [row for row in self.rows if row.id not in self.untold]
        if any(
            row.status == "low" or (row.status == "over" and row.limit and row.limit.real)
            for row in rows
        ):
            return "stop"
        worse = any(row.status in ("over", "tight", "high", "unconfirmed") for row in rows)
        return "caution" if weighed == "within" and (worse or self.untold) else weighed


def as_it_stands(
    rig: RigFile, weigh_in: WeighIn | None, weighing: Weighing, rows: Sequence[Checked]
) -> Since | None:
    """Carry what came aboard since a weighing into its checks.

    Parameters
    ----------
    rig : RigFile
        For its lengths and tires.
    weigh_in : WeighIn or None
        Its ``added_since``.
    weighing : Weighing
        What was weighed.
    rows : sequence of Checked
        The checks as weighed; those that are unknown stay so.

    Returns
    -------
    Since or None
        None where nothing came aboard.
    """
    if weigh_in is None or not weigh_in.added_since:
        return None
    changes = changes_since(rig, weigh_in)
    heaviest = _heaviest_axle(rows)
    standing, untold = [], []
    for row in rows:
        if row.actual is None or row.status == "unknown":
            standing.append(row)
            continue
        change = _change_of(rig, row, changes, weighing, heaviest)
        if change is None:
            untold.append(row.id)
            standing.append(row)
        else:
            standing.append(_changed(rig, row, change, changes, weighing))
    return Since(standing, tuple(untold), _with(weighing, changes))


def _with(weighing: Weighing, changes: Changes) -> Weighing:
    figures = dict(weighing.figures)
    for key, change in changes.items():
        if key in figures and change is not None:
            figures[key] = _more(figures[key], change)
    return replace(weighing, figures=figures)


def _heaviest_axle(rows: Sequence[Checked]) -> CheckId | None:
    single = [row for row in rows if row.spec.part == "axle" and row.actual]
    heaviest = max(single, key=lambda row: row.actual.value if row.actual else 0.0, default=None)
    return heaviest.id if heaviest else None


def _change_of(
    rig: RigFile, row: Checked, changes: Changes, weighing: Weighing, heaviest: CheckId | None
) -> Amount | None:
    """How a check's load changed; None where that cannot be told. [kg]"""
    spec = row.spec
    if spec.part == "share":
        return changes["tongue_static"] if "trailer_gross" in weighing.figures else None
    change = changes[spec.load]
    if spec.part == "axle":
        gain = _gain(change)
        return gain if row.id == heaviest or gain is None else 0.0
    if spec.part in ("tire", "wheel"):
        return _on_one_tire(rig, spec.group, _gain(change))
    return _gain(change) if spec.part == "assembly" and spec.group == "trailer" else change


def _gain(change: Amount | None) -> Amount | None:
    """What an axle gains on balance; one that loses counts as it was weighed."""
    return change if change is None or nominal(change) > 0 else 0.0


def _on_one_tire(rig: RigFile, group: AxleGroup | None, gain: Amount | None) -> Amount | None:
    """What one tire has of a gain: all of it on one axle and one side of it."""
    axles = next((axles for axles in axle_sets(rig) if axles.group == group), None)
    if gain is None or axles is None or not axles.tires.count:
        return None
    number = (axles.axles or 2) if group == "trailer" else 1
    return gain * (2 * number / axles.tires.count)


def _more(figure: Figure, change: Amount) -> Figure:
    terms = [figure.term("", "as weighed"), Term("+", "added since", change)]
    return total(figure.key, "as weighed + what was added since", terms)


def _changed(
    rig: RigFile, row: Checked, change: Amount, changes: Changes, weighing: Weighing
) -> Checked:
    figures = weighing.figures
    if row.actual is None:
        return row
    if row.spec.part == "share":
        gross, more = figures["trailer_gross"], changes["trailer_gross"]
        share = ratio(
            combine([(1.0, figures["tongue_static"].amount), (1.0, change)]),
            combine([(1.0, gross.amount), (1.0, more if more is not None else 0.0)]),
        )
        actual = replace(row.actual, amount=share)
        status = share_status(actual, *share_range(rig))
        return replace(row, actual=actual, status=status)
    actual = _more(row.actual, change)
    other = _more(row.by_other_label, change) if row.by_other_label else None
    status = status_of(row.id, actual, row.limit, row.cushion, other)
    return replace(row, actual=actual, status=status, by_other_label=other)
