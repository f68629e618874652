"""Reading a file in two passes: how its layers are announced, then every line."""

from collections.abc import Callable
from dataclasses import replace

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

    `told` hears what is being done and how many bytes of it are done; it may raise to stop. Where
    nobody knows whether absolute and relative places take the filament's mode along, and it matters, both are tried.
    """
    told("finding the layers", 0)
    scanned = scan(pieces(opened, altered_too), lambda done: told("finding the layers", done))

    def carried_out(how: Motion) -> Inspection:
        whole = pieces(opened, altered_too)
        return inspect(whole, scanned, how, lambda done: told("carrying out every line", done))

    found = carried_out(motion)
    if motion.apart is not None or not found.doubts:
        return found
    # Printers differ in this, and the card does not say: the reading that makes a print of it is the right one.
    other = carried_out(replace(motion, apart=True))
    return other if (other.likely, len(other.layers)) > (found.likely, len(found.layers)) else found
