"""Ordinary items with typical masses: a start until they are weighed, and marked so."""

from dataclasses import dataclass

from noxel.core.rig import Category


@dataclass(frozen=True, slots=True)
class Ordinary:
    """An ordinary item: its typical mass, and what sort of item it is. [kg]"""

    name: str
    kg: float
    category: Category


CATALOGUE = tuple(
    Ordinary(*entry)
    for entry in (
        ("adult", 80, "people"),
        ("teenager", 60, "people"),
        ("child", 35, "people"),
        ("small child in a seat", 22, "people"),
        ("dog, large", 32, "people"),
        ("dog, small", 10, "people"),
        ("cat in its carrier", 7, "people"),
        ("toolbox", 25, "essential"),
        ("jack and chocks", 12, "essential"),
        ("levelling blocks", 5, "essential"),
        ("hoses and shore cable", 14, "essential"),
        ("spare wheel", 28, "essential"),
        ("lead battery, 100 Ah", 28, "essential"),
        ("lithium battery, 100 Ah", 13, "essential"),
        ("gas cylinder, 20 lb, full", 17, "essential"),
        ("gas cylinder, 30 lb, full", 25, "essential"),
        ("gas cylinder, 11 kg, full", 22, "essential"),
        ("first aid and extinguisher", 5, "essential"),
        ("water can, 20 l, full", 21, "essential"),
        ("clothes, one person, a week", 12, "essential"),
        ("food, one person, a week", 12, "essential"),
        ("bedding, one bed", 6, "essential"),
        ("pots, plates, cutlery", 14, "essential"),
        ("cooler, full", 22, "comfort"),
        ("folding chair", 4, "comfort"),
        ("folding table", 8, "comfort"),
        ("awning", 25, "comfort"),
        ("outdoor rug", 5, "comfort"),
        ("barbecue", 14, "comfort"),
        ("generator, small", 22, "comfort"),
        ("generator, large", 50, "comfort"),
        ("firewood, a bag", 15, "comfort"),
        ("bicycle", 14, "comfort"),
        ("electric bicycle", 25, "comfort"),
        ("bicycle rack", 18, "comfort"),
        ("kayak", 25, "comfort"),
        ("paddle board", 11, "comfort"),
        ("books, a box", 18, "comfort"),
        ("laptop and camera bag", 8, "comfort"),
        ("fishing gear", 10, "comfort"),
        ("tent", 9, "comfort"),
        ("solar panel, 100 W", 8, "fixed"),
        ("air conditioner, roof", 40, "fixed"),
        ("bed cover, hard", 35, "fixed"),
        ("bed cap", 85, "fixed"),
        ("running boards", 25, "fixed"),
        ("toolbox across the bed", 50, "fixed"),
        ("winch", 38, "fixed"),
        ("washing machine", 32, "fixed"),
        ("television", 8, "fixed"),
        ("microwave", 14, "fixed"),
        ("inverter", 9, "fixed"),
    )
)
"""Typical masses are Noxel's own estimates; an item taken from here is marked a guess until
somebody weighs it.
"""
