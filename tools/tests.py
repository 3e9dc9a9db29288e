"""Runs the tests below ``tests/`` with unittest, a class at a time on every core: ``python -m
tools.tests [--but NAME] [FOLDER …]``. Classes whose name holds NAME are left out.
"""

import gc
import io
import multiprocessing
import os
import sys
import unittest
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor, as_completed
from pathlib import Path

ROOT = Path(__file__).parent.parent
LONGEST = ("test_axe", "test_workbook", "thresholds", "proposals", "test_phone", "browser")
"""What takes longest goes first, so that no core is left working alone at the end."""
WORKERS = (os.cpu_count() or 1) + 1
"""One more than there are cores: a browser test waits now and then."""


def _classes(suite: unittest.TestSuite) -> Iterator[str]:
    for each in suite:
        if isinstance(each, unittest.TestSuite):
            yield from _classes(each)
        elif type(each).__module__ == "unittest.loader":  # a module that could not be imported
            raise SystemExit(f"{each.id()}\n{getattr(each, '_exception', '')}")
        else:
            yield f"{type(each).__module__}.{type(each).__qualname__}"


def _collect_seldom() -> None:
    """Look for garbage seldom: the tests make many objects that live long, and going through them
    took a tenth of the time.
    """
    gc.set_threshold(100_000, 50, 100)


def _run(name: str) -> tuple[int, int, int, str]:
    """Run one class: how many ran, failed, were skipped, and what the failures print."""
    output = io.StringIO()
    suite = unittest.defaultTestLoader.loadTestsFromName(name)
    result = unittest.TextTestRunner(
        output, verbosity=0, warnings="error" if sys.warnoptions else None
    ).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    return result.testsRun, failed, len(result.skipped), output.getvalue() if failed else ""


def main(folders: list[str]) -> int:
    """Run them; 0 only when tests ran and all of them passed."""
    but = folders[1] if folders[:1] == ["--but"] else None
    folders = folders[2:] if but else folders
    loader = unittest.defaultTestLoader
    names: dict[str, None] = {}
    for folder in folders or ["tests"]:
        names |= dict.fromkeys(
            _classes(loader.discover(str(ROOT / folder), top_level_dir=str(ROOT)))
        )
    order = sorted(
        (name for name in names if not but or but not in name),
        key=lambda name: next(
            (place for place, part in enumerate(LONGEST) if part in name), len(LONGEST)
        ),
    )
    ran = failed = skipped = 0
    gc.freeze()  # the forked processes share what is imported; the collector skips it
    fork = multiprocessing.get_context("fork")
    with ProcessPoolExecutor(WORKERS, fork, initializer=_collect_seldom) as pool:
        for done in as_completed([pool.submit(_run, name) for name in order]):
            count, bad, left, result = done.result()
            ran, failed, skipped = ran + count, failed + bad, skipped + left
            print(result or "." * count, end="", flush=True)
    print(f"\n{ran - failed - skipped} passed, {failed} failed, {skipped} skipped")
    return 0 if ran and not failed else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
