"""Serve Bridle from one process, on this machine only."""

import logging
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from waitress.server import create_server

from bridle.server.keeping import empty_bin
from bridle.server.kit.models import KitCard
from bridle.server.runs.driver import resume_all
from bridle.server.shoots.models import Shoot
from bridle.server.wsgi import application

HOST = "127.0.0.1"


class Command(BaseCommand):
    """Waitress, bound to the loopback address; runs that were under way go on."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """The port can be chosen, the address cannot."""
        parser.add_argument("--port", type=int, default=8420)

    def handle(self, *args: Any, **options: Any) -> None:
        """Take the port first: whoever has it drives the runs."""
        logging.getLogger("waitress.queue").setLevel(logging.ERROR)
        try:
            server = create_server(application, host=HOST, port=options["port"], threads=8)
        except OSError as error:
            raise CommandError(f"port {options['port']} cannot be had: {error.strerror}") from error
        empty_bin(Shoot)
        empty_bin(KitCard)
        for run_id in resume_all():
            self.stdout.write(f"run {run_id} goes on")
        self.stdout.write(f"Bridle is at http://{HOST}:{options['port']}")
        self.stdout.flush()
        server.run()
