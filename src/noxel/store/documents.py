"""Documents as the tables keep them: compact JSON with a checksum, so that damage on the disk is
told from a bug.
"""

import hashlib
from typing import Any, Protocol

from pydantic_core import from_json, to_json

from noxel.errors import Damaged


class HasDocument(Protocol):
    """A row with a document."""

    document: Any
    checksum: Any


def dump(document: Any) -> str:
    """A document as the tables keep it."""
    return to_json(document).decode()


def checksum_of(text: str) -> str:
    """The checksum of a document's text, in 16 hexadecimal digits."""
    return hashlib.blake2s(text.encode(), digest_size=8).hexdigest()


def read_text(text: str, checksum: str | None, what: str) -> Any:
    """Read a document's text.

    ``text``: as stored. ``checksum``: as stored with it; None in a row that was last written before
    there were checksums. ``what``: what it is, for the error.

    Raises Damaged if it is not what was written.
    """
    try:
        if checksum is not None and checksum != checksum_of(text):
            raise ValueError("its checksum does not fit")
        value = from_json(text)
        if not isinstance(value, dict):
            raise TypeError("it is not a document")
    except (ValueError, TypeError, RecursionError) as exc:
        raise Damaged(
            f"{what} was damaged where it is stored ({exc}). Export it as it is, restore a "
            "backup, or delete it."
        ) from exc
    return value


def read_document(row: HasDocument, what: str) -> Any:
    """Read a row's document.

    Raises Damaged if it is not what was written.
    """
    return read_text(row.document, row.checksum, what)
