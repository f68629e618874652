"""The way of the head through a few commands, as a macro of a printer has them."""

import re
from functools import lru_cache

import numpy as np

from bridle.core.subjects.prints.follow import HOMED, MOVED, beginning, follow
from bridle.core.subjects.prints.words import rows

Point = tuple[float, float, float]
# What only the printer itself works out: conditions, variables, parameters.
CONDITION = re.compile(r"\{")


def has_conditions(text: str) -> bool:
    """Whether a text of commands says what it does only to the printer that works its conditions out."""
    return bool(CONDITION.search(text))


@lru_cache(maxsize=64)
def way_of(text: str, home: Point) -> tuple[tuple[Point, ...], bool]:
    """Where the head goes by these commands, mm, from the first place that is known; and whether it goes home."""
    read = rows(text.encode())
    count, state = len(read.code), beginning()
    after, length, turn = np.empty((count, len(state))), np.empty(count), np.empty((count, 4))
    waits, did = np.empty(count), np.empty(count, np.int64)
    follow(read.code, read.values, state, np.array(home), after, length, turn, waits, did)
    goes = (did == MOVED) | (did == HOMED)
    return tuple((float(x), float(y), float(z)) for x, y, z in after[goes, :3]), bool((did == HOMED).any())
