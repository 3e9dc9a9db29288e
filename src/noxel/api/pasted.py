"""``/api/rigs/{id}/pasted``: a label or a weigh message as text, taken apart to be looked at.
Nothing is kept here.
"""

import re
from typing import Annotated

from pydantic import BaseModel, Field

from noxel.api.deps import Id, Store, new_router
from noxel.core.editing import settle, value_at
from noxel.core.plates import LONGEST_PASTED, Part, part_of, read_pasted
from noxel.core.rig import read_path, write_path
from noxel.errors import InputError, Problem

router = new_router()


class PastedText(BaseModel):
    """A text, what it is of (absent: by its words), and the pass that a weigh message is for, such
    as ``weigh_ins[0].passes[1]``.
    """

    text: Annotated[str, Field(max_length=LONGEST_PASTED)]
    part: Part | None = None
    into: Annotated[str | None, Field(max_length=100)] = None


class PastedFigure(BaseModel):
    """A figure that was understood: where it belongs, what to type there, the words it came from,
    and what is there now.
    """

    path: str
    label: str
    text: str
    words: str
    unit_assumed: bool
    now: str | None


class PastedAnswer(BaseModel):
    """What the text seems to be of, and every figure in it."""

    part: Part
    found: list[PastedFigure]


@router.post("/rigs/{rig_id}/pasted")
def take_apart(rig_id: Id, pasted: PastedText, rigs: Store) -> PastedAnswer:
    """Take a pasted label or weigh message apart; the figures are kept by an ordinary change."""
    at = {}
    if pasted.into is not None:
        if not re.fullmatch(r"weigh_ins\[\d{1,6}\]\.passes\[\d{1,3}\]", pasted.into, re.ASCII):
            raise InputError(
                "into: is not a pass.",
                [Problem("into", "is not a pass such as weigh_ins[0].passes[1]")],
            )
        at = {"pass": pasted.into, "weigh_in": write_path(read_path(pasted.into)[:2])}
    document = rigs.open(rig_id).document
    own = value_at(document, (*read_path(pasted.into), "unit")) if pasted.into else None
    if own:
        at["unit"] = str(own)
    part = pasted.part or part_of(pasted.text)
    found = []
    for each in read_pasted(settle(document).rig, pasted.text, part, at):
        now = value_at(document, read_path(each.path))
        found.append(
            PastedFigure(
                path=each.path,
                label=each.label,
                text=each.text,
                words=each.words,
                unit_assumed=each.unit_assumed,
                now=None if now is None else str(now),
            )
        )
    return PastedAnswer(part=part, found=found)
