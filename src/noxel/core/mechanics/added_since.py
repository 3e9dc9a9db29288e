"""What came aboard after the weighing, or left, as changes of every load, by the lever model.

A change that needs a place or a length that is not known cannot be told; nothing is guessed. The
spring bars stay as they were: the moment that they apply is the same.
"""

from collections.abc import Mapping

from noxel.core.mechanics.model import State, amounts, together
from noxel.core.mechanics.predict import levers_of
from noxel.core.mechanics.sources import entered, place_of
from noxel.core.quantities import Amount, uncertain
from noxel.core.rig import RigFile, WeighIn, on_its_wheels

PLACE_OFF = 0.3
"""How far the place of what came aboard may be off, two standard uncertainties. [m]"""


def changes_since(rig: RigFile, weigh_in: WeighIn) -> Mapping[str, Amount | None]:
    """How each load changed since a weighing.

    Parameters
    ----------
    rig : RigFile
        For its lengths.
    weigh_in : WeighIn
        Its ``added_since``.

    Returns
    -------
    Mapping
        By the keys of the rig-file format; None where a change cannot be told; empty where nothing
        was added. [kg]
    """
    if not weigh_in.added_since:
        return {}
    levers, number, changes = levers_of(rig), place_of(rig, weigh_in), []
    for index, added in enumerate(weigh_in.added_since):
        path = f"weigh_ins[{number}].added_since[{index}].mass"
        mass = entered(rig, path, added.mass.kg)
        place = uncertain(added.position.m, PLACE_OFF / 2) if added.position else None
        moment = None if place is None else mass * place
        if added.on == "trailer" and on_its_wheels(rig):
            changes.append(State(trailer=mass))
        else:
            changes.append(levers.item(added.on, mass, moment, restored=0.0))
    return amounts(together(changes))
