"""A scale that speaks newline-delimited JSON over TCP: ``{"channel", "mass", "unit", "stable"}``,
one line a reading.
"""

import json
import socket
import threading
import time
from typing import Any

from noxel.errors import InputError, ScaleError
from noxel.instruments.scale import Latest, LiveReading, LiveState, LiveTicket
from noxel.strict_json import read_strict

LONGEST_LINE = 4096
"""A line longer than this is rubbish. [bytes]"""
HEAVIEST = 200_000.0


def _is_mass(value: object) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool) and abs(value) <= HEAVIEST


def _read_ticket(message: dict[str, Any]) -> LiveTicket:
    readings, gross, unit = message.get("readings"), message.get("gross"), message.get("unit")
    sound = (
        isinstance(readings, dict)
        and all(_is_mass(mass) for mass in readings.values())
        and _is_mass(gross)
    )
    if (
        not sound
        or not isinstance(readings, dict)
        or not isinstance(gross, int | float)
        or unit not in ("lb", "kg")
    ):
        raise InputError("The scale wrote a ticket that cannot be read.")
    named = {str(channel)[:40]: float(mass) for channel, mass in readings.items()}
    return LiveTicket(
        str(message.get("number", ""))[:40],
        str(message.get("kind", ""))[:40],
        unit,
        named,
        float(gross),
    )


def read_line(line: bytes) -> LiveReading | LiveTicket:
    """Understand one line of an indicator: a reading, or the ticket of a weight taken.

    Raises InputError if it is not a reading; says why.
    """
    try:
        message = read_strict(line)
    except InputError as exc:
        raise InputError(f"The scale sent something that is not a reading: {line[:40]!r}") from exc
    if not isinstance(message, dict):
        raise InputError("The scale sent something that is not a reading.")
    if isinstance(message.get("ticket"), dict):
        return _read_ticket(message["ticket"])
    channel, mass, unit, stable = (
        message.get(key) for key in ("channel", "mass", "unit", "stable")
    )
    if not isinstance(channel, str) or not 0 < len(channel) <= 40 or unit not in ("lb", "kg"):
        raise InputError("The scale sent a reading without a channel or a unit.")
    if not _is_mass(mass) or not isinstance(mass, int | float):
        raise InputError(f"The scale sent a mass that cannot be: {mass!r}")
    return LiveReading(
        channel,
        float(mass),
        unit,
        stable is True,
        message.get("overload") is True,
        time.monotonic(),
    )


class LineScale:
    """Listens in a thread of its own; reconnects by itself; whatever it hears, asking it never
    waits.
    """

    def __init__(self, host: str, port: int, *, patience: float = 1.0) -> None:
        self._address = (host, port)
        self._patience = patience
        self._latest = Latest(f"{host}:{port}")
        self._stopping = threading.Event()
        self._socket: socket.socket | None = None
        self._sending = threading.Lock()
        self._thread = threading.Thread(target=self._run, name="scale", daemon=True)

    def start(self) -> None:
        """Connect, and keep connecting until stopped."""
        self._latest.change("connecting")
        self._thread.start()

    def stop(self) -> None:
        """Disconnect from the scale."""
        self._stopping.set()
        connection = self._socket
        if connection is not None:
            connection.close()
        if self._thread.is_alive():
            self._thread.join(3)
        self._latest.change("off")

    def state(self) -> LiveState:
        """The state now."""
        return self._latest.state()

    def tell(self, command: dict[str, object]) -> None:
        """Send one line.

        Raises ScaleError if the scale is not connected.
        """
        connection = self._socket
        if connection is None:
            raise ScaleError("The scale is not connected.")
        try:
            with self._sending:
                connection.sendall(json.dumps(command).encode() + b"\n")
        except OSError as exc:
            raise ScaleError("The scale does not answer.") from exc

    def _run(self) -> None:
        while not self._stopping.is_set():
            try:
                with socket.create_connection(self._address, timeout=self._patience) as connection:
                    connection.settimeout(self._patience)
                    self._socket = connection
                    self._latest.change("live")
                    self._listen(connection)
                problem = "The line to the scale dropped. Connecting again."
            except OSError as exc:
                problem = f"The scale cannot be reached ({exc.strerror or exc}). Connecting again."
            except Exception as exc:  # noqa: BLE001 whatever a scale sends, the thread that listens to it lives on
                problem = (
                    f"The scale sent what Noxel cannot read ({type(exc).__name__}). "
                    "Connecting again."
                )
            self._socket = None
            if not self._stopping.is_set():
                self._latest.change("lost", problem)
                self._stopping.wait(self._patience / 2)

    def _listen(self, connection: socket.socket) -> None:
        held = b""
        while not self._stopping.is_set():
            try:
                heard = connection.recv(4096)
            except TimeoutError:
                continue  # silence shows in the time since the last reading
            if not heard:
                return
            *lines, held = (held + heard).split(b"\n")
            for line in filter(None, lines):
                try:
                    parsed = read_line(line)
                    if isinstance(parsed, LiveTicket):
                        self._latest.write(parsed)
                    else:
                        self._latest.put(parsed)
                except InputError as exc:
                    self._latest.reject(exc.message)
            if len(held) > LONGEST_LINE:
                self._latest.reject("The scale sends without end and without a reading.")
                held = b""
