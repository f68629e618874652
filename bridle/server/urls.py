"""The addresses."""

from functools import partial

from django.urls import path, re_path

from bridle.server.api import api
from bridle.server.one_shape import refuse
from bridle.server.page import page
from bridle.server.row_text import row_text
from bridle.server.schema import ADDRESS, plan_schema
from bridle.server.shoots.files import FILES, lines_file, plan_file

urlpatterns = [
    path("api/", api.urls),
    path("files/shoots/<int:shoot_id>/plan.json", plan_file),
    *(path(f"files/shoots/<int:shoot_id>/{kind}", lines_file, {"kind": kind}) for kind in FILES),
    path("files/rows/<str:kind>/<int:number>.txt", row_text),
    path(ADDRESS, plan_schema),
    re_path(r"^(?P<path>(?!api/|files/|schema/|assets/).*)$", page),
]

handler400 = partial(refuse, status=400)
handler403 = partial(refuse, status=403)
handler404 = partial(refuse, status=404)
handler500 = partial(refuse, status=500)
