"""Elements are named by identities that are never given again; what an edit did is found by them.

Expected: a model in which elements move only when one before them comes or goes, and by hand.
"""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.editing import (
    Change,
    apply_changes,
    delta,
    identified_at,
    identify,
    named,
    patched,
    positions,
    weigh_in_identity,
    without_identities,
)
from noxel.core.rig import read_path, write_path
from noxel.errors import Conflict, Gone
from tests.truth import rig_of

_ops = st.lists(st.tuples(st.sampled_from(("in", "out", "set")), st.integers(0, 30)), max_size=12)


def document_of(masses: dict[str, int]) -> dict[str, Any]:
    return {"loads": [{"id": own, "mass": mass} for own, mass in masses.items()]}


class Identities(unittest.TestCase):
    @given(st.lists(st.integers(0, 20), max_size=30))
    def test_weigh_ins_sort_wherever_one_comes_in(self, places: list[int]) -> None:
        weigh_ins: list[dict[str, Any]] = []
        for number, place in enumerate(places):
            weigh_ins.insert(place % (len(weigh_ins) + 1), {"place": str(number)})
            before = {
                weigh_in["place"]: weigh_in["id"] for weigh_in in weigh_ins if "id" in weigh_in
            }
            identify({"weigh_ins": weigh_ins})
            own = [weigh_in["id"] for weigh_in in weigh_ins]
            self.assertEqual(own, sorted(set(own)))
            after = {weigh_in["place"]: weigh_in["id"] for weigh_in in weigh_ins}
            self.assertEqual({**after, **before}, after, "nobody else's changed")

    def test_what_was_taken_out_is_never_named_again(self) -> None:
        last = weigh_in_identity("w00000009abcdef")
        self.assertEqual(last[:9], "w0000000a")
        self.assertNotEqual(last, weigh_in_identity("w00000009abcdef"))
        twice = identify({"loads": [{"id": "k1"}, {"id": "k1"}]})["loads"]
        self.assertEqual((twice[0]["id"], twice[1]["id"] == "k1"), ("k1", False))

    def test_a_rig_file_has_none_and_every_element_gets_one(self) -> None:
        document = rig_of("check--three-passes")
        document["loads"] = [{"name": "dome", "on": "trailer", "mass": 90}]
        held = apply_changes(identify(document), []).document
        self.assertEqual(identified_at(document), "hitch.parts[0].id")
        self.assertIsNone(identified_at(without_identities(held)))
        self.assertEqual(without_identities(held), without_identities(document))
        path = read_path("weigh_ins[0].passes[1].readings.front")
        own = named(held, path)
        self.assertRegex(write_path(own), r"weigh_ins\[w\w+\]\.passes\[k\w+\]\.readings\.front")
        self.assertEqual(positions(held, read_path(write_path(own))), path)

    @given(st.integers(1, 8), _ops, st.integers(0, 30))
    def test_what_is_typed_reaches_its_own_element(
        self, count: int, ops: list[tuple[str, int]], which: int
    ) -> None:
        masses = {f"k{number}": 0 for number in range(count)}
        wanted = f"k{which % count}"
        for step, (op, index) in enumerate(ops, 1):
            before = document_of(masses)
            own = list(masses)
            if op == "in":
                items = list(masses.items())
                items.insert(index % (len(items) + 1), (f"k{count + step}", 0))
                masses = dict(items)
            elif own and op == "out":
                del masses[own[index % len(own)]]
            elif own:
                masses[own[index % len(own)]] = step
            after = document_of(masses)
            change = delta(before, after)
            self.assertEqual(patched(before, change.forth), after)
            self.assertEqual(patched(after, change.back), before)
            touched = {write_path(path) for path in change.touched}
            same = {own: mass for own, mass in masses.items() if own in before_of(before)}
            expected = {f"loads[{own}].mass" for own in same if same[own] != before_of(before)[own]}
            expected |= {f"loads[{own}]" for own in before_of(before) if own not in masses}
            self.assertEqual(touched, expected)
        now = document_of(masses)
        path = read_path(f"loads[{wanted}].mass")
        if wanted in masses:
            self.assertEqual(positions(now, path), ("loads", list(masses).index(wanted), "mass"))
        else:
            with self.assertRaises(Gone):
                positions(now, path)

    def test_by_hand(self) -> None:
        before = {"loads": [{"id": "ka"}, {"id": "kb"}], "a": {"x": 1}, "axles": [1, 2]}
        after = {"loads": [{"id": "kb"}], "a": {"x": 2, "y": 3}, "axles": [1, 3]}
        change = delta(before, after, ("vehicle",))
        self.assertEqual(
            sorted(map(write_path, change.touched)),
            ["vehicle.a.x", "vehicle.a.y", "vehicle.axles[1]", "vehicle.loads[ka]"],
        )
        self.assertEqual(len(change.forth), 4)
        with self.assertRaises(Conflict):
            patched({}, [{"op": "remove", "path": "/loads/3"}])

    def test_a_list_grows_at_its_end_and_an_element_is_named_by_who_put_it_in(self) -> None:
        document = identify(rig_of("check--kilograms"))
        value = {"id": "kmine00001", "name": "stove", "on": "vehicle", "mass": 12}
        made = apply_changes(
            document,
            [Change("loads", op="insert", value=value), Change("loads[kmine00001].mass", "14")],
        ).document
        self.assertEqual(made["loads"][-1], {**value, "mass": 14})


def before_of(document: dict[str, Any]) -> dict[str, int]:
    return {document["id"]: document["mass"] for document in document["loads"]}


if __name__ == "__main__":
    unittest.main()
