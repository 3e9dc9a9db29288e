"""A label or a ticket over HTTP, pasted and photographed. Expected: the figures that were drawn on
the photograph, and what stands in the demo rig.
"""

import random
from unittest.mock import patch

from tools.labels import KINDS
from tools.photos import photo_of

from noxel.reader import ReadPicture, ReadWord
from tests.api.stand import OnADemoRig


class Reading(OnADemoRig):
    def keep(self, data: bytes, about: str = "ticket") -> None:
        url = f"/api/rigs/{self.rig}/photos/p1?about={about}"
        answer = self.client.put(
            url, content=data, headers={"content-type": "application/octet-stream"}
        )
        self.assertEqual(answer.status_code, 200, answer.text)

    def test_a_photographed_ticket_is_read_and_nothing_is_kept(self) -> None:
        self.keep(photo_of(8, "uneven light"))
        before = self.get("").json()
        drawn = KINDS[8](random.Random("platforms/uneven light")).expected
        with self.client:  # the reader is closed with the application
            read = self.post("/photos/p1/read", {"into": "weigh_ins[0].passes[0]"})
        by_name = {figure["path"].split(".")[-1]: figure["text"] for figure in read["figures"]}
        for path, text in drawn.items():
            self.assertEqual(by_name[path.split(".")[-1]], text)
        self.assertEqual(read["part"], "pass")
        self.assertEqual(read["turned"], 0)
        for figure in read["figures"]:
            self.assertTrue(
                all(-0.05 <= share <= 1.05 for point in figure["frame"] for share in point)
            )
            if figure["now"] is not None and figure["now"] != figure["text"]:
                self.assertEqual(figure["doubt"], f"{figure['now']} is entered")
        self.assertEqual(self.get("").json(), before)
        for turned, status in ((0, 200), (270, 200), (45, 422), (360, 422)):
            self.get(f"/photos/p1?turned={turned}", status)

    def test_a_hitch_label_needs_its_part_first(self) -> None:
        corners = ((0.0, 0.0), (400.0, 0.0), (400.0, 20.0), (0.0, 20.0))
        line = ReadWord("WEIGHT CARRYING MAX TRAILER WEIGHT 5000 LB", corners, 0.99, 0)
        self.keep(photo_of(4, "plain"), "hitch")
        count = len(self.get("").json()["rig"]["hitch"]["parts"])
        with patch("noxel.reader.Reader.read", return_value=ReadPicture((line,), 400, 300, 0)):
            read = self.post("/photos/p1/read", {"part": "hitch"})
        (figure,) = read["figures"]
        kinds = [part["kind"] for part in self.get("").json()["rig"]["hitch"]["parts"]]
        at = kinds.index("receiver") if "receiver" in kinds else count
        self.assertEqual(figure["path"], f"hitch.parts[{at}].trailer.carrying")
        self.assertEqual(read["before"] == [], "receiver" in kinds)

    def test_pasted_text_is_of_what_its_words_say(self) -> None:
        read = self.post("/pasted", {"text": "GVWR 7050"})
        (figure,) = read["figures"]
        self.assertEqual(
            (read["part"], figure["text"], figure["unit_assumed"]), ("vehicle", "7050", True)
        )
        self.assertIsNone(figure["frame"])
        noted = self.post("/pasted", {"text": "STEER 3120 lb", "part": "pass"})
        self.assertEqual(noted["figures"][0]["path"], "ticket.readings.front")
        self.problem(
            self.client.post(
                f"/api/rigs/{self.rig}/pasted", json={"text": "x", "into": "loads[0]"}
            ),
            422,
            "into",
        )

    def test_without_a_photograph_or_its_engine(self) -> None:
        self.problem(self.client.post(f"/api/rigs/{self.rig}/photos/none/read", json={}), 404)
        self.assertTrue(self.client.get("/api/reads").json()["reads"])
        self.keep(photo_of(0, "plain"))
        with patch("importlib.util.find_spec", return_value=None):
            self.assertFalse(self.client.get("/api/reads").json()["reads"])
            answer = self.client.post(f"/api/rigs/{self.rig}/photos/p1/read", json={})
            self.problem(answer, 404)
            self.assertIn("noxel[read]", answer.json()["detail"])
