"""Twelve kinds of invented labels and tickets, their figures drawn at random: what stands where on
them, and what is to be read.
"""

import random
from collections.abc import Callable
from dataclasses import dataclass, field

SANS, BOLD, MONO = "DejaVuSansCondensed", "DejaVuSansCondensed-Bold", "DejaVuSansMono"


@dataclass
class Label:
    """A label to be drawn: rows of texts with their places across [share of the width], and what is
    to be read. ``font`` and ``ground`` are its look.
    """

    rows: list[list[tuple[float, str]]]
    expected: dict[str, str]
    unit: str = "lb"
    terms: str = "north_america"
    font: str = SANS
    ground: tuple[int, int, int] = (236, 234, 228)
    ink: tuple[int, int, int] = (28, 28, 30)
    boxes: dict[str, tuple[float, float, float, float]] = field(default_factory=dict)


def _pounds(dice: random.Random, low: int, high: int, step: int = 10) -> int:
    return dice.randrange(low, high, step)


def _both(pounds: int) -> str:
    return f"{pounds} LB ({round(pounds * 0.45359237)} KG)"


def certification(dice: random.Random) -> Label:
    front, rear = _pounds(dice, 3300, 4300, 50), _pounds(dice, 3700, 4900, 25)
    gvwr = round((front + rear) * dice.uniform(0.88, 0.96) / 10) * 10
    rows = [
        [(0.05, "MFD BY WANDERER TRUCK WORKS"), (0.7, "DATE: 04/24")],
        [(0.05, "GVWR:"), (0.25, _both(gvwr))],
        [(0.05, "FRONT GAWR:"), (0.25, _both(front)), (0.62, "WITH 275/65R18 TIRES")],
        [(0.05, "REAR GAWR:"), (0.25, _both(rear)), (0.62, "WITH 275/65R18 TIRES")],
        [(0.05, "18X8J RIMS AT 240 kPa (35 PSI) COLD")],
        [(0.05, "THIS VEHICLE CONFORMS TO ALL APPLICABLE STANDARDS IN EFFECT")],
        [(0.05, "VIN: 1WXYZ23456789"), (0.6, "TYPE: TRUCK")],
    ]
    v = "vehicle.ratings."
    return Label(
        rows, {f"{v}gvwr": f"{gvwr}", f"{v}gawr_front": f"{front}", f"{v}gawr_rear": f"{rear}"}
    )


def placard(dice: random.Random) -> Label:
    kg = _pounds(dice, 480, 980, 1)
    rows = [
        [(0.2, "TIRE AND LOADING INFORMATION")],
        [(0.05, "SEATING CAPACITY"), (0.4, "TOTAL 5"), (0.6, "FRONT 2"), (0.78, "REAR 3")],
        [(0.05, "The combined weight of occupants and cargo should")],
        [(0.05, f"never exceed {kg} kg or {round(kg / 0.45359237)} lbs.")],
        [(0.05, "TIRE"), (0.3, "SIZE"), (0.6, "COLD TIRE PRESSURE")],
        [(0.05, "FRONT"), (0.3, "275/65R18"), (0.6, "240 kPa, 35 PSI")],
        [(0.05, "REAR"), (0.3, "275/65R18"), (0.6, "240 kPa, 35 PSI")],
    ]
    return Label(rows, {"vehicle.ratings.payload": f"{round(kg / 0.45359237)}"})


def trailer_label(dice: random.Random) -> Label:
    axle = _pounds(dice, 3000, 5200, 50)
    gvwr = round(axle * 2 * dice.uniform(0.9, 1.08) / 10) * 10
    rows = [
        [(0.05, "MANUFACTURED BY: FAR MEADOW COACH"), (0.7, "DATE: 02/23")],
        [(0.05, f"GVWR {round(gvwr * 0.45359237)} KG ({gvwr} LB)")],
        [(0.05, f"GAWR (EACH AXLE) {round(axle * 0.45359237)} KG ({axle} LB)")],
        [(0.05, "TIRES ST225/75R15"), (0.5, "RIM 15X6J")],
        [(0.05, "COLD INFL. PRESSURE 450 KPA (65 PSI) SINGLE")],
        [(0.05, "TYPE: TRAILER"), (0.5, "VIN: 5QRST98765432")],
    ]
    t = "trailer.ratings."
    each = {f"{t}gawr[{index}]": f"{axle}" for index in range(2)}
    return Label(rows, {f"{t}gvwr": f"{gvwr}", **each}, ground=(220, 220, 216))


def cargo_label(dice: random.Random) -> Label:
    kg = _pounds(dice, 350, 1300, 1)
    pounds = round(kg / 0.45359237)
    rows = [
        [(0.1, "RECREATIONAL VEHICLE TRAILER")],
        [(0.1, "CARGO CARRYING CAPACITY")],
        [(0.05, "THE WEIGHT OF CARGO SHOULD NEVER EXCEED")],
        [(0.05, f"{kg} kg or {pounds} lbs.")],
        [(0.05, "CAUTION: A FULL LOAD OF WATER EQUALS")],
        [(0.05, "151 kg or 333 lbs. OF CARGO @ 1 kg/L")],
    ]
    return Label(rows, {"trailer.ratings.ccc": f"{pounds}"}, font=BOLD, ground=(240, 212, 70))


def hitch_label(dice: random.Random) -> Label:
    carry = _pounds(dice, 500, 900, 50)
    spread = carry + _pounds(dice, 200, 500, 50)
    rows = [
        [(0.25, "RECEIVER HITCH  CLASS IV")],
        [(0.45, "MAX TRAILER"), (0.75, "MAX TONGUE")],
        [(0.04, "WEIGHT CARRYING"), (0.45, f"{carry * 10:,} LB"), (0.75, f"{carry:,} LB")],
        [(0.04, "WEIGHT DISTRIBUTING"), (0.45, f"{spread * 10:,} LB"), (0.75, f"{spread:,} LB")],
        [(0.04, "DO NOT EXCEED THE VEHICLE'S OWN RATINGS")],
    ]
    return Label(
        rows,
        {
            "H.trailer.carrying": f"{carry * 10}",
            "H.tongue.carrying": f"{carry}",
            "H.trailer.distributing": f"{spread * 10}",
            "H.tongue.distributing": f"{spread}",
        },
        ground=(36, 36, 40),
        ink=(232, 232, 230),
    )


def european_plate(dice: random.Random) -> Label:
    front, rear = _pounds(dice, 1000, 1400, 5), _pounds(dice, 1100, 1500, 5)
    laden = round((front + rear) * 0.95 / 10) * 10
    train = laden + _pounds(dice, 1300, 2200, 50)
    rows = [
        [(0.3, "e4*2018/858*00123*00")],
        [(0.3, "WXYZ1234567890123")],
        [(0.35, f"{laden} kg")],
        [(0.35, f"{train} kg")],
        [(0.3, f"1- {front} kg")],
        [(0.3, f"2- {rear} kg")],
    ]
    v = "vehicle.ratings."
    expected = {
        f"{v}gvwr": laden,
        f"{v}gcwr": train,
        f"{v}gawr_front": front,
        f"{v}gawr_rear": rear,
    }
    return Label(
        rows,
        {path: f"{value}" for path, value in expected.items()},
        "kg",
        "europe",
        ground=(44, 46, 52),
        ink=(226, 226, 222),
    )


def caravan_plate(dice: random.Random) -> Label:
    laden = _pounds(dice, 1200, 2000, 10)
    empty, axle = laden - _pounds(dice, 150, 300, 5), laden - _pounds(dice, 20, 80, 5)
    rows = [
        [(0.05, "CARAVAN  LANE END COACHWORKS")],
        [(0.05, "MTPLM"), (0.5, f"{laden} kg")],
        [(0.05, "MIRO"), (0.5, f"{empty} kg")],
        [(0.05, "AXLE 1"), (0.5, f"{axle} kg")],
        [(0.05, "NOSEWEIGHT"), (0.5, "100 kg")],
    ]
    expected = {
        "trailer.ratings.gvwr": laden,
        "trailer.dry_weight": empty,
        "trailer.ratings.gawr[0]": axle,
        "trailer.dry_tongue": 100,
    }
    return Label(rows, {path: f"{value}" for path, value in expected.items()}, "kg", "europe")


def australian_plate(dice: random.Random) -> Label:
    atm = _pounds(dice, 1600, 3200, 10)
    gtm, tare = atm - _pounds(dice, 120, 260, 5), atm - _pounds(dice, 350, 600, 5)
    rows = [
        [(0.1, "TRAILER PLATE  MULGA FLAT CARAVANS")],
        [(0.08, "ATM"), (0.4, "GTM"), (0.72, "TARE")],
        [(0.08, f"{atm} kg"), (0.4, f"{gtm} kg"), (0.72, f"{tare} kg")],
        [(0.08, "TYRES 235/75R15"), (0.5, "350 kPa")],
    ]
    expected = {
        "trailer.ratings.gvwr": atm,
        "trailer.ratings.axle_group": gtm,
        "trailer.dry_weight": tare,
    }
    return Label(
        rows,
        {path: f"{value}" for path, value in expected.items()},
        "kg",
        "australia",
        ground=(200, 202, 204),
    )


def platforms(dice: random.Random) -> Label:
    front, rear, trailer = (
        _pounds(dice, 2800, 3900, 20),
        _pounds(dice, 3200, 5200, 20),
        _pounds(dice, 4000, 9000, 20),
    )
    number = f"{dice.randrange(10, 99)}-{dice.randrange(1000, 9999)}"
    rows = [
        [(0.2, "WEIGHT TICKET")],
        [(0.04, f"TICKET NO. {number}"), (0.6, "DATE 2026-11-14")],
        [(0.04, "STEER AXLE"), (0.6, f"{front:,} lb")],
        [(0.04, "DRIVE AXLE"), (0.6, f"{rear:,} lb")],
        [(0.04, "TRAILER AXLE"), (0.6, f"{trailer:,} lb")],
        [(0.04, "GROSS WEIGHT"), (0.6, f"{front + rear + trailer:,} lb")],
        [(0.04, "FEE 15.00"), (0.5, "LANE 2  09:42")],
    ]
    return Label(
        rows,
        {
            "P.readings.front": f"{front}",
            "P.readings.rear": f"{rear}",
            "P.readings.trailer": f"{trailer}",
            "P.printed_gross": f"{front + rear + trailer}",
            "P.ticket_number": number,
            "W.date": "2026-11-14",
        },
        font=MONO,
        ground=(250, 249, 244),
    )


def single_axles(dice: random.Random) -> Label:
    pounds, two, three = (_pounds(dice, 900, 2400, 20) for _ in range(3))
    rows = [
        [(0.05, "QUARRY SCALE"), (0.5, "14.11.2026")],
        [(0.05, f"AXLE 1   {pounds} kg")],
        [(0.05, f"AXLE 2   {two} kg")],
        [(0.05, f"AXLE 3   {three} kg")],
        [(0.05, f"TOTAL    {pounds + two + three} kg")],
    ]
    return Label(
        rows,
        {
            "P.readings.front": f"{pounds}",
            "P.readings.rear": f"{two}",
            "P.readings.trailer": f"{three}",
            "P.printed_gross": f"{pounds + two + three}",
            "W.date": "2026-11-14",
        },
        "kg",
        "europe",
        font=MONO,
        ground=(246, 244, 236),
    )


def one_total(dice: random.Random) -> Label:
    gross = _pounds(dice, 9000, 18000, 20)
    rows = [
        [(0.1, "PUBLIC WEIGHMASTER")],
        [(0.05, f"TICKET # {dice.randrange(10000, 99999)}"), (0.55, "14/11/2026")],
        [(0.05, "GROSS"), (0.5, f"{gross:,} LB")],
        [(0.05, "TARE"), (0.5, "0 LB")],
    ]
    number = rows[1][0][1].split()[-1]
    return Label(
        rows,
        {"P.readings.gross": f"{gross}", "P.ticket_number": number, "W.date": "2026-11-14"},
        font=MONO,
        ground=(248, 244, 238),
    )


def wheel_pads(dice: random.Random) -> Label:
    loads = [_pounds(dice, 1200, 2400, 10) for _ in range(4)]
    rows = [
        [(0.1, "WEIGHED BY WHEEL"), (0.6, "2026-11-14")],
        [(0.05, f"FRONT LEFT  {loads[0]} lb"), (0.52, f"FRONT RIGHT {loads[1]} lb")],
        [(0.05, f"REAR LEFT   {loads[2]} lb"), (0.52, f"REAR RIGHT  {loads[3]} lb")],
    ]
    names = ("front_left", "front_right", "rear_left", "rear_right")
    read = {f"P.readings.{name}": f"{load}" for name, load in zip(names, loads, strict=True)}
    return Label(rows, {**read, "W.date": "2026-11-14"}, font=SANS)


KINDS: tuple[Callable[[random.Random], Label], ...] = (
    certification,
    placard,
    trailer_label,
    cargo_label,
    hitch_label,
    european_plate,
    caravan_plate,
    australian_plate,
    platforms,
    single_axles,
    one_total,
    wheel_pads,
)
