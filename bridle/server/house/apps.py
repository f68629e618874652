"""Django's view of this app."""

from django.apps import AppConfig


class HouseConfig(AppConfig):
    """The house."""

    name = "bridle.server.house"
    label = "house"
