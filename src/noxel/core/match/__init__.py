"""How much a vehicle can tow, and every vehicle with every trailer."""

from noxel.core.match.can_tow import TowAnswer, can_tow
from noxel.core.match.candidates import (
    MatchTrailer,
    MatchVehicle,
    match_vehicle,
    trailer_of_rig,
)
from noxel.core.match.ceiling import ceiling
from noxel.core.match.how_much import HowMuch, how_much
from noxel.core.match.loaded_vehicle import Start
from noxel.core.match.own_share import SHARE_WORDS
from noxel.core.match.pairs import Match, MatchRow, explain, match_pair

__all__ = [
    "SHARE_WORDS",
    "HowMuch",
    "Match",
    "MatchRow",
    "MatchTrailer",
    "MatchVehicle",
    "Start",
    "TowAnswer",
    "can_tow",
    "ceiling",
    "explain",
    "how_much",
    "match_pair",
    "match_vehicle",
    "trailer_of_rig",
]
