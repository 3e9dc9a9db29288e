"""Safekeeping: a backup while the application runs, and a restore that never destroys the only
copy.
"""

import datetime
import itertools
import os
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path

from noxel.errors import InputError, NotFound, NoxelError, StorageFault
from noxel.store.database_file import (
    SIDES,
    Report,
    check_saves,
    copy_pages,
    known_versions,
    log_is_missing,
    read_only,
    silent,
    state_of,
    too_new,
)
from noxel.store.faults import fault_of
from noxel.store.seal import Seal


def backup(source: Path, target: Path, report: Report = silent) -> None:
    """Copy a database while it is in use; the copy is whole or not there at all.

    Raises NotFound if the database does not exist; InputError if the copy cannot be written, or
    something stands where it would go.
    """
    if not source.exists():
        raise NotFound(f"There is no database at {source}.")
    if target.exists():
        raise InputError(f"{target} is there already; a backup overwrites nothing.")
    part = target.with_name(target.name + ".part")
    try:
        target.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        os.close(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600))
        with closing(read_only(source)) as live, closing(sqlite3.connect(part)) as copy:
            copy_pages(live, copy, report)
        _to_disk(part)
        part.rename(target)
        _to_disk(target.parent)
    except (OSError, sqlite3.Error) as exc:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise InputError(f"The backup could not be written: {exc}") from exc


def backup_kept(
    source: Path,
    folder: Path,
    most: int,
    report: Report = silent,
) -> tuple[Path, list[Path]]:
    """Copy a database into a folder under the time, and drop the oldest of such copies above
    ``most``; the new one, and what was dropped.

    Raises NotFound or InputError as :func:`backup`; nothing is dropped then.
    """
    now = datetime.datetime.now().astimezone()
    copy = folder / f"noxel-{now:%Y-%m-%d-%H%M%S}.db"
    backup(source, copy, report)
    old = sorted(folder.glob("noxel-[0-9]*-[0-9]*.db"))[:-most]
    for path in old:
        path.unlink(missing_ok=True)
    return copy, old


def _to_disk(path: Path) -> None:
    """Wait until a file, or a folder's list of names, is on the disk."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def _aside(path: Path) -> Path:
    """A new folder beside a database, of this day and time, for what was there before."""
    stamp = f"{path.stem}.before-{datetime.datetime.now():%Y-%m-%d-%H%M%S}"
    names = itertools.chain([stamp], (f"{stamp}-{number}" for number in itertools.count(2)))
    folder = next(path.with_name(name) for name in names if not path.with_name(name).exists())
    with _keeping(folder):
        folder.mkdir(mode=0o700)
    return folder


@contextmanager
def _keeping(folder: Path) -> Iterator[None]:
    try:
        yield
    except OSError as exc:
        raise InputError(
            f"What is there cannot be kept in {folder}: {exc.strerror}. Nothing was changed."
        ) from exc


def keep_aside(path: Path) -> Path | None:
    """Copy a database with its write-ahead log, byte for byte, to a dated folder; None where there
    is none.

    Raises InputError if it cannot be kept.
    """
    sides = [Path(f"{path}{side}") for side in SIDES if Path(f"{path}{side}").exists()]
    if not sides:
        return None
    folder = _aside(path)
    with _keeping(folder):
        for file in sides:
            (folder / file.name).write_bytes(file.read_bytes())
            _to_disk(folder / file.name)
    return folder


def restore(
    source: Path, target: Path, *, bring_up: Callable[[Path], None] | None = None
) -> Path | None:
    """Put a backup in place of a database; what was there is kept in a dated folder beside it,
    whose path is returned.

    It may be in use: what is there is copied aside and replaced in one transaction, in which nobody
    else can write, and who has it open sees the restored one from then on. ``bring_up`` brings a
    copy of the backup to the newest form first.

    Raises NotFound if there is no such file; InputError if the backup is damaged, not of Noxel, or
    of a version that this Noxel does not know; if what is there is another program's; or if it
    cannot be kept. Nothing is changed then; StorageFault if another program holds the database, or
    the disk is full or refuses. Nothing is changed then.
    """
    if not source.exists():
        raise NotFound(f"There is no file {source}.")
    state, detail = state_of(source)
    if state == "damaged":
        raise InputError(
            f"{source.name} is damaged: {detail}. Use another backup; nothing was changed."
        )
    if state in ("foreign", "empty", "absent"):
        raise InputError(f"{source.name} is not a database of Noxel.")
    if state == "newer":
        raise too_new(source, detail)
    held, _ = state_of(target)
    if held == "foreign":
        raise InputError(
            f"{target} is another program's database. Move it away, or choose another folder with "
            "--data."
        )
    fresh = target.with_name(f"{target.name}.restored")
    fresh.unlink(missing_ok=True)
    try:
        backup(source, fresh)  # first, so that a full disk is found before anything is moved
        if bring_up is not None:
            bring_up(fresh)
        if held in ("absent", "damaged", "empty"):
            _begin_epoch(fresh)
            return _replace(fresh, target)
        return _put_in(fresh, target)
    finally:
        for side in (*SIDES, ".seal"):
            Path(f"{fresh}{side}").unlink(missing_ok=True)


def _put_in(fresh: Path, target: Path) -> Path:
    """Keep what is there and put a fresh database in its place, while nobody else can write."""
    folder = _aside(target)
    with closing(sqlite3.connect(target, timeout=120, isolation_level=None)) as live:
        try:
            live.execute("PRAGMA synchronous = FULL")
            live.execute("PRAGMA foreign_keys = OFF")
            live.execute("ATTACH ? AS fresh", (str(fresh),))
            live.execute("BEGIN IMMEDIATE")
            backup(target, folder / target.name)
            _copy_all(live)
            live.execute("COMMIT")
        except (sqlite3.Error, NoxelError) as exc:
            with suppress(sqlite3.Error):
                live.execute("ROLLBACK")
            with suppress(OSError):
                (folder / target.name).unlink(missing_ok=True)
                folder.rmdir()
            if isinstance(exc, sqlite3.Error):
                raise _refused(exc) from exc
            raise InputError(
                f"What is there could not be kept: {exc.message} Nothing was changed."
            ) from exc
    return folder


def _copy_all(live: sqlite3.Connection) -> None:
    """Everything of the attached database in place of everything of the main one, in the
    transaction that is open. It has another epoch, and no fewer saves than were counted before.
    """
    count = "SELECT name FROM sqlite_master WHERE type = 'table' AND name = 'saves'"
    saves = 0
    if live.execute(count).fetchone():
        [saves] = live.execute("SELECT count FROM saves").fetchone() or (0,)
    kinds = "SELECT type, name FROM main.sqlite_master WHERE name NOT LIKE 'sqlite_%'"
    parts = sorted(live.execute(kinds).fetchall(), key=lambda part: part[0] == "table")
    for kind, name in parts:  # what rests on a table goes before it
        live.execute(f'DROP {kind} IF EXISTS main."{name}"')
    rows = live.execute(
        "SELECT type, name, sql FROM fresh.sqlite_master "
        "WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite_%'"
    ).fetchall()
    for _, name, sql in (part for part in rows if part[0] == "table"):
        live.execute(sql)
        live.execute(f'INSERT INTO main."{name}" SELECT * FROM fresh."{name}"')
    for _, _, sql in (part for part in rows if part[0] != "table"):
        live.execute(sql)
    with suppress(sqlite3.OperationalError):  # one of an earlier version has neither yet
        live.execute(
            "UPDATE main.saves SET count = max(count, ?) + 1, epoch = lower(hex(randomblob(8)))",
            (saves,),
        )


def _begin_epoch(path: Path) -> None:
    """A restored database is another one for whoever typed into what was there before."""
    with closing(sqlite3.connect(path)) as connection, suppress(sqlite3.OperationalError):
        # one of an earlier version has no epoch yet; it gets one when it is opened
        connection.execute("UPDATE saves SET epoch = lower(hex(randomblob(8)))")
        connection.commit()


def _replace(fresh: Path, target: Path) -> Path | None:
    """Move what is there, all its files together, to a dated folder, and put a fresh database in
    its place; None where nothing was there.
    """
    Seal(target).forget()
    if not target.exists():
        fresh.rename(target)
        _to_disk(target.parent)
        return None
    folder = _aside(target)
    moved: list[tuple[Path, Path]] = []
    try:
        for file in [Path(f"{target}{side}") for side in SIDES]:
            if file.exists():
                file.rename(folder / file.name)
                moved.append((file, folder / file.name))
        fresh.rename(target)
        _to_disk(target.parent)
    except OSError as exc:
        for was, now_at in reversed(moved):
            now_at.rename(was)
        with suppress(OSError):
            folder.rmdir()
            fresh.unlink(missing_ok=True)
        raise InputError(
            f"What is there cannot be moved aside: {exc.strerror}. Nothing was changed."
        ) from exc
    Seal(target).forget()
    return folder


def _refused(exc: sqlite3.Error) -> NoxelError:
    try:
        fault = fault_of(exc)
    except sqlite3.Error:
        return InputError(f"It could not be restored, and nothing was changed: {exc}")
    return StorageFault(
        fault.code.removeprefix("storage."),
        f"It could not be restored, and nothing was changed. {fault.message}",
    )


def before_migration(path: Path, *, as_is: bool = False) -> Path | None:
    """Keep a copy of a database that is about to be brought to a newer form; None when it is new or
    current.

    Raises InputError if it is damaged, another program's, of a version that this Noxel does not
    know, or lacks its last saves (unless ``as_is``); StorageFault if another program holds it, or
    the disk refuses.
    """
    # photographs are nearly all of a large file; one that is broken is one picture less
    state, detail = state_of(path, but=frozenset({"photos"}))
    if state == "absent":
        return None
    if not as_is and state in ("empty", "ours"):
        check_saves(path)
    if state == "empty":
        if not as_is and log_is_missing(path):
            raise InputError(
                f"{path} was copied without {path.name}-wal beside it, and holds nothing by "
                "itself. Copy both, or use noxel backup; or begin anew with --as-is."
            )
        return None
    if state == "damaged":
        raise InputError(
            f"The database {path} is damaged: {detail}. Restore a backup: noxel restore FILE. It "
            "is kept as it is."
        )
    if state == "foreign":
        raise InputError(
            f"{path} is another program's database. Choose another folder with --data."
        )
    if state == "newer":
        raise too_new(path, detail)
    if detail == known_versions()[0]:
        return None
    kept = path.with_name(f"{path.stem}.version-{detail}{path.suffix}")
    if not kept.exists():
        backup(path, kept)
    return kept
