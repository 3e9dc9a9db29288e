"""The load plan: what every item does to every axle, the whole rig as predicted, and every check of
it.

A prediction is as good as the weights typed into it: its ± says how good that is, and it never
replaces a weighing.
"""

from collections.abc import Mapping

from noxel.core.limits import (
    Checked,
    Verdict,
    binding,
    broken_rules,
    doubts,
    foresee,
    payload_limit,
    run_checks,
    tightest_first,
    verdict,
)
from noxel.core.mechanics import (
    Knowledge,
    Weighing,
    calibrate,
    expect,
    in_phase,
    in_tank,
    items_kg,
    predict_known,
    predicted_weighing,
    uncertainty,
    weigh,
)
from noxel.core.pack.answers import (
    CalibrationAnswer,
    CategoryTotal,
    PackAnswer,
    PayloadLine,
    PhaseAnswer,
    School,
    TankAnswer,
)
from noxel.core.pack.item_effects import effects, say_takes
from noxel.core.pack.places import usual_places
from noxel.core.pack.plan_vs_scale import plan_vs_scale
from noxel.core.pack.stowage import stowage
from noxel.core.quantities import (
    METRES,
    LengthUnit,
    lower_first,
    nominal,
    print_length,
    print_share,
)
from noxel.core.rig import PHASES, Phase, RigFile, share_range
from noxel.core.wording import (
    PHASE_NAMES,
    MissingFigure,
    Printer,
    basis,
    check_answers,
    sentences,
    term_name,
    vehicle_word,
)


def _payload(
    rig: RigFile, found: Mapping[str, float], known: Knowledge | None, to: Printer
) -> list[PayloadLine]:
    """What the vehicle carries, each kilogram in one line, as its check has it: the tongue as
    predicted; where ``known`` stands in, as that expects it.
    """
    aboard, hitch = items_kg(rig, "vehicle"), rig.hitch.own_mass
    lines = [
        PayloadLine(label=f"people and items in the {vehicle_word(rig)}", mass=aboard / to.mass)
    ]
    if hitch:
        lines.append(PayloadLine(label="the hitch's own mass", mass=hitch / to.mass))
    tongue, moved, label = found.get("tongue_static"), 0.0, f"the trailer's {_point(rig)}"
    if known is not None:
        expected, net = known.known("tongue_static"), known.net_on_hitch
        tongue = expected.value if expected else None
        moved = nominal(net) - (tongue or 0.0) if net is not None else 0.0
        label += f", expected {basis(rig, known, 'tongue_static')}"
    elif tongue is not None:
        moved = found["vehicle_hitched"] - found["vehicle_solo"] - tongue
    if tongue is not None:
        lines.append(PayloadLine(label=label, mass=tongue / to.mass))
    if abs(moved) > 0.5:
        lines.append(
            PayloadLine(label="moved onto the trailer's axles by the bars", mass=moved / to.mass)
        )
    other = found.get("cargo", aboard + hitch) - aboard - hitch
    if abs(other) > 0.5:
        lines.append(
            PayloadLine(
                label=f"fitted or aboard beyond the {term_name(rig, 'curb_weight')}",
                mass=other / to.mass,
            )
        )
    return lines


def _point(rig: RigFile) -> str:
    return term_name(rig, "tongue_weight")


def _schools(rig: RigFile, found: Mapping[str, float], to: Printer) -> list[School]:
    """The tongue by each school, side by side (the highest is what to plan for)."""
    trailer = rig.trailer
    if trailer is None:
        return []
    low, high = share_range(rig)
    schools: list[tuple[str, str, float | None]] = []
    if trailer.ratings.gvwr:
        gvwr = trailer.ratings.gvwr.kg
        schools.append(
            (
                "share_of_gvwr",
                f"{print_share(high)} of the trailer's {term_name(rig, 'trailer.gvwr')}",
                gvwr * high,
            )
        )
        schools.append(
            (
                "low_share_of_gvwr",
                f"{print_share(low)} of the trailer's {term_name(rig, 'trailer.gvwr')}",
                gvwr * low,
            )
        )
    loaded = found.get("trailer_gross")
    if loaded and trailer.dry_weight and trailer.dry_tongue:
        share = trailer.dry_tongue.kg / trailer.dry_weight.kg
        schools.append(
            ("dry_share", f"dry share {print_share(share)} × what it will weigh", share * loaded)
        )
    lump = sum(extra.mass.kg for extra in trailer.dry_extras if not extra.counted)
    if trailer.dry_tongue and lump:
        names = ", ".join(
            extra.name.split(",")[0] for extra in trailer.dry_extras if not extra.counted
        )
        schools.append(
            (
                "dry_and_lump",
                f"{term_name(rig, 'dry_tongue')} + {names}",
                trailer.dry_tongue.kg + lump,
            )
        )
    if "tongue_static" in found:
        schools.append(("lever", "lever model, from where items lie", found["tongue_static"]))
    highest = max((kg for _, _, kg in schools if kg), default=None)
    return [
        School(code=code, title=title, value=(kg or 0.0) / to.mass, highest=kg == highest)
        for code, title, kg in schools
    ]


def _tanks(rig: RigFile, to: Printer) -> list[TankAnswer]:
    return [
        TankAnswer(
            index=index,
            metres=tank.position.m if tank.position else None,
            full=tank.full_kg() / to.mass,
            now=tank.full_kg() * tank.level(rig.plan.phase) / to.mass,
            level=tank.level(rig.plan.phase),
            levels={phase: tank.level(phase) for phase in PHASES},
        )
        for index, tank in enumerate(rig.tanks)
    ]


_SEVERITY: Mapping[Verdict, int] = {"stop": 3, "incomplete": 2, "caution": 1, "within": 0}


def _phases(rig: RigFile) -> list[PhaseAnswer]:
    """Every phase as predicted; nothing when no tank changes on the way."""
    if not rig.tanks:
        return []
    found: list[tuple[Phase, Verdict, str, float]] = []
    judged: dict[tuple[float, ...], tuple[Verdict, str, float]] = {}
    for phase in PHASES:
        levels = tuple(tank.level(phase) for tank in rig.tanks)
        if levels in judged:  # nothing was drained or filled since
            found.append((phase, *judged[levels]))
            continue
        seen = in_phase(rig, phase)
        predicted = predict_known(seen)
        if predicted.missing:  # a tank that is empty in the phase looked at, and has no place
            judged[levels] = ("incomplete", _not_placed(seen), 0.0)
            found.append((phase, *judged[levels]))
            continue
        weighing = _predicted(seen, predicted.loads)
        rows, rules = tightest_first(run_checks(seen, weighing)), broken_rules(seen, weighing)
        bind, verdict_here = binding(rows), verdict(rows, broken=bool(rules))
        said = sentences.headline(seen, rows, verdict_here, rules=rules)
        judged[levels] = (verdict_here, said.sentence, bind.used or 0.0 if bind else 0.0)
        found.append((phase, *judged[levels]))
    worst = max(found, key=lambda each: (_SEVERITY[each[1]], each[3]))
    return [
        PhaseAnswer(
            code=code,
            name=PHASE_NAMES[code],
            verdict=said,
            sentence=sentence,
            used=used,
            worst=code == worst[0],
        )
        for code, said, sentence, used in found
    ]


def _not_placed(rig: RigFile) -> str:
    """What a phase lacks: where its tanks are."""
    names = [
        lower_first(tank.name) or "a tank"
        for tank in rig.tanks
        if tank.position is None and in_tank(rig, tank)
    ]
    return f"Not known yet: no place is entered for {', '.join(names)}."


def _predicted(rig: RigFile, found: dict[str, float]) -> Weighing:
    return predicted_weighing(rig, found, uncertainty(rig))


def _behind(metres: float, unit: LengthUnit) -> str:
    """Where the hitch point is, seen from the rear axle."""
    side = "behind" if metres >= 0 else "ahead of"
    return f"{print_length(abs(metres), unit)} {side} the rear axle"


def _calibration(rig: RigFile, weighing: Weighing, to: Printer) -> CalibrationAnswer | None:
    made = calibrate(rig, weighing)
    if made.overhang is None:
        return None
    factor, unit = METRES[to.length], to.length
    tape = rig.vehicle.geometry.hitch_offset
    found, pm = made.overhang.value / factor, made.overhang.plus_minus / factor
    says = [
        f"By the slack pass the hitch point acts {_behind(made.overhang.value, unit)}, "
        f"± {print_length(made.overhang.plus_minus, unit)}"
        + (f"; by the tape it is {_behind(tape.m, unit)}." if tape else ".")
    ]
    if made.moment_front and made.moment_trailer:
        says.append(
            "The bars' pull, read from the front axle and from the trailer's axles, agrees within "
            "the scale's ±."
            if made.agrees
            else "Two ways to the bars' pull disagree by "
            f"{abs(made.apart) / max(abs(made.moment_front.value), 1e-9) * 100:.0f} %, more than "
            "the scale's ± explains: an axle across two platforms, a coupler at another height, "
            "or bars that slipped between the passes."
        )
    return CalibrationAnswer(
        overhang=found,
        overhang_pm=pm,
        tape=tape.m / factor if tape else None,
        in_use=rig.plan.effective_overhang is not None,
        agrees=made.agrees,
        says=says,
    )


def evaluate_pack(rig: RigFile, weigh_in: int | None = None) -> PackAnswer:
    """Predict the rig as planned, with every check that a weigh-in has.

    Parameters
    ----------
    rig : RigFile
        Its plan, loads, tanks, lengths and ratings.
    weigh_in : int or None
        The weigh-in, from 1, that the plan is compared with; None is the last.

    Returns
    -------
    PackAnswer
        In the file's unit. Where the lever model lacks a figure, ``missing`` names it, and the
        checks say what is expected from labels and lists.
    """
    to = Printer(rig)
    predicted, known = predict_known(rig), expect(rig, Weighing())
    found, whole = predicted.loads, not predicted.missing
    lines, limit = _payload(rig, found, None if whole else known, to), payload_limit(rig)
    number = rig.filled(weigh_in)
    weighed = weigh(rig, rig.weigh_ins[number - 1] if number else None)
    expected = _predicted(rig, found)
    rows = tightest_first(run_checks(rig, expected)) if whole else _expected_rows(rig, known)
    doubted, rules = doubts(rig, None, Weighing()), broken_rules(rig, expected)
    said = verdict(rows, doubted=bool(doubted), broken=bool(rules))
    items = effects(rig, to)
    if whole:
        say_takes(rig, items, rows, to)
    return PackAnswer(
        missing=[MissingFigure(path=each.path, message=each.message) for each in predicted.missing],
        predicted={key: kg if key == "tongue_share" else kg / to.mass for key, kg in found.items()},
        whole=whole,
        verdict=said,
        headline=sentences.headline(
            rig, rows, said, doubted=doubted, known=None if whole else known, rules=rules
        ),
        checks=check_answers(rig, rows, to, None if whole else known),
        items=items,
        payload=lines,
        payload_used=sum(line.mass for line in lines),
        payload_limit=limit.kg / to.mass if limit else None,
        on_vehicle=items_kg(rig, "vehicle") / to.mass,
        on_trailer=items_kg(rig, "trailer") / to.mass,
        schools=_schools(rig, found, to),
        categories=_categories(rig, to),
        tanks=_tanks(rig, to),
        places=usual_places(rig, to),
        phase=rig.plan.phase,
        phases=_phases(rig) if whole else [],
        stowage=stowage(rig, found.get("tongue_share")),
        gap=plan_vs_scale(rig, found, uncertainty(rig), weighed) if whole else None,
        calibration=_calibration(rig, weighed, to),
        list_complete=rig.plan.trailer_by == "listed",
    )


def _expected_rows(rig: RigFile, known: Knowledge) -> list[Checked]:
    """Every check with what it is expected to find, where the lever model lacks a length, a base or
    a place.
    """
    rows = run_checks(rig, Weighing())
    foresee(rig, known, rows)
    return tightest_first(rows)


def _categories(rig: RigFile, to: Printer) -> list[CategoryTotal]:
    totals: dict[str, float] = {}
    for load in rig.loads:
        name = load.category or "other"
        totals[name] = totals.get(name, 0.0) + load.kg
    return [
        CategoryTotal(category=name, mass=mass / to.mass)
        for name, mass in sorted(totals.items(), key=lambda each: -each[1])
        if mass
    ]
