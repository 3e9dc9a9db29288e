"""The lever model: what a load does to each axle, at rest on level ground.

Every function works on floats and on `uncertainties` numbers alike. Derivations are in
docs/formulas.md.
"""

from dataclasses import dataclass

from noxel.core.quantities import Amount, nominal
from noxel.errors import GeometryError


@dataclass(frozen=True, slots=True)
class AxleChange:
    """Change of load on the front and on the rear axle. [kg]"""

    front: Amount
    rear: Amount


def _need_positive(length: Amount, name: str) -> None:
    if not 0 < nominal(length) < float("inf"):
        raise GeometryError(f"{name} must be a positive length")


def split_item(mass: Amount, position: float, wheelbase: float) -> AxleChange:
    """Split an item in the vehicle between its axles.

    Parameters
    ----------
    mass : Amount
        Mass of the item. [kg]
    position : float
        Its place behind the front axle; negative when ahead of it. [m]
    wheelbase : float
        Front axle to rear axle, greater than zero. [m]

    Returns
    -------
    AxleChange
        Change on each axle; they sum to ``mass``. [kg]

    Raises
    ------
    GeometryError
        If ``wheelbase`` is not positive and finite.

    Notes
    -----
    Moments about the front axle: rear = mass * position / wheelbase. Level ground, no dynamics.
    """
    _need_positive(wheelbase, "wheelbase")
    rear = mass * position / wheelbase
    return AxleChange(mass - rear, rear)


def ball_load_transfer(tongue: Amount, overhang: float, wheelbase: float) -> AxleChange:
    """Split a tongue load between the axles of the tow vehicle.

    Parameters
    ----------
    tongue : Amount
        Vertical load at the hitch point, positive downwards. [kg]
    overhang : float
        Hitch point behind the rear axle; negative when ahead of it. [m]
    wheelbase : float
        Front axle to rear axle, greater than zero. [m]

    Returns
    -------
    AxleChange
        Change on the front and rear axle; they sum to ``tongue``. [kg]

    Raises
    ------
    GeometryError
        If ``wheelbase`` is not positive and finite.

    Notes
    -----
    Moments about the rear axle: front = -tongue * overhang / wheelbase. Level ground, no dynamics.
    """
    _need_positive(wheelbase, "wheelbase")
    front = -tongue * overhang / wheelbase
    return AxleChange(front, tongue - front)


def item_on_tongue(mass: Amount, position: float, coupler_to_axles: float) -> Amount:
    """What an item in the trailer adds to the tongue.

    Parameters
    ----------
    mass : Amount
        Mass of the item. [kg]
    position : float
        Its place behind the coupler. [m]
    coupler_to_axles : float
        Coupler to the middle of the axle group, greater than zero. [m]

    Returns
    -------
    Amount
        Change of the tongue load; negative for an item behind the axles. [kg]

    Raises
    ------
    GeometryError
        If ``coupler_to_axles`` is not positive and finite.

    Notes
    -----
    Moments about the axle group: tongue = mass * (L - position) / L.
    """
    _need_positive(coupler_to_axles, "coupler_to_axles")
    return mass * (coupler_to_axles - position) / coupler_to_axles


def bar_moment(
    restoration: float, tongue: Amount, overhang: float, coupler_to_axles: float
) -> Amount:
    """The spring-bar moment that gives back a share of the front axle's loss.

    Parameters
    ----------
    restoration : float
        Share of the front axle's loss that the bars give back; 0 is slack, 1 is the solo front
        load.
    tongue : Amount
        Static tongue load. [kg]
    overhang : float
        Hitch point behind the rear axle. [m]
    coupler_to_axles : float
        Coupler to the middle of the trailer's axle group, greater than zero. [m]

    Returns
    -------
    Amount
        The moment, as mass times length. [kg m]

    Raises
    ------
    GeometryError
        If ``coupler_to_axles`` is not positive and finite.

    Notes
    -----
    M = restoration * T * b / (1 + b / L), from front = -(T - M/L) * b/a + M/a set to -(1 -
    restoration) * T * b/a.
    """
    _need_positive(coupler_to_axles, "coupler_to_axles")
    return restoration * tongue * overhang / (1 + overhang / coupler_to_axles)


def hitched_change(
    tongue: Amount, moment: Amount, overhang: float, wheelbase: float, coupler_to_axles: float
) -> AxleChange:
    """What coupling the trailer does to the vehicle's axles, with the spring bars' moment.

    Parameters
    ----------
    tongue : Amount
        Static tongue load. [kg]
    moment : Amount
        Spring-bar moment; 0 when slack or absent. [kg m]
    overhang, wheelbase, coupler_to_axles : float
        As in the other functions. [m]

    Returns
    -------
    AxleChange
        Change on each axle; they sum to the net tongue load, tongue - moment / coupler_to_axles.
        [kg]

    Raises
    ------
    GeometryError
        If a length that must be positive is not.

    Notes
    -----
    front = -T_net * b / a + M / a; rear = T_net - front.
    """
    _need_positive(wheelbase, "wheelbase")
    _need_positive(coupler_to_axles, "coupler_to_axles")
    net = tongue - moment / coupler_to_axles
    front = (moment - net * overhang) / wheelbase
    return AxleChange(front, net - front)


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
        As in the other functions. [m]

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
    M = a * front_transfer + b * net, T = net + M / L. It inverts :func:`hitched_change`.
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
