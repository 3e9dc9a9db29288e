"""What the import contract cannot say: a room of the core is used through its front door, and the
map of the formulas finds them.
"""

import ast
import importlib
import operator
import re
import unittest
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parent.parent
SOURCE = ROOT / "src/noxel"


class FrontDoors(unittest.TestCase):
    def test_a_module_of_the_core_is_imported_by_its_own_room_only(self) -> None:
        inside = []
        for path in sorted(SOURCE.rglob("*.py")):
            room = path.parent.name if path.parent.parent.name == "core" else None
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                if not isinstance(node, ast.ImportFrom) or not (node.module or "").startswith(
                    "noxel.core."
                ):
                    continue
                parts = (node.module or "").split(".")
                if len(parts) > 3 and parts[2] != room:
                    inside.append(f"{path.relative_to(SOURCE)}:{node.lineno}: {node.module}")
        self.assertEqual(inside, [])


class FormulaMap(unittest.TestCase):
    def test_every_formula_names_what_computes_it(self) -> None:
        """Each row of docs/formulas.md names modules of the core, and what is in them."""
        table = (ROOT / "docs" / "formulas.md").read_text(encoding="utf-8").splitlines()
        rows = [line.strip("| ").split(" | ") for line in table if line.count(" | ") == 3][1:]
        self.assertGreater(len(rows), 60)
        for what, _, where, _ in rows:
            with self.subTest(what):
                module: Any = None
                names = re.findall(r"`([^`]+)`", where)
                self.assertTrue(any(not name.endswith(".py") for name in names), "no function")
                for name in names:
                    if name.endswith(".py"):
                        dotted = name.removesuffix(".py").replace("/", ".")
                        module = importlib.import_module(f"noxel.core.{dotted}")
                    else:
                        operator.attrgetter(name)(module)
