"""``/api/share``: which devices may come in; to be asked and changed on the machine that runs Noxel
only.
"""

import datetime
from typing import Annotated

from fastapi import Depends, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from noxel.api.deps import device_of, new_router, outside
from noxel.api.sharing import Sharing, as_picture
from noxel.errors import Conflict
from noxel.share.invitations import LASTS

router = new_router()


class DeviceOut(BaseModel):
    """A paired device."""

    id: str
    name: str
    viewing: bool
    paired_at: datetime.datetime
    used_at: datetime.datetime
    open_now: bool


class ShareState(BaseModel):
    """Whether other devices can come, under which addresses, and which may; how many wrong
    invitations were tried.
    """

    on: bool
    hosts: list[str]
    port: int
    devices: list[DeviceOut]
    wrong: int
    fingerprint: str | None


class Switch(BaseModel):
    """On or off."""

    on: bool


class Invite(BaseModel):
    """An invitation to be made: to look only, and under which of the machine's names."""

    viewing: bool = False
    host: Annotated[str, Field(max_length=100)] | None = None


class Invitation(BaseModel):
    """An invitation: its address, the same as a QR code, and how long it lasts."""

    address: str
    picture: str
    seconds: int


class Visitor(BaseModel):
    """Who asks: the machine itself, or a paired device, which may be there to look only."""

    here: bool
    name: str | None
    viewing: bool


def sharing_of(request: Request) -> Sharing:
    """How the running application is shared.

    Raises Conflict if it has no folder to keep its authority in.
    """
    sharing: Sharing | None = request.app.state.sharing
    if sharing is None:
        raise Conflict("This Noxel keeps its data in memory and cannot be shared.")
    return sharing


TheSharing = Annotated[Sharing, Depends(sharing_of)]


@router.get("/me")
def who_asks(request: Request) -> Visitor:
    """Who this page is to Noxel."""
    device = device_of(request.scope)
    return Visitor(
        here=not outside(request.scope),
        name=device.name if device else None,
        viewing=device.viewing if device else False,
    )


def _state(sharing: Sharing) -> ShareState:
    devices = [
        DeviceOut(
            id=device.id,
            name=device.name,
            viewing=device.viewing,
            paired_at=device.paired_at,
            used_at=device.used_at,
            open_now=sharing.busy(device.id),
        )
        for device in sharing.devices.all()
    ]
    return ShareState(
        on=sharing.on,
        hosts=[*sharing.addresses.numbers, *sharing.addresses.names] if sharing.on else [],
        port=sharing.port,
        devices=devices,
        wrong=sharing.invitations.wrong,
        fingerprint=sharing.authority.fingerprint if sharing.on else None,
    )


@router.get("/share")
def read_sharing(sharing: TheSharing) -> ShareState:
    """How it is shared now."""
    return _state(sharing)


@router.put("/share")
async def switch_sharing(wanted: Switch, request: Request, sharing: TheSharing) -> ShareState:
    """Open the door for other devices, or close it."""
    if wanted.on:
        await run_in_threadpool(sharing.open)
        sharing.start(request.app)
    else:
        sharing.stop()
    return _state(sharing)


@router.post("/share/invitations", status_code=201)
def invite_device(wanted: Invite, sharing: TheSharing) -> Invitation:
    """Invite one device, for ten minutes."""
    address = sharing.invite(wanted.host, viewing=wanted.viewing)
    return Invitation(address=address, picture=as_picture(address), seconds=int(LASTS))


@router.delete("/share/devices/{device}")
def shut_out(device: str, sharing: TheSharing) -> ShareState:
    """Let a device in no more."""
    sharing.shut_out(device)
    return _state(sharing)
