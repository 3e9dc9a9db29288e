"""Opening this machine to other devices, and closing it again; what is true of it now."""

import asyncio
import io
import logging
import socket
import ssl
from collections import defaultdict
from collections.abc import Callable, Sequence
from contextlib import suppress
from pathlib import Path
from typing import Any

import segno
from starlette.types import ASGIApp, Receive, Scope, Send

from noxel.api.problems import problem
from noxel.errors import Conflict, StorageFault
from noxel.server import SecureListener
from noxel.share import (
    Addresses,
    Authority,
    Device,
    Devices,
    Invitations,
    keep_entrance,
    private,
    this_machine,
)

_log = logging.getLogger("noxel")
LOOK = 20.0
"""How often it is looked whether this machine is called otherwise now: it joined a hotspot, or a
certificate ends. [s]
"""


class Sharing:
    """The second door of the application: for paired devices, over TLS. Closed until it is opened.

    ``folder``: where authority and devices are kept. ``port``: the port for other devices, or a
    free one where it is taken. ``bind``: the address to listen on. ``addresses``: how this machine
    is called now. ``own_names``: names that its owner gave it besides. ``only``: whether no other
    port will do.
    """

    def __init__(
        self,
        folder: Path,
        port: int,
        bind: str = "0.0.0.0",
        addresses: Callable[[], Addresses] = this_machine,
        own_names: Sequence[str] = (),
        *,
        only: bool = False,
    ) -> None:
        self._folder = folder
        self._wanted, self._bind, self._find = port, bind, addresses
        self._own, self._only = tuple(own_names), only
        self.proxied = False
        """Whether a proxy ends TLS for all that come."""
        self.invitations = Invitations(folder=folder)
        self.changed: Callable[[], None] = lambda: None
        """Called when who is paired has changed."""
        self.addresses = Addresses((), ())
        self.port = port
        self._authority: Authority | None = None
        self._devices: Devices | None = None
        self._socket: socket.socket | None = None
        self._context: ssl.SSLContext | None = None
        self._listener: SecureListener | None = None
        self._watch: asyncio.Task[None] | None = None
        self._running: dict[str, set[asyncio.Task[Any]]] = defaultdict(set)

    @property
    def on(self) -> bool:
        """Whether other devices can come."""
        return self._socket is not None

    @property
    def devices(self) -> Devices:
        """Who was paired.

        Raises StorageFault if the list cannot be read.
        """
        if self._devices is None:
            self._devices = Devices(self._folder / "devices.json")
        return self._devices

    @property
    def authority(self) -> Authority:
        """This machine's own authority; made when it is asked for first.

        Raises StorageFault if it cannot be made or read.
        """
        if self._authority is None:
            self._authority = Authority(self._folder, self._own)
        return self._authority

    def open(self) -> None:
        """Make what is needed and take the port; `start` begins to answer.

        Raises StorageFault if authority or devices cannot be kept.
        """
        if self.on:
            return
        self._look()
        self.devices.all()
        self._socket = self._take_port()
        self.port = self._socket.getsockname()[1]
        hosts = self._hosts()
        keep_entrance(self._folder, f"https://{hosts[0]}:{self.port}" if hosts else None)

    def behind_proxy(self, names: Sequence[str]) -> None:
        """Take in devices that come through a proxy under these names, and nobody else."""
        self.proxied = True
        keep_entrance(self._folder, f"https://{names[0]}")

    def leave(self) -> None:
        """Nobody comes in any more: neither now nor with an invitation that is out."""
        self.invitations.forget()
        keep_entrance(self._folder, None)

    def _hosts(self) -> tuple[str, ...]:
        """The names and addresses to be reached by, the likeliest first."""
        return tuple(dict.fromkeys((*self._own, *self.addresses.numbers, *self.addresses.names)))

    def start(self, app: ASGIApp) -> None:
        """Begin to answer, in the event loop that runs."""
        if self._socket is None or self._listener is not None:
            return

        async def outside(scope: Scope, receive: Receive, send: Send) -> None:
            scope["noxel.hosts"] = self.addresses.hosts
            local = (scope.get("server") or ("",))[0]
            if scope["type"] == "http" and not private(local):
                refused = problem(403, "share.public", "Noxel does not answer on this address.")
                await refused(scope, receive, send)
                return
            await app(scope, receive, send)

        self._listener = SecureListener(outside, self._socket, self._secure)
        self._listener.start()
        self._watch = asyncio.get_running_loop().create_task(self._keep_looking())

    def stop(self) -> None:
        """Close the door: every connection ends, and so does every invitation. Who is paired stays
        paired.
        """
        self.leave()
        if self._watch is not None:
            self._watch.cancel()
        if self._listener is not None:
            self._listener.close()
        elif self._socket is not None:
            self._socket.close()
        self._watch = self._listener = self._socket = None

    def invite(self, host: str | None, *, viewing: bool) -> str:
        """The address with a new invitation.

        Raises Conflict if the door is closed, or this machine is on no network.
        """
        if not self.on:
            raise Conflict("Sharing is off. Turn it on first.")
        self._look()
        hosts = self._hosts()
        if not self.addresses.numbers and not self._own:
            raise Conflict(
                "This machine is on no network. Connect it to the phone's hotspot, or both to one "
                "wireless network."
            )
        chosen = host if host in hosts else hosts[0]
        return f"https://{chosen}:{self.port}/join?invitation={self.invitations.invite(viewing=viewing)}"

    def pair(self, name: str, *, viewing: bool) -> tuple[Device, str]:
        """Take a device in; returns it with its secret.

        Raises Conflict if too many are paired; StorageFault if the list cannot be written.
        """
        paired = self.devices.pair(name, viewing=viewing)
        _log.info("paired: %s%s", name, " (may look)" if viewing else "")
        self.changed()
        return paired

    def shut_out(self, device_id: str) -> None:
        """Let a device in no more, and end what it is doing.

        Raises NotFound if it is not paired.
        """
        self.devices.shut_out(device_id)
        _log.info("shut out: a device")
        for task in self._running.pop(device_id, ()):
            task.get_loop().call_soon_threadsafe(task.cancel)
        self.changed()

    def busy(self, device_id: str) -> bool:
        """Whether a device has a page open now."""
        return bool(self._running.get(device_id))

    async def attended(self, device_id: str, work: Callable[[], Any]) -> None:
        """Answer a device's request, for as long as it is paired."""
        task = asyncio.current_task()
        if task is None:
            return
        self._running[device_id].add(task)
        try:
            await work()
        finally:
            self._running[device_id].discard(task)

    def _secure(self) -> ssl.SSLContext:
        if self._context is None:
            self._look()
        if self._context is None:
            raise StorageFault("share", "There is no certificate.")
        return self._context

    def _look(self) -> None:
        """See what this machine is called now; a certificate that would not do is made anew."""
        found = self._find()
        self.addresses = Addresses(tuple(dict.fromkeys((*self._own, *found.names))), found.numbers)
        self._context = self.authority.context(self.addresses)

    async def _keep_looking(self) -> None:
        while True:
            await asyncio.sleep(LOOK)
            with suppress(StorageFault, OSError):  # the one there is serves on
                await asyncio.to_thread(self._look)

    def _take_port(self) -> socket.socket:
        for wanted in (self._wanted,) if self._only else (self._wanted, 0):
            held = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
            held.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                held.bind((self._bind, wanted))
                held.listen(64)
            except OSError:
                held.close()
                continue
            return held
        if self._only:
            raise Conflict(f"Port {self._wanted} is taken. Choose another with --share-port.")
        raise Conflict("No port is free for other devices.")


def as_picture(address: str) -> str:
    """An address as a QR code, in SVG of its own size, dark on light also at night."""
    buffer = io.BytesIO()
    segno.make(address, error="m").save(
        buffer,
        kind="svg",
        xmldecl=False,
        svgns=True,
        scale=8,
        border=4,
        dark="#1e2b29",
        light="#ffffff",
    )
    return buffer.getvalue().decode()


def for_terminal(address: str) -> str:
    """An address as a QR code for a terminal."""
    buffer = io.StringIO()
    segno.make(address, error="l").terminal(buffer, compact=True)
    return buffer.getvalue()
