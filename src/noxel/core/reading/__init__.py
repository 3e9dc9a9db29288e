"""Labels and tickets as figures: read from a photograph's lines or from pasted text, to be looked
at before they are kept.
"""

from noxel.core.reading.pieces import Piece, pieces_of
from noxel.core.reading.read import LONGEST_PASTED, ReadFigure, read_pieces, read_text
from noxel.core.reading.words import Part, part_of

__all__ = [
    "LONGEST_PASTED",
    "Part",
    "Piece",
    "ReadFigure",
    "part_of",
    "pieces_of",
    "read_pieces",
    "read_text",
]
