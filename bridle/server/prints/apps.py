"""Django's view of this app."""

from django.apps import AppConfig


class PrintsConfig(AppConfig):
    """The prints."""

    name = "bridle.server.prints"
    label = "prints"
