"""Short paths: every step can be filled in, in the words of the region, for what the rig is."""

import unittest
from typing import get_args

from noxel.core.editing import Change, apply_changes, new_rig
from noxel.core.plates import Door, PathStep, short_path
from noxel.core.rig import Kind, RigFile, TermSet, parse_rig


def path(
    kind: Kind, door: Door, terms: TermSet = "north_america", **more: object
) -> list[PathStep]:
    return short_path(parse_rig(new_rig("", kind, "kg", terms) | more), door)


def fields_of(steps: list[PathStep]) -> list[str]:
    return [field.path for step in steps for field in step.fields]


class ShortPaths(unittest.TestCase):
    def test_every_field_takes_what_is_typed(self) -> None:
        for kind in get_args(Kind):
            for terms in get_args(TermSet):
                for door in get_args(Door):
                    document = new_rig("", kind, "kg", terms)
                    for field in fields_of(short_path(parse_rig(document), door)):
                        document = apply_changes(document, [Change(field, "120")]).document
                    fields = apply_changes(document, []).fields
                    self.assertEqual([entry for entry in fields if entry.problem], [])
                    self.assertIsInstance(parse_rig(document), RigFile)

    def test_a_car_on_its_wheels_is_asked_for_no_tongue(self) -> None:
        towed = path("motorhome", "tow", trailer={"style": "towed_car"})
        self.assertIn("trailer.ratings.gvwr", fields_of(towed))
        self.assertFalse([name for name in fields_of(towed) if "tongue" in name])
        self.assertIn("brakes", [step.more for step in towed])
        alone = path("motorhome", "tow")
        self.assertEqual([step.id for step in alone if step.more == "behind"], ["behind"])
        self.assertNotIn("trailer", [step.id for step in alone])

    def test_words_and_labels_follow_the_region(self) -> None:
        titles = [step.title for step in path("conventional", "tow", "europe")]
        self.assertEqual(titles[:3], ["Maker's plate", "Kerb mass", "Registration document"])
        self.assertIn("Who and what rides in the car", titles)
        labels = [
            field.label
            for step in path("conventional", "tow", "australia")
            for field in step.fields
        ]
        self.assertLessEqual({"GVM", "GCM", "ATM", "Tare"}, set(labels))

    def test_a_camper_is_weighed_and_balanced(self) -> None:
        steps = path("slide_in", "going")
        self.assertIn("camper", [step.more for step in steps])
        self.assertIn("vehicle.camper_centre", fields_of(steps))
