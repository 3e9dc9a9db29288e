"""The worked cases of the rig-file format, through the command line and through the API.

Expected values: tests/cases, worked independently of this code. Values agree to 1e-6, ± to 1e-3,
relative.
"""

import contextlib
import io
import json
import math
import tempfile
import unittest
from pathlib import Path
from typing import Any

from noxel.cli import main
from noxel.core.editing import settle
from noxel.core.rig import dump_rig
from noxel.store.database import Database
from tests.api.stand import client_of
from tests.truth import CASES, case

EXIT = {"within": 0, "caution": 0, "stop": 1, "incomplete": 3}


def close(expected: Any, found: Any, tolerance: float) -> bool:
    if isinstance(expected, float | int) and isinstance(found, float | int):
        return math.isclose(expected, found, rel_tol=tolerance, abs_tol=1e-9)
    return bool(expected == found)


class WorkedCases(unittest.TestCase):
    def agree(self, expected: Any, found: Any, at: str = "") -> None:
        if isinstance(expected, dict):
            for key, value in expected.items():
                self.assertIn(key, found, at)
                self.agree(value, found[key], f"{at}.{key}")
            return
        tolerance = 1e-3 if at.endswith("plus_minus") else 1e-6
        self.assertTrue(
            close(expected, found, tolerance), f"{at}: expected {expected}, found {found}"
        )

    def check_answer(self, expect: Any, found: Any) -> None:
        for part in ("derived", "expected"):
            self.assertEqual(set(expect.get(part, ())), set(found.get(part, ())))
        self.agree({key: value for key, value in expect.items() if key != "checks"}, found)
        self.assertEqual("outlook" in expect, "outlook" in found)
        rows = {row["id"]: row for row in found["checks"]}
        self.assertEqual({row["id"] for row in expect["checks"]}, set(rows))
        for row in expect["checks"]:
            self.agree(row, rows[row["id"]], row["id"])
            optional = {"at_least", "low", "high", "limit", "expected"}
            self.assertEqual(set(row) & optional, set(rows[row["id"]]) & optional, row["id"])

    def by_command_line(self, verb: str, file: Any) -> tuple[str, str, int]:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "rig.noxel.json"
            path.write_text(json.dumps(file), encoding="utf-8")
            printed, output = io.StringIO(), io.StringIO()
            with contextlib.redirect_stdout(printed), contextlib.redirect_stderr(output):
                status = main([verb, str(path), "--json"])
        return printed.getvalue(), output.getvalue(), status

    def test_what_is_stored_is_what_its_model_would_write(self) -> None:
        """The page is sent the document; its types are the model's."""
        for path in sorted(CASES.glob("check--*.json")):
            edited = settle(case(path.stem)["file"])
            self.assertEqual(dump_rig(edited.rig), edited.document, path.stem)

    def test_command_line(self) -> None:
        paths = sorted(CASES.glob("*.json"))
        self.assertGreaterEqual(len(paths), 113)
        for path in paths:
            with self.subTest(path.stem):
                worked = case(path.stem)
                printed, answer, status = self.by_command_line(worked["verb"], worked["file"])
                if "error" in worked:
                    self.assertEqual((printed, status), ("", 2))
                    self.assertIn(worked["error"]["path"], answer)
                    continue
                loads = json.loads(printed)
                if worked["verb"] == "check":
                    self.check_answer(worked["expect"], loads)
                    self.assertEqual(status, EXIT[worked["expect"]["verdict"]])
                else:
                    part = "predicted" if worked["verb"] == "predict" else "limits"
                    self.agree(worked["expect"], loads)
                    self.assertEqual(set(worked["expect"][part]), set(loads[part]))
                    self.assertEqual(status, 0)

    def test_api(self) -> None:
        with client_of(Database(None)) as client:
            for path in sorted([*CASES.glob("check--*.json"), *CASES.glob("error--*.json")]):
                with self.subTest(path.stem):
                    worked = case(path.stem)
                    answer = client.post("/api/evaluate", json=worked["file"])
                    if "error" in worked:
                        self.assertEqual(answer.status_code, 422)
                        paths = [row["path"] for row in answer.json()["errors"]]
                        self.assertTrue(
                            any(each.startswith(worked["error"]["path"]) for each in paths), paths
                        )
                        continue
                    self.assertEqual(answer.status_code, 200, answer.text)
                    self.check_answer(worked["expect"], answer.json())
