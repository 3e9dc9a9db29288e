"""``/api/rigs/{id}/pasted`` and ``…/photos/{photo}/read``: a label or a ticket as text or as a
photograph, taken apart to be looked at. Nothing is kept here.
"""

import datetime
import re
from collections.abc import Sequence
from typing import Annotated, Any

from fastapi import Depends, Request
from pydantic import BaseModel, Field

from noxel.api.deps import Id, TheRigs, new_router
from noxel.api.photos import PhotoId, ThePhotos
from noxel.core.editing import settle, value_at
from noxel.core.quantities import MassUnit
from noxel.core.reading import (
    LONGEST_PASTED,
    Part,
    Piece,
    ReadFigure,
    beside_entered,
    part_of,
    pieces_of,
    read_pieces,
    receiver_among,
)
from noxel.core.rig import read_path, write_path
from noxel.errors import InputError, Problem
from noxel.reader import HOW_TO_ADD, Reader

router = new_router()
_PASS = re.compile(r"weigh_ins\[\d{1,6}\]\.passes\[\d{1,3}\]", re.ASCII)


class AskedOf(BaseModel):
    """What a text or a photograph is of (absent: by its words), and the pass that a ticket is for,
    such as ``weigh_ins[0].passes[1]``.
    """

    part: Part | None = None
    into: Annotated[str | None, Field(max_length=100)] = None


class PastedText(AskedOf):
    """A text to be taken apart."""

    text: Annotated[str, Field(max_length=LONGEST_PASTED)]


class FigureOut(BaseModel):
    """A figure that was understood: where it belongs, what to type there, the words it came from,
    what is there now, and why to look twice, where there is a reason. ``frame`` is where it stands
    on the photograph, in shares of its width and height.
    """

    path: str
    label: str
    text: str
    words: str
    unit_assumed: bool
    now: str | None
    doubt: str | None
    frame: list[tuple[float, float]] | None


class TakenApart(BaseModel):
    """What it seems to be of, and every figure in it. ``before`` are the changes that must come
    first, ``unit`` is that of figures without one; ``turned`` is by how many degrees to the left
    the photograph is to be shown.
    """

    part: Part
    unit: MassUnit
    figures: list[FigureOut]
    before: list[dict[str, Any]] = []
    turned: int = 0


class CanRead(BaseModel):
    """Whether photographs can be read here, and what to do where not."""

    reads: bool
    how: str


def reader_of(request: Request) -> Reader:
    """The reader of the running application."""
    reader: Reader = request.app.state.reader
    return reader


TheReader = Annotated[Reader, Depends(reader_of)]


@router.get("/reads")
def can_read(reader: TheReader) -> CanRead:
    """Whether photographs can be read here."""
    return CanRead(reads=reader.there(), how=HOW_TO_ADD)


@router.post("/rigs/{rig_id}/pasted")
def take_apart(rig_id: Id, pasted: PastedText, rigs: TheRigs) -> TakenApart:
    """Take a pasted label or ticket apart; the figures are kept by an ordinary change."""
    document = rigs.open(rig_id).document
    return _apart(document, pieces_of(pasted.text), pasted)


@router.post("/rigs/{rig_id}/photos/{photo}/read")
def read_photo(
    rig_id: Id, photo: PhotoId, asked: AskedOf, rigs: TheRigs, photos: ThePhotos, reader: TheReader
) -> TakenApart:
    """Read a kept photograph; the figures are kept by an ordinary change."""
    document = rigs.open(rig_id).document
    picture = reader.read(photos.picture(rig_id, photo, small=False))
    pieces = [Piece(word.text, word.corners, word.sure, word.line) for word in picture.words]
    answer = _apart(document, pieces, asked, (picture.width, picture.height))
    return answer.model_copy(update={"turned": picture.turned})


def _apart(
    document: dict[str, Any],
    pieces: Sequence[Piece],
    asked: AskedOf,
    size: tuple[int, int] | None = None,
) -> TakenApart:
    places, before = _places(document, asked.into), list[dict[str, Any]]()
    rig = settle(document).rig
    text = "\n".join(piece.text for piece in pieces)
    part = asked.part or ("pass" if asked.into else part_of(text))
    if part == "hitch":
        places["hitch"], before = _hitch_part(document)
    figures = [_out(document, figure, size) for figure in read_pieces(rig, pieces, part, places)]
    unit: MassUnit = rig.units.mass
    if part == "pass" and places.get("unit") in ("lb", "kg"):
        unit = "kg" if places["unit"] == "kg" else "lb"
    return TakenApart(part=part, unit=unit, figures=figures, before=before if figures else [])


def _places(document: dict[str, Any], into: str | None) -> dict[str, str]:
    """Where a ticket goes, and the unit of its pass.

    Raises InputError if that is no pass.
    """
    if into is None:
        return {"pass": "ticket", "weigh_in": "ticket"}  # one that is still being noted
    if not _PASS.fullmatch(into):
        raise InputError(
            "into: is not a pass.",
            [Problem("into", "is not a pass such as weigh_ins[0].passes[1]")],
        )
    places = {"pass": into, "weigh_in": write_path(read_path(into)[:2])}
    for name in ("unit", "config"):
        own = value_at(document, (*read_path(into), name))
        places |= {name: str(own)} if own and own != "trailer_only" else {}
    return places


def _hitch_part(document: dict[str, Any]) -> tuple[str, list[dict[str, Any]]]:
    """The part that a hitch's label is of: the receiver, which is added where there is none."""
    parts = document.get("hitch", {}).get("parts", [])
    number = receiver_among(parts)
    path = f"hitch.parts[{number}]"
    if number < len(parts):
        return path, []
    return path, [{"path": path, "op": "insert", "value": {"kind": "receiver"}}]


def _out(document: dict[str, Any], figure: ReadFigure, size: tuple[int, int] | None) -> FigureOut:
    noted = figure.path.startswith("ticket.")
    now = None if noted else value_at(document, read_path(figure.path))
    figure = beside_entered(figure, now, datetime.date.today())
    frame = None
    if size and figure.corners:
        frame = [(round(x / size[0], 4), round(y / size[1], 4)) for x, y in figure.corners]
    return FigureOut(
        path=figure.path,
        label=figure.label,
        text=figure.text,
        words=figure.words,
        unit_assumed=figure.unit_assumed,
        now=None if now is None else str(now),
        doubt=figure.doubt,
        frame=frame,
    )
