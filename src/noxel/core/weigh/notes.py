"""What every look at a weigh-in writes its advisories with."""

from noxel.core.mechanics import PassLoads, Weighing
from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile
from noxel.core.wording import Advisory, term_name


class Notes:
    """A weigh-in that is looked at, and how what is found of it is said."""

    def __init__(self, rig: RigFile, number: int, weighing: Weighing) -> None:
        self.rig, self.weighing, self.unit = rig, weighing, rig.units.mass
        self.weigh_in = rig.weigh_ins[number - 1]
        self.at = f"weigh_ins[{number - 1}]"
        self.factor = KG[rig.units.mass]

    def mass(self, kg: float) -> str:
        """A mass in words."""
        return print_mass(kg, self.unit)

    @property
    def hitch_load(self) -> str:
        """What the load on the hitch is called: tongue weight, noseweight, pin weight."""
        return term_name(self.rig, "tongue_weight")

    def say(
        self, code: str, message: str, path: str | None = None, *, note: bool = False, **kg: float
    ) -> Advisory:
        """An advisory with its numbers in the rig's unit. [kg]"""
        numbers = {key: value / self.factor for key, value in kg.items()}
        return Advisory(
            code=code,
            level="note" if note else "warning",
            message=message,
            path=path,
            numbers=numbers,
        )

    def path(self, loads: PassLoads, field: str = "") -> str:
        """Where a field of a pass stands."""
        return f"{self.at}.passes[{loads.number - 1}]{'.' + field if field else ''}"
