"""The addresses."""

from functools import partial

from django.urls import path, re_path

from bridle.server.api import api
from bridle.server.made import ADDRESS, API, SCHEMA, made_file
from bridle.server.one_shape import refuse
from bridle.server.page import page
from bridle.server.row_text import row_text
from bridle.server.shoots.files import FILES, lines_file, plan_file

urlpatterns = [
    path("api/openapi.json", made_file, {"name": API, "media": "application/json"}),
    path("api/", api.urls),
    path("files/shoots/<int:shoot_id>/plan.json", plan_file),
    *(path(f"files/shoots/<int:shoot_id>/{kind}", lines_file, {"kind": kind}) for kind in FILES),
    path("files/rows/<str:kind>/<int:number>.txt", row_text),
    path(ADDRESS, made_file, {"name": SCHEMA, "media": "application/schema+json"}),
    re_path(r"^(?P<path>(?!api/|files/|schema/|assets/).*)$", page),
]

handler400 = partial(refuse, status=400)
handler403 = partial(refuse, status=403)
handler404 = partial(refuse, status=404)
handler500 = partial(refuse, status=500)
