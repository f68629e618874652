"""Whatever goes wrong around the API is told in the API's own form; elsewhere in one plain sentence."""

import json
from collections.abc import Callable

from django.core.exceptions import RequestDataTooBig
from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse, HttpResponseBase

from bridle.datafolder.health import why_no_file
from bridle.server.errors import database_trouble
from bridle.server.said import SAID


class OneShape:
    """Middleware: what failed outside the API's own handlers (an address, a method, a host, the database)."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        """Wrap the rest."""
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Give an error that is not in the API's form that form."""
        response = self.get_response(request)
        is_json = response.headers.get("Content-Type", "").startswith("application/json")
        if response.status_code < 400 or is_json or not request.path.startswith("/api/"):
            return response
        return _answer(request, response.status_code, SAID.get(response.status_code, SAID[400]))

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """A database that cannot be used, and bodies that are too large, are no faults of the program."""
        if isinstance(error, DatabaseError):
            status, trouble = database_trouble(error)
            return _answer(request, status, trouble.message)
        if isinstance(error, OSError):
            return _answer(request, *why_no_file(error))
        if isinstance(error, RequestDataTooBig):
            return _answer(request, 413, SAID[413])
        return None


def refuse(request: HttpRequest, exception: Exception | None = None, *, status: int) -> HttpResponse:
    """Django's own refusals, as a sentence."""
    return _answer(request, status, SAID[status])


def _answer(request: HttpRequest, status: int, said: str) -> HttpResponse:
    if request.path.startswith("/api/"):
        return HttpResponse(json.dumps({"message": said, "problems": []}), "application/json", status)
    return HttpResponse(f"{said}\n", "text/plain; charset=utf-8", status)
