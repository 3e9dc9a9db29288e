"""Reminders as a calendar (RFC 5545): one all-day event each, with an alarm, the same identity
whenever it is written again.
"""

import datetime
import hashlib
from collections.abc import Iterable

from icalendar import Alarm, Calendar, Event

from noxel.core.log import Reminder

_ALARM = datetime.timedelta(hours=9)
"""The alarm goes off at nine on the day."""


def write_calendar(
    rig_id: str, name: str, reminders: Iterable[Reminder], now: datetime.datetime
) -> bytes:
    """The calendar of a rig's reminders; those without a day, and those that are done, are left
    out.

    ``rig_id``: what makes the events' identities differ from another rig's. ``name``: the rig's
    name, for people. ``found``: as they stand. ``now``: when it was written, in UTC.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Noxel//Reminders//EN")
    calendar.add("version", "2.0")
    for reminder in reminders:
        if reminder.due is None or reminder.state == "done":
            continue
        event = Event()
        event.add(
            "uid", f"{hashlib.sha256(f'{rig_id} {reminder.key}'.encode()).hexdigest()[:32]}@noxel"
        )
        event.add("dtstamp", now)
        event.add("dtstart", reminder.due)
        event.add("dtend", reminder.due + datetime.timedelta(1))
        event.add("summary", f"{reminder.title}: {name}" if name else reminder.title)
        event.add("description", reminder.sentence)
        event.add("transp", "TRANSPARENT")
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", reminder.title)
        alarm.add("trigger", _ALARM)
        event.add_component(alarm)
        calendar.add_component(event)
    text: bytes = calendar.to_ical()
    return text
