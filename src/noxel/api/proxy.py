"""A reverse proxy that ends TLS in front of Noxel, on a server at home.

What a proxy says of a request is believed from its own address only. Whoever comes through it is
another device and has to be paired: nobody is the owner there, however the request looks.
"""

from collections.abc import Callable

from starlette.types import ASGIApp, Receive, Scope, Send

from noxel.api.problems import problem


class BehindProxy:
    """Lets requests through that come from the proxy and say so, each as one of another device.

    ``app``: what is served. ``address``: the proxy's address. ``hosts``: the names that a browser
    may ask the proxy for.
    """

    def __init__(self, app: ASGIApp, address: str, hosts: Callable[[], frozenset[str]]) -> None:
        self._app, self._address, self._hosts = app, address, hosts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Serve one request."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        peer = (scope.get("client") or ("",))[0]
        if peer != self._address:
            refused = problem(403, "proxy.only", "Noxel answers only through its proxy here.")
            await refused(scope, receive, send)
            return
        headers = dict(scope["headers"])
        if headers.get(b"x-forwarded-proto") != b"https":
            refused = problem(
                403,
                "proxy.plain",
                "The proxy has to end TLS, and to say so: X-Forwarded-Proto: https.",
            )
            await refused(scope, receive, send)
            return
        host = headers.get(b"x-forwarded-host", headers.get(b"host", b""))
        asked = [(key, value) for key, value in scope["headers"] if key != b"host"]
        outside = {
            **scope,
            "scheme": "https",
            "headers": [*asked, (b"host", host)],
            "noxel.hosts": self._hosts(),
        }
        await self._app(outside, receive, send)
