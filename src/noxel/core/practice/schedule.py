"""When a slip comes back: the Leitner system of boxes, with intervals that double.

References
----------
.. [1] S. Leitner, So lernt man lernen, 1972: a card that was known moves one box up, one that was
   not goes back to the first; each box is
   looked into half as often as the one before it.
"""

import datetime
from dataclasses import dataclass

INTERVALS = (1, 2, 4, 8, 16)
"""After how many days a card in each box is due; one known in the last box is done with."""


@dataclass(frozen=True, slots=True)
class Card:
    """A slip that was made once, or a lesson that was solved: its box, from 1, and the day that it
    is due.
    """

    box: int
    due: datetime.date

    @property
    def learned(self) -> bool:
        """Whether it went through all boxes."""
        return self.box > len(INTERVALS)


def after(card: Card | None, *, known: bool, today: datetime.date) -> Card:
    """The card after it was asked: one box up if it was known, else back into the first."""
    box = (card.box + 1 if card else 2) if known else 1
    days = INTERVALS[min(box, len(INTERVALS)) - 1]
    return Card(box, today + datetime.timedelta(days=days))
