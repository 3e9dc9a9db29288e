"""The command line as a person meets it: exit statuses, plain words, nothing on a closed pipe."""

import contextlib
import doctest
import io
import json
import sqlite3
import tempfile
import unittest
from pathlib import Path
from unittest.mock import patch

from noxel.cli import main
from noxel.formats.rig_json import LARGEST
from noxel.serving import listen
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from tests.truth import rig_of


class CommandLine(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "rig.noxel.json"

    def run_on(self, content: object, *arguments: str) -> tuple[int, str, str]:
        self.path.write_text(
            content if isinstance(content, str) else json.dumps(content), encoding="utf-8"
        )
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            status = main([arguments[0], str(self.path), *arguments[1:]])
        return status, out.getvalue(), err.getvalue()

    def test_exit_statuses_by_verdict(self) -> None:
        # statuses of the format: 0 within or caution, 1 stop, 3 incomplete
        for name, status in (
            ("room-everywhere", 0),
            ("room-but-share-high", 0),
            ("three-passes", 1),
            ("hitch-ratings-missing", 3),
        ):
            run_on, out, err = self.run_on(rig_of(f"check--{name}"), "check")
            self.assertEqual((run_on, err), (status, ""), out)
            self.assertIn("technician come first", out)
            self.assertNotIn("safe", out.lower())

    def test_from_standard_input_and_errors_for_a_program(self) -> None:
        text = json.dumps(rig_of("check--three-passes")).encode()
        output = io.TextIOWrapper(io.BytesIO(text))
        with patch("sys.stdin", output), contextlib.redirect_stdout(io.StringIO()) as shown:
            self.assertEqual(main(["check", "-"]), 1)
        self.assertIn("over", shown.getvalue())
        status, out, run_on = self.run_on({"format": "noxel-rig", "version": 1}, "check", "--json")
        error = json.loads(run_on)["error"]
        self.assertEqual((status, out, error["code"]), (2, "", "rig_file.invalid"))
        self.assertIn("units", [problem["path"] for problem in error["problems"]])

    def test_the_example_of_the_python_face(self) -> None:
        root = Path(__file__).parents[1]
        with contextlib.chdir(root):
            failed, tried = doctest.testfile(str(root / "docs/python.md"), module_relative=False)
        self.assertEqual((failed, tried > 5), (0, True))

    def test_which_weigh_in(self) -> None:
        document = rig_of("check--three-passes")
        document["weigh_ins"] = [
            {"scale": {"resolution": 20}, "passes": []},
            *document["weigh_ins"],
        ]
        self.assertEqual(self.run_on(document, "check", "--weigh-in", "1")[0], 3)
        self.assertEqual(self.run_on(document, "check", "--weigh-in", "2")[0], 1)
        status, _, err = self.run_on(document, "check", "--weigh-in", "3")
        self.assertEqual(status, 2)
        self.assertIn("no weigh-in 3", err)

    def test_what_cannot_be_read(self) -> None:
        broken = rig_of("check--three-passes")
        broken["vehicle"]["ratings"].update(gvwr=-1, colour=3)
        for content, cause in (
            (broken, "vehicle.ratings.colour"),
            ("{", "not JSON"),
            ("", "empty"),
            ([], "noxel-rig"),
            (" " * (LARGEST + 1), "too large"),
        ):
            with self.subTest(cause):
                status, out, err = self.run_on(content, "check", "--json")
                self.assertEqual((status, out), (2, ""))
                self.assertIn(cause, err)
        self.path.unlink()
        printed = io.StringIO()
        with contextlib.redirect_stderr(printed):
            self.assertEqual(main(["check", str(self.path)]), 2)
        self.assertIn("cannot be opened", printed.getvalue())

    def test_a_taken_port_gives_way_to_a_free_one(self) -> None:
        with listen(0) as first, listen(first.getsockname()[1]) as second:
            self.assertNotEqual(first.getsockname()[1], second.getsockname()[1])

    def said(self, *arguments: str) -> tuple[int, str]:
        out = io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(out):
            try:
                status = main(arguments)
            except SystemExit as exc:  # argparse ends so
                status = int(exc.code or 0)
        return status, out.getvalue()

    def test_backup_and_restore_by_any_name(self) -> None:
        """Names that mean something else in a URI; into a folder that has one, too."""
        for name in ("plain", "spring #2", "50%25 of what?", "a&b=c"):
            with self.subTest(name):
                data, copy = self.path.parent / f"data {name}", self.path.parent / f"{name}.db"
                database = Database(data / "noxel.db")
                rigs = Rigs(database)
                rig = rigs.add(rig_of("check--three-passes"))
                self.assertEqual(
                    self.said("backup", "--data", str(data), str(copy)),
                    (0, f"Backed up to {copy}.\n"),
                )
                rigs.delete(rig)
                database.close()
                status, out = self.said("restore", "--data", str(data), str(copy))
                self.assertEqual(status, 0, out)
                self.assertRegex(
                    out, r"What was there is kept in .*noxel\.before-\d{4}-\d\d-\d\d-\d{6}\."
                )
                restored = Database(data / "noxel.db")
                self.assertEqual(
                    [summary.name for summary in Rigs(restored).summaries()],
                    [rig_of("check--three-passes")["name"]],
                )
                restored.close()
        made = {path.name for path in self.path.parent.iterdir() if path.is_file()}
        self.assertEqual(made, {"plain.db", "spring #2.db", "50%25 of what?.db", "a&b=c.db"})

    def test_what_cannot_be_served_or_kept(self) -> None:
        parent, newer = self.path.parent / "taken", self.path.parent / "newer"
        parent.write_text("a file", encoding="utf-8")
        Database(newer / "noxel.db").close()
        with sqlite3.connect(newer / "noxel.db") as other:
            other.execute("UPDATE alembic_version SET version_num = '9999'")
        for arguments, cause in (
            (
                ("serve", "--data", str(parent)),
                "taken cannot be a folder for the data: File exists",
            ),
            (("serve", "--data", str(newer)), "version 9999, newer than this Noxel knows"),
            (("demo", "--data", str(newer), "--port", "65536"), "65536 is not a port"),
            (("serve", "--port", "-1"), "-1 is not a port"),
            (("backup", "--data", str(newer), str(parent)), "a backup overwrites nothing"),
            (("backup", "--data", str(newer), str(parent / "copy.db")), "could not be written"),
            (("backup", "--data", str(parent), "copy.db"), "There is no database"),
        ):
            with self.subTest(cause):
                status, out = self.said(*arguments)
                self.assertEqual(status, 2)
                self.assertIn(cause, out)

    def test_what_can_be_computed_is_and_the_missing_figure_is_asked_for(self) -> None:
        document = rig_of("predict--packed")
        del document["vehicle"]["geometry"]["wheelbase"]
        status, out, _ = self.run_on(document, "predict")
        self.assertEqual(status, 0)
        self.assertIn("For the rest, enter: vehicle.geometry.wheelbase", out)
        self.assertRegex(out, r"vehicle_solo +5,635 lb")  # 3,000 + 2,450 base, 90 listed, hitch 95
        status, out, _ = self.run_on(document, "ceiling")
        self.assertEqual(status, 0)
        self.assertRegex(out, r"vehicle.rear_axle +\? lb \(its load is not known\)")
