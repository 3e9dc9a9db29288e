"""The rig file's rules: each broken one is an error that names its path. Expected: the format's own
text.
"""

import json
import unittest
from typing import Any

import jsonschema
from tools.generated import SCHEMA, schema

from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.errors import RigFileError, TooLarge
from noxel.formats.rig_json import LARGEST, read_rig, write_rig
from tests.truth import CASES, case, rig_of

PASS = "weigh_ins[0].passes[0]"


class Rules(unittest.TestCase):
    def test_round_trip_is_lossless(self) -> None:
        rules = jsonschema.Draft202012Validator(RigFile.model_json_schema())
        for path in CASES.glob("[!e]*.json"):  # not the files to refuse
            document = case(path.stem)["file"]
            self.assertEqual(
                dump_rig(read_rig(write_rig(parse_rig(document)).encode())), document, path.stem
            )
            rules.validate(document)

    def test_every_bound_and_choice_is_the_published_one(self) -> None:
        """``docs/rig-file.schema.json`` is read by whoever writes such files."""
        self.assertEqual(schema(), SCHEMA.read_text(encoding="utf-8"))

    def broken(self, path: str, value: Any, name: str = "check--three-passes") -> list[str]:
        document = rig_of(name)
        node: Any = document
        *parents, last = [
            int(part) if part.isdigit() else part
            for part in path.replace("[", ".").replace("]", "").split(".")
        ]
        for part in parents:
            node = node[part]
        if value is ...:
            del node[last]
        else:
            node[last] = value
        with self.assertRaises(RigFileError) as caught:
            parse_rig(document)
        return [problem.path for problem in caught.exception.problems]

    def test_broken_rules_are_named(self) -> None:
        told: tuple[tuple[str, Any, str], ...] = (
            ("vehicle.ratings.gvwr", 0, "vehicle.ratings.gvwr"),
            ("vehicle.ratings.gvwr", float("nan"), "vehicle.ratings.gvwr"),
            ("vehicle.ratings.gvwr", float("inf"), "vehicle.ratings.gvwr"),
            ("vehicle.ratings.gvwr", True, "vehicle.ratings.gvwr"),
            ("vehicle.ratings.gvwr", 1e9, "vehicle.ratings.gvwr"),
            ("vehicle.ratings.gvwr", "7,00 lb", "vehicle.ratings.gvwr"),
            ("vehicle.ratings.tow_rating", {"carrying": -1}, "vehicle.ratings.tow_rating.carrying"),
            ("vehicle.ratings.colour", 1, "vehicle.ratings.colour"),
            ("vehicle.curb_weight", -5, "vehicle.curb_weight"),
            ("hitch.parts[0].kind", ..., "hitch.parts[0].kind"),
            ("units.mass", "stone", "units.mass"),
            ("units.length", ..., "vehicle.geometry.wheelbase"),
            ("kind", "sledge", "kind"),
            ("trailer", None, f"{PASS}.config"),
            ("policy", {"cushions": {"vehicle.colour": 0.9}}, "policy.cushions.vehicle.colour"),
            ("policy", {"cushions": {"vehicle.gross": 1.2}}, "policy.cushions.vehicle.gross"),
            ("policy", {"tongue_share": [0.15, 0.1]}, "policy.tongue_share[1]"),
            ("loads", [{"on": "trailer", "mass": -4}], "loads[0].mass"),
            ("weigh_ins[0].date", "2026-02-30", "weigh_ins[0].date"),
            ("weigh_ins[0].scale", ..., "weigh_ins[0].scale.resolution"),
            ("weigh_ins[0].scale.resolution", 0, "weigh_ins[0].scale.resolution"),
            ("weigh_ins[0].scale.resolution", ..., "weigh_ins[0].scale.resolution"),
            (f"{PASS}.spring_bars", ..., f"{PASS}.spring_bars"),
            ("hitch.weight_distribution", False, f"{PASS}.spring_bars"),
            (f"{PASS}.readings.front", -20, f"{PASS}.readings.front"),
            (f"{PASS}.readings.frnt", 20, f"{PASS}.readings.frnt"),
            (f"{PASS}.readings.front_left", 1200, f"{PASS}.readings.front"),
            (f"{PASS}.readings.trailer_1", 3600, f"{PASS}.readings.trailer"),
            (f"{PASS}.readings", {"trailer_1": 3600}, f"{PASS}.readings.trailer_1"),
            (
                f"{PASS}.readings",
                {"trailer_1": 1, "trailer_2": 1, "trailer_3": 1},
                f"{PASS}.readings.trailer_3",
            ),
            (f"{PASS}.readings", {"rear_left": 1800}, f"{PASS}.readings.rear_left"),
            (
                "weigh_ins[0].passes[2].readings.trailer",
                7000,
                "weigh_ins[0].passes[2].readings.trailer",
            ),
            (
                "weigh_ins[0].tongue_measurements",
                [{"method": "scale", "value": 900}],
                "weigh_ins[0].tongue_measurements[0].resolution",
            ),
            (
                "weigh_ins[0].tongue_measurements",
                [{"method": "scale", "value": 900, "resolution": 0}],
                "weigh_ins[0].tongue_measurements[0].resolution",
            ),
            (
                "weigh_ins[0].tongue_measurements",
                [
                    {
                        "method": "lever",
                        "counterweight": 90,
                        "counterweight_arm": 60,
                        "tongue_arm": 9,
                        "counterweight_arm_pm": 0,
                    }
                ],
                "weigh_ins[0].tongue_measurements[0].counterweight_arm_pm",
            ),
        )
        for path, value, named in told:
            with self.subTest(path=path, value=value):
                self.assertIn(named, self.broken(path, value))

    def test_files_that_are_no_rig_files(self) -> None:
        whole = write_rig(parse_rig(rig_of("check--kilograms"))).encode()
        for data, cause in (
            (b"", "empty"),
            (b"\xff\xfe\x00", "UTF-8"),
            (b"[]", "noxel-rig"),
            (b'{"format": "else"}', "noxel-rig"),
            (whole[:-40], "cut short|not JSON"),
            (b'{"format": "noxel-rig", "version": 2}', "version"),
            (whole.replace(b'"version": 1', b'"version": 1, "version": 1'), "twice"),
            (whole.replace(b"5225", b"NaN").replace(b'"gvwr": ', b'"gvwr": NaN, "x": ', 1), "NaN"),
            (b'{"a":' * 100_000, "nested|not JSON"),
            (b'"' + b"9" * 99, "JSON"),
        ):
            with self.subTest(data[:30]), self.assertRaisesRegex(RigFileError, cause):
                read_rig(data)
        with self.assertRaises(TooLarge):
            read_rig(b" " * (LARGEST + 1))

    def test_json_numbers_and_strings_mean_the_same(self) -> None:
        document = rig_of("check--kilograms")
        same = json.loads(json.dumps(document).replace('"mass": "kg"', '"mass": "kg"'))
        same["vehicle"]["ratings"]["gvwr"] = f"{document['vehicle']['ratings']['gvwr']:,} kg"
        gvwr = [parse_rig(document).vehicle.ratings.gvwr for document in (document, same)]
        self.assertEqual(gvwr[0].kg if gvwr[0] else 0, gvwr[1].kg if gvwr[1] else 1)
