"""Safekeeping: a backup while the application runs, and a restore that looks at the file first."""

import itertools
import sqlite3
from contextlib import closing, suppress
from pathlib import Path

from alembic.config import Config
from alembic.script import ScriptDirectory

from noxel.errors import InputError, NotFound


def migrations() -> Config:
    """Where the steps from each version of a database to the next lie."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations").replace("%", "%%"))
    return config


def known_versions() -> list[str]:
    """Every version that a database of Noxel may have, the newest first."""
    return [script.revision for script in ScriptDirectory.from_config(migrations()).walk_revisions()]


def version_of(path: Path) -> str | None:
    """The version of a database file, or None when it is none of ours.

    Raises
    ------
    InputError
        If it is not a database, or a damaged one.
    """
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True)) as connection:
            whole = connection.execute("PRAGMA integrity_check").fetchone()[0]
            if whole != "ok":
                raise InputError(f"{path.name} is damaged: {whole}")
            tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if "alembic_version" not in tables or "rigs" not in tables:
                return None
            row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
            return str(row[0]) if row else None
    except sqlite3.DatabaseError as exc:
        raise InputError(f"{path.name} is not a database, or a damaged one: {exc}") from exc


def backup(source: Path, target: Path) -> None:
    """Copy a database while it is in use; the copy is whole or not there at all.

    Raises
    ------
    NotFound
        If there is no database.
    InputError
        If the copy cannot be written, or something stands where it would go.
    """
    if not source.exists():
        raise NotFound(f"There is no database at {source}.")
    if target.exists():
        raise InputError(f"{target} is there already; a backup overwrites nothing.")
    part = target.with_name(target.name + ".part")
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(part)) as copy:
            live.backup(copy)
        part.rename(target)
    except (OSError, sqlite3.Error) as exc:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise InputError(f"The backup could not be written: {exc}") from exc


def restore(source: Path, target: Path) -> Path | None:
    """Put a backup in place of a database, after looking at it; what was there is kept beside, and its name returned.

    It may be in use: all of it changes in one transaction, and who has it open sees the restored one from then on.

    Raises
    ------
    NotFound
        If there is no such file.
    InputError
        If it is damaged, no database of Noxel, or of a version that this Noxel does not know; or it cannot be written.
    """
    if not source.exists():
        raise NotFound(f"There is no file {source}.")
    version = version_of(source)
    if version is None:
        raise InputError(f"{source.name} is not a database of Noxel.")
    if version not in known_versions():
        raise _too_new(source, version)
    if not target.exists():
        backup(source, target)
        return None
    names = (target.with_name(f"{target.stem}.before-restore-{number}{target.suffix}") for number in itertools.count(1))
    kept = next(name for name in names if not name.exists())
    try:
        version_of(target)
    except InputError:  # what is there is damaged: kept as it is, and nobody can be using it
        target.rename(kept)
        for suffix in ("-wal", "-shm"):
            Path(f"{target}{suffix}").unlink(missing_ok=True)
        backup(source, target)
        return kept
    backup(target, kept)
    try:
        with closing(sqlite3.connect(source)) as copy, closing(sqlite3.connect(target, timeout=30)) as live:
            copy.backup(live)
    except sqlite3.Error as exc:
        raise InputError(f"It could not be restored, and nothing was changed: {exc}") from exc
    return kept


def _too_new(path: Path, version: str) -> InputError:
    return InputError(
        f"{path.name} is of version {version}, newer than this Noxel knows. Use the Noxel that wrote it, or a later one."
    )


def before_migration(path: Path) -> Path | None:
    """Keep a copy of a database that is about to be brought to a newer form; None when it is new or current.

    Raises
    ------
    InputError
        If it is damaged, or of a version that this Noxel does not know.
    """
    if not path.exists():
        return None
    version = version_of(path)
    known = known_versions()
    if version is None or version == known[0]:
        return None
    if version not in known:
        raise _too_new(path, version)
    kept = path.with_name(f"{path.stem}.version-{version}{path.suffix}")
    if not kept.exists():
        backup(path, kept)
    return kept
