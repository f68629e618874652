"""Django's view of this app."""

from django.apps import AppConfig


class RunsConfig(AppConfig):
    """Runs."""

    name = "bridle.server.runs"
    label = "runs"
