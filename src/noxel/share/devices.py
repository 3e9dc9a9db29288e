"""The devices that were paired. They are kept beside the database, not in it: a backup that is put
back lets nobody in again.
"""

import datetime
import hashlib
import secrets
import threading
from pathlib import Path

from pydantic import AwareDatetime, BaseModel, TypeAdapter, ValidationError

from noxel.errors import Conflict, NotFound, StorageFault
from noxel.share.files import put_in_place

MOST = 50
"""Devices that may be paired at once."""
NOTED = datetime.timedelta(minutes=10)
"""How exactly the last use of a device is kept."""


class Device(BaseModel):
    """A paired device. Its secret is not kept, only the secret's SHA-256."""

    id: str
    name: str
    viewing: bool
    secret: str
    paired_at: AwareDatetime
    used_at: AwareDatetime


_LIST = TypeAdapter(list[Device])


class Devices:
    """The list of paired devices in one file.

    Raises StorageFault if the file cannot be read or written.
    """

    def __init__(self, path: Path) -> None:
        self._path = path
        self._lock = threading.Lock()
        try:
            self._all = (
                {device.id: device for device in _LIST.validate_json(path.read_bytes())}
                if path.exists()
                else {}
            )
        except (OSError, ValidationError) as exc:
            raise StorageFault(
                "share",
                f"The list of devices in {path} cannot be read: {exc}. Move it aside and invite "
                "the phones again.",
            ) from exc

    def all(self) -> list[Device]:
        """Every device, the last used first."""
        return sorted(self._all.values(), key=lambda device: device.used_at, reverse=True)

    def pair(self, name: str, *, viewing: bool) -> tuple[Device, str]:
        """Take a device in; returns it with its secret, which only the device keeps.

        Raises Conflict if too many are paired already.
        """
        if len(self._all) >= MOST:
            raise Conflict(f"{MOST} devices are paired already. Shut some out first.")
        secret, now = secrets.token_urlsafe(32), datetime.datetime.now(datetime.UTC)
        device = Device(
            id=secrets.token_hex(8),
            name=name,
            viewing=viewing,
            secret=_hash(secret),
            paired_at=now,
            used_at=now,
        )
        with self._lock:
            self._keep({**self._all, device.id: device})
        return device, secret

    def of(self, secret: str) -> Device | None:
        """The device with this secret, if it is paired; its use is noted."""
        hashed = _hash(secret)
        device = next(
            (
                device
                for device in self._all.values()
                if secrets.compare_digest(device.secret, hashed)
            ),
            None,
        )
        if device is None:
            return None
        now = datetime.datetime.now(datetime.UTC)
        if not device.used_at <= now < device.used_at + NOTED:  # the clock may have been set back
            with self._lock:
                if device.id not in self._all:
                    return None
                device = device.model_copy(update={"used_at": now})
                noted = {**self._all, device.id: device}
                try:
                    self._keep(noted)
                except StorageFault:  # a full disk shuts nobody out
                    self._all = noted
        return device

    def shut_out(self, device_id: str) -> None:
        """Let a device in no more.

        Raises NotFound if it is not paired.
        """
        with self._lock:
            if device_id not in self._all:
                raise NotFound("This device is not paired.")
            self._keep({key: device for key, device in self._all.items() if key != device_id})

    def _keep(self, devices: dict[str, Device]) -> None:
        try:
            put_in_place(self._path, _LIST.dump_json(list(devices.values()), indent=1))
        except OSError as exc:
            raise StorageFault(
                "share", f"The list of devices in {self._path} cannot be written: {exc}"
            ) from exc
        self._all = devices


def _hash(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()
