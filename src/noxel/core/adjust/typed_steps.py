"""A step as a person types it: texts with or without their units, read as every other field is
read.
"""

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import BaseModel, Field, ValidationError

from noxel.core.quantities import Dimension, print_share, read_typed, upper_first
from noxel.core.rig import RigFile, Step, problems_of
from noxel.errors import InputError, Problem

Text = Annotated[str, Field(max_length=100)]


_WANTED: dict[str, tuple[str, ...]] = {
    "move": ("place",),
    "swap": ("place",),
    "add": ("mass", "place"),
    "drop": ("place",),
    "tank": ("level",),
    "bars": ("level",),
    "hitch": ("thing",),
    "vehicle": ("thing",),
}


_LACKS = {
    "place": "say where to",
    "mass": "say how heavy it is",
    "thing": "choose one of the garage",
}


_MOST = {"tank": 1.0, "bars": 2.0}


class TypedStep(BaseModel):
    """One step to try as typed: ``place`` a length (for the ball how much lower), ``level`` a
    share, ``mass`` a mass.
    """

    kind: Literal[
        "leave", "take", "move", "swap", "tank", "bars", "add", "drop", "hitch", "vehicle"
    ]
    index: Annotated[int, Field(ge=0)] | None = None
    place: Text = ""
    level: Text = ""
    mass: Text = ""
    on: Literal["vehicle", "trailer"] | None = None
    thing: Annotated[str, Field(max_length=200)] | None = None


def read_step(rig: RigFile, typed: TypedStep) -> Step:
    """What a typed step means; bare figures are in the rig's units, a bare level above 2 in per
    cent.

    Raises
    ------
    InputError
        With one problem for each field that is missing or cannot be understood, by its name.
    """
    problems: list[Problem] = []
    fields: dict[str, object] = {
        "kind": typed.kind,
        "index": typed.index,
        "on": typed.on,
        "thing": typed.thing,
    }
    for name in _WANTED.get(typed.kind, ()):
        text = str(getattr(typed, name) or "").strip()
        if not text:
            say = {
                "drop": "say how much lower; minus raises it",
                "tank": "say how full, such as 40 %",
                "bars": "say what share of the front axle's loss, such as 60 %",
            }.get(typed.kind, _LACKS.get(name, "is missing"))
            problems.append(Problem(name, say, "missing"))
        elif name != "thing":
            try:
                fields |= _read(rig, typed.kind, name, text)
            except InputError as exc:
                problems.append(Problem(name, exc.message, exc.code))
    if typed.kind == "add":
        fields["name"] = "one more"
    if problems:
        raise _wrong(problems)
    try:
        return Step.model_validate(
            {key: value for key, value in fields.items() if value is not None}
        )
    except ValidationError as exc:
        named = [
            Problem(
                {"position": "place"}.get(problem.path, problem.path), problem.message, problem.code
            )
            for problem in problems_of(exc)
        ]
        raise _wrong(named) from exc


def _wrong(problems: list[Problem]) -> InputError:
    message = "; ".join(problem.message for problem in problems)
    return InputError(f"{upper_first(message)}.", problems)


def _read(rig: RigFile, kind: str, name: str, text: str) -> dict[str, object]:
    if name == "level":
        level = read_typed(text, "share", None).value
        most = _MOST[kind]
        if not isinstance(level, int | float) or not 0 <= level <= most:
            raise InputError(
                f"must lie between 0 and {most * 100:.0f} %, not {print_share(float(level))}"
            )
        return {"level": level}
    dimension: Dimension = "mass" if name == "mass" else "length"
    unit = rig.units.mass if name == "mass" else rig.units.lengths
    value = read_typed(text, dimension, unit).value
    own = value if isinstance(value, str) else f"{Decimal(repr(value)):f} {unit}"
    return {"mass" if name == "mass" else "position": own}
