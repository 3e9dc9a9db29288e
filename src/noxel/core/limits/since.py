"""The rig as it stands now: the checks as weighed, with what came aboard since.

It starts from what was weighed and only ever makes a verdict worse (rig-file format, “Added
since”).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from noxel.core.limits.checks import (
    AXLE_LOAD,
    FIGURE_OF,
    Checked,
    Verdict,
    share_status,
    status_of,
)
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
    untold: tuple[str, ...]
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


def _heaviest_axle(rows: Sequence[Checked]) -> str | None:
    single = [row for row in rows if row.id.startswith("trailer.axle_") and row.actual]
    heaviest = max(single, key=lambda row: row.actual.value if row.actual else 0.0, default=None)
    return heaviest.id if heaviest else None


def _change_of(
    rig: RigFile, row: Checked, changes: Changes, weighing: Weighing, heaviest: str | None
) -> Amount | None:
    """How a check's load changed; None where that cannot be told. [kg]"""
    group, _, name = row.id.partition(".")
    if row.id == "tongue.share":
        return changes["tongue_static"] if "trailer_gross" in weighing.figures else None
    if group in ("tires", "wheels", "assembly"):
        return _on_one(rig, group, name, changes[AXLE_LOAD[name]])
    if row.id.startswith("trailer.axle_"):
        gain = _gain(changes["trailer_axles"])
        return gain if row.id == heaviest or gain is None else 0.0
    key = {"vehicle.payload": "vehicle_hitched", "trailer.cargo": "trailer_gross"}.get(row.id)
    return changes[key or FIGURE_OF[row.id]]


def _gain(change: Amount | None) -> Amount | None:
    """What an axle gains on balance; one that loses counts as it was weighed."""
    return change if change is None or nominal(change) > 0 else 0.0


def _on_one(rig: RigFile, group: str, name: str, change: Amount | None) -> Amount | None:
    """What one axle, or one tire, has of a change: all of a gain on one axle and one side of it."""
    if group == "assembly" and name != "trailer":
        return change
    gain = _gain(change)
    if gain is None or group == "assembly":
        return gain
    tires = rig.trailer.tires if rig.trailer else None
    axles = (len(rig.trailer.ratings.gawr) or 2) if rig.trailer else 1
    if name != "trailer":
        tires, axles = getattr(rig.vehicle.tires, name), 1
    return gain * (2 * axles / tires.count) if tires and tires.count else None


def _more(figure: Figure, change: Amount) -> Figure:
    terms = [figure.term("", "as weighed"), Term("+", "added since", change)]
    return total(figure.key, "as weighed + what was added since", terms)


def _changed(
    rig: RigFile, row: Checked, change: Amount, changes: Changes, weighing: Weighing
) -> Checked:
    figures = weighing.figures
    if row.actual is None:
        return row
    if row.id == "tongue.share":
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
