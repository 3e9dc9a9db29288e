"""Errors at the border: every one becomes problem+json (RFC 9457) that names the field and the
cause.
"""

import sqlite3
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DatabaseError
from starlette.exceptions import HTTPException

from noxel.core.rig import write_path
from noxel.errors import Conflict, InputError, NoxelError
from noxel.store.faults import fault_of

_TITLES = {
    400: "Bad request",
    401: "Not paired",
    403: "Not allowed",
    404: "Not found",
    409: "Does not fit",
    413: "Too large",
    415: "Not JSON",
    422: "Cannot be used",
    429: "Too often",
    500: "Noxel's own fault",
    503: "Not possible now",
    507: "Disk full",
}


class FieldProblem(BaseModel):
    """What is wrong at one path."""

    path: str
    message: str
    code: str


class ProblemDetails(BaseModel):
    """RFC 9457, with our stable code and one entry for each field."""

    type: str
    title: str
    status: int
    detail: str
    code: str
    errors: list[FieldProblem] = []


def problem(
    status: int, code: str, detail: str, errors: list[FieldProblem] | None = None
) -> JSONResponse:
    """A problem+json response."""
    title = _TITLES.get(status, "Problem")
    body = ProblemDetails(
        type=f"urn:noxel:{code}",
        title=title,
        status=status,
        detail=detail,
        code=code,
        errors=errors or [],
    )
    return JSONResponse(body.model_dump(), status, media_type="application/problem+json")


async def _ours(_request: Request, exc: Exception) -> JSONResponse:
    if not isinstance(exc, NoxelError):
        raise exc
    problems = exc.problems if isinstance(exc, InputError | Conflict) else ()
    errors = [
        FieldProblem(path=problem.path, message=problem.message, code=problem.code)
        for problem in problems
    ]
    return problem(exc.status, exc.code, exc.message, errors)


async def _request_invalid(_request: Request, exc: Exception) -> JSONResponse:
    problems: list[dict[str, Any]] = (
        list(exc.errors()) if isinstance(exc, RequestValidationError) else []
    )
    errors = [
        FieldProblem(path=write_path(problem["loc"]), message=problem["msg"], code=problem["type"])
        for problem in problems
    ]
    detail = f"{errors[0].path}: {errors[0].message}" if errors else "The request cannot be used."
    return problem(422, "request.invalid", detail, errors)


async def _http(_request: Request, exc: Exception) -> JSONResponse:
    status = exc.status_code if isinstance(exc, HTTPException) else 500
    return problem(status, "http.error", str(exc.detail) if isinstance(exc, HTTPException) else "")


async def _storage(request: Request, exc: Exception) -> JSONResponse:
    fault = fault_of(exc)
    fault.message += " Nothing of this change was saved; everything saved before it was."
    return await _ours(request, fault)


def install(app: FastAPI) -> None:
    """Answer every error in this form."""
    app.add_exception_handler(NoxelError, _ours)
    app.add_exception_handler(RequestValidationError, _request_invalid)
    app.add_exception_handler(HTTPException, _http)
    app.add_exception_handler(DatabaseError, _storage)
    app.add_exception_handler(sqlite3.DatabaseError, _storage)
