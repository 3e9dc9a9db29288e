"""A long log on a real SQLite file: only a window of it is read and written, and it stays whole.

Expected: the same changes done on a document that holds the whole log.
"""

import copy
import json
import tempfile
import unittest
from pathlib import Path
from typing import Any
from unittest import mock

from sqlalchemy import select

from noxel.core.editing import Change, without_identities
from noxel.core.log import Rejudged
from noxel.errors import Conflict, Gone
from noxel.store.database import Database
from noxel.store.log import Logs
from noxel.store.models import FactsRow
from noxel.store.rigs import Rigs
from noxel.store.stored import Stored
from noxel.store.window import RECENT
from tests.truth import rig_of

LONG = 40


class ALongLog(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        database = self.database = Database(Path(folder.name) / "noxel.db")
        self.addCleanup(database.close)
        self.rigs, self.logs = Rigs(database), Logs(database)
        self.document = rig_of("check--three-passes")
        document = self.document["weigh_ins"][0]
        self.document["weigh_ins"] = [
            {**copy.deepcopy(document), "place": f"scale {number}"} for number in range(1, LONG + 1)
        ]
        self.rig = self.rigs.add(self.document)

    def change(self, *changes: Change) -> Stored:
        return self.rigs.enter(self.rig, "x", changes)

    def entire(self) -> dict[str, Any]:
        return without_identities(self.rigs.open(self.rig, entire=True).document)

    def test_a_window_is_read_and_its_numbers_are_those_of_the_log(self) -> None:
        stored = self.rigs.open(self.rig, 7)
        last = tuple(range(LONG - RECENT + 1, LONG + 1))
        self.assertEqual(
            (stored.window.numbers, stored.window.at, stored.window.count), ((7, *last), 1, LONG)
        )
        self.assertEqual(
            [document["place"] for document in stored.document["weigh_ins"]],
            [f"scale {n}" for n in (7, *last)],
        )
        # not there: the last
        self.assertEqual(self.rigs.open(self.rig, LONG + 1).window.numbers, last)

    def test_what_another_release_said_otherwise_is_told(self) -> None:
        """Facts as 0.2 kept them, of the same figures; of other figures nothing is told."""

        def told() -> Rejudged | None:
            return self.logs.page(self.rig, size=1).lines[0][0].facts.rejudged

        for plates, before in (("same", "within"), ("same", "stop"), ("other", "within")):
            with mock.patch("noxel.store.log.VERSION", "0.2.0"):
                verdict = self.logs.page(self.rig, size=1).lines[0][0].facts.verdict
            if plates == "other":
                self.change(Change("vehicle.ratings.gvwr", "7100"))
            with self.database.writing() as session:
                for row in session.scalars(select(FactsRow).where(FactsRow.facts.is_not(None))):
                    row.facts = json.dumps(json.loads(row.facts or "") | {"verdict": before})
            self.assertEqual(verdict, "stop")
            if (plates, before) == ("same", "within"):
                self.assertEqual((told().release, told().verdict), ("0.2.0", "within"))  # type: ignore[union-attr]
            else:
                self.assertIsNone(told(), (plates, before))

    def test_what_was_typed_goes_to_its_own_weigh_in_whatever_was_taken_out(self) -> None:
        third, seventh = (self.rigs.open(self.rig, number).window.keys[0] for number in (3, 7))
        self.change(Change(f"weigh_ins[{third}]", op="remove"))  # another page
        self.change(Change(f"weigh_ins[{seventh}].place", "Alder Bend"))
        expected = copy.deepcopy(self.document)
        expected["weigh_ins"][6]["place"] = "Alder Bend"
        del expected["weigh_ins"][2]
        self.assertEqual(self.entire(), expected)
        first_page = self.logs.page(self.rig, words="ALDER bend")
        self.assertEqual([line.number for line, _ in first_page.lines], [6])
        self.change(Change("weigh_ins", op="insert", value=self.document["weigh_ins"][0]))
        self.assertEqual(self.entire()["weigh_ins"][-1], self.document["weigh_ins"][0])
        self.change(Change("weigh_ins[0]", op="insert", value={"place": "early"}))
        self.assertEqual(self.entire()["weigh_ins"][0], {"place": "early"})
        self.change(Change(f"weigh_ins[{seventh}]", op="remove"))
        with self.assertRaisesRegex(Gone, "taken away elsewhere"):
            self.change(Change(f"weigh_ins[{seventh}].place", "lost"))
        for _ in range(5):
            self.rigs.undo(self.rig)
        self.assertEqual(self.entire(), self.document)

    def test_all_of_it_follows_a_change_of_its_rules_or_refuses_it(self) -> None:
        for weigh_in in self.document["weigh_ins"][1:]:
            weigh_in["passes"] = [
                weigh_in
                for weigh_in in weigh_in["passes"]
                if weigh_in.get("spring_bars") != "engaged"
            ]
        self.rig = self.rigs.add(self.document)
        # the first was weighed with its bars engaged
        with self.assertRaisesRegex(Conflict, "of 2026-05-02, scale 1 contradicts this: spring"):
            self.change(Change("hitch.weight_distribution", op="set", value=False))
        self.assertEqual(self.entire(), self.document)
        plain = {**rig_of("check--kilograms"), "hitch": {}}
        for load in plain["weigh_ins"][0]["passes"]:
            load.pop("spring_bars", None)
        plain["weigh_ins"] = plain["weigh_ins"] * LONG
        self.rig = self.rigs.add(plain)
        self.change(Change("hitch.weight_distribution", op="set", value=True))
        hitched = [
            pass_
            for whole in self.entire()["weigh_ins"]
            for pass_ in whole["passes"]
            if pass_["config"] == "hitched"
        ]
        self.assertEqual({hitched["spring_bars"] for hitched in hitched}, {"none"})
        self.assertEqual(
            without_identities(self.rigs.undo(self.rig).document)["weigh_ins"],
            plain["weigh_ins"][:RECENT],
        )
        self.assertEqual(self.entire(), plain)

    def test_pages_runs_and_facts_that_follow_the_plates(self) -> None:
        page = self.logs.page(self.rig)
        self.assertEqual([line.number for line, _ in page.lines], list(range(LONG, LONG - 20, -1)))
        rest = self.logs.page(self.rig, before=LONG - 19)
        self.assertEqual(
            ([line.number for line, _ in rest.lines], rest.more),
            (list(range(LONG - 20, 0, -1)), False),
        )
        self.assertIsNone(rest.lines[-1][1])  # nothing before the first
        self.assertEqual(page.lines[0][1], page.lines[1][0].facts)
        run, count = self.logs.run(self.rig, until=30, size=15)
        self.assertEqual(([row.number for row in run], count), (list(range(16, 31)), LONG))
        self.assertEqual({row.facts.verdict for row in run}, {"stop"})  # rear axle 3,680 of 3,600
        self.change(
            Change("vehicle.ratings.gawr_rear", "9,000"), Change("vehicle.ratings.gvwr", "19,000")
        )
        sentence = {row.facts.sentence for row in self.logs.run(self.rig)[0]}
        self.assertNotEqual(sentence, {run[0].facts.sentence})
        self.change(Change("weigh_ins[15].passes[0].readings.front", "1"))
        self.assertAlmostEqual(
            self.logs.run(self.rig, until=16, size=1)[0][0].facts.figures["front_hitched"][0],
            0.45359237,
        )

    def test_words_are_searched_as_they_stand(self) -> None:
        self.change(Change("weigh_ins[4].tags", op="set", value=["100 %_sure"]))
        self.assertEqual(
            [line.number for line, _ in self.logs.page(self.rig, words="%_SURE").lines], [5]
        )
        self.assertEqual(
            [line.number for line, _ in self.logs.page(self.rig, words="scale 39").lines], [39]
        )
        self.assertEqual(self.logs.page(self.rig, words="nowhere").lines, ())
