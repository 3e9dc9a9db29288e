"""What one tire, one wheel and one axle assembly carries, from wheel readings where there are some,
else from axle loads.
"""

from collections.abc import Mapping

from noxel.core.limits.specs import UNDER_LOAD, CheckId
from noxel.core.limits.tires import axle_sets
from noxel.core.mechanics import GROUPS, PassLoads, between, reading_words
from noxel.core.quantities import Amount, Figure, Term, combine, nominal, total
from noxel.core.rig import AxleTires, RigFile

SIDES_APART = 0.05
"""How far one wheel of an axle that was not weighed by wheel may be from half of it, as a share."""
AXLES_APART = 0.08
"""The same for a wheel, or an axle, of a trailer whose axles were weighed as one group."""


def _amounts(loads: PassLoads, stem: str) -> list[str]:
    """The readings of one axle, whole or by wheel."""
    return [
        name for name in loads.readings if name == stem or name in (f"{stem}_left", f"{stem}_right")
    ]


def _axles(loads: PassLoads | None, group: str) -> list[str] | None:
    """The axles of a group that were weighed singly; None where they were not, or not all of
    them.
    """
    if loads is None:
        return None
    if group != "trailer":
        return [group] if _amounts(loads, group) else None
    return [f"trailer_{number}" for number in loads.single_axles] or None


def _put_back(loads: PassLoads, group: str) -> Amount:
    """What corrections add to the heaviest wheel of an axle: only what was missing on the scale
    counts. [kg]
    """
    if group == "trailer":
        return 0.0
    added: Amount = 0.0
    for _, mass, front_share in loads.corrections:
        if nominal(mass) > 0:
            added = added + mass * (front_share if group == "front" else 1 - front_share)
    return added


def _heaviest(
    loads: PassLoads | None, group: str, whole: Figure | None
) -> tuple[Term, int, bool] | None:
    """The reading that says most about one tire, how many like it there are, and whether it is a
    wheel's.
    """
    axles = _axles(loads, group)
    if loads is not None and axles is not None:
        names = [name for axle in axles for name in _amounts(loads, axle)]
        if all(name.endswith(("_left", "_right")) for name in names):
            name = max(names, key=lambda name: nominal(loads.readings[name]))
            amount = combine([(1.0, loads.readings[name]), (1.0, _put_back(loads, group))])
            return Term("", f"heaviest wheel: {reading_words(name)}", amount), len(names), True
        if group == "trailer":
            figures = single_axles(loads).values()
            heaviest = max(figures, key=lambda figure: figure.value)
            return (
                Term(
                    "", f"heaviest axle: {heaviest.terms[0].label.split(',')[0]}", heaviest.amount
                ),
                len(figures),
                False,
            )
    if whole is None:
        return None
    return (
        whole.term("", "load on the axle" if group != "trailer" else "load on the trailer's axles"),
        1,
        False,
    )


def single_axles(loads: PassLoads) -> dict[int, Figure]:
    """The trailer's axles that were weighed singly, by their number from the front. [kg]"""
    figures = {}
    for number in loads.single_axles:
        names = _amounts(loads, f"trailer_{number}")
        terms = [
            Term("+" if index else "", reading_words(name), loads.readings[name])
            for index, name in enumerate(names)
        ]
        figures[number] = total(f"trailer_axle_{number}", "the readings of this axle", terms)
    return figures


def _together(rig: RigFile, loads: PassLoads | None, group: str) -> bool:
    """Whether two or more trailer axles were weighed as one group; two where their number is not
    said.
    """
    rated = len(rig.trailer.ratings.gawr) if rig.trailer else 0
    return group == "trailer" and rated != 1 and _axles(loads, group) is None


def drive_part(rig: RigFile, group: str) -> float:
    """What part of the rear axles' load the drive axle has: all of it, or with a tag axle as their
    ratings have it.
    """
    rear, tag = rig.vehicle.ratings.gawr_rear, rig.vehicle.ratings.gawr_tag
    return rear.kg / (rear.kg + tag.kg) if group == "rear" and rear and tag else 1.0


def tire_load(
    rig: RigFile,
    key: str,
    loads: PassLoads | None,
    group: str,
    whole: Figure | None,
    tires: AxleTires,
) -> Figure | None:
    """What the tire (or wheel) that carries most has on it.

    Parameters
    ----------
    rig : RigFile
        For the number of trailer axles.
    key : str
        What to call the figure.
    loads : PassLoads or None
        The pass that was weighed; None for a load that is only expected.
    group : {"front", "rear", "trailer"}
        Which axle, or all of the trailer's.
    whole : Figure or None
        Load on the axle or group. [kg]
    tires : AxleTires
        How many there are.

    Returns
    -------
    Figure or None
        None without a count or a load. [kg]

    Notes
    -----
    Heaviest reading × number of such readings ÷ number of tires. Not weighed by wheel, one side or
    one axle may carry more: the figure is multiplied by 1 ± 0.05, or 1 ± 0.08 for axles weighed as
    one group (uniform).
    """
    load = _heaviest(loads, group, whole)
    if load is None or tires.count is None:
        return None
    first, like, by_wheel = load
    drive = drive_part(rig, group)
    amount: Amount = combine([(drive * like / tires.count, first.amount)])
    terms = [first] + ([Term("×", "readings like it", float(like), "count")] if like > 1 else [])
    if drive < 1:
        terms.append(Term("×", "the drive axle's part, by the ratings", drive, "share"))
    terms.append(Term("÷", "tires", float(tires.count), "count"))
    if not by_wheel or drive < 1:
        apart = AXLES_APART if drive < 1 or _together(rig, loads, group) else SIDES_APART
        factor = between(1 - apart, 1 + apart)
        amount = amount * factor
        terms.append(Term("×", "one side or axle may carry more", factor, "count"))
    formula = (
        f"{first.label.split(':')[0]}{' × number of such readings' if like > 1 else ''} ÷ "
        "number of tires"
    )
    return Figure(key, amount, formula, tuple(terms))


def assembly_load(
    rig: RigFile, key: str, loads: PassLoads | None, group: str, whole: Figure | None
) -> Figure | None:
    """What one axle carries: the heaviest of a trailer's where they were weighed singly, else its
    part of the group.

    Parameters and result as for :func:`tire_load`.
    """
    drive = drive_part(rig, group)
    if whole is not None and drive < 1:
        factor = between(1 - AXLES_APART, 1 + AXLES_APART)
        terms = [
            whole.term("", "load on the rear axles"),
            Term("×", "the drive axle's part, by the ratings", drive, "share"),
            Term("×", "one axle may carry more", factor, "count"),
        ]
        return Figure(
            key,
            combine([(drive, whole.amount)]) * factor,
            "load on the rear axles × the drive axle's part",
            tuple(terms),
        )
    if group != "trailer":
        return whole.renamed(key) if whole else None
    if loads is not None and _axles(loads, group) is not None:
        return max(single_axles(loads).values(), key=lambda axle: axle.value).renamed(key)
    axles = len(rig.trailer.ratings.gawr) if rig.trailer else 0
    if whole is None or not axles:
        return None
    amount: Amount = combine([(1 / axles, whole.amount)])
    terms = [
        whole.term("", "load on the trailer's axles"),
        Term("÷", "axles", float(axles), "count"),
    ]
    if axles > 1:
        factor = between(1 - AXLES_APART, 1 + AXLES_APART)
        amount = amount * factor
        terms.append(Term("×", "one axle may carry more", factor, "count"))
    return Figure(key, amount, "load on the axles ÷ number of axles", tuple(terms))


def under_load(
    rig: RigFile, loads: PassLoads | None, figures: Mapping[str, Figure]
) -> dict[CheckId, Figure | None]:
    """What the heaviest tire, wheel and assembly of each group of axles carries, by its check.

    Parameters
    ----------
    rig : RigFile
        For its tires.
    loads : PassLoads or None
        The pass that was weighed; None for loads that are only expected.
    figures : mapping
        The load on each group, by the keys of the rig-file format. [kg]
    """
    carried: dict[CheckId, Figure | None] = {}
    for axles in axle_sets(rig):
        group, whole = axles.group, figures.get(GROUPS[axles.group])
        tire, wheel, assembly = UNDER_LOAD[group]
        load = tire_load(rig, f"tire_{group}", loads, group, whole, axles.tires)
        carried[tire] = load
        carried[wheel] = load.renamed(f"wheel_{group}") if load else None
        carried[assembly] = assembly_load(rig, f"assembly_{group}", loads, group, whole)
    return carried
