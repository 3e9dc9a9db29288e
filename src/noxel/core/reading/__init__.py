"""Labels and tickets as figures: read from a photograph's lines or from pasted text, to be looked
at before they are kept.
"""

from noxel.core.reading.hitches import receiver_among
from noxel.core.reading.pieces import Piece, pieces_of
from noxel.core.reading.read import (
    LONGEST_PASTED,
    ReadFigure,
    beside_entered,
    read_pieces,
    read_text,
)
from noxel.core.reading.words import Part, part_of

__all__ = [
    "LONGEST_PASTED",
    "Part",
    "Piece",
    "ReadFigure",
    "beside_entered",
    "part_of",
    "pieces_of",
    "read_pieces",
    "read_text",
    "receiver_among",
]
