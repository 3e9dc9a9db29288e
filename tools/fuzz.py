"""Random calls over the OpenAPI document: every route, with values that people, files and attackers
send.
"""

import random
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import quote

from tests.truth import CASES, case

Json = Any
NASTY_TEXTS = (
    "",
    " ",
    "0",
    "-1",
    "1e400",
    "9" * 310,
    "9" * 5000,
    "²",
    "１２",
    "nan",
    "inf",
    "-0",
    "1,234",
    "1.234,5",
    "300 kg",
    "2x40 lb",
    "½",
    "\x00",
    "\x1b[31m",
    "\u202e",
    "😀" * 40,
    "A" * 3999,
    "../../etc/passwd",
    "<script>",
    "'; DROP TABLE rigs; --",
    "=1+1",
    "[0]",
    "a.b[0]",
    "99999999-01-01",
    "2026-02-30",
    "0001-01-01",
    "lb",
    "in",
    "cm",
    "true",
    "null",
    "1e-306",
    "1e308",
    "\ud800",
    "x\udfff",
)
NASTY_NUMBERS = (0, -1, 1, 2, 7, 2**31, 2**63, 10**25, 1e-306, 1e308, -1e308, 0.1, 1e9, 5e-324)
NASTY_JSON: tuple[Json, ...] = (None, True, [], {}, "x", [[]], {"": ""}, [None] * 50, "x" * 9000)
PATHS = (
    "name",
    "note",
    "kind",
    "units.mass",
    "vehicle",
    "vehicle.name",
    "vehicle.body",
    "vehicle.ratings.gvwr",
    "vehicle.ratings.tow_rating",
    "vehicle.ratings.payload",
    "vehicle.geometry.wheelbase",
    "vehicle.geometry.hitch_offset",
    "vehicle.tires.rear.count",
    "vehicle.curb_weight",
    "vehicle.tires.rear.date_code",
    "vehicle.tires.rear.load_index",
    "vehicle.tires.rear.table",
    "vehicle.entered",
    "entered",
    "hitch",
    "hitch.parts[0].trailer",
    "hitch.weight_distribution",
    "hitch.parts",
    "trailer",
    "trailer.ratings.gawr[0]",
    "trailer.ratings.gawr",
    "trailer.dry_weight",
    "trailer.geometry.coupler_to_axles",
    "loads[0].mass",
    "loads[0].position",
    "loads[0]",
    "loads",
    "tanks[0].level",
    "plan",
    "plan.vehicle_base.front",
    "plan.vehicle_base",
    "policy.cushion",
    "policy.cushions",
    "weigh_ins[0]",
    "weigh_ins[0].date",
    "weigh_ins[0].passes[0].readings.front",
    "weigh_ins[0].passes[0].readings",
    "weigh_ins[0].passes[1]",
    "weigh_ins[0].scale.resolution",
    "weigh_ins[0].scale.accuracy",
    "weigh_ins[0].tags",
    "weigh_ins[0].tongue_measurements[0].value",
    "weigh_ins[0].added_since[0].mass",
    "weigh_ins[9]",
    "weigh_ins[99999999999999999999]",
    "weigh_ins[-1]",
    "reminders",
    "ready",
    "kept_plans[0]",
    "",
    ".",
    "[",
    "a" * 300,
    "__class__",
)


def _plain(body: Json) -> str:
    return str(body).encode("utf-8", "replace").decode()


@dataclass
class Fuzz:
    """Makes calls from an OpenAPI document, by one random generator; ``known`` ids are used now and
    then.
    """

    document: Json
    lot: random.Random
    known: list[str] = field(default_factory=list)

    def value(self, schema: Json, depth: int = 0) -> Json:
        """Something for a schema: mostly of its type, sometimes not."""
        lot = self.lot
        if lot.random() < 0.04:
            return lot.choice(NASTY_JSON)
        while "$ref" in schema:
            schema = self.document["components"]["schemas"][schema["$ref"].rpartition("/")[2]]
        for several in ("anyOf", "oneOf", "allOf"):
            if several in schema:
                return self.value(lot.choice(schema[several]), depth)
        if "enum" in schema and lot.random() < 0.95:
            return lot.choice(schema["enum"])
        if "const" in schema:
            return schema["const"]
        kind = schema.get("type")
        if kind == "object":
            return self._object(schema, depth)
        if kind == "array":
            return [
                self.value(schema.get("items", {}), depth + 1)
                for _ in range(0 if depth > 5 else lot.choice((0, 1, 1, 2, 5)))
            ]
        if kind in ("integer", "number"):
            return lot.choice(
                (lot.randint(0, 20), lot.choice(NASTY_NUMBERS), round(lot.uniform(0, 9000), 1))
            )
        if kind == "boolean":
            return lot.random() < 0.5
        if kind == "null":
            return None
        return lot.choice(
            (
                lot.choice(NASTY_TEXTS),
                str(lot.randint(0, 9000)),
                "plain",
                lot.choice(self.known or ["x"]),
            )
        )

    def _object(self, schema: Json, depth: int) -> Json:
        lot, made = self.lot, {}
        for name, each in schema.get("properties", {}).items():
            if name in schema.get("required", ()) or lot.random() < (0.6 if depth < 3 else 0.2):
                made[name] = lot.choice(PATHS) if name == "path" else self.value(each, depth + 1)
        more = schema.get("additionalProperties")
        if isinstance(more, dict):
            for _ in range(lot.choice((0, 1, 2))):
                made[lot.choice((*PATHS, *NASTY_TEXTS))] = self.value(more, depth + 1)
        if lot.random() < 0.05 and made:
            made.pop(lot.choice(list(made)))
        return made

    def calls(self, count: int) -> Iterator[tuple[str, str, Json, Json]]:
        """So many calls: method, path, query, body (None: none)."""
        operations = [
            (method, path, each)
            for path, methods in self.document["paths"].items()
            for method, each in methods.items()
            if "text/event-stream" not in str(each["responses"])  # that answer never ends
        ]
        rigs = [case(path.stem)["file"] for path in sorted(CASES.glob("check--*.json"))]
        for _ in range(count):
            method, path, operation = self.lot.choice(operations)
            query: Json = {}
            for each in operation.get("parameters", ()):
                made = self.value(each["schema"])
                if each["in"] == "path":
                    wanted = (
                        self.lot.choice(self.known)
                        if self.known and self.lot.random() < 0.85
                        else str(made)[:400] or "x"
                    )
                    path = path.replace(
                        "{" + each["name"] + "}", quote(wanted, safe="", errors="replace")
                    )
                elif each["in"] == "query" and (each.get("required") or self.lot.random() < 0.6):
                    query[each["name"]] = (
                        [_plain(entry) for entry in made]
                        if isinstance(made, list)
                        else _plain(made)
                    )
            body = None
            if "requestBody" in operation:
                found = operation["requestBody"]["content"]
                # bytes are tried as JSON too: refused
                content = found.get("application/json", {"schema": {}})["schema"]
                body = (
                    self._spoiled(self.lot.choice(rigs))
                    if "RigFile" in str(content)
                    else self.value(content)
                )
            yield method, path, query, body

    def _spoiled(self, document: Json) -> Json:
        """A sound rig file with one value in it replaced."""
        lot = self.lot

        def spoil(node: Json) -> Json:
            if isinstance(node, dict) and node and lot.random() < 0.85:
                key = lot.choice(list(node))
                return {**node, key: spoil(node[key])}
            if isinstance(node, list) and node and lot.random() < 0.85:
                index = lot.randrange(len(node))
                return [*node[:index], spoil(node[index]), *node[index + 1 :]]
            return lot.choice((*NASTY_TEXTS, *NASTY_NUMBERS, *NASTY_JSON))

        return spoil(document) if lot.random() < 0.7 else document
