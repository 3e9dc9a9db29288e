"""Safekeeping: backup while writing, restore that looks first, a copy before each migration, a kill in the middle of a save."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from noxel.core.edit import Change, apply_changes
from noxel.errors import InputError, NotFound
from noxel.store.database import Database
from noxel.store.keep import backup, known_versions, restore, version_of
from noxel.store.rigs import Rigs
from tests.truth import rig_of

_WRITER = """
import sys
from pathlib import Path
from noxel.core.edit import Change, apply_changes
from noxel.store.database import Database
from noxel.store.rigs import Rigs
rigs = Rigs(Database(Path(sys.argv[1])))
rig = rigs.list()[0].id
print("ready", flush=True)
for number in range(100_000):
    change = [Change("name", f"name {number}"), Change("vehicle.name", f"name {number}")]
    rigs.change(rig, "names", lambda document, change=change: apply_changes(document, change).document)
    if number == 20:
        print("going", flush=True)
"""


class Keeping(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.path = self.folder / "noxel.db"
        self.database = Database(self.path)
        self.addCleanup(self.database.close)
        self.rigs = Rigs(self.database)
        self.rig = self.rigs.add(rig_of("check--three-passes"))

    def test_backup_while_it_is_open_and_back(self) -> None:
        copy = self.folder / "copies" / "spring.db"
        backup(self.path, copy)
        self.rigs.change(self.rig, "name", lambda document: apply_changes(document, [Change("name", "later")]).document)
        with self.assertRaisesRegex(InputError, "overwrites nothing"):
            backup(self.path, copy)
        self.database.close()
        kept = restore(copy, self.path)
        self.assertEqual(Rigs(Database(self.path)).open(self.rig).document, rig_of("check--three-passes"))
        assert kept  # noqa: S101
        self.assertEqual(Rigs(Database(kept)).open(self.rig).document["name"], "later")

    def test_restore_looks_first(self) -> None:
        foreign, torn, newer = (self.folder / name for name in ("foreign.db", "torn.db", "newer.db"))
        with sqlite3.connect(foreign) as other:
            other.execute("CREATE TABLE x (y)")
        backup(self.path, newer)
        with sqlite3.connect(newer) as other:
            other.execute("UPDATE alembic_version SET version_num = '9999'")
        backup(self.path, torn)
        torn.write_bytes(torn.read_bytes()[:5000])
        for path, cause in ((foreign, "no database of Noxel"), (torn, "damaged"), (newer, "newer than this Noxel knows")):
            with self.assertRaisesRegex(InputError, cause):
                restore(path, self.path)
        with self.assertRaises(NotFound):
            restore(self.folder / "none.db", self.path)
        self.assertEqual(self.rigs.open(self.rig).document, rig_of("check--three-passes"))

    def test_a_copy_is_kept_before_a_migration(self) -> None:
        old = self.folder / "old.db"
        with sqlite3.connect(old) as connection:
            connection.executescript((Path(__file__).parent / "first_version.sql").read_text(encoding="utf-8"))
        database = Database(old)
        self.addCleanup(database.close)
        self.assertEqual(version_of(old), known_versions()[0])
        self.assertEqual(version_of(self.folder / "old.version-0001.db"), "0001")

    def test_a_kill_in_the_middle_leaves_it_whole(self) -> None:
        with subprocess.Popen([sys.executable, "-c", _WRITER, str(self.path)], stdout=subprocess.PIPE, text=True) as writer:
            stdout = writer.stdout
            assert stdout  # noqa: S101
            while "going" not in stdout.readline():
                pass
            os.kill(writer.pid, signal.SIGKILL)
        with sqlite3.connect(self.path) as connection:
            self.assertEqual(connection.execute("PRAGMA integrity_check").fetchone(), ("ok",))
        document = Rigs(Database(self.path)).open(self.rig).document
        self.assertEqual(document["name"], document["vehicle"]["name"])  # both of a step, or neither
        self.assertEqual(json.loads(json.dumps(document["weigh_ins"])), rig_of("check--three-passes")["weigh_ins"])
