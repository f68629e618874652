"""Serve Bridle from one process, on this machine only."""

import logging
from argparse import ArgumentParser
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import DatabaseError

from bridle.datafolder.health import UnwellError, why_no_file, why_not
from bridle.datafolder.lock import TakenError
from bridle.server.held import hold
from bridle.server.prints.care import PrintsCare
from bridle.server.ready import make_ready
from bridle.server.runs.watch import Watch, tried
from bridle.server.shoots.lines import outdated
from bridle.server.web import HOST, make_server
from bridle.server.worker import LINES, WORKER


class Command(BaseCommand):
    """Waitress, bound to the loopback address; runs that were under way go on."""

    help = __doc__
    # They would read all the addresses of the API before anything is served.
    requires_system_checks = ()

    def add_arguments(self, parser: ArgumentParser) -> None:
        """The port can be chosen, the address cannot."""
        parser.add_argument("--port", type=int, default=8420)
        parser.add_argument("--demo", action="store_true", help="load the demo shoots that are not there yet")

    def handle(self, *args: Any, **options: Any) -> None:
        """Take the data, then the port: whoever has the data drives the runs."""
        logging.getLogger("waitress.queue").setLevel(logging.ERROR)
        address = f"http://{HOST}:{options['port']}"
        try:
            hold(address=address)
            for said in make_ready(settings.DATA):
                self.stdout.write(said)
        except (TakenError, UnwellError) as error:
            raise CommandError(str(error)) from error
        except OSError as error:
            raise CommandError(f"{settings.DATA}: {why_no_file(error)[1]}") from error
        try:
            server = make_server(options["port"])
        except OSError as error:
            raise CommandError(f"port {options['port']} cannot be had: {error.strerror}") from error
        if options["demo"]:
            self._load_demo()
        WORKER.serve(PrintsCare())
        # Lines that a new version, or a new shoot, has to have worked out are on their way before somebody looks.
        if tried(outdated):
            WORKER.wake(LINES)
        for run_id in Watch().start():
            self.stdout.write(f"run {run_id} goes on")
        self.stdout.write(f"Bridle is at {address}")
        self.stdout.flush()
        server.run()

    def _load_demo(self) -> None:
        """What is kept is served all the same where the demo cannot be put beside it."""
        try:
            call_command("loaddemo", stdout=self.stdout)
        except DatabaseError as error:
            self.stdout.write(f"the demo cannot be loaded just now: {why_not(error)[1]}")
        except OSError as error:
            self.stdout.write(f"the demo cannot be loaded just now: {why_no_file(error)[1]}")
