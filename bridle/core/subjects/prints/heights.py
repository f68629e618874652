"""Layers told by their heights alone: a layer is printed over the part, above the one before it.

A line on the bed beside the part is none, nor is a detail that is printed lower than the layer at work. Heights in mm.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints import gather as g

Rows = NDArray[np.float64]
SAME_MM = 0.005
# A further object begins about where the first one did.
BEGINS = 1.5
# Boxes that are nearer than this are over one another.
BESIDE_MM = 0.5


@dataclass(frozen=True, slots=True)
class Grouped:
    """Which rows come before the first layer, and which make each layer (row numbers)."""

    before: tuple[int, ...]
    layers: tuple[tuple[int, ...], ...]


def grouped(facts: Rows) -> Grouped:
    """`facts` are the rows of a table, the first of which is what was printed before any height was seen."""
    rows = [n for n in range(1, len(facts)) if facts[n, g.MOVES] > 0]
    before = _before(facts, rows)
    rows = rows[len(before) :]
    layers: list[list[int]] = []
    first = top = float(facts[rows[0], g.HEIGHT]) if rows else 0.0
    for at, row in enumerate(rows):
        z = float(facts[row, g.HEIGHT])
        higher = not layers or z > top + SAME_MM
        if higher or _begins(facts, rows[at:], first, top):
            layers.append([row])
            top = z
        else:
            layers[-1].append(row)
    return Grouped(tuple(before), tuple(tuple(one) for one in layers))


def merged(facts: Rows, rows: tuple[int, ...]) -> Rows:
    """The facts of several rows as those of one layer."""
    part: Rows = facts[list(rows)]
    found: Rows = part[0].copy()
    for column in (g.SECONDS, g.FILAMENT, g.WAY, g.MOVES, g.RISING):
        found[column] = part[:, column].sum()
    for column in (g.X0, g.Y0, g.OUT_X0, g.OUT_Y0, g.LOW):
        found[column] = part[:, column].min()
    for column in (g.X1, g.Y1, g.OUT_X1, g.OUT_Y1, g.HEIGHT, g.TOP):
        found[column] = part[:, column].max()
    return found


def places(facts: Rows, table: Rows, rows: tuple[int, ...]) -> Rows:
    """The places of a stop of several rows: where the last of them ends that is as high as the layer.

    From a detail that lies lower the head would leave through the part.
    """
    top = max(facts[row, g.HEIGHT] for row in rows)
    last = [row for row in rows if facts[row, g.HEIGHT] > top - SAME_MM][-1]
    found: Rows = table[last].copy()
    if len(rows) > 1:
        found[g.CHANGE] = found[g.END]
    fills = [table[row, g.FILL] for row in rows if row <= last and not np.isnan(table[row, g.FILL, g.BYTE])]
    if fills:
        found[g.FILL] = fills[0]
    return found


def _before(facts: Rows, rows: list[int]) -> list[int]:
    """A first row that is not under the second is no layer."""
    count = 0
    while count + 1 < len(rows):
        one, other = facts[rows[count]], facts[rows[count + 1]]
        if one[g.HEIGHT] < other[g.HEIGHT] - SAME_MM and _over(one, other):
            break
        count += 1
        if count > len(rows) // 2:
            return []
    return rows[:count]


def _over(one: Rows, other: Rows) -> bool:
    return bool(
        one[g.X0] <= other[g.X1] + BESIDE_MM
        and other[g.X0] <= one[g.X1] + BESIDE_MM
        and one[g.Y0] <= other[g.Y1] + BESIDE_MM
        and other[g.Y0] <= one[g.Y1] + BESIDE_MM
    )


def _begins(facts: Rows, rows: list[int], first: float, top: float) -> bool:
    """Whether rows that are lower begin a further object: on the bed again, and rising from there."""
    z = float(facts[rows[0], g.HEIGHT])
    if z > first * BEGINS or z > top - SAME_MM or len(rows) < 2:
        return False
    following = float(facts[rows[1], g.HEIGHT])
    return z + SAME_MM < following <= z + max(first * BEGINS, top - z - SAME_MM)
