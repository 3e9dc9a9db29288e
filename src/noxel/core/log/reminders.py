"""When to weigh again, and other reminders: after so many months, so much added, before a trip, as
tires age.
"""

import calendar
import datetime
from collections.abc import Iterator
from typing import Literal

from noxel.core.limits import made_on
from noxel.core.mechanics import listed_now
from noxel.core.quantities import print_date, print_mass
from noxel.core.rig import AxleTires, Listed, RigFile, WeighIn
from noxel.core.wording import Answer

BEFORE_A_TRIP = 14
"""A weighing counts for a trip when it was done at most so long before it. [days]"""


Cause = Literal["months", "added", "trip", "tires"]


class Reminder(Answer):
    """One reminder. ``due`` is a day, or None without a fixed day; ``key`` stays the same as it
    moves.
    """

    key: str
    cause: Cause
    due: datetime.date | None
    state: Literal["due", "coming", "done"]
    title: str
    sentence: str


def months_after(day: datetime.date, months: float) -> datetime.date:
    """The same day so many whole months later, or the month's last.

    ``day``: any. ``months``: rounded to whole months.
    """
    count = day.year * 12 + day.month - 1 + round(months)
    year, month = divmod(count, 12)
    return datetime.date(year, month + 1, min(day.day, calendar.monthrange(year, month + 1)[1]))


def _state(due: datetime.date, today: datetime.date) -> Literal["due", "coming"]:
    return "due" if due <= today else "coming"


def changed_since(rig: RigFile, weigh_in: WeighIn) -> float:
    """How much was put in or taken out since a weighing: by the lists as they were then, and what
    was said since. [kg]

    Vehicle and trailer count apart: what moved from one to the other counts in both.
    """
    then: Listed | None = weigh_in.listed
    changed = 0.0
    if then is not None:
        before = {
            "vehicle": then.vehicle.kg if then.vehicle else 0.0,
            "trailer": then.trailer.kg if then.trailer else 0.0,
        }
        changed = sum(abs(kg - before[on]) for on, kg in listed_now(rig).items())
    return changed + sum(abs(added.mass.kg) for added in weigh_in.added_since)


def reminders(rig: RigFile, today: datetime.date) -> list[Reminder]:
    """All reminders of a rig, overdue first, then by day.

    ``rig``: with its reminders; its last weigh-ins. ``today``: what counts as due by.
    """
    due = [*_months(rig, today), *_added(rig, today), *_trips(rig, today), *_tires(rig, today)]
    order = {"due": 0, "coming": 1, "done": 2}
    return sorted(
        due,
        key=lambda reminder: (
            order[reminder.state],
            reminder.due or datetime.date.max,
            reminder.key,
        ),
    )


def _days(rig: RigFile) -> list[datetime.date]:
    return [weigh_in.date for weigh_in in rig.weigh_ins if weigh_in.date]


def _months(rig: RigFile, today: datetime.date) -> Iterator[Reminder]:
    months = rig.reminders.months
    if months is None:
        return
    after = "a month" if round(months) == 1 else f"{round(months)} months"
    days = _days(rig)
    if not days:
        sentence = "Not weighed yet, or on no day that was noted."
        yield Reminder(
            key="months",
            cause="months",
            due=today,
            state="due",
            title="Weigh the rig",
            sentence=sentence,
        )
        return
    due = months_after(max(days), months)
    yield Reminder(
        key="months",
        cause="months",
        due=due,
        state=_state(due, today),
        title="Weigh again",
        sentence=f"Weighed last on {print_date(max(days))}; you weigh again after {after}.",
    )


def _added(rig: RigFile, today: datetime.date) -> Iterator[Reminder]:
    most, unit = rig.reminders.added, rig.units.mass
    if most is None or not rig.weigh_ins:
        return
    last = rig.weigh_ins[-1]
    changed = changed_since(rig, last)
    amount = print_mass(changed, unit) if changed > 0 else "Nothing listed"
    sentence = (
        f"{amount} came aboard or went since the last weigh-in; you weigh again past "
        f"{print_mass(most.kg, unit)}."
    )
    if last.listed is None and not last.added_since:
        sentence += (
            " What was listed at that weigh-in was not kept, so only what you note as added "
            "since can count."
        )
    over = changed > most.kg
    yield Reminder(
        key="added",
        cause="added",
        due=today if over else None,
        state="due" if over else "coming",
        title="Weigh again",
        sentence=sentence,
    )


def _trips(rig: RigFile, today: datetime.date) -> Iterator[Reminder]:
    for trip in rig.reminders.trips:
        if trip.date < today:
            continue
        due = trip.date - datetime.timedelta(BEFORE_A_TRIP)
        name = f"“{trip.name}”" if trip.name else "the trip"
        weighed = [day for day in _days(rig) if due <= day <= trip.date]
        sentence = (
            f"Weighed for it on {print_date(max(weighed))}."
            if weighed
            else f"It starts on {print_date(trip.date)}; weigh loaded for it within the "
            f"{BEFORE_A_TRIP} days before."
        )
        yield Reminder(
            key=f"trip {trip.date} {trip.name}",
            cause="trip",
            due=due,
            state="done" if weighed else _state(due, today),
            title=f"Weigh before {name}",
            sentence=sentence,
        )


def _tires(rig: RigFile, today: datetime.date) -> Iterator[Reminder]:
    years = rig.reminders.tire_years
    sets: tuple[tuple[str, AxleTires | None], ...] = (
        ("front", rig.vehicle.tires.front),
        ("rear", rig.vehicle.tires.rear),
        ("trailer", rig.trailer.tires if rig.trailer else None),
    )
    for name, tires in sets if years is not None else ():
        if tires is None or not tires.date_code:
            continue
        made_in = made_on(tires.date_code)
        due = months_after(made_in, (years or 0) * 12)
        turn = "turn" if due > today else "turned"
        sentence = (
            f"Made in the week of {print_date(made_in)}. Have them looked at, whatever their "
            "tread; the tire maker's word counts."
        )
        yield Reminder(
            key=f"tires {name}",
            cause="tires",
            due=due,
            state=_state(due, today),
            title=f"The {name} tires {turn} {years:g}",
            sentence=sentence,
        )
