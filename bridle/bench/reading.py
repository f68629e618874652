"""Reading a file in two passes: how its layers are announced, then every line."""

from collections.abc import Callable

from bridle.bench.source import Opened, pieces
from bridle.core.subjects.prints.found import Inspection, Motion
from bridle.core.subjects.prints.inspect import inspect
from bridle.core.subjects.prints.scan import scan


def read(
    opened: Opened,
    motion: Motion,
    told: Callable[[str, int], None] = lambda _what, _done: None,
    altered_too: bool = False,
) -> Inspection:
    """Read a file as it was before any stop of ours. Raises `NoTextError` and `AlteredError`.

    `told` hears what is being done and how many bytes of it are done; it may raise to stop.
    """
    told("finding the layers", 0)
    scanned = scan(pieces(opened, altered_too), lambda done: told("finding the layers", done))
    return inspect(pieces(opened, altered_too), scanned, motion, lambda done: told("carrying out every line", done))
