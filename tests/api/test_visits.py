"""What belongs to a rig beside its file: the visit, notes of a drive, own lines. Expected: what was
put in comes back.
"""

import datetime
from typing import Any

from tests.api.stand import OnADemoRig


class BesideTheRig(OnADemoRig):
    def put(self, path: str, body: object, status: int = 204) -> Any:
        answer = self.client.put(f"/api/rigs/{self.rig}{path}", json=body)
        self.assertEqual(answer.status_code, status, answer.text)
        return answer

    def test_a_tongue_scale_at_home(self) -> None:
        """A weigh-in of its own, without a pass; a bare figure is in the unit that was chosen,
        whatever the rig's.
        """
        steps = self.get("/visit?scale=tongue_scale").json()["steps"]
        self.assertEqual(
            [step["kind"] for step in steps],
            ["list", "list", "tongue", "answer", "list", "verdict"],
        )
        self.assertTrue(
            any("Chocks" in line for line in steps[0]["lines"]) and "chocked" in steps[1]["caution"]
        )
        ticket = {
            "key": "h1",
            "visit": "home",
            "day": "2026-05-02",
            "unit": "kg",
            "scale": "tongue_scale",
            "tongue": "268",
            "place": "the yard",
        }
        self.post("/jotted", ticket)
        body = self.post("/jotted", ticket)["rig"]["weigh_ins"][-1]  # sent twice, taken once
        self.assertEqual(
            (body.get("passes", []), body["place"], len(body["tongue_measurements"])),
            ([], "the yard", 1),
        )
        self.assertEqual(
            (body["tongue_measurements"][0]["value"], body["tongue_measurements"][0]["resolution"]),
            ("268 kg", "5 kg"),
        )
        answer = self.client.post(
            f"/api/rigs/{self.rig}/jotted", json={**ticket, "key": "h2", "tongue": " "}
        )
        self.problem(answer, 422, "config")

    def test_a_visit_goes_on_where_it_was_left(self) -> None:
        self.assertIsNone(self.get("/visit").json()["state"])
        self.put(
            "/visit", {"scale": "wheel_pads", "uncouple": False, "at": 3, "ticked": ["before: x"]}
        )
        state = self.get("/visit?scale=wheel_pads&uncouple=false").json()["state"]
        self.assertEqual(
            (state["at"], state["ticked"], state["scale"]), (3, ["before: x"], "wheel_pads")
        )
        for wrong in ({"at": -1}, {"hours": 1e9}, {"scale": "moon"}, {"ticked": ["x" * 301]}):
            self.put("/visit", wrong, 422)
        self.client.delete(f"/api/rigs/{self.rig}/visit")
        self.assertIsNone(self.get("/visit").json()["state"])

    def test_fees_are_added_up_by_currency(self) -> None:
        before = self.get("/fees").json()
        ticket = {
            "visit": "v1",
            "day": "2026-05-02",
            "config": "vehicle_only",
            "unit": "lb",
            "readings": {"front": "3340"},
        }
        for number, fee in enumerate(("14 crowns", "3,50 crowns", "free", "2 crowns")):
            self.post("/jotted", ticket | {"key": f"t{number}", "fee": fee})
        self.assertIn("19.50 crowns for 3 passes", self.get("/fees").json())
        self.assertEqual(len(self.get("/fees").json()), len(before) + 1)

    def test_notes_of_a_drive_and_own_lines(self) -> None:
        sheet = self.get("").json()
        number, own = sheet["window"]["count"], sheet["rig"]["weigh_ins"][-1]["id"]
        self.put(
            f"/drives/{own}",
            {"sway": "a little above 60", "distance": "140 mi", "fuel": "11 gal"},
        )
        self.assertEqual(self.get("/drives").json()[str(number)]["sway"], "a little above 60")
        self.put(f"/drives/{own}", {})
        self.put("/drives/w99999999", {"sway": "x"}, 404)
        self.assertEqual(self.get("/drives").json(), {})
        self.post("/lines", {"text": "  Telescope   lashed "})
        lines = self.post("/lines", {"text": "Borrowed tripod back", "trip": True})
        self.assertEqual(
            [(line["text"], line["trip"]) for line in lines],
            [("Telescope lashed", False), ("Borrowed tripod back", True)],
        )
        self.put(f"/lines/{lines[0]['id']}", {"done": True, "by": "Wim"}, 200)
        ticked = self.get("/lines").json()[0]
        self.assertTrue(ticked["done_by"] == "Wim" and ticked["done_at"])
        printed = self.get("/print.html").text
        self.assertRegex(
            printed, r"☑ Telescope lashed <span class=\"small\">\(done 20\d\d-\d\d-\d\d by Wim\)"
        )
        self.assertIn("☐ Borrowed tripod back", printed)
        left = self.post("/lines/trip-over", None)
        self.assertEqual(
            [(entry["text"], entry["done_at"]) for entry in left], [("Telescope lashed", None)]
        )
        self.put("/lines/999", {"done": True}, 404)
        late = self.put(
            f"/lines/{left[0]['id']}", {"done": True, "by": "Ola", "ago": 7_200}, 200
        ).json()[0]
        since = datetime.datetime.now(datetime.UTC) - datetime.datetime.fromisoformat(
            late["done_at"]
        )
        # ticked without a network, two hours before it was sent
        self.assertEqual(round(since.total_seconds() / 60), 120)
        other = self.add(
            {"format": "noxel-rig", "version": 1, "kind": "motorhome", "units": {"mass": "lb"}}
        )
        answer = self.client.delete(f"/api/rigs/{other}/lines/{left[0]['id']}")
        self.problem(answer, 404)
        self.assertEqual(
            self.client.delete(f"/api/rigs/{self.rig}/lines/{left[0]['id']}").json(), []
        )
