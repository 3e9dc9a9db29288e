"""Random texts of every sort and what Noxel reads in them; the files that it writes of random rigs.

Figures as people type them, labels and weigh messages as they are pasted, tables of items and
tickets as spreadsheets write them, tickets as they are jotted down.
"""

import datetime
import random
from collections.abc import Callable
from typing import Any, get_args

from noxel.core.practice import LESSONS
from noxel.core.quantities import Dimension, read_typed
from noxel.core.reading import read_text
from noxel.core.rig import RigFile, dump_rig
from noxel.core.weigh import GRADUATIONS, Jotted, add_jotted
from noxel.errors import InputError, RigFileError
from noxel.formats.items_csv import guess, header_units, read_items
from noxel.formats.papers import paper
from noxel.formats.practice_sheet import practice_sheet
from noxel.formats.tables import items_csv, tickets_csv
from noxel.formats.tickets_list import guess_tickets, guess_units, read_tickets
from noxel.formats.workbook import workbook
from tests.formats.test_golden_formats import cells_of, words_of

TODAY = datetime.date(2026, 11, 23)
_FIGURES = (
    "0",
    "7",
    "12.5",
    "180",
    "1,200",
    "7 400",
    "1.380,5",
    "3,5",
    "-4",
    "1e3",
    "٣",
    "0.805",
    "",
)
_UNITS = (
    "",
    "lb",
    "lbs",
    "kg",
    "kgs",
    "t",
    "in",
    "ft",
    "'",
    '"',
    "cm",
    "m",
    "mm",
    "psi",
    "kPa",
    "bar",
)
_MORE = ("gal", "l", "%", "gal diesel", "l water", "lb water", "of 7", "axle", "½", "× 2")
_BETWEEN = (" + ", "+", " - ", "−", "*", " × ", "/", " ", "(", ") ", ", ")
_SAID = (
    *("GVWR", "GAWR FRT", "GAWR RR", "GAWR", "GCWR", "MAX CARGO", "OCCUPANTS AND CARGO", "UVW"),
    *("TIRE SIZE", "COLD PSI", "HITCH WEIGHT", "STEER AXLE", "DRIVE AXLE", "TRAILER AXLE", "GROSS"),
    *("CCC", "GVM", "ATM", "TARE", "TOW BALL", "MAX TRAILER", "TONGUE", "tires", "trailer", "1ST"),
    *(
        "ticket",
        "date 02/05/2026",
        "AXLE 1",
        "AXLE 2",
        "should never exceed",
        "total",
        ":",
        "=",
        "\n",
    ),
)
_HEADINGS = (
    *("item", "Mass (kg)", "weight lb", "qty", "place in", "where", "category", "note", "date"),
    *("scale", "setup", "bars", "front", "rear kg", "trailer", "trailer 1", "trailer 2", "total"),
    *("ticket no", "unit", "reading", "visit", "pass", "wheel", ""),
)
_CELLS = (
    *("chairs", "books, old", "4", "3,5", "18.25", "1 840", "1.380,5", "=1+1", "vehicle", "truck"),
    *("trailer", "people", "fitted", "2.5.2026", "14/4/2026", "4/14/26", "2026-05-02", "31.2.2026"),
    *(
        "hitched",
        "solo",
        "car only",
        "tight",
        "slack",
        "no",
        "kg",
        "lb",
        "1380",
        "2690",
        "-4",
        "heavy",
        "",
    ),
)


def _figure(chance: random.Random) -> str:
    return " ".join((chance.choice(_FIGURES), chance.choice((*_UNITS, *_UNITS, *_MORE)))).strip()


def _typed(_: RigFile, number: int) -> Any:
    """Thirty texts in a field."""
    chance, said = random.Random(number), []
    for _each in range(30):
        parts = [_figure(chance)]
        for _more in range(chance.choice((0, 0, 1, 2))):
            parts += [chance.choice(_BETWEEN), _figure(chance)]
        text, dimension = "".join(parts), chance.choice(get_args(Dimension))
        unit = {"mass": "lb", "length": "in", "pressure": "psi", "volume": "gal"}.get(dimension)
        try:
            said.append([dimension, text, read_typed(text, dimension, unit)])
        except InputError as exc:
            said.append([dimension, text, str(exc)])
    return said


def _pasted(rig: RigFile, number: int) -> Any:
    """What is read in a label or message."""
    chance = random.Random(number)
    words = [chance.choice(_SAID) if chance.random() < 0.5 else _figure(chance) for _ in range(30)]
    text = " ".join(words)
    path = {"weigh_in": "weigh_ins[0]", "pass": "weigh_ins[0].passes[0]"}
    return [text, [read_text(rig, text, part, path) for part in (None, "hitch", "vehicle")]]


def _table(rig: RigFile, number: int) -> Any:
    """A table of items or of tickets, how it was understood, and what was read or is wrong."""
    chance = random.Random(number)
    columns = chance.choice((2, 3, 4, 6))
    rows = [[chance.choice(_HEADINGS) for _ in range(columns)]] if chance.random() < 0.8 else []
    likely = [chance.sample(_CELLS, chance.choice((1, 2, 4, 9))) for _ in range(columns)]
    for _ in range(chance.choice((1, 2, 5))):
        rows.append([chance.choice(likely) for likely in likely])
    separator = chance.choice(",;\t|")
    text = "\n".join(separator.join(map(_quoted, row)) for row in rows)
    lines: list[Any] = [text]
    try:
        layout = guess(text)
        lines += [layout, header_units(text, layout)]
        lines += read_items(text, layout, mass="kg", length="cm", on="vehicle", into=rig.units)
    except InputError as exc:
        lines += [str(exc), exc.problems]
    try:
        layout = guess_tickets(text)
        unit, day_first, grain = guess_units(text, layout, rig.units.mass)
        lines += [layout, unit, day_first, grain]
        lines.append(read_tickets(text, layout, mass=unit, resolution=grain, day_first=day_first))
    except InputError as exc:
        lines += [str(exc), exc.problems]
    return lines


def _quoted(cell: str) -> str:
    return f'"{cell}"' if "," in cell else cell


def _jotted(rig: RigFile, number: int) -> Any:
    """Two tickets jotted down at a scale, one after the other."""
    chance, document, text = random.Random(number), dump_rig(rig), list[Any]()
    for again in (False, True):
        index = len(document.get("weigh_ins", ())) - 1 if again else -1
        names = chance.sample(["front", "rear", "trailer", "gross", "front_left", "front_right"], 3)
        ticket = Jotted(
            day=TODAY,
            config=chance.choice(("hitched", "hitched", "vehicle_only", "trailer_only")),
            spring_bars=chance.choice(("engaged", "slack", "none", None)),
            unit=chance.choice(("lb", "kg")),
            scale=chance.choice([*GRADUATIONS]),
            readings={name: chance.choice(("3020", "4,040", "1380 kg", "x", "")) for name in names},
            facts={"place": "Alder Bend", "fee": chance.choice(("", "12.50", "free"))},
            tongue=chance.choice(("", "", "", "640", "x")),
        )
        try:
            document = add_jotted(document, None if index < 0 else index, ticket)
        except (InputError, RigFileError) as exc:
            text.append([str(ticket.readings), str(exc), exc.problems])
        else:
            text.append(document["weigh_ins"])
    return text


def _files(rig: RigFile, number: int) -> Any:
    """Papers, workbook, tables, and a sheet of exercises."""
    full = paper(rig, full=True, today=TODAY)
    sheet = practice_sheet([*LESSONS][number // 10 :][:3], f"{number}")
    return [
        list(words_of(full)),
        list(words_of(sheet)),
        [*cells_of(workbook(rig))],
        [tickets_csv(rig), items_csv(rig)],
    ]


TEXTS: dict[str, Callable[[RigFile, int], Any]] = {
    "typed": _typed,
    "pasted": _pasted,
    "table": _table,
    "jotted": _jotted,
    "files": _files,
}
