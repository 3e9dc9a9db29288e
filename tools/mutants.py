"""How many small faults the tests notice: ``make mutants``. Changes one thing at a time in a copy
of the sources and runs the tests that reach it.

Which test module reaches which line is measured once and kept in ``var/``. The sample is drawn from
a seed; the time is bounded.
"""

import argparse
import ast
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

ROOT = Path(__file__).parent.parent
REACHED = ROOT / "var" / "reached.json"
ROOMS = {"core": ("src/noxel/core",), "edges": ("src/noxel/formats", "src/noxel/api")}
TESTS = ("tests/core", "tests/formats", "tests/api", "tests/store", "tests/sim")
SLOW = 60.0
"""A run of tests counts as hung, and the mutant as noticed, after this and four times as long as it
took when it was measured. [s]
"""

LONGEST = 300
"""Test modules that take longer, measured beside others, are left out. [s]"""

_COMPARED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
}
_RECKONED: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
}
_NAMED = {"min": "max", "max": "min", "any": "all", "all": "any"}
_SAID = {
    "above": "below",
    "below": "above",
    "more": "less",
    "less": "more",
    "left": "over",
    "over": "left",
    "heavier": "lighter",
    "front": "rear",
}


@dataclass(frozen=True, slots=True)
class Mutant:
    """One fault: file, line, and which of the possible changes of that file, in their order."""

    path: str
    line: int
    number: int
    says: str


class _Changes(ast.NodeTransformer):
    """Counts the places that can be changed; changes the one asked for."""

    def __init__(self, wanted: int | None = None) -> None:
        self.wanted, self.statement = wanted, 0
        self.found: list[tuple[int, str]] = []

    def visit(self, node: ast.AST) -> ast.AST:
        """A statement is known by its first line, as coverage knows it."""
        before = self.statement
        if isinstance(node, ast.stmt):
            self.statement = node.lineno
        found: ast.AST = super().visit(node)
        self.statement = before
        return found

    def here(self, says: str) -> bool:
        """Whether this place is the one to be changed."""
        self.found.append((self.statement, says))
        return self.wanted == len(self.found) - 1

    def visit_Expr(self, node: ast.Expr) -> ast.AST:
        return node if isinstance(node.value, ast.Constant) else self.generic_visit(node)

    def visit_Compare(self, node: ast.Compare) -> ast.AST:
        self.generic_visit(node)
        other = _COMPARED.get(type(node.ops[0]))
        if other and self.here(f"{type(node.ops[0]).__name__} → {other.__name__}"):
            node.ops[0] = other()
        return node

    def visit_BinOp(self, node: ast.BinOp) -> ast.AST:
        self.generic_visit(node)
        other = _RECKONED.get(type(node.op))
        texts = any(
            isinstance(each, ast.JoinedStr | ast.List | ast.Tuple)
            for each in (node.left, node.right)
        )
        if other and not texts and self.here(f"{type(node.op).__name__} → {other.__name__}"):
            node.op = other()
        return node

    def visit_BoolOp(self, node: ast.BoolOp) -> ast.AST:
        self.generic_visit(node)
        if self.here("and ↔ or"):
            node.op = ast.Or() if isinstance(node.op, ast.And) else ast.And()
        return node

    def visit_UnaryOp(self, node: ast.UnaryOp) -> ast.AST:
        self.generic_visit(node)
        if isinstance(node.op, ast.Not | ast.USub) and self.here(
            f"{type(node.op).__name__} dropped"
        ):
            return node.operand
        return node

    def visit_Call(self, node: ast.Call) -> ast.AST:
        self.generic_visit(node)
        if (
            isinstance(node.func, ast.Name)
            and node.func.id in _NAMED
            and self.here(f"{node.func.id} ↔ {_NAMED[node.func.id]}")
        ):
            node.func = ast.copy_location(ast.Name(_NAMED[node.func.id], ast.Load()), node.func)
        return node

    def visit_Constant(self, node: ast.Constant) -> ast.AST:
        if isinstance(node.value, bool) or node.value is None:
            return node
        if isinstance(node.value, int | float) and self.here(
            f"{node.value} → {node.value * 6 + 1}"
        ):
            return ast.copy_location(ast.Constant(node.value * 6 + 1), node)
        if isinstance(node.value, str):
            word = next((each for each in node.value.split() if each in _SAID), None)
            if word and " " in node.value.strip() and self.here(f"“{word}” → “{_SAID[word]}”"):
                return ast.copy_location(
                    ast.Constant(node.value.replace(word, _SAID[word], 1)), node
                )
        return node


def mutants_of(path: Path) -> Iterator[Mutant]:
    """Every fault that can be made in a file."""
    seen = _Changes()
    seen.visit(ast.parse(path.read_text(encoding="utf-8")))
    for number, (line, says) in enumerate(seen.found):
        yield Mutant(str(path.relative_to(ROOT)), line, number, says)


def mutated(mutant: Mutant) -> str:
    """The source with the fault in it."""
    return ast.unparse(
        ast.fix_missing_locations(
            _Changes(mutant.number).visit(
                ast.parse((ROOT / mutant.path).read_text(encoding="utf-8"))
            )
        )
    )


def measure() -> dict[str, dict[str, list[int]]]:
    """Which lines each test module reaches, with how long it takes; kept until the tests or sources
    change.
    """
    modules = sorted(
        str(path.relative_to(ROOT).with_suffix("")).replace("/", ".")
        for folder in TESTS
        for path in (ROOT / folder).rglob("test_*.py")
    )
    found: dict[str, dict[str, list[int]]] = {}

    def run(module: str) -> None:
        with tempfile.TemporaryDirectory() as folder:
            data, out = Path(folder) / "data", Path(folder) / "out.json"
            started = time.monotonic()
            subprocess.run(
                [
                    sys.executable,
                    "-m",
                    "coverage",
                    "run",
                    f"--data-file={data}",
                    "--source=src/noxel",
                    "-m",
                    "unittest",
                    "-q",
                    module,
                ],
                cwd=ROOT,
                capture_output=True,
                check=False,
            )
            took = round(time.monotonic() - started)
            told = [
                sys.executable,
                "-m",
                "coverage",
                "json",
                "-q",
                f"--data-file={data}",
                "-o",
                str(out),
            ]
            subprocess.run(told, cwd=ROOT, capture_output=True, check=False)
            lines = {
                name: each["executed_lines"]
                for name, each in json.loads(out.read_text())["files"].items()
                if each["executed_lines"]
            }
            found[module] = {**lines, "": [took]}
            print(f"  {module}: {took} s", flush=True)

    with ThreadPoolExecutor(os.cpu_count()) as pool:
        list(pool.map(run, modules))
    REACHED.parent.mkdir(exist_ok=True)
    REACHED.write_text(json.dumps(found))
    return found


def stale() -> bool:
    """Whether sources or tests changed since it was measured which test reaches which line."""
    if not REACHED.exists():
        return True
    measured = REACHED.stat().st_mtime
    return any(
        path.stat().st_mtime > measured
        for folder in ("src/noxel", "tests")
        for path in (ROOT / folder).rglob("*.py")
    )


def noticed(mutant: Mutant, tests: dict[str, int], home: Path) -> bool:
    """Whether one of the tests fails, in their order, with the fault in the copy at ``home``;
    ``tests`` are modules with the seconds that each takes.
    """
    file = home / mutant.path.removeprefix("src/")
    original = file.read_text(encoding="utf-8")
    file.write_text(mutated(mutant), encoding="utf-8")
    try:
        for module, took in tests.items():
            call = [sys.executable, "-m", "unittest", "-q", "-f", module]
            try:
                ended = subprocess.run(
                    call,
                    cwd=ROOT,
                    env={**os.environ, "PYTHONPATH": str(home)},
                    capture_output=True,
                    timeout=SLOW + 4 * took,
                    check=False,
                )
            except subprocess.TimeoutExpired:
                return True
            if ended.returncode:
                return True
        return False
    finally:
        file.write_text(original, encoding="utf-8")


def main() -> None:
    """Draw a sample, try each, print what survived and the score."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--room", choices=ROOMS, default="core")
    asked.add_argument("--count", type=int, default=100)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--minutes", type=float, default=30)
    asked.add_argument("--only", default="", help="only files whose path holds this")
    given = asked.parse_args()
    reached = measure() if stale() else json.loads(REACHED.read_text())
    by_line: dict[tuple[str, int], list[str]] = {}
    for module, files in reached.items():
        for name, lines in files.items():
            for line in lines if name else ():
                by_line.setdefault((name, line), []).append(module)
    files = [
        path
        for room in ROOMS[given.room]
        for path in sorted((ROOT / room).rglob("*.py"))
        if given.only in str(path)
    ]
    every = [mutant for path in files for mutant in mutants_of(path)]
    sample = random.Random(given.seed).sample(every, min(given.count, len(every)))
    homes: Queue[Path] = Queue()
    until, killed, tried = time.monotonic() + 60 * given.minutes, 0, 0
    with tempfile.TemporaryDirectory() as folder:
        for number in range(os.cpu_count() or 1):
            shutil.copytree(
                ROOT / "src" / "noxel",
                Path(folder) / str(number) / "noxel",
                ignore=shutil.ignore_patterns("__pycache__", "assets"),
            )
            homes.put(Path(folder) / str(number))

        def judge(mutant: Mutant) -> tuple[Mutant, bool | None]:
            if time.monotonic() > until:
                return mutant, None
            home = homes.get()
            try:
                took = {
                    module: reached[module][""][0]
                    for module in by_line.get((mutant.path, mutant.line), [])
                }
                tests = {
                    module: each
                    for module, each in sorted(took.items(), key=lambda one: one[1])
                    if each <= LONGEST
                }
                return mutant, noticed(mutant, tests, home)
            finally:
                homes.put(home)

        with ThreadPoolExecutor(os.cpu_count()) as pool:
            for mutant, found in pool.map(judge, sample):
                if found is None:
                    continue
                tried, killed = tried + 1, killed + found
                if not found:
                    print(f"survived: {mutant.path}:{mutant.line}  {mutant.says}", flush=True)
    print(
        f"{killed} of {tried} noticed: {killed / max(tried, 1):.0%} (seed {given.seed}, "
        f"{len(every)} possible)"
    )


if __name__ == "__main__":
    main()
