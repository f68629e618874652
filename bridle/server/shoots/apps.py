"""Django's view of this app."""

from django.apps import AppConfig


class ShootsConfig(AppConfig):
    """Shoots."""

    name = "bridle.server.shoots"
    label = "shoots"
