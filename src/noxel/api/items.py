"""``/api/rigs/{id}/items`` and what belongs to the load plan: jotted down, imported from
spreadsheets, started from a weigh-in.
"""

from typing import Annotated, Any, Literal

from fastapi import Response
from pydantic import BaseModel, Field

from noxel.api.deps import HowSent, Id, Looking, TheRigs, new_router
from noxel.api.problems import FieldProblem
from noxel.api.sheet import AsWritten, Sheet, answer_sheet
from noxel.core.editing import Change, Document, apply_changes, settle
from noxel.core.mechanics import rounded_length
from noxel.core.pack import lever_length_typed, read_item, start_from_weigh_in
from noxel.core.quantities import KG, METRES, LengthUnit, MassUnit, print_length, read_mass
from noxel.core.rig import Category, parse_rig
from noxel.errors import InputError, Problem, QuantityError
from noxel.formats.items_csv import COLUMNS, Column, guess, header_units, read_items, understood
from noxel.formats.lists import preview

router = new_router()


class QuickItem(BaseModel):
    """An item as jotted down, or several, one a line; on the vehicle or the trailer, at a place if
    one is given.
    """

    text: Annotated[str, Field(max_length=200_000)]
    on: Literal["vehicle", "trailer"]
    position: Annotated[str, Field(max_length=100)] = ""
    category: Category | None = None
    typical: bool = False


class ListAsWritten(AsWritten):
    """A list of items with the unit of bare lengths; what says nothing else goes ``on``."""

    columns: dict[Column, Annotated[int, Field(ge=0, le=200)]]
    length: LengthUnit
    on: Literal["vehicle", "trailer"] = "vehicle"


class ItemList(BaseModel):
    """A list of items from a spreadsheet; how it is written is guessed where it is not said."""

    text: Annotated[str, Field(max_length=5_000_000)]
    written: ListAsWritten | None = None


class ListPreview(BaseModel):
    """What would be added: how the list was understood, its first rows, what adds up, what cannot
    be read.
    """

    written: ListAsWritten
    columns: list[Column]
    rows: list[list[str]]
    count: int
    total: float
    problems: list[FieldProblem]


class Moved(BaseModel):
    """The tongue before and after a known item was moved, as typed; back is positive."""

    mass: Annotated[str, Field(max_length=100)]
    moved_back: Annotated[str, Field(max_length=100)]
    before: Annotated[str, Field(max_length=100)]
    after: Annotated[str, Field(max_length=100)]
    resolution: Annotated[str, Field(max_length=100)] = ""


class LeverLength(BaseModel):
    """The lever length that two tongue readings show, in the rig's unit of length: as it is
    printed, and as it is typed.
    """

    value: float
    plus_minus: float
    unit: LengthUnit
    says: str
    text: str


@router.post("/rigs/{rig_id}/items", response_model=Sheet)
def add_items(
    rig_id: Id, quick: QuickItem, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Add items as jotted down, one a line: all of them, or none and each bad line by its
    number.
    """

    def add(document: Document) -> Document:
        rig = parse_rig(document)
        changes: list[Change] = []
        problems: list[Problem] = []
        for number, line in enumerate(quick.text.splitlines(), 1):
            if not line.strip():
                continue
            try:
                item = read_item(line, rig.units.mass)
            except QuantityError as exc:
                problems.append(Problem(f"line {number}", exc.message, exc.code))
                continue
            texts = {"mass": str(item.pop("text")), "position": quick.position}
            more: dict[str, Any] = {"category": quick.category} if quick.category else {}
            if quick.typical:
                more["entered"] = {
                    "mass": {"source": "guess", "note": "typical, until it is weighed"}
                }
            changes.append(
                Change("loads", op="insert", value={**item, **more, "on": quick.on}, texts=texts)
            )
        if problems:
            raise InputError(f"Nothing was added. {problems[0]}", problems)
        return apply_changes(document, changes).document

    return answer_sheet(rigs.change(rig_id, "items", add, looking=weigh_in, sent=sent))


@router.post("/rigs/{rig_id}/items/preview")
def preview_list(rig_id: Id, wanted: ItemList, rigs: TheRigs) -> ListPreview:
    """Read a list without adding it: what was understood, and each line that cannot be."""
    rig = settle(rigs.open(rig_id).document).rig
    written = wanted.written
    if written is None:
        layout = guess(wanted.text)
        mass, length = header_units(wanted.text, layout)
        written = ListAsWritten(
            delimiter=layout.delimiter,
            decimal_comma=layout.decimal_comma,
            header=layout.header,
            columns=dict(layout.columns),
            mass=mass or rig.units.mass,
            length=length or rig.units.lengths,
        )
    rows = preview(
        wanted.text,
        written.layout(),
        understood(written.layout(), written.mass, written.length),
    )
    items: list[dict[str, Any]] = []
    problems: list[FieldProblem] = []
    try:
        items = read_items(
            wanted.text, written.layout(), mass=written.mass, length=written.length, on=written.on
        )
    except InputError as exc:
        problems = [
            FieldProblem(path=problem.path, message=problem.message, code=problem.code)
            for problem in exc.problems
        ]
    total = (
        sum(_kg(item["mass"], written.mass) * item.get("quantity", 1) for item in items)
        / KG[rig.units.mass]
    )
    return ListPreview(
        written=written,
        columns=list(COLUMNS),
        rows=rows,
        count=len(items),
        total=total,
        problems=problems[:50],
    )


@router.post("/rigs/{rig_id}/items/import", response_model=Sheet)
def import_list(
    rig_id: Id, wanted: ItemList, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Add a list: all of it, or nothing and each bad line by its number."""
    written = wanted.written
    if written is None:
        raise InputError(
            "Say how the list is written.", [Problem("written", "is missing", "missing")]
        )

    def add(document: Document) -> Document:
        units = settle(document).rig.units
        items = read_items(
            wanted.text,
            written.layout(),
            mass=written.mass,
            length=written.length,
            on=written.on,
            into=units,
        )
        return apply_changes(
            {**document, "loads": [*document.get("loads", []), *items]}, []
        ).document

    return answer_sheet(rigs.change(rig_id, "imported items", add, looking=weigh_in, sent=sent))


@router.post("/rigs/{rig_id}/lever-length")
def lever_length(rig_id: Id, moved: Moved, rigs: TheRigs) -> LeverLength:
    """Coupler to axles, from the tongue before and after a known item was moved."""
    rig = settle(rigs.open(rig_id).document).rig
    unit = rig.units.lengths
    lengths = lever_length_typed(rig, moved.model_dump())
    return LeverLength(
        value=lengths.value / METRES[unit],
        plus_minus=lengths.plus_minus / METRES[unit],
        unit=unit,
        says=f"{print_length(lengths.value, unit)} ± {print_length(lengths.plus_minus, unit)}",
        text=f"{rounded_length(lengths.value, unit)} {unit}",
    )


def _kg(value: float | int | str, unit: MassUnit) -> float:
    return read_mass(value) if isinstance(value, str) else value * KG[unit]


@router.post("/rigs/{rig_id}/plan/from-weigh-in", response_model=Sheet)
def plan_from_last_weigh_in(
    rig_id: Id, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Start the plan from what was weighed, the listed items taken out of it."""
    window = rigs.open(rig_id, weigh_in).window

    def start(document: Document) -> Document:
        rig = settle(document).rig
        return apply_changes(
            document, start_from_weigh_in(rig, window.at_in(document) or 0)
        ).document

    name = "plan from the last weigh-in"
    return answer_sheet(rigs.change(rig_id, name, start, looking=weigh_in, sent=sent))
