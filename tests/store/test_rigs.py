"""The database: every change one transaction with its record, undone exactly, whole after an error,
there after a restart.
"""

import json
import sqlite3
import tempfile
import unittest
from pathlib import Path
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st
from sqlalchemy import select

from noxel.core.editing import Change, Document, apply_changes
from noxel.errors import Conflict, NotFound, RigFileError
from noxel.store.database import Database
from noxel.store.models import ChangeRow
from noxel.store.rigs import Rigs
from tests import some
from tests.truth import bare, rig_of


def typing(path: str, text: str) -> Any:
    return lambda document: apply_changes(document, [Change(path, text)]).document


class OnDisk(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "deep" / "noxel.db"

    def open(self) -> Rigs:
        database = Database(self.path)
        self.addCleanup(database.close)
        return Rigs(database)

    def test_it_is_there_after_a_restart(self) -> None:
        document = rig_of("check--three-passes")
        rig = self.open().add(document)
        self.open().change(rig, "GVWR", typing("vehicle.ratings.gvwr", "7,2oo"))
        kept = self.open().open(rig)
        self.assertEqual(kept.document["vehicle"]["entered"], {"ratings.gvwr": {"text": "7,2oo"}})
        self.assertEqual(bare(kept)["weigh_ins"], document["weigh_ins"])
        self.assertEqual(bare(self.open().undo(rig)), document)

    def test_pragmas(self) -> None:
        rigs = self.open()
        rigs.add(rig_of("check--kilograms"))
        with sqlite3.connect(self.path) as connection:
            self.assertEqual(connection.execute("PRAGMA journal_mode").fetchone(), ("wal",))
        with rigs._database.reading() as session:
            self.assertEqual(
                session.connection().exec_driver_sql("PRAGMA foreign_keys").scalar(), 1
            )


class InMemory(unittest.TestCase):
    def setUp(self) -> None:
        self.rigs = Rigs(Database(None))
        self.document = rig_of("check--three-passes")
        self.rig = self.rigs.add(self.document)

    def test_an_error_leaves_everything_as_it_was(self) -> None:
        def fail(document: Document) -> Document:
            document["name"] = "half done"
            raise RuntimeError("in the middle")

        with self.assertRaises(RuntimeError):
            self.rigs.change(self.rig, "x", fail)
        self.assertEqual(bare(self.rigs.open(self.rig)), self.document)
        with self.assertRaises(RigFileError):
            self.rigs.add({**self.document, "kind": "sledge"})
        self.assertEqual(len(self.rigs.summaries()), 1)

    def test_typing_in_one_field_is_one_step(self) -> None:
        for text in ("7", "72", "720", "7200"):
            self.rigs.enter(self.rig, "GVWR", [Change("vehicle.ratings.gvwr", text)], "one")
        self.rigs.enter(self.rig, "name", [Change("name", "other")], "two")
        self.assertEqual(self.rigs.undo(self.rig).document["vehicle"]["ratings"]["gvwr"], 7200)
        back = self.rigs.undo(self.rig)
        self.assertEqual((bare(back), back.undo, back.redo), (self.document, None, "GVWR"))
        self.assertEqual(self.rigs.redo(self.rig).document["vehicle"]["ratings"]["gvwr"], 7200)

    def test_a_step_is_kept_as_long_as_what_it_changed(self) -> None:
        items = [{"name": f"item {n}", "on": "vehicle", "mass": 1} for n in range(5000)]
        document = {**self.document, "loads": items}
        rig = self.rigs.add(document)
        self.rigs.enter(rig, "item", [Change("loads[17].mass", "2")], "one")
        self.rigs.enter(rig, "item", [Change("loads[17].mass", "25")], "one")
        with self.rigs._database.reading() as session:
            kept = session.execute(select(ChangeRow.before, ChangeRow.after)).one()
        self.assertEqual(
            [json.loads(entry) for entry in kept],
            [
                {
                    "rig": [
                        {"op": "replace", "path": "/loads/17/mass", "value": mass} for mass in two
                    ]
                }
                for two in ((2, 1), (2, 25))
            ],
        )
        self.assertEqual(bare(self.rigs.undo(rig)), document)

    def test_deleting_can_be_undone(self) -> None:
        self.rigs.delete(self.rig)
        self.assertEqual(self.rigs.summaries(), [])
        with self.assertRaises(NotFound):
            self.rigs.open(self.rig)
        self.rigs.delete(self.rig, bring_back=True)
        self.assertEqual(bare(self.rigs.open(self.rig)), self.document)
        with self.assertRaises(Conflict):
            self.rigs.undo(self.rig)

    @settings(max_examples=some(30))
    @given(
        st.lists(
            st.one_of(
                st.tuples(st.just("weigh_ins[0].passes[0]"), st.just("remove")),
                st.tuples(st.just("weigh_ins[1]"), st.just("insert")),
                st.tuples(st.just("weigh_ins[0]"), st.just("remove")),
                st.tuples(
                    st.sampled_from(["name", "vehicle.name"]), st.sampled_from(["a", "b", "c"])
                ),
            ),
            max_size=8,
        )
    )
    def test_undo_all_the_way_back_and_redo_all_the_way_forth(
        self, steps: list[tuple[str, str]]
    ) -> None:
        rigs = Rigs(Database(None))
        rig = rigs.add(self.document)
        for path, step in steps:
            op: Any = step if step in ("insert", "remove") else "type"
            change = Change(path, step, self.document["weigh_ins"][0], op)
            # what is answered is what is read afterwards
            answer = rigs.enter(rig, step, [change])
            self.assertEqual(answer.document, rigs.open(rig).document)
        end = rigs.open(rig)
        while rigs.open(rig).undo:
            rigs.undo(rig)
        self.assertEqual(bare(rigs.open(rig)), self.document)
        while rigs.open(rig).redo:
            rigs.redo(rig)
        self.assertEqual(rigs.open(rig).document, end.document)
