"""Every table that is offered to be read again holds all that its subject has: forty random rigs
out and back give equal documents and equal answers.
"""

import re
import unittest
from typing import Any

from noxel.core.evaluate import evaluate
from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.formats.items_csv import guess, header_units, read_items
from noxel.formats.logbook_json import read_logbook, write_logbook
from noxel.formats.tables import items_csv, tickets_csv
from noxel.formats.tickets_list import guess_tickets, guess_units, read_tickets
from tests.at_large import document_at_large
from tests.kept import written

RIGS = range(1000, 1040)


def tickets_back(rig: RigFile) -> list[dict[str, Any]]:
    text = tickets_csv(rig)
    layout = guess_tickets(text)
    unit, day_first, resolution = guess_units(text, layout, rig.units.mass)
    return read_tickets(
        text, layout, mass=unit, resolution=resolution, day_first=day_first
    ).weigh_ins


def items_back(rig: RigFile) -> list[dict[str, Any]]:
    text = items_csv(rig)
    layout = guess(text)
    mass, length = header_units(text, layout)
    units: Any = {"mass": mass or "lb", "length": length or "in"}
    return read_items(text, layout, **units, on="vehicle", into=rig.units)


def plain(value: Any, unit: str, length: str) -> Any:
    """A document without what says nothing: 3.0 for 3, its own units, empty lists."""
    if isinstance(value, dict):
        inner = {name: plain(below, unit, length) for name, below in value.items()}
        return {
            name: below
            for name, below in inner.items()
            if below not in ({}, []) and (name, below) != ("unit", unit)
        }
    if isinstance(value, list):
        return [plain(below, unit, length) for below in value]
    if isinstance(value, str):
        own = re.fullmatch(rf"(-?\d+(?:\.\d+)?) ({unit}|{length})", value)
        return plain(float(own[1]), unit, length) if own else re.sub(r"\.0(?= )", "", value)
    return int(value) if isinstance(value, float) and value.is_integer() else value


class RoundTrips(unittest.TestCase):
    def test_every_table_brings_back_what_it_took(self) -> None:
        passes = items = 0
        for number in RIGS:
            document = dump_rig(parse_rig(document_at_large(number)))
            rig = parse_rig(document)
            again, units = dict(document), (rig.units.mass, rig.units.lengths)
            if rig.weigh_ins:
                again["weigh_ins"] = tickets_back(rig)
            if rig.loads:
                again["loads"] = items_back(rig)
            with self.subTest(number):
                self.assertEqual(plain(again, *units), plain(document, *units))
                self.assertEqual(
                    list(written(evaluate(parse_rig(again)))), list(written(evaluate(rig)))
                )
            passes += sum(len(weigh_in.passes) for weigh_in in rig.weigh_ins)
            items += len(rig.loads)
        self.assertGreater(passes, 60)
        self.assertGreater(items, 40)

    def test_a_logbook_brings_back_its_rigs(self) -> None:
        documents = [dump_rig(parse_rig(document_at_large(number))) for number in RIGS]
        self.assertEqual(read_logbook(write_logbook(documents).encode()), documents)
