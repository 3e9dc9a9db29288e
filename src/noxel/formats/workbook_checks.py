"""The workbook's sheet “Checks”: one weigh-in held against every limit, by formulas over the other sheets."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from openpyxl.worksheet.worksheet import Worksheet

from noxel.core import words
from noxel.core.checks import Checked, run_checks
from noxel.core.rigfile import RigFile
from noxel.core.weighing import Weighing, weigh
from noxel.formats.workbook_cells import BOLD, Formula, head, put
from noxel.formats.workbook_columns import MASS, SHARE
from noxel.formats.workbook_limits import Named, limit_formula


@dataclass(frozen=True, slots=True)
class Cells:
    """Where figures stand: plates by path, derived weights by key, readings of one weigh-in by pass and name (rows)."""

    plates: Named
    derived: Mapping[str, str]
    read: Mapping[tuple[int, str, int], int]

    def rows(self, number: int, group: str) -> dict[str, int]:
        """The rows of one pass's readings of an axle or group, by name."""
        return {name: row for (at, name, _), row in self.read.items()
                if at == number and (name == group or name.startswith(f"{group}_"))}  # fmt: skip


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
    ]
    head(sheet, headings, {1: 44, 12: 30})
    weighing = weigh(rig, rig.weigh_ins[number - 1])
    rows = run_checks(rig, weighing)
    for row, check in enumerate(rows, 2):
        put(sheet, row, 1, words.check_label(rig, check.id))
        put(sheet, row, 11, "yes" if check.required else "")
        load, pm = _load(weighing, check, cells)
        form = SHARE if check.range else MASS
        put(sheet, row, 2, Formula(f"={load}", form))
        put(sheet, row, 3, Formula(f"={pm}", form))
        if check.range:
            low, high = (cells.plates[f"policy.tongue_share[{end}]"] for end in (0, 1))
            close = f"MIN(B{row}-{low},{high}-B{row})<C{row}*(1-1E-9)"
            status = f'=IF(B{row}="","unknown",IF({low}-B{row}>1E-9,"low",IF(B{row}-{high}>1E-9,"high",IF({close},"tight","within"))))'
            put(sheet, row, 4, Formula(f"={low}", SHARE))
            put(sheet, row, 12, "the lower end; the upper is on Plates")
            put(sheet, row, 7, Formula(status))
            continue
        put(sheet, row, 4, Formula(f"={limit_formula(rig, check.id, cells.plates) or _EMPTY}", MASS))
        put(sheet, row, 5, Formula(f'=IF(COUNT(B{row},D{row})=2,D{row}-B{row},"")', MASS))
        put(sheet, row, 6, Formula(f'=IF(COUNT(B{row},D{row})=2,B{row}/D{row},"")', SHARE))
        put(sheet, row, 8, {"real": "entered"}.get(check.limit.certainty, check.limit.certainty) if check.limit else "")
        put(sheet, row, 9, check.cushion, SHARE, typed=True)
        if check.at_least:
            put(sheet, row, 10, Formula(f"={cells.derived[check.at_least.key]}", MASS))
        put(sheet, row, 12, words.source_label(rig, check.limit.source) if check.limit else "no rating entered")
        put(sheet, row, 7, Formula(_status(row)))
    end, at = len(rows) + 1, len(rows) + 3
    statuses = f"G2:G{end}"
    put(sheet, at, 1, f"Weigh-in {number}, all of it")
    stop = f'COUNTIF({statuses},"over")+COUNTIF({statuses},"low")>0'
    open_ = f'COUNTIFS({statuses},"unknown",K2:K{end},"yes")>0'
    caution = f'COUNTIF({statuses},"tight")+COUNTIF({statuses},"high")+COUNTIF({statuses},"unconfirmed")>0'
    put(sheet, at, 7, Formula(f'=IF({stop},"stop",IF({open_},"incomplete",IF({caution},"caution","within")))'))
    put(sheet, at + 2, 1, words.CAUTION)
    for each in (sheet.cell(at, 1), sheet.cell(at, 7)):
        each.font = BOLD


_EMPTY = '""'


def _status(row: int) -> str:
    far = f"1E-9*MAX(ABS(B{row}),ABS(D{row}))"
    floor = f'IF(AND(N(J{row})>0,H{row}="entered"),IF(J{row}-D{row}>1E-9*MAX(J{row},D{row}),"over","unknown"),"unknown")'
    stand_in = f'IF(AND(H{row}="optimistic",B{row}-D{row}>{far}),"over","unconfirmed")'
    entered = (f'IF(B{row}-D{row}>{far},"over",IF(OR(D{row}-B{row}<=C{row}+1E-9*D{row},B{row}-I{row}*D{row}>1E-9*MAX(ABS(B{row}),'
               f'I{row}*D{row})),"tight","within"))')  # fmt: skip
    return f'=IF(D{row}="","unknown",IF(B{row}="",{floor},IF(H{row}="entered",{entered},{stand_in})))'


def _load(weighing: Weighing, check: Checked, cells: Cells) -> tuple[str, str]:
    """A check's load and its ±, as formulas over the derived weights, the plates and the tickets."""
    if check.actual is None:
        return _EMPTY, _EMPTY
    derived, plate = cells.derived, cells.plates
    if check.id in _DERIVED:
        return derived[_DERIVED[check.id]], derived[f"pm_{_DERIVED[check.id]}"]
    if check.id == "vehicle.payload":
        if "curb_measured" in weighing.figures:
            squares = f"{derived['pm_vehicle_hitched']}^2+{derived['pm_curb_measured']}^2"
            return f"{derived['vehicle_hitched']}-{derived['curb_measured']}", f"SQRT({squares})"
        return f"{derived['vehicle_hitched']}-{plate['vehicle.curb_weight']}", derived["pm_vehicle_hitched"]
    if check.id == "trailer.cargo":
        return f"{derived['trailer_gross']}-{plate['trailer.dry_weight']}", derived["pm_trailer_gross"]
    number = weighing.hitched.number if weighing.hitched else 0
    if check.id.startswith("trailer.axle_"):
        rows = list(cells.rows(number, check.id.removeprefix("trailer.").replace("axle", "trailer")).values())
        return _summed("N", rows), f"2*SQRT({_summed('R', rows)})"
    return _on_tires(check.id.removeprefix("tires."), cells, number)


def _summed(column: str, rows: Sequence[int]) -> str:
    return f"SUM({','.join(f'Tickets!${column}${row}' for row in rows)})"


def _on_tires(group: str, cells: Cells, number: int) -> tuple[str, str]:
    """The heaviest wheel × wheels ÷ tires; else the heaviest single axle × axles ÷ tires; else the whole ÷ tires."""
    count, rows = cells.plates[f"tires.{group}.count"], cells.rows(number, group)
    wheels = [row for name, row in rows.items() if name.endswith(("_left", "_right"))]
    axles: dict[str, list[int]] = {}
    for name, row in rows.items():
        axles.setdefault(name.removesuffix("_left").removesuffix("_right"), []).append(row)
    if wheels and len(wheels) == len(rows):
        heaviest, spread = (",".join(f"Tickets!${column}${row}" for row in wheels) for column in "NQ")
        return f"MAX({heaviest})*{len(wheels)}/{count}", f"2*MAX({spread})*{len(wheels)}/{count}"
    if group == "trailer" and group not in axles:
        heaviest, spread = (",".join(_summed(column, each) for each in axles.values()) for column in "NR")
        return f"MAX({heaviest})*{len(axles)}/{count}", f"2*SQRT(MAX({spread}))*{len(axles)}/{count}"
    whole = {"front": "front_hitched", "rear": "rear_hitched", "trailer": "trailer_axles"}[group]
    return f"{cells.derived[whole]}/{count}", f"{cells.derived[f'pm_{whole}']}/{count}"


_DERIVED = {
    "vehicle.front_axle": "front_hitched", "vehicle.rear_axle": "rear_hitched", "vehicle.gross": "vehicle_hitched",
    "combination.gross": "combination_gross", "vehicle.tow_rating": "trailer_gross", "trailer.gross": "trailer_gross",
    "trailer.axles": "trailer_axles", "hitch.trailer": "trailer_gross", "hitch.tongue": "tongue_static", "tongue.share": "tongue_share",
}  # fmt: skip
