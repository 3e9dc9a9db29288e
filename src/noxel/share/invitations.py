"""Invitations: one device each, for ten minutes. Those of the page live in memory and end with the
program; one that the command line wrote lies in a folder until it is used or late.
"""

import hashlib
import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

LASTS = 600.0
"""How long an invitation can be used. [s]"""
OPEN = 8
"""Invitations that are open at once; the oldest ends when there would be more."""


@dataclass(frozen=True, slots=True)
class Invitation:
    """What an invitation allows, and until when it does, by a clock that nobody sets."""

    viewing: bool
    until: float


class Invitations:
    """The open invitations.

    ``clock``: seconds that only run forward. ``folder``: where the command line writes its own.
    """

    def __init__(
        self, clock: Callable[[], float] = time.monotonic, folder: Path | None = None
    ) -> None:
        self._clock = clock
        self._folder = folder / "invited" if folder else None
        self._lock = threading.Lock()
        self._open: dict[str, Invitation] = {}
        self.wrong = 0
        """How many that do not exist were tried."""

    def invite(self, *, viewing: bool) -> str:
        """A new invitation of 128 random bits."""
        token = secrets.token_urlsafe(16)
        with self._lock:
            self._drop_late()
            for oldest in list(self._open)[: max(0, len(self._open) - OPEN + 1)]:
                del self._open[oldest]
            self._open[token] = Invitation(viewing, self._clock() + LASTS)
        return token

    def write(self, *, viewing: bool) -> str:
        """A new invitation in the folder: only what a token hashes to is kept."""
        token = secrets.token_urlsafe(16)
        path = self._path_of(token)
        if path is not None:
            path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
            path.write_text("viewing" if viewing else "", encoding="ascii")
        return token

    def _path_of(self, token: str) -> Path | None:
        name = hashlib.sha256(token.encode()).hexdigest()
        return self._folder / name if self._folder else None

    def _written(self, token: str) -> Invitation | None:
        """The invitation in the folder, if it is not late; one that is late is taken away."""
        path = self._path_of(token)
        if path is None:
            return None
        try:
            left = LASTS - (time.time() - path.stat().st_mtime)
            viewing = path.read_text(encoding="ascii") == "viewing"
        except OSError:
            return None
        if left <= 0:
            path.unlink(missing_ok=True)
            return None
        return Invitation(viewing, self._clock() + left)

    def look(self, token: str) -> Invitation | None:
        """The invitation, if it can still be used; one that cannot is counted as wrong."""
        with self._lock:
            self._drop_late()
            invitation = self._open.get(token) or self._written(token)
            if invitation is None:
                self.wrong += 1
            return invitation

    def use(self, token: str) -> Invitation | None:
        """Use up an invitation; None if it was used, is late, or was never made."""
        invitation = self.look(token)
        with self._lock:
            if invitation is None:
                return None
            if self._open.pop(token, None) is not None:
                return invitation
            try:
                path = self._path_of(token)
                if path is not None:
                    path.unlink()  # whoever takes it away has used it
            except OSError:
                return None
            return invitation if path is not None else None

    def forget(self) -> None:
        """End them all."""
        with self._lock:
            self._open.clear()
            for path in self._folder.glob("*") if self._folder else ():
                path.unlink(missing_ok=True)

    def _drop_late(self) -> None:
        now = self._clock()
        self._open = {
            token: invitation for token, invitation in self._open.items() if invitation.until > now
        }
