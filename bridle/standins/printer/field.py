"""What is printed already, as heights over the bed: where it stands, a nozzle or a head that comes lower meets it.

Lengths in mm. A bead is as wide as its filament makes it over the height between the nozzle and what lies under it.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from bridle.standins.printer.compiled import Array, compiled

# Cells are half as wide as the usual nozzle; a bead is this wide at least and at most.
CELL, NARROW, BROAD = 0.2, 0.2, 1.2
FILAMENT_MM2 = math.pi * (1.75 / 2) ** 2
FLATTEST, THICKEST = 0.04, 1.0
STEP = 0.1
# The head is looked at in coarser cells, and this much within its outline.
COARSE, WITHIN = 10, 1.0
Three = tuple[float, float, float]


class Field:
    """Heights over a bed from `low` to `high`; what is laid down outside of it is not kept."""

    def __init__(self, low: Three, high: Three) -> None:
        """An empty bed."""
        self.low = (low[0], low[1])
        shape = (max(1, math.ceil((high[1] - low[1]) / CELL)), max(1, math.ceil((high[0] - low[0]) / CELL)))
        self.heights = np.zeros(shape, np.float32)
        # What was laid before the first layer: purge lines, and wipes.
        self.early = np.zeros(shape, np.bool_)
        self.top = 0.0

    def lay(self, moves: Array) -> None:
        """Printed straights as rows: from, to, the filament of each, and whether it came before the first layer."""
        if len(moves):
            self.top = max(self.top, float(moves[:, 2].max()), float(moves[:, 5].max()))
            _lay(self.heights, self.early, moves, self.low[0], self.low[1])

    def met(self, way: Sequence[Three], free: Sequence[Three], within: float, over: float) -> "Met | None":
        """The first place of a way at which the nozzle is more than `over` lower than what stands there.

        `free` is another way, or single places: within so much of it, and not lower, nothing is met.
        """
        ways = np.asarray(way, np.float64), np.asarray(free, np.float64).reshape(-1, 3)
        found = _met(self.heights, self.early, *ways, self.low[0], self.low[1], within, over)
        return _told(found)

    def under(self, way: Sequence[Three], outline: tuple[float, ...]) -> "Met | None":
        """The first place of a way at which a part of the head meets something: x, X, y, Y and z about the nozzle."""
        found = _under(self.heights, np.asarray(way, np.float64), self.low[0], self.low[1], np.asarray(outline))
        return _told(found)


@dataclass(frozen=True, slots=True)
class Met:
    """On which leg of a way, and where the nozzle stood (mm); how far what stands there reaches above it.

    `early` is whether that was laid before the first layer.
    """

    leg: int
    at: Three
    above: float
    early: bool


def _told(found: tuple[int, float, float, float, float, bool]) -> Met | None:
    leg, x, y, z, above, early = found
    return Met(leg, (x, y, z), above, bool(early)) if leg else None


@compiled
def _lay(heights: Array, early: Array, moves: Array, left: float, front: float) -> None:
    rows, columns = heights.shape
    for n in range(len(moves)):
        x, y, z, to_x, to_y, to_z, pushed, first = moves[n]
        way = math.sqrt((to_x - x) ** 2 + (to_y - y) ** 2 + (to_z - z) ** 2)
        if way <= 0:
            continue
        column, row = int(((x + to_x) / 2 - left) / CELL), int(((y + to_y) / 2 - front) / CELL)
        under = 0.0
        if 0 <= row < rows and 0 <= column < columns and heights[row, column] < z - FLATTEST:
            under = heights[row, column]
        thick = min(THICKEST, max(FLATTEST, z - under))
        half = min(BROAD, max(NARROW, pushed * FILAMENT_MM2 / (way * thick))) / 2
        last, steps = 0.0, int(way / CELL * 1.5) + 1
        for k in range(steps + 1):
            share = k / steps
            last = z + (to_z - z) * share
            at_x, at_y = x + (to_x - x) * share, y + (to_y - y) * share
            for row in range(int((at_y - half - front) / CELL + 0.5), int((at_y + half - front) / CELL + 0.5)):
                if row < 0 or row >= rows:
                    continue
                for column in range(int((at_x - half - left) / CELL + 0.5), int((at_x + half - left) / CELL + 0.5)):
                    if 0 <= column < columns and heights[row, column] < last:
                        heights[row, column] = last
                        early[row, column] = first > 0


@compiled
def _is_free(x: float, y: float, z: float, free: Array, within: float) -> bool:
    """Whether a place lies beside another way, and not under it; that way is a row of places."""
    for n in range(len(free)):
        m = max(0, n - 1)
        dx, dy, dz = free[n, 0] - free[m, 0], free[n, 1] - free[m, 1], free[n, 2] - free[m, 2]
        far = dx * dx + dy * dy
        share = 0.0
        if far > 0:
            share = min(1.0, max(0.0, ((x - free[m, 0]) * dx + (y - free[m, 1]) * dy) / far))
        near_x, near_y = free[m, 0] + dx * share - x, free[m, 1] + dy * share - y
        # Straight up or down it has been at both ends.
        high = min(free[m, 2], free[n, 2]) if far == 0 else free[m, 2] + dz * share
        if near_x * near_x + near_y * near_y <= within * within and z >= high - 1e-6:
            return True
    return False


@compiled
def _met(
    heights: Array, early: Array, way: Array, free: Array, left: float, front: float, within: float, over: float
) -> tuple[int, float, float, float, float, bool]:
    rows, columns = heights.shape
    for n in range(1, len(way)):
        dx, dy, dz = way[n, 0] - way[n - 1, 0], way[n, 1] - way[n - 1, 1], way[n, 2] - way[n - 1, 2]
        steps = int(math.sqrt(dx * dx + dy * dy) / STEP) + 1
        for k in range(steps + 1):
            share = k / steps
            x, y, z = way[n - 1, 0] + dx * share, way[n - 1, 1] + dy * share, way[n - 1, 2] + dz * share
            row, column = int((y - front) / CELL), int((x - left) / CELL)
            if row < 0 or row >= rows or column < 0 or column >= columns or y < front or x < left:
                continue
            above = heights[row, column] - z
            if above > over and not _is_free(x, y, z, free, within):
                return n, x, y, z, above, early[row, column]
    return 0, 0.0, 0.0, 0.0, 0.0, False


@compiled
def _under(
    heights: Array, way: Array, left: float, front: float, outline: Array
) -> tuple[int, float, float, float, float, bool]:
    rows, columns = heights.shape
    size = CELL * COARSE
    for n in range(1, len(way)):
        dx, dy, dz = way[n, 0] - way[n - 1, 0], way[n, 1] - way[n - 1, 1], way[n, 2] - way[n - 1, 2]
        steps = int(math.sqrt(dx * dx + dy * dy) / size) + 1
        for k in range(steps + 1):
            share = k / steps
            x, y, z = way[n - 1, 0] + dx * share, way[n - 1, 1] + dy * share, way[n - 1, 2] + dz * share
            first_row = max(0, int((y + outline[2] + WITHIN - front) / CELL))
            last_row = min(rows, int((y + outline[3] - WITHIN - front) / CELL))
            first_column = max(0, int((x + outline[0] + WITHIN - left) / CELL))
            last_column = min(columns, int((x + outline[1] - WITHIN - left) / CELL))
            for row in range(first_row, last_row):
                for column in range(first_column, last_column):
                    if heights[row, column] > z + outline[4]:
                        return n, x, y, z, heights[row, column] - z - outline[4], False
    return 0, 0.0, 0.0, 0.0, 0.0, False
