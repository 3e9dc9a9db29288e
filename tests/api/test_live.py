"""The live scale over HTTP: what is refused, and that it never keeps anybody waiting. Readings:
tests/sim and the browser.
"""

import unittest

from noxel.store.database import Database
from tests.api.stand import client_of
from tests.truth import rig_of


class LiveOverHttp(unittest.TestCase):
    def setUp(self) -> None:
        client = client_of(Database(None))
        self.client = client.__enter__()
        self.addCleanup(client.__exit__)

    def test_nothing_is_connected_at_first(self) -> None:
        self.assertEqual(self.client.get("/api/live").json()["state"], "off")
        self.assertEqual(
            self.client.post("/api/live/command", json={"do": "weigh"}).status_code, 409
        )
        self.assertEqual(self.client.delete("/api/live").json()["state"], "off")

    def test_only_scales_on_this_machine(self) -> None:
        for address in (
            "10.1.2.3:4001",
            "scale.example:80",
            "127.0.0.1",
            "127.0.0.1:0",
            "127.0.0.1:99999",
            ":1",
            "",
        ):
            answer = self.client.post("/api/live", json={"address": address})
            self.assertEqual(answer.status_code, 422, address)
            self.assertEqual(answer.json()["errors"][0]["path"], "address")

    def test_a_scale_that_is_not_there_is_lost_and_not_waited_for(self) -> None:
        answer = self.client.post("/api/live", json={"address": "127.0.0.1:1"})
        self.assertEqual(answer.status_code, 200)
        self.assertIn(answer.json()["state"], ("connecting", "lost"))
        self.assertEqual(answer.json()["readings"], [])

    def test_the_stand_in_plays_a_rig_that_exists(self) -> None:
        self.assertEqual(
            self.client.post("/api/live", json={"stand_in": "nobody"}).status_code, 404
        )
        rig = self.client.post("/api/rigs/import", json=rig_of("check--kilograms")).json()["id"]
        answer = self.client.post("/api/live", json={"stand_in": rig, "unit": "kg", "weigh_in": 1})
        self.assertTrue(answer.json()["stand_in"])
        self.assertEqual(
            self.client.post(
                "/api/live/command", json={"do": "fault", "fault": "fire"}
            ).status_code,
            422,
        )
        self.assertEqual(
            self.client.post("/api/live", json={"stand_in": rig, "weigh_in": 0}).status_code, 422
        )
        self.assertEqual(
            self.client.post("/api/live", json={"stand_in": rig, "weigh_in": 2}).status_code, 404
        )
