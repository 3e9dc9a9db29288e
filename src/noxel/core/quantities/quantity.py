"""The quantity types of the rig file: kept as written, read once into SI.

A bare number is in the unit in force where it stands: the file's, or a pass's own. The models put
that unit in force while they are validated (:func:`units_in_force`), so a quantity knows its SI
value from birth and still serialises as it was written.
"""

import math
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Self

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from noxel.core.quantities import units
from noxel.core.quantities.reading import read_length, read_mass, read_pressure, read_volume
from noxel.core.quantities.units import Dimension
from noxel.errors import QuantityError

_FACTORS: dict[str, dict[str, float]] = {
    "mass": units.KG,
    "length": units.METRES,
    "pressure": units.KPA,
    "volume": units.LITRES,
}


_NOTHING: dict[str, tuple[str, float | None]] = {}


_in_force: ContextVar[dict[str, tuple[str, float | None]]] = ContextVar(
    "units_in_force", default=_NOTHING
)
"""For each dimension its unit and what one of it is in SI, None for a unit that is not known."""


@contextmanager
def units_in_force(**changed: str | None) -> Iterator[None]:
    """Put units in force for bare numbers: ``mass=``, ``length=``, ``pressure=``, ``volume=``; None
    leaves what is in force.
    """
    now = dict(_in_force.get())
    now.update(
        {
            name: (unit, _FACTORS[name].get(unit))
            for name, unit in changed.items()
            if unit is not None
        }
    )
    token = _in_force.set(now)
    try:
        yield
    finally:
        _in_force.reset(token)


@dataclass(frozen=True, slots=True)
class _Quantity:
    written: float | int | str
    si: float

    dimension: ClassVar[Dimension]
    most: ClassVar[float]
    example: ClassVar[str]
    pattern: ClassVar[str]

    @classmethod
    def read(cls, raw: object) -> Self:
        if isinstance(raw, cls):
            return raw
        if isinstance(raw, bool) or not isinstance(raw, int | float | str):
            raise PydanticCustomError(
                "quantity_type",
                "must be a number, or a text such as “{example}”",
                {"example": cls.example},
            )
        try:
            return cls(raw, units.check_range(cls._to_si(raw), cls.dimension))
        except QuantityError as exc:
            raise PydanticCustomError("quantity", "{why}", {"why": exc.message}) from exc
        except OverflowError as exc:
            raise PydanticCustomError("quantity", "is too large a number") from exc

    @classmethod
    def reader(cls, sign: "_Sign | None") -> Callable[[object], "_Quantity"]:
        """What reads a field's raw value, made once for each field: a file has dozens, nearly all
        of them plain numbers.
        """
        new, dimension, most = object.__new__, cls.dimension, cls.most
        least = sign.least if sign else -most

        def read(raw: object) -> _Quantity:
            kind = type(raw)
            if kind is int or kind is float:
                _, factor = _in_force.get().get(dimension, _UNKNOWN)
                if factor is not None and least <= raw * factor <= most:  # type: ignore[operator]
                    quantity = new(cls)
                    # as the frozen class itself would, several times as fast
                    _set_written(quantity, raw)
                    _set_si(quantity, raw * factor)  # type: ignore[operator]
                    return quantity
            quantity = cls.read(raw)
            if sign and quantity.si < sign.least:
                raise PydanticCustomError(sign.code, sign.message, {"written": quantity.written})
            return quantity

        return read

    @staticmethod
    def strict(text: str) -> float:
        """Read a text that carries its own unit."""
        raise NotImplementedError

    @classmethod
    def _to_si(cls, raw: float | int | str) -> float:
        if isinstance(raw, str):
            return cls.strict(raw)
        _, factor = _in_force.get().get(cls.dimension, _UNKNOWN)
        if factor is None:
            raise QuantityError(
                f"is a bare number, and the file has no usable units.{cls.dimension} to read it in"
            )
        return float(raw) * factor

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        written = core_schema.plain_serializer_function_ser_schema(
            lambda quantity: quantity.written
        )
        return core_schema.no_info_plain_validator_function(cls.reader(None), serialization=written)

    @classmethod
    def __get_pydantic_json_schema__(
        cls, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return {"anyOf": [{"type": "number"}, {"type": "string", "pattern": cls.pattern}]}


@dataclass(frozen=True, slots=True)
class _Sign:
    """What sign a quantity may have: the least that it may be in SI, and what to say of less."""

    least: float
    code: str
    message: str

    def __get_pydantic_core_schema__(
        self, source: type[_Quantity], handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        schema = handler(source)  # with what it says of itself in a JSON Schema
        return {**schema, "function": {"type": "no-info", "function": source.reader(self)}}


_UNKNOWN: tuple[str, None] = ("", None)


_set_written: Callable[[object, object], None] = vars(_Quantity)["written"].__set__


_set_si: Callable[[object, float], None] = vars(_Quantity)["si"].__set__


_WRITTEN = r"^\s*[+-]?\s*(([0-9]{1,3}(,[0-9]{3})+|[0-9]+)(\.[0-9]+)?|\.[0-9]+)\s*"


class Mass(_Quantity):
    """A mass as written (a number in the unit in force, or a text with its own) and in
    kilograms.
    """

    dimension: ClassVar[Dimension] = "mass"
    most: ClassVar[float] = units.HEAVIEST
    strict = staticmethod(read_mass)
    example: ClassVar[str] = "1380 kg"
    pattern: ClassVar[str] = _WRITTEN + r"(lb|kg|t)\s*$"

    @property
    def kg(self) -> float:
        """The mass. [kg]"""
        return self.si


class Length(_Quantity):
    """A length as written and in metres."""

    dimension: ClassVar[Dimension] = "length"
    most: ClassVar[float] = units.LONGEST
    strict = staticmethod(read_length)
    example: ClassVar[str] = "150 mm"
    pattern: ClassVar[str] = _WRITTEN + r"(in|mm|cm|ft|m)\s*$"

    @property
    def m(self) -> float:
        """The length. [m]"""
        return self.si


class Pressure(_Quantity):
    """A tire pressure as written and in kilopascals."""

    dimension: ClassVar[Dimension] = "pressure"
    most: ClassVar[float] = units.HARDEST
    strict = staticmethod(read_pressure)
    example: ClassVar[str] = "80 psi"
    pattern: ClassVar[str] = _WRITTEN + r"(psi|kPa|bar)\s*$"

    @property
    def kpa(self) -> float:
        """The pressure. [kPa]"""
        return self.si


class Volume(_Quantity):
    """A volume as written and in litres."""

    dimension: ClassVar[Dimension] = "volume"
    most: ClassVar[float] = units.FULLEST
    strict = staticmethod(read_volume)
    example: ClassVar[str] = "46 gal"
    pattern: ClassVar[str] = _WRITTEN + r"(gal|l)\s*$"

    @property
    def litres(self) -> float:
        """The volume. [l]"""
        return self.si


_POSITIVE = _Sign(math.ulp(0.0), "not_positive", "must be above zero, not {written}")


_NOT_NEGATIVE = _Sign(0.0, "negative", "cannot be negative ({written})")


PositiveMass = Annotated[Mass, _POSITIVE]


NonNegativeMass = Annotated[Mass, _NOT_NEGATIVE]


PositiveLength = Annotated[Length, _POSITIVE]


PositiveVolume = Annotated[Volume, _POSITIVE]


PositivePressure = Annotated[Pressure, _POSITIVE]


NonNegativeLength = Annotated[Length, _NOT_NEGATIVE]
