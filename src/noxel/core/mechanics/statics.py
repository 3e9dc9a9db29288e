"""Ways to learn a tongue or a length from what was read, by moments.

Every function works on floats and on uncertain amounts alike. Derivations are in
docs/formulas.md.
"""

from noxel.core.quantities import Amount, nominal
from noxel.errors import GeometryError


def _need_positive(length: Amount, name: str) -> None:
    if not 0 < nominal(length) < float("inf"):
        raise GeometryError(f"{name} must be a positive length")


def tongue_by_moments(
    net: Amount, front_transfer: Amount, overhang: float, wheelbase: float, coupler_to_axles: float
) -> Amount:
    """The static tongue load, recovered from a pass with the spring bars engaged.

    Parameters
    ----------
    net : Amount
        Net load on the vehicle: vehicle hitched less vehicle solo. [kg]
    front_transfer : Amount
        Front axle hitched less front axle solo. [kg]
    overhang, wheelbase, coupler_to_axles : float
        Hitch point behind the rear axle, front axle to rear axle, coupler to the middle of the axle
        group. [m]

    Returns
    -------
    Amount
        Static tongue load. [kg]

    Raises
    ------
    GeometryError
        If a length that must be positive is not.

    Notes
    -----
    M = a * front_transfer + b * net, T = net + M / L. It inverts
    :meth:`noxel.core.mechanics.Levers.on_hitch`.
    """
    _need_positive(wheelbase, "wheelbase")
    _need_positive(coupler_to_axles, "coupler_to_axles")
    return net + (wheelbase * front_transfer + overhang * net) / coupler_to_axles


def length_from_move(mass: Amount, moved_back: Amount, before: Amount, after: Amount) -> Amount:
    """Coupler to axles, from the tongue before and after a known item was moved.

    Parameters
    ----------
    mass : Amount
        What was moved. [kg]
    moved_back : Amount
        How far back; negative when forward. [m]
    before, after : Amount
        The tongue load, measured alike both times. [kg]

    Returns
    -------
    Amount
        Coupler to the middle of the axle group. [m]

    Raises
    ------
    GeometryError
        If the tongue did not change, or changed the wrong way.

    Notes
    -----
    Moments about the axle group: moving m back by d changes the tongue by -m * d / L.
    """
    change = before - after
    if nominal(change) == 0 or nominal(mass * moved_back / change) <= 0:
        raise GeometryError(
            "moving it back must make the tongue lighter, moving it forward heavier: read both "
            "again"
        )
    return mass * moved_back / change


def beam_tongue(
    reading: Amount, tare: Amount, span: Amount, coupler_from_support: Amount
) -> Amount:
    """The tongue load from a scale under the far end of a beam.

    Parameters
    ----------
    reading, tare : Amount
        The scale with the tongue on the beam, and with the beam alone. [kg]
    span : Amount
        Fixed support to scale. [m]
    coupler_from_support : Amount
        Fixed support to coupler, greater than zero. [m]

    Returns
    -------
    Amount
        Tongue load. [kg]

    Raises
    ------
    GeometryError
        If ``coupler_from_support`` is not positive.

    Notes
    -----
    Moments about the support: T = (reading - tare) * span / coupler_from_support.
    """
    _need_positive(coupler_from_support, "coupler_from_support")
    return (reading - tare) * span / coupler_from_support


def lever_tongue(
    counterweight: Amount,
    counterweight_arm: Amount,
    tongue_arm: Amount,
    beam_mass: float,
    beam_cg_arm: float,
) -> Amount:
    """The tongue load balanced by a known weight over a fulcrum.

    Parameters
    ----------
    counterweight : Amount
        The known weight. [kg]
    counterweight_arm, tongue_arm : Amount
        Their arms from the fulcrum. [m]
    beam_mass : float
        Mass of the lever itself. [kg]
    beam_cg_arm : float
        Its middle from the fulcrum, positive on the counterweight's side. [m]

    Returns
    -------
    Amount
        Tongue load. [kg]

    Raises
    ------
    GeometryError
        If ``tongue_arm`` is not positive.

    Notes
    -----
    Moments about the fulcrum: T = (W * arm + beam_mass * beam_cg_arm) / tongue_arm.
    """
    _need_positive(tongue_arm, "tongue_arm")
    return (counterweight * counterweight_arm + beam_mass * beam_cg_arm) / tongue_arm
