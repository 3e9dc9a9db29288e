"""Letting other devices in: this machine's own authority, its addresses, invitations and the
devices that were paired.

Nothing here serves a page: ``api/door.py`` asks who may come in, ``api/sharing.py`` opens and
closes the door.
"""

from noxel.share.addresses import Addresses, entrance, keep_entrance, private, this_machine
from noxel.share.authority import Authority
from noxel.share.devices import Device, Devices
from noxel.share.invitations import Invitations

__all__ = [
    "Addresses",
    "Authority",
    "Device",
    "Devices",
    "Invitations",
    "entrance",
    "keep_entrance",
    "private",
    "this_machine",
]
