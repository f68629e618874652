"""Django's view of this app."""

from django.apps import AppConfig


class KitConfig(AppConfig):
    """The kit."""

    name = "bridle.server.kit"
    label = "kit"
