"""What the interface takes: every bound on a text, a number or a list, its pattern, its choices and
what it stands for when it is left out, as the OpenAPI document says it.

Kept in ``tests/golden/api`` and read by a person: a bound changes on purpose or not at all.
"""

import json
import unittest
from collections.abc import Iterator
from typing import Any

from noxel.api.contract import contract
from noxel.api.problems import problem
from tests.kept import as_kept

BOUNDS = {
    "maxLength": "at most {} characters",
    "minLength": "at least {} characters",
    "maximum": "at most {}",
    "minimum": "at least {}",
    "exclusiveMaximum": "below {}",
    "exclusiveMinimum": "above {}",
    "maxItems": "at most {} items",
    "minItems": "at least {} items",
    "maxProperties": "at most {} entries",
    "pattern": "like {}",
    "enum": "one of {}",
    "default": "else {!r}",
}


def bounds(schema: Any) -> Iterator[str]:
    """What is said of one value, the kinds that it may be and what is in it included."""
    for name, words in BOUNDS.items():
        if name in schema:
            yield words.format(schema[name])
    for each in schema.get("anyOf", ()):
        yield from bounds(each)
    for inner in ("items", "additionalProperties", "propertyNames"):
        if isinstance(schema.get(inner), dict):
            for bound in bounds(schema[inner]):
                yield f"each {bound}"


class Bounds(unittest.TestCase):
    def test_the_bounds_of_the_interface_are_the_kept_ones(self) -> None:
        document = json.loads(contract())
        kept: dict[str, dict[str, str]] = {}
        for path, methods in document["paths"].items():
            for method, about in methods.items():
                asked = {
                    about["name"]: ", ".join(bounds(about["schema"]))
                    for about in about.get("parameters", ())
                }
                kept[f"{method.upper()} {path}"] = {
                    **asked,
                    "answers": " ".join(sorted(about["responses"])),
                }
        for name, schema in document["components"]["schemas"].items():
            of = {
                key: ", ".join(bounds(value)) for key, value in schema.get("properties", {}).items()
            }
            required = " ".join(schema.get("required", ()))
            kept[name] = {**of, "itself": ", ".join(bounds(schema)), "required": required}
        self.assertGreater(len(kept), 250)
        as_kept(
            self,
            "api/bounds",
            [
                f"{name}: " + "; ".join(f"{key}: {said}" for key, said in of.items() if said)
                for name, of in kept.items()
            ],
        )

    def test_every_kind_of_refusal_has_its_title(self) -> None:
        titles = {
            each: json.loads(bytes(problem(each, "x", "y").body))["title"]
            for each in (401, 403, 404, 409, 413, 415, 422, 429, 500, 503, 507, 418)
        }
        self.assertEqual(titles.pop(418), "Problem")
        self.assertNotIn("Problem", titles.values())
        self.assertEqual(len(set(titles.values())), len(titles))


if __name__ == "__main__":
    unittest.main()
