"""What is said to an answer. The exercise and its figures are made up here; what each answer comes
to is worked out by hand beside it.
"""

import unittest
from dataclasses import replace

from noxel.core.practice import Exercise, Teller
from noxel.core.practice.diagnosis import diagnose
from noxel.core.practice.exercises import Option
from noxel.core.quantities import KG
from noxel.core.rig import parse_rig
from noxel.errors import InputError
from tests.truth import rig_of

LB = KG["lb"]
PAPERS = {"front_h": 3020, "rear_h": 4040, "front_s": 3240, "gvwr": 7300}
ASKED = Exercise(
    question="The trailer's gross weight?",
    facts={name: value * LB for name, value in PAPERS.items()},
    working=(),
    because="because",
    hints=(),
    right=6_300 * LB,
    give=20 * LB,
)


class Answers(unittest.TestCase):
    teller = Teller(parse_rig(rig_of("check--three-passes")))

    def said(self, text: str, asked: Exercise = ASKED) -> tuple[str, str]:
        diagnosis = diagnose(asked, text, self.teller)
        return diagnosis.found, diagnosis.way if diagnosis.found == "slip" else diagnosis.says

    def found(self, *texts: str, asked: Exercise = ASKED) -> list[str]:
        return [self.said(text, asked)[0] for text in texts]

    def test_right_to_within_the_rounding_close_to_within_four_times_it(self) -> None:
        self.assertEqual(self.found("6,320", "6,280", "2857.6 kg"), ["right"] * 3)
        self.assertEqual(self.found("6,321", "6,380", "6,220"), ["close"] * 3)
        # and close to within 2 %, which is a slip in the sum and no other sum
        self.assertEqual(self.found("6,425", "6,175"), ["close"] * 2)
        self.assertEqual(self.found("6,430", "6,170"), ["unexplained"] * 2)
        # what is asked to the pound is right to six tenths of one
        exact = replace(ASKED, give=0.0)
        self.assertEqual(
            self.found("6,300.6", "6,300.7", "6,302.4", "6,302.5", asked=exact),
            ["right", "close", "close", "close"],
        )

    def test_sums_and_differences_of_what_is_on_the_papers(self) -> None:
        for text, made in (
            ("3,020", "front axle, hitched"),
            ("7060", "front axle, hitched + rear axle, hitched"),
            ("220", "front axle, alone − front axle, hitched"),
        ):
            says = f"Your figure is {made}. That answers another question."
            self.assertEqual(self.said(text), ("made_of", says))
        # nobody takes one axle off another of the same ticket, and the rating is on no paper here
        self.assertEqual(self.found("1,020", "7,300", "3,290"), ["unexplained"] * 3)

    def test_digits(self) -> None:
        self.assertEqual(self.said("6,030"), ("slip", "transposed"))
        self.assertEqual(self.said("63,000"), ("slip", "digits"))
        self.assertEqual(self.said("630"), ("slip", "digit_lost"))
        self.assertEqual(self.said("3,600"), ("slip", "transposed"))

    def test_pressures_and_shares(self) -> None:
        cold = replace(ASKED, form="pressure", right=65.0, give=0.5, facts={})
        self.assertEqual(
            self.found("65.5", "65 psi", "65 kPa", "66", "67", "67.1", asked=cold),
            ["right", "right", "right", "close", "close", "unexplained"],
        )
        share = replace(ASKED, form="share", right=0.125, give=0.001, facts={})
        self.assertEqual(
            self.found("12.5", "12.6 %", "12.7", "12.9", "13", asked=share),
            ["right", "right", "close", "close", "unexplained"],
        )

    def test_no_figure_at_all(self) -> None:
        self.assertEqual(self.said("1" * 201), ("unread", "That is longer than any figure."))
        self.assertEqual(self.found("", "seven", "9" * 200), ["unread"] * 3)
        count = replace(ASKED, form="pressure", facts={})
        self.assertEqual(self.found("12 lb", asked=count), ["unread"])

    def test_statements(self) -> None:
        options = (Option("a", "one", "so it is"), Option("b", "two", "no: count again"))
        chosen = replace(ASKED, form="choice", options=options, choice="a")
        self.assertEqual(self.said("a", chosen), ("right", "because"))
        self.assertEqual(self.said("b", chosen), ("slip", "b"))
        with self.assertRaisesRegex(InputError, "Choose one of the statements"):
            self.said("c", chosen)


if __name__ == "__main__":
    unittest.main()
