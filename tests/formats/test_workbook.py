"""The workbook, recalculated by an office program that knows nothing of Noxel, says what Noxel
says.

Expected: each worked case's own answer, as the core gives it (`tests/core/test_cases.py` holds that
against the cases).
"""

import copy
import csv
import io
import itertools
import math
import shutil
import subprocess
import tempfile
import unittest
from pathlib import Path
from typing import Any

from openpyxl import load_workbook

from noxel.core.evaluate import evaluate
from noxel.core.rig import parse_rig
from noxel.formats.workbook import LAST, OWN, layout, workbook
from tests import some
from tests.truth import CASES, case, rig_of

SHEETS = ("Plates", "Weigh-ins", "Checks")
Cell = float | str
Sheet = list[list[Cell]]


def recalculated(files: dict[str, bytes]) -> dict[str, dict[str, Sheet]]:
    """Every sheet of the files as LibreOffice has computed it: opened, and written as a table."""
    with tempfile.TemporaryDirectory() as folder:
        for name, content in files.items():
            (Path(folder) / f"{name}.xlsx").write_bytes(content)
        call = [
            shutil.which("soffice") or "soffice",
            f"-env:UserInstallation=file://{folder}/profile",
            "--headless",
            "--convert-to",
            # commas, UTF-8, each figure in full, every sheet
            "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,false,false,false,false,-1",
            "--outdir",
            f"{folder}/out",
            *(f"{folder}/{name}.xlsx" for name in files),
        ]
        subprocess.run(call, check=True, stdin=subprocess.DEVNULL, capture_output=True, timeout=600)
        books: dict[str, dict[str, Sheet]] = {name: {} for name in files}
        for name, sheet in itertools.product(files, SHEETS):
            table = Path(folder) / "out" / f"{name}-{sheet}.csv"
            if table.exists():
                with table.open(encoding="utf-8", newline="") as lines:
                    books[name][sheet] = [[*map(_cell, line)] for line in csv.reader(lines)]
        return books


def _cell(text: str) -> Cell:
    try:
        return float(text[:-1]) / 100 if text.endswith("%") else float(text)
    except ValueError:
        return text


def rows(sheet: Sheet) -> list[dict[str, Cell]]:
    """A sheet as its headings have it; of equal headings the first counts."""
    return [
        dict(zip(map(str, reversed(sheet[0])), reversed(line), strict=True)) for line in sheet[1:]
    ]


class Recalculated(unittest.TestCase):
    def test_every_worked_case(self) -> None:
        names = sorted(path.stem for path in CASES.glob("check--*.json"))
        names = names[:: max(1, len(names) // some(len(names)))]
        cases = {name: case(name) for name in names}
        unbraked = rig_of("check--room-everywhere")
        unbraked["trailer"]["brakes"], unbraked["policy"] = "none", {"brakes_above": 3_000}
        cases["a rule that is not kept"] = {"file": unbraked}
        other = rig_of("check--room-everywhere")
        other["vehicle"]["ratings"] |= {
            "gvwr_towing": 8100,
            "gawr_rear_towing": 4700,
            "tow_unbraked": 1650,
        }
        other["hitch"]["parts"][0]["extension_leaves"] = 0.5
        other["trailer"]["brakes"], other["policy"] = "none", {"gcwr_derate": 0.1}
        cases["ratings that change with the trailer"] = {"file": other}
        tagged = rig_of("check--motorhome")
        tagged["vehicle"]["ratings"] |= {"gawr_rear": 1_400, "gawr_tag": 1_000}
        tagged["vehicle"]["tires"]["rear"]["assembly"] = 1_450
        cases["a tag axle"] = {"file": tagged}
        dropped = rig_of("check--room-everywhere")
        dropped["hitch"]["parts"][1] |= {
            "drop": 5,
            "by_drop": [{"drop": 6, "trailer": 6_900, "tongue": 830}],
        }
        cases["a ball mount at its drop"] = {"file": dropped}
        books = recalculated(
            {name: workbook(parse_rig(case["file"])) for name, case in cases.items()}
        )
        for name, each in cases.items():
            with self.subTest(name):
                self.holds(parse_rig(each["file"]), books[name])

    def holds(self, rig: Any, book: dict[str, Sheet]) -> None:
        evaluation = evaluate(rig)
        if not rig.weigh_ins:
            self.assertIn("Plates", book)
            self.assertNotIn("Checks", book)
            return
        lines = book["Weigh-ins"]
        shown = dict(
            zip(
                (*OWN, *(key for key, *_ in layout(rig, {}, 2))),
                lines[len(rig.weigh_ins)],
                strict=True,
            )
        )
        derived = evaluation.derived.model_dump(exclude={"tongue_source"})
        self.assertEqual(
            {key for key in derived if derived[key]},
            {key for key in derived if shown.get(key) not in (None, "")},
        )
        for key, value in derived.items():
            if value:
                self.near(shown[key], value["value"], key)
                self.near(shown[f"pm_{key}"], value["plus_minus"], f"± {key}")
        if rig.towing:
            self.assertEqual(shown["tongue_source"] or None, evaluation.derived.tongue_source)
        checks = {line["Check"]: line for line in rows(book["Checks"]) if line["Check"]}
        for check in evaluation.checks:
            line = checks[check.label]
            self.assertEqual(line["Status"], check.status, check.id)
            for name, wanted in (
                ("Load", check.actual),
                ("±", check.plus_minus),
                ("Left", check.margin),
            ):
                if wanted is not None:
                    self.near(line[name], wanted, f"{check.id} {name}")
                elif not check.low:
                    self.assertIn(line[name], (None, ""), check.id)
        self.assertIn(
            evaluation.verdict,
            [
                line["Status"]
                for line in checks.values()
                if str(line["Check"]).startswith("Weigh-in ")
            ],
        )

    def near(self, found: Any, wanted: float, words: str) -> None:
        self.assertIsInstance(found, int | float, words)
        self.assertTrue(
            math.isclose(found, wanted, rel_tol=1e-6, abs_tol=1e-6),
            f"{words}: {found} is not {wanted}",
        )


class AsWritten(unittest.TestCase):
    def test_texts_are_no_formulas_and_long_logs_are_cut(self) -> None:
        document = rig_of("check--three-passes")
        one = document["weigh_ins"][0] | {
            "place": '=HYPERLINK("x")',
            "note": "=1+1",
            "tags": ["@sum", "\x01"],
        }
        document |= {
            "name": "=cmd",
            "weigh_ins": [copy.deepcopy(one) for _ in range(LAST + 5)],
            "loads": [{"name": "+1", "on": "vehicle", "mass": 3}],
        }
        book = load_workbook(io.BytesIO(workbook(parse_rig(document), 2)))
        for sheet, cell in (
            ("Read me", "A1"),
            ("Weigh-ins", "C2"),
            ("Weigh-ins", "D2"),
            ("Tickets", "C2"),
            ("Items", "A2"),
        ):
            self.assertEqual(book[sheet][cell].data_type, "s", sheet)
        numbers = [row[0].value for row in book["Weigh-ins"].iter_rows(min_row=2) if row[0].value]
        self.assertEqual(numbers, [2, *range(6, LAST + 6)])
