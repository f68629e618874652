"""Do the long work of the bench; started and ended by `serve`."""

import os
import sys
import threading
from typing import Any

from django.core.management.base import BaseCommand

from bridle.server.prints.queue import QUEUE, begin_again


class Command(BaseCommand):
    """One piece of work after another, until the server that began this process is gone."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Begin again what was not finished, then take what comes."""
        threading.Thread(target=_with_the_server, name="with the server", daemon=True).start()
        begin_again()
        consumer = QUEUE.create_consumer(
            workers=1, worker_type="thread", periodic=False, initial_delay=0.1, max_delay=0.5
        )
        consumer.run()


def _with_the_server() -> None:
    """End when the pipe from the server is closed, however it ended: a work half done starts over next time."""
    while sys.stdin.buffer.read(1):
        pass
    os._exit(0)
