"""What is said for each choice that a rig file knows: every choice of two rigs, entered or not, is
set to each value in turn. Of every value what was said of none before it is kept, and read by a
person.
"""

import unittest
from collections.abc import Iterator
from typing import Any

from pydantic_core import to_jsonable_python

from noxel.core.editing.paths import copied
from noxel.core.pack import evaluate_pack
from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.core.weigh import plan
from noxel.errors import RigFileError
from tests.core.wording.test_golden_left_out import said_of
from tests.core.wording.test_golden_rooms import household
from tests.kept import as_kept, texts_of
from tests.truth import At, Document, part_at

SCHEMA = RigFile.model_json_schema()


def choices_of(node: Any, schema: Any, path: At = ()) -> Iterator[tuple[At, list[str]]]:
    """Every choice that a document has a place for, with its values."""
    if "$ref" in schema:
        schema = SCHEMA["$defs"][schema["$ref"].rpartition("/")[2]]
    for each in schema.get("anyOf", ()):
        yield from choices_of(node, each, path)
    if "enum" in schema:
        yield path, schema["enum"]
    elif isinstance(node, dict):
        for key, value in schema.get("properties", {}).items():
            if key != "units":
                yield from choices_of(node.get(key), value, (*path, key))
    elif isinstance(node, list):
        for index, each in enumerate(node):
            yield from choices_of(each, schema.get("items", {}), (*path, index))


def said(rig: RigFile) -> list[str]:
    """What every room says of a rig, and how it would be weighed."""
    more = [evaluate_pack(rig), plan(rig, "truck_scale", uncouple=True)]
    return [*said_of(rig), *texts_of(to_jsonable_python(more, serialize_unknown=True))]


class GoldenChoices(unittest.TestCase):
    maxDiff = 3000

    def kept(self, name: str, document: Document) -> None:
        known = set(said(parse_rig(document)))
        lines: list[str] = []
        for path, values in choices_of(document, SCHEMA):
            for value in values:
                changed = copied(document)
                part_at(changed, path[:-1])[path[-1]] = value
                try:
                    text = said(parse_rig(changed))
                except RigFileError as refused:
                    text = [f"refused: {refused}"]
                new = [code for code in dict.fromkeys(text) if code not in known]
                known.update(new)
                if new:
                    lines += [
                        f"{'.'.join(map(str, path))}: {value}",
                        *(f"  {line}" for line in new if " " in line),
                    ]
        as_kept(self, f"choices/{name}", lines)

    def test_a_motorhome(self) -> None:
        self.kept("alone", dump_rig(household()["alone"]))


if __name__ == "__main__":
    unittest.main()
