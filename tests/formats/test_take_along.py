"""What travels: CSV that no spreadsheet runs, the logbook there and back, papers in every kind of
rig.
"""

import csv
import datetime
import io
import json
import unittest
from typing import Any
from xml.etree import ElementTree

from hypothesis import given
from hypothesis import strategies as st
from icalendar import Calendar
from pypdf import PdfReader

from noxel.core.editing import Change, apply_changes
from noxel.core.evaluate import evaluate
from noxel.core.log import reminders
from noxel.core.rig import dump_rig, parse_rig
from noxel.errors import RigFileError
from noxel.formats.ical import write_calendar
from noxel.formats.items_csv import guess, read_items
from noxel.formats.logbook_json import read_logbook, write_logbook
from noxel.formats.papers import paper
from noxel.formats.print_page import print_page
from noxel.formats.rig_json import read_rig, write_rig
from noxel.formats.tables import harmless, items_csv, tickets_csv
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from tests import some
from tests.truth import CASES, bare, case, rig_of

_TYPED = (
    "name",
    "vehicle.ratings.gvwr",
    "vehicle.name",
    "vehicle.geometry.hitch_offset",
    "weigh_ins[0].place",
    "weigh_ins[0].decided",
    "weigh_ins[0].scale.resolution",
    "reminders.added",
    "plan.tongue_share",
)


class Tables(unittest.TestCase):
    def test_formulas_are_neutralised(self) -> None:
        document = rig_of("check--three-passes")
        document["weigh_ins"][0]["place"] = '=HYPERLINK("x")'
        document["loads"] = [
            {"name": "+cmd", "on": "vehicle", "mass": 3},
            {"name": "@sum", "on": "vehicle", "mass": "3 kg"},
        ]
        for text in (tickets_csv(parse_rig(document)), items_csv(parse_rig(document))):
            for row in list(csv.reader(io.StringIO(text)))[1:]:
                self.assertFalse([cell for cell in row if cell[:1] in "=+@" and cell], row)
        self.assertEqual(harmless(-3), -3)

    def test_items_come_back_as_they_went(self) -> None:
        document = rig_of("predict--packed")
        rig = parse_rig(document)
        text = items_csv(rig)
        back = read_items(
            text, guess(text), mass=rig.units.mass, length=rig.units.length or "in", on="vehicle"
        )
        wanted = [{key: load[key] for key in ("name", "mass", "on")} for load in document["loads"]]
        self.assertEqual(
            [{key: load[key] for key in ("name", "mass", "on")} for load in back], wanted
        )
        self.assertEqual(
            [load.get("position") for load in back],
            [load.get("position") for load in document["loads"]],
        )


class Reminding(unittest.TestCase):
    def test_the_calendar_says_the_same_event_again(self) -> None:
        document = {
            **rig_of("check--three-passes"),
            "name": "Tern, and the kiln; \\ both",
            "reminders": {"months": 6, "trips": [{"date": "2026-07-01"}, {"date": "2026-05-10"}]},
        }
        now = datetime.datetime(2026, 6, 1, tzinfo=datetime.UTC)

        def events(day: int) -> list[Any]:
            made = reminders(parse_rig(document), datetime.date(2026, 6, day))
            return list(
                Calendar.from_ical(write_calendar("rig", document["name"], made, now)).walk(
                    "VEVENT"
                )
            )

        first, later = events(1), events(20)
        self.assertEqual(
            [code["dtstart"].dt for code in first],
            [datetime.date(2026, 6, 17), datetime.date(2026, 11, 2)],
        )
        self.assertEqual([code["uid"] for code in first], [weigh_in["uid"] for weigh_in in later])
        self.assertEqual(str(first[1]["summary"]), "Weigh again: Tern, and the kiln; \\ both")
        self.assertEqual(len(first[0].walk("VALARM")), 1)


class Logbook(unittest.TestCase):
    @given(
        st.lists(
            st.tuples(
                st.sampled_from(
                    sorted(
                        path.stem
                        for path in CASES.glob("check--*.json")
                        if rig_of(path.stem).get("weigh_ins")
                    )
                ),
                st.lists(st.tuples(st.sampled_from(_TYPED), st.text(max_size=30)), max_size=6),
            ),
            max_size=4,
        )
    )
    def test_every_lossless_format_there_and_back(
        self, wanted: list[tuple[str, list[tuple[str, str]]]]
    ) -> None:
        """Whatever was typed, understood or not, with any letters: the rig file, the logbook and
        the database give it back.
        """
        documents = [
            apply_changes(rig_of(name), [Change(path, text) for path, text in typed]).document
            for name, typed in wanted
        ]
        for document in documents:
            self.assertEqual(dump_rig(read_rig(write_rig(parse_rig(document)).encode())), document)
        self.assertEqual(read_logbook(write_logbook(documents).encode()), documents)
        rigs = Rigs(Database(None))
        rigs.add_all(documents)
        kept = [bare(rigs.open(rig.id, entire=True)) for rig in rigs.summaries()]
        for document in documents:
            self.assertIn(document, kept)

    def test_foreign_and_broken_ones_name_the_place(self) -> None:
        good = rig_of("check--kilograms")
        for data in (
            b"",
            b"{}",
            b'{"format": "noxel-rig"}',
            b'{"format": "noxel-logbook", "version": 2, "rigs": []}',
        ):
            with self.assertRaises(RigFileError):
                read_logbook(data)
        bad = {**good, "units": {"mass": "stone"}}
        with self.assertRaisesRegex(RigFileError, r"rigs\[1\]"):
            read_logbook(
                json.dumps({"format": "noxel-logbook", "version": 1, "rigs": [good, bad]}).encode()
            )


class Papers(unittest.TestCase):
    def test_every_worked_case_prints_on_one_page_and_as_a_report(self) -> None:
        paths = sorted(CASES.glob("check--*.json"))
        for path in paths[:: max(1, len(paths) // some(len(paths)))]:
            rig = parse_rig(case(path.stem)["file"])
            page, report = paper(rig), paper(rig, full=True)
            self.assertTrue(page.startswith(b"%PDF"), path.stem)
            self.assertEqual(
                page.count(b"/Type /Page\n") + page.count(b"/Type /Page "), 1, path.stem
            )
            self.assertGreater(len(report), len(page))

    def test_letters_that_the_paper_does_not_know_are_no_error(self) -> None:
        document = rig_of("check--kilograms")
        document["name"] = "Ærø <b> & 🛰 Ω"
        self.assertTrue(paper(parse_rig(document)).startswith(b"%PDF"))

    def test_the_print_view_is_one_file_and_runs_nothing(self) -> None:
        document = rig_of("check--fifth-wheel")
        document["name"] = '<script>alert("x")</script>'
        evaluation = evaluate(parse_rig(document))
        page = print_page(parse_rig(document))
        root = ElementTree.fromstring(page[page.index("<body>") : page.index("</html>")])
        self.assertEqual(
            [each.tag for each in root.iter() if each.tag in ("script", "link", "img", "iframe")],
            [],
        )
        self.assertNotIn("://", page)
        (checks,) = (table for table in root.iter("table") if table.get("class") == "checks")
        cells = ["".join(row[0].itertext()) for row in checks.iter("tr")][1:]
        self.assertEqual(cells, [check.label for check in evaluation.checks])
        outline = evaluation.geometry.outline
        strokes = (*outline.vehicle.strokes, *outline.coupling, *outline.trailer.strokes)
        self.assertEqual(len(root.findall(".//path")), len(strokes) + 1)  # and the ground
        self.assertEqual(len(root.findall(".//circle")), 2 * (2 + 2))  # rim and hub of each wheel

    def test_what_is_only_expected_is_printed_apart_from_what_was_weighed(self) -> None:
        """A brochure alone: every expected figure as the evaluation has it, in brackets, its post
        outlined; text as a reader extracts it.
        """
        rig = parse_rig(rig_of("check--brochure-payload-over"))
        rows = {
            check.label: check.expected
            for check in evaluate(rig).checks
            if check.expected and check.low is None
        }
        text = " ".join(
            " ".join(
                sheet.extract_text() for sheet in PdfReader(io.BytesIO(paper(rig))).pages
            ).split()
        )
        page = print_page(rig)
        for label, ahead in rows.items():
            self.assertIn(f"({ahead.actual:,.0f})", text, label)
            self.assertIn(f"<td>{label}</td><td>({ahead.actual:,.0f})</td>", page)
        self.assertEqual(
            sum(row.outlook == "over_at_rating" for row in rows.values()),
            text.count("over at its rating"),
        )
        filled = "fill: rgb(35%,35%,35%)"
        self.assertNotIn(filled, page)
        self.assertIn(filled, print_page(parse_rig(rig_of("check--three-passes"))))
