"""The stand-in and the driver. Expected values: the rig's true loads to a graduation; rubbish is
refused by the line.
"""

import json
import unittest

from noxel.core.mechanics import load
from noxel.core.quantities import KG
from noxel.core.rig import parse_rig
from noxel.errors import InputError
from noxel.instruments.lines import read_line
from noxel.instruments.scale import Latest, LiveReading, LiveTicket
from noxel.sim.station import SETTLE, Station
from noxel.sim.truth import true_rig
from tests.truth import rig_of


class StandIn(unittest.TestCase):
    def setUp(self) -> None:
        self.now = 1000.0
        self.rig = true_rig(parse_rig(rig_of("check--three-passes")))
        self.station = Station(self.rig, "lb", 20, clock=lambda: self.now)

    def stand(self, config: str, bars: str = "none", *, pads: bool = False) -> dict[str, float]:
        self.station.drive_on(config, bars, pads=pads)
        self.now += SETTLE + 1
        return {reading["channel"]: reading["mass"] for reading in self.station.readings()}

    def test_settled_readings_are_the_truth_to_a_graduation(self) -> None:
        slack, solo = self.stand("hitched", "slack"), self.stand("vehicle_only")
        self.assertAlmostEqual(
            solo["front"],
            (load(self.rig.state, "front_solo") or 0) / KG["lb"],
            delta=0.011 * solo["front"] + 10,
        )
        tongue = slack["front"] + slack["rear"] - solo["front"] - solo["rear"]
        self.assertAlmostEqual(
            tongue,
            (load(self.rig.state, "tongue_static") or 0) / KG["lb"],
            delta=0.02 * sum(slack.values()) + 40,
        )
        self.assertTrue(all(mass % 20 == 0 for mass in slack.values()))
        engaged = self.stand("hitched", "engaged")
        self.assertGreater(engaged["front"], slack["front"])

    def test_it_sways_until_it_has_settled(self) -> None:
        self.station.drive_on("hitched")
        self.assertFalse(any(reading["stable"] for reading in self.station.readings()))
        self.now += SETTLE + 0.1
        self.assertTrue(all(reading["stable"] for reading in self.station.readings()))

    def test_pads_read_every_wheel(self) -> None:
        wheels = self.stand("hitched", pads=True)
        self.assertEqual(
            set(wheels),
            {
                f"{stem}_{side}"
                for stem in ("front", "rear", "trailer_1", "trailer_2")
                for side in ("left", "right")
            }
            | {"tongue"},
        )

    def test_a_first_weigh_and_a_cheaper_one_within_a_day(self) -> None:
        self.stand("hitched")
        kinds = [self.station.weigh()["kind"]]
        self.now += 23 * 3600
        kinds.append(self.station.weigh()["kind"])
        self.now += 3 * 3600
        kinds.append(self.station.weigh()["kind"])
        self.assertEqual(kinds, ["first weigh", "re-weigh", "first weigh"])

    def test_faults(self) -> None:
        right = self.stand("hitched")
        self.station.obey({"do": "fault", "fault": "straddle"})
        self.assertGreater(self.stand("hitched")["front"], right["front"] * 1.3)
        self.station.obey({"do": "fault", "fault": "early"})
        self.assertEqual(self.stand("hitched")["trailer"], 0)
        for fault, expected in (("unstable", ("stable", False)), ("overload", ("overload", True))):
            self.station.obey({"do": "fault", "fault": fault})
            self.stand("hitched")
            self.assertTrue(
                all(reading.get(expected[0]) is expected[1] for reading in self.station.readings()),
                fault,
            )
        for nonsense in ({}, {"do": 3}, {"do": "fault", "fault": "fire"}):
            self.assertIsNone(self.station.obey(nonsense))


class Driver(unittest.TestCase):
    def test_lines(self) -> None:
        reading = read_line(b'{"channel": "front", "mass": 3060, "unit": "lb", "stable": true}')
        assert isinstance(reading, LiveReading)  # noqa: S101
        self.assertEqual(
            (reading.channel, reading.mass, reading.unit, reading.stable),
            ("front", 3060, "lb", True),
        )
        ticket = read_line(
            json.dumps(
                {"ticket": {"number": "7", "unit": "kg", "readings": {"front": 900}, "gross": 900}}
            ).encode()
        )
        self.assertIsInstance(ticket, LiveTicket)
        for rubbish in (
            b"\xff\xfe",
            b"[]",
            b"{",
            b'{"channel": "front"}',
            b'{"channel": 3, "mass": 1, "unit": "lb"}',
            b"[" * 9000,
            b'{"channel": "front", "mass": "many", "unit": "lb"}',
            b'{"channel": "front", "mass": 1e99, "unit": "lb"}',
            b'{"channel": "front", "mass": true, "unit": "lb"}',
            b'{"channel": "front", "mass": NaN, "unit": "lb"}',
            b'{"ticket": {"readings": 3}}',
        ):
            with self.subTest(rubbish[:40]), self.assertRaises(InputError):
                read_line(rubbish)

    def test_what_was_read_before_the_line_dropped_is_not_live(self) -> None:
        latest = Latest("here")
        latest.put(LiveReading("front", 1, "kg", True, False, 0))
        self.assertEqual(latest.state().state, "live")
        latest.change("lost", "dropped")
        self.assertEqual((latest.state().state, latest.state().readings), ("lost", ()))
