"""The server: one page's worth of connections, and patience that ends.

A connection that sends nothing, or a request a letter at a time, is closed; where too many are open, those that are idle go
first. So nobody can hold so many connections that the page no longer answers.
"""

import asyncio
import socket
from contextlib import suppress
from itertools import islice
from typing import Any

import uvicorn
from uvicorn.protocols.http.h11_impl import H11Protocol, RequestResponseCycle

MOST = 256
"""Connections that are held at once; a browser opens six."""
PATIENCE = 15.0
"""How long a connection may take to send the head of a request, and how long a body may pause. [s]"""
LONGEST_HEAD = 32_768
"""The longest request line with its headers. [bytes]"""
DESCRIPTORS = 4 * MOST
"""File descriptors that the process asks for: connections, database, and some to spare."""


class PatientProtocol(H11Protocol):
    """HTTP/1.1 with limits on idle and slow connections."""

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Take a connection; where there are too many, idle ones make room."""
        super().connection_made(transport)
        self._heard = self.loop.time()
        self._watch = self.loop.call_later(PATIENCE, self._look)
        spare = len(self.connections) - MOST
        if spare > 0:
            idle = (
                each for each in list(self.connections) if isinstance(each, PatientProtocol) and each is not self and each.idle
            )
            for each in islice(sorted(idle, key=lambda one: one._heard), spare):
                each.transport.abort()

    @property
    def idle(self) -> bool:
        """Whether no whole request is being answered."""
        cycle: RequestResponseCycle | None = self.cycle  # none before the first request
        return cycle is None or cycle.response_complete or cycle.more_body

    def data_received(self, data: bytes) -> None:
        """Hear some bytes; those of an unfinished head do not count as a sign of life."""
        cycle: RequestResponseCycle | None = self.cycle
        if cycle is not None and not cycle.response_complete:
            self._heard = self.loop.time()
        super().data_received(data)

    def on_response_complete(self) -> None:
        """Wait for the next request."""
        super().on_response_complete()
        self._heard = self.loop.time()

    def connection_lost(self, exc: Exception | None) -> None:
        """Let it go."""
        self._watch.cancel()
        super().connection_lost(exc)

    def _look(self) -> None:
        left = self._heard + PATIENCE - self.loop.time()
        if self.idle and left <= 0:
            self.transport.abort()
            return
        self._watch = self.loop.call_later(max(left, 1.0), self._look)


def more_descriptors() -> None:
    """Ask the system for enough file descriptors, where it lets a process do so."""
    with suppress(ImportError, ValueError, OSError):
        import resource

        soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
        if soft < DESCRIPTORS:
            resource.setrlimit(resource.RLIMIT_NOFILE, (min(DESCRIPTORS, hard), hard))


def serve(app: Any, listener: socket.socket) -> None:
    """Serve an application on a listening socket until it is stopped."""
    more_descriptors()
    config = uvicorn.Config(
        app,
        http=PatientProtocol,
        ws="none",
        log_level="warning",
        access_log=False,
        server_header=False,
        timeout_keep_alive=int(PATIENCE),
        timeout_graceful_shutdown=5,
        h11_max_incomplete_event_size=LONGEST_HEAD,
    )
    uvicorn.Server(config).run(sockets=[listener])
