"""The visit to the scale, step by step, for each kind of rig. Expected: the order of the
visit, by hand.
"""

import re
import unittest
from importlib.resources import files

from noxel.core.practice.rigs import make_rig
from noxel.core.rig import RigFile
from noxel.core.weigh import visit_steps
from noxel.formats.rig_json import read_rig

BALL, PIN, CARAVAN = (
    read_rig((files("noxel.demo") / f"{name}.noxel.json").read_bytes())
    for name in ("observatory", "pottery", "library")
)


def words(rig: RigFile, *how: object) -> str:
    steps = visit_steps(rig, *how)  # type: ignore[arg-type]
    return "\n".join([step.model_dump_json() for step in steps])


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
        self.assertEqual([step.key for step in visit_steps(BALL, "truck_scale", True)], full)
        for rig in (PIN, CARAVAN):
            self.assertEqual([step.key for step in visit_steps(rig, "truck_scale", True)], plain)
        self.assertEqual(
            [step.key for step in visit_steps(PIN, "truck_scale", False)],
            ["before", *each_pass, "verdict"],
        )
        tight = [step.key for step in visit_steps(BALL, "single_platform", False)]
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
            down = next(step for step in steps if step.key == "uncouple")
            self.assertIn("not chocked", down.caution or "")
            for step in steps:
                marks = [
                    number
                    for number, line in enumerate(step.lines)
                    if re.search("Chocks on|[Jj]ack|[Jj]ockey|[Bb]ars|[Cc]oupl|legs|Handle", line)
                ]
                if step.key in ("slacken", "uncouple"):
                    self.assertIn("parking brake on", step.lines[0])
                    self.assertIn("Chocks on", step.lines[marks[0]], step.lines)
                if step.key in ("slacken", "couple"):
                    off = step.lines.index("Chocks off, last")
                    self.assertTrue(all(number <= off for number in marks), step.lines)
            drives = [step for step in steps if step.key == "drive"]
            self.assertTrue(all("weight is taken" in (step.caution or "") for step in drives))
            self.assertEqual(
                [step.asked[0].say for step in drives],
                ["first weigh"] + ["re-weigh"] * (len(drives) - 1)
                if rig.terms == "north_america"
                else ["axle by axle, and the total"] * len(drives),
            )
            self.assertEqual(drives[-1].platforms, ["front", "rear"])

    def test_each_coupling_in_its_own_words(self) -> None:
        """By the makers' order of work for each: a gooseneck has a ball and chains and no jaws, a
        towed car no tongue, a caravan a jockey wheel.
        """
        goose = words(PIN.model_copy(update={"kind": "gooseneck"}), "truck_scale", True)
        for word in ("Coupler unlatched", "clear of the ball", "chains on", "rear rises"):
            self.assertIn(word, goose)
        for word in ("jaws", "Handle", "pin plate"):
            self.assertNotIn(word, goose)
        caravan = words(CARAVAN, "truck_scale", True)
        for word in ("handbrake", "ockey wheel", "Corner steadies", "Registration?"):
            self.assertIn(word, caravan)
        for word in ("truck scale", "Jack down", "chains crossed", "Which company?"):
            self.assertNotIn(word, caravan)
        towed = words(make_rig("motorhome", "1"), "truck_scale", True)
        for word in ("tongue", "trailer will be set down", "jack", "Coupler"):
            self.assertNotIn(word, towed)
        for word in ("Safety cables", "supplemental brake", "tow bar unpinned"):
            self.assertIn(word, towed)

    def test_something_can_go_wrong_at_every_step_and_a_stop_says_what_then(self) -> None:
        for rig in (BALL, PIN, CARAVAN):
            steps = visit_steps(rig, "truck_scale", True)
            self.assertTrue(all(step.trouble for step in steps))
            self.assertIn("weigh again", " ".join(steps[-1].stop))
            waste = any(tank.fluid in ("grey", "black") for tank in rig.tanks)
            self.assertEqual("dump station only" in " ".join(steps[-1].stop), waste)
        self.assertTrue(all(step.trouble for step in visit_steps(BALL, "tongue_scale", True)))
