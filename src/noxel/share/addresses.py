"""The names and addresses of this machine on its own networks."""

import ipaddress
import re
import socket
from dataclasses import dataclass
from pathlib import Path

import ifaddr

_NETWORKS = tuple(
    map(
        ipaddress.ip_network,
        (
            "192.168.0.0/16",
            "10.0.0.0/8",
            "172.16.0.0/12",
            "100.64.0.0/10",
            "169.254.0.0/16",
            "127.0.0.0/8",
        ),
    )
)
"""Networks that the world outside cannot reach, the likeliest at home or on a phone's hotspot
first.
"""
_LOOPBACK = _NETWORKS[-1]


@dataclass(frozen=True, slots=True)
class Addresses:
    """Names that a request may be addressed to, and IPv4 addresses, the likeliest to be reached
    first.
    """

    names: tuple[str, ...]
    numbers: tuple[str, ...]

    @property
    def hosts(self) -> frozenset[str]:
        """All of them, as they stand in a ``Host`` header."""
        return frozenset((*self.names, *self.numbers))


def private(number: str) -> bool:
    """Whether an IPv4 address belongs to a network that the world outside cannot reach."""
    return _rank(number) < len(_NETWORKS)


def _rank(number: str) -> int:
    address = ipaddress.ip_address(number)
    return next(
        (index for index, network in enumerate(_NETWORKS) if address in network), len(_NETWORKS)
    )


def this_machine() -> Addresses:
    """This machine's name on its network, and the addresses of its network cards that are not
    public.
    """
    reachable = {
        str(address.ip) for card in ifaddr.get_adapters() for address in card.ips if address.is_IPv4
    }
    numbers = sorted(
        (
            number
            for number in reachable
            if private(number) and ipaddress.ip_address(number) not in _LOOPBACK
        ),
        key=_rank,
    )
    name = re.sub(r"[^a-z0-9-]", "", socket.gethostname().partition(".")[0].lower())
    return Addresses((f"{name}.local",) if name else (), tuple(numbers))


_ENTRANCE = "entrance"


def keep_entrance(folder: Path, address: str | None) -> None:
    """Note where other devices come in, for the command line; None once nobody can."""
    if address is None:
        (folder / _ENTRANCE).unlink(missing_ok=True)
    else:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        (folder / _ENTRANCE).write_text(address, encoding="utf-8")


def entrance(folder: Path) -> str | None:
    """Where other devices come in now."""
    try:
        return (folder / _ENTRANCE).read_text(encoding="utf-8")
    except OSError:
        return None
