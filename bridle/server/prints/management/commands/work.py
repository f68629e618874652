"""Do the long work; started, looked after and ended by `serve`."""

import fcntl
import os
import sys
import threading
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand

from bridle.server.prints.loop import do_all
from bridle.server.shoots.lines import redo_all
from bridle.server.worker import LINES, PRINTS

LOCK = "work.lock"


class Command(BaseCommand):
    """Work on large files and on all others, and the lines of lists, until the server that began it is gone."""

    help = __doc__
    # They would read all the addresses of the API before anything is served.
    requires_system_checks = ()

    def handle(self, *args: Any, **options: Any) -> None:
        """Wait for the last server's process to be gone, then take what comes."""
        looked, lines, ended = threading.Event(), threading.Event(), threading.Event()
        hear = threading.Thread(target=_with_the_server, args=(looked, lines), name="with the server", daemon=True)
        hear.start()
        held = (settings.DATA / LOCK).open("a")
        fcntl.flock(held, fcntl.LOCK_EX)
        threading.Thread(target=redo_all, args=(lines,), name="lines", daemon=True).start()
        threading.Thread(target=do_all, args=(threading.Event(), ended, True), name="large files", daemon=True).start()
        do_all(looked, ended, False)


def _with_the_server(looked: threading.Event, lines: threading.Event) -> None:
    """Hear what somebody looks at; end when the pipe from the server is closed, however it ended."""
    while said := sys.stdin.buffer.read(1):
        if said == PRINTS:
            looked.set()
        elif said == LINES:
            lines.set()
    os._exit(0)
