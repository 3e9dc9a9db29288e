"""What the import contract cannot say: a room of the core is used through its front door."""

import ast
import unittest
from pathlib import Path

SOURCE = Path(__file__).parent.parent / "src/noxel"


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
