"""A prime or wiping tower, where a file's comments say what they print: where it stands, in how many layers."""

import re
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints.follow import MOVED, PUSHED

TOWERS = re.compile(rb"\btower\b|\b(?:prime|wipe|purge)[ _-]?(?:tower|block|pillar)\b", re.I)
Feature = tuple[int, bytes]


@lru_cache(maxsize=200)
def _is_tower(text: bytes) -> bool:
    return bool(TOWERS.search(text))


class Tower:
    """What is printed between a comment that says tower and the next that says something else."""

    def __init__(self) -> None:
        """Nothing yet."""
        self.box = [np.inf, -np.inf, np.inf, -np.inf]
        self.layers: set[int] = set()
        self._inside = False

    def take(
        self,
        features: list[Feature],
        before: NDArray[np.float64],
        after: NDArray[np.float64],
        did: NDArray[np.int64],
        layer: NDArray[np.int64],
    ) -> None:
        """Take a piece: which line says what, the states before it and after each line, what each did, its layer."""
        if not self._inside and not features:
            return
        inside, was = np.zeros(len(did), bool), 0
        for line, text in features:
            inside[was:line] = self._inside
            was, self._inside = line, _is_tower(text)
        inside[was:] = self._inside
        if not inside.any():
            return
        pushed = np.diff(after[:, PUSHED], prepend=before[PUSHED])
        lines = np.flatnonzero(inside & (did == MOVED) & (pushed > 0))
        if not len(lines):
            return
        for at in (after[lines], np.where(lines[:, None] > 0, after[lines - 1], before)):
            low, high = at[:, :2].min(0), at[:, :2].max(0)
            self.box = [
                min(self.box[0], low[0]),
                max(self.box[1], high[0]),
                min(self.box[2], low[1]),
                max(self.box[3], high[1]),
            ]
        self.layers |= set(layer[lines].tolist())

    @property
    def found(self) -> tuple[float, float, float, float] | None:
        """Where it stands: x, X, y, Y; None where there is none."""
        x0, x1, y0, y1 = (float(side) for side in self.box)
        return (x0, x1, y0, y1) if self.layers else None
