"""Start with the data and look at everything once, as a page would; for a copy that is to be brought back."""

from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.test import Client

from bridle.datafolder.health import UnwellError
from bridle.server.ready import make_ready

LISTS = ("/api/shoots", "/api/shoots?binned=true", "/api/kit", "/api/log", "/api/prints", "/api/places")


class Command(BaseCommand):
    """Fails with one sentence where Bridle could not be used with this data."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Bring it up to date, and ask for every list."""
        try:
            make_ready(settings.DATA)
        except UnwellError as error:
            raise CommandError(str(error)) from error
        client = Client(SERVER_NAME="localhost", raise_request_exception=False)
        for address in LISTS:
            answer = client.get(address)
            if answer.status_code != 200:
                raise CommandError(f"{address} cannot be told ({answer.status_code}).")
