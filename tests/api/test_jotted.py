"""Tickets that a phone jotted down, sent in order, twice or late. Expected: the rules of the issue,
by hand.
"""

from typing import Any

from tests.api.stand import OnADemoRig


class JottedDown(OnADemoRig):
    def jot(self, called: str, status: int = 200, **other: Any) -> Any:
        ticket = {
            "key": called,
            "visit": "v1",
            "day": "2026-05-02",
            "config": "hitched",
            "spring_bars": "engaged",
            "unit": "lb",
            "readings": {"front": "3060", "rear": "4,1oo", "trailer": "5880"},
            "place": "Harrow Yard",
            "fee": "14.50",
        }
        return self.post("/jotted", ticket | other, status)

    def test_a_visit_is_one_weigh_in_and_a_ticket_sent_again_changes_nothing(self) -> None:
        before = self.get("").json()
        first = self.jot("t1")
        self.assertEqual(first["window"]["count"], before["window"]["count"] + 1)
        path = first["rig"]["weigh_ins"][-1]
        self.assertEqual(
            (path["date"], path["place"], path["passes"][0]["fee"]),
            ("2026-05-02", "Harrow Yard", "14.50"),
        )
        self.assertEqual(path["passes"][0]["readings"], {"front": 3060, "trailer": 5880})
        waits = next(code for code in first["fields"] if code["entry"].get("text") == "4,1oo")
        self.assertTrue(
            waits["path"].endswith("passes[0].readings.rear") and waits["problem"], waits
        )
        alone = self.jot(
            "t2",
            config="vehicle_only",
            spring_bars=None,
            readings={"front": "3320", "rear": "3180"},
            fee="3",
        )
        again = self.jot("t1")
        self.assertEqual(len(again["rig"]["weigh_ins"][-1]["passes"]), 2)
        self.assertEqual(
            (again["edits"], again["window"]["count"]), (alone["edits"], first["window"]["count"])
        )
        other = self.jot("t3", visit="v2", unit="kg", readings={"front": "1400"})
        self.assertEqual(other["window"]["count"], first["window"]["count"] + 1)
        self.assertEqual(other["rig"]["weigh_ins"][-1]["scale"]["resolution"], "10 kg")

    def test_it_fills_the_pass_that_was_planned(self) -> None:
        self.post("/weigh-ins", None)
        visit = self.jot("t1")["rig"]["weigh_ins"][-1]
        self.assertEqual(
            [visit["config"] for visit in visit["passes"]],
            ["hitched"],
            "another visit is another weigh-in",
        )

    def test_what_cannot_stand_waits_at_its_field_and_what_is_no_ticket_is_refused(self) -> None:
        answer = self.jot("t1", config="vehicle_only", spring_bars=None)
        self.assertEqual(answer["rig"]["weigh_ins"][-1]["passes"][0]["readings"], {"front": 3060})
        waits = next(text for text in answer["fields"] if text["path"].endswith("readings.trailer"))
        self.assertEqual(
            (waits["entry"]["text"], "no trailer reading" in waits["problem"]), ("5880", True)
        )
        for wrong in ({"key": "t 1"}, {"day": "2026-13-02"}, {"config": "upside_down"}):
            self.jot("t2", status=422, **{"key": "t2", **wrong})
