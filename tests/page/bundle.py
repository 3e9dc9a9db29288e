"""Modules of the page, bundled alone and run in the same Chromium as the browser tests."""

import subprocess
import tempfile
from functools import cache
from pathlib import Path

WEB = Path(__file__).parents[2] / "web"


@cache
def bundled(module: str) -> str:
    """A module of ``web/src`` as a script that puts what it exports into ``window.own``."""
    with tempfile.TemporaryDirectory() as folder:
        target = Path(folder) / "made.js"
        call = ["node_modules/.bin/rolldown", f"src/{module}", "--format", "iife"]
        subprocess.run(
            [*call, "--name", "own", "--file", str(target)],
            cwd=WEB,
            check=True,
            capture_output=True,
        )
        return f"{target.read_text(encoding='utf-8')}\nwindow.own = own;"
