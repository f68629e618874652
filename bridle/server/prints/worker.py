"""The process in which long work is done: begun when there is some, ended with the server, begun again when it died."""

import os
import subprocess
import sys
import threading
from pathlib import Path

MANAGE = Path(__file__).resolve().parents[3] / "manage.py"


class Worker:
    """One process for one server. It hears that the server is gone when the pipe to it is closed."""

    def __init__(self) -> None:
        """Nothing runs yet."""
        self._mutex = threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None
        self.wanted = False

    def serve(self) -> None:
        """From now on work is done in a process; before, in tests, nothing is done by itself."""
        self.wanted = True

    def wake(self) -> None:
        """See that it runs."""
        with self._mutex:
            if not self.wanted or (self._process is not None and self._process.poll() is None):
                return
            self._process = subprocess.Popen(
                [sys.executable, str(MANAGE), "work"], stdin=subprocess.PIPE, env=os.environ.copy()
            )


WORKER = Worker()
