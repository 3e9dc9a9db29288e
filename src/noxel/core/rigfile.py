"""The rig file as a whole: one rig with its plates, loads and weigh-ins, and the rules that span them."""

import re
from collections.abc import Sequence
from functools import lru_cache
from typing import Annotated, Any, Literal, Self

from pydantic import Field, ModelWrapValidatorHandler, ValidationError, model_validator

from noxel.core.base import Day, Entered, Entry, Name, Note, misplaced
from noxel.core.loads import KeptPlan, Load, Plan, Reminders, Tank
from noxel.core.quantities import units_in_force
from noxel.core.rig import Hitch, Kind, Policy, Trailer, Vehicle
from noxel.core.terms import TermSet
from noxel.core.tickets import Pass, Units, WeighIn
from noxel.errors import Problem, RigFileError


class RigFile(Entered):
    """One rig: ``*.noxel.json``."""

    format: Literal["noxel-rig"] = "noxel-rig"
    version: Literal[1] = 1
    units: Units
    name: Name = ""
    note: Note | None = None
    kind: Kind
    terms: TermSet = "north_america"
    policy: Policy = Policy()
    vehicle: Vehicle = Vehicle()
    hitch: Hitch = Hitch()
    trailer: Trailer | None = None
    loads: Annotated[tuple[Load, ...], Field(max_length=20_000)] = ()
    tanks: Annotated[tuple[Tank, ...], Field(max_length=100)] = ()
    plan: Plan = Plan()
    kept_plans: Annotated[tuple[KeptPlan, ...], Field(max_length=200)] = ()
    ready: Annotated[dict[Name, Day], Field(max_length=200)] = Field(default_factory=dict)
    reminders: Reminders = Reminders()
    weigh_ins: Annotated[tuple[WeighIn, ...], Field(max_length=100_000)] = ()

    @model_validator(mode="wrap")
    @classmethod
    def _in_its_units(cls, raw: Any, handler: ModelWrapValidatorHandler[Self]) -> Self:
        named = raw.get("units") if isinstance(raw, dict) else None
        given = named if isinstance(named, dict) else {}
        chosen = {key: given[key] for key in ("mass", "length", "pressure", "volume") if isinstance(given.get(key), str)}
        chosen.setdefault("pressure", "psi" if chosen.get("mass") == "lb" else "kPa")
        chosen.setdefault("volume", "gal" if chosen.get("mass") == "lb" else "l")
        with units_in_force(**chosen):
            return handler(raw)

    @model_validator(mode="after")
    def _spans(self) -> Self:
        if self.trailer is None:
            for index, load in enumerate(self.loads):
                if load.on == "trailer":
                    raise misplaced(f"loads[{index}].on", "there is no trailer to carry it")
            for index, tank in enumerate(self.tanks):
                if tank.on == "trailer":
                    raise misplaced(f"tanks[{index}].on", "there is no trailer to carry it")
        for number, weigh_in in enumerate(self.weigh_ins):
            for index, added in enumerate(weigh_in.added_since):
                if self.trailer is None and added.on == "trailer":
                    raise misplaced(f"weigh_ins[{number}].added_since[{index}].on", "there is no trailer to carry it")
            for index, each in enumerate(weigh_in.passes):
                self._check_pass(each, f"weigh_ins[{number}].passes[{index}]")
        return self

    def _check_pass(self, each: Pass, at: str) -> None:
        if self.trailer is None and each.config in ("hitched", "trailer_only"):
            raise misplaced(f"{at}.config", "there is no trailer to weigh")
        if each.config == "hitched":
            if self.hitch.weight_distribution and each.spring_bars is None:
                raise misplaced(f"{at}.spring_bars", "is missing: say whether the bars were engaged, slack or none")
            if not self.hitch.weight_distribution and each.spring_bars == "engaged":
                raise misplaced(f"{at}.spring_bars", "cannot be engaged: the hitch has no weight distribution")
        axles, rated = each.trailer_axles, len(self.trailer.ratings.gawr) if self.trailer else 0
        if axles and rated and len(axles) != rated:
            missing = next((n for n in range(1, rated + 1) if n not in axles), None)
            if missing is not None:
                raise misplaced(f"{at}.readings.trailer_{missing}", "is missing: the trailer has {n} axles", n=rated)
            raise misplaced(f"{at}.readings.trailer_{max(axles)}", "the trailer has only {n} rated axles", n=rated)

    @property
    def towing(self) -> bool:
        """Whether a trailer is attached."""
        return self.trailer is not None


_PART = re.compile(r"(?<=cushions\.).+|\[[0-9]+\]|[^.\[\]]+")  # a check's name has a point inside


def write_path(parts: Sequence[str | int]) -> str:
    """Write a path as users see it: ``weigh_ins[0].passes[1].readings.front``."""
    path = ""
    for part in parts:
        path += f"[{part}]" if isinstance(part, int) else f".{part}" if path else part
    return path


def read_path(path: str) -> tuple[str | int, ...]:
    """Read a path back into its parts."""
    return tuple(int(part[1:-1]) if part[0] == "[" else part for part in _PART.findall(path))


_WORDS = {
    "missing": "is missing",
    "extra_forbidden": "is not a key that a rig file has",
    "model_type": "must be an object",
    "model_attributes_type": "must be an object",
    "dict_type": "must be an object",
    "tuple_type": "must be a list",
    "bool_type": "must be true or false",
    "string_type": "must be a text",
    "int_type": "must be a whole number",
}


def problems_of(error: ValidationError) -> list[Problem]:
    """Translate pydantic's findings into problems with paths and plain words."""
    found = []
    for item in error.errors(include_url=False):
        parts = _untag(item["loc"])
        if item["type"] == "misplaced":
            at = write_path([*parts, *read_path(item["ctx"]["at"])])
            found.append(Problem(at, item["msg"], "inconsistent"))
            continue
        message = _WORDS.get(item["type"], item["msg"])
        found.append(Problem(write_path(parts), message, item["type"]))
    return found


def _untag(parts: Sequence[str | int]) -> list[str | int]:
    kept: list[str | int] = []
    for index, part in enumerate(parts):
        after_measurement = index >= 2 and parts[index - 2] == "tongue_measurements"
        if part in ("one_figure", "by_mode", "[key]") or (part in ("scale", "beam", "lever") and after_measurement):
            continue
        kept.append(part)
    return kept


def parse_rig(document: object) -> RigFile:
    """Validate a document (parsed JSON) as a rig file.

    Raises
    ------
    RigFileError
        With one problem for each thing that is wrong, each naming its path.
    """
    if not isinstance(document, dict) or document.get("format") != "noxel-rig":
        raise RigFileError("This is no rig file: it does not say \"format\": \"noxel-rig\".",
                           [Problem("format", "must be \"noxel-rig\"", "format")])  # fmt: skip
    if document.get("version") != 1:
        raise RigFileError(f"This Noxel reads version 1 of the rig file, not {document.get('version')!r}.",
                           [Problem("version", "must be 1", "version")])  # fmt: skip
    try:
        return RigFile.model_validate(document)
    except ValidationError as exc:
        problems = problems_of(exc)
        more = f" (and {len(problems) - 1} more)" if len(problems) > 1 else ""
        raise RigFileError(f"{problems[0]}{more}", problems) from exc


def dump_rig(rig: RigFile) -> dict[str, Any]:
    """The document of a rig: what was given, as it was written, and nothing that was not."""
    document = rig.model_dump(mode="json")
    return {"format": rig.format, "version": rig.version, **document}


@lru_cache(4096)
def _steps(path: str) -> tuple[tuple[str | int, str], ...]:
    """Each part of a path, with what is left of the path from there on."""
    return tuple(zip(read_path(path), (path[found.start() :].removeprefix(".") for found in _PART.finditer(path)), strict=True))


def entry_at(rig: RigFile, path: str) -> Entry | None:
    """How the figure at a path was entered, if anything is remembered about it."""
    here: object = rig
    found: Entry | None = None
    for part, left in _steps(path):
        if here is None:
            break
        if isinstance(here, Entered) and here.entered:
            found = here.entered.get(left, found)
        if isinstance(part, int):
            here = here[part] if isinstance(here, tuple) and part < len(here) else None
            continue
        here = getattr(here, part, None)
    return found


_SOURCE_WORDS = {"plate": "plate", "manual": "manual", "scale": "scale", "worked_out": "worked out", "guess": "guess"}


def source_words(rig: RigFile, path: str) -> str:
    """Where the figure at a path came from, in words: ``"plate, 2026-10-02"``."""
    entry = entry_at(rig, path)
    if entry is None or entry.source is None:
        return "source not said"
    return f"{_SOURCE_WORDS[entry.source]}{f', {entry.date.isoformat()}' if entry.date else ''}"
