"""How many small faults the tests notice: ``make mutants``. Changes one place at a time in a copy
of the sources and runs the tests that reach its line, quickest first.

Which test reaches which line is measured test by test and kept in ``var/``; after a change, anew
for those that it concerns. The sample is drawn from a seed. A mutant that no test has noticed after
``BUDGET`` seconds counts as survived.
"""

import argparse
import contextlib
import io
import json
import os
import random
import shutil
import signal
import sys
import tempfile
import time
import unittest
from concurrent.futures import ThreadPoolExecutor
from importlib import import_module
from multiprocessing import get_context
from pathlib import Path
from queue import Queue
from typing import Any

from tools.faults import ROOT, Mutant, mutants_of, mutated

REACHED = ROOT / "var" / "reached.json"
ROOMS = {"core": ("src/noxel/core",), "edges": ("src/noxel/formats", "src/noxel/api")}
LONGEST = ("proposals", "baseline", "campaign", "at_large", "thresholds")
"""What takes longest to measure goes first."""

BUDGET = 60.0
"""For the tests of one mutant, by the time each took when it was measured. [s]"""

EARLY = 3.0
"""Where the classes of kept answers stand among the others. [s]"""

HUNG = 8.0
"""Tests that take so many times as long as when they were measured, and a minute, hang."""

_OTHERS = (
    "highspy",
    "pydantic",
    "fastapi.testclient",
    "sqlalchemy.orm",
    "alembic.command",
    "openpyxl",
    "reportlab.platypus",
    "hypothesis.strategies",
    "icalendar",
    "jinja2",
    "cryptography.x509",
    "pypdf",
    "PIL.Image",
    "segno",
    "uvicorn",
)
"""What every run imports from elsewhere, loaded once before the runs part."""


class _Timed(unittest.TextTestResult):
    """Keeps how long each test took, and tells coverage, if it looks, whose lines are being run."""

    coverage: Any = None
    began = 0.0
    took: dict[str, float]

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        super().startTest(test)
        self.took = getattr(self, "took", {})
        self.began = time.monotonic()
        if self.coverage:
            self.coverage.switch_context(test.id())

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        self.took[test.id()] = time.monotonic() - self.began
        if self.coverage:
            self.coverage.switch_context("")
        super().stopTest(test)


def _took(module: str) -> dict[str, float]:
    """The seconds of each test of a module."""
    suite = unittest.defaultTestLoader.loadTestsFromName(module)
    runner = unittest.TextTestRunner(io.StringIO(), resultclass=_Timed, verbosity=0)  # type: ignore[arg-type]
    return getattr(runner.run(suite), "took", {})


def _reached(module: str) -> dict[str, dict[str, list[int]]]:
    """Which lines of which files each test of a module reaches; in a process of its own."""
    from coverage import Coverage

    with tempfile.TemporaryDirectory() as folder:
        coverage = Coverage(data_file=f"{folder}/data", source=[str(ROOT / "src" / "noxel")])
        _Timed.coverage = coverage
        coverage.start()  # before its imports: what they run is every test's
        tests = _took(module)  # several times as long as unwatched: timed again elsewhere
        coverage.stop()
        data = coverage.get_data()
        reached: dict[str, dict[str, list[int]]] = {test: {} for test in tests}
        for file in data.measured_files():
            name = str(Path(file).relative_to(ROOT))
            for line, contexts in data.contexts_by_lineno(file).items():
                for test in contexts:
                    # what a module runs when it is imported, or a class to set up, is every test's
                    for each in [test] if test in reached else reached:
                        reached[each].setdefault(name, []).append(line)
        print(f"  {module}: {sum(tests.values()):.0f} s", flush=True)
        return reached


def measured() -> dict[str, Any]:
    """Which lines each test reaches, with its seconds. Kept; measured anew are the modules that
    changed themselves, or with what they import of the tests, or that reach a source that changed.
    """
    kept: dict[str, Any] = json.loads(REACHED.read_text()) if REACHED.exists() else {}
    since = REACHED.stat().st_mtime if kept else 0.0
    changed = {
        str(path.relative_to(ROOT))
        for folder in ("src/noxel", "tests", "tools")
        for path in (ROOT / folder).rglob("*.py")
        if path.stat().st_mtime > since
    }
    texts = {
        ".".join(path.relative_to(ROOT).with_suffix("").parts): path.read_text(encoding="utf-8")
        for folder in ("tests", "tools")
        for path in sorted((ROOT / folder).rglob("*.py"))
    }
    other = {changed.removesuffix(".py").replace("/", ".") for changed in changed}
    while more := {
        module
        for module, text in texts.items()
        if module not in other and any(f"from {each} import" in text for each in other)
    }:
        other |= more
    fresh = []
    for module in texts:
        if ".test_" not in module or ".browser." in module:
            continue
        known = [entry for test, entry in kept.items() if test.startswith(f"{module}.")]
        if not known or module in other or any(changed & set(each["reached"]) for each in known):
            fresh.append(module)
    kept = {
        test: entry
        for test, entry in kept.items()
        if not test.startswith(tuple(f"{module}." for module in fresh))
    }
    fresh.sort(key=lambda module: not any(part in module for part in LONGEST))
    with get_context("spawn").Pool(os.cpu_count(), maxtasksperchild=1) as pool:
        times = {test: took for imap in pool.imap(_took, fresh) for test, took in imap.items()}
        for imap_unordered in pool.imap_unordered(_reached, fresh):
            kept |= {
                test: {"took": times.get(test, 0.0), "reached": lines}
                for test, lines in imap_unordered.items()
            }
    REACHED.parent.mkdir(exist_ok=True)
    REACHED.write_text(json.dumps(kept))
    return kept


def in_order(tests: dict[str, float]) -> list[str]:
    """The tests to run, as far as the budget goes: classes whose tests are quick first; the kept
    answers, which look at most, among the first.
    """
    classes: dict[str, list[str]] = {}
    for test in sorted(tests, key=lambda each: tests[each]):
        classes.setdefault(test.rpartition(".")[0], []).append(test)
    takes = {name: sum(tests[test] for test in names) for name, names in classes.items()}
    chosen, spent = [], 0.0
    for name in sorted(
        classes, key=lambda each: min(takes[each], EARLY if "golden" in each else 1e9)
    ):
        for test in classes[name]:
            if spent + tests[test] <= BUDGET:
                chosen.append(test)
                spent += tests[test]
    return chosen


def _fails(tests: list[str], home: Path) -> bool:
    """Whether one of the tests fails over the sources at ``home``; in a process of its own."""
    os.environ["PYTHONPATH"] = str(home)
    sys.path.insert(0, str(home))
    sys.dont_write_bytecode = True
    with contextlib.redirect_stderr(io.StringIO()), contextlib.redirect_stdout(io.StringIO()):
        suite = unittest.defaultTestLoader.loadTestsFromNames(tests)
        runner = unittest.TextTestRunner(io.StringIO(), failfast=True, verbosity=0)
        return not runner.run(suite).wasSuccessful()


def _child(tests: list[str], home: Path) -> None:
    """Run the tests and end with 1 if one fails, without any of the parent's clean-up."""
    os.setsid()
    failed = True
    with contextlib.suppress(BaseException):
        failed = _fails(tests, home)
    os._exit(failed)


def noticed(mutant: Mutant, tests: dict[str, float], home: Path) -> bool:
    """Whether a test fails, or hangs, with the fault in the copy of the sources at ``home``.

    Parameters
    ----------
    tests : dict
        The tests that reach the line, each with its seconds.
    """
    file = home / mutant.path.removeprefix("src/")
    original = file.read_text(encoding="utf-8")
    chosen = in_order(tests)
    file.write_text(mutated(mutant), encoding="utf-8")
    child = get_context("fork").Process(target=_child, args=(chosen, home))
    try:
        child.start()
        child.join(60 + HUNG * sum(tests[chosen] for chosen in chosen))
        return child.exitcode != 0
    finally:
        if child.pid:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(child.pid, signal.SIGKILL)
            child.join()
        file.write_text(original, encoding="utf-8")


def _sample(room: str, only: str, count: int, seed: int) -> tuple[list[Mutant], int]:
    """The mutants to try, and how many there could be."""
    every = [
        mutant
        for folder in ROOMS[room]
        for path in sorted((ROOT / folder).rglob("*.py"))
        if only in str(path)
        for mutant in mutants_of(path)
    ]
    return random.Random(seed).sample(every, min(count, len(every))), len(every)


def main() -> None:
    """Draw a sample, try each, print what survived and the score."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--room", choices=ROOMS, default="core")
    asked.add_argument("--count", type=int, default=100)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--minutes", type=float, default=30)
    asked.add_argument("--jobs", type=int, default=os.cpu_count() or 1)
    asked.add_argument("--only", default="", help="only files whose path holds this")
    options = asked.parse_args()
    reached = measured()
    by_line: dict[tuple[str, int], dict[str, float]] = {}
    for test, each in reached.items():
        for name, lines in each["reached"].items():
            for line in lines:
                by_line.setdefault((name, line), {})[test] = each["took"]
    sample, possible = _sample(options.room, options.only, options.count, options.seed)
    for each in _OTHERS:
        import_module(each)
    until, killed, tried = time.monotonic() + 60 * options.minutes, 0, 0
    homes: Queue[Path] = Queue()
    with tempfile.TemporaryDirectory() as folder:
        for number in range(options.jobs):
            home = Path(folder) / str(number)
            shutil.copytree(
                ROOT / "src" / "noxel",
                home / "noxel",
                ignore=shutil.ignore_patterns("__pycache__", "assets"),
            )
            homes.put(home)

        def judge(mutant: Mutant) -> tuple[Mutant, bool | None]:
            if time.monotonic() > until:
                return mutant, None
            tests: dict[str, float] = {}
            for line in mutant.lines:
                tests |= by_line.get((mutant.path, line), {})
            home = homes.get()
            try:
                return mutant, noticed(mutant, tests, home)
            finally:
                homes.put(home)

        with ThreadPoolExecutor(options.jobs) as pool:
            for mutant, outcome in pool.map(judge, sample):
                if outcome is None:
                    continue
                tried, killed = tried + 1, killed + outcome
                if not outcome:
                    print(f"survived: {mutant.path}:{mutant.lines[0]}  {mutant.says}", flush=True)
    score = f"{killed} of {tried} noticed: {killed / max(tried, 1):.0%}"
    print(f"{score} (seed {options.seed}, {possible} possible)")


if __name__ == "__main__":
    main()
