"""A stand-in for a scale: a truck stop's platforms, or an indicator with wheel pads and a tongue
scale, over TCP.

It speaks newline-delimited JSON. It takes ``{"do": "drive_on", "config", "spring_bars", "pads"}``,
``{"do": "drive_off"}``, ``{"do": "weigh"}`` and ``{"do": "fault", "fault"}``; it sends readings
``{"channel", "mass", "unit", "stable"}`` several times a second, and for a weigh a ticket
``{"ticket": {…}}``, which is not a reading.
"""

import contextlib
import json
import math
import random
import socket
import socketserver
import threading
import time
from collections.abc import Callable
from typing import Any, Literal, get_args

from noxel.core.mechanics import load
from noxel.core.practice import graduate
from noxel.core.quantities import MassUnit
from noxel.sim.truth import TrueRig

Fault = Literal["none", "straddle", "early", "unstable", "overload", "drop", "rubbish", "hang"]
FAULTS: tuple[Fault, ...] = get_args(Fault)
SETTLE = 1.2
"""How long the platforms sway after driving on. [s]"""
NOISE = 0.0003
"""How much a settled reading still trembles, as a share of it."""
REWEIGH = 24 * 3600.0
"""How long a first weigh makes the next one a cheaper re-weigh. [s]"""


class Station:
    """The scale itself: what stands on it, whether it has settled, what is wrong with it today."""

    def __init__(
        self,
        rig: TrueRig,
        unit: MassUnit = "lb",
        graduation: float = 20.0,
        number: str = "114",
        *,
        seed: int = 1,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self.rig, self.unit, self.graduation, self.number = rig, unit, graduation, number
        self.fault: Fault = "none"
        self._clock = clock
        self._chance = random.Random(seed)
        self._lock = threading.Lock()
        self._loads: dict[str, float] = {}
        self._since = 0.0
        self._first: float | None = None
        self._tickets = 0

    def drive_on(self, config: str, bars: str = "none", *, pads: bool = False) -> None:
        """Stand on the scale in one configuration; with pads, each wheel reads by itself."""
        loads = dict(self.rig.axles(config, bars))
        # half of the rear axle stands on the next platform
        if self.fault == "straddle" and "rear" in loads:
            loads["front"] = loads["front"] + 0.5 * loads["rear"]
            loads["rear"] *= 0.5
        if pads:
            loads = self._by_wheel(loads)
            if config == "hitched":
                loads["tongue"] = load(self.rig.state, "tongue_static") or 0.0
        with self._lock:
            self._loads, self._since = loads, self._clock()

    def drive_off(self) -> None:
        """Leave the scale."""
        with self._lock:
            self._loads, self._since = {}, self._clock()

    def _by_wheel(self, axles: dict[str, float]) -> dict[str, float]:
        wheels: dict[str, float] = {}
        for name, kg in axles.items():
            count = self.rig.trailer_axles if name == "trailer" else 1
            for index in range(count):
                lean = 0.5 + self._chance.uniform(-0.03, 0.03)
                stem = f"trailer_{index + 1}" if name == "trailer" else name
                wheels[f"{stem}_left"] = kg / count * lean
                wheels[f"{stem}_right"] = kg / count * (1 - lean)
        return wheels

    def readings(self) -> list[dict[str, Any]]:
        """What the indicator shows now."""
        with self._lock:
            age = self._clock() - self._since
            settled = age > SETTLE and self.fault != "unstable"
            sway = (
                NOISE
                if settled
                else 0.04 * math.exp(-age) + (0.03 if self.fault == "unstable" else 0.01)
            )
            readings = []
            for channel, load in self._loads.items():
                if self.fault == "early" and channel.startswith("trailer") and age > SETTLE / 2:
                    load = 0.0  # rolled off before the weight was taken
                moving = load * (1 + self._chance.uniform(-sway, sway))
                readings.append(
                    {
                        "channel": channel,
                        "mass": graduate(moving, self.unit, self.graduation),
                        "unit": self.unit,
                        "stable": settled,
                        **({"overload": True} if self.fault == "overload" else {}),
                    }
                )
            return readings

    def weigh(self) -> dict[str, Any]:
        """Take the weight: a ticket, first weigh or re-weigh."""
        readings = {
            reading["channel"]: reading["mass"]
            for reading in self.readings()
            if reading["channel"] != "tongue"
        }
        now = self._clock()
        again = self._first is not None and now - self._first < REWEIGH
        self._first = self._first if again else now
        self._tickets += 1
        return {
            "station": self.number,
            "number": f"{self.number}-{self._tickets:04d}",
            "kind": "re-weigh" if again else "first weigh",
            "readings": readings,
            "gross": sum(readings.values()),
            "unit": self.unit,
        }

    def obey(self, command: dict[str, Any]) -> dict[str, Any] | None:
        """Do what a line asks; a ticket is the answer to ``weigh``. What is not understood is
        passed over.
        """
        match command.get("do"):
            case "drive_on":
                config, bars = (
                    str(command.get("config", "hitched")),
                    str(command.get("spring_bars", "none")),
                )
                self.drive_on(config, bars, pads=command.get("pads") is True)
            case "drive_off":
                self.drive_off()
            case "fault" if command.get("fault") in FAULTS:
                self.fault = command["fault"]
            case "weigh":
                return {"ticket": self.weigh()}
        return None


class _Talk(socketserver.BaseRequestHandler):
    server: "StationServer"

    def handle(self) -> None:
        """Send readings and obey commands until the line drops."""
        connection: socket.socket = self.request
        connection.settimeout(0.1)
        station, held = self.server.station, b""
        with contextlib.suppress(OSError):
            while not self.server.closing.is_set():
                if station.fault == "drop":
                    station.fault = "none"
                    return
                if station.fault == "rubbish":
                    connection.sendall(
                        b"\xff\xfe{]not a reading\n"
                        + b"x" * 6000
                        + b'\n{"channel": 3, "mass": "many"}\n'
                    )
                elif station.fault != "hang":
                    for reading in station.readings():
                        connection.sendall(json.dumps(reading).encode() + b"\n")
                try:
                    heard = connection.recv(4096)
                except TimeoutError:
                    continue
                if not heard:
                    return
                *lines, held = (held + heard).split(b"\n")
                for line in filter(None, lines):
                    with contextlib.suppress(ValueError):
                        command = json.loads(line)
                        answer = station.obey(command) if isinstance(command, dict) else None
                        if answer:
                            connection.sendall(json.dumps(answer).encode() + b"\n")


class StationServer(socketserver.ThreadingTCPServer):
    """The stand-in behind a port of this machine."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, station: Station, port: int = 0) -> None:
        self.station = station
        self.closing = threading.Event()
        super().__init__(("127.0.0.1", port), _Talk)
        self._thread = threading.Thread(
            target=self.serve_forever, kwargs={"poll_interval": 0.05}, name="station", daemon=True
        )
        self._thread.start()

    @property
    def port(self) -> int:
        """Where it listens."""
        return int(self.server_address[1])

    def close(self) -> None:
        """Close the scale for the day."""
        self.closing.set()
        self.shutdown()
        self.server_close()
