"""What was printed and is not yet part of the heights over the bed: printed straights, one a row."""

import numpy as np

from bridle.standins.printer.compiled import Array

# From, to, filament, and whether it came before the first layer.
WIDE, ROOM = 8, 8192


class Laid:
    """Rows that are written down one after another: `rows` has room for more than the `count` that there are."""

    def __init__(self) -> None:
        """None yet."""
        self.rows: Array = np.empty((ROOM, WIDE))
        self.count = 0

    def add(self, row: tuple[float, ...]) -> None:
        """One straight more."""
        if self.count == len(self.rows):
            self.rows = np.concatenate([self.rows, np.empty_like(self.rows)])
        self.rows[self.count] = row
        self.count += 1

    def taken(self, count: int) -> Array:
        """The first ones, which are no longer kept; they hold until the next is added."""
        first = self.rows[:count].copy() if count < self.count else self.rows[:count]
        self.rows[: self.count - count] = self.rows[count : self.count].copy()
        self.count -= count
        return first
