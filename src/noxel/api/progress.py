"""``/api/progress``: how far something long has come, asked for while it is under way."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Annotated

from fastapi import Depends, Header, Request
from pydantic import BaseModel

from noxel.api.deps import new_router
from noxel.store.database_file import Report

router = new_router()


class Progress(BaseModel):
    """How far it is: ``done`` of ``of`` parts, and what is being done; ``of`` is 0 while that is
    not known, or there is no such work.
    """

    done: int = 0
    of: int = 0
    says: str = ""


class Works:
    """All long work that is under way, by the names that its askers gave it."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._now: dict[str, Progress] = {}

    def look(self, name: str) -> Progress:
        """How far a work is."""
        with self._lock:
            return self._now.get(name, Progress())

    @contextmanager
    def under_way(self, name: str | None) -> Iterator[Report]:
        """Something long; what it reports can be looked at until it ends."""

        def report(done: int, of: int, says: str) -> None:
            if name:
                with self._lock:
                    self._now[name] = Progress(done=done, of=of, says=says)

        try:
            yield report
        finally:
            with self._lock:
                self._now.pop(name or "", None)


def works_of(request: Request) -> Works:
    """The long work of the running application."""
    works: Works = request.app.state.works
    return works


TheWorks = Annotated[Works, Depends(works_of)]
ProgressName = Annotated[
    str | None,
    Header(alias="x-noxel-progress", max_length=64, description="A name to ask for progress by."),
]


@router.get("/progress/{name}")
def look_at_work(name: str, works: TheWorks) -> Progress:
    """How far something long is."""
    return works.look(name)
