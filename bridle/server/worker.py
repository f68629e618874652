"""The process in which long work is done: begun when there is some, looked after, ended with the server."""

import logging
import os
import subprocess
import sys
import threading
import time
from pathlib import Path
from typing import Protocol

from django.db import DatabaseError, connection

LOG = logging.getLogger("bridle.work")
MANAGE = Path(__file__).resolve().parents[2] / "manage.py"
# What the process is told through its pipe: that somebody looks at the prints, or at the list of shoots.
PRINTS, LINES = b"p", b"l"
LOOK_S = 1.0


class Care(Protocol):
    """What whoever keeps the work knows of it."""

    def unfinished(self) -> bool:
        """Whether there is something to do."""

    def does_not_stop(self) -> bool:
        """Whether somebody has asked for an end, and there is none."""

    def after_death(self, how: str) -> None:
        """Say what becomes of the work that was under way when the process ended."""


class Worker:
    """One process for one server. It hears that the server is gone when the pipe to it is closed."""

    def __init__(self) -> None:
        """Nothing runs yet."""
        self._mutex = threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None
        self._care: Care | None = None

    def serve(self, care: Care) -> None:
        """From now on work is done in a process, and that is looked after; before, in tests, nothing is by itself."""
        self._care = care
        threading.Thread(target=self._look_after, name="looks after the worker", daemon=True).start()

    def wake(self, about: bytes = b"") -> None:
        """See that it runs, and tell it what somebody looks at. Never raises: what is not told now is told again.

        One that has died is not begun here: first it has to be said what becomes of its work.
        """
        with self._mutex:
            if self._care is None:
                return
            try:
                if self._process is None:
                    self._process = self._begun()
                assert self._process.stdin is not None
                self._process.stdin.write(about)
                self._process.stdin.flush()
            except OSError as error:
                LOG.warning("the process for long work cannot be told anything: %s", error)

    def _begun(self) -> "subprocess.Popen[bytes]":
        return subprocess.Popen([sys.executable, str(MANAGE), "work"], stdin=subprocess.PIPE, env=os.environ.copy())

    def _look_after(self) -> None:
        while True:
            time.sleep(LOOK_S)
            try:
                self.look()
            except DatabaseError as error:
                LOG.warning("the long work cannot be looked after just now: %s", error)
            except Exception:
                LOG.exception("the long work is looked after again in a moment")
            finally:
                connection.close()

    def look(self) -> None:
        """Once: end what does not stop, and make up for a process that has died."""
        assert self._care is not None
        if self._care.does_not_stop():
            self._kill()
        how = self._ended()
        if how is not None:
            LOG.warning("the process for long work has ended %s", how)
            self._care.after_death(how)
            with self._mutex:
                self._process = None
        with self._mutex:
            gone = self._process is None
        if gone and self._care.unfinished():
            self.wake()

    def _ended(self) -> str | None:
        with self._mutex:
            if self._process is None or self._process.poll() is None:
                return None
            code = self._process.returncode
        return f"by signal {-code}" if code < 0 else f"with status {code}"

    def _kill(self) -> None:
        with self._mutex:
            if self._process is not None:
                self._process.kill()
                self._process.wait()


WORKER = Worker()
