"""The garage: things listed, copied, retired, and coupled into rigs."""

import json
import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select

from noxel.core.rigfile import parse_rig
from noxel.errors import Conflict
from noxel.store.database import Database
from noxel.store.models import RigRow, ThingRow
from noxel.store.parts import whole
from noxel.store.things import KINDS, assemble, copy_thing, dump, new_thing, now, rigs_with, thing_of
from noxel.store.window import look


@dataclass(frozen=True, slots=True)
class Coupled:
    """A rig that a thing is part of."""

    id: str
    name: str


@dataclass(frozen=True, slots=True)
class Thing:
    """A vehicle, a hitch or a trailer, as it stands in the garage."""

    id: str
    kind: str
    name: str
    retired: bool
    units: dict[str, str]
    part: dict[str, Any]
    rigs: tuple[Coupled, ...]


@dataclass(frozen=True, slots=True)
class Candidate:
    """A vehicle or a trailer in the document of a rig that has it, or in one of its own."""

    id: str
    name: str
    document: dict[str, Any]
    in_a_rig: bool


@dataclass(frozen=True, slots=True)
class Candidates:
    """All that is offered for a match."""

    vehicles: tuple[Candidate, ...]
    trailers: tuple[Candidate, ...]


class Garage:
    """All things of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def list(self) -> list[Thing]:
        """Every thing, the last changed first; retired ones last."""
        with self._database.reading() as session:
            rows = session.scalars(select(ThingRow).order_by(ThingRow.updated_at.desc(), ThingRow.id)).all()
            found = []
            for row in rows:
                rigs = tuple(Coupled(rig.id, rig.name) for rig in rigs_with(session, row.id) if rig.deleted_at is None)
                kept = json.loads(row.document)
                found.append(Thing(row.id, row.kind, row.name, row.retired_at is not None, kept["units"], kept["part"], rigs))
        return sorted(found, key=lambda thing: thing.retired)

    def candidates(self) -> Candidates:
        """What is offered for a match: each vehicle in the rig that had it last, each trailer with what was listed for it."""
        with self._database.reading() as session:
            rows = session.scalars(
                select(ThingRow).where(ThingRow.retired_at.is_(None)).order_by(ThingRow.name, ThingRow.id)
            ).all()
            vehicles: list[Candidate] = []
            trailers: list[Candidate] = []
            for row in rows:
                if row.kind == "hitch":
                    continue
                last = next((rig for rig in rigs_with(session, row.id) if rig.deleted_at is None), None)
                kept = json.loads(row.document)
                bare = {
                    "format": "noxel-rig",
                    "version": 1,
                    "units": kept["units"],
                    "kind": "conventional",
                    row.kind: kept["part"],
                }
                document = whole(session, last, look(session, last, None)) if last else bare
                (vehicles if row.kind == "vehicle" else trailers).append(
                    Candidate(row.id, row.name, document, last is not None)
                )
        return Candidates(tuple(vehicles), tuple(trailers))

    def add(self, kind: str, part: dict[str, Any], units: dict[str, str]) -> str:
        """Keep a thing that no rig has yet, such as one typed from a brochure; returns its id."""
        with self._database.writing() as session:
            thing = new_thing(session, kind)
            thing.document, thing.name = dump({"units": units, "part": part}), part.get("name", "")
            return thing.id

    def retire(self, key: str, *, bring_back: bool = False) -> None:
        """Offer a thing no longer, or again; the rigs it is in, and their weigh-ins, stay.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.writing() as session:
            thing_of(session, key).retired_at = None if bring_back else now()

    def copy(self, key: str) -> str:
        """The same thing again, to be changed apart; returns its id.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.writing() as session:
            return copy_thing(session, thing_of(session, key)).id

    def remove(self, key: str) -> None:
        """Take a thing away that no rig couples.

        Raises
        ------
        NotFound
            If there is none of that id.
        Conflict
            If a rig has it, be it a deleted one: retire it instead.
        """
        with self._database.writing() as session:
            thing = thing_of(session, key)
            if rigs_with(session, key):
                raise Conflict("It is part of a rig, whose weigh-ins would lose it. Retire it instead.")
            session.delete(thing)

    def couple(self, name: str, kind: str, things: Mapping[str, str], spare: Mapping[str, Any]) -> str:
        """A new rig of things in the garage; returns its id.

        Parameters
        ----------
        name, kind : str
            Of the rig.
        things : mapping
            Ids by kind; a rig needs a vehicle.
        spare : mapping
            The parts to start with where none was named, such as a bare hitch chain.

        Raises
        ------
        NotFound
            If one of the things is not there.
        RigFileError
            If they cannot be a rig; nothing is kept then.
        """
        with self._database.writing() as session:
            found = {each: thing_of(session, things[each], each) for each in KINDS if each in things}
            units = json.loads(found["vehicle"].document)["units"] if "vehicle" in found else {"mass": "lb", "length": "in"}
            document = {"format": "noxel-rig", "version": 1, "units": units, "name": name, "kind": kind}
            row = RigRow(id=uuid.uuid4().hex, name=name, document=dump(document), created_at=now(), updated_at=now(),
                         **{f"{each}_id": thing.id for each, thing in found.items()})  # fmt: skip
            for each, part in spare.items():
                if each not in found:
                    thing = ThingRow(id=uuid.uuid4().hex, kind=each, name="", created_at=now(), updated_at=now(),
                                     document=dump({"units": units, "part": part}))  # fmt: skip
                    session.add(thing)
                    session.flush()
                    setattr(row, f"{each}_id", thing.id)
            session.add(row)
            session.flush()
            parse_rig(assemble(session, row))
            return row.id

    def copy_rig(self, rig: RigRow, name: str, apart: Sequence[str]) -> str:
        """The rig again with its loads and plan but no weigh-ins; the things named in ``apart`` are copied, the others shared."""
        with self._database.writing() as session:
            document = {key: value for key, value in json.loads(rig.document).items() if key not in ("ready", "note")}
            made = RigRow(
                id=uuid.uuid4().hex, name=name, document=dump({**document, "name": name}), created_at=now(), updated_at=now()
            )
            for kind in KINDS:
                key = getattr(rig, f"{kind}_id")
                if key and kind in apart:
                    key = copy_thing(session, thing_of(session, key)).id
                setattr(made, f"{kind}_id", key)
            session.add(made)
            return made.id
