"""The labels of a rig as they are looked at, and how what is found is said."""

import datetime

from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile
from noxel.core.wording import Advisory

LABEL_ROUNDING = 0.01
"""Labels round; figures this close, relatively, do not contradict each other."""


class Labels:
    def __init__(self, rig: RigFile, today: datetime.date) -> None:
        self.rig, self.unit, self.today = rig, rig.units.mass, today

    def mass(self, kg: float) -> str:
        return print_mass(kg, self.unit)

    def say(
        self, code: str, path: str, message: str, *, note: bool = False, **kg: float
    ) -> Advisory:
        numbers = {key: value / KG[self.unit] for key, value in kg.items()}
        return Advisory(
            code=code,
            level="note" if note else "warning",
            path=path,
            message=message,
            numbers=numbers,
        )


def above(a: float, b: float) -> bool:
    return a > b * (1 + LABEL_ROUNDING)
