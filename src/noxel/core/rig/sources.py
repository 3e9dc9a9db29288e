"""Where each figure of a rig came from."""

from noxel.core.rig.base import Entered, Entry
from noxel.core.rig.paths import steps_of
from noxel.core.rig.rigfile import RigFile


def entry_at(rig: RigFile, path: str) -> Entry | None:
    """How the figure at a path was entered, if anything is remembered about it."""
    node: object = rig
    entry: Entry | None = None
    for part, left in steps_of(path):
        if node is None:
            break
        if isinstance(node, Entered) and node.entered:
            entry = node.entered.get(left, entry)
        if isinstance(part, int):
            node = node[part] if isinstance(node, tuple) and part < len(node) else None
            continue
        node = getattr(node, part, None)
    return entry


_SOURCE_WORDS = {
    "plate": "plate",
    "manual": "manual",
    "scale": "scale",
    "worked_out": "worked out",
    "guess": "guess",
}


def source_words(rig: RigFile, path: str) -> str:
    """Where the figure at a path came from, in words: ``"plate, 2026-10-02"``."""
    entry = entry_at(rig, path)
    if entry is None or entry.source is None:
        return "source not said"
    return f"{_SOURCE_WORDS[entry.source]}{f', {entry.date.isoformat()}' if entry.date else ''}"
