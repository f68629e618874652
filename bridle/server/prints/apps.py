"""Django's view of this app."""

from django.apps import AppConfig


class PrintsConfig(AppConfig):
    """The prints."""

    name = "bridle.server.prints"
    label = "prints"

    def ready(self) -> None:
        """What the bench has proven is given to every evaluation."""
        from bridle.server.prints.proofs import proofs_of  # noqa: PLC0415  # the models are there from now on
        from bridle.server.shoots.beside import GIVEN  # noqa: PLC0415

        GIVEN.proofs_of = proofs_of
