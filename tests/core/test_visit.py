"""The visit to the scale, step by step, for each kind of rig. Expected: the order of the
visit, by hand.
"""

import unittest
from importlib.resources import files

from noxel.core.rig import RigFile
from noxel.core.weigh import visit_steps
from noxel.formats.rig_json import read_rig

BALL, PIN, CARAVAN = (
    read_rig((files("noxel.demo") / f"{name}.noxel.json").read_bytes())
    for name in ("observatory", "pottery", "library")
)


def words(rig: RigFile, *how: object) -> str:
    steps = visit_steps(rig, *how)  # type: ignore[arg-type]
    return "\n".join([each.model_dump_json() for each in steps])


class Visit(unittest.TestCase):
    def test_the_steps_of_each_rig(self) -> None:
        each_pass = ["drive", "ticket", "answer"]
        full = [
            "before",
            *each_pass,
            "slacken",
            *each_pass,
            "uncouple",
            *each_pass,
            "couple",
            "verdict",
        ]
        plain = ["before", *each_pass, "uncouple", *each_pass, "couple", "verdict"]
        self.assertEqual([each.key for each in visit_steps(BALL, "truck_scale", True)], full)
        for rig in (PIN, CARAVAN):
            self.assertEqual([each.key for each in visit_steps(rig, "truck_scale", True)], plain)
        self.assertEqual(
            [each.key for each in visit_steps(PIN, "truck_scale", False)],
            ["before", *each_pass, "verdict"],
        )
        tight = [each.key for each in visit_steps(BALL, "single_platform", False)]
        self.assertEqual(
            tight,
            ["before", *each_pass, "slacken", *each_pass, "couple", "verdict"],
            "the bars go on again",
        )

    def test_what_the_rig_lacks_is_not_said(self) -> None:
        pin = words(PIN, "truck_scale", True)
        for word in ("Spring bars", "chains", "ball", "tongue", "Jack down"):
            self.assertNotIn(word, pin)
        self.assertIn("Landing legs", pin)
        alone = words(BALL.model_copy(update={"trailer": None}), "truck_scale", True)
        for word in ("trailer", "ncouple", "Chocks", "coupler"):
            self.assertNotIn(word, alone)

    def test_chocks_come_before_uncoupling_and_the_word_before_rolling(self) -> None:
        for rig in (BALL, PIN, CARAVAN):
            steps = visit_steps(rig, "truck_scale", True)
            down = next(each for each in steps if each.key == "uncouple")
            self.assertIn("Chocks", down.lines[1])
            self.assertIn("not chocked", down.caution or "")
            drives = [each for each in steps if each.key == "drive"]
            self.assertTrue(all("weight is taken" in (each.caution or "") for each in drives))
            self.assertEqual(
                [each.asked[0].say for each in drives],
                ["first weigh"] + ["re-weigh"] * (len(drives) - 1),
            )
            self.assertEqual(drives[-1].platforms, ["front", "rear"])
