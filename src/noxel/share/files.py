"""Files that are there whole or not at all, also after a power cut."""

import os
from pathlib import Path


def put_in_place(path: Path, content: bytes) -> None:
    """Write a file that nobody else reads; what was there stands until the new one is on the disk
    under its name.

    Raises OSError if the disk refuses.
    """
    draft = path.with_suffix(".new")
    with os.fdopen(os.open(draft, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as file:
        file.write(content)
        file.flush()
        os.fsync(file.fileno())
    draft.replace(path)
    folder = os.open(path.parent, os.O_RDONLY)
    try:
        os.fsync(folder)  # the name, too
    finally:
        os.close(folder)
