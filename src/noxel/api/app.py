"""The application: routes, errors, the built page."""

import mimetypes
from collections.abc import AsyncIterator, Sequence
from contextlib import asynccontextmanager, suppress
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware

from noxel.api import problems
from noxel.api.adjust import router as adjust_router
from noxel.api.backup import router as backup_router
from noxel.api.door import Door
from noxel.api.events import Hub
from noxel.api.events import router as events_router
from noxel.api.garage import router as garage_router
from noxel.api.guard import Guard
from noxel.api.guides import router as guides_router
from noxel.api.items import router as items_router
from noxel.api.live import Live
from noxel.api.live import router as live_router
from noxel.api.log import router as log_router
from noxel.api.match import router as match_router
from noxel.api.papers import router as papers_router
from noxel.api.photos import router as photos_router
from noxel.api.practice import router as practice_router
from noxel.api.progress import Works
from noxel.api.progress import router as progress_router
from noxel.api.reading import router as reading_router
from noxel.api.rigs import Health
from noxel.api.rigs import router as rigs_router
from noxel.api.share import router as share_router
from noxel.api.sharing import Sharing
from noxel.api.tickets import router as tickets_router
from noxel.api.visits import router as visits_router
from noxel.api.words import router as words_router
from noxel.reader import Reader
from noxel.store.database import Database
from noxel.store.garage import Garage
from noxel.store.guides import Guides
from noxel.store.log import Logs
from noxel.store.photos import Photos
from noxel.store.practice import Practice
from noxel.store.rigs import Rigs
from noxel.store.visits import Visits
from noxel.version import VERSION

_ROUTERS = (
    rigs_router,
    items_router,
    adjust_router,
    log_router,
    papers_router,
    backup_router,
    tickets_router,
    match_router,
    garage_router,
    words_router,
    events_router,
    live_router,
    progress_router,
    share_router,
    visits_router,
    photos_router,
    reading_router,
    practice_router,
    guides_router,
)
HOSTS = ("127.0.0.1", "localhost", "[::1]")
"""The names under which the page of this machine is reached."""
mimetypes.add_type("application/manifest+json", ".webmanifest")
PAGE = Path(__file__).parent.parent / "page"
"""Where the built page lies inside the package."""


def create_app(
    database: Database,
    *,
    name: str = "Noxel",
    hosts: Sequence[str] = HOSTS,
    sharing: Sharing | None = None,
) -> FastAPI:
    """The application on one database.

    ``database``: open and migrated. ``name``: what the page's address bar says. ``hosts``: names
    that a request may be addressed to; every other one is refused. ``sharing``: the door for other
    devices, where there is one; it is started if it was opened already.
    """
    live, hub, reader = Live(), Hub(database), Reader()

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        if sharing is not None:
            sharing.start(app)
        yield
        hub.close()
        if sharing is not None:
            sharing.stop()
        live.disconnect()
        reader.close()

    app = FastAPI(
        lifespan=lifespan,
        title=name,
        version=VERSION,
        separate_input_output_schemas=False,
        openapi_url="/api/openapi.json",
        docs_url=None,
        redoc_url=None,
    )
    app.state.rigs = Rigs(database)
    app.state.garage = Garage(database)
    app.state.logs = Logs(database)
    app.state.visits, app.state.photos, app.state.practice = (
        Visits(database),
        Photos(database),
        Practice(database),
    )
    app.state.live, app.state.hub, app.state.reader = live, hub, reader
    app.state.guides = Guides(database)
    app.state.works, app.state.sharing = Works(), sharing
    problems.install(app)
    app.add_middleware(GZipMiddleware, minimum_size=2000, compresslevel=3)
    if sharing is not None:
        sharing.changed = hub.announce
        app.add_middleware(Door, sharing=sharing)
    app.add_middleware(Guard, hosts=frozenset(hosts))

    @app.get("/api/health")
    def health() -> Health:
        """That it runs."""
        return Health(status="ok", version=VERSION)

    for (
        router
    ) in _ROUTERS:  # their routes themselves: an included router is searched twice at every request
        app.router.routes.extend(router.routes)
    if (PAGE / "assets").is_dir():
        app.mount("/assets", _Forever(directory=PAGE / "assets"))
    app.add_api_route(
        "/{path:path}", _page, methods=["GET"], include_in_schema=False, response_model=None
    )
    return app


class _Forever(StaticFiles):
    """Files whose names change with their content: a browser may keep them."""

    def file_response(self, *args: object, **kwargs: object) -> Response:
        """One file."""
        response = super().file_response(*args, **kwargs)  # type: ignore[arg-type]
        response.headers["cache-control"] = "public, max-age=31536000, immutable"
        return response


def _page(path: str) -> FileResponse | JSONResponse:
    """The page for every address that is not the interface's; its own router takes it from
    there.
    """
    if path.startswith(("api/", "assets/")):
        raise HTTPException(404, "There is nothing at this address.")
    wanted = PAGE / path
    with suppress(OSError, ValueError):  # a name that no file can have
        if path and wanted.resolve().is_relative_to(PAGE) and wanted.is_file():
            return FileResponse(wanted, headers={"cache-control": "no-cache"})
    if (PAGE / "index.html").is_file():
        return FileResponse(PAGE / "index.html", headers={"cache-control": "no-cache"})
    return problems.problem(404, "page.missing", "The page has not been built: run “make page”.")
