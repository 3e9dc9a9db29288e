"""A path typed against an older state leads to the same item in the newer one.

Expected: a model in which every item has an id of its own; the path must lead to the item of that
id, or the item is gone.
"""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.editing import Gone, edit_of, patched, patches, rebase
from noxel.errors import Conflict

_ops = st.lists(st.tuples(st.sampled_from(("in", "out", "set")), st.integers(0, 30)), max_size=12)


class Following(unittest.TestCase):
    @given(st.integers(1, 8), _ops, st.integers(0, 30), st.booleans())
    def test_an_item_is_followed_to_its_new_place(
        self, count: int, ops: list[tuple[str, int]], which: int, nested: bool
    ) -> None:
        items = [{"id": number, "mass": 0} for number in range(count)]
        wanted = items[which % count]["id"]
        path = ("rig", "loads", which % count, "mass")
        edits, fresh, touched = [], count, False
        for step, (op, at) in enumerate(ops, 1):
            before = {"rig": {"loads": [dict(each) for each in items]}}
            if op == "in":
                items.insert(at % (len(items) + 1), {"id": fresh, "mass": 0})
                fresh += 1
            elif items and op == "out":
                items.pop(at % len(items))
            elif items:
                items[at % len(items)]["mass"] = step
                touched = touched or items[at % len(items)]["id"] == wanted
            edits.append(
                edit_of(
                    before,
                    {"rig": {"loads": [dict(each) for each in items]}},
                    "other" if nested else "mine",
                )
            )
        place = next((at for at, each in enumerate(items) if each["id"] == wanted), None)
        if place is None:
            with self.assertRaises(Gone):
                rebase(path, edits, "mine")
            return
        found, conflict = rebase(path, edits, "mine")
        self.assertEqual(found, ("rig", "loads", place, "mass"))
        self.assertEqual(conflict, touched and nested, "one's own edits are no conflict")

    def test_by_hand(self) -> None:
        before = {"rig": {"loads": [{"n": "a"}, {"n": "b"}]}, "vehicle": {"ratings": {"gvwr": 1}}}
        after = {"rig": {"loads": [{"n": "b"}]}, "vehicle": {"ratings": {"gvwr": 2, "gcwr": 3}}}
        edit = edit_of(before, after, "x")
        self.assertEqual(
            edit.touched, {("vehicle", "ratings", "gvwr"), ("vehicle", "ratings", "gcwr")}
        )
        self.assertEqual(
            rebase(("rig", "loads", 1, "n"), [edit], "y"), (("rig", "loads", 0, "n"), False)
        )
        self.assertEqual(
            rebase(("rig", "loads", 2), [edit], "y", inserting=True), (("rig", "loads", 1), False)
        )
        self.assertEqual(rebase(("vehicle", "ratings", "gvwr"), [edit], "y")[1], True)
        self.assertEqual(
            rebase(("vehicle", "ratings"), [edit], "y")[1],
            True,
            "a whole part of which a figure was set",
        )
        self.assertEqual(rebase(("vehicle", "ratings", "payload"), [edit], "y")[1], False)
        with self.assertRaises(Gone):
            rebase(("rig", "loads", 0, "n"), [edit], "x")
        many = edit_of({"rig": {}}, {"rig": {str(number): 1 for number in range(1001)}})
        self.assertTrue(rebase(("rig", "name"), [many], "y")[1])


_values = st.recursive(
    st.integers(0, 3) | st.sampled_from(("a", "b/c~", "")),
    lambda inner: (
        st.lists(inner, max_size=5) | st.dictionaries(st.sampled_from("xy/~"), inner, max_size=3)
    ),
    max_leaves=20,
)
_documents = st.dictionaries(st.sampled_from(("loads", "a", "b~/")), _values, max_size=3)


class Patches(unittest.TestCase):
    """Expected: the other document itself."""

    @given(_documents, _documents)
    def test_one_way_and_back(self, before: dict[str, object], after: dict[str, object]) -> None:
        forth, back = patches(before, after)
        self.assertEqual(patched(before, forth), after)
        self.assertEqual(patched(after, back), before)

    def test_as_long_as_what_was_changed(self) -> None:
        items = [{"name": f"item {number}", "mass": 1} for number in range(5000)]
        after = [*items[:17], {"name": "item 17", "mass": 2}, *items[18:]]
        self.assertEqual(
            patches({"loads": items}, {"loads": after})[1],
            [{"op": "replace", "path": "/loads/17/mass", "value": 1}],
        )
        self.assertEqual(
            patches({"loads": items}, {"loads": items[1:]}),
            (
                [{"op": "remove", "path": "/loads/0"}],
                [{"op": "add", "path": "/loads/0", "value": items[0]}],
            ),
        )

    def test_what_is_not_there(self) -> None:
        with self.assertRaises(Conflict):
            patched({"loads": []}, [{"op": "remove", "path": "/loads/3"}])
