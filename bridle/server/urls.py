"""The addresses."""

from django.urls import path, re_path

from bridle.server.api import api
from bridle.server.page import page
from bridle.server.schema import ADDRESS, plan_schema
from bridle.server.shoots.api import frames_file, plan_file

urlpatterns = [
    path("api/", api.urls),
    path("files/shoots/<int:shoot_id>/plan.json", plan_file),
    path("files/shoots/<int:shoot_id>/frames.csv", frames_file),
    path(ADDRESS, plan_schema),
    re_path(r"^(?P<path>(?!api/|files/|schema/|assets/).*)$", page),
]
