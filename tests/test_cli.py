"""The command line as a person meets it: exit statuses, plain words, nothing on a closed pipe."""

import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from noxel.cli import listen, main
from noxel.formats.rig_json import LARGEST
from tests.truth import rig_of


class CommandLine(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "rig.noxel.json"

    def run_on(self, content: object, *arguments: str) -> tuple[int, str, str]:
        self.path.write_text(content if isinstance(content, str) else json.dumps(content), encoding="utf-8")
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
            found, out, err = self.run_on(rig_of(f"check--{name}"), "check")
            self.assertEqual((found, err), (status, ""), out)
            self.assertIn("technician come first", out)
            self.assertNotIn("safe", out.lower())

    def test_which_weigh_in(self) -> None:
        document = rig_of("check--three-passes")
        document["weigh_ins"] = [{"scale": {"resolution": 20}, "passes": []}, *document["weigh_ins"]]
        self.assertEqual(self.run_on(document, "check", "--weigh-in", "1")[0], 3)
        self.assertEqual(self.run_on(document, "check", "--weigh-in", "2")[0], 1)
        status, _, err = self.run_on(document, "check", "--weigh-in", "3")
        self.assertEqual(status, 2)
        self.assertIn("no weigh-in 3", err)

    def test_what_cannot_be_read(self) -> None:
        broken = rig_of("check--three-passes")
        broken["vehicle"]["ratings"].update(gvwr=-1, colour=3)
        for content, cause in ((broken, "vehicle.ratings.colour"), ("{", "not JSON"), ("", "empty"), ([], "noxel-rig"),
                               (" " * (LARGEST + 1), "too large")):  # fmt: skip
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

    def test_missing_figures_are_asked_for(self) -> None:
        document = rig_of("predict--packed")
        del document["vehicle"]["geometry"]["wheelbase"]
        for verb in ("predict", "ceiling"):
            status, _, err = self.run_on(document, verb)
            self.assertEqual(status, 2)
            self.assertIn("vehicle.geometry.wheelbase", err)
