"""What the command line starts: the server, alone, shared with phones, or behind a proxy; and the
unit that a system starts it with.
"""

import argparse
import gc
import ipaddress
import json
import logging
import os
import shlex
import signal
import socket
import sys
import urllib.request
from pathlib import Path
from typing import TYPE_CHECKING

from noxel.errors import InputError, NoxelError

if TYPE_CHECKING:
    from starlette.types import ASGIApp

    from noxel.api.sharing import Sharing
    from noxel.store.database import Database

PORT = 8710
"""Of this machine's own page, where it is free."""
_log = logging.getLogger("noxel")


def listen(port: int, address: str = "127.0.0.1", *, only: bool = False) -> socket.socket:
    """Listen on a port of this machine, or on a free one when it is taken and another will do; who
    comes early waits.

    Raises InputError if only this port will do and it is taken.
    """
    for wanted in (port,) if only else (port, 0):
        # named as TCP, so that asyncio sends answers at once (TCP_NODELAY) and not after the peer's
        # delayed ACK, 40 ms later
        listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind((address, wanted))
            listener.listen(64)
        except OSError as exc:
            listener.close()
            if only:
                raise InputError(
                    f"Port {port} is taken by {_holder(port)}. Stop it, or choose another with "
                    "--port."
                ) from exc
            if wanted == 0:
                raise
            continue
        return listener
    raise OSError("no port is free")


def _holder(port: int) -> str:
    """Who answers on a port of this machine."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=2) as answer:
            version = json.load(answer)["version"]
    except (OSError, ValueError, KeyError, TypeError):
        return "another program"
    return f"another Noxel ({version}, http://127.0.0.1:{port})"


def run(database: "Database", options: argparse.Namespace, name: str) -> int:
    """Serve a database until it is stopped."""
    from noxel.api.app import create_app
    from noxel.api.proxy import BehindProxy
    from noxel.api.sharing import Sharing
    from noxel.server import serve

    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(message)s", stream=sys.stderr)
    for talkative in ("alembic", "fontTools"):
        logging.getLogger(talkative).setLevel(logging.WARNING)
    proxy: str | None = options.behind_proxy
    local = proxy is None or ipaddress.ip_address(proxy).is_loopback
    listener = listen(
        PORT if options.port is None else options.port,
        "127.0.0.1" if local else "0.0.0.0",
        only=options.port not in (None, 0),
    )
    port = listener.getsockname()[1]
    shares = options.share_port or port + 1
    sharing = (
        Sharing(
            database.path.parent / "share",
            shares,
            own_names=tuple(options.name),
            only=options.share_port is not None,
        )
        if database.path
        else None
    )
    app = create_app(database, name=name, sharing=sharing)
    served: ASGIApp = app
    if proxy is not None and sharing is not None:
        sharing.behind_proxy(options.name)
        served = BehindProxy(app, proxy, lambda: frozenset(options.name))
        where = f"https://{options.name[0]}, through the proxy at {proxy} on port {port}"
    else:
        where = f"http://127.0.0.1:{port}"
    print(f"{name}: {where}  (stop with Ctrl-C; data in {database.path})", flush=True)
    if options.share and sharing is not None and proxy is None:
        sharing.open()
        print(invitation_of(sharing), flush=True)
    gc.collect()
    gc.freeze()  # what was loaded by now stays; no need to look through it at every collection
    # an answer makes thousands of small objects and drops them all: look rarely
    gc.set_threshold(20_000, 20, 20)
    signal.signal(signal.SIGTERM, _stopped)
    _log.info("started: %s", where)
    try:
        serve(served, listener)
    except (KeyboardInterrupt, SystemExit):
        return 0  # asked to stop, by Ctrl-C or by whoever started it
    finally:
        if sharing is not None:
            sharing.leave()
        database.close()
        _log.info("stopped")
    return 0


def _stopped(*_: object) -> None:
    """What ends a server that was told to stop, once it has answered what was under way."""
    raise SystemExit(0)


def invitation_of(sharing: "Sharing") -> str:
    """An invitation for a phone, with its QR code; or why there is none."""
    from noxel.api.sharing import for_terminal

    try:
        address = sharing.invite(None, viewing=False)
    except NoxelError as exc:
        return f"Sharing is on, but nobody can come yet. {exc.message}"
    return f"Invitation for one phone, for ten minutes:\n\n{for_terminal(address)}\n{address}\n"


def invite(folder: Path, *, viewing: bool) -> str:
    """An invitation to the Noxel that serves this folder now, made from outside it.

    Raises InputError if none does, or it is shared with nobody.
    """
    from noxel.api.sharing import for_terminal
    from noxel.share import Invitations, entrance

    address = entrance(folder / "share")
    if address is None:
        raise InputError(
            f"No Noxel shares {folder}. Start it with --share, or with --behind-proxy and --name."
        )
    token = Invitations(folder=folder / "share").write(viewing=viewing)
    join = f"{address}/join?invitation={token}"
    what = "one device that may only look" if viewing else "one device"
    return f"Invitation for {what}, for ten minutes:\n\n{for_terminal(join)}\n{join}"


_UNIT = """[Unit]
Description=Noxel, the weigh-in logbook
After=network-online.target
Wants=network-online.target

[Service]
ExecStart={python} -m noxel serve {arguments}
Restart=on-failure
NoNewPrivileges=true
PrivateTmp=true
ProtectSystem=strict
ProtectHome=read-only
ReadWritePaths={data}
ProtectKernelTunables=true
ProtectKernelModules=true
ProtectControlGroups=true
RestrictAddressFamilies=AF_INET AF_INET6 AF_UNIX AF_NETLINK
RestrictNamespaces=true
RestrictSUIDSGID=true
LockPersonality=true
UMask=0077

[Install]
WantedBy=default.target
"""


def unit(data: Path, arguments: list[str]) -> str:
    """A unit that starts Noxel with the system, with as few rights as it needs."""
    every = ["--data", str(data), *arguments]
    return _UNIT.format(python=sys.executable, data=data, arguments=shlex.join(every))


def install_unit(data: Path, arguments: list[str]) -> Path:
    """Write the unit where this user's own units lie; the folder of the data is made with it.

    Raises InputError if there is one already.
    """
    home = Path(os.environ.get("XDG_CONFIG_HOME") or Path.home() / ".config")
    path = home / "systemd" / "user" / "noxel.service"
    if path.exists():
        raise InputError(f"{path} is there already. Take it away first to have it written anew.")
    data.mkdir(mode=0o700, parents=True, exist_ok=True)
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text(unit(data, arguments), encoding="utf-8")
    return path
