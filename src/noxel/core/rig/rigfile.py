"""The rig file as a whole: one rig with its plates, loads and weigh-ins, and the rules that span
them.
"""

from typing import Annotated, Any, Literal, Self

from pydantic import Field, ModelWrapValidatorHandler, ValidationError, model_validator

from noxel.core.quantities import units_in_force
from noxel.core.rig.base import Day, Entered, Name, Note, Units, misplaced
from noxel.core.rig.loads import KeptPlan, Load, Plan, Reminders, Tank
from noxel.core.rig.parts import Hitch, Kind, Policy, Trailer, Vehicle
from noxel.core.rig.paths import problems_of
from noxel.core.rig.terms import TermSet
from noxel.core.rig.weigh_ins import Pass, WeighIn
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
        names = named if isinstance(named, dict) else {}
        chosen = {
            key: names[key]
            for key in ("mass", "length", "pressure", "volume")
            if isinstance(names.get(key), str)
        }
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
                    raise misplaced(
                        f"weigh_ins[{number}].added_since[{index}].on",
                        "there is no trailer to carry it",
                    )
            for index, pass_ in enumerate(weigh_in.passes):
                self._check_pass(pass_, f"weigh_ins[{number}].passes[{index}]")
        return self

    def _check_pass(self, pass_: Pass, path: str) -> None:
        if self.trailer is None and pass_.config in ("hitched", "trailer_only"):
            raise misplaced(f"{path}.config", "there is no trailer to weigh")
        if pass_.config == "hitched":
            if self.hitch.weight_distribution and pass_.spring_bars is None:
                raise misplaced(
                    f"{path}.spring_bars",
                    "is missing: say whether the bars were engaged, slack or none",
                )
            if not self.hitch.weight_distribution and pass_.spring_bars == "engaged":
                raise misplaced(
                    f"{path}.spring_bars", "cannot be engaged: the hitch has no weight distribution"
                )
        axles, rated = pass_.trailer_axles, len(self.trailer.ratings.gawr) if self.trailer else 0
        if axles and rated and len(axles) != rated:
            lacking = [f"trailer_{n}" for n in range(1, rated + 1) if n not in axles]
            if lacking:
                raise misplaced(
                    f"{path}.readings.{_reading_of(pass_, axles[-1])}",
                    "is one of {n} axles; {lacking} not read: give every "
                    "axle, or the trailer's axles as one figure",
                    n=rated,
                    lacking=" and ".join(lacking),
                )
            raise misplaced(
                f"{path}.readings.{_reading_of(pass_, max(axles))}",
                "the trailer has only {n} rated axles",
                n=rated,
            )

    def filled(self, number: int | None = None) -> int | None:
        """The weigh-in to answer from, from 1: the one asked for, or the last, if anything was read
        there, else the latest before it where something was; None when there is none at all.
        """
        asked = number or len(self.weigh_ins)
        holding = (
            number for number in range(asked, 0, -1) if self.weigh_ins[number - 1].holds_anything
        )
        return next(holding, asked or None)

    @property
    def towing(self) -> bool:
        """Whether a trailer is attached."""
        return self.trailer is not None


def parse_rig(document: object) -> RigFile:
    """Validate a document (parsed JSON) as a rig file.

    Raises RigFileError with one problem for each error, each naming its path.
    """
    if not isinstance(document, dict) or document.get("format") != "noxel-rig":
        raise RigFileError(
            'This is not a rig file: it does not say "format": "noxel-rig".',
            [Problem("format", 'must be "noxel-rig"', "format")],
        )
    if document.get("version") != 1:
        raise RigFileError(
            f"This Noxel reads version 1 of the rig file, not {document.get('version')!r}.",
            [Problem("version", "must be 1", "version")],
        )
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


def _reading_of(pass_: Pass, axle: int) -> str:
    """The first reading of one trailer axle, whole or by wheel."""
    return next(name for name in pass_.readings if name.split("_")[:2] == ["trailer", str(axle)])
