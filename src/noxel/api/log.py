"""``/api/rigs/{id}/log``: every weigh-in in a line, in charts, compared; what is due."""

import datetime
import re
from typing import Annotated

from fastapi import Query, Response
from pydantic import Field

from noxel.api.deps import MOST, Id, Number, TheLog, TheRigs, as_json, new_router
from noxel.core.editing import settle
from noxel.core.log import (
    Chart,
    Comparison,
    Log,
    Reminder,
    WeighInRef,
    chart_of,
    compare_weigh_ins,
    kept_answers,
    line_of,
    reminders,
)
from noxel.errors import InputError, Problem
from noxel.store.rigs import Rigs

router = new_router()


@router.get("/rigs/{rig_id}/log", response_model=Log)
def read_log(
    rig_id: Id,
    rigs: TheRigs,
    logs: TheLog,
    words: Annotated[str, Query(max_length=200)] = "",
    before: Number = None,
) -> Response:
    """A page of the log, the last first: those with all the words, numbered before ``before``."""
    stored = rigs.open(rig_id)
    rig, page = settle(stored.document).rig, logs.page(rig_id, words=words, before=before)
    entries = [line_of(rig, line, earlier) for line, earlier in page.lines]
    return as_json(
        Log(
            entries=entries,
            more=page.more,
            count=page.count,
            kept=kept_answers(rig, stored.window.numbers),
        )
    )


@router.get("/rigs/{rig_id}/log/chart", response_model=Chart)
def read_chart(rig_id: Id, rigs: TheRigs, logs: TheLog, until: Number = None) -> Response:
    """Every load over up to 300 weigh-ins, the last of them ``until`` or the last there is."""
    run, count = logs.run(rig_id, until=until)
    return as_json(chart_of(settle(rigs.open(rig_id).document).rig, run, count))


@router.get("/rigs/{rig_id}/reminders")
def read_reminders(rig_id: Id, rigs: TheRigs) -> list[Reminder]:
    """Reminders, the first due first."""
    return reminders(settle(rigs.open(rig_id).document).rig, datetime.date.today())


@router.get("/rigs/{rig_id}/log/compare", response_model=Comparison)
def compare(
    rig_id: Id,
    rigs: TheRigs,
    numbers: Annotated[list[Annotated[int, Field(ge=1, le=MOST)]], Query(max_length=8)],
    others: Annotated[
        list[str] | None,
        Query(max_length=8, description="Of other rigs, id:number; without it the last."),
    ] = None,
) -> Response:
    """Two to four weigh-ins side by side, also of other rigs: the same vehicle and trailer with
    another hitch.
    """
    wanted = _of(rigs, rig_id, numbers)
    for text in others or ():
        other, _, number = text.partition(":")
        if number and not re.fullmatch("[0-9]{1,7}", number, re.ASCII):
            message = f"“{text[:80]}” is not a rig's id, or id:number"
            raise InputError(f"others: {message}.", [Problem("others", message)])
        wanted += _of(rigs, other, [int(number) if number else rigs.open(other).window.count])
    return as_json(compare_weigh_ins(wanted))


def _of(rigs: Rigs, rig_id: Id, numbers: list[int]) -> list[WeighInRef]:
    stored = rigs.open_these(rig_id, numbers)
    rig = settle(stored.document).rig
    places = {number: place for place, number in enumerate(stored.window.numbers, 1)}
    return [WeighInRef(rig, places.get(number, 0), number) for number in numbers]
