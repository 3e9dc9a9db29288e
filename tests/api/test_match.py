"""How much, and every vehicle with every trailer, over HTTP. Expected: the worked ceilings, and
pairs by hand from brochures.
"""

import copy
from typing import Any

from tests.api.stand import OnFile
from tests.truth import case, rig_of


class HowMuch(OnFile):
    def ask(self, rig: str, **asked: str) -> Any:
        answer = self.client.get(f"/api/rigs/{rig}/how-much", params=asked)
        self.assertEqual(answer.status_code, 200, answer.text)
        return answer.json()

    def test_the_ceiling_and_what_more_aboard_takes_of_it(self) -> None:
        worked = case("ceiling--how-much")
        rig = self.add(worked["file"])
        first = self.ask(rig)
        self.assertAlmostEqual(first["ceiling"], worked["expect"]["ceiling"])
        by = {bar["check"]: bar["heaviest"] for bar in first["bars"]}
        more = self.ask(rig, added="100 kg")
        heavier = {bar["check"]: bar["heaviest"] for bar in more["bars"]}
        self.assertAlmostEqual(
            by["vehicle.payload"] - heavier["vehicle.payload"], 100 / 0.45359237 / first["share"]
        )
        self.assertAlmostEqual(
            by["combination.gross"] - heavier["combination.gross"], 100 / 0.45359237
        )

    def test_the_weigh_in_looked_at(self) -> None:
        document = rig_of("check--three-passes")
        later = copy.deepcopy(document["weigh_ins"][0])
        for weigh_in in later["passes"]:
            weigh_in["readings"]["front"] += 60
        document["weigh_ins"].append(later)
        rig = self.add(document)
        gcwr = [
            next(
                bar["heaviest"]
                for bar in self.ask(rig, weigh_in=number)["bars"]
                if bar["check"] == "combination.gross"
            )
            for number in ("1", "2")
        ]
        self.assertAlmostEqual(gcwr[0] - gcwr[1], 60)
        self.problem(self.client.get(f"/api/rigs/{rig}/how-much?weigh_in=3"), 404)

    def test_what_cannot_be_asked(self) -> None:
        rig = self.add(rig_of("ceiling--how-much"))
        for asked, path in (
            ({"added": "heavy"}, "added"),
            ({"share": "0.6"}, "query.share"),
            ({"start": "hope"}, "query.start"),
        ):
            self.problem(self.client.get(f"/api/rigs/{rig}/how-much", params=asked), 422, path)
        document = rig_of("check--three-passes") | {"weigh_ins": []}
        answer = self.client.get(f"/api/rigs/{self.add(document)}/how-much").json()
        # the sums need no base and no place
        self.assertIn("the load on it is not known: rear axle", answer["says"])
        self.assertIsNotNone(answer["ceiling"])


class Pairs(OnFile):
    def brochure(self, kind: str, **texts: str) -> str:
        answer = self.client.post("/api/garage", json={"kind": kind, "mass": "lb", "texts": texts})
        self.assertEqual(answer.status_code, 201, answer.text)
        return str(answer.json()["id"])

    def test_brochures_before_each_other(self) -> None:
        """Payload 1,600 less 400 aboard over a share of 15 % is 8,000, as much as the tow rating:
        of equals that comes first. GCWR is not known.
        """
        brochure = self.brochure(
            "vehicle",
            **{
                "name": "One",
                "ratings.payload": "1,600",
                "ratings.tow_rating": "8000 lb",
                "ratings.tongue_rating": "1200",
            },
        )
        weak = self.brochure(
            "vehicle",
            **{
                "name": "Weak",
                "ratings.payload": "1000",
                "ratings.tow_rating": "8000",
                "ratings.tongue_rating": "1200",
            },
        )
        self.brochure(
            "trailer", **{"name": "Heavy", "ratings.gvwr": "9,000", "dry_weight": "3000 kg"}
        )
        light = self.brochure("trailer", **{"name": "Light", "ratings.gvwr": "4,000"})
        table = self.client.get("/api/match", params={"unit": "lb", "aboard": "400"}).json()
        cells = {
            (names[0], names[1]): cell
            for cell in table["pairs"]
            for names in [
                tuple(
                    each["name"]
                    for kind in ("vehicles", "trailers")
                    for each in table[kind]
                    if each["id"] in (cell["vehicle"], cell["trailer"])
                )
            ]
        }
        self.assertEqual(
            set(cells),
            {(vehicle, trailer) for vehicle in ("One", "Weak") for trailer in ("Heavy", "Light")},
        )
        heavy = cells["One", "Heavy"]
        self.assertAlmostEqual(heavy["ceiling"], 8000)
        self.assertEqual((heavy["binding"], heavy["verdict"]), ("Tow rating", "stop"))
        self.assertAlmostEqual(heavy["room"], -1000)
        poor = cells["Weak", "Light"]
        self.assertAlmostEqual(poor["ceiling"], 600 / 0.15)
        self.assertEqual((poor["binding"], poor["verdict"]), ("Payload", "incomplete"))
        self.assertTrue(
            any(line.startswith("Combination") for line in poor["missing"]), poor["missing"]
        )
        asked = {
            "vehicle": brochure,
            "trailer": light,
            "other_vehicle": weak,
            "other_trailer": light,
            "aboard": "400",
        }
        says = self.client.get("/api/match/compare", params=asked).json()["says"]
        self.assertIn("payload 600 lb less", says[0])
        self.assertEqual(self.client.post(f"/api/garage/{weak}/retire").status_code, 204)
        self.problem(self.client.get("/api/match/compare", params=asked), 404)

    def test_what_a_brochure_has_wrong_is_named_and_nothing_is_kept(self) -> None:
        typed = {
            "kind": "vehicle",
            "mass": "lb",
            "texts": {"name": "One", "ratings.payload": "1,60", "ratings.gvwr": "7000"},
        }
        self.problem(self.client.post("/api/garage", json=typed), 422, "vehicle.ratings.payload")
        self.problem(
            self.client.post("/api/garage", json=typed | {"texts": {"ratings.colour": "1"}}),
            422,
            "vehicle.ratings.colour",
        )
        self.problem(self.client.get("/api/match?aboard=two%20dogs"), 422, "aboard")
        self.assertEqual(self.client.get("/api/match").json()["pairs"], [])


class VeryMany(OnFile):
    def test_a_table_holds_fifty_at_once_and_says_how_many_there_are(self) -> None:
        for number in range(52):
            for kind in ("vehicle", "trailer") if number < 3 else ("vehicle",):
                typed = {
                    "kind": kind,
                    "mass": "lb",
                    "texts": {"name": f"{kind} {number:02}", "ratings.gvwr": "7000"},
                }
                self.assertEqual(self.client.post("/api/garage", json=typed).status_code, 201)
        first = self.client.get("/api/match").json()
        self.assertEqual(
            (len(first["vehicles"]), len(first["trailers"]), len(first["pairs"])), (50, 3, 150)
        )
        self.assertEqual(
            (first["vehicle_count"], first["trailer_count"], first["damaged"]), (52, 3, [])
        )
        rest = self.client.get(
            "/api/match", params={"vehicles_from": 50, "trailers_from": 2}
        ).json()
        self.assertEqual([rest["name"] for rest in rest["vehicles"]], ["vehicle 50", "vehicle 51"])
        self.assertEqual(len(rest["pairs"]), 2)
        self.problem(self.client.get("/api/match", params={"vehicles_from": -1}), 422)
