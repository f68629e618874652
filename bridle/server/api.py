"""The API as a whole: every call that changes something carries the page's token."""

from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import NinjaAPI
from ninja.errors import HttpError
from ninja.utils import check_csrf

from bridle.server import errors
from bridle.server.kit.api import router as kit
from bridle.server.runs.api import router as runs
from bridle.server.runs.jog import router as jogging
from bridle.server.shoots.api import router as shoots


def from_the_page(request: HttpRequest) -> bool:
    """Give the page its token with every answer, and ask for it back with every change."""
    get_token(request)
    if check_csrf(request, from_the_page) is not None:
        raise HttpError(403, "This request did not come from Bridle's own page. Load the page again.")
    return True


api = NinjaAPI(title="Bridle", version="1", urls_namespace="api", auth=from_the_page, docs_url=None)
errors.install(api)
api.add_router("", shoots)
api.add_router("", runs)
api.add_router("", jogging)
api.add_router("", kit)
