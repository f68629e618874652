"""The addresses."""

from django.urls import path, re_path

from bridle.server.api import api
from bridle.server.page import page
from bridle.server.schema import ADDRESS, plan_schema
from bridle.server.shoots.api import FILES, lines_file, plan_file

urlpatterns = [
    path("api/", api.urls),
    path("files/shoots/<int:shoot_id>/plan.json", plan_file),
    *(path(f"files/shoots/<int:shoot_id>/{kind}", lines_file, {"kind": kind}) for kind in FILES),
    path(ADDRESS, plan_schema),
    re_path(r"^(?P<path>(?!api/|files/|schema/|assets/).*)$", page),
]
