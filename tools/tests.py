"""Runs the tests below ``tests/`` with unittest and closes with a plain count: ``python -m tools.tests [FOLDER …]``."""

import sys
import unittest
from pathlib import Path

ROOT = Path(__file__).parent.parent


def main(folders: list[str]) -> int:
    """Run them; 0 only when tests ran and all of them passed."""
    loader = unittest.defaultTestLoader
    suite = unittest.TestSuite(loader.discover(str(ROOT / folder), top_level_dir=str(ROOT)) for folder in folders or ["tests"])
    result = unittest.TextTestRunner(warnings="error" if sys.warnoptions else None).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    print(f"{result.testsRun - failed - len(result.skipped)} passed, {failed} failed, {len(result.skipped)} skipped")
    return 0 if result.wasSuccessful() and result.testsRun else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
