"""What the tests over HTTP share: the application on a real SQLite file."""

import tempfile
import unittest
from importlib.resources import files
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from noxel.api.app import create_app
from noxel.store.database import Database

HERE = "http://127.0.0.1:8710"


def client_of(database: Database, **how: Any) -> TestClient:
    """A client that asks as Noxel's own page does."""
    headers = {"origin": HERE, "sec-fetch-site": "same-origin", "content-type": "application/json"}
    return TestClient(create_app(database), base_url=HERE, headers=headers, **how)


class OnFile(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database = Database(Path(folder.name) / "noxel.db")
        self.addCleanup(self.database.close)
        self.client = client_of(self.database)

    def add(self, document: Any) -> str:
        return str(self.client.post("/api/rigs/import", json=document).json()["id"])

    def problem(self, answer: Any, status: int, path: str | None = None) -> None:
        """A refusal says what, why and where."""
        self.assertEqual(answer.status_code, status, answer.text)
        self.assertEqual(answer.headers["content-type"], "application/problem+json")
        body = answer.json()
        self.assertTrue(
            body["detail"] and body["code"] and body["type"].startswith("urn:noxel:"), body
        )
        if path is not None:
            self.assertIn(path, [text["path"] for text in body["errors"]])


class OnADemoRig(OnFile):
    """One rig of the demo household in it, the observatory's."""

    def setUp(self) -> None:
        super().setUp()
        demo = (files("noxel.demo") / "observatory.noxel.json").read_bytes()
        self.rig = self.client.post("/api/rigs/import", content=demo).json()["id"]

    def get(self, path: str, status: int = 200) -> Any:
        answer = self.client.get(f"/api/rigs/{self.rig}{path}")
        self.assertEqual(answer.status_code, status, answer.text[:500])
        return answer

    def post(self, path: str, body: Any, status: int = 200) -> Any:
        answer = self.client.post(f"/api/rigs/{self.rig}{path}", json=body)
        self.assertEqual(answer.status_code, status, answer.text[:500])
        return answer.json()
