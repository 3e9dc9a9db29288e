"""Who may come in from other devices: those that were paired, and those that carry an invitation to
be.

Requests through the page of this machine itself are not asked anything here; ``guard.py`` looked at
them already. Whoever comes through the other door (``sharing.py``) and is not paired gets one page,
at every address.
"""

import asyncio
import re
from contextlib import suppress
from http.cookies import CookieError, SimpleCookie
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs

from jinja2 import Environment, FileSystemLoader
from starlette.requests import ClientDisconnect, Request
from starlette.responses import HTMLResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from noxel.api.deps import outside
from noxel.api.problems import problem
from noxel.api.sharing import Sharing
from noxel.errors import Conflict, StorageFault
from noxel.share import Device

COOKIE = "__Host-noxel"
_KEPT = 400 * 86_400
"""How long a browser keeps its secret. [s]"""
SLOW = 1.0
"""How long the answer to a wrong invitation or a wrong secret takes. [s]"""
_AT_ONCE = 4
_LONGEST_FORM = 4096
_SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
_ASKS = re.compile(
    r"/api/(evaluate|presence|practice/(yard|challenges|lessons/[^/]+)"
    r"|rigs/[^/]+/(adjust|adjust/step|adjust/proposals|items/preview|tickets/preview|lever-length|pasted|yard))"
)
"""Requests that ask something and change nothing, though their method is POST."""
_NOT_FOR_VIEWERS = re.compile(r"/api/backup")
_HERE_ONLY = re.compile(r"/api/share(/.*)?")
_pages = Environment(
    loader=FileSystemLoader(Path(__file__).parent / "pages"), autoescape=True, trim_blocks=True
)


class Door:
    """Lets requests from other devices through to the application, or answers them itself."""

    def __init__(self, app: ASGIApp, sharing: Sharing) -> None:
        self._app = app
        self._sharing = sharing
        self._slots = asyncio.Semaphore(_AT_ONCE)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] != "http" or not outside(scope):
            await self._app(scope, receive, send)
            return
        request = Request(scope, receive)
        secret = _secret(request)
        device = await asyncio.to_thread(self._sharing.devices.of, secret) if secret else None
        if scope["path"] in ("/join", "/authority.crt") and (
            device is None or "invitation" in request.query_params or scope["method"] == "POST"
        ):
            answer = await self._arriving(request, device)
        elif device is None:
            answer = await self._stranger(request, guessed=bool(secret))
        elif scope["path"] == "/authority.crt":
            answer = self._authority()
        elif (refused := _refusal(scope, device)) is not None:
            answer = problem(403, *refused)
        else:
            scope["noxel.device"] = device
            await self._served(scope, receive, send, device)
            return
        await answer(scope, receive, send)

    async def _served(self, scope: Scope, receive: Receive, send: Send, device: Device) -> None:
        """Let the application answer, until the device is shut out or the door closes; what it was
        listening to ends then.
        """
        started = False

        async def noted(message: Message) -> None:
            nonlocal started
            started = True
            await send(message)

        try:
            await self._sharing.attended(device.id, lambda: self._app(scope, receive, noted))
        except asyncio.CancelledError:
            with suppress(RuntimeError):  # it may have been answered whole
                if started:
                    await send({"type": "http.response.body", "body": b"", "more_body": False})
                else:
                    await problem(503, "share.closed", "Sharing was turned off.")(
                        scope, receive, send
                    )

    async def _stranger(self, request: Request, *, guessed: bool) -> Response:
        if guessed and (too_many := await self._slowed()) is not None:
            return too_many
        if "text/html" in request.headers.get("accept", ""):
            return _page("stranger", 401)
        return problem(
            401,
            "share.unpaired",
            "This device is not paired with Noxel. Ask for an invitation on the computer that "
            "runs it.",
        )

    async def _arriving(self, request: Request, known: Device | None) -> Response:
        """A device with an invitation, or with what it says is one."""
        if request.url.path == "/join" and request.method == "POST":
            return await self._pair(request, known)
        token = request.query_params.get("invitation")
        if token is None:
            return await self._stranger(request, guessed=False)
        invitation = self._sharing.invitations.look(token)
        if invitation is None:
            return await self._slowed() or _page("late", 401)
        if request.url.path == "/authority.crt":
            return self._authority()
        name = "Phone" if "Mobile" in request.headers.get("user-agent", "") else "Computer"
        return _page("join", 200, token=token, viewing=invitation.viewing, name=name)

    async def _pair(self, request: Request, known: Device | None) -> Response:
        form = await _form(request)
        invitation = self._sharing.invitations.use(form.get("invitation", ""))
        if invitation is None:
            return await self._slowed() or _page("late", 401)
        name = " ".join(form.get("name", "").split())[:40] or "A device"
        try:
            device, secret = await asyncio.to_thread(
                self._sharing.pair, name, viewing=invitation.viewing
            )
            if known is not None:
                self._sharing.shut_out(known.id)  # it is the same browser, with a new invitation
        except (Conflict, StorageFault) as exc:
            return _page("refused", exc.status, why=exc.message)
        answer = _page(
            "paired",
            200,
            name=device.name,
            viewing=device.viewing,
            fingerprint=None if self._sharing.proxied else self._sharing.authority.fingerprint,
        )
        answer.set_cookie(
            COOKIE, secret, max_age=_KEPT, path="/", secure=True, httponly=True, samesite="strict"
        )
        return answer

    def _authority(self) -> Response:
        headers = {
            "content-disposition": 'attachment; filename="noxel-authority.crt"',
            "cache-control": "no-store",
        }
        return Response(
            self._sharing.authority.public, media_type="application/x-x509-ca-cert", headers=headers
        )

    async def _slowed(self) -> Response | None:
        """Take time over a wrong guess, a few at once; the rest are sent away."""
        if self._slots.locked():
            return problem(429, "share.too_many", "Too many wrong attempts. Wait a moment.")
        async with self._slots:
            with suppress(asyncio.CancelledError):  # the door closes meanwhile
                await asyncio.sleep(SLOW)
        return None


def _refusal(scope: Scope, device: Device) -> tuple[str, str] | None:
    path = scope["path"]
    if _HERE_ONLY.fullmatch(path):
        return (
            "share.here_only",
            "Only the computer that runs Noxel can invite devices and shut them out.",
        )
    if device.viewing and (
        _NOT_FOR_VIEWERS.fullmatch(path)
        or (scope["method"] not in _SAFE and not _ASKS.fullmatch(path))
    ):
        return "share.viewing", "This device may look, not change anything."
    return None


def _secret(request: Request) -> str | None:
    try:
        cookie = SimpleCookie(request.headers.get("cookie", "")).get(COOKIE)
    except CookieError:
        return None
    return cookie.value[:200] if cookie else None


async def _form(request: Request) -> dict[str, str]:
    """The fields of a short form; nothing where it is too long, of which no more is read than that,
    or cannot be read.
    """
    length = request.headers.get("content-length", "")
    if length.isdecimal() and int(length) > _LONGEST_FORM:
        return {}
    data = b""
    try:
        async for part in request.stream():
            data += part
            if len(data) > _LONGEST_FORM:
                return {}
    except ClientDisconnect:
        return {}
    fields = parse_qs(data.decode("utf-8", "replace"), max_num_fields=8)
    return {name: values[0] for name, values in fields.items()}


def _page(page: str, status: int, **values: Any) -> HTMLResponse:
    return HTMLResponse(
        _pages.get_template(f"{page}.html").render(**values),
        status,
        headers={"cache-control": "no-store"},
    )
