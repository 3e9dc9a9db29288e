"""Adjust and the lists over HTTP: what is used in Pack is written as the rig's own lists write
it.
"""

from typing import Any

from tests.api.stand import OnADemoRig


class Adjusting(OnADemoRig):
    def test_put_to_work_in_the_rigs_own_units_and_undone_in_one_step(self) -> None:
        before = self.client.get(f"/api/rigs/{self.rig}").json()["rig"]
        steps = [
            {"kind": "move", "index": 3, "position": "2 m"},
            {"kind": "drop", "position": "1 in"},
        ]
        body = self.client.post(f"/api/rigs/{self.rig}/adjust/apply", json={"steps": steps}).json()[
            "rig"
        ]
        self.assertEqual(body["loads"][3]["position"], 78.74)  # 2 m in inches
        self.assertEqual(body["hitch"]["ball_height"], 21.5)  # an inch below 22.5
        self.assertIsInstance(body["plan"]["vehicle_base"]["front"], float | int)
        self.assertEqual(self.client.post(f"/api/rigs/{self.rig}/undo").json()["rig"], before)

    def test_a_typed_step_is_read_as_every_field_is(self) -> None:
        def ask(**typed: object) -> Any:
            return self.client.post(
                f"/api/rigs/{self.rig}/adjust/step", json={"steps": [], "typed": typed}
            )

        for typed, wanted in (
            (
                {"kind": "move", "index": 3, "place": "6 ft 8 in"},
                {"kind": "move", "index": 3, "position": "80.0 in"},
            ),
            (
                {"kind": "tank", "index": 0, "level": "40"},
                {"kind": "tank", "index": 0, "level": 0.4},
            ),
            (
                {"kind": "tank", "index": 0, "level": "1 %"},
                {"kind": "tank", "index": 0, "level": 0.01},
            ),
            ({"kind": "bars", "level": "0.6"}, {"kind": "bars", "level": 0.6}),
            ({"kind": "drop", "place": "-1.5"}, {"kind": "drop", "position": "-1.5 in"}),
        ):
            answer = ask(**typed)
            self.assertEqual(answer.status_code, 200, answer.text)
            self.assertEqual({key: answer.json()[key] for key in wanted}, wanted)
        body = ask(kind="add", on="trailer", mass="25 kg", place="2 m").json()
        self.assertEqual((body["mass"], body["position"], body["on"]), ("25 kg", "2 m", "trailer"))
        for typed, paths in (
            ({"kind": "move", "index": 3, "place": "2 mt"}, ["place"]),
            ({"kind": "tank", "index": 0, "level": "300 %"}, ["level"]),
            ({"kind": "add", "on": "vehicle"}, ["mass", "place"]),
            ({"kind": "add", "on": "vehicle", "mass": "-5", "place": "10"}, ["mass"]),
            ({"kind": "leave", "index": 99}, ["steps[0]"]),
            ({"kind": "hitch", "thing": ""}, ["thing"]),
        ):  # fmt: skip
            answer = ask(**typed)
            self.assertEqual([row["path"] for row in answer.json()["errors"]], paths, answer.text)
            self.assertEqual(answer.status_code, 422)

    def test_another_hitch_is_a_rig_of_its_own(self) -> None:
        hitch = next(row for row in self.client.get("/api/garage").json() if row["kind"] == "hitch")
        steps = {"steps": [{"kind": "hitch", "thing": hitch["id"]}]}
        self.assertEqual(
            self.client.post(f"/api/rigs/{self.rig}/adjust", json=steps).status_code, 200
        )
        answer = self.client.post(f"/api/rigs/{self.rig}/adjust/apply", json=steps)
        self.assertEqual(answer.status_code, 409)
        self.assertIn("couple it in the garage", answer.json()["detail"])

    def test_steps_and_readings_that_cannot_be_are_named(self) -> None:
        wrong = self.client.post(
            f"/api/rigs/{self.rig}/adjust", json={"steps": [{"kind": "leave", "index": 99}]}
        )
        self.assertEqual((wrong.status_code, wrong.json()["errors"][0]["path"]), (422, "steps[0]"))
        moved = {"mass": "100", "moved_back": "eighty", "before": "7oo", "after": "660"}
        errors = self.client.post(f"/api/rigs/{self.rig}/lever-length", json=moved).json()["errors"]
        self.assertEqual([error["path"] for error in errors], ["moved_back", "before"])
        moved |= {"moved_back": "80", "before": "700", "resolution": "5"}
        body = self.client.post(f"/api/rigs/{self.rig}/lever-length", json=moved).json()
        self.assertAlmostEqual(body["value"], 200)  # 100 × 80 ÷ 40
        self.assertAlmostEqual(body["plus_minus"], 2 * 200 * (5 / 12**0.5) * 2**0.5 / 40)
