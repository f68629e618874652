"""Errors as the page gets them: one sentence, and problems with their place, what stood there, what was expected."""

import json
import logging
from collections.abc import Callable
from functools import partial
from typing import Any

from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse, RawPostDataException, UnreadablePostError
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI, Schema
from ninja.errors import HttpError
from ninja.errors import ValidationError as RequestError
from ninja.parser import Parser
from pydantic import ValidationError

from bridle.core.plan.edit import PathError
from bridle.core.quantity import QuantityError
from bridle.datafolder.health import why_no_file, why_not
from bridle.formats.plan_json import PlanFileError, expectation
from bridle.formats.strict_json import TooManyError, glimpse, loads
from bridle.server.said import SAID
from bridle.server.turns import BusyError

LOG = logging.getLogger("bridle.errors")


class Problem(Schema):
    """One thing that is wrong; `path` is the place in the plan or the request."""

    path: str
    stood: str
    expected: str


class Trouble(Schema):
    """Why a request was refused."""

    message: str
    problems: tuple[Problem, ...] = ()


# A 500 is never meant, so it is declared nowhere.
DECLARED = [status for status in SAID if status not in (405, 500)]


class ChangeRefusedError(Exception):
    """A change that cannot be made; carries the path it was meant for and why."""

    def __init__(self, path: str, error: Exception) -> None:
        """Keep the place and the cause."""
        super().__init__(str(error))
        self.trouble = Trouble(message=_sentence(error), problems=tuple(_at(path, error)))


class RefusedError(Exception):
    """Something that may not be done now, and why; answered with 409."""


def _sentence(error: Exception) -> str:
    if isinstance(error, ValidationError):
        return _capital(expectation(error.errors()[0])) + "."
    return _capital(str(error)) + "."


def _at(path: str, error: Exception) -> list[Problem]:
    if isinstance(error, QuantityError):
        return [Problem(path=path, stood=error.stood, expected=error.expected)]
    if isinstance(error, ValidationError):
        return [
            Problem(path=path, stood=_stood(detail["input"]), expected=expectation(detail)) for detail in error.errors()
        ]
    return [Problem(path=path, stood="", expected=str(error))]


def _stood(value: Any) -> str:
    return value[:60] if isinstance(value, str) else glimpse(value)


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def body_of(request: HttpRequest) -> bytes:
    """The bytes of a request. Raises a ValueError for a form, whose parts were taken apart already."""
    try:
        return request.body
    except RawPostDataException as error:
        raise ValueError("a form stands there") from error


class StrictParser(Parser):
    """Reads requests as JSON has it: NaN and infinity are no numbers."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        """The body as plain values. Raises a ValueError, or RequestDataTooBig."""
        return loads(body_of(request).decode("utf-8-sig"))  # type: ignore[no-any-return]


def database_trouble(error: BaseException) -> tuple[int, Trouble]:
    """Status and sentence for a database that cannot be used."""
    status, said = why_not(error)
    return status, Trouble(message=said)


Answer = tuple[int, Trouble]


def _said(status: int) -> Callable[[HttpRequest, Any], Answer]:
    return lambda request, error: (status, Trouble(message=SAID[status]))


def _refused(request: HttpRequest, error: ChangeRefusedError) -> Answer:
    return 422, error.trouble


def _not_now(request: HttpRequest, error: RefusedError) -> Answer:
    return 409, Trouble(message=str(error))


def _busy(request: HttpRequest, error: BusyError) -> Answer:
    return 503, Trouble(message=str(error))


def _no_plan(request: HttpRequest, error: PlanFileError) -> Answer:
    problems = [Problem(path="", stood="", expected=text) for text in error.problems]
    return 422, Trouble(message=error.sentence, problems=tuple(problems))


def _no_path(request: HttpRequest, error: PathError) -> Answer:
    return 422, Trouble(message=_sentence(error))


def _bad_request(request: HttpRequest, error: RequestError) -> Answer:
    problems = [_problem(detail) for detail in error.errors]
    message = _capital(problems[0].expected) + "." if problems else SAID[422]
    return 422, Trouble(message=message, problems=tuple(problems))


def _by_status(request: HttpRequest, error: HttpError) -> Answer:
    if isinstance(error.__cause__, RequestDataTooBig):
        return 413, Trouble(message=SAID[413])
    if error.status_code == 400:
        return 400, _unreadable(error.__cause__)
    return error.status_code, Trouble(message=str(error))


def _database(request: HttpRequest, error: DatabaseError) -> Answer:
    return database_trouble(error)


def _file(request: HttpRequest, error: OSError) -> Answer:
    status, said = why_no_file(error)
    LOG.warning("%s %s: %s", request.method, request.path, error)
    return status, Trouble(message=said)


def _fault(request: HttpRequest, error: Exception) -> Answer:
    LOG.exception("%s %s", request.method, request.path, exc_info=error)
    return 500, Trouble(message=SAID[500])


ANSWERS: dict[type[Exception], Callable[[HttpRequest, Any], Answer]] = {
    ChangeRefusedError: _refused,
    RefusedError: _not_now,
    BusyError: _busy,
    PlanFileError: _no_plan,
    PathError: _no_path,
    RequestError: _bad_request,
    HttpError: _by_status,
    RequestDataTooBig: _said(413),
    MultiPartParserError: _said(400),
    SuspiciousOperation: _said(400),
    UnreadablePostError: _said(400),
    RawPostDataException: _said(400),
    Http404: _said(404),
    DatabaseError: _database,
    OSError: _file,
    Exception: _fault,
}


def install(api: NinjaAPI) -> None:
    """Have the API answer all of these in the same form."""
    for kind, answer in ANSWERS.items():
        api.add_exception_handler(kind, partial(_respond, api, answer))


def _respond(
    api: NinjaAPI, answer: Callable[[HttpRequest, Any], Answer], request: HttpRequest, error: Any
) -> HttpResponse:
    status, trouble = answer(request, error)
    return api.create_response(request, trouble, status=status)


def _unreadable(cause: BaseException | None) -> Trouble:
    """A body that is no JSON: told with its line and column."""
    if isinstance(cause, json.JSONDecodeError):
        where = f"line {cause.lineno}, column {cause.colno}"
        return Trouble(message=f"{SAID[400][:-1]}: {where}, expected JSON ({cause.msg.lower()}).")
    if isinstance(cause, TooManyError):
        where = ".".join(map(str, cause.path)) or "its top"
        return Trouble(message=f"{SAID[400][:-1]}: at {where}, {cause}.")
    if isinstance(cause, ValueError) and not isinstance(cause, UnicodeDecodeError) and str(cause):
        return Trouble(message=f"{SAID[400][:-1]}: {cause}; expected JSON text.")
    return Trouble(message=f"{SAID[400][:-1]}: expected JSON text.")


def _problem(detail: dict[str, Any]) -> Problem:
    path = ".".join(str(step) for step in detail["loc"][2:] or detail["loc"][1:])
    # What was left out stood nowhere, and of an address the framework passes on no text.
    stood = glimpse(detail["input"]) if detail.get("input") is not None else ""
    return Problem(path=path, stood=stood, expected=expectation(detail))  # type: ignore[arg-type]
