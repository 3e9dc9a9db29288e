"""A stage for pictures, browser tests and benchmarks: the real application on a port, and Debian's
Chromium in front.
"""

import asyncio
import os
import random
import shutil
import subprocess
import tempfile
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uvicorn
from playwright.sync_api import Browser, sync_playwright
from starlette.types import ASGIApp, Receive, Scope, Send

from noxel.api.app import create_app
from noxel.api.sharing import Sharing
from noxel.serving import listen
from noxel.share import Addresses
from noxel.store.database import Database

CHROMIUM = ("chromium-headless-shell", "chromium", "chromium-browser")
"""Chromium without a window starts and loads in half the time."""

_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--force-color-profile=srgb",
    "--hide-scrollbars",
]


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
        raise FileNotFoundError(
            "Chromium was not found. Install it (Debian: apt-get install chromium-headless-shell)."
        )
    return found


STRANGER = "127.0.0.2"
"""A second address of this machine: what comes to it counts as coming from another device."""


def shared(folder: Path) -> Sharing:
    """A door for other devices, open on a free port of the second address."""
    sharing = Sharing(folder, 0, STRANGER, lambda: Addresses(("localhost",), (STRANGER,)))
    sharing.open()
    return sharing


class Slowly:
    """The application as over a poor network: each answer of the API comes later by up to so many
    milliseconds, some before those asked for earlier; or by as many as the request says.
    """

    HEADER = "x-test-late"

    def __init__(self, app: ASGIApp, longest_ms: float) -> None:
        self.app, self.longest_ms = app, longest_ms
        self.chance = random.Random(longest_ms)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Wait, then answer."""
        if scope["type"] == "http" and scope["path"].startswith("/api/"):
            late = dict(scope["headers"]).get(self.HEADER.encode())
            milliseconds = float(late) if late else self.chance.random() * self.longest_ms
            await asyncio.sleep(milliseconds / 1000)
        await self.app(scope, receive, send)


@contextmanager
def serving(database: Database, sharing: Sharing | None = None) -> Iterator[str]:
    """Serve the application on a free port of this machine, and to other devices where it is
    shared; yields its address. With ``NOXEL_SLOW`` in the environment, a number of milliseconds,
    answers come late.
    """
    listener = listen(0)
    app = create_app(database, sharing=sharing)
    app.add_middleware(Slowly, longest_ms=float(os.environ.get("NOXEL_SLOW", 0)))
    server = uvicorn.Server(
        uvicorn.Config(app, log_level="error", access_log=False, timeout_graceful_shutdown=1)
    )
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]}, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{listener.getsockname()[1]}"
    finally:
        server.should_exit = True
        thread.join(10)


def trust(home: Path, authority: bytes) -> None:
    """Install an authority (DER) for the Chromium that has this home, as its owner would on a
    phone.
    """
    for place in (home / ".pki/nssdb", home / ".local/share/pki/nssdb"):
        place.mkdir(parents=True, exist_ok=True)
        store = f"sql:{place}"
        subprocess.run(
            ["certutil", "-N", "-d", store, "--empty-password"], check=True, capture_output=True
        )
        subprocess.run(
            ["certutil", "-A", "-d", store, "-n", "noxel", "-t", "C,,"],
            input=authority,
            check=True,
            capture_output=True,
        )


@contextmanager
def a_folder() -> Iterator[Path]:
    """A folder that is gone afterwards."""
    with tempfile.TemporaryDirectory(prefix="noxel-") as folder:
        yield Path(folder)


@contextmanager
def a_browser(home: Path | None = None) -> Iterator[Browser]:
    """Headless Chromium that asks nothing of the network; with a home of its own, it trusts what is
    installed there.
    """
    env = (
        {**os.environ, "HOME": str(home), "XDG_DATA_HOME": str(home / ".local/share")}
        if home
        else None
    )
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium(), args=_FLAGS, env=env)  # type: ignore[arg-type]
        try:
            yield browser
        finally:
            browser.close()
