"""The API as a whole: every call that changes something carries the page's token."""

from typing import Any

from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import NinjaAPI
from ninja.errors import HttpError
from ninja.openapi.schema import OpenAPISchema
from ninja.utils import check_csrf

from bridle.server import errors
from bridle.server.house.api import router as house
from bridle.server.kit.api import router as kit
from bridle.server.prints.api import router as prints
from bridle.server.runs.api import router as runs
from bridle.server.runs.jog import router as jogging
from bridle.server.said import SAID
from bridle.server.shoots.api import router as shoots
from bridle.server.shoots.places_api import router as places
from bridle.server.shoots.revisions_api import router as shoot_revisions
from bridle.server.shoots.trigger_api import router as trigger
from bridle.server.shoots.weather_api import router as weather


def from_the_page(request: HttpRequest) -> bool:
    """Give the page its token with every answer, and ask for it back with every change."""
    get_token(request)
    if check_csrf(request, from_the_page) is not None:
        raise HttpError(403, SAID[403])
    return True


class Api(NinjaAPI):
    """An API whose description declares what any of its calls may be answered with."""

    def get_openapi_schema(self, **options: Any) -> OpenAPISchema:
        """The description, with the common errors at every operation."""
        schema = super().get_openapi_schema(**options)
        for path in schema["paths"].values():
            for operation in path.values():
                for status in errors.DECLARED:
                    operation["responses"].setdefault(status, {"$ref": f"#/components/responses/Trouble{status}"})
        said = {f"Trouble{status}": _trouble(SAID[status]) for status in errors.DECLARED}
        schema["components"]["responses"] = said
        return schema


def _trouble(said: str) -> dict[str, Any]:
    form = {"schema": {"$ref": "#/components/schemas/Trouble"}}
    return {"description": said, "content": {"application/json": form}}


api = Api(
    title="Bridle",
    version="1",
    urls_namespace="api",
    auth=from_the_page,
    docs_url=None,
    openapi_url=None,
    parser=errors.StrictParser(),
)
errors.install(api)
api.add_router("", shoots)
api.add_router("", shoot_revisions)
api.add_router("", places)
api.add_router("", trigger)
api.add_router("", weather)
api.add_router("", runs)
api.add_router("", jogging)
api.add_router("", kit)
api.add_router("", prints)
api.add_router("", house)
