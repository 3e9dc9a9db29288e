"""Tickets from spreadsheets: a line a pass with its axles beside one another, or a line a reading;
all of it or nothing.
"""

import datetime
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal, get_args

from noxel.core.quantities import MassUnit, read_typed, with_thousands
from noxel.core.weigh import GRADUATIONS
from noxel.errors import InputError, Problem, QuantityError
from noxel.formats.lists import Layout, first_rows, guess_layout, refuse, rows_of, unit_in

TicketColumn = Literal[
    "weigh_in",
    "date",
    "place",
    "pass",
    "configuration",
    "spring_bars",
    "front",
    "rear",
    "vehicle",
    "trailer",
    "trailer_1",
    "trailer_2",
    "trailer_3",
    "gross",
    "reading",
    "mass",
    "unit",
    "ticket_number",
    "note",
]
TICKET_COLUMNS: tuple[TicketColumn, ...] = get_args(TicketColumn)
_AXLES: tuple[TicketColumn, ...] = (
    "front",
    "rear",
    "vehicle",
    "trailer",
    "trailer_1",
    "trailer_2",
    "trailer_3",
)
_GUESSES: Mapping[str, str] = {
    "weigh_in": r"weigh.?in|visit|weighing",
    "date": r"date|day|when|datum",
    "place": r"place|scale( at)?$|where|location|site",
    "spring_bars": r"bars|spring|distribut",
    "configuration": r"config|setup|what is on|hitched|state|pass type",
    "trailer_1": r"trailer.*1",
    "trailer_2": r"trailer.*2",
    "trailer_3": r"trailer.*3",
    "front": r"front|steer",
    "rear": r"rear|drive",
    "vehicle": r"^(whole |tow )?(vehicle|truck|car|ute)\b",
    "trailer": r"trailer|caravan|\bvan\b",
    "gross": r"gross|total",
    "reading": r"reading|axle",
    "mass": r"mass|weight|value",
    "unit": r"unit",
    "ticket_number": r"ticket|number|no\.?$",
    "pass": r"pass",
    "note": r"note|remark|comment",
}
_CONFIGS = {
    "hitched": r"hitched|coupled|together|with (the )?(trailer|caravan)|loaded combination|both",
    "vehicle_empty": r"vehicle.?empty|truck empty|car empty|empty",
    "trailer_only": r"(trailer|caravan).?(only|alone)",
    "vehicle_only": r"(vehicle|truck|car|van).?(only|alone)|solo|unhitched|uncoupled",
}
_BARS = {
    "engaged": r"engaged|on|tight|tensioned|yes|wd",
    "slack": r"slack|off|loose|untensioned",
    "none": r"none|no|without|plain",
}


@dataclass(frozen=True, slots=True)
class Tickets:
    """Weigh-ins as a rig file keeps them, and the line that each pass stood on."""

    weigh_ins: list[dict[str, Any]]
    lines: dict[tuple[int, int], int]

    def line_of(self, path: str) -> int | None:
        """The line that a problem of these weigh-ins comes from, by the path that names it."""
        found = re.match(r"weigh_ins\[(\d+)\](?:\.passes\[(\d+)\])?", path)
        return self.lines.get((int(found[1]), int(found[2] or 0))) if found else None


@dataclass(slots=True)
class _Visit:
    date: str | None
    place: str
    passes: list[dict[str, Any]] = field(default_factory=list)
    names: list[str] = field(default_factory=list)
    lines: list[int] = field(default_factory=list)


def guess_tickets(text: str) -> Layout:
    """Guess how a table of tickets is written, by its first rows and its headings.

    A column that holds nothing but names of configurations is the configuration, whatever it is
    called.
    """
    found = guess_layout(text, _GUESSES)
    columns = _vans(text, found)
    body = found.body(first_rows(text))
    if "configuration" not in columns and body:
        taken = {at for name, at in columns.items() if name != "pass"}
        for at in sorted(set(range(len(body[0][1]))) - taken):
            cells = [row[at] for _, row in body if at < len(row) and row[at]]
            if cells and all(_is_configuration(cell) for cell in cells):
                columns = {name: other for name, other in columns.items() if other != at} | {
                    "configuration": at
                }
                break
    return Layout(found.delimiter, found.decimal_comma, found.header, columns)


def _vans(text: str, found: Layout) -> dict[str, int]:
    """The columns, a “van” being the trailer where there is a vehicle beside it, and the vehicle
    where there is a trailer.
    """
    columns = dict(found.columns)
    heads = rows_of(first_rows(text), found.delimiter)[0][1] if found.header else []
    van, trailer = (
        next((at for at, head in enumerate(heads) if re.search(words, head, re.IGNORECASE)), None)
        for words in (r"\bvan\b", r"trailer|caravan")
    )
    if "vehicle" not in columns and van is not None and trailer not in (None, van):
        columns |= {"vehicle": van, "trailer": trailer or 0}
    return columns


def _is_configuration(cell: str) -> bool:
    try:
        return bool(_one_of(cell, _CONFIGS, "configuration"))
    except QuantityError:
        return False


def guess_units(text: str, layout: Layout, own: MassUnit) -> tuple[MassUnit, bool, str]:
    """Guess what a table of tickets leaves unsaid: the unit of bare figures, whether the day comes
    first, the graduation as typed.

    The unit is the one that the headings name, else the rig's ``own``; the order of the dates is
    the only one that all of them fit, else the usual one beside that unit; the graduation is that
    of a truck scale.
    """
    unit = (
        unit_in(" ".join(rows_of(first_rows(text), layout.delimiter)[0][1]))
        if layout.header
        else None
    )
    orders = [_ORDER.fullmatch(layout.cell(row, "date").strip()) for _, row in layout.body(text)]
    firsts, seconds = ([int(each[at]) for each in orders if each] for at in (1, 2))
    day_first = max(firsts, default=0) > 12 or (max(seconds, default=0) <= 12 and own == "kg")
    return unit or own, day_first, f"{GRADUATIONS['truck_scale'][unit or own]} {unit or own}"


_ORDER = re.compile(r"([0-9]{1,2})[/-]([0-9]{1,2})[/-][0-9]{2,4}")


def read_day(text: str, *, day_first: bool) -> str:
    """A date as spreadsheets write it, as ``2026-05-02``.

    Parameters
    ----------
    text : str
        Year first with dashes, or three numbers with points, slashes or dashes.
    day_first : bool
        Whether 3/4/2026 is the third of April.

    Raises
    ------
    QuantityError
        If it is not a date.
    """
    parts = [int(part) for part in re.findall(r"[0-9]+", text)]
    try:
        if len(parts) < 3:
            raise ValueError
        if parts[0] > 31:
            year, month, day = parts[:3]
        else:
            first, second, year = parts[:3]
            day, month = (first, second) if day_first or "." in text else (second, first)
            if month > 12 >= day:
                raise QuantityError(
                    f"“{text}” has no month {month}: does the {'month' if day_first else 'day'} "
                    "come first?"
                )
        return datetime.date(year + 2000 if year < 100 else year, month, day).isoformat()
    except ValueError as exc:
        raise QuantityError(f"“{text}” is not a date: write it like 2026-05-02") from exc


def _one_of(text: str, among: Mapping[str, str], what: str) -> str:
    said = text.strip().lower().replace("_", " ")
    for name, pattern in among.items():
        if said == name.replace("_", " ") or re.fullmatch(pattern, said):
            return name
    for name, pattern in among.items():
        if re.search(rf"\b({pattern})\b", said):
            return name
    raise QuantityError(
        f"“{text}” is no {what} ({', '.join(name.replace('_', ' ') for name in among)})"
    )


def read_tickets(
    text: str,
    layout: Layout,
    *,
    mass: MassUnit,
    resolution: float | str,
    day_first: bool,
    config: str = "hitched",
) -> Tickets:
    """Read a table of tickets, all of it or nothing.

    Parameters
    ----------
    text : str
        The whole table.
    layout : Layout
        How it is written; it needs axles in columns, or a reading and a mass.
    mass : {"lb", "kg"}
        The unit of bare figures.
    resolution : float or str
        The scale's graduation, for all of them, as a rig file has it.
    day_first : bool
        Whether 3/4/2026 is the third of April.
    config : str
        What a pass is that does not say.

    Raises
    ------
    InputError
        With one problem for each bad line, by its number.
    TooLarge
        If there are more rows than are read at once.
    """
    axles = [name for name in _AXLES if name in layout.columns]
    if not axles and not {"reading", "mass"} <= set(layout.columns):
        message = (
            "Say which columns are the axles (front, rear, trailer), or which are the "
            "reading and its mass."
        )
        raise InputError(message, [Problem("columns", "no axle is among them", "missing")])
    visits: list[_Visit] = []
    problems: list[Problem] = []
    known: dict[str, _Visit] = {}
    for line, row in layout.body(text):
        try:
            cells: dict[str, str] = {name: layout.cell(row, name) for name in TICKET_COLUMNS}
            cells["configuration"] = cells["configuration"] or config
            _take(visits, known, line, cells, _masses(row, layout, axles), mass, day_first)
        except QuantityError as exc:
            problems.append(Problem(f"line {line}", exc.message, exc.code))
    refuse(problems, empty=not visits)
    scale = {"resolution": resolution, "entered": {"resolution": {"source": "guess"}}}
    made = [
        {
            **({"date": each.date} if each.date else {}),
            **({"place": each.place} if each.place else {}),
            "scale": scale,
            "passes": each.passes,
        }
        for each in visits
    ]
    return Tickets(
        made,
        {
            (index, at): line
            for index, each in enumerate(visits)
            for at, line in enumerate(each.lines)
        },
    )


def _masses(row: list[str], layout: Layout, axles: Iterable[TicketColumn]) -> dict[str, str]:
    wide = {str(name): layout.figure(row, name) for name in (*axles, "gross")}
    if layout.cell(row, "reading"):
        name = layout.cell(row, "reading").strip().lower().replace(" ", "_")
        wide["read_gross" if name == "gross" else name] = layout.figure(row, "mass")
    return {name: text for name, text in wide.items() if text.strip()}


def _take(
    visits: list[_Visit],
    known: dict[str, _Visit],
    line: int,
    cells: Mapping[str, str],
    masses: Mapping[str, str],
    unit: MassUnit,
    day_first: bool,
) -> None:
    date = read_day(cells["date"], day_first=day_first) if cells["date"] else None
    own = cells["unit"].strip().lower().rstrip(".s") or unit
    if own not in ("lb", "kg"):
        raise QuantityError(f"“{cells['unit']}” is not a unit that is known here (lb or kg)")
    each: dict[str, Any] = {
        "config": _one_of(cells["configuration"], _CONFIGS, "configuration"),
        "unit": own,
    }
    if cells["spring_bars"]:
        each["spring_bars"] = _one_of(cells["spring_bars"], _BARS, "state of the bars")
    readings = {
        name: read_typed(with_thousands(text), "mass", own).value
        for name, text in masses.items()
        if name != "gross"
    }
    if "read_gross" in readings:
        readings["gross"] = readings.pop("read_gross")
    # beside axles it is what the ticket prints; alone it is the one figure that was read
    if "gross" in masses:
        total = read_typed(masses["gross"], "mass", own).value
        each |= {"printed_gross": total} if readings else {}
        readings = readings or {"gross": total}
    if not readings:
        raise QuantityError("has no reading")
    for name in ("ticket_number", "note"):
        if cells[name]:
            each[name] = cells[name]
    visit = cells["weigh_in"] or f"{date} {cells['place']}"
    if visit not in known:
        known[visit] = _Visit(date, cells["place"][:200])
        visits.append(known[visit])
    _add(known[visit], cells, each, readings, line)


def _add(
    visit: _Visit,
    cells: Mapping[str, str],
    each: dict[str, Any],
    readings: dict[str, Any],
    line: int,
) -> None:
    """A pass of its own, or, where each reading has a line, one more reading of the pass before."""
    name = f"{cells['pass']} {each['config']} {each.get('spring_bars')}"
    if cells["reading"] and name in visit.names:
        one = visit.passes[visit.names.index(name)]
        twice = set(readings) & set(one["readings"])
        if twice:
            raise QuantityError(f"{min(twice)} stands twice in this pass")
        one["readings"].update(readings)
        return
    visit.names.append(name)
    visit.passes.append({**each, "readings": readings})
    visit.lines.append(line)
