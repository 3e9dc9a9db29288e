"""The workbook's sheet “Checks”: one weigh-in compared with every limit, by formulas over the other
sheets.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from openpyxl.worksheet.worksheet import Worksheet

from noxel.core.limits import (
    AXLES_APART,
    SIDES_APART,
    Checked,
    as_it_stands,
    broken_rules,
    doubts,
    judge,
    not_settled,
    run_checks,
    unanswered,
)
from noxel.core.mechanics import Weighing, weigh
from noxel.core.quantities import KG
from noxel.core.rig import RigFile
from noxel.core.wording import CAUTION, check_label, headline_of, source_label
from noxel.formats.workbook_beyond import beyond_formulas
from noxel.formats.workbook_cells import BOLD, Formula, head, put
from noxel.formats.workbook_limits import CellNames, limit_formula
from noxel.formats.workbook_terms import MASS, SHARE


@dataclass(frozen=True, slots=True)
class Cells:
    """Where figures stand: plates by path, derived weights by key, and of one weigh-in the rows of
    its readings and corrections.

    Readings by pass, name and row; corrections as pass, axle and row.
    """

    plates: CellNames
    derived: Mapping[str, str]
    read: Mapping[tuple[int, str, int], int]
    corrections: Sequence[tuple[int, str, int]] = ()

    def rows(self, number: int, group: str) -> dict[str, int]:
        """The rows of one pass's readings of an axle or group, by name."""
        return {
            name: row
            for (pass_number, name, _), row in self.read.items()
            if pass_number == number and (name == group or name.startswith(f"{group}_"))
        }


def checks_sheet(sheet: Worksheet, rig: RigFile, number: int, cells: Cells) -> None:
    """Write the sheet for a weigh-in, by its number from 1."""
    headings = [
        "Check",
        "Load",
        "±",
        "Limit",
        "Left",
        "Used",
        "Status",
        "Limit is",
        "Cushion",
        "At least",
        "Required",
        "Where the limit is from",
        "By the other label",
        "Settled",
    ]
    head(sheet, headings, {1: 44, 12: 30})
    weigh_in = rig.weigh_ins[number - 1]
    weighing, fixed = weigh(rig, weigh_in), beyond_formulas(rig, weigh_in) is not None
    rows = run_checks(rig, weighing)
    for row, check in enumerate(rows, 2):
        put(sheet, row, 1, check_label(rig, check.id))
        put(sheet, row, 11, "yes" if check.required else "")
        form = SHARE if check.range else MASS
        if fixed and check.actual:
            factor = 1.0 if check.range else KG[rig.units.mass]
            put(sheet, row, 2, check.actual.value / factor, form)
            put(sheet, row, 3, check.actual.plus_minus / factor, form)
        else:
            load, pm = _load(rig, weighing, check, cells)
            put(sheet, row, 2, Formula(f"={load}", form))
            put(sheet, row, 3, Formula(f"={pm}", form))
        if check.by_other_label:
            put(sheet, row, 13, check.by_other_label.value / KG[rig.units.mass], MASS)
        put(sheet, row, 14, "no" if not_settled(rig, weighing, check) else "")
        if check.range:
            low, high = (cells.plates[f"policy.tongue_share[{end}]"] for end in (0, 1))
            close = f'OR(N{row}="no",MIN(B{row}-{low},{high}-B{row})<C{row}*(1-1E-9))'
            known = "TRUE" if check.status != "unknown" else "FALSE"
            status = f'=IF(OR(B{row}="",NOT({known})),"unknown",IF({low}-B{row}>1E-9,"low",IF(B{row}-{high}>1E-9,"high",IF({close},"tight","within"))))'
            put(sheet, row, 4, Formula(f"={low}", SHARE))
            put(sheet, row, 12, "the lower end; the upper is on Plates")
            put(sheet, row, 7, Formula(status))
            continue
        put(
            sheet, row, 4, Formula(f"={limit_formula(rig, check.id, cells.plates) or _EMPTY}", MASS)
        )
        both = f'AND(COUNT(B{row},D{row})=2,G{row}<>"unknown")'
        put(sheet, row, 5, Formula(f'=IF({both},D{row}-B{row},"")', MASS))
        put(sheet, row, 6, Formula(f'=IF({both},B{row}/D{row},"")', SHARE))
        put(
            sheet,
            row,
            8,
            {"real": "entered"}.get(check.limit.certainty, check.limit.certainty)
            if check.limit
            else "",
        )
        put(sheet, row, 9, check.cushion, SHARE, typed=True)
        if check.at_least:
            key = check.at_least.key
            least: object = check.at_least.value / KG[rig.units.mass]
            if key in cells.derived:
                least = Formula(f"={cells.derived[key]}", MASS)
            put(sheet, row, 10, least, MASS)
        put(
            sheet,
            row,
            12,
            source_label(rig, check.limit.source) if check.limit else "no rating entered",
        )
        put(sheet, row, 7, Formula(_status(row, check)))
    end, verdict_row = len(rows) + 1, len(rows) + 3
    statuses = f"G2:G{end}"
    put(sheet, verdict_row, 1, f"Weigh-in {number}, all of it")
    stop = f'COUNTIF({statuses},"over")+COUNTIF({statuses},"low")>0'
    open_ = f'COUNTIFS({statuses},"unknown",K2:K{end},"yes")>0'
    doubted = doubts(rig, number, weighing)
    open_doubts = unanswered(rig, number, doubted)
    put(sheet, verdict_row + 1, 1, "Figures that cannot both be right (0: none, or all accepted)")
    put(sheet, verdict_row + 1, 7, len(open_doubts), typed=True)
    put(sheet, verdict_row + 1, 12, ", ".join(doubt.code for doubt in doubted))
    some = "+".join(
        f'COUNTIF({statuses},"{status}")' for status in ("tight", "high", "unconfirmed", "unknown")
    )
    broken = broken_rules(rig, weighing)
    put(sheet, verdict_row + 2, 1, "Rules of the maker or the law that are not kept (0: none)")
    put(sheet, verdict_row + 2, 7, len(broken), typed=True)
    put(sheet, verdict_row + 2, 12, ", ".join(rule.code for rule in broken))
    since = as_it_stands(rig, weigh_in, weighing, rows)
    put(sheet, verdict_row + 3, 1, "What came aboard since makes it at least")
    put(sheet, verdict_row + 3, 7, since.verdict("within") if since else "", typed=True)
    caution = f'OR({some}+G{verdict_row + 1}+G{verdict_row + 2}>0,G{verdict_row + 3}="caution")'
    worst = f'OR({stop},G{verdict_row + 3}="stop")'
    put(
        sheet,
        verdict_row,
        7,
        Formula(f'=IF({worst},"stop",IF({open_},"incomplete",IF({caution},"caution","within")))'),
    )
    line = headline_of(rig, judge(rig, number))
    put(sheet, verdict_row + 4, 1, f"As it was written: {line.lead} {line.sentence}")
    put(sheet, verdict_row + 5, 1, CAUTION)
    for cell in (sheet.cell(verdict_row, 1), sheet.cell(verdict_row, 7)):
        cell.font = BOLD


_EMPTY = '""'


def _status(row: int, check: Checked) -> str:
    """Entered limits can confirm; guesses and incomplete chains can only be exceeded; worked-out
    ones only where optimistic. Two labels that disagree confirm nothing, and no load is negative.
    """
    far = f"1E-9*MAX(ABS(B{row}),ABS(D{row}))"
    floor = f'IF(AND(N(J{row})>0,H{row}="entered"),IF(J{row}-D{row}>1E-9*MAX(J{row},D{row}),"over","unknown"),"unknown")'
    if check.id == "vehicle.payload":
        floor = f'IF(AND(N(J{row})>0,H{row}="entered",OR(M{row}="",M{row}>D{row})),IF(J{row}-D{row}>1E-9*MAX(J{row},D{row}),"over","unknown"),"unknown")'
    proves = f'OR(H{row}="entered",H{row}="guessed",H{row}="incomplete_chain",H{row}="optimistic")'
    near = f'OR(N{row}="no",D{row}-B{row}<=C{row}+1E-9*D{row},B{row}-I{row}*D{row}>1E-9*MAX(ABS(B{row}),I{row}*D{row}))'
    known = f'IF(AND({proves},B{row}-D{row}>{far}),"over",IF(H{row}<>"entered","unconfirmed",IF({near},"tight","within")))'
    if check.by_other_label:
        known = f'IF((M{row}-D{row}>{far})<>(B{row}-D{row}>{far}),"unconfirmed",{known})'
    if not check.spec.may_be_negative:
        known = f'IF(B{row}+C{row}<0,"unknown",{known})'
    return f'=IF(D{row}="","unknown",IF(B{row}="",{floor},{known}))'


def _by_label(plate: CellNames, whole: str, less: str, back: str = "") -> str:
    """An empty weight as a label makes it, of the cells on “Plates”."""
    added = f"+{plate[back]}" if back in plate else ""
    return f"({plate[whole]}-{plate[less]}{added})"


def _load(rig: RigFile, weighing: Weighing, check: Checked, cells: Cells) -> tuple[str, str]:
    """A check's load and its ±, as formulas over the derived weights, the plates and the
    tickets.
    """
    if check.actual is None:
        return _EMPTY, _EMPTY
    derived, plate = cells.derived, cells.plates
    spec = check.spec
    if spec.part in ("load", "share"):
        return derived[spec.load], derived[f"pm_{spec.load}"]
    if check.id == "vehicle.payload":
        if "curb_measured" in weighing.figures:
            return f"{derived['vehicle_hitched']}-{derived['curb_measured']}", derived["payload_pm"]
        empty = plate.get("vehicle.curb_weight") or _by_label(
            plate,
            "vehicle.ratings.gvwr",
            "vehicle.ratings.payload",
            "vehicle.ratings.payload_reduction",
        )
        return f"{derived['vehicle_hitched']}-{empty}", derived["pm_vehicle_hitched"]
    if check.id == "trailer.cargo":
        dry = plate.get("trailer.dry_weight") or _by_label(
            plate, "trailer.ratings.gvwr", "trailer.ratings.ccc"
        )
        return f"{derived['trailer_gross']}-{dry}", derived["pm_trailer_gross"]
    number = weighing.hitched.number if weighing.hitched else 0
    if spec.axle is not None:
        return _single(cells, list(cells.rows(number, f"trailer_{spec.axle}").values()))
    group = spec.group or ""
    return (
        _on_assembly(rig, group, cells, number)
        if spec.part == "assembly"
        else _on_tires(rig, group, cells, weighing)
    )


def _summed(column: str, rows: Sequence[int]) -> str:
    return f"SUM({','.join(f'Tickets!${column}${row}' for row in rows)})"


def _single(cells: Cells, rows: Sequence[int]) -> tuple[str, str]:
    """An axle's readings added, and their ±: the graduation of each, and the scale's one error."""
    load = _summed("N", rows)
    return load, f"2*SQRT({_summed('R', rows)}+({cells.derived['acc']}*{load})^2)"


def _group(cells: Cells, number: int, group: str) -> tuple[list[int], dict[str, list[int]]]:
    """The rows of a group's wheels, where all of it was read by wheel; and of its axles, where they
    were read singly.
    """
    rows = cells.rows(number, group)
    wheels = [row for name, row in rows.items() if name.endswith(("_left", "_right"))]
    axles: dict[str, list[int]] = {}
    for name, row in rows.items():
        axles.setdefault(name.removesuffix("_left").removesuffix("_right"), []).append(row)
    return wheels if wheels and len(wheels) == len(
        rows
    ) else [], axles if axles and "trailer" not in axles else {}


def _heaviest(rows: list[list[int]]) -> str:
    return f"MAX({','.join(_summed('N', row) for row in rows)})"


def _apart(value: str, pm: str, share: float) -> str:
    """A ± with one side, or one axle, carrying more."""
    return f"SQRT(({pm})^2+(2*{share}/SQRT(3)*{value})^2)"


def _on_tires(rig: RigFile, group: str, cells: Cells, weighing: Weighing) -> tuple[str, str]:
    """The heaviest wheel × wheels ÷ tires; else the heaviest single axle × axles ÷ tires; else the
    whole ÷ tires.
    """
    number = weighing.hitched.number if weighing.hitched else 0
    count = cells.plates[f"tires.{group}.count"]
    wheels, axles = _group(cells, number, group)
    acc = cells.derived["acc"]
    drive = _drive_part(rig, group, cells)
    if wheels:
        heaviest, spread = (
            ",".join(f"Tickets!${column}${row}" for row in wheels) for column in "NR"
        )
        back = _put_back(weighing, group, cells)
        pm = f"2*SQRT(MAX({spread})+({acc}*MAX({heaviest}))^2)*{len(wheels)}/{count}"
        load = f"(MAX({heaviest})+{back})*{len(wheels)}/{count}"
        return (
            (f"{load}{drive}", _apart(f"{load}{drive}", f"{pm}{drive}", AXLES_APART))
            if drive
            else (load, pm)
        )
    if group == "trailer" and axles:
        parts = list(axles.values())
        load = f"{_heaviest(parts)}*{len(parts)}/{count}"
        spread = ",".join(
            f"IF({_summed('N', part)}={_heaviest(parts)},{_summed('R', part)},0)" for part in parts
        )
        pm = f"2*SQRT(MAX({spread})+({acc}*{_heaviest(parts)})^2)*{len(parts)}/{count}"
        return load, _apart(load, pm, SIDES_APART)
    whole = {"front": "front_hitched", "rear": "rear_hitched", "trailer": "trailer_axles"}[group]
    load, pm = (
        f"{cells.derived[whole]}/{count}{drive}",
        f"{cells.derived[f'pm_{whole}']}/{count}{drive}",
    )
    together = bool(drive) or (
        group == "trailer" and rig.trailer is not None and len(rig.trailer.ratings.gawr) != 1
    )
    return load, _apart(load, pm, AXLES_APART if together else SIDES_APART)


def _drive_part(rig: RigFile, group: str, cells: Cells) -> str:
    """With a tag axle the drive axle's part of both, by their ratings, as a factor."""
    ratings = rig.vehicle.ratings
    if group != "rear" or not ratings.gawr_rear or not ratings.gawr_tag:
        return ""
    rear, tag = cells.plates["vehicle.ratings.gawr_rear"], cells.plates["vehicle.ratings.gawr_tag"]
    return f"*{rear}/({rear}+{tag})"


def _put_back(weighing: Weighing, group: str, cells: Cells) -> str:
    """What somebody who stood beside the scale would add to the heaviest wheel."""
    rows = [
        row
        for (number, name, row) in cells.corrections
        if weighing.hitched and number == weighing.hitched.number and name == group
    ]
    return "+".join(f"MAX(0,Tickets!$N${row})" for row in rows) or "0"


def _on_assembly(rig: RigFile, group: str, cells: Cells, number: int) -> tuple[str, str]:
    """One axle: the heaviest weighed singly, else its part of the group."""
    if group != "trailer":
        drive = _drive_part(rig, group, cells)
        load, pm = (
            f"{cells.derived[f'{group}_hitched']}{drive}",
            f"{cells.derived[f'pm_{group}_hitched']}{drive}",
        )
        return (load, _apart(load, pm, AXLES_APART)) if drive else (load, pm)
    _, axles = _group(cells, number, group)
    if axles:
        parts = list(axles.values())
        spread = ",".join(
            f"IF({_summed('N', part)}={_heaviest(parts)},{_summed('R', part)},0)" for part in parts
        )
        return _heaviest(
            parts
        ), f"2*SQRT(MAX({spread})+({cells.derived['acc']}*{_heaviest(parts)})^2)"
    count = len(rig.trailer.ratings.gawr) if rig.trailer else 1
    load, pm = (
        f"{cells.derived['trailer_axles']}/{count}",
        f"{cells.derived['pm_trailer_axles']}/{count}",
    )
    return load, _apart(load, pm, AXLES_APART) if count > 1 else pm
