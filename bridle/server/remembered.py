"""What was worked out and may be asked for again: bounded by bytes, and worked out once however many ask."""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from concurrent.futures import Future


class Remembered:
    """Bytes by key, the longest unused forgotten first. Safe to use from several threads."""

    def __init__(self, most_bytes: int) -> None:
        """Hold so many bytes at the most."""
        self.most_bytes = most_bytes
        self.held_bytes = 0
        self._held: OrderedDict[Hashable, bytes] = OrderedDict()
        self._coming: dict[Hashable, Future[bytes]] = {}
        self._lock = threading.Lock()

    def get(self, key: Hashable, make: Callable[[], bytes]) -> bytes:
        """What belongs to a key. Whoever asks while it is being made waits for that, and shares its error."""
        with self._lock:
            if key in self._held:
                self._held.move_to_end(key)
                return self._held[key]
            coming = self._coming.get(key)
            mine = coming is None
            if coming is None:
                coming = self._coming[key] = Future()
        if mine:
            self._make(key, make, coming)
        return coming.result()

    def _make(self, key: Hashable, make: Callable[[], bytes], coming: Future[bytes]) -> None:
        try:
            made = make()
        except BaseException as error:
            with self._lock:
                del self._coming[key]
            coming.set_exception(error)
            return
        with self._lock:
            del self._coming[key]
            self._hold(key, made)
        coming.set_result(made)

    def _hold(self, key: Hashable, made: bytes) -> None:
        if len(made) > self.most_bytes:
            return
        self._held[key] = made
        self.held_bytes += len(made)
        while self.held_bytes > self.most_bytes:
            _, dropped = self._held.popitem(last=False)
            self.held_bytes -= len(dropped)

    def forget(self) -> None:
        """Forget everything."""
        with self._lock:
            self._held.clear()
            self.held_bytes = 0
