"""``/api/guides``: makers' towing guides, pasted once; ``/api/rigs/{id}/guide-rows``: the row of
this rig's vehicle in one of them.
"""

from typing import Annotated

from fastapi import Depends, Path, Query, Request
from pydantic import BaseModel, Field

from noxel.api.deps import Id, TheRigs, new_router
from noxel.core.editing import settle
from noxel.core.plates import LONGEST_GUIDE, GuideRow, look_up, read_guide
from noxel.core.quantities import MassUnit
from noxel.store.guides import Guides

router = new_router()
GuideId = Annotated[str, Path(max_length=64)]


class NewGuide(BaseModel):
    """A table as it was pasted, what to call it, and what its masses are in where they do not
    say.
    """

    name: Annotated[str, Field(max_length=120)] = ""
    unit: MassUnit
    text: Annotated[str, Field(max_length=LONGEST_GUIDE)]


class GuideOut(BaseModel):
    """A guide of the garage."""

    id: str
    name: str
    rows: int


class RowOut(BaseModel):
    """A row: its line in the table, what tells it apart, its ratings as they are to be typed, and
    in which column it differs, if in one.
    """

    number: int
    keys: dict[str, str]
    ratings: dict[str, str]
    differs: str | None = None


class RowsOut(BaseModel):
    """The rows that fit the vehicle, those easily read instead, and what would tell which it is."""

    rows: list[RowOut]
    alike: list[RowOut]
    ask: list[str]


def guides_of(request: Request) -> Guides:
    """The guides of the running application."""
    guides: Guides = request.app.state.guides
    return guides


TheGuides = Annotated[Guides, Depends(guides_of)]


def _unit(text: str) -> MassUnit:
    return "kg" if text == "kg" else "lb"


def _row(row: GuideRow, differs: str | None = None) -> RowOut:
    return RowOut(
        number=row.number, keys=dict(row.keys), ratings=dict(row.ratings), differs=differs
    )


@router.get("/guides")
def list_guides(guides: TheGuides) -> list[GuideOut]:
    """Every guide of the garage."""
    return [
        GuideOut(id=guide.id, name=guide.name, rows=len(read_guide(guide.text, _unit(guide.unit))))
        for guide in guides.all()
    ]


@router.post("/guides")
def add_guide(new: NewGuide, guides: TheGuides) -> GuideOut:
    """Keep a guide, once every line of it can be read."""
    rows = read_guide(new.text, new.unit)
    guide = guides.add(" ".join(new.name.split()) or "A towing guide", new.unit, new.text)
    return GuideOut(id=guide.id, name=guide.name, rows=len(rows))


@router.delete("/guides/{guide}", status_code=204)
def remove_guide(guide: GuideId, guides: TheGuides) -> None:
    """Take a guide away."""
    guides.remove(guide)


@router.get("/rigs/{rig_id}/guide-rows")
def guide_rows(
    rig_id: Id, guide: Annotated[str, Query(max_length=64)], rigs: TheRigs, guides: TheGuides
) -> RowsOut:
    """The row of this rig's vehicle, by what its plates say of engine, axle ratio, cab, drive and
    wheelbase.
    """
    kept = guides.one(guide)
    rows = read_guide(kept.text, _unit(kept.unit))
    own = settle(rigs.open(rig_id).document).rig.vehicle.guide
    looked_up = look_up(
        rows,
        {key: str(text) for key, text in own.model_dump().items() if isinstance(text, str)}
        if own
        else {},
    )
    return RowsOut(
        rows=[_row(row) for row in looked_up.rows[:200]],
        alike=[_row(alike.row, alike.differs) for alike in looked_up.alike],
        ask=list(looked_up.ask),
    )
