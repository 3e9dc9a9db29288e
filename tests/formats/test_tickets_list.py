"""Tables of tickets from elsewhere. Expected: what stands in the tables, by eye; and our own export
there and back.
"""

import contextlib
import datetime
import json
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.log import merge_weigh_ins
from noxel.core.rig import parse_rig
from noxel.errors import InputError, QuantityError
from noxel.formats.tables import tickets_csv
from noxel.formats.tickets_list import Tickets, guess_tickets, guess_units, read_day, read_tickets
from tests.truth import CASES, rig_of


def read(text: str, **more: Any) -> Tickets:
    usual: dict[str, Any] = {"mass": "lb", "resolution": 20, "day_first": False}
    return read_tickets(text, guess_tickets(text), **(usual | more))


class FromElsewhere(unittest.TestCase):
    def test_a_home_made_table(self) -> None:
        text = """Datum;Where;Setup;Bars;Steer axle;Drive axle;Trailer;Total
2.5.2026;"Alder Bend; south";hitched;tight;1.380,5;1 840;2690;5910,5
2.5.2026;"Alder Bend; south";car only;;1430;1440;;
7.9.26;Tern Island;coupled;slack;1390;1850;2700;
"""
        weigh_ins = read(text, mass="kg").weigh_ins
        self.assertEqual(
            [(entry["date"], entry["place"], len(entry["passes"])) for entry in weigh_ins],
            [("2026-05-02", "Alder Bend; south", 2), ("2026-09-07", "Tern Island", 1)],
        )
        first, second = weigh_ins[0]["passes"]
        self.assertEqual(
            (first["config"], first["spring_bars"], first["readings"], first["printed_gross"]),
            ("hitched", "engaged", {"front": 1380.5, "rear": 1840, "trailer": 2690}, 5910.5),
        )
        self.assertEqual(
            (second["config"], second["readings"]), ("vehicle_only", {"front": 1430, "rear": 1440})
        )

    def test_what_is_not_said_is_guessed_from_all_of_it(self) -> None:
        text = "when,pass,front kg,rear\n3/4/2026,vehicle only,1,2\n14/4/2026,solo,3,4\n"
        layout = guess_tickets(text)
        # by what stands in it: its heading says something else
        self.assertEqual(layout.columns["configuration"], 1)
        # there is no month 14
        self.assertEqual(guess_units(text, layout, "lb"), ("kg", True, "10 kg"))
        self.assertEqual(
            guess_units(text.replace("14/4", "4/14"), layout, "kg"), ("kg", False, "10 kg")
        )
        self.assertEqual(
            guess_units("a,b\n1,2\n", guess_tickets("a,b\n1,2\n"), "lb"), ("lb", False, "20 lb")
        )
        self.assertEqual(
            [weigh_in["date"] for weigh_in in read(text, day_first=True).weigh_ins],
            ["2026-04-03", "2026-04-14"],
        )
        with self.assertRaisesRegex(InputError, "line 3.*no month 14: does the day come first"):
            read(text)

    def test_a_van_is_what_the_other_column_is_not(self) -> None:
        for heads, vehicle, trailer in (
            ("Date,Car,Van", 1, 2),
            ("Date,Van,Car", 2, 1),
            ("Date,Car,Caravan", 1, 2),
            ("Date,Van,Trailer", 1, 2),
            ("Date,Caravan,Truck", 2, 1),
        ):
            columns = guess_tickets(f"{heads}\n2026-05-01,2000,1500\n").columns
            self.assertEqual((columns["vehicle"], columns["trailer"]), (vehicle, trailer), heads)

    def test_our_own_export_comes_back(self) -> None:
        for path in CASES.glob("check--*.json"):
            rig = parse_rig(rig_of(path.stem))
            if not any(pass_.readings for weigh_in in rig.weigh_ins for pass_ in weigh_in.passes):
                continue
            document = rig_of(path.stem)
            read_back = read(tickets_csv(rig), mass=rig.units.mass)
            shape = [
                [
                    (pass_["config"], pass_.get("spring_bars"), sorted(pass_["readings"]))
                    for pass_ in weigh_in["passes"]
                ]
                for weigh_in in read_back.weigh_ins
            ]
            wanted = [
                [
                    (pass_.config, pass_.spring_bars, sorted(pass_.readings))
                    for pass_ in weigh_in.passes
                    if pass_.readings
                ]
                for weigh_in in rig.weigh_ins
            ]
            self.assertEqual(shape, wanted, path.stem)
            if all(
                "adjustments" not in pass_
                for document in document["weigh_ins"]
                for pass_ in document["passes"]
            ):
                self.assertEqual(
                    merge_weigh_ins(document, read_back.weigh_ins),
                    (document, len(wanted)),
                    path.stem,
                )

    def test_they_find_their_place_by_date(self) -> None:
        document = rig_of("check--three-passes")  # weighed on 2026-05-02
        text = "date,front,rear\n2026-06-01,3,4\n2025-06-01,1,2\n2026-06-01,3,4\n"
        made, already = merge_weigh_ins(document, read(text, config="vehicle_only").weigh_ins)
        self.assertEqual(
            [entry["date"] for entry in made["weigh_ins"]],
            ["2025-06-01", "2026-05-02", "2026-06-01"],
        )
        # two lines of one day are two passes of one visit
        self.assertEqual(len(made["weigh_ins"][2]["passes"]), 2)
        self.assertEqual(already, 0)
        again, already = merge_weigh_ins(made, read(text, config="vehicle_only").weigh_ins)
        self.assertEqual((again, already), (made, 2))

    def test_each_bad_line_by_its_number(self) -> None:
        text = (
            "date,config,front,rear,unit\n2026-13-01,hitched,1,2,\n,flying,1,2,\n,hitched,,,\n"
            ",hitched,a,2,\n,hitched,1,2,stone\n,solo,1,2,kg\n"
        )
        with self.assertRaises(InputError) as caught:
            read(text)
        self.assertEqual(
            [problem.path for problem in caught.exception.problems],
            [f"line {n}" for n in range(2, 7)],
        )
        with self.assertRaisesRegex(InputError, "which columns are the axles"):
            read("date,place\n2026-01-01,x\n")

    @given(st.text(max_size=200))
    def test_any_text_is_read_or_refused(self, text: str) -> None:
        with contextlib.suppress(InputError, QuantityError):
            json.dumps(read(text).weigh_ins)

    @given(st.dates(min_value=datetime.date(1970, 1, 1)), st.booleans())
    def test_days_in_either_order(self, day: Any, first: bool) -> None:
        self.assertEqual(read_day(day.isoformat(), day_first=first), day.isoformat())
        parts = (day.day, day.month) if first else (day.month, day.day)
        self.assertEqual(
            read_day(f"{parts[0]}/{parts[1]}/{day.year}", day_first=first or parts[0] > 12),
            day.isoformat(),
        )
