"""The garage on a real SQLite file: shared equipment, copies, coupling; and a database of the first
version opened today.
"""

import json
import sqlite3
import tempfile
import unittest
from pathlib import Path
from typing import Any

from noxel.core.editing import Change, apply_changes, settle
from noxel.core.rig import parse_rig
from noxel.errors import Conflict, NotFound
from noxel.store.changes import Sent
from noxel.store.database import Database
from noxel.store.garage import Equipment, Garage
from noxel.store.photos import Photos
from noxel.store.rigs import Rigs
from noxel.store.visits import Visits
from tests.truth import bare, rig_of


def typing(path: str, text: str) -> Any:
    return lambda document: apply_changes(document, [Change(path, text)]).document


class Things(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database = Database(Path(folder.name) / "noxel.db")
        self.addCleanup(self.database.close)
        self.rigs, self.garage = Rigs(self.database), Garage(self.database)
        self.first = self.rigs.add(rig_of("check--three-passes"))  # lb, with spring bars
        self.second = self.rigs.add(rig_of("check--kilograms"))

    def equipment(self, kind: str, rig: str) -> Equipment:
        return next(
            summary
            for summary in self.garage.equipment()
            if summary.kind == kind and rig in [coupled.id for coupled in summary.rigs]
        )

    def test_a_change_in_one_rig_is_there_in_the_other(self) -> None:
        truck, caravan = (
            self.equipment("vehicle", self.first),
            self.equipment("trailer", self.second),
        )
        third = self.garage.couple(
            "both", "conventional", {"vehicle": truck.id, "trailer": caravan.id}, {"hitch": {}}
        )
        rig = parse_rig(self.rigs.open(third).document)
        self.assertEqual(rig.units.mass, "lb")
        gvwr = rig.trailer.ratings.gvwr if rig.trailer else None
        # typed in kg, coupled to lb
        self.assertEqual((gvwr.written, gvwr.kg) if gvwr else None, ("4025 kg", 4025.0))
        self.rigs.change(third, "GVWR", typing("vehicle.ratings.gvwr", "7,100"))
        self.assertEqual(self.rigs.open(self.first).document["vehicle"]["ratings"]["gvwr"], 7100)
        self.assertEqual(self.rigs.open(self.first).shared, {"vehicle": ["both"]})
        self.rigs.change(self.first, "GVWR", typing("vehicle.ratings.gvwr", "7,200"))
        with self.assertRaisesRegex(Conflict, "changed in another rig"):
            self.rigs.undo(third)
        self.rigs.change(self.first, "GCWR", typing("vehicle.ratings.gcwr", "15500"))
        with self.assertRaisesRegex(Conflict, "changed in another rig"):
            self.rigs.undo(third)
        self.rigs.undo(self.first)
        self.rigs.undo(self.first)
        self.rigs.change(self.first, "GCWR", typing("vehicle.ratings.gcwr", "15600"))
        ratings = self.rigs.undo(third).document["vehicle"]["ratings"]
        self.assertEqual((ratings["gvwr"], ratings["gcwr"]), (7000, 15600), "only its own figure")

    def test_another_rigs_weigh_ins_are_never_broken(self) -> None:
        hitch, trailer = self.equipment("hitch", self.first), self.equipment("trailer", self.first)
        other = self.garage.copy_rig(self.rigs.row(self.first), "again", ["vehicle"])
        self.assertNotEqual(
            self.equipment("vehicle", other).id, self.equipment("vehicle", self.first).id
        )
        self.assertEqual(
            (self.equipment("hitch", other).id, self.equipment("trailer", other).id),
            (hitch.id, trailer.id),
        )
        self.assertNotIn("weigh_ins", self.rigs.open(other).document)
        off = [Change("hitch.weight_distribution", op="set", value=False)]
        # the first rig was weighed with its bars engaged
        with self.assertRaisesRegex(Conflict, "same hitch"):
            self.rigs.change(other, "bars", lambda document: apply_changes(document, off).document)
        before = self.rigs.open(self.first).document
        self.rigs.change(other, "GVWR", typing("vehicle.ratings.gvwr", "9,999"))
        self.assertEqual(self.rigs.open(self.first).document, before)

    def test_retired_and_removed(self) -> None:
        truck = self.equipment("vehicle", self.first)
        self.garage.retire(truck.id)
        self.assertTrue(self.garage.equipment()[-1].retired)
        self.assertEqual(len(self.rigs.open(self.first).document["weigh_ins"]), 1)
        with self.assertRaises(Conflict):
            self.garage.remove(truck.id)
        copy = self.garage.copy(truck.id)
        self.garage.remove(copy)
        with self.assertRaises(NotFound):
            self.garage.couple("x", "conventional", {"vehicle": copy}, {})


class FromTheSecondVersion(unittest.TestCase):
    def test_what_counted_is_named(self) -> None:
        """Kept from 0.2: a waiting text, an item and the middle one of three weigh-ins taken out, a
        ticket jotted down; a note and a photograph of the weigh-in at scale 3, by its position.
        """
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        path = Path(folder.name) / "noxel.db"
        with sqlite3.connect(path) as old:
            script = Path(__file__).parent / "version_0_2.sql"
            old.executescript(script.read_text(encoding="utf-8"))
        database = Database(path)
        self.addCleanup(database.close)
        rigs, visits = Rigs(database), Visits(database)
        [rig] = [summary.id for summary in rigs.summaries()]
        first, third, jotted = rigs.open(rig).document["weigh_ins"]
        self.assertEqual(
            [code["place"] for code in (first, third, jotted)], ["scale 1", "scale 3", "jotted"]
        )
        self.assertEqual(visits.notes(rig), {2: {"sway": "none", "note": "after scale 3"}})
        self.assertEqual(Photos(database).all(rig)[0].weigh_in, third["id"])
        again = rigs.receive(rig, "v1", lambda document, _at: document, sent=Sent(key="t1"))
        self.assertEqual(len(again.document["weigh_ins"]), 3, "a ticket sent again changes nothing")
        [line] = visits.lines(rig)
        visits.drop_line(rig, line.id)
        visits.add_line(rig, "Another", trip=False)
        self.assertNotEqual(visits.lines(rig)[0].id, line.id)
        for _ in range(4):
            rigs.undo(rig)
        document = bare(rigs.open(rig))
        self.assertEqual(
            [document["place"] for document in document["weigh_ins"]],
            ["scale 1", "scale 2", "scale 3"],
        )
        self.assertEqual(document["loads"][0]["name"], "folding table")
        self.assertEqual(document["vehicle"]["ratings"]["gvwr"], 7000)


class FromTheFirstVersion(unittest.TestCase):
    def test_an_old_database_opens_whole(self) -> None:
        """Kept from the first version: three rigs, one with a waiting text and two steps to
        undo.
        """
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        path = Path(folder.name) / "noxel.db"
        with sqlite3.connect(path) as old:
            old.executescript(
                (Path(__file__).parent / "first_version.sql").read_text(encoding="utf-8")
            )
            kept = {
                row[0]: json.loads(row[1]) for row in old.execute("SELECT id, document FROM rigs")
            }
            weighed = old.execute("SELECT count(*) FROM weigh_ins").fetchone()[0]
        database = Database(path)
        self.addCleanup(database.close)
        rigs = Rigs(database)
        self.assertEqual(len(rigs.summaries()), 3)
        self.assertEqual(sum(rig.weigh_ins for rig in rigs.summaries()), weighed)
        for rig, document in kept.items():
            made = bare(rigs.open(rig))
            self.assertEqual(
                {key: value for key, value in made.items() if key != "weigh_ins"}, document
            )
            settle(made)
        self.assertEqual(len(Garage(database).equipment()), 9)
        changed = next(rig for rig in kept if rigs.open(rig).undo)
        self.assertEqual(kept[changed]["vehicle"]["entered"]["ratings.gvwr"]["text"], "7,1oo")
        rigs.undo(changed)
        self.assertEqual(rigs.undo(changed).document["vehicle"]["ratings"]["gvwr"], 7000)
