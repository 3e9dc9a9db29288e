"""Better ways to a load that was not weighed, shown beside the one that is used: the lever model,
and another weigh-in.
"""

from noxel.core.mechanics.added_since import changes_since
from noxel.core.mechanics.knowledge import Expected, Knowledge
from noxel.core.mechanics.predict import predict_known
from noxel.core.mechanics.uncertainty import uncertainty
from noxel.core.mechanics.weighing import weigh
from noxel.core.quantities import Figure, Term, total, uncertain
from noxel.core.rig import RigFile

_BY_LEVER = (
    "front_hitched",
    "rear_hitched",
    "vehicle_hitched",
    "tongue_static",
    "tongue_share",
    "trailer_axles",
)
"""What the lever model knows better than a sum: it asks where the listed items lie."""


def _by_lever(rig: RigFile, known: Knowledge) -> dict[str, Expected]:
    """Loads that the lever model predicts, where it has the bases, the lengths and the places that
    it needs.
    """
    if not any(key in known.expected for key in _BY_LEVER):
        return {}
    predicted = predict_known(rig).loads
    off = uncertainty(rig)
    beside = {}
    for key in _BY_LEVER:
        if key in known.expected and key in predicted and off.get(key):
            figure = Figure(
                key,
                uncertain(predicted[key], off[key] / 2),
                "predicted by the lever model",
                sort="share" if key == "tongue_share" else "mass",
            )
            beside[key] = Expected(figure, "lever")
    return beside


def _by_another_weigh_in(rig: RigFile, number: int | None, known: Knowledge) -> dict[str, Expected]:
    """Loads that an earlier weigh-in found, with what came aboard since; the latest that has it."""
    expected: dict[str, Expected] = {}
    for other in range((number or 1) - 1, 0, -1):
        wanted = [key for key in known.expected if key not in expected]
        if not wanted:
            break
        weigh_in = rig.weigh_ins[other - 1]
        figures, changes = weigh(rig, weigh_in).figures, changes_since(rig, weigh_in)
        for key in wanted:
            change = changes.get(key, None if changes else 0.0)
            if key in figures and change is not None:
                figure = figures[key]
                if changes:
                    terms = [figure.term("", "as weighed"), Term("+", "added since", change)]
                    figure = total(key, "as weighed, and what was added since", terms)
                expected[key] = Expected(figure, "other_weigh_in", weigh_in=other)
    return expected


def other_ways(rig: RigFile, number: int | None, known: Knowledge) -> dict[str, list[Expected]]:
    """Every other way to each expected load, best first.

    Parameters
    ----------
    rig : RigFile
        Its plan, items, places and weigh-ins.
    number : int or None
        The weigh-in that is looked at, from 1; earlier ones are asked.
    known : Knowledge
        What was weighed, and what is expected of the rest.

    Returns
    -------
    dict
        By the key of the load; loads without another way are left out. Nothing of it changes an
        outlook.
    """
    better = (_by_another_weigh_in(rig, number, known), _by_lever(rig, known))
    beside = {
        key: [ways[key] for ways in better if key in ways] + known.beside.get(key, [])
        for key in known.expected
    }
    return {key: ways for key, ways in beside.items() if ways}
