"""What a request must be to get in: to this machine, from this machine's own page, and not too
large.

A page on another site can make a browser send requests here, or have its own name resolved to this
machine. So the name that a request is addressed to must be one of ours, a request that another site
started is refused, and one that changes anything must name our own page as its origin and be JSON,
which no other site's form can send.
"""

import logging
import re
from contextlib import suppress

from starlette.requests import ClientDisconnect
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from noxel.api.events import asking
from noxel.api.problems import problem
from noxel.errors import TooLarge
from noxel.formats.rig_json import LARGEST, LARGEST_BOOK

_HEADERS = (
    (
        b"content-security-policy",
        b"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
        b"frame-ancestors 'none'; base-uri 'none'; form-action 'self'; object-src 'none'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"x-frame-options", b"DENY"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-resource-policy", b"same-origin"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"permissions-policy", b"geolocation=(), microphone=(), camera=(self)"),
)
_MORE = 100_000
_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
_KEEPS_NOTHING = frozenset({"/api/evaluate"})
LARGEST_PHOTO = 30_000_000
"""The largest photograph that is read. [bytes]"""
_FORM = "/join"
"""The one address that takes a form: of a device that is being paired, which knows no script yet.
"""
_LONGEST_FORM = 10_000
_PHOTO = re.compile(r"/api/rigs/[^/]+/photos/[^/]+")
"""Where a photograph is sent: as bytes that no form of another site can send either."""
_log = logging.getLogger("noxel")

Refusal = tuple[int, str, str]
"""Status, code, words."""


def _largest(path: str) -> int:
    """The most that is read at an address. [bytes]"""
    if path == _FORM:
        return _LONGEST_FORM
    if _PHOTO.fullmatch(path):
        return LARGEST_PHOTO
    return (LARGEST_BOOK if path == "/api/logbook" else LARGEST) + _MORE


def _name(host: str) -> str:
    """A host without its port."""
    return (
        host[: host.index("]") + 1]
        if host.startswith("[") and "]" in host
        else host.partition(":")[0]
    )


class Guard:
    """Refuses strangers and oversized bodies; adds the headers that keep the page to itself, to
    errors too.

    ``app``: what it guards. ``hosts``: names that a request may be addressed to; one from another
    device carries those it may be addressed to with it.
    """

    def __init__(self, app: ASGIApp, hosts: frozenset[str]) -> None:
        self.app = app
        self._hosts = hosts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        started = False

        async def with_headers(message: Message) -> None:
            nonlocal started
            if received > most:
                return  # what the application makes of half a body is not said
            if message["type"] == "http.response.start":
                started = True
                message["headers"] = [*message["headers"], *_HEADERS]
            await send(message)

        most, received = _largest(scope["path"]), 0

        async def counted() -> Message:
            nonlocal received
            message = await receive()
            received += len(message.get("body", b""))
            if received > most:
                raise TooLarge(_too_large(most)[2])
            return message

        refused = self._refusal(scope, most)
        if refused is None:
            page = dict(scope["headers"]).get(b"x-noxel-page", b"").decode("latin-1")[:64]
            asking.set(page or None)
            try:
                with suppress(ClientDisconnect):  # the client is gone
                    await self.app(scope, counted, with_headers)
            except Exception as exc:  # noqa: BLE001 the border: whatever it is, it is answered
                if received <= most:
                    _log.error("unforeseen error", exc_info=exc)
                    refused = (
                        500,
                        "internal",
                        "Something went wrong inside Noxel. What was saved before is still there.",
                    )
        if received > most:
            received, refused = 0, _too_large(most)
        if refused is not None and not started:
            _log.info("refused: %s, %s %r", refused[1], scope["method"], scope["path"][:100])
            await problem(*refused)(scope, receive, with_headers)

    def _refusal(self, scope: Scope, most: int) -> Refusal | None:
        headers: dict[bytes, str] = {}
        for key, value in scope["headers"]:
            if key in (b"host", b"origin", b"content-length") and key in headers:
                return 400, "request.invalid", f"The header {key.decode()} is there twice."
            headers[key] = value.decode("latin-1")
        host, origin = headers.get(b"host", ""), headers.get(b"origin")
        if _name(host) not in scope.get("noxel.hosts", self._hosts):
            return 400, "host.foreign", "Noxel answers only under the names of this machine."
        path, safe = scope["path"], scope["method"] in _SAFE
        arriving = (
            safe and not path.startswith("/api/") and headers.get(b"sec-fetch-mode") == "navigate"
        )
        if headers.get(b"sec-fetch-site", "none") not in ("same-origin", "none") and not arriving:
            return 403, "origin.foreign", "Only Noxel's own page may talk to Noxel."
        if origin is not None and origin != f"{scope['scheme']}://{host}":
            return 403, "origin.foreign", "Only Noxel's own page may talk to Noxel."
        length = headers.get(b"content-length", "0")
        if not length.isdigit() or len(length) > 12 or int(length) > most:
            return _too_large(most)
        if safe or path in _KEEPS_NOTHING:
            return None
        if origin is None:
            return (
                403,
                "origin.missing",
                "A change must say where it comes from: send the header Origin: "
                f"{scope['scheme']}://{host}",
            )
        has_body = length != "0" or b"transfer-encoding" in headers
        kind = headers.get(b"content-type", "").partition(";")[0].strip().lower()
        photo = _PHOTO.fullmatch(path) is not None
        if has_body and photo and kind != "application/octet-stream":
            return (
                415,
                "request.not_bytes",
                "Send the photograph as it is, with the header Content-Type: "
                "application/octet-stream.",
            )
        if has_body and not photo and path != _FORM and kind != "application/json":
            return (
                415,
                "request.not_json",
                "Send it as JSON, with the header Content-Type: application/json.",
            )
        return None


def _too_large(most: int) -> Refusal:
    return (
        413,
        TooLarge.code,
        f"That is too large: Noxel reads at most {most // 1_000_000} MB at once.",
    )
