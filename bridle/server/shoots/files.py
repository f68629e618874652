"""Files to take along: the plan, and what devices and encoders need."""

import json

from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from django.utils.text import slugify
from pydantic import ValidationError

from bridle.core.plan.upgrade import UpgradeError
from bridle.formats.catalogue import FORMATS
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.plan_json import PlanFileError, write_plan
from bridle.server.ids import MOST
from bridle.server.rows import Unreadable
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.reading import read_kept


def _of_number(shoot_id: int) -> Shoot:
    """A shoot for a file; an address may name any number."""
    if shoot_id > MOST:
        raise Http404
    return get_object_or_404(Shoot, pk=shoot_id)


def plan_file(request: HttpRequest, shoot_id: int) -> HttpResponse:
    """The plan as a JSON file to keep; as it is kept, where this Bridle cannot read it."""
    shoot = _of_number(shoot_id)
    try:
        written = write_plan(shoot.read())
    except (ValidationError, UpgradeError):
        text = shoot.plan.text if isinstance(shoot.plan, Unreadable) else None
        written = text if text is not None else json.dumps(shoot.plan, ensure_ascii=False, indent=2) + "\n"
    response = HttpResponse(written, content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="{_slug(shoot.name)}.bridle.json"'
    return response


# The plan itself is told even where this Bridle cannot read it; all else is made from it.
FILES = {made.file: made for made in FORMATS if made.key != "plan"}


def lines_file(request: HttpRequest, shoot_id: int, kind: str) -> HttpResponse | StreamingHttpResponse:
    """A file of lines made from the plan: frame table, steps, crops, or the drive's program."""
    made = FILES[kind]
    try:
        plan = read_kept(_of_number(shoot_id))
        lines = made.write(plan)
    except NothingToWriteError as error:
        return HttpResponse(f"Nothing to write yet: {error}.", status=409, content_type="text/plain; charset=utf-8")
    except PlanFileError as error:
        return HttpResponse(f"{error}\n", status=409, content_type="text/plain; charset=utf-8")
    response = StreamingHttpResponse(lines, content_type=f"{made.media}; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{_slug(plan.shoot.name)}{made.ending}"'
    return response


def _slug(name: str) -> str:
    return slugify(name) or "shoot"


def formats_text() -> str:
    """What the page offers to take along, as JSON by key: what it is called, and the end of its address."""
    entries = {made.key: {"title": made.title, "file": made.file} for made in FORMATS}
    return json.dumps(entries, ensure_ascii=False, indent=1) + "\n"
