"""Invitations: one device each, for ten minutes. They live in memory and end with the program."""

import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass

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

    Parameters
    ----------
    clock : callable
        Seconds that only run forward.
    """

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
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

    def look(self, token: str) -> Invitation | None:
        """The invitation, if it can still be used; one that cannot is counted as wrong."""
        with self._lock:
            self._drop_late()
            invitation = self._open.get(token)
            if invitation is None:
                self.wrong += 1
            return invitation

    def use(self, token: str) -> Invitation | None:
        """Use up an invitation; None if it was used, is late, or was never made."""
        invitation = self.look(token)
        with self._lock:
            return self._open.pop(token, None) if invitation else None

    def forget(self) -> None:
        """End them all."""
        with self._lock:
            self._open.clear()

    def _drop_late(self) -> None:
        now = self._clock()
        self._open = {
            token: invitation for token, invitation in self._open.items() if invitation.until > now
        }
