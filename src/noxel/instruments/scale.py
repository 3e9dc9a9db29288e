"""The interface of a scale that can be read live. A driver for a real indicator implements it."""

import threading
import time
from dataclasses import dataclass
from typing import Literal, Protocol

State = Literal["off", "connecting", "live", "silent", "lost"]


@dataclass(frozen=True, slots=True)
class LiveReading:
    """One channel's latest reading: its mass as the scale printed it, whether it has settled, when
    it came.
    """

    channel: str
    mass: float
    unit: Literal["lb", "kg"]
    stable: bool
    overload: bool
    at: float


@dataclass(frozen=True, slots=True)
class LiveTicket:
    """A weight that the scale took and wrote down: its number, what kind of weigh, the readings,
    the gross.
    """

    number: str
    kind: str
    unit: Literal["lb", "kg"]
    readings: dict[str, float]
    gross: float


@dataclass(frozen=True, slots=True)
class LiveState:
    """How the connection stands, the latest reading of each channel, the last ticket, and what was
    wrong last.
    """

    state: State
    source: str
    readings: tuple[LiveReading, ...]
    ticket: LiveTicket | None
    problem: str | None
    rejected: int


class Scale(Protocol):
    """A scale that is read live. It never blocks its reader: :meth:`state` answers at once."""

    def start(self) -> None:
        """Connect, and keep connecting until stopped."""

    def stop(self) -> None:
        """Disconnect from the scale."""

    def state(self) -> LiveState:
        """The state now."""

    def tell(self, command: dict[str, object]) -> None:
        """Send a command, where the scale takes any."""


class Latest:
    """The latest readings, shared between the thread that listens and those that ask."""

    STALE = 2.0
    """After this long without a word a connected scale counts as silent. [s]"""
    CHANNELS = 64
    """No scale has more; what comes on another one is rejected."""

    def __init__(self, source: str) -> None:
        self._lock = threading.Lock()
        self._source = source
        self._state: State = "off"
        self._readings: dict[str, LiveReading] = {}
        self._ticket: LiveTicket | None = None
        self._problem: str | None = None
        self._rejected = 0
        self._heard = time.monotonic()

    def put(self, reading: LiveReading) -> None:
        """A reading came in."""
        with self._lock:
            if reading.channel not in self._readings and len(self._readings) >= self.CHANNELS:
                self._rejected += 1
                self._problem = (
                    f"The scale sends more than {self.CHANNELS} channels; the rest are left out."
                )
                return
            self._readings[reading.channel] = reading
            self._heard, self._state, self._problem = time.monotonic(), "live", None

    def write(self, ticket: LiveTicket) -> None:
        """The scale wrote a ticket."""
        with self._lock:
            self._ticket = ticket

    def reject(self, why: str) -> None:
        """Something came in that is not a reading."""
        with self._lock:
            self._rejected += 1
            self._problem = why

    def change(self, state: State, problem: str | None = None) -> None:
        """The connection changed; what it read before is no longer live."""
        with self._lock:
            self._state, self._heard = state, time.monotonic()
            self._problem = problem
            if state != "live":
                self._readings.clear()
                self._ticket = None

    def state(self) -> LiveState:
        """The state now."""
        with self._lock:
            state = self._state
            quiet = state == "live" and time.monotonic() - self._heard > self.STALE
            readings = (
                ()
                if quiet
                else tuple(sorted(self._readings.values(), key=lambda reading: reading.channel))
            )
            problem = "The scale is connected but says nothing." if quiet else self._problem
            return LiveState(
                "silent" if quiet else state,
                self._source,
                readings,
                self._ticket,
                problem,
                self._rejected,
            )
