"""What is acknowledged is on the disk; one bad row stays one bad row."""

import sqlite3
import tempfile
import unittest
from pathlib import Path
from typing import Any

from tools.syncs import SyncCount

from noxel.core.editing import Change, apply_changes
from noxel.errors import Damaged
from noxel.store.database import Database
from noxel.store.garage import Garage
from noxel.store.log import Logs
from noxel.store.rigs import Rigs
from tests.truth import rig_of


class Acknowledged(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "noxel.db"
        self.database = Database(self.path)
        self.addCleanup(self.database.close)
        self.rigs = Rigs(self.database)
        self.rig = self.rigs.add(rig_of("check--three-passes"))

    def rename(self, name: str) -> None:
        self.rigs.change(
            self.rig,
            "name",
            lambda document: apply_changes(document, [Change("name", name)]).document,
        )

    def test_saved_is_on_the_disk(self) -> None:
        pooled = self.database.engine.raw_connection()
        connection: Any = pooled.driver_connection
        pooled.close()
        counter = SyncCount(connection)
        for number in range(20):
            before = counter.count
            self.rename(f"name {number}")
            self.assertGreater(counter.count, before, "acknowledged before it was on the disk")
        connection.execute("PRAGMA synchronous = NORMAL")
        before = counter.count
        self.rename("not on the disk yet")
        self.assertEqual(
            counter.count, before, "the counter must see where nothing is brought to the disk"
        )

    def damage(self, table: str, text: str) -> None:
        with sqlite3.connect(self.path) as other:
            other.execute(
                f"UPDATE {table} SET document = ? WHERE id = (SELECT max(id) FROM {table})", (text,)
            )

    def test_one_bad_row_stays_one_bad_row(self) -> None:
        sound = rig_of("check--three-passes") | {"name": "sound"}
        self.rigs.add(sound)
        bad = max(summary.id for summary in self.rigs.summaries())
        good = next(summary.id for summary in self.rigs.summaries() if summary.id != bad)
        # cut short; whole JSON that is not what was written; no document
        for text in ("{", '{"kind": "conventional"}', "[]", ""):
            with self.subTest(text):
                self.damage("rigs", text)
                self.assertEqual(
                    {summary.id: summary.damaged for summary in self.rigs.summaries()},
                    {bad: True, good: False},
                )
                with self.assertRaisesRegex(Damaged, "was damaged where it is stored"):
                    self.rigs.open(bad)
                self.rigs.open(good)
                self.assertEqual(len(self.rigs.documents()), 1)
                self.assertEqual(len(Logs(self.database).page(good).lines), 1)
                entries = Garage(self.database).entries()
                self.assertEqual(
                    (len(entries.vehicles), len(entries.trailers), len(entries.damaged)), (1, 1, 2)
                )
                self.assertEqual(self.rigs.raw(bad)["rig"], text)
        self.rigs.delete(bad)
        self.assertEqual([summary.id for summary in self.rigs.summaries()], [good])

    def test_a_damaged_weigh_in_and_a_damaged_trailer(self) -> None:
        other = self.rigs.add(rig_of("check--kilograms"))
        self.damage("weigh_ins", "{}")
        with self.assertRaisesRegex(Damaged, "The weigh-in of 20"):
            self.rigs.open(other)
        self.rigs.open(self.rig)
        with sqlite3.connect(self.path) as connection:
            connection.execute("UPDATE things SET document = 'x' WHERE kind = 'trailer'")
        self.assertEqual(
            {summary.kind for summary in Garage(self.database).equipment() if summary.damaged},
            {"trailer"},
        )
        self.assertTrue(all(summary.damaged for summary in self.rigs.summaries()))
