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
    headline,
    term_name,
    vehicle_word,
)


def _payload(
    rig: RigFile, loads: Mapping[str, float], known: Knowledge | None, printer: Printer
) -> list[PayloadLine]:
    """What the vehicle carries, each kilogram in one line, as its check has it: the tongue as
    predicted; where ``known`` stands in, as that expects it.
    """
    aboard, hitch = items_kg(rig, "vehicle"), rig.hitch.own_mass
    lines = [
        PayloadLine(
            label=f"people and items in the {vehicle_word(rig)}", mass=aboard / printer.mass
        )
    ]
    if hitch:
        lines.append(PayloadLine(label="the hitch's own mass", mass=hitch / printer.mass))
    tongue, moved, label = loads.get("tongue_static"), 0.0, f"the trailer's {_point(rig)}"
    if known is not None:
        expected, net = known.known("tongue_static"), known.net_on_hitch
        tongue = expected.value if expected else None
        moved = nominal(net) - (tongue or 0.0) if net is not None else 0.0
        label += f", expected {basis(rig, known, 'tongue_static')}"
    elif tongue is not None:
        moved = loads["vehicle_hitched"] - loads["vehicle_solo"] - tongue
    if tongue is not None:
        lines.append(PayloadLine(label=label, mass=tongue / printer.mass))
    if abs(moved) > 0.5:
        lines.append(
            PayloadLine(
                label="moved onto the trailer's axles by the bars", mass=moved / printer.mass
            )
        )
    other = loads.get("cargo", aboard + hitch) - aboard - hitch
    if abs(other) > 0.5:
        lines.append(
            PayloadLine(
                label=f"fitted or aboard beyond the {term_name(rig, 'curb_weight')}",
                mass=other / printer.mass,
            )
        )
    return lines


def _point(rig: RigFile) -> str:
    return term_name(rig, "tongue_weight")


def _schools(rig: RigFile, loads: Mapping[str, float], printer: Printer) -> list[School]:
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
    loaded = loads.get("trailer_gross")
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
    if "tongue_static" in loads:
        schools.append(("lever", "lever model, from where items lie", loads["tongue_static"]))
    highest = max((kg for _, _, kg in schools if kg), default=None)
    return [
        School(code=code, title=title, value=(kg or 0.0) / printer.mass, highest=kg == highest)
        for code, title, kg in schools
    ]


def _tanks(rig: RigFile, printer: Printer) -> list[TankAnswer]:
    return [
        TankAnswer(
            index=index,
            metres=tank.position.m if tank.position else None,
            full=tank.full_kg() / printer.mass,
            now=tank.full_kg() * tank.level(rig.plan.phase) / printer.mass,
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
    phases: list[tuple[Phase, Verdict, str, float]] = []
    judged: dict[tuple[float, ...], tuple[Verdict, str, float]] = {}
    for phase in PHASES:
        levels = tuple(tank.level(phase) for tank in rig.tanks)
        if levels in judged:  # nothing was drained or filled since
            phases.append((phase, *judged[levels]))
            continue
        rig_then = in_phase(rig, phase)
        predicted = predict_known(rig_then)
        if predicted.missing:  # a tank that is empty in the phase looked at, and has no place
            judged[levels] = ("incomplete", _not_placed(rig_then), 0.0)
            phases.append((phase, *judged[levels]))
            continue
        weighing = _predicted(rig_then, predicted.loads)
        rows, rules = (
            tightest_first(run_checks(rig_then, weighing)),
            broken_rules(rig_then, weighing),
        )
        bind, verdict_here = binding(rows), verdict(rows, broken=bool(rules))
        line = headline(rig_then, rows, verdict_here, rules=rules)
        judged[levels] = (verdict_here, line.sentence, bind.used or 0.0 if bind else 0.0)
        phases.append((phase, *judged[levels]))
    worst = max(phases, key=lambda phase: (_SEVERITY[phase[1]], phase[3]))
    return [
        PhaseAnswer(
            code=code,
            name=PHASE_NAMES[code],
            verdict=reached,
            sentence=sentence,
            used=used,
            worst=code == worst[0],
        )
        for code, reached, sentence, used in phases
    ]


def _not_placed(rig: RigFile) -> str:
    """What a phase lacks: where its tanks are."""
    names = [
        lower_first(tank.name) or "a tank"
        for tank in rig.tanks
        if tank.position is None and in_tank(rig, tank)
    ]
    return f"Not known yet: no place is entered for {', '.join(names)}."


def _predicted(rig: RigFile, loads: dict[str, float]) -> Weighing:
    return predicted_weighing(rig, loads, uncertainty(rig))


def _behind(metres: float, unit: LengthUnit) -> str:
    """Where the hitch point is, seen from the rear axle."""
    side = "behind" if metres >= 0 else "ahead of"
    return f"{print_length(abs(metres), unit)} {side} the rear axle"


def _calibration(rig: RigFile, weighing: Weighing, printer: Printer) -> CalibrationAnswer | None:
    calibration = calibrate(rig, weighing)
    if calibration.overhang is None:
        return None
    factor, unit = METRES[printer.length], printer.length
    tape = rig.vehicle.geometry.hitch_offset
    value, pm = calibration.overhang.value / factor, calibration.overhang.plus_minus / factor
    says = [
        f"By the slack pass the hitch point acts {_behind(calibration.overhang.value, unit)}, "
        f"± {print_length(calibration.overhang.plus_minus, unit)}"
        + (f"; by the tape it is {_behind(tape.m, unit)}." if tape else ".")
    ]
    if calibration.moment_front and calibration.moment_trailer:
        apart = abs(calibration.apart) / max(abs(calibration.moment_front.value), 1e-9) * 100
        says.append(
            "The bars' pull, read from the front axle and from the trailer's axles, agrees within "
            "the scale's ±."
            if calibration.agrees
            else "Two ways to the bars' pull disagree by "
            f"{apart:.0f} %, more than the scale's ± explains: an axle across two platforms, a "
            "coupler at another height, or bars that slipped between the passes."
        )
    return CalibrationAnswer(
        overhang=value,
        overhang_pm=pm,
        tape=tape.m / factor if tape else None,
        in_use=rig.plan.effective_overhang is not None,
        agrees=calibration.agrees,
        says=says,
    )


def evaluate_pack(rig: RigFile, weigh_in: int | None = None) -> PackAnswer:
    """Predict the rig as planned, with every check that a weigh-in has.

    ``rig``: its plan, loads, tanks, lengths and ratings. ``weigh_in``: the weigh-in, from 1, that
    the plan is compared with; None is the last.

    All in the file's unit. Where the lever model lacks a figure, ``missing`` names it, and the
    checks say what is expected from labels and lists.
    """
    printer = Printer(rig)
    predicted, known = predict_known(rig), expect(rig, Weighing())
    loads, whole = predicted.loads, not predicted.missing
    lines, limit = _payload(rig, loads, None if whole else known, printer), payload_limit(rig)
    number = rig.filled(weigh_in)
    weighed = weigh(rig, rig.weigh_ins[number - 1] if number else None)
    expected = _predicted(rig, loads)
    rows = tightest_first(run_checks(rig, expected)) if whole else _expected_rows(rig, known)
    doubted, rules = doubts(rig, None, Weighing()), broken_rules(rig, expected)
    reached = verdict(rows, doubted=bool(doubted), broken=bool(rules))
    items = effects(rig, printer)
    if whole:
        say_takes(rig, items, rows, printer)
    return PackAnswer(
        missing=[
            MissingFigure(path=missing.path, message=missing.message)
            for missing in predicted.missing
        ],
        predicted={
            key: kg if key == "tongue_share" else kg / printer.mass for key, kg in loads.items()
        },
        whole=whole,
        verdict=reached,
        headline=headline(
            rig, rows, reached, doubted=doubted, known=None if whole else known, rules=rules
        ),
        checks=check_answers(rig, rows, printer, None if whole else known),
        items=items,
        payload=lines,
        payload_used=sum(line.mass for line in lines),
        payload_limit=limit.kg / printer.mass if limit else None,
        on_vehicle=items_kg(rig, "vehicle") / printer.mass,
        on_trailer=items_kg(rig, "trailer") / printer.mass,
        schools=_schools(rig, loads, printer),
        categories=_categories(rig, printer),
        tanks=_tanks(rig, printer),
        places=usual_places(rig, printer),
        phase=rig.plan.phase,
        phases=_phases(rig) if whole else [],
        stowage=stowage(rig, loads.get("tongue_share")),
        gap=plan_vs_scale(rig, loads, uncertainty(rig), weighed) if whole else None,
        calibration=_calibration(rig, weighed, printer),
        list_complete=rig.plan.trailer_by == "listed",
    )


def _expected_rows(rig: RigFile, known: Knowledge) -> list[Checked]:
    """Every check with what it is expected to find, where the lever model lacks a length, a base or
    a place.
    """
    rows = run_checks(rig, Weighing())
    foresee(rig, known, rows)
    return tightest_first(rows)


def _categories(rig: RigFile, printer: Printer) -> list[CategoryTotal]:
    totals: dict[str, float] = {}
    for load in rig.loads:
        name = load.category or "other"
        totals[name] = totals.get(name, 0.0) + load.kg
    return [
        CategoryTotal(category=name, mass=mass / printer.mass)
        for name, mass in sorted(totals.items(), key=lambda total: -total[1])
        if mass
    ]
