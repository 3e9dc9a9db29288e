"""What the formulas of the workbook's columns are put together from."""

from collections.abc import Iterator, Mapping

ROLES = (
    ("E", "hitched, bars engaged"),
    ("S", "hitched, bars slack or none"),
    ("V", "vehicle only"),
    ("C", "vehicle empty"),
    ("A", "trailer alone"),
)
"""The passes by what they are for."""


READ: Mapping[str, str] = {"E": "frtvx", "S": "frtvx", "V": "frvx", "C": "frvx", "A": "tx"}
"""What a pass for each purpose reads: front, rear, trailer, vehicle, everything."""


NAMES: Mapping[str, str] = {"f": "front", "r": "rear", "t": "trailer", "v": "vehicle", "x": "gross"}
"""The same letters as the rig file's readings."""


SLOPES = ("Ev", "Et", "Ef", "Sv", "St", "Vv", "Vf", "At", "D")
"""What the tongue and the trailer's total depend on: loads of the passes, and the tongue measured
directly.
"""


Column = tuple[str, str, str, str]
"""A key, a heading, a formula with ``{key}`` for the cell of another column in its row, a number
format.
"""


MASS, SHARE, PLAIN = "#,##0;-#,##0", "0.0%", "General"


def have(*keys: str) -> str:
    """Whether all of these cells hold a figure."""
    return f"COUNT({','.join('{' + key + '}' for key in keys)})={len(keys)}"


def if_(condition: str, formula: str) -> str:
    """A formula where a condition holds, else nothing."""
    return f'=IF({condition},{formula},"")'


def number_of(key: str) -> str:
    """A cell's figure, zero where it is empty."""
    return f"N({{{key}}})"


def pm_of(**slopes: str) -> str:
    """A ± by the slopes on v, t and f of each pass: ``Ev="1", Et="-1"``; ``D`` is the tongue
    measured directly.
    """
    squares, weighed = [], []
    for role in "ESVCAH":
        v, t, f = (slopes.get(f"{role}{axle}", "0") for axle in "vtf")
        if (v, t, f) == ("0", "0", "0"):
            continue
        squares.append(
            f"{number_of('P' + role)}*({v})^2+{number_of('Q' + role)}*({t})^2+{number_of('M' + role)}*(({v})-({t}))^2"
        )
        weighed += [
            f"({slope})*{number_of('w' + role + axle)}"
            for axle, slope in (("v", v), ("t", t))
            if slope != "0"
        ]
        if f != "0":
            squares.append(
                f"({f})^2*{number_of('u' + role + 'f')}+2*({f})*(({v})*{number_of('K' + role)}+(({v})-({t}))*{number_of('L' + role)})"
            )
            weighed.append(f"({f})*{number_of('w' + role + 'f')}")
    if slopes.get("D", "0") != "0":
        squares.append(f"({slopes['D']})^2*{number_of('vD')}")
    gain = f"({number_of('acc')}*({'+'.join(weighed)}))^2" if weighed else "0"
    return f"2*SQRT({'+'.join(squares)}+{gain})"


def pm_axle(role: str, axle: str, *others: str) -> str:
    """The ± of one axle's load, or of its difference from the same axle in another pass."""
    roles = (role, *others)
    squares = "+".join(number_of(f"u{role}{axle}") for role in roles)
    weighed = "-".join(number_of(f"w{role}{axle}") for role in roles)
    return f"2*SQRT({squares}+({number_of('acc')}*({weighed}))^2)"


def figure(
    key: str, heading: str, known: str, value: str, pm: str, form: str = MASS
) -> Iterator[Column]:
    yield key, heading, if_(known, value), form
    yield f"pm_{key}", "±", if_(f'{{{key}}}<>""', pm), form
