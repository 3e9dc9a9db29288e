"""Safekeeping: backup while writing, restore that looks first, a copy before each migration, a kill
in the middle of a save.
"""

import itertools
import json
import os
import queue
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import unittest
from contextlib import closing
from pathlib import Path

from noxel.core.editing import Change, Document, apply_changes
from noxel.errors import InputError, NotFound, StorageFault
from noxel.store.backup import backup, restore
from noxel.store.database import Database
from noxel.store.database_file import known_versions, version_of
from noxel.store.rigs import Rigs
from tests import some
from tests.truth import bare, rig_of

_WRITER = """
import sys
from pathlib import Path
from noxel.core.editing import Change, Document, apply_changes
from noxel.store.database import Database
from noxel.store.rigs import Rigs
rigs = Rigs(Database(Path(sys.argv[1])))
rig = rigs.summaries()[0].id
print("ready", flush=True)
for number in range(100_000):
    change = [Change("name", f"name {number}"), Change("vehicle.name", f"name {number}")]
    made = lambda document, change=change: apply_changes(document, change).document
    rigs.change(rig, "names", made)
    if number == 20:
        print("going", flush=True)
"""


_IMPORTER = """
import sys
from pathlib import Path
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from tests.truth import rig_of
document = rig_of("check--three-passes") | {"name": "brought in"}
document["weigh_ins"] = document["weigh_ins"] * 6000
def told(done, of, says):
    if says == "keeping weigh-ins":
        print("going", flush=True)
documents = [document | {"note": str(number)} for number in range(3)]
Rigs(Database(Path(sys.argv[1]))).add_all(documents, told)
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
        self.rigs.change(
            self.rig,
            "name",
            lambda document: apply_changes(document, [Change("name", "later")]).document,
        )
        with self.assertRaisesRegex(InputError, "overwrites nothing"):
            backup(self.path, copy)
        kept = restore(copy, self.path)  # with the database open, as while the page is served
        self.assertEqual(bare(self.rigs.open(self.rig)), rig_of("check--three-passes"))
        self.rigs.change(
            self.rig,
            "name",
            lambda document: apply_changes(document, [Change("name", "after")]).document,
        )
        self.assertEqual(Rigs(Database(self.path)).open(self.rig).document["name"], "after")
        assert kept  # noqa: S101
        self.assertEqual(Rigs(Database(kept / "noxel.db")).open(self.rig).document["name"], "later")

    def test_a_restore_under_writers_loses_no_acknowledged_edit(self) -> None:
        """Each edit adds an item. Whatever was acknowledged is in what was kept aside, or in what
        was written after the restore.
        """
        copy = self.folder / "copy.db"
        backup(self.path, copy)
        stop, told = threading.Event(), queue.Queue[str]()
        acknowledged: set[str] = set()

        def write(who: int, rigs: Rigs) -> None:
            for number in itertools.count():
                if stop.is_set():
                    return
                item = {"name": f"{who}.{number}", "on": "vehicle", "mass": 1}
                put_in = [Change("loads[0]", op="insert", value=item)]

                def add(document: Document, change: list[Change] = put_in) -> Document:
                    return apply_changes(document, change).document

                rigs.change(self.rig, "add", add)
                told.put(str(item["name"]))

        databases = [Database(self.path) for _ in range(2)]
        writers = [
            threading.Thread(target=write, args=[who, Rigs(database)], daemon=True)
            for who, database in enumerate(databases)
        ]
        for writer in writers:
            writer.start()
        aside: list[Path] = []
        for _ in range(some(5)):
            acknowledged |= {told.get(timeout=60) for _ in range(4)}
            aside.append(restore(copy, self.path) or self.path)
        stop.set()
        for writer in writers:
            writer.join(60)
        acknowledged |= {told.get() for _ in range(told.qsize())}
        databases += [Database(folder / "noxel.db") for folder in aside]
        documents = [Rigs(database).open(self.rig).document for database in databases]
        there = {load["name"] for document in documents for load in document.get("loads", ())}
        self.assertEqual(acknowledged - there, set())
        for database in databases:
            database.close()

    def test_a_database_copied_without_its_log_is_refused(self) -> None:
        """After a stop one file holds everything; before, the log beside it does."""
        alone, whole = self.folder / "alone" / "noxel.db", self.folder / "whole" / "noxel.db"
        for each in (alone, whole):
            each.parent.mkdir()
        alone.write_bytes(
            self.path.read_bytes()
        )  # while it is open: what is in the log is not here
        with self.assertRaisesRegex(InputError, "copied without noxel.db-wal"):
            Database(alone)
        self.database.close()
        self.assertFalse(Path(f"{self.path}-wal").exists())
        whole.write_bytes(self.path.read_bytes())
        self.assertEqual(bare(Rigs(Database(whole)).open(self.rig)), rig_of("check--three-passes"))

    def test_the_page_hands_out_the_same(self) -> None:
        copy = self.folder / "copy.db"
        pages: list[tuple[int, int]] = []
        self.rigs.back_up(copy, lambda done, of, _says: pages.append((done, of)))
        self.assertEqual(*pages[-1])
        self.rigs.change(
            self.rig,
            "name",
            lambda document: apply_changes(document, [Change("name", "later")]).document,
        )
        restore(copy, self.path)
        self.assertEqual(bare(self.rigs.open(self.rig)), rig_of("check--three-passes"))

    def everything(self) -> dict[str, bytes]:
        """What lies in the folder of the database, byte for byte, but for the copies and the log's
        index.
        """
        return {
            path.name: path.read_bytes()
            for path in self.folder.iterdir()
            if path.is_file() and path.suffix != ".db-shm"
        }

    def test_a_damaged_database_is_set_aside_with_its_log(self) -> None:
        copy = self.folder / "copy.db"
        backup(self.path, copy)
        self.database.close()
        garbage, log = b"SQLite format 3\0" + b"x" * 5000, b"the last edits"
        self.path.write_bytes(garbage)
        Path(f"{self.path}-wal").write_bytes(log)
        kept = restore(copy, self.path)
        assert kept  # noqa: S101
        self.assertEqual((kept / "noxel.db").read_bytes(), garbage)
        self.assertEqual((kept / "noxel.db-wal").read_bytes(), log)
        self.assertRegex(kept.name, r"noxel\.before-\d{4}-\d\d-\d\d-\d{6}")
        self.assertEqual(
            bare(Rigs(Database(self.path)).open(self.rig)), rig_of("check--three-passes")
        )

    def test_nothing_is_touched_that_cannot_be_judged_or_kept(self) -> None:
        copy = self.folder / "copy.db"
        backup(self.path, copy)
        self.database.close()
        with closing(sqlite3.connect(self.path)) as other:
            other.execute("PRAGMA locking_mode = EXCLUSIVE")
            other.execute("BEGIN EXCLUSIVE")
            before = self.everything()
            with self.assertRaisesRegex(StorageFault, "Another program holds the database"):
                restore(copy, self.path)
            self.assertEqual(self.everything(), before)
        foreign = self.folder / "sub" / "noxel.db"
        foreign.parent.mkdir()
        with closing(sqlite3.connect(foreign)) as other:
            other.execute("CREATE TABLE x (y)")
        kept = foreign.read_bytes()
        for refused in (lambda: restore(copy, foreign), lambda: Database(foreign)):
            with self.assertRaisesRegex(InputError, "another program's database"):
                refused()
        self.assertEqual(foreign.read_bytes(), kept)

    def test_lost_saves_are_noticed(self) -> None:
        """The log is deleted, or overwritten, after the process was killed: the main file alone is
        an older state.
        """
        for spoil in (Path.unlink, lambda log: log.write_bytes(b"x" * log.stat().st_size)):
            folder = tempfile.TemporaryDirectory()
            self.addCleanup(folder.cleanup)
            path = Path(folder.name) / "noxel.db"
            for name in ("noxel.db", "noxel.db-wal", "noxel.db.seal"):  # as a kill leaves them
                (path.parent / name).write_bytes((self.folder / name).read_bytes())
            log = Path(f"{path}-wal")
            self.assertGreater(log.stat().st_size, 0)
            spoil(log)
            with self.assertRaisesRegex(InputError, "The last 1 saves are missing"):
                Database(path)
            opened = Database(path, as_is=True)
            self.addCleanup(opened.close)
            self.assertEqual(Rigs(opened).summaries(), [])
            self.assertEqual(len(list(path.parent.glob("noxel.before-*/noxel.db"))), 1)

    def test_a_backup_opens_from_a_medium_that_can_only_be_read(self) -> None:
        medium = self.folder / "medium"
        backup(self.path, medium / "copy.db")
        (medium / "copy.db").chmod(0o400)
        medium.chmod(0o500)
        self.addCleanup(medium.chmod, 0o700)
        self.assertEqual(version_of(medium / "copy.db"), known_versions()[0])
        self.assertEqual([path.name for path in medium.iterdir()], ["copy.db"])
        restore(medium / "copy.db", self.folder / "elsewhere" / "noxel.db")

    def test_only_this_user_reads_it(self) -> None:
        fresh = Database(self.folder / "home" / "data" / "noxel.db")
        self.addCleanup(fresh.close)
        Rigs(fresh).add(rig_of("check--three-passes"))
        self.assertEqual((self.folder / "home" / "data").stat().st_mode & 0o777, 0o700)
        for path in (self.folder / "home" / "data").iterdir():
            self.assertEqual(path.stat().st_mode & 0o777, 0o600, path)

    def test_restore_looks_first(self) -> None:
        foreign, torn, newer = (
            self.folder / name for name in ("foreign.db", "torn.db", "newer.db")
        )
        with sqlite3.connect(foreign) as other:
            other.execute("CREATE TABLE x (y)")
        backup(self.path, newer)
        with sqlite3.connect(newer) as other:
            other.execute("UPDATE alembic_version SET version_num = '9999'")
        backup(self.path, torn)
        torn.write_bytes(torn.read_bytes()[:5000])
        for path, cause in (
            (foreign, "is not a database of Noxel"),
            (torn, "damaged"),
            (newer, "newer than this Noxel knows"),
        ):
            with self.assertRaisesRegex(InputError, cause):
                restore(path, self.path)
        with self.assertRaises(NotFound):
            restore(self.folder / "none.db", self.path)
        self.assertEqual(bare(self.rigs.open(self.rig)), rig_of("check--three-passes"))

    def test_a_copy_is_kept_before_a_migration(self) -> None:
        old = self.folder / "old.db"
        with sqlite3.connect(old) as connection:
            connection.executescript(
                (Path(__file__).parent / "first_version.sql").read_text(encoding="utf-8")
            )
        database = Database(old)
        self.addCleanup(database.close)
        self.assertEqual(version_of(old), known_versions()[0])
        self.assertEqual(version_of(self.folder / "old.version-0001.db"), "0001")

    def kill_while_going(self, script: str) -> None:
        with subprocess.Popen(
            [sys.executable, "-c", script, str(self.path)], stdout=subprocess.PIPE, text=True
        ) as writer:
            stdout = writer.stdout
            assert stdout  # noqa: S101
            while "going" not in stdout.readline():
                self.assertIsNone(writer.poll())
            os.kill(writer.pid, signal.SIGKILL)
        with sqlite3.connect(self.path) as connection:
            self.assertEqual(connection.execute("PRAGMA integrity_check").fetchone(), ("ok",))

    def test_a_kill_in_the_middle_of_an_import_leaves_nothing_of_it(self) -> None:
        self.kill_while_going(_IMPORTER)
        rigs = Rigs(Database(self.path))
        self.assertEqual([rig.id for rig in rigs.summaries()], [self.rig])
        self.assertEqual(bare(rigs.open(self.rig)), rig_of("check--three-passes"))

    def test_a_kill_in_the_middle_leaves_it_whole(self) -> None:
        self.kill_while_going(_WRITER)
        document = bare(Rigs(Database(self.path)).open(self.rig))
        # both of a step, or neither
        self.assertEqual(document["name"], document["vehicle"]["name"])
        self.assertEqual(
            json.loads(json.dumps(document["weigh_ins"])),
            rig_of("check--three-passes")["weigh_ins"],
        )
