"""``/api/events``: every open page learns at once that something was saved, by whichever page or program."""

import asyncio
import sqlite3
from collections.abc import AsyncIterator
from contextlib import closing, suppress
from contextvars import ContextVar
from typing import Annotated

from fastapi import Depends, Request
from fastapi.sse import EventSourceResponse
from pydantic import BaseModel

from noxel.api.deps import new_router
from noxel.errors import Conflict
from noxel.store.database import Database

router = new_router()
asking: ContextVar[str | None] = ContextVar("asking", default=None)
"""The page whose request is being answered."""
LOOK = 0.4
"""How often the file is looked at for what another program did to it, while a page listens. [s]"""
MOST = 64
"""Pages that may listen at once."""


class Saved(BaseModel):
    """Something was saved: the page that did it; None is another program, such as ``noxel restore``."""

    page: str | None


class Hub:
    """Tells the pages that listen. One for each application."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._loop: asyncio.AbstractEventLoop | None = None
        self._listening: set[asyncio.Queue[Saved | None]] = set()
        self._watch: asyncio.Task[None] | None = None
        database.on_commit(self.announce)

    def announce(self) -> None:
        """Have every page ask again for what it shows; from any thread. After a save it says which page saved."""
        if self._loop is not None and self._listening:
            with suppress(RuntimeError):  # the loop has ended
                self._loop.call_soon_threadsafe(self._tell, Saved(page=asking.get()))

    def _tell(self, saved: Saved | None) -> None:
        for queue in self._listening:
            with suppress(asyncio.QueueFull):  # it has enough to hear of already
                queue.put_nowait(saved)

    async def listen(self) -> AsyncIterator[Saved]:
        """What is saved from now on, until the application ends.

        Raises
        ------
        Conflict
            If too many pages listen already.
        """
        if len(self._listening) >= MOST:
            raise Conflict("Too many pages listen already. Close some.")
        self._loop = asyncio.get_running_loop()
        queue: asyncio.Queue[Saved | None] = asyncio.Queue(100)
        self._listening.add(queue)
        if self._watch is None and self._database.path is not None:
            self._watch = self._loop.create_task(self._look_at_the_file())
        try:
            while (saved := await queue.get()) is not None:
                yield saved
        finally:
            self._listening.discard(queue)

    async def _look_at_the_file(self) -> None:
        try:
            seen = await asyncio.to_thread(self._seen)
            while self._listening:
                await asyncio.sleep(LOOK)
                now = await asyncio.to_thread(self._seen)
                if now is not None and seen is not None and now != seen:
                    self._tell(Saved(page=None))
                seen = now if now is not None else seen
        finally:
            self._watch = None

    def _seen(self) -> int | None:
        """How many saves the file holds beyond our own: it changes when another program writes."""
        with suppress(sqlite3.Error), closing(sqlite3.connect(f"{self._database.path}", timeout=1)) as connection:
            before = self._database.commits
            there = int(connection.execute("SELECT count FROM saves").fetchone()[0])
            if before == self._database.commits:
                return there - before
        return None

    def close(self) -> None:
        """Let every page go."""
        self._tell(None)
        if self._watch is not None:
            self._watch.cancel()


def hub_of(request: Request) -> Hub:
    """The hub of the running application."""
    hub: Hub = request.app.state.hub
    return hub


@router.get("/events", response_class=EventSourceResponse)
async def events(hub: Annotated[Hub, Depends(hub_of)]) -> AsyncIterator[Saved]:
    """What is saved, as server-sent events: a page that hears of another one asks for its sheet again."""
    async for saved in hub.listen():
        yield saved
