"""Lists, tickets, the log, its papers and the garage over HTTP, on a real SQLite file. Expected:
figures added by hand.
"""

import io

from openpyxl import load_workbook

from tests.api.stand import OnADemoRig
from tests.truth import rig_of

TICKETS = """date;place;pass;bars;steer;drive;trailer
2026-05-04;Alder Bend;hitched;slack;3,060;4,200;5,780
2026-05-04;Alder Bend;vehicle only;;3,180;3,180;
2026-06-01;Quarry Gate;hitched;slack;3,080;4,180;5,800
"""


class Lists(OnADemoRig):
    def test_tickets_come_in_whole_or_not_at_all_and_never_twice(self) -> None:
        before = self.get("").json()["window"]["count"]
        seen = self.post("/tickets/preview", {"text": TICKETS})
        self.assertEqual(
            (seen["weigh_ins"], seen["passes"], seen["already"], seen["problems"]), (2, 3, 0, [])
        )
        broken = TICKETS + "2026-07-01;Quarry Gate;hitched;slack;3,o80;4,180;5,800\n"
        told = self.post("/tickets/import", {"text": broken, "written": seen["written"]}, 422)
        self.assertEqual([each["path"] for each in told["errors"]], ["line 5"])
        self.assertEqual(self.get("").json()["window"]["count"], before)
        whole = {"text": TICKETS, "written": seen["written"]}
        self.assertEqual(self.post("/tickets/import", whole), {"added": 2, "already": 0})
        self.assertEqual(self.post("/tickets/import", whole), {"added": 0, "already": 2})
        found = self.get("/log?words=alder").json()["entries"]
        self.assertEqual([each["place"] for each in found], ["Alder Bend"])
        sheet = self.get(f"?weigh_in={found[0]['number']}").json()["evaluation"]["derived"]
        self.assertAlmostEqual(sheet["trailer_gross"]["value"], 3060 + 4200 + 5780 - 3180 - 3180)
        self.assertAlmostEqual(sheet["tongue_static"]["value"], 3060 + 4200 - 3180 - 3180)
        self.client.post(f"/api/rigs/{self.rig}/undo")
        self.assertEqual(self.get("").json()["window"]["count"], before)

    def test_items_from_a_spreadsheet_are_added_in_the_units_of_its_columns(self) -> None:
        before = len(self.get("").json()["rig"]["loads"])
        table = "thing\tkg\tplace (cm)\nkiln shelves\t12,5\t80\nfolding base\t7\t\n"
        seen = self.post("/items/preview", {"text": table})
        self.assertEqual((seen["count"], seen["problems"]), (2, []))
        self.assertAlmostEqual(seen["total"], 19.5 / 0.45359237)  # kg in a rig of pounds
        made = self.post("/items/import", {"text": table, "written": seen["written"]})["rig"][
            "loads"
        ]
        self.assertEqual(len(made), before + 2)
        self.assertEqual((made[-2]["mass"], made[-2]["position"]), ("12.5 kg", "80 cm"))
        told = self.post(
            "/items/import",
            {"text": table.replace("\t7\t", "\tseven\t"), "written": seen["written"]},
            422,
        )
        self.assertEqual(told["errors"][0]["path"], "line 3")
        told = self.post("/items", {"text": "binoculars 4 lb\nchairs", "on": "vehicle"}, 422)
        self.assertEqual(told["errors"][0]["path"], "line 2")
        self.assertEqual(self.get("").json()["rig"]["loads"], made)

    def test_the_log_compares_and_says_when_there_is_nothing(self) -> None:
        count = self.get("").json()["window"]["count"]
        log = self.get("/log").json()
        self.assertEqual((log["count"], log["entries"][0]["number"]), (count, count))
        self.assertEqual(len(self.get("/log/chart").json()["numbers"]), count)
        both = self.get(f"/log/compare?numbers=1&numbers={count}").json()
        self.assertEqual(len(both["titles"]), 2)
        self.get("/log/compare?numbers=1&numbers=99", 422)
        self.assertEqual(self.get("/log?words=nowhere-at-all").json()["entries"], [])

    def test_every_paper_is_what_it_says(self) -> None:
        for path, starts in (
            ("/paper.pdf", b"%PDF-"),
            ("/paper.pdf?what=report", b"%PDF-"),
            ("/print.html", b"<!doctype html>"),
            ("/tickets.csv", b"weigh-in,date,"),
            ("/reminders.ics", b"BEGIN:VCALENDAR"),
            ("/workbook.xlsx", b"PK"),
        ):
            with self.subTest(path):
                answer = self.get(path)
                self.assertTrue(
                    answer.content.lower().startswith(starts.lower()), answer.content[:40]
                )
                self.assertIn("filename*=UTF-8''", answer.headers["content-disposition"])
        book = load_workbook(io.BytesIO(self.get("/workbook.xlsx").content))
        self.assertIn("Weigh-ins", book.sheetnames)
        self.get("/paper.pdf?weigh_in=99", 404)

    def test_a_logbook_comes_back_and_a_broken_one_changes_nothing(self) -> None:
        book = self.client.get("/api/logbook").content
        self.assertEqual(self.client.post("/api/logbook", content=book).status_code, 201)
        self.assertEqual(len(self.client.get("/api/rigs").json()), 1)  # it was there already
        for broken in (book[:-20], b"{}", b"", book.replace(b'"noxel-rig"', b'"another"')):
            self.assertEqual(self.client.post("/api/logbook", content=broken).status_code, 422)
        self.client.delete(f"/api/rigs/{self.rig}")
        self.assertEqual(self.client.get("/api/rigs").json(), [])

    def test_every_vehicle_before_every_trailer(self) -> None:
        self.client.post("/api/rigs/import", json=rig_of("check--fifth-wheel"))
        items = self.client.get("/api/garage").json()
        table = self.client.get("/api/match").json()
        kinds = [each["kind"] for each in items]
        self.assertEqual(len(table["pairs"]), kinds.count("vehicle") * kinds.count("trailer"))
        one, other = table["pairs"][0], table["pairs"][-1]
        asked = {
            "vehicle": one["vehicle"],
            "trailer": one["trailer"],
            "other_vehicle": other["vehicle"],
            "other_trailer": other["trailer"],
        }
        both = self.client.get("/api/match/compare", params=asked).json()
        self.assertEqual(both["one"], one)
        self.assertTrue(both["says"][0].startswith("Another vehicle and another trailer"))
        answer = self.client.get("/api/match/compare", params={**asked, "vehicle": "nobody"})
        self.assertEqual(answer.status_code, 404)
        answer = self.client.get("/api/match?aboard=twelve")
        self.assertEqual((answer.status_code, answer.json()["errors"][0]["path"]), (422, "aboard"))
        self.assertEqual(self.client.post(f"/api/garage/{one['vehicle']}/retire").status_code, 204)
        left = self.client.get("/api/match").json()["vehicles"]
        self.assertNotIn(one["vehicle"], [each["id"] for each in left])
        self.assertTrue(self.get("/log").json()["entries"])  # its weigh-ins stay

    def test_the_lever_length_in_each_unit(self) -> None:
        """80 kg moved back by 2.54 m takes 40 kg off the tongue: 80 × 2.54 ÷ 40 = 5.08 m, which is
        200 in and 16.667 ft.
        """
        moved = {
            "mass": "80 kg",
            "moved_back": "2.54 m",
            "before": "420 kg",
            "after": "380 kg",
            "resolution": "1 kg",
        }
        for length, text, told in (
            ("m", "5.08 m", "5.08 m"),
            ("in", "200.0 in", "200 in"),
            ("ft", "16.667 ft", "16.7 ft"),
            ("mm", "5080.0 mm", "5,080 mm"),
        ):
            self.post("/units", {"mass": "kg", "length": length, "pressure": "psi"})
            found = self.post("/lever-length", moved)
            self.assertEqual((found["text"], found["says"].split(" ± ")[0]), (text, told))
            change = {
                "path": "trailer.geometry.coupler_to_axles",
                "op": "type",
                "text": found["text"],
            }
            sheet = self.client.patch(
                f"/api/rigs/{self.rig}", json={"changes": [change], "what": "length"}
            ).json()
            self.assertAlmostEqual(
                sheet["evaluation"]["geometry"]["coupler_to_axles"], 5.08, places=3
            )
        wrong = self.post("/lever-length", moved | {"after": "430 kg", "mass": "x"}, 422)
        self.assertIn("mass", [each["path"] for each in wrong["errors"]])


class TowingGuides(OnADemoRig):
    """Pasted once, looked up by the vehicle's own row. Expected: the table here, read by eye."""

    TABLE = "Engine;Axle ratio;GCWR;Tow rating\n3.5;3.31;13,300;8,200\n3.5;3.55;15,900;10,700\n"

    def test_kept_looked_up_and_taken_away(self) -> None:
        made = self.client.post(
            "/api/guides", json={"name": " The  guide ", "unit": "lb", "text": self.TABLE}
        ).json()
        self.assertEqual((made["name"], made["rows"]), ("The guide", 2))
        self.assertEqual(self.client.get("/api/guides").json(), [made])
        typed = [
            {"path": f"vehicle.guide.{key}", "op": "type", "text": said}
            for key, said in (("engine", "3.5"), ("axle_ratio", "3.55"))
        ]
        self.client.patch(f"/api/rigs/{self.rig}", json={"what": "guide", "changes": typed})
        found = self.get(f"/guide-rows?guide={made['id']}").json()
        self.assertEqual(
            [row["ratings"] for row in found["rows"]],
            [{"gcwr": "15,900 lb", "tow_rating": "10,700 lb"}],
        )
        self.assertEqual(
            [(row["number"], row["differs"]) for row in found["alike"]], [(2, "axle_ratio")]
        )
        self.problem(
            self.client.post("/api/guides", json={"name": "x", "unit": "lb", "text": "nothing"}),
            422,
            "text",
        )
        self.assertEqual(self.client.delete(f"/api/guides/{made['id']}").status_code, 204)
        self.problem(self.client.get(f"/api/rigs/{self.rig}/guide-rows?guide={made['id']}"), 404)
