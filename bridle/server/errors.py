"""Errors as the page gets them: one sentence, and problems with their place, what stood there, what was expected."""

import json
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import ValidationError as RequestError
from pydantic import ValidationError

from bridle.core.plan.edit import PathError
from bridle.core.quantity import QuantityError
from bridle.formats.plan_json import PlanFileError, expectation


class Problem(Schema):
    """One thing that is wrong; `path` is the place in the plan or the request."""

    path: str
    stood: str
    expected: str


class Trouble(Schema):
    """Why a request was refused."""

    message: str
    problems: tuple[Problem, ...] = ()


class ChangeRefusedError(Exception):
    """A change that cannot be made; carries the path it was meant for and why."""

    def __init__(self, path: str, error: Exception) -> None:
        """Keep the place and the cause."""
        super().__init__(str(error))
        self.trouble = Trouble(message=_sentence(error), problems=tuple(_at(path, error)))


def _sentence(error: Exception) -> str:
    if isinstance(error, ValidationError):
        return _capital(expectation(error.errors()[0])) + "."
    return _capital(str(error)) + "."


def _at(path: str, error: Exception) -> list[Problem]:
    if isinstance(error, QuantityError):
        return [Problem(path=path, stood=error.stood, expected=error.expected)]
    if isinstance(error, ValidationError):
        return [
            Problem(path=path, stood=str(detail["input"])[:60], expected=expectation(detail))
            for detail in error.errors()
        ]
    return [Problem(path=path, stood="", expected=str(error))]


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def install(api: NinjaAPI) -> None:
    """Have the API answer all of these in the same form."""

    @api.exception_handler(ChangeRefusedError)
    def refused(request: HttpRequest, error: ChangeRefusedError) -> HttpResponse:
        return api.create_response(request, error.trouble, status=422)

    @api.exception_handler(PlanFileError)
    def no_plan(request: HttpRequest, error: PlanFileError) -> HttpResponse:
        problems = [Problem(path="", stood="", expected=text) for text in error.problems]
        return api.create_response(request, Trouble(message=error.sentence, problems=tuple(problems)), status=422)

    @api.exception_handler(PathError)
    def no_path(request: HttpRequest, error: PathError) -> HttpResponse:
        return api.create_response(request, Trouble(message=_sentence(error)), status=422)

    @api.exception_handler(RequestError)
    def bad_request(request: HttpRequest, error: RequestError) -> HttpResponse:
        problems = [_problem(detail) for detail in error.errors]
        message = _capital(problems[0].expected) + "." if problems else "This request cannot be read."
        return api.create_response(request, Trouble(message=message, problems=tuple(problems)), status=422)


def _problem(detail: dict[str, Any]) -> Problem:
    path = ".".join(str(step) for step in detail["loc"][2:])
    stood = json.dumps(detail.get("input"), default=str)[:60]
    return Problem(path=path, stood=stood, expected=expectation(detail))  # type: ignore[arg-type]
