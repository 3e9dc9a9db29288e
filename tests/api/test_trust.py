"""Nobody gets in, nothing strange is a server error, and a storage fault is said in words.
Expected: issue by issue, by hand.
"""

import json
import logging
import random
import sqlite3
from collections.abc import Iterator
from typing import Any
from unittest import mock

from tools.fuzz import Fuzz

from tests.api.stand import OnADemoRig, client_of

WANTED_HEADERS = (
    "content-security-policy", "x-content-type-options", "x-frame-options", "referrer-policy",
    "cross-origin-resource-policy", "cross-origin-opener-policy",
)  # fmt: skip


class Strangers(OnADemoRig):
    def test_only_its_own_page_may_ask(self) -> None:
        client = client_of(self.database)
        refused: list[tuple[int, str, str, dict[str, str]]] = [
            (400, "GET", "/api/rigs", {"host": "testserver"}),
            (400, "GET", "/", {"host": "elsewhere.example:8710"}),
            (400, "GET", "/", {"host": ""}),
            (403, "GET", "/api/rigs", {"origin": "http://elsewhere.example"}),
            (403, "GET", "/api/rigs", {"origin": "null"}),
            (403, "GET", "/api/rigs", {"origin": "https://127.0.0.1:8710"}),
            (403, "GET", "/api/rigs", {"origin": "http://127.0.0.1:9999"}),
            (403, "GET", "/api/rigs", {"sec-fetch-site": "cross-site"}),
            (
                403,
                "GET",
                "/api/rigs",
                {"sec-fetch-site": "same-site", "sec-fetch-mode": "navigate"},
            ),
            (
                403,
                "GET",
                "/assets/x.js",
                {"sec-fetch-site": "cross-site", "sec-fetch-mode": "no-cors"},
            ),
            (403, "POST", "/api/rigs", {"sec-fetch-site": "cross-site"}),
            (415, "POST", "/api/rigs", {"content-type": "text/plain"}),
            (415, "POST", "/api/rigs/import", {"content-type": "multipart/form-data; boundary=x"}),
            (413, "POST", "/api/rigs/import", {"content-length": "99999999"}),
            (413, "POST", "/api/rigs/import", {"content-length": "²"}),
        ]
        for status, method, path, headers in refused:
            with self.subTest(headers):
                raw = [(key.encode(), value.encode()) for key, value in headers.items()]
                answer = client.request(
                    method, path, headers=raw, content="{}" if method == "POST" else None
                )
                self.problem(answer, status)
                for wanted in WANTED_HEADERS:
                    self.assertIn(wanted, answer.headers)
        del client.headers["origin"]
        self.problem(client.post("/api/rigs", json={"kind": "conventional", "mass": "lb"}), 403)
        self.assertEqual(len(client.get("/api/rigs").json()), 1, "nothing was changed")

    def test_a_link_from_elsewhere_opens_the_page_and_evaluating_needs_no_page(self) -> None:
        client = client_of(self.database)
        for header in ("origin", "sec-fetch-site", "content-type"):
            del client.headers[header]
        arrived = client.get(
            "/", headers={"sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate"}
        )
        self.assertIn(arrived.status_code, (200, 404))  # 404: not built
        document = self.get("/file").content
        self.assertEqual(client.post("/api/evaluate", content=document).status_code, 200)

    def test_a_body_without_end_is_refused(self) -> None:
        def endless() -> Iterator[bytes]:
            for _ in range(300):
                yield b" " * 100_000

        for path in ("/api/rigs/import", "/api/rigs", "/api/evaluate"):
            self.problem(self.client.post(path, content=endless()), 413)

    def test_the_headers_are_on_every_answer(self) -> None:
        with mock.patch("noxel.store.rigs.Rigs.summaries", side_effect=RuntimeError("a bug")):
            logging.disable(logging.CRITICAL)
            self.addCleanup(logging.disable, logging.NOTSET)
            broken = self.client.get("/api/rigs")
        self.problem(broken, 500)
        for answer in (
            broken,
            self.client.get("/api/none"),
            self.client.get("/"),
            self.client.get("/api/health"),
        ):
            for wanted in WANTED_HEADERS:
                self.assertIn(wanted, answer.headers)


class Nonsense(OnADemoRig):
    """Each of these was a server error once."""

    def change(self, content: str) -> Any:
        return self.client.patch(f"/api/rigs/{self.rig}", content=f'{{"changes": [{content}]}}')

    def test_numbers_that_are_none(self) -> None:
        many = "9" * 25
        for query in (
            f"?weigh_in={many}",
            "?weigh_in=²",
            f"/log?before={many}",
            f"/log/compare?numbers={many}",
            f"/log/compare?numbers=1&others={self.rig}:²",
            "/how-much?share=1e-306",
            "/how-much?share=nan",
        ):
            with self.subTest(query):
                self.problem(self.get(query, 422), 422)
        self.problem(
            self.client.patch(
                f"/api/rigs/{self.rig}",
                json={"changes": [{"path": "name", "text": "x"}], "seen": 10**25},
            ),
            422,
        )
        for figure in ("1e400", "9" * 5000, "1" + "0" * 309, '"\\ud800"', "NaN", "[" * 2000):
            with self.subTest(figure[:9]):
                self.problem(
                    self.change(
                        f'{{"path": "vehicle.curb_weight", "op": "set", "value": {figure}}}'
                    ),
                    422,
                )
        for path, value in (
            ("entered", '"x"'),
            ("vehicle.entered", "3"),
            ("vehicle", '{"entered": "x"}'),
            ("weigh_ins[0].date", '"99999999-01-01"'),
            ("weigh_ins[99999999999999999999]", "{}"),
        ):
            with self.subTest(path):
                self.problem(
                    self.change(f'{{"path": "{path}", "op": "set", "value": {value}}}'), 422
                )

    def test_a_held_key_stays_as_typed(self) -> None:
        held = "9" * 3999
        for typed in ("9" * 310, held, "1e400", "²"):
            sheet = self.change(json.dumps({"path": "vehicle.curb_weight", "text": typed}))
            self.assertEqual(sheet.status_code, 200, sheet.text[:300])
            field = next(
                row for row in sheet.json()["fields"] if row["path"] == "vehicle.curb_weight"
            )
            self.assertEqual(field["entry"]["text"], typed)
            self.assertTrue(field["problem"])
        self.assertIn(
            "3999 digits", self.change(f'{{"path": "vehicle.curb_weight", "text": "{held}"}}').text
        )

    def test_lists_addresses_and_clocks(self) -> None:
        line = "name;mass\n" + "x" * 140_000 + ";40\n"
        self.problem(
            self.client.post(f"/api/rigs/{self.rig}/items/preview", json={"text": line}), 422
        )
        self.problem(
            self.client.post(f"/api/rigs/{self.rig}/tickets/preview", json={"text": line}), 422
        )
        for address in ("127.0.0.1:²", "127.0.0.1:" + "9" * 80, "10.0.0.1:4001", ":"):
            self.problem(self.client.post("/api/live", json={"address": address}), 422)
        for texts in ({"": ""}, {"name": ""}, {"[": "4"}):
            self.problem(
                self.client.post(
                    "/api/garage", json={"kind": "vehicle", "mass": "lb", "texts": texts}
                ),
                422,
            )
        for path in ("/%00", "/" + "a" * 300, "/..%2f..%2fetc%2fpasswd", "/%ff"):
            answer = self.client.get(path)
            self.assertIn(answer.status_code, (200, 404))
            self.assertNotIn("root:", answer.text)
        with mock.patch("time.localtime", return_value=(1970, 1, 1, 0, 0, 0, 3, 1, 0)):
            self.get("/workbook.xlsx")

    def test_random_calls_are_answered(self) -> None:
        """A short run of what ``make trust`` does at length; seeded."""
        fuzz = Fuzz(self.client.app.openapi(), random.Random(20), [self.rig])  # type: ignore[attr-defined]
        for method, path, query, body in fuzz.calls(400):
            answer = self.client.request(
                method, path, params=query, content=None if body is None else json.dumps(body)
            )
            self.assertLess(
                answer.status_code,
                500,
                f"{method} {path} {query} {str(body)[:400]}\n{answer.text[:300]}",
            )
        if self.client.get(f"/api/rigs/{self.rig}").status_code == 200:
            self.get("/file")


class Storage(OnADemoRig):
    def test_a_full_disk_and_a_folder_that_can_only_be_read(self) -> None:
        pooled = self.database.engine.raw_connection()
        connection: Any = pooled.driver_connection
        pooled.close()
        assert isinstance(connection, sqlite3.Connection)  # noqa: S101
        before = self.get("").json()["rig"]
        connection.execute("VACUUM")  # no free page is left
        for pragma, back, status, words in (
            ("max_page_count = 1", "max_page_count = 1000000", 507, "The disk is full"),
            ("query_only = 1", "query_only = 0", 503, "can only be read"),
        ):
            connection.execute(f"PRAGMA {pragma}")
            note = {"changes": [{"path": "note", "text": "x" * 4000}], "what": words}
            answers = [self.client.patch(f"/api/rigs/{self.rig}", json=note) for _ in range(20)]
            connection.execute(f"PRAGMA {back}")
            refused = next(answer for answer in answers if answer.status_code != 200)
            self.problem(refused, status)
            self.assertIn(words, refused.json()["detail"])
            self.assertEqual(self.get("").json()["rig"]["vehicle"], before["vehicle"])


class Damage(OnADemoRig):
    def test_a_damaged_rig_is_shown_exported_and_deleted(self) -> None:
        other = self.client.post(
            "/api/rigs", json={"kind": "conventional", "mass": "lb", "name": "sound"}
        ).json()["id"]
        with sqlite3.connect(self.database.path or "") as connection:
            connection.execute("UPDATE rigs SET document = '{' WHERE id = ?", (self.rig,))
        listed = {row["id"]: row["damaged"] for row in self.client.get("/api/rigs").json()}
        self.assertEqual(listed, {self.rig: True, other: False})
        self.problem(self.client.get(f"/api/rigs/{self.rig}"), 409)
        text = self.get("/raw").text
        self.assertIn('\n "rig": "{",\n', text)  # one thing a line, for whoever mends it by hand
        raw = json.loads(text)
        self.assertEqual(raw["rig"], "{")
        self.assertTrue(all(json.loads(raw) for raw in raw["weigh_ins"]))
        self.assertEqual(self.client.get("/api/match").status_code, 200)
        self.assertEqual(len(self.client.get("/api/logbook").json()["rigs"]), 1)
        self.assertEqual(self.client.get("/api/backup").status_code, 200)
        self.assertEqual(self.client.delete(f"/api/rigs/{self.rig}").status_code, 204)
        self.assertEqual([row["id"] for row in self.client.get("/api/rigs").json()], [other])
