"""Descriptions that were made at build, served as the files that they are: the API's, and the plan's schema."""

from pathlib import Path

from django.conf import settings
from django.http import FileResponse, Http404, HttpRequest

from bridle.core.plan.document import VERSION

API = "frontend/src/api/openapi.json"
SCHEMA = f"docs/formats/plan-{VERSION}.schema.json"
ADDRESS = f"schema/plan-{VERSION}.json"


def made_file(request: HttpRequest, name: str, media: str) -> FileResponse:
    """One of these files."""
    path = Path(settings.ROOT) / name
    if not path.is_file():
        raise Http404
    return FileResponse(path.open("rb"), content_type=media)
