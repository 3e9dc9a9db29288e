"""Other ways to a load that was not weighed, shown beside the one used. Expected: sums and moments
by hand.
"""

import unittest
from typing import Any

from noxel.core.evaluate import evaluate
from noxel.core.rig import parse_rig


def half(**more: Any) -> dict[str, Any]:
    """A truck and a trailer from labels and a list; nothing weighed. [lb, in]"""
    return {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": "lb", "length": "in"},
        "name": "half",
        "kind": "conventional",
        "vehicle": {
            "curb_weight": 5000,
            "ratings": {"gvwr": 6800, "payload": 1700},
            "geometry": {"wheelbase": 140, "hitch_offset": 50},
        },
        "trailer": {
            "dry_weight": 4000,
            "dry_tongue": 480,
            "ratings": {"gvwr": 6000},
            "geometry": {"coupler_to_axles": 200},
        },
        "loads": [
            {"name": "people", "on": "vehicle", "mass": 400, "position": 70},
            {"name": "crates", "on": "trailer", "mass": 500, "position": 150},
        ],
        **more,
    }


class Beside(unittest.TestCase):
    def beside(self, document: dict[str, Any], key: str) -> list[str]:
        evaluation = evaluate(parse_rig(document))
        expected = evaluation.expected or {}
        self.assertEqual(list(evaluation.working[key].remarks), expected[key].beside)
        return expected[key].beside

    def test_every_open_way_stands_beside_the_first(self) -> None:
        """The curb weight's 5,000 + 400 = 5,400 beside the heavier label's, 6,800 − 1,700 + 400 =
        5,500. The list: 4,000 +
        500 = 4,500 (3 % of 4,000 and 10 % of 500: ± 130) beside the rating, which is the most that
        it may weigh. A usual share: 10 to 15 % of 6,000 is 750 ± 2 · 150/√3 = 173.
        """
        self.assertEqual(
            self.beside(half(), "vehicle_solo"),
            ["By the curb weight, plus what you listed: 5,400 lb ± 155 lb."],
        )
        self.assertEqual(
            self.beside(half(), "trailer_gross"),
            ["By the dry weight, plus what you listed in the trailer: 4,500 lb ± 130 lb."],
        )
        self.assertIn(
            "By a usual tongue share: 750 lb ± 173 lb.", self.beside(half(), "tongue_static")
        )

    def test_the_lever_model_knows_better_where_places_are_known(self) -> None:
        """Tongue: 480 + 500 · (200 − 150)/200 = 605 lb."""
        self.assertRegex(
            self.beside(half(), "tongue_static")[0], r"^By the lever model.*: 605 lb ±"
        )

    def test_another_weigh_in_and_what_came_aboard_since(self) -> None:
        """Weighed alone before at 5,600; 120 lb were added since."""
        scale, alone = (
            {"resolution": 20},
            {"config": "vehicle_only", "readings": {"front": 3000, "rear": 2600}},
        )
        before = {
            "date": "2026-05-02",
            "scale": scale,
            "passes": [alone],
            "added_since": [{"on": "vehicle", "mass": 120, "position": 70}],
        }
        now = {
            "date": "2026-06-06",
            "scale": scale,
            "passes": [{"config": "hitched", "readings": {"gross": 9900}}],
        }
        way = self.beside(half(weigh_ins=[before, now]), "vehicle_solo")
        self.assertRegex(
            way[0],
            r"^By the weigh-in of 2026-05-02, plus what came aboard since: 5,720 lb ± \d+ lb, "
            r"which does not agree\.$",
        )


if __name__ == "__main__":
    unittest.main()
