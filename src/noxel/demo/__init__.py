"""The demo household: four invented rigs, each with something worth finding, as rig files."""

from importlib.resources import files
from pathlib import Path

from noxel.core.rig import RigFile, dump_rig
from noxel.formats.rig_json import SUFFIX, read_rig
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from noxel.store.seal import Seal

RIGS = ("shadows", "library", "pottery", "observatory")
"""In the order loaded: the last one is the first in the list."""


def example() -> RigFile:
    """The first of the demo rigs: what comes out, for whoever has none yet."""
    return read_rig((files("noxel.demo") / f"{RIGS[-1]}{SUFFIX}").read_bytes())


def load_demo(rigs: Rigs, *, example: bool = False) -> list[str]:
    """Add the demo rigs, marked as examples or not; returns their ids."""
    folder = files("noxel.demo")
    return [
        rigs.add(dump_rig(read_rig((folder / f"{name}{SUFFIX}").read_bytes())), example=example)
        for name in RIGS
    ]


def open_demo(path: Path, *, fresh: bool = False) -> Database:
    """Open the demo's own database; the first time, or when asked, with the demo's own figures."""
    if fresh:
        for suffix in ("", "-wal", "-shm", ".seal"):
            Path(f"{path}{suffix}").unlink(missing_ok=True)
    Seal(path).forget()  # the demo's figures can always be had again
    database = Database(path)
    rigs = Rigs(database)
    if not rigs.summaries():
        load_demo(rigs)
    return database
