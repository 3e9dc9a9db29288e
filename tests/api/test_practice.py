"""The practice yard over HTTP, on a real database: a lesson played, progress kept, a challenge, a
rig of one's own, exercises on paper.

Expected: the answers of the core (`tests/core/practice`), and that no rig changes.
"""

import datetime
import io
from typing import Any
from unittest.mock import patch

from pypdf import PdfReader

from tests.api.stand import OnADemoRig


class InTheYard(OnADemoRig):
    def ask(self, path: str, body: dict[str, Any], status: int = 200) -> dict[str, Any]:
        answer = self.client.post(f"/api/practice/{path}", json=body)
        self.assertEqual(answer.status_code, status, answer.text[:300])
        found: dict[str, Any] = answer.json()
        return found

    def test_a_lesson_is_played_and_a_slip_comes_back(self) -> None:
        learner = self.ask("learners", {"name": " Juniper  B. "})["id"]
        begun = self.ask("lessons/trailer", {"seed": "7"})
        tickets = begun["yard"]["tickets"]
        platform, gross, alone = (
            dict(tickets[0]["lines"])["platform 3"],
            tickets[0]["gross"],
            tickets[1]["gross"],
        )
        run = begun["yard"]["run"]
        wrong = self.ask(
            "lessons/trailer", {"run": run, "answer": str(platform), "learner": learner}
        )
        self.assertEqual((wrong["reply"]["way"], wrong["yard"]["truth"]), ("tongue_left_out", None))
        right = self.ask(
            "lessons/trailer", {"run": run, "answer": f"{gross} - {alone}", "learner": learner}
        )
        self.assertTrue(right["reply"]["right"] and right["yard"]["truth"] and right["working"])
        body = self.client.get(f"/api/practice?learner={learner}").json()
        self.assertEqual(
            ([seen["about"] for seen in body["progress"]], body["due"]),
            (["lesson:trailer", "slip:tongue_left_out"], []),
        )
        tomorrow = datetime.date.today() + datetime.timedelta(days=1)
        with patch("noxel.api.practice.datetime") as later:
            later.date.today.return_value = tomorrow
            due = self.client.get(f"/api/practice?learner={learner}").json()["due"]
            self.assertEqual([due["slip"] for due in due], ["tongue_left_out"])
            again = self.ask(f"lessons/{due[0]['lesson']}", {"seed": due[0]["seed"]})
            self.assertNotEqual(again["yard"]["run"], run)
        record = self.client.get(f"/api/practice/learners/{learner}/record").text
        self.assertIn("Practice record of Juniper B.", record)
        self.assertIn("tongue weight left out: made 1 times", record)
        self.assertEqual(
            len(
                self.client.get(f"/api/practice/learners/{learner}/record?form=json").json()[
                    "slips"
                ]
            ),
            1,
        )
        self.client.post(f"/api/practice/learners/{learner}/reset")
        self.assertEqual(self.client.get(f"/api/practice?learner={learner}").json()["progress"], [])
        self.assertEqual(self.client.delete(f"/api/practice/learners/{learner}").status_code, 204)
        self.problem(self.client.get(f"/api/practice?learner={learner}"), 404)

    def test_people_have_names_of_their_own(self) -> None:
        self.ask("learners", {"name": "Bo"})
        self.problem(self.client.post("/api/practice/learners", json={"name": "bo "}), 409)
        self.problem(self.client.post("/api/practice/learners", json={"name": "  "}), 422, "name")
        self.assertEqual(
            [row["name"] for row in self.client.get("/api/practice").json()["learners"]], ["Bo"]
        )

    def test_what_is_dangerous_or_not_understood_leaves_the_yard_as_it_was(self) -> None:
        run = "yard1/bars.lb.north_america/4c19/"
        refused = self.ask("yard", {"run": run, "act": "uncouple"})
        self.assertEqual(
            (refused["run"], "Chocks are not set" in str(refused["refused"])), (run, True)
        )
        for body, path in (
            ({"run": "yard9/x/1/"}, "run"),
            ({"run": "nonsense"}, "run"),
            ({"run": run + "uncouple"}, "run"),
            ({}, "body.run"),
        ):
            self.problem(self.client.post("/api/practice/yard", json=body), 422, path)
        self.problem(
            self.client.post("/api/practice/lessons/trailer", json={"run": run, "answer": "1"}),
            422,
            "run",
        )
        self.problem(self.client.post("/api/practice/lessons/nothing", json={}), 404)
        self.problem(
            self.client.post("/api/practice/lessons/one-pass", json={"answer": "yes"}),
            422,
            "answer",
        )
        self.problem(
            self.client.post("/api/practice/lessons/trailer", json={"seed": "a b"}),
            422,
            "body.seed",
        )
        self.problem(self.client.post("/api/practice/challenges", json={"run": run}), 422, "run")
        unread = self.ask("lessons/trailer", {"answer": "quite heavy"})
        self.assertEqual(unread["reply"]["found"], "unread")

    def test_a_challenge_is_the_same_for_everybody(self) -> None:
        run = "yard1/challenge2.lb.north_america/2026-11-25/"
        begun = self.ask("challenges", {"run": run})
        self.assertEqual(begun, self.ask("challenges", {"run": run}))
        played = self.ask("challenges", {"run": f"{run}on.ask.wait.off"})
        words = {check: "cannot_tell" for check, _ in played["asked"]}
        judged = self.ask(
            "challenges", {"run": f"{run}on.ask.wait.off", "words": words, "cured": True}
        )
        self.assertEqual(len(judged["judged"]), len(words))
        self.assertTrue(judged["traps"] and judged["yard"]["truth"])
        self.assertIsInstance(judged["still_over"], list)

    def test_a_rig_of_ones_own_is_copied_and_nothing_comes_back(self) -> None:
        before = self.get("").json()["rig"]
        run = self.post("/yard", {})["run"]
        answer = self.ask("yard", {"run": f"{run}on.ask.wait.off", "truth": True})
        weighed = self.get("").json()["evaluation"]["derived"]
        true = {line["label"]: line["true"] for line in answer["truth"]}
        self.assertAlmostEqual(
            true["Front axle, hitched"],
            weighed["front_hitched"]["value"],
            delta=weighed["front_hitched"]["plus_minus"],
        )
        moved = self.ask("yard", {"run": answer["run"], "act": "drop:0"})
        self.assertTrue(moved["refused"] or moved["run"] != answer["run"])
        self.assertEqual(self.get("").json()["rig"], before)
        self.problem(
            self.client.post("/api/practice/yard", json={"run": "yard1/own.nobody.1/1/"}), 404
        )

    def test_exercises_on_paper(self) -> None:
        for query, words in (
            (
                "seed=class-3&lessons=trailer,one-pass&unit=lb",
                (
                    "What does the trailer weigh, all of it?",
                    "tongue weight left out",
                    "Tickets to cut out",
                ),
            ),
            ("seed=4&unit=kg&terms=europe", ("noseweight", "Answers", "kg")),
        ):
            answer = self.client.get(f"/api/practice/sheet.pdf?{query}")
            self.assertEqual(answer.status_code, 200, answer.text[:200])
            text = " ".join(
                page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages
            )
            for word in words:
                self.assertIn(word, " ".join(text.split()))
            self.assertEqual(
                answer.content, self.client.get(f"/api/practice/sheet.pdf?{query}").content
            )
        self.problem(self.client.get("/api/practice/sheet.pdf?lessons=cure"), 422, "lessons")
        self.problem(self.client.get("/api/practice/sheet.pdf?lessons=nothing"), 404)
