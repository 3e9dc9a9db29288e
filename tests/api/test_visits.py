"""What belongs to a rig beside its file: the visit, notes of a drive, own lines. Expected: what was put in comes back."""

from tests.api.stand import OnADemoRig


class BesideTheRig(OnADemoRig):
    def put(self, path: str, body: object, status: int = 204) -> None:
        answer = self.client.put(f"/api/rigs/{self.rig}{path}", json=body)
        self.assertEqual(answer.status_code, status, answer.text)

    def test_a_visit_goes_on_where_it_was_left(self) -> None:
        self.assertIsNone(self.get("/visit").json()["state"])
        self.put("/visit", {"scale": "wheel_pads", "uncouple": False, "at": 3, "ticked": ["before: x"], "noted_at": 5})
        state = self.get("/visit?scale=wheel_pads&uncouple=false").json()["state"]
        self.assertEqual((state["at"], state["ticked"], state["scale"]), (3, ["before: x"], "wheel_pads"))
        for wrong in ({"at": -1}, {"hours": 1e9}, {"scale": "moon"}, {"ticked": ["x" * 301]}):
            self.put("/visit", wrong, 422)
        self.client.delete(f"/api/rigs/{self.rig}/visit")
        self.assertIsNone(self.get("/visit").json()["state"])

    def test_notes_of_a_drive_and_own_lines(self) -> None:
        key = self.get("").json()["window"]["keys"][-1]
        self.put(f"/drives/{key}", {"sway": "a little above 60", "distance": "140 mi", "fuel": "11 gal"})
        self.assertEqual(self.get("/drives").json()[str(key)]["sway"], "a little above 60")
        self.put(f"/drives/{key}", {})
        self.assertEqual(self.get("/drives").json(), {})
        self.post("/lines", {"text": "  Telescope   lashed "})
        lines = self.post("/lines", {"text": "Borrowed tripod back", "trip": True})
        self.assertEqual(
            [(each["text"], each["trip"]) for each in lines], [("Telescope lashed", False), ("Borrowed tripod back", True)]
        )
        self.put(f"/lines/{lines[0]['id']}", {"done": True, "by": "Wim"}, 200)
        ticked = self.get("/lines").json()[0]
        self.assertTrue(ticked["done_by"] == "Wim" and ticked["done_at"])
        left = self.post("/lines/trip-over", None)
        self.assertEqual([(each["text"], each["done_at"]) for each in left], [("Telescope lashed", None)])
        self.put("/lines/999", {"done": True}, 404)
        other = self.add({"format": "noxel-rig", "version": 1, "kind": "motorhome", "units": {"mass": "lb"}})
        answer = self.client.delete(f"/api/rigs/{other}/lines/{left[0]['id']}")
        self.problem(answer, 404)
        self.assertEqual(self.client.delete(f"/api/rigs/{self.rig}/lines/{left[0]['id']}").json(), [])
