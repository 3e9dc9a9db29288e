"""Tickets from spreadsheets: a line a pass with its axles beside one another, or a line a reading;
all of it or nothing.
"""

import datetime
import itertools
import json
import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal, get_args

from noxel.core.quantities import MassUnit, read_typed, with_thousands
from noxel.core.rig import read_path
from noxel.core.weigh import GRADUATIONS
from noxel.errors import InputError, Problem, QuantityError
from noxel.formats.lists import (
    Layout,
    as_understood,
    first_rows,
    guess_layout,
    refuse,
    rows_of,
    unit_in,
)

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
        match = re.match(r"weigh_ins\[(\d+)\](?:\.passes\[(\d+)\])?", path)
        return self.lines.get((int(match[1]), int(match[2] or 0))) if match else None


@dataclass(slots=True)
class _Visit:
    date: str | None
    place: str
    passes: list[dict[str, Any]] = field(default_factory=list)
    more: dict[str, Any] = field(default_factory=dict)
    names: list[str] = field(default_factory=list)
    lines: list[int] = field(default_factory=list)


def guess_tickets(text: str) -> Layout:
    """Guess how a table of tickets is written, by its first rows and its headings.

    A column that holds nothing but names of configurations is the configuration, whatever it is
    called.
    """
    layout = guess_layout(text, _GUESSES)
    columns = _vans(text, layout)
    body = layout.body(first_rows(text))
    if "configuration" not in columns and body:
        known = {column for name, column in columns.items() if name != "pass"}
        for column in sorted(set(range(len(body[0][1]))) - known):
            cells = [row[column] for _, row in body if column < len(row) and row[column]]
            if cells and all(_is_configuration(cell) for cell in cells):
                columns = {name: other for name, other in columns.items() if other != column} | {
                    "configuration": column
                }
                break
    return Layout(layout.delimiter, layout.decimal_comma, layout.header, columns)


def _vans(text: str, layout: Layout) -> dict[str, int]:
    """The columns, a “van” being the trailer where there is a vehicle beside it, and the vehicle
    where there is a trailer.
    """
    columns = dict(layout.columns)
    heads = rows_of(first_rows(text), layout.delimiter)[0][1] if layout.header else []
    van, trailer = (
        next(
            (column for column, head in enumerate(heads) if re.search(words, head, re.IGNORECASE)),
            None,
        )
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
    firsts, seconds = ([int(date[place]) for date in orders if date] for place in (1, 2))
    day_first = max(firsts, default=0) > 12 or (max(seconds, default=0) <= 12 and own == "kg")
    return unit or own, day_first, f"{GRADUATIONS['truck_scale'][unit or own]} {unit or own}"


_ORDER = re.compile(r"([0-9]{1,2})[/-]([0-9]{1,2})[/-][0-9]{2,4}")


def read_day(text: str, *, day_first: bool) -> str:
    """A date as spreadsheets write it, as ``2026-05-02``.

    ``text``: year first with dashes, or three numbers with points, slashes or dashes.
    ``day_first``: whether 3/4/2026 is the third of April.

    Raises QuantityError if it is not a date.
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


def _one_of(text: str, among: Mapping[str, str], column: str) -> str:
    plain = text.strip().lower().replace("_", " ")
    for name, pattern in among.items():
        if plain == name.replace("_", " ") or re.fullmatch(pattern, plain):
            return name
    for name, pattern in among.items():
        if re.search(rf"\b({pattern})\b", plain):
            return name
    raise QuantityError(
        f"“{text}” is no {column} ({', '.join(name.replace('_', ' ') for name in among)})"
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

    ``text``: the whole table. ``layout``: how it is written; it needs axles in columns, or a
    reading and a mass. ``mass``: the unit of bare figures. ``resolution``: the scale's graduation,
    for all of them, as a rig file has it. ``day_first``: whether 3/4/2026 is the third of April.
    ``config``: what a pass is that does not say.

    Raises InputError with one problem for each bad line, by its number; TooLarge if there are more
    rows than are read at once.
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
            visit = _visit_of(visits, known, cells, day_first)
            path = cells["reading"].strip()
            if _MORE.match(path):
                _take_more(visit, cells, path, layout.cell(row, "mass"), line)
            else:
                _take(visit, line, cells, _masses(row, layout, axles), mass)
        except QuantityError as exc:
            problems.append(Problem(f"line {line}", exc.message, exc.code))
    refuse(problems, empty=not visits)
    scale = {"resolution": resolution, "entered": {"resolution": {"source": "guess"}}}
    weigh_ins = [
        {
            **({"date": visit.date} if visit.date else {}),
            **({"place": visit.place} if visit.place else {}),
            "scale": scale,
            "passes": visit.passes,
            **visit.more,
        }
        for visit in visits
    ]
    return Tickets(
        weigh_ins,
        {
            (index, place): line
            for index, visit in enumerate(visits)
            for place, line in enumerate(visit.lines)
        },
    )


def understood(layout: Layout, mass: MassUnit) -> Callable[[str, list[str]], str]:
    """What a row of tickets has in a column, as it is read."""

    def reads(name: str, row: list[str]) -> str:
        reading = layout.cell(row, "reading").strip()
        masses = (*_AXLES, "gross") if not _MORE.match(reading) else ()
        if name not in (*masses, "mass") or (name == "mass" and _MORE.match(reading)):
            return layout.cell(row, name)
        own = layout.cell(row, "unit").strip().lower().rstrip(".s") or mass
        text = with_thousands(layout.figure(row, name))
        return as_understood(text, "mass", own) if text else ""

    return reads


def _masses(row: list[str], layout: Layout, axles: Iterable[TicketColumn]) -> dict[str, str]:
    wide = {str(name): layout.figure(row, name) for name in (*axles, "gross")}
    if layout.cell(row, "reading"):
        name = layout.cell(row, "reading").strip().lower().replace(" ", "_")
        wide["read_gross" if name == "gross" else name] = layout.figure(row, "mass")
    return {name: text for name, text in wide.items() if text.strip()}


_MORE = re.compile(
    r"(printed_gross|time|fee|aboard|fuel|tags|decided|listed|accepted|ticket_number|note|entered"
    r"|scale|adjustments|tongue_measurements|added_since|readings)(?![^.\[])"
)
"""What Noxel's own table says of a pass or a weigh-in beyond its readings, by its path."""


def _visit_of(
    visits: list[_Visit], known: dict[str, _Visit], cells: Mapping[str, str], day_first: bool
) -> _Visit:
    """The weigh-in that a line belongs to, begun where it is the first."""
    date = read_day(cells["date"], day_first=day_first) if cells["date"] else None
    name = cells["weigh_in"] or f"{date} {cells['place']}"
    if name not in known:
        known[name] = _Visit(date, cells["place"][:200])
        visits.append(known[name])
    return known[name]


def _take_more(visit: _Visit, cells: Mapping[str, str], path: str, text: str, line: int) -> None:
    """A line that holds neither an axle nor a sum: a value, by its path in the pass or, where no
    pass is named, in the weigh-in.
    """
    try:
        value: Any = json.loads(text)
    except ValueError:
        value = text
    holder: Any = visit.more
    if cells["pass"]:
        holder = _begun(visit, cells, _pass_of(cells), line)
    parts = read_path(path)
    for part, following in itertools.pairwise(parts):
        holder = _below(holder, part, [] if isinstance(following, int) else {}, path)
    _below(holder, parts[-1], value, path)
    if isinstance(holder, dict):
        holder[str(parts[-1])] = value


def _below(holder: Any, part: str | int, fresh: Any, path: str) -> Any:
    """What stands at one step of a path, begun where there is nothing yet."""
    if isinstance(holder, dict) and isinstance(part, str):
        return holder.setdefault(part, fresh)
    if isinstance(holder, list) and isinstance(part, int) and part <= len(holder):
        if part == len(holder):
            holder.append(fresh)
        return holder[part]
    raise QuantityError(f"{path} is not a path that can be filled in")


def _pass_of(cells: Mapping[str, str]) -> dict[str, Any]:
    """What a line says of its pass, without what was read."""
    pass_: dict[str, Any] = {"config": _one_of(cells["configuration"], _CONFIGS, "configuration")}
    if cells["unit"]:
        pass_["unit"] = cells["unit"].strip().lower().rstrip(".s")
        if pass_["unit"] not in ("lb", "kg"):
            raise QuantityError(f"“{cells['unit']}” is not a unit that is known here (lb or kg)")
    if cells["spring_bars"]:
        pass_["spring_bars"] = _one_of(cells["spring_bars"], _BARS, "state of the bars")
    return pass_


def _begun(
    visit: _Visit, cells: Mapping[str, str], pass_: dict[str, Any], line: int
) -> dict[str, Any]:
    """The pass that earlier lines began, else this one."""
    name = f"{cells['pass']} {pass_['config']} {pass_.get('spring_bars')}"
    if not (cells["reading"] and name in visit.names):
        visit.names.append(name)
        visit.passes.append({**pass_, "readings": {}})
        visit.lines.append(line)
        return visit.passes[-1]
    return visit.passes[visit.names.index(name)]


def _take(
    visit: _Visit, line: int, cells: Mapping[str, str], masses: Mapping[str, str], unit: MassUnit
) -> None:
    """A pass of its own, or, where each reading has a line, one more reading of the pass before."""
    pass_ = {"unit": unit, **_pass_of(cells)}
    own = pass_["unit"]
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
        pass_ |= {"printed_gross": total} if readings else {}
        readings = readings or {"gross": total}
    if not readings:
        raise QuantityError("has no reading")
    for name in ("ticket_number", "note"):
        if cells[name]:
            pass_[name] = cells[name]
    begun = _begun(visit, cells, pass_, line)
    twice = set(readings) & set(begun["readings"])
    if twice:
        raise QuantityError(f"{min(twice)} stands twice in this pass")
    begun |= pass_
    begun["readings"].update(readings)
