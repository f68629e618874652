"""One server has the data at a time; whoever comes second is told who has it."""

import fcntl
import json
import os
from contextlib import suppress
from datetime import datetime
from pathlib import Path
from typing import IO

NAME = "lock"


class TakenError(Exception):
    """Somebody else has the data."""


class Lock:
    """Held until it is let go or the process ends, however it ends: the system itself takes it back."""

    def __init__(self, file: IO[str]) -> None:
        """Keep the open file: closing it would let go."""
        self._file = file

    def say(self, **who: object) -> None:
        """Write down who has it; a disk that is too full for that takes nothing from the lock itself."""
        since = datetime.now().astimezone().isoformat(timespec="seconds")
        with suppress(OSError):
            self._file.seek(0)
            self._file.truncate()
            json.dump({"pid": os.getpid(), "since": since, **who}, self._file)
            self._file.flush()

    def let_go(self) -> None:
        """Give it back."""
        with suppress(OSError):
            self._file.close()


def take(folder: Path, **who: object) -> Lock:
    """Take the data for this process. Raises `TakenError`, which names the one that has it, or OSError."""
    file = (folder / NAME).open("a+", encoding="utf-8")
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError as error:
        said = _who(file)
        file.close()
        raise TakenError(f"The data in {folder} is in use by {said}. Stop that one first, or use it.") from error
    lock = Lock(file)
    lock.say(**who)
    return lock


def _who(file: IO[str]) -> str:
    file.seek(0)
    try:
        found = json.load(file)
    except ValueError:
        return "another Bridle"
    name = f"another Bridle (process {found.get('pid', '?')}, since {found.get('since', '?')})"
    return f"{name} at {found['address']}" if found.get("address") else name
