"""The server: one page's worth of connections, and patience that ends.

A connection that sends nothing, or a request a letter at a time, is closed; where too many are
open, those that are idle go first. So nobody can hold so many connections that the page no longer
answers.
"""

import asyncio
import gc
import socket
import ssl
from collections.abc import Callable
from contextlib import suppress
from itertools import islice
from typing import Any

import uvicorn
from uvicorn.protocols.http.h11_impl import H11Protocol, RequestResponseCycle
from uvicorn.server import ServerState

MOST = 256
"""Connections that are held at once; a browser opens six."""
PATIENCE = 15.0
"""How long a connection may take to send the head of a request, and how long a body may pause. [s]
"""
LONGEST_HEAD = 32_768
"""The longest request line with its headers. [bytes]"""
DESCRIPTORS = 6 * MOST
"""File descriptors that the process asks for: connections, database, and some to spare."""
ARRIVING = 64
"""Connections from other devices that have not said yet what they speak; the oldest makes room."""
ARRIVE_WITHIN = 5.0
"""How long a connection from another device may take until TLS is agreed on. [s]"""
_TLS = 0x16
"""The first byte of a TLS connection."""


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
                connection
                for connection in list(self.connections)
                if isinstance(connection, PatientProtocol)
                and connection is not self
                and connection.idle
            )
            for connection in islice(sorted(idle, key=lambda connection: connection._heard), spare):
                connection.transport.abort()

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


def _config(app: Any) -> uvicorn.Config:
    return uvicorn.Config(
        app,
        http=PatientProtocol,
        ws="none",
        log_level="warning",
        access_log=False,
        server_header=False,
        proxy_headers=False,
        timeout_keep_alive=int(PATIENCE),
        timeout_graceful_shutdown=5,
        h11_max_incomplete_event_size=LONGEST_HEAD,
    )


def rarer_collections() -> None:
    """Look for circular garbage less often: an answer is thousands of small objects, none of them
    circular, and looking through them takes up to a quarter of the time of a long answer.
    """
    gc.freeze()
    gc.set_threshold(50_000, 20, 20)


def serve(app: Any, listener: socket.socket) -> None:
    """Serve an application on a listening socket until it is stopped."""
    more_descriptors()
    rarer_collections()
    uvicorn.Server(_config(app)).run(sockets=[listener])


class SecureListener:
    """Serves an application to other devices, over TLS, in the event loop that runs already.

    Plain HTTP on the same port gets nothing but a redirect. What has not agreed on TLS within some
    seconds is closed, and such connections are few: a stranger who holds many open keeps nobody
    else out, least of all the page of this machine.

    ``app``: what is served. ``listener``: bound and listening. ``context``: the TLS context to
    speak with, asked for at each connection, so that a renewed certificate is used at once.
    """

    def __init__(
        self, app: Any, listener: socket.socket, context: Callable[[], ssl.SSLContext]
    ) -> None:
        self._config = _config(app)
        self._listener = listener
        self._context = context
        self._state = ServerState()
        self._arriving: dict[asyncio.Task[None], socket.socket] = {}
        self._accepting: asyncio.Task[None] | None = None

    def start(self) -> None:
        """Begin to accept connections."""
        self._config.load()
        self._listener.setblocking(False)
        self._accepting = asyncio.get_running_loop().create_task(self._accept())

    def close(self) -> None:
        """Stop, and end every connection."""
        if self._accepting is not None:
            self._accepting.cancel()
        self._listener.close()
        for task in list(self._arriving):
            task.cancel()
        for connection in list(self._state.connections):
            connection.transport.abort()

    async def _accept(self) -> None:
        loop = asyncio.get_running_loop()
        while True:
            try:
                connection, _ = await loop.sock_accept(self._listener)
            except OSError:  # no descriptor is free, or the other side has gone already
                await asyncio.sleep(0.1)
                continue
            for oldest in list(self._arriving)[: max(0, len(self._arriving) - ARRIVING + 1)]:
                oldest.cancel()
            task = loop.create_task(self._arrive(connection))
            self._arriving[task] = connection
            task.add_done_callback(lambda task_done: self._arriving.pop(task_done, None))

    async def _arrive(self, connection: socket.socket) -> None:
        loop = asyncio.get_running_loop()
        try:
            async with asyncio.timeout(ARRIVE_WITHIN):
                connection.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
                if await self._first_byte(connection) != _TLS:
                    await self._redirect(connection)
                    connection.close()
                    return
                await loop.connect_accepted_socket(
                    lambda: PatientProtocol(self._config, self._state, {}),
                    connection,
                    ssl=self._context(),
                    ssl_handshake_timeout=ARRIVE_WITHIN,
                )
        except (OSError, TimeoutError, asyncio.CancelledError):
            connection.close()

    async def _first_byte(self, connection: socket.socket) -> int | None:
        loop = asyncio.get_running_loop()
        arrived = asyncio.Event()
        try:
            loop.add_reader(connection, arrived.set)
        except NotImplementedError:  # an event loop that cannot look without taking
            return _TLS
        try:
            await arrived.wait()
        finally:
            loop.remove_reader(connection)
        return next(iter(connection.recv(1, socket.MSG_PEEK)), None)

    async def _redirect(self, connection: socket.socket) -> None:
        """Send a browser that came without TLS to the same address with it."""
        loop = asyncio.get_running_loop()
        lines = (await loop.sock_recv(connection, LONGEST_HEAD)).decode("latin-1").split("\r\n")
        target = [*lines[0].split(" "), "", ""][1]
        address, port = connection.getsockname()[:2]
        path = (
            target
            if target.startswith("/") and not target.startswith("//") and target.isprintable()
            else "/"
        )
        answer = (
            f"HTTP/1.1 308 Permanent Redirect\r\nLocation: https://{address}:{port}{path}\r\n"
            "Content-Length: 0\r\nConnection: close\r\nCache-Control: no-store\r\n\r\n"
        )
        await loop.sock_sendall(connection, answer.encode("latin-1", "replace"))
