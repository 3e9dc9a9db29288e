"""What the routers share: the stores of the running application, how a rig is opened, how answers
and files are sent.
"""

import re
from typing import Annotated, Any, Literal
from urllib.parse import quote

from fastapi import APIRouter, Depends, Header, Path, Query, Request, Response
from fastapi.routing import APIRoute
from pydantic import BaseModel
from starlette.types import Scope

from noxel.api.problems import ProblemDetails
from noxel.core.rig import RigFile
from noxel.errors import InputError, NotFound, Problem
from noxel.share import Device
from noxel.store.changes import Sent
from noxel.store.garage import Garage
from noxel.store.log import Logs
from noxel.store.rigs import Rigs
from noxel.store.stored import Stored
from noxel.strict_json import read_strict

MOST = 1_000_000
"""No log holds more weigh-ins."""


class _StrictRequest(Request):
    """A request whose JSON is read as strictly as a rig file."""

    async def json(self) -> Any:
        """The body, read once."""
        if not hasattr(self, "_strict"):
            data = await self.body()
            try:
                self._strict = read_strict(data)
            except InputError as exc:
                raise InputError(
                    f"The request cannot be read: {exc.message}",
                    [Problem("body", exc.message, "json")],
                ) from exc
        return self._strict


class _StrictRoute(APIRoute):
    """A route that reads its JSON strictly."""

    def get_route_handler(self) -> Any:
        """The handler, given a strict request."""
        handle = super().get_route_handler()

        reads_json = self.body_field is not None

        async def strict(request: Request) -> Response:
            wrapped = _StrictRequest(request.scope, request.receive)
            if reads_json:
                # here, so that what is wrong with it reaches the answer in its own words
                await wrapped.json()
            response: Response = await handle(wrapped)
            return response

        return strict


def new_router(prefix: str = "/api") -> APIRouter:
    """A router whose errors are problem+json, and whose JSON is read strictly."""
    return APIRouter(
        prefix=prefix, responses={422: {"model": ProblemDetails}}, route_class=_StrictRoute
    )


def rigs_of(request: Request) -> Rigs:
    """The rigs of the running application."""
    rigs: Rigs = request.app.state.rigs
    return rigs


def garage_of(request: Request) -> Garage:
    """The garage of the running application."""
    garage: Garage = request.app.state.garage
    return garage


def logs_of(request: Request) -> Logs:
    """The logs of the running application."""
    logs: Logs = request.app.state.logs
    return logs


TheRigs = Annotated[Rigs, Depends(rigs_of)]
TheGarage = Annotated[Garage, Depends(garage_of)]
TheLog = Annotated[Logs, Depends(logs_of)]
Id = Annotated[str, Path(max_length=64)]
Number = Annotated[int | None, Query(ge=1, le=MOST)]
Looking = Annotated[
    int | None,
    Query(ge=1, le=MOST, description="Which weigh-in to look at, from 1; the last if absent."),
]


EquipmentKind = Literal["vehicle", "hitch", "trailer"]


PageId = Annotated[
    str | None,
    Header(
        alias="x-noxel-page", max_length=64, description="The page that asks, by an id of its own."
    ),
]
Key = Annotated[
    str | None,
    Header(
        alias="x-noxel-key",
        max_length=64,
        pattern=r"^[\w-]+$",
        description="The change's own key: it is taken once, however often it is sent.",
    ),
]


def sent_by(key: Key = None, page: PageId = None) -> Sent:
    """How a change reached us, as its headers say."""
    return Sent(key=key, by=page)


HowSent = Annotated[Sent, Depends(sent_by)]


class CreatedId(BaseModel):
    """The id of what was added."""

    id: str


def open_at(rigs: Rigs, rig_id: str, weigh_in: int | None, *, entire: bool = False) -> Stored:
    """A rig looked at by a weigh-in that must be there, where one is asked for.

    Raises NotFound if there is no such rig or no such weigh-in.
    """
    stored = rigs.open(rig_id, weigh_in, entire=entire)
    if weigh_in and weigh_in not in stored.window.numbers:
        raise NotFound(
            f"There is no weigh-in {weigh_in}; the rig has {stored.window.count or 'none'}."
        )
    return stored


def as_json(answer: BaseModel) -> Response:
    """An answer as JSON, written by its own model: the sheet is read at every keystroke."""
    return Response(answer.model_dump_json(), media_type="application/json")


def file_stem(rig: RigFile) -> str:
    """What a rig's files are called, without an ending."""
    return re.sub(r"[^\w]+", "-", rig.name.lower()).strip("-")[:100] or "rig"


def as_file(content: bytes | str, name: str, kind: str, *, shown: bool = False) -> Response:
    """A file to keep, or to look at in the browser."""
    ascii_name = name.encode("ascii", "ignore").decode() or "noxel"
    disposition = (
        f'{"inline" if shown else "attachment"}; filename="{ascii_name}"; '
        f"filename*=UTF-8''{quote(name)}"
    )
    return Response(content, media_type=kind, headers={"content-disposition": disposition})


def outside(scope: Scope) -> bool:
    """Whether a request came from another device, not from this machine's own page."""
    return "noxel.hosts" in scope


def device_of(scope: Scope) -> Device | None:
    """The paired device that asks; None is this machine itself."""
    device: Device | None = scope.get("noxel.device")
    return device
