"""The data folder's lock, as this process has it: only who holds it drives runs."""

import threading

from django.conf import settings

from bridle.datafolder.lock import Lock, take

_mutex = threading.Lock()
_held: list[Lock] = []


def hold(**who: object) -> None:
    """Take the data for this process, unless it has it already. Raises `TakenError`, which names who has it."""
    with _mutex:
        if not _held:
            _held.append(take(settings.DATA, **who))
        elif who:
            _held[0].say(**who)
