"""A stage for pictures, browser tests and benchmarks: the real application on a port, and Debian's Chromium in front."""

import os
import shutil
import tempfile
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uvicorn
from playwright.sync_api import Browser, sync_playwright

from noxel.api.app import create_app
from noxel.cli import listen
from noxel.store.database import Database

CHROMIUM = ("chromium", "chromium-browser")
_FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
          "--disable-component-update", "--disable-sync", "--force-color-profile=srgb", "--hide-scrollbars"]  # fmt: skip


def chromium() -> str:
    """Where Chromium is.

    Raises
    ------
    FileNotFoundError
        With what to install, if it is not there.
    """
    named = os.environ.get("NOXEL_CHROMIUM")
    found = named or next(filter(None, map(shutil.which, CHROMIUM)), None)
    if not found:
        raise FileNotFoundError("Chromium was not found. Install it (Debian: apt-get install chromium).")
    return found


@contextmanager
def serving(database: Database) -> Iterator[str]:
    """Serve the application on a free port of this machine; yields its address."""
    listener = listen(0)
    server = uvicorn.Server(
        uvicorn.Config(create_app(database), log_level="error", access_log=False, timeout_graceful_shutdown=1)
    )
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]}, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{listener.getsockname()[1]}"
    finally:
        server.should_exit = True
        thread.join(10)


@contextmanager
def a_folder() -> Iterator[Path]:
    """A folder that is gone afterwards."""
    with tempfile.TemporaryDirectory(prefix="noxel-") as folder:
        yield Path(folder)


@contextmanager
def a_browser() -> Iterator[Browser]:
    """Headless Chromium that asks nothing of the network."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium(), args=_FLAGS)
        try:
            yield browser
        finally:
            browser.close()
