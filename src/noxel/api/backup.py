"""``/api/backup`` and ``/api/logbook``: everything in one file, as it lies or to be read elsewhere,
and back in.
"""

import datetime
import tempfile
from pathlib import Path

from fastapi import Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse
from pydantic import BaseModel
from starlette.background import BackgroundTask

from noxel.api.deps import TheRigs, as_file, new_router
from noxel.api.progress import ProgressName, TheWorks
from noxel.formats.logbook_json import read_logbook, write_logbook

router = new_router()


class RigsImported(BaseModel):
    """What a logbook brought: ids of the rigs that are new, and how many already present."""

    added: list[str]
    already: int


@router.get("/logbook", response_class=Response)
def export_all(rigs: TheRigs) -> Response:
    """Every rig in one file."""
    return as_file(write_logbook(list(rigs.documents())), "noxel-logbook.json", "application/json")


@router.get("/backup", response_class=FileResponse)
def back_up(rigs: TheRigs, works: TheWorks, work: ProgressName = None) -> FileResponse:
    """Everything in one file: the database itself, as ``noxel restore`` takes it back."""
    folder = tempfile.TemporaryDirectory(prefix="noxel-")
    copy = Path(folder.name) / f"noxel-{datetime.date.today().isoformat()}.db"
    with works.under_way(work) as report:
        rigs.back_up(copy, report)
    # read from the disk as it is sent, then gone
    kind, after = "application/vnd.sqlite3", BackgroundTask(folder.cleanup)
    return FileResponse(copy, media_type=kind, filename=copy.name, background=after)


@router.post("/logbook", status_code=201)
async def import_all(
    request: Request, rigs: TheRigs, works: TheWorks, work: ProgressName = None
) -> RigsImported:
    """Bring in a logbook: all of it, or nothing; what is there already stays as it is."""
    data = await request.body()

    def take() -> RigsImported:
        with works.under_way(work) as report:
            report(0, 0, "reading the logbook")
            documents = read_logbook(data)
            added = rigs.add_all(documents, report)
        return RigsImported(added=list(added), already=len(documents) - len(added))

    return await run_in_threadpool(take)
