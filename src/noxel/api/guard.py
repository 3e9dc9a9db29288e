"""What a request must be to get in: from this machine's own page, and not too large."""

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from noxel.api.problems import problem
from noxel.errors import TooLarge
from noxel.formats.rig_json import LARGEST, LARGEST_BOOK

_HEADERS = (
    (b"content-security-policy", b"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
                                 b"frame-ancestors 'none'; base-uri 'none'; form-action 'self'"),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
)  # fmt: skip
_MORE = 100_000


def _largest(path: str) -> int:
    """The most that is read at an address. [bytes]"""
    return (LARGEST_BOOK if path == "/api/logbook" else LARGEST) + _MORE


class Guard:
    """Refuses other sites' requests and oversized bodies; adds the headers that keep the page to itself."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = dict(scope["headers"])
        origin = headers.get(b"origin")
        if origin is not None and origin.split(b"://")[-1] != headers.get(b"host"):
            await problem(403, "origin.foreign", "Only Noxel's own page may talk to Noxel.")(scope, receive, send)
            return
        length, most = headers.get(b"content-length", b"0"), _largest(scope["path"])
        too_large = f"That is too large: Noxel reads at most {most // 1_000_000} MB at once."
        if not length.isdigit() or int(length) > most:
            await problem(413, TooLarge.code, too_large)(scope, receive, send)
            return
        received = 0

        async def counted() -> Message:
            nonlocal received
            message = await receive()
            received += len(message.get("body", b""))
            if received > most:
                raise TooLarge(too_large)
            return message

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message["headers"], *_HEADERS]
            await send(message)

        await self.app(scope, counted, with_headers)
