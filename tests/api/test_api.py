"""The interface over HTTP, on a real SQLite file: sheets, typing, import and export, and every kind
of bad request.
"""

import json
from typing import Any

from noxel.core.editing import without_identities
from noxel.formats.rig_json import LARGEST
from tests.api.stand import OnFile
from tests.truth import rig_of


class OverHttp(OnFile):
    def setUp(self) -> None:
        super().setUp()
        self.document = rig_of("check--three-passes")

    def type(self, rig: str, path: str, text: str) -> Any:
        body = {"changes": [{"path": path, "text": text}], "what": path, "gesture": "g"}
        return self.client.patch(f"/api/rigs/{rig}", json=body)

    def test_import_and_export_lose_nothing(self) -> None:
        self.document["note"] = "Ærø – “quotes”, ½ and 🛰"
        rig = self.add(self.document)
        answer = self.client.get(f"/api/rigs/{rig}/file")
        self.assertEqual(answer.json(), self.document)
        self.assertIn("three-passes.noxel.json", answer.headers["content-disposition"])

    def test_typing_answers_with_the_whole_sheet(self) -> None:
        rig = self.add(self.document)
        sheet = self.type(rig, "vehicle.ratings.gawr_rear", "3,700").json()
        row = next(row for row in sheet["evaluation"]["checks"] if row["id"] == "vehicle.rear_axle")
        self.assertAlmostEqual(row["margin"], 20)
        self.assertEqual(row["status"], "within")
        self.assertEqual(sheet["undo"], "vehicle.ratings.gawr_rear")
        sheet = self.type(rig, "vehicle.ratings.gawr_rear", "3,7oo").json()
        self.assertEqual(sheet["fields"][0]["entry"]["text"], "3,7oo")
        self.assertIn("“oo”", sheet["fields"][0]["problem"])
        row = next(row for row in sheet["evaluation"]["checks"] if row["id"] == "vehicle.rear_axle")
        self.assertEqual((row["limit"], row["status"]), (None, "unknown"))
        undone = self.client.post(f"/api/rigs/{rig}/undo").json()["rig"]
        self.assertEqual(without_identities(undone), self.document)

    def test_the_answer_to_a_change_is_what_a_look_shows_afterwards(self) -> None:
        rig = self.add(self.document)
        for path, text in (
            ("vehicle.ratings.gvwr", "7200"),
            ("vehicle.ratings.gvwr", "7,2oo"),
            ("vehicle.ratings.gcwr", " 15,000.0 "),
            ("weigh_ins[0].passes[0].readings.front", ""),
            ("vehicle.ratings.payload", "700 kg"),
        ):
            with self.subTest(path, text=text):
                answer = self.type(rig, path, text).json()
                self.assertEqual(answer, self.client.get(f"/api/rigs/{rig}").json())

    def test_a_rig_from_nothing(self) -> None:
        for kind in ("conventional", "fifth_wheel", "gooseneck", "motorhome", "slide_in"):
            with self.subTest(kind):
                rig = self.client.post(
                    "/api/rigs", json={"name": "New", "kind": kind, "mass": "kg"}
                ).json()["id"]
                sheet = self.client.post(f"/api/rigs/{rig}/weigh-ins").json()
                self.assertEqual(sheet["evaluation"]["verdict"], "incomplete")
                sheet = self.type(rig, "weigh_ins[0].passes[0].readings.front", "1,200").json()
                self.assertEqual(sheet["evaluation"]["derived"]["front_hitched"]["value"], 1200)
                self.assertEqual(
                    sheet["evaluation"]["working"]["front_hitched"]["lines"][0]["value"], 1200
                )

    def test_bad_requests_name_the_field_and_change_nothing(self) -> None:
        rig = self.add(self.document)
        for change, path in (
            ({"path": "vehicle.colour", "text": "1"}, "vehicle.colour"),
            ({"path": "kind", "op": "set", "value": "x"}, "kind"),
            ({"path": "hitch.parts[0]", "op": "set", "value": {"x": 1}}, "hitch.parts[0].kind"),
        ):
            self.problem(
                self.client.patch(f"/api/rigs/{rig}", json={"changes": [change]}), 422, path
            )
        self.problem(
            self.client.patch(f"/api/rigs/{rig}", json={"changes": []}), 422, "body.changes"
        )
        self.document["vehicle"]["ratings"]["gvwr"] = "7,00 lb"
        self.problem(
            self.client.post("/api/rigs/import", json=self.document), 422, "vehicle.ratings.gvwr"
        )
        self.problem(
            self.client.post("/api/rigs/import", content=json.dumps(self.document)[:-9]), 422
        )
        self.problem(self.client.post("/api/rigs/import", content=b" " * (LARGEST + 200_000)), 413)
        self.problem(
            self.client.post(
                "/api/rigs/import", content=iter([b" " * 1_000_000] * (LARGEST // 1_000_000 + 2))
            ),
            413,
        )
        self.problem(self.client.get("/api/rigs/none"), 404)
        self.problem(self.client.get("/api/nowhere"), 404)
        self.problem(self.client.post(f"/api/rigs/{rig}/redo"), 409)
        self.problem(
            self.client.post("/api/rigs", json={"kind": "sledge", "mass": "lb"}), 422, "body.kind"
        )
        self.assertEqual(len(self.client.get("/api/rigs").json()), 1)
        self.assertEqual(self.client.get(f"/api/rigs/{rig}").json()["revision"], 0)
