"""The workbook's sheets of tickets and of tongue measurements."""

from collections.abc import Sequence
from typing import Any

from openpyxl.worksheet.worksheet import Worksheet

from noxel.core.quantities import KG, METRES
from noxel.core.rig import BeamMeasurement, LeverMeasurement, Pass, RigFile, ScaleMeasurement
from noxel.formats.workbook_cells import Formula, head, put
from noxel.formats.workbook_terms import MASS

SPARE = 200
"""Rows left free on each sheet for going on by hand, within reach of the formulas."""


def _readings(
    rig: RigFile, pass_: Pass, resolution: float, accuracy: float
) -> list[tuple[Any, ...]]:
    """Lines of a pass: reading, kind, mass in the pass's unit, unit, graduation in the file's unit,
    accuracy, what.
    """
    unit = pass_.unit or rig.units.mass
    lines: list[tuple[Any, ...]] = [
        (name, "reading", mass.kg / KG[unit], unit, resolution, accuracy, "")
        for name, mass in pass_.readings.items()
    ]
    for correction in pass_.adjustments:
        for axle, share in (
            ("front", correction.front_share),
            ("rear", 1 - correction.front_share),
        ):
            words = f"{correction.what or 'correction'}, {share:.0%} on this axle"
            lines.append(
                (axle, "correction", correction.mass.kg * share / KG[unit], unit, 0.0, 0.0, words)
            )
    return lines or [("", "none", None, unit, None, None, "nothing read yet")]


def tickets_sheet(
    sheet: Worksheet, rig: RigFile, numbers: Sequence[int]
) -> dict[tuple[int, int, str, int], int]:
    """The readings; returns, by weigh-in, pass, reading and place in the list, the row of each."""
    headings = [
        "weigh-in",
        "date",
        "place",
        "pass",
        "configuration",
        "spring bars",
        "for",
        "counts",
        "kind",
        "axle",
        "reading",
        "as read",
        "unit",
        f"in {rig.units.mass}",
        "graduation",
        "accuracy",
        "u of the graduation",
        "its u²",
        "what",
    ]
    head(sheet, headings, {3: 24, 5: 15, 11: 17, 19: 30})
    lines = [
        (index + 1, weigh_in, pass_number, pass_, line)
        for index, weigh_in in ((index, rig.weigh_ins[index]) for index in numbers)
        for pass_number, pass_ in enumerate(weigh_in.passes, 1)
        for line in _readings(
            rig,
            pass_,
            weigh_in.scale.resolution.kg / KG[rig.units.mass] if weigh_in.scale else 0.0,
            weigh_in.scale.accuracy if weigh_in.scale else 0.0,
        )
    ]
    rows: dict[tuple[int, int, str, int], int] = {}
    last = len(lines) + 1
    for row, (number, weigh_in, pass_number, pass_, line) in enumerate(lines, 2):
        name, kind, mass, unit, graduation, accuracy, words = line
        rows[number, pass_number, f"+{name}" if kind == "correction" else name, row] = row
        typed = [
            number,
            weigh_in.date,
            weigh_in.place or "",
            pass_number,
            pass_.config,
            pass_.spring_bars or "",
        ]
        for column, value in enumerate(typed, 1):
            put(sheet, row, column, value, typed=True)
        for column, formula in _ticket_formulas(row, last + SPARE, rig).items():
            put(sheet, row, column, formula)
        for column, value in (
            (9, kind),
            (11, name),
            (12, mass),
            (13, unit),
            (15, graduation),
            (16, accuracy),
            (19, words),
        ):
            put(sheet, row, column, value, typed=True)
    return rows


def _ticket_formulas(row: int, last: int, rig: RigFile) -> dict[int, Formula]:
    role = '""'
    for key, config in (("A", "trailer_only"), ("C", "vehicle_empty"), ("V", "vehicle_only")):
        role = f'IF(E{row}="{config}","{key}",{role})'
    same = f"($A$2:$A${last}=A{row})*($G$2:$G${last}=G{row})*$D$2:$D${last}"
    axle = (
        f'IF(LEFT(K{row},5)="front","front",IF(LEFT(K{row},4)="rear","rear",IF(LEFT(K{row},7)="trailer","trailer",'
        f'IF(OR(K{row}="vehicle",K{row}="gross"),K{row},""))))'
    )
    other = "kg" if rig.units.mass == "lb" else "lb"
    factor = KG[other] / KG[rig.units.mass]
    return {
        7: Formula(f'=IF(E{row}="hitched",IF(F{row}="engaged","E","S"),{role})'),
        8: Formula(f"=IF(D{row}=SUMPRODUCT(MAX({same})),1,0)"),
        10: Formula(f"={axle}"),
        14: Formula(f'=IF(L{row}="","",L{row}*IF(M{row}="{other}",{factor!r},1))', MASS),
        17: Formula(f'=IF(N{row}="","",IF(I{row}="correction",0,O{row}/SQRT(12)))'),
        18: Formula(f'=IF(Q{row}="","",Q{row}^2)'),
    }


def tongue_sheet(sheet: Worksheet, rig: RigFile, numbers: Sequence[int], last: int) -> None:
    half = "half-width, or graduation"
    lengths = [
        "support to scale, or weight's arm",
        half,
        "support to coupler, or tongue's arm",
        half,
        "beam's middle",
    ]
    masses = ["weigh-in", "method", "reading or weight", half, "tare, or beam's own", half]
    head(
        sheet,
        [*masses, *lengths, "accuracy", "", f"tongue, {rig.units.mass}", "u", "counts"],
        {2: 18},
    )
    row = 1
    for index in numbers:
        for measured in rig.weigh_ins[index].tongue_measurements:
            row += 1
            typed, value, u = _measured(rig, measured, row)
            for column, cell in enumerate([index + 1, measured.method, *typed], 1):
                put(sheet, row, column, cell, typed=True)
            put(sheet, row, 14, Formula(f"={value}", MASS))
            put(sheet, row, 15, Formula(f"={u}"))
            better = f'SUMPRODUCT(($A$2:$A${last}=A{row})*($O$2:$O${last}<O{row}*(1-1E-9))*($O$2:$O${last}<>""))'
            before = (
                f"SUMPRODUCT(($A$1:$A${row - 1}=A{row})*($P$1:$P${row - 1}=1))" if row > 2 else "0"
            )
            put(sheet, row, 16, Formula(f"=IF({better}+{before}=0,1,0)"))


def _measured(
    rig: RigFile, measured: ScaleMeasurement | BeamMeasurement | LeverMeasurement, row: int
) -> tuple[list[float], str, str]:
    """What was typed, the tongue and its standard uncertainty."""
    mass, length = KG[rig.units.mass], METRES[rig.units.lengths]
    if isinstance(measured, ScaleMeasurement):
        typed = [
            measured.value.kg / mass,
            measured.resolution.kg / mass,
            *[0.0] * 7,
            measured.accuracy,
        ]
        return typed, f"C{row}", f"SQRT(D{row}^2/12+(L{row}*C{row})^2)"
    if isinstance(measured, BeamMeasurement):
        tare = measured.tare.kg if measured.tare else 0.0
        pms = [
            spread.m / length if spread else 0.0
            for spread in (measured.span_pm, measured.coupler_from_support_pm)
        ]
        graduation = measured.resolution.kg / mass
        typed = [
            measured.reading.kg / mass,
            graduation,
            tare / mass,
            graduation if tare else 0.0,
            measured.span.m / length,
            pms[0],
            measured.coupler_from_support.m / length,
            pms[1],
            0.0,
            measured.accuracy,
        ]
        value = f"(C{row}-E{row})*G{row}/I{row}"
        u = (
            f"SQRT(((D{row}^2+F{row}^2)/12+(L{row}*C{row})^2)*(G{row}/I{row})^2+((C{row}-E{row})/I{row})^2*H{row}^2/3"
            f"+((C{row}-E{row})*G{row}/I{row}^2)^2*J{row}^2/3)"
        )
        return typed, value, u
    half = [
        measured.counterweight_pm.kg / mass if measured.counterweight_pm else 0.0,
        measured.counterweight_arm_pm.m / length,
        measured.tongue_arm_pm.m / length if measured.tongue_arm_pm else 0.0,
    ]
    beam = measured.beam_mass.kg / mass if measured.beam_mass else 0.0
    middle = measured.beam_cg_arm.m / length if measured.beam_cg_arm and beam else 0.0
    typed = [
        measured.counterweight.kg / mass,
        half[0],
        beam,
        0.0,
        measured.counterweight_arm.m / length,
        half[1],
        measured.tongue_arm.m / length,
        half[2],
        middle,
    ]
    value = f"(C{row}*G{row}+E{row}*K{row})/I{row}"
    u = f"SQRT(((G{row}/I{row})^2*D{row}^2+(C{row}/I{row})^2*H{row}^2+(N{row}/I{row})^2*J{row}^2)/3)"
    return typed, value, u
