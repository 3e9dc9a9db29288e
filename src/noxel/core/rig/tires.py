"""Tires as their sidewalls describe them, and the table of load indexes."""

import re
from typing import Annotated

from pydantic import AfterValidator, Field
from pydantic_core import PydanticCustomError

from noxel.core.quantities import PositiveMass, PositivePressure
from noxel.core.rig.base import Model, Name, Number

LOAD_INDEX: dict[int, int] = dict(
    enumerate(
        (
            250,
            257,
            265,
            272,
            280,
            290,
            300,
            307,
            315,
            325,
            335,
            345,
            355,
            365,
            375,
            387,
            400,
            412,
            425,
            437,
            450,
            462,
            475,
            487,
            500,
            515,
            530,
            545,
            560,
            580,
            600,
            615,
            630,
            650,
            670,
            690,
            710,
            730,
            750,
            775,
            800,
            825,
            850,
            875,
            900,
            925,
            950,
            975,
            1000,
            1030,
            1060,
            1090,
            1120,
            1150,
            1180,
            1215,
            1250,
            1285,
            1320,
            1360,
            1400,
            1450,
            1500,
            1550,
            1600,
            1650,
            1700,
            1750,
            1800,
            1850,
            1900,
            1950,
            2000,
            2060,
            2120,
            2180,
            2240,
            2300,
            2360,
            2430,
            2500,
            2575,
            2650,
            2725,
            2800,
            2900,
            3000,
            3075,
            3150,
            3250,
            3350,
        ),
        60,
    )
)
"""The load that a tire's index stands for, from 60 to 150 (ISO 4000-1). [kg]"""


class PressureRow(Model):
    """One row of the tire maker's own table: what one tire carries at a cold pressure."""

    pressure: PositivePressure
    load: PositiveMass


def _load_index(text: str) -> str:
    if not re.fullmatch(r"\s*[0-9]{1,3}\s*(/\s*[0-9]{1,3}\s*)?", text) or not all(
        part.strip().isdigit() and int(part) in LOAD_INDEX for part in text.split("/")
    ):
        raise PydanticCustomError(
            "load_index",
            "“{text}” is not a load index (one such as 116, or 121/118 for single and dual)",
            {"text": text},
        )
    return text


def _date_code(text: str) -> str:
    week = re.search(r"([0-9]{2})[0-9]{2}\s*$", text)
    if week is None or not 1 <= int(week[1]) <= 53:
        raise PydanticCustomError(
            "date_code",
            "“{text}” is not a date code: its last four digits are the week (01 to 53) and the "
            "year",
            {"text": text},
        )
    return text


class AxleTires(Model):
    """The tires of one axle (or of all trailer axles): how many, and the most that each may carry
    as fitted.

    ``wheel`` is the rating of one wheel, ``assembly`` that of one axle without wheels;
    ``placard_*`` is what the placard asks for, ``pressure`` what is set cold, ``table`` the tire
    maker's own; ``max_speed`` is in mph or km/h, as ``policy.travel_speed``.
    """

    count: Annotated[int, Field(strict=True, ge=1, le=64)] | None = None
    max_load: PositiveMass | None = None
    size: Name | None = None
    load_index: Annotated[str, AfterValidator(_load_index)] | None = None
    load_range: Name | None = None
    date_code: Annotated[str, Field(max_length=40), AfterValidator(_date_code)] | None = None
    p_metric: Annotated[bool, Field(strict=True)] | None = None
    wheel: PositiveMass | None = None
    assembly: PositiveMass | None = None
    placard_load_index: Annotated[str, AfterValidator(_load_index)] | None = None
    placard_pressure: PositivePressure | None = None
    sidewall_pressure: PositivePressure | None = None
    max_speed: Annotated[Number, Field(gt=0, le=400)] | None = None
    pressure: PositivePressure | None = None
    table: Annotated[tuple[PressureRow, ...], Field(max_length=100)] = ()


class VehicleTires(Model):
    """The tow vehicle's tires, by axle."""

    front: AxleTires | None = None
    rear: AxleTires | None = None
