"""Two clients type into one rig, at any pace, over a network that loses, repeats and delays: no
figure on a thing that it was not typed for, none twice, none lost without a word.

The page's own line (``web/src/api/line.ts``), bundled alone, in Chromium, against the real server.
Expected: what each client typed to which thing, noted as it was typed.
"""

import os
import random
import tempfile
import unittest
from pathlib import Path
from typing import Any

from tools.stage import serving

from noxel.store.backup import backup, restore
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from tests.browser.stage import OnStage
from tests.page.bundle import bundled

SEQUENCES = int(os.environ.get("NOXEL_SEQUENCES", 300))
"""``make trust`` plays 10,000."""
SEED = int(os.environ.get("NOXEL_SEED", 32))
ACTS = {
    "type": 10,
    "insert": 3,
    "remove": 2,
    "move": 2,
    "network": 6,
    "look": 3,
    "reload": 1,
    "ticket": 2,
    "undo": 1,
    "redo": 1,
    "backup": 0.3,
    "restore": 0.3,
}
MODES = ("unsent", "lost", "lost", "twice", "late", "shut out")
HARNESS = Path(__file__).with_name("clients.js").read_text(encoding="utf-8")


def a_script(chance: random.Random, number: int) -> list[list[Any]]:
    """What two clients do: who, what, to which item, with which text, at which pace [ms]."""
    script = []
    for step in range(chance.randint(4, 14)):
        [act] = chance.choices(list(ACTS), list(ACTS.values()))
        text = f"{number % 89 + 10}{step + 10}{chance.randint(0, 9)}"
        if act == "network":
            text = chance.choice(MODES)
        elif act in ("insert", "ticket"):
            text = f"{act}-{number}-{step}"
        script.append(
            [chance.randint(0, 1), act, chance.randint(0, 9), text, chance.choice((0, 0, 1, 3))]
        )
    return script


def a_rig() -> dict[str, Any]:
    names = ("folding table", "battery bank", "tool chest")
    return {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": "lb", "length": "in"},
        "kind": "conventional",
        "trailer": {},
        "loads": [
            {"name": name, "on": "vehicle", "mass": mass} for mass, name in enumerate(names, 1)
        ],
    }


class TwoClients(OnStage):
    def setUp(self) -> None:
        memory = Path("/dev/shm")
        folder = tempfile.TemporaryDirectory(dir=memory if memory.is_dir() else None)
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "noxel.db"
        self.errors, self.strangers = [], []
        self.database = Database(self.path)
        self.rigs = Rigs(self.database)
        stage = serving(self.database)
        self.address = stage.__enter__()
        self.addCleanup(stage.__exit__, None, None, None)

    def test_what_is_typed_is_what_is_kept(self) -> None:
        page = self.page("/api/health")
        page.evaluate(bundled("api/line.ts"))
        copy = self.path.with_name("copy.db")

        def back_up() -> None:
            copy.unlink(missing_ok=True)
            backup(self.path, copy)

        page.expose_function("backUp", back_up)
        page.expose_function("restore", lambda: restore(copy, self.path) and None)
        for number in range(SEQUENCES):
            script = a_script(random.Random(f"{SEED}.{number}"), number)
            rig = self.rigs.add(a_rig())
            back_up()
            played = page.evaluate(f"([rig, script]) => ({HARNESS})(rig, script)", [rig, script])
            with self.subTest(number=number, script=script):
                self.check(played)

    def check(self, played: dict[str, Any]) -> None:
        """Compare what is stored with what was typed."""
        again = played["undone"] or played["restored"]
        self.assertEqual(played["waiting"], 0, "everything was answered in the end")
        loads = played["rig"].get("loads", [])
        names = dict(played["inserted"])
        for load in loads:
            texts = [text for own, text, _ in played["typed"] if own == load["id"]]
            figures = {str(figure) for figure in texts} | {"1", "2", "3"}
            if again:  # undone in the middle of a figure
                figures |= {text[:end] for text in texts for end in range(1, len(text))}
            self.assertIn(str(load["mass"]), figures, "a figure on a thing it was not typed for")
            if load["id"] in names:
                self.assertEqual(load["name"], names[load["id"]])
        listed = [load["name"] for load in loads]
        self.assertEqual(len(listed), len(set(listed)), "put in twice")
        aside = [tuple(change) for _, _, changes, _ in played["aside"] for change in changes]
        told = {tuple(change) for change in played["acknowledged"]} | set(aside)
        # typed anew by the same client, a figure gives way to its own next one
        for (own, _), text in {(own, who): text for own, text, who in played["typed"]}.items():
            self.assertIn((f"loads[{own}].mass", text), told, "lost without a word")
        passes = [
            pass_ for played in played["rig"].get("weigh_ins", []) for pass_ in played["passes"]
        ]
        numbers = [pass_.get("ticket_number") for pass_ in passes]
        refused = {key for kind, _, _, key in played["aside"] if kind == "ticket"}
        for ticket in played["tickets"]:
            self.assertLessEqual(numbers.count(ticket), 1, "a ticket twice")
            if not again and ticket not in refused:
                self.assertEqual(numbers.count(ticket), 1, "a ticket lost")
        if not again:
            self.check_last(played)

    def check_last(self, played: dict[str, Any]) -> None:
        """Each item holds the figure that was acknowledged last, unless it was taken out."""
        stored = {
            f"loads[{load['id']}].mass": str(load["mass"])
            for load in played["rig"].get("loads", [])
        }
        last = {path: text for path, text in played["acknowledged"] if path.endswith(".mass")}
        for path, text in last.items():
            if path in stored:
                self.assertEqual(stored[path], text)


if __name__ == "__main__":
    unittest.main()
