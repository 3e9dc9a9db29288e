"""``/api/live``: a scale that sends its readings, or the stand-in that ships with Noxel."""

import re
import threading
from collections.abc import Callable
from typing import Annotated, Any, Literal

from fastapi import Depends, Request
from pydantic import BaseModel, Field

from noxel.api.deps import TheRigs, new_router, open_at
from noxel.core.quantities import KG, MassUnit
from noxel.core.rig import parse_rig
from noxel.core.weigh import GRADUATIONS
from noxel.errors import Conflict, InputError, Problem
from noxel.instruments.lines import LineScale
from noxel.instruments.scale import LiveState, LiveTicket, Scale, State
from noxel.sim.station import Fault, Station, StationServer
from noxel.sim.truth import true_rig

router = new_router("/api/live")
_HERE = ("127.0.0.1", "localhost", "::1")


class ReadingOut(BaseModel):
    """One channel as it reads now."""

    channel: str
    mass: float
    unit: MassUnit
    stable: bool
    overload: bool


class LiveOut(BaseModel):
    """How the scale stands: connected or not, stand-in or not, what it reads, its last ticket, what
    is wrong.
    """

    state: State
    source: str
    stand_in: bool
    fault: Fault
    readings: list[ReadingOut]
    ticket: LiveTicket | None
    problem: str | None


class Connect(BaseModel):
    """Which scale: the stand-in playing a rig (in the steps of one of its weigh-ins), or the
    address of one on this machine.
    """

    stand_in: str | None = None
    unit: MassUnit = "lb"
    weigh_in: Annotated[int, Field(ge=1)] | None = None
    address: Annotated[str, Field(max_length=100)] | None = None


class Command(BaseModel):
    """Something to do on the stand-in: drive on or off, take the weight, play a fault."""

    do: Literal["drive_on", "drive_off", "weigh", "fault"]
    config: Literal["hitched", "vehicle_only", "vehicle_empty", "trailer_only"] = "hitched"
    spring_bars: Literal["engaged", "slack", "none"] = "none"
    pads: bool = False
    fault: Fault = "none"


class Live:
    """The one scale that is connected, and the stand-in if it is that."""

    def __init__(self) -> None:
        self._connecting = threading.Lock()
        self._lock = threading.Lock()
        self._scale: Scale | None = None
        self._server: StationServer | None = None

    def connect(self, host: str, port: int) -> None:
        """Listen to a scale; another one is disconnected first.

        Raises Conflict if another connection is just being made.
        """
        self._connect(lambda: (LineScale(host, port), None))

    def stand_in(self, station: Station) -> None:
        """Listen to the stand-in; another scale is disconnected first.

        Raises Conflict if another connection is just being made.
        """

        def make() -> tuple[Scale, StationServer]:
            server = StationServer(station)
            return LineScale("127.0.0.1", server.port), server

        self._connect(make)

    def _connect(self, make: Callable[[], tuple[Scale, StationServer | None]]) -> None:
        if not self._connecting.acquire(blocking=False):
            raise Conflict("A scale is just being connected. Try again in a moment.")
        try:
            self.disconnect()
            with self._lock:
                self._scale, self._server = make()
                self._scale.start()
        finally:
            self._connecting.release()

    def disconnect(self) -> None:
        """Disconnect from the scale, and close the stand-in."""
        with self._lock:
            scale, server = self._scale, self._server
            self._scale = self._server = None
        if scale is not None:
            scale.stop()
        if server is not None:
            server.close()

    def state(self) -> LiveOut:
        """The state now; never waits for the scale."""
        scale, server = self._scale, self._server
        now = scale.state() if scale else LiveState("off", "", (), None, None, 0)
        readings = [
            ReadingOut.model_validate(reading, from_attributes=True) for reading in now.readings
        ]
        return LiveOut(
            state=now.state,
            source=now.source,
            stand_in=server is not None,
            ticket=now.ticket,
            fault=server.station.fault if server else "none",
            readings=readings,
            problem=now.problem,
        )

    def tell(self, command: dict[str, object]) -> None:
        """Tell the scale something.

        Raises Conflict if none is connected.
        """
        if self._scale is None:
            raise Conflict("No scale is connected.")
        self._scale.tell(command)


def live_of(request: Request) -> Live:
    """The scale of the running application."""
    live: Live = request.app.state.live
    return live


TheScale = Annotated[Live, Depends(live_of)]


@router.get("")
def read_scale(live: TheScale) -> LiveOut:
    """How the scale stands now."""
    return live.state()


@router.post("")
def connect_scale(wanted: Connect, live: TheScale, rigs: TheRigs) -> LiveOut:
    """Connect the stand-in, or a scale that speaks line by line on this machine."""
    if wanted.stand_in is not None:
        stored = open_at(rigs, wanted.stand_in, wanted.weigh_in)
        rig, looked_at = parse_rig(stored.document), stored.window.at
        scale = rig.weigh_ins[looked_at - 1].scale if looked_at else None
        step = (
            scale.resolution.kg / KG[wanted.unit]
            if scale
            else GRADUATIONS["truck_scale"][wanted.unit]
        )
        live.stand_in(Station(true_rig(rig), wanted.unit, step))
        return live.state()
    host, _, port = (wanted.address or "").strip().rpartition(":")
    if (
        host.strip("[]") not in _HERE
        or not re.fullmatch("[0-9]{1,5}", port)
        or not 0 < int(port) < 65536
    ):
        message = "must be an address on this machine, such as 127.0.0.1:4001"
        raise InputError(
            f"The scale's address {message}.", [Problem("address", message, "address")]
        )
    live.connect(host.strip("[]"), int(port))
    return live.state()


@router.post("/command")
def command_scale(command: Command, live: TheScale) -> LiveOut:
    """Tell the stand-in what happens on its platforms."""
    sent: dict[str, Any] = command.model_dump()
    live.tell(sent)
    return live.state()


@router.delete("")
def disconnect_scale(live: TheScale) -> LiveOut:
    """Disconnect from the scale."""
    live.disconnect()
    return live.state()
