"""The pressure that a load needs, by the tire maker's own table."""

from dataclasses import dataclass

from noxel.core.limits.tires import P_METRIC, is_p_metric
from noxel.core.rig import AxleTires


@dataclass(frozen=True, slots=True)
class PressureNeed:
    """The cold pressure that a load needs, by the tire maker's own table. [kPa]

    ``kpa`` is None when no listed pressure carries the load, or the one that does is above the
    sidewall's maximum.
    """

    kpa: float | None
    from_table: float | None
    raised_to_placard: bool
    above_sidewall: bool


def pressure_for(tires: AxleTires, load: float, *, car: bool = False) -> PressureNeed | None:
    """The lowest listed pressure that carries a load, never below the placard, never above the
    sidewall.

    Parameters
    ----------
    tires : AxleTires
        With the maker's table and, where known, the placard's and the sidewall's pressure.
    load : float
        On one tire. [kg]
    car : bool
        Whether they are on a passenger car (P-metric tires elsewhere need the pressure for 1.10 ×
        the load).

    Returns
    -------
    PressureNeed or None
        None without a table. Between two rows the higher one is taken; nothing is interpolated.
    """
    if not tires.table:
        return None
    counted = load * (P_METRIC if is_p_metric(tires, car=car) else 1.0)
    rows = sorted((row.pressure.kpa, row.load.kg) for row in tires.table)
    listed = next((kpa for kpa, kg in rows if kg >= counted * (1 - 1e-9)), None)
    if listed is None:
        return PressureNeed(None, None, raised_to_placard=False, above_sidewall=False)
    placard = tires.placard_pressure.kpa if tires.placard_pressure else 0.0
    needed = max(listed, placard)
    above = tires.sidewall_pressure is not None and needed > tires.sidewall_pressure.kpa * (
        1 + 1e-9
    )
    return PressureNeed(
        None if above else needed, listed, raised_to_placard=placard > listed, above_sidewall=above
    )
