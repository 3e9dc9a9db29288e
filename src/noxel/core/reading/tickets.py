"""The number and the day on a weigh ticket."""

import datetime
import re

from noxel.core.rig import TermSet

_NUMBER = re.compile(
    r"\b(?:ticket|weigh\s*(?:bill|note)|docket|beleg|wiegeschein)\W{0,3}(?:no\.?|nr\.?|number|#)?\W{0,3}"
    r"((?=[A-Z0-9-]*\d[A-Z0-9-]*\d)[A-Z0-9][A-Z0-9-]{1,20})\b",
    re.IGNORECASE,
)
_DATE = re.compile(
    r"\b(?P<y>\d{4})-(?P<m>\d\d)-(?P<d>\d\d)\b|"
    r"\b(?P<one>\d{1,2})(?P<mark>[/.])(?P<two>\d{1,2})(?P=mark)(?P<year>\d{4})\b"
)


def ticket_number(text: str) -> re.Match[str] | None:
    """The number after the word ticket, with two digits at least."""
    return _NUMBER.search(text)


def day_in(text: str, terms: TermSet) -> tuple[str, int, int] | None:
    """A day that can only be read in one way, as ``YYYY-MM-DD``, and where it stands. Where the day
    comes first by custom, or points stand between, it does.
    """
    for match in _DATE.finditer(text):
        if match["y"]:
            parts = int(match["y"]), int(match["m"]), int(match["d"])
        else:
            one, two = int(match["one"]), int(match["two"])
            day_first = terms != "north_america" or match["mark"] == "."
            if one <= 12 and two <= 12 and one != two and not day_first:
                continue  # day or month first: nobody can tell
            day, month = (one, two) if one > 12 or (day_first and two <= 12) else (two, one)
            parts = int(match["year"]), month, day
        try:
            return datetime.date(*parts).isoformat(), match.start(), match.end()
        except ValueError:
            continue
    return None
