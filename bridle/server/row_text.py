"""The text of a row that cannot be read, to be taken along."""

from django.db import models
from django.http import Http404, HttpRequest, HttpResponse

from bridle.server.ids import MOST
from bridle.server.kit.models import KitCard
from bridle.server.prints.models import Print
from bridle.server.rows import as_text
from bridle.server.runs.models import LogEntry, Run
from bridle.server.shoots.models import Shoot

KINDS: dict[str, type[models.Model]] = {"shoot": Shoot, "card": KitCard, "run": Run, "log": LogEntry, "print": Print}


def row_text(request: HttpRequest, kind: str, number: int) -> HttpResponse:
    """All that is kept of one thing, column by column, whatever stands in it."""
    if kind not in KINDS or number > MOST:
        raise Http404
    text = as_text(KINDS[kind], number)
    if text is None:
        raise Http404
    response = HttpResponse(text, content_type="text/plain; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{kind}-{number}.txt"'
    return response
