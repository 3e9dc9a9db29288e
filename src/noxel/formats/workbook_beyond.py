"""Weigh-ins that the workbook's formulas do not cover: their figures are written as worked out."""

from collections.abc import Mapping

from noxel.core.mechanics import Weighing, weigh
from noxel.core.quantities import KG
from noxel.core.rig import RigFile, WeighIn


def _covered(weigh_in: WeighIn, weighing: Weighing) -> bool:
    """Whether each figure comes from the passes as the formulas take them: one scale, readings as they
    are, each load read in its own pass.
    """
    measured = weigh_in.tongue_measurements
    if any(pass_.scale or pass_.adjustments for pass_ in weigh_in.passes):
        return False
    if any(tongue.height and tongue.towing_height for tongue in measured):
        return False
    hitched, solo, figures = weighing.hitched, weighing.solo, weighing.figures
    read = {
        "vehicle_solo": solo and solo.vehicle,
        "vehicle_hitched": hitched and hitched.vehicle,
        "trailer_axles": hitched and hitched.trailer,
        "combination_gross": hitched and hitched.gross,
    }
    if any(key in figures and not own for key, own in read.items()):
        return False
    gross = figures.get("trailer_gross")
    by_trailer_too = weighing.engaged and weighing.slack and weighing.trailer_only
    return not by_trailer_too and (gross is None or gross.value > 0)


def beyond_formulas(rig: RigFile, weigh_in: WeighIn) -> Mapping[str, object] | None:
    """The figures of a weigh-in and their ± by the keys of the columns, in the rig's unit; None where
    the formulas give them.
    """
    weighing, unit = weigh(rig, weigh_in), KG[rig.units.mass]
    if _covered(weigh_in, weighing):
        return None
    cells: dict[str, object] = {"tongue_source": weighing.tongue_source or ""}
    for key, figure in weighing.figures.items():
        factor = 1.0 if figure.sort == "share" else unit
        cells[key], cells[f"pm_{key}"] = figure.value / factor, figure.plus_minus / factor
    return cells
