"""A prediction in the form of a weighing, so that the same checks apply to both."""

from collections.abc import Iterable, Mapping

from noxel.core.mechanics.pass_loads import PassLoads
from noxel.core.mechanics.weighing import Weighing
from noxel.core.quantities import Amount, Figure, Mass, combine, nominal, uncertain
from noxel.core.rig import Pass, RigFile

GROUPS: Mapping[str, str] = {
    "front": "front_hitched",
    "rear": "rear_hitched",
    "trailer": "trailer_axles",
}
"""What a reading, whole or finer, is part of."""
_KEYS = (
    "front_hitched",
    "rear_hitched",
    "vehicle_hitched",
    "trailer_axles",
    "combination_gross",
    "trailer_gross",
    "tongue_static",
    "tongue_share",
    "front_solo",
    "rear_solo",
    "vehicle_solo",
    "curb_measured",
)
_OF_TRAILER = ("trailer_gross", "tongue_static")
"""What was weighed of the trailer stays known before another vehicle."""


def _alone(rig: RigFile, loads: Mapping[str, float]) -> dict[str, float]:
    """Without a trailer the vehicle as it stands is the vehicle as it drives."""
    if rig.towing:
        return dict(loads)
    return {
        **loads,
        **{
            f"{key}_hitched": loads[f"{key}_solo"]
            for key in ("front", "rear", "vehicle")
            if f"{key}_solo" in loads
        },
    }


def _figure(key: str, amount: Amount) -> Figure:
    return Figure(
        key,
        amount,
        "predicted by the lever model",
        sort="share" if key == "tongue_share" else "mass",
    )


def predicted_weighing(
    rig: RigFile, predicted: Mapping[str, float], off: Mapping[str, float]
) -> Weighing:
    """A prediction in the form of a weighing.

    Parameters
    ----------
    rig : RigFile
        The rig as predicted.
    found : mapping
        Its loads, as far as they are known. [kg]
    off : mapping
        The ± of each of them. [kg]
    """
    predicted, off = _alone(rig, predicted), _alone(rig, off)
    figures = {
        key: _figure(
            key, uncertain(predicted[key], off[key] / 2) if off.get(key) else predicted[key]
        )
        for key in _KEYS
        if key in predicted
    }
    stands = Pass(config="hitched" if rig.towing else "vehicle_only")
    loads = PassLoads(
        0,
        stands,
        {},
        front=figures.get("front_hitched"),
        rear=figures.get("rear_hitched"),
        trailer=figures.get("trailer_axles"),
        vehicle=figures.get("vehicle_hitched"),
        gross=figures.get("combination_gross"),
    )
    return Weighing(figures, hitched=loads)


def shifted_weighing(
    rig: RigFile,
    predicted: Mapping[str, float],
    weighed: Weighing,
    moved: Mapping[str, float],
    *,
    same_vehicle: bool,
) -> Weighing:
    """A weighing after a change of the load: what was weighed, shifted by what the lever model says
    the change does.

    Parameters
    ----------
    rig : RigFile
        The changed rig.
    found : mapping
        Its loads. [kg]
    weighed : Weighing
        What the scale found before.
    moved : mapping
        The ± that the change brings with it. [kg]
    same_vehicle : bool
        Whether the vehicle is the one that was weighed; else only what the trailer weighs is kept.
    """
    predicted, moved = _alone(rig, predicted), _alone(rig, moved)
    figures = {}
    for key in _KEYS:
        if key not in predicted:
            continue
        base = weighed.figures.get(key) if same_vehicle or key in _OF_TRAILER else None
        shift = predicted[key] - (base.value if base else 0.0)
        change: Amount = uncertain(shift, moved[key] / 2) if moved.get(key) else shift
        figures[key] = _figure(
            key, combine([(1.0, base.amount), (1.0, change)]) if base else change
        )
    hitched = weighed.hitched
    names = (
        [name for name in hitched.readings if name not in GROUPS and name.split("_")[0] in GROUPS]
        if hitched
        else []
    )
    if not same_vehicle:
        names = [name for name in names if name.startswith("trailer")]
    readings = _readings(names, weighed, figures) if hitched else {}
    stands = Pass(
        config="hitched" if rig.towing else "vehicle_only",
        readings={name: Mass(0, 0.0) for name in readings},
    )
    loads = PassLoads(
        0,
        stands,
        readings,
        hitched.corrections if hitched and same_vehicle else (),
        front=figures.get("front_hitched"),
        rear=figures.get("rear_hitched"),
        trailer=figures.get("trailer_axles"),
        vehicle=figures.get("vehicle_hitched"),
        gross=figures.get("combination_gross"),
    )
    return Weighing(
        figures,
        hitched=loads,
        engaged=weighed.engaged,
        slack=weighed.slack,
        off_height=weighed.off_height,
    )


def _readings(
    names: Iterable[str], weighed: Weighing, figures: Mapping[str, Figure]
) -> dict[str, Amount]:
    """Single axles and wheels, each with the part of its group's change that it has of the
    group.
    """
    spread: dict[str, Amount] = {}
    for name in names:
        group = GROUPS[name.split("_")[0]]
        was, now = weighed.figures.get(group), figures.get(group)
        if weighed.hitched is None or was is None or now is None or was.value <= 0:
            continue
        reading = weighed.hitched.readings[name]
        share = nominal(reading) / was.value
        spread[name] = combine([(1.0, reading), (share, now.amount), (-share, was.amount)])
    return spread
