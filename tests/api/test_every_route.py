"""Every route of the interface, as its own document lists them, asked wrongly in each way that
applies.

Expected: problem+json that says what and why (RFC 9457), a status of the kind, nothing changed;
never a fault of the server's own.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from tests.api.stand import OnADemoRig

NOBODY = "nobody-of-that-name"
ANYTHING = {
    "/api/progress/{name}",
    "/api/rigs/{rig_id}/photos/{photo_id}",
    "/api/presence",
    "/api/evaluate",
    "/api/predict",
    "/api/ceiling",
}
"""Routes that take any name, any bytes, any page, or a whole rig file: their refusals have tests of
their own.
"""


@dataclass(frozen=True, slots=True)
class Way:
    """A route: how it is asked, its path as documented, whether it takes JSON and what must be in
    it.
    """

    method: str
    path: str
    json: bool
    required: tuple[str, ...]

    def at(self, rig: str) -> str:
        """The path with the rig in its place, and something that is not there in every other."""
        filled = re.sub(r"{(number|line|count)}", "9999", self.path.replace("{rig_id}", rig))
        return re.sub(r"{\w+}", NOBODY, filled)


class EveryRoute(OnADemoRig):
    def ways(self) -> Iterator[Way]:
        document = self.client.app.openapi()  # type: ignore[attr-defined]
        for path, methods in document["paths"].items():
            for method, about in methods.items():
                content = (
                    about.get("requestBody", {}).get("content", {}).get("application/json", {})
                )
                name = content.get("schema", {}).get("$ref", "").rsplit("/", 1)[-1]
                required = document["components"]["schemas"].get(name, {}).get("required", [])
                yield Way(method.upper(), path, bool(content), tuple(required))

    def refused(self, answer: Any, statuses: tuple[int, ...], words: str) -> None:
        self.assertIn(answer.status_code, statuses, f"{words}: {answer.text[:200]}")
        self.assertEqual(answer.headers["content-type"], "application/problem+json", words)
        body = answer.json()
        self.assertEqual(body["status"], answer.status_code)
        self.assertTrue(
            body["title"] and body["detail"] and body["type"] == f"urn:noxel:{body['code']}", words
        )

    def everything(self) -> Any:
        return [
            self.client.get("/api/rigs").json(),
            self.get("").json()["rig"],
            self.client.get("/api/garage").json(),
        ]

    def test_what_is_not_there(self) -> None:
        before, asked = self.everything(), 0
        for way in self.ways():
            if "{" not in way.path or way.path in ANYTHING:
                continue
            asked += 1
            body: dict[str, Any] = {"json": dict.fromkeys(way.required, "x")} if way.json else {}
            answer = self.client.request(way.method, way.at(NOBODY), **body)
            self.refused(answer, (404, 409, 422), f"{way.method} {way.path}")
        self.assertGreater(asked, 50)
        self.assertEqual(self.everything(), before)

    def test_bodies_that_are_missing_wrong_or_not_json(self) -> None:
        before, asked = self.everything(), 0
        for way in self.ways():
            if not way.json or way.path in ANYTHING:
                continue
            what = f"{way.method} {way.path}"
            for body in (
                b"",
                b"{",
                b'{"a": NaN}',
                b'{"a": 1, "a": 2}',
                b"[1, 2]",
                b'"text"',
                b"3",
                b'{"x": "\xff"}',
            ):
                asked += 1
                answer = self.client.request(way.method, way.at(self.rig), content=body)
                self.refused(answer, (404, 409, 422), f"{what} {body!r}")
            for name in way.required:
                told = self.client.request(
                    way.method,
                    way.at(self.rig),
                    json=dict.fromkeys(set(way.required) - {name}, "x"),
                )
                self.refused(told, (404, 409, 422), f"{what} without {name}")
                if told.json()["code"] == "request.invalid":
                    self.assertIn(
                        f"body.{name}", [row["path"] for row in told.json()["errors"]], what
                    )
        self.assertGreater(asked, 200)
        self.assertEqual(self.everything(), before)

    def test_bodies_that_are_too_large_and_addresses_that_are_not_there(self) -> None:
        large = b'{"a": "' + b"x" * 70_000_000 + b'"}'
        self.refused(self.client.post("/api/rigs/import", content=large), (413,), "a large body")
        for method in ("GET", "POST", "PATCH", "DELETE", "PUT"):
            self.refused(self.client.request(method, "/api/nothing/here"), (404, 405), method)
        for way in self.ways():
            if way.path != "/api/{path}":
                others = {"GET", "POST", "PATCH", "DELETE", "PUT"} - {
                    each.method for each in self.ways() if each.path == way.path
                }
                answer = self.client.request(min(others), way.at(self.rig))
                self.refused(answer, (404, 405, 422), f"{min(others)} {way.path}")

    def test_numbers_out_of_their_range(self) -> None:
        for number in ("0", "-1", "1e9", "99999999999999999999", "two", ""):
            for path in (
                f"?weigh_in={number}",
                f"/print.html?weigh_in={number}",
                f"/pack?weigh_in={number}",
            ):
                answer = self.client.get(f"/api/rigs/{self.rig}{path}")
                self.refused(answer, (404, 405, 422), path)
