"""``/api/events``: every open page learns at once that something was saved, by whichever page or
program.
"""

import asyncio
import sqlite3
import time
from collections.abc import AsyncIterator, Iterable
from contextlib import closing, suppress
from contextvars import ContextVar
from typing import Annotated

from fastapi import Depends, Request
from fastapi.sse import EventSourceResponse
from pydantic import BaseModel, Field

from noxel.api.deps import PageId, device_of, new_router
from noxel.errors import Conflict
from noxel.share import Device
from noxel.store.database import Database

router = new_router()
asking: ContextVar[str | None] = ContextVar("asking", default=None)
"""The page whose request is being answered."""
LOOK = 0.4
"""How often the file is looked at for what another program did to it, while a page listens. [s]"""
MOST, MOST_OF_A_DEVICE = 64, 8
"""Pages that this machine itself, and that one paired device, may have listening and open at once:
no device takes another's place.
"""
STAYS = 100.0
"""How long a page counts as open after it was last heard of. [s]"""


class Present(BaseModel):
    """A page that is open: whose device, and where it is. The name of this machine itself is
    None.
    """

    page: str
    name: str | None
    rig: str
    place: str


class OpenPages(BaseModel):
    """The pages that are open; a larger count is newer."""

    count: int
    pages: list[Present]


class Saved(BaseModel):
    """Something was saved: the page that did it; None is another program, such as ``noxel
    restore``. Or, with ``present``, nothing was saved, and these pages are open.
    """

    page: str | None
    present: OpenPages | None = None


class Whereabouts(BaseModel):
    """Where a page is now; an empty rig says that it is closed."""

    rig: Annotated[str, Field(max_length=64)] = ""
    place: Annotated[str, Field(max_length=20)] = ""


class Hub:
    """Tells the pages that listen. One for each application."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._loop: asyncio.AbstractEventLoop | None = None
        self._listening: dict[asyncio.Queue[Saved | None], str | None] = {}
        self._watch: asyncio.Task[None] | None = None
        self._present: dict[tuple[str | None, str], tuple[Present, float]] = {}
        self._count = 0
        database.on_commit(self.announce)

    def announce(self) -> None:
        """Have every page ask again for what it shows; from any thread. After a save it says which
        page saved.
        """
        if self._loop is not None and self._listening:
            with suppress(RuntimeError):  # the loop has ended
                self._loop.call_soon_threadsafe(self._tell, Saved(page=asking.get()))

    def is_at(self, page: str, device: Device | None, where: Whereabouts) -> OpenPages:
        """Note where a page is, and tell the others; returns every page that is open. Called in the
        loop.
        """
        now, whose = time.monotonic(), device.id if device else None
        self._present = {
            key: known
            for key, known in self._present.items()
            if known[1] > now and key != (whose, page)
        }
        if where.rig and _has_place(whose, [holder for holder, _ in self._present]):
            name = device.name if device else None
            self._present[whose, page] = (
                Present(page=page, name=name, rig=where.rig, place=where.place),
                now + STAYS,
            )
        self._count += 1
        present = OpenPages(
            count=self._count, pages=[present for present, _ in self._present.values()]
        )
        self._tell(Saved(page=page, present=present))
        return present

    def _tell(self, saved: Saved | None) -> None:
        for queue in self._listening:
            with suppress(asyncio.QueueFull):  # it has enough to hear of already
                queue.put_nowait(saved)

    async def listen(self, device: str | None = None) -> AsyncIterator[Saved]:
        """What is saved from now on, until the application ends.

        ``device``: the paired device that listens; None is this machine itself.

        Raises Conflict if too many pages of it listen already.
        """
        if not _has_place(device, self._listening.values()):
            raise Conflict("Too many pages listen already. Close some.")
        self._loop = asyncio.get_running_loop()
        queue: asyncio.Queue[Saved | None] = asyncio.Queue(100)
        self._listening[queue] = device
        if self._watch is None and self._database.path is not None:
            self._watch = self._loop.create_task(self._look_at_the_file())
        try:
            while (saved := await queue.get()) is not None:
                yield saved
        finally:
            del self._listening[queue]

    async def _look_at_the_file(self) -> None:
        try:
            saves = await asyncio.to_thread(self._seen)
            while self._listening:
                await asyncio.sleep(LOOK)
                now = await asyncio.to_thread(self._seen)
                if now is not None and saves is not None and now != saves:
                    self._tell(Saved(page=None))
                saves = now if now is not None else saves
        finally:
            self._watch = None

    def _seen(self) -> int | None:
        """How many saves the file holds beyond our own: it changes when another program writes."""
        with (
            suppress(sqlite3.Error),
            closing(sqlite3.connect(f"{self._database.path}", timeout=1)) as connection,
        ):
            before = self._database.commits
            count = int(connection.execute("SELECT count FROM saves").fetchone()[0])
            if before == self._database.commits:
                return count - before
        return None

    def close(self) -> None:
        """Let every page go."""
        self._tell(None)
        if self._watch is not None:
            self._watch.cancel()


def _has_place(device: str | None, holders: Iterable[str | None]) -> bool:
    """Whether a device may hold one more, by who holds one now."""
    most = MOST if device is None else MOST_OF_A_DEVICE
    return sum(holder == device for holder in holders) < most


def hub_of(request: Request) -> Hub:
    """The hub of the running application."""
    hub: Hub = request.app.state.hub
    return hub


@router.post("/presence")
async def note_presence(
    where: Whereabouts, request: Request, hub: Annotated[Hub, Depends(hub_of)], page: PageId = None
) -> OpenPages:
    """Note where this page is; the answer, and every page that listens, has all that are open."""
    return hub.is_at(page or "", device_of(request.scope), where)


@router.get("/events", response_class=EventSourceResponse)
async def events(request: Request, hub: Annotated[Hub, Depends(hub_of)]) -> AsyncIterator[Saved]:
    """What is saved, as server-sent events: a page that hears of another one asks for its sheet
    again.
    """
    device = device_of(request.scope)
    async for saved in hub.listen(device.id if device else None):
        yield saved
