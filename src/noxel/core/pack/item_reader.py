"""Reading an item as people jot it down."""

import re

from noxel.core.quantities import MassUnit, read_typed
from noxel.errors import QuantityError

_COUNT = re.compile(r"\s*([0-9]{1,5})\s*[x×]?\s+(?=\D)")


_FLUID = re.compile(r"water|gasoline|diesel|propane", re.IGNORECASE)
_VOLUME = re.compile(r"[0-9.,]+\s*(?:gal|gallons?|l|litres?|liters?)", re.IGNORECASE)
_GAP = re.compile(r"(?<=\S)\s+(?=[0-9.])")


def read_item(text: str, default: MassUnit) -> dict[str, object]:
    """Read an item as people jot it down: ``4 chairs 3 kg``, ``toolbox 62``, ``water 26 gal of
    water``.

    ``text``: how many (optional), what, and the mass of one. ``default``: the unit of a bare mass.

    Returns ``name``, ``mass`` as a rig file keeps it, ``quantity``, and the mass ``text`` as typed.

    Raises QuantityError if it holds no mass, or one that cannot be read.
    """
    match = _COUNT.match(text)
    rest = text[match.end() :].strip() if match else text.strip()
    why = f"“{text.strip()}”: write what it is and its mass, such as “4 chairs 3 kg”"
    # “2nd toolbox 12.5 kg”: the first place from which the rest reads as a mass
    for gap in _GAP.finditer(rest):
        name, mass = rest[: gap.start()].strip(), rest[gap.end() :].removesuffix("each").strip()
        try:
            mass = _with_fluid(name, mass)
            value = read_typed(mass, "mass", default).value
        except QuantityError as exc:
            why = exc.message
            continue
        return {
            "name": name,
            "mass": value,
            "quantity": int(match[1]) if match else 1,
            "text": mass,
        }
    raise QuantityError(why)


def _with_fluid(name: str, mass: str) -> str:
    """A mass, or a volume with the fluid that the name says: “full water”, “30 gal”."""
    fluid = _FLUID.search(name)
    return f"{mass} {fluid[0].lower()}" if fluid and _VOLUME.fullmatch(mass) else mass
