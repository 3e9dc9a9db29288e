"""The sheet: one rig as the page shows it. What was typed, what it means, and the whole evaluation
of it.
"""

import datetime
from typing import Annotated, Any

from fastapi import Response
from pydantic import BaseModel, Field
from pydantic_core import to_json

from noxel.core.editing import Change, Edited, FieldState, settle
from noxel.core.evaluate import evaluate_at
from noxel.core.pack import PackAnswer, evaluate_pack
from noxel.core.plates import LONGEST_TABLE, PlatesAnswer, evaluate_plates
from noxel.core.quantities import LengthUnit, MassUnit, PressureUnit
from noxel.core.rig import Kind, RigFile, TermSet
from noxel.core.wording import Evaluation
from noxel.formats.lists import Layout
from noxel.store.stored import Stored


class WindowOut(BaseModel):
    """Which weigh-ins ``rig`` holds, in order: the one looked at and the last ones. Numbers count
    from 1 in the whole log of ``count``.
    """

    numbers: list[int]
    count: int


class Sheet(BaseModel):
    """One rig as the page shows it; ``shared`` names, for its vehicle, hitch and trailer, the other
    rigs that have them.

    ``evaluation.weigh_in`` is the place of the weigh-in looked at among those that ``rig`` holds.
    """

    id: str
    revision: int
    edits: int
    epoch: str
    saved_at: datetime.datetime
    undo: str | None
    redo: str | None
    rig: RigFile
    window: WindowOut
    fields: list[FieldState]
    evaluation: Evaluation
    pack: PackAnswer
    plates: PlatesAnswer
    shared: dict[str, list[str]]


class Changes(BaseModel):
    """Changes that belong together; those of one gesture (typing in one field) are undone together.

    Paths name elements by identity. ``seen`` and ``epoch`` are those of the sheet that they were
    typed under, ``by`` the page where, if another one sends them: a figure that somebody else set
    since is a conflict, unless its path is among ``overrules``.
    """

    changes: Annotated[list[Change], Field(min_length=1, max_length=500)]
    what: Annotated[str, Field(max_length=200)] = "a change"
    gesture: Annotated[str, Field(max_length=64)] | None = None
    seen: Annotated[int | None, Field(ge=0, le=2**53)] = None
    epoch: Annotated[str | None, Field(max_length=32)] = None
    by: Annotated[str | None, Field(max_length=64)] = None
    overrules: Annotated[list[Annotated[str, Field(max_length=300)]], Field(max_length=500)] = []


class NewUnits(BaseModel):
    """The units to work in from now on."""

    mass: MassUnit
    length: LengthUnit | None = None
    pressure: PressureUnit | None = None


class MakersTable(BaseModel):
    """A maker's table as typed or pasted, for a path of the rig file: a tire's pressures, a ball
    mount's ratings by drop.
    """

    path: Annotated[str, Field(max_length=100)]
    text: Annotated[str, Field(max_length=LONGEST_TABLE)]


class NewRig(BaseModel):
    """What a new rig needs to start; ``alone`` is a vehicle that tows nothing so far."""

    name: Annotated[str, Field(max_length=200)] = ""
    kind: Kind
    mass: MassUnit
    terms: TermSet = "north_america"
    alone: bool = False


class AsWritten(BaseModel):
    """How a table from a spreadsheet is written: separator, decimal sign, header, which column is
    what, unit of bare masses.
    """

    delimiter: Annotated[str, Field(min_length=1, max_length=1)]
    decimal_comma: bool
    header: bool
    columns: dict[Any, Any]
    mass: MassUnit

    def layout(self) -> Layout:
        """The same for the reader."""
        return Layout(
            self.delimiter,
            self.decimal_comma,
            self.header,
            {str(name): place for name, place in self.columns.items()},
        )


def answer_sheet(stored: Stored) -> Response:
    """The sheet as JSON. It is written at every keystroke: the rig's document is what its model
    would write.
    """
    edited = stored.edited or settle(stored.document)
    rest = make_sheet(stored, edited).model_dump_json(exclude={"rig"})
    document = to_json(edited.document).decode()
    return Response(f'{rest[:-1]},"rig":{document}}}', media_type="application/json")


def make_sheet(stored: Stored, edited: Edited) -> Sheet:
    """The sheet of a stored rig as it was settled, looking at one of its weigh-ins."""
    window, looked_at = stored.window, stored.window.at
    evaluation = evaluate_at(edited.rig, looked_at)
    return Sheet(
        id=stored.id,
        revision=stored.revision,
        edits=stored.edits,
        epoch=stored.epoch,
        saved_at=stored.saved_at,
        undo=stored.undo,
        redo=stored.redo,
        rig=edited.rig,
        window=WindowOut(numbers=list(window.numbers), count=window.count),
        fields=list(edited.fields),
        evaluation=evaluation,
        pack=evaluate_pack(edited.rig, looked_at),
        plates=evaluate_plates(edited.rig, evaluation),
        shared=stored.shared,
    )
