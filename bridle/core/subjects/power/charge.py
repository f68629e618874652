"""A battery: what of it can be used, and how its charge goes up and down from hour to hour."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import NamedTuple

from bridle.core.figure import Formula

# The share of its charge at 25 °C that a battery gives in the cold: sheets of usual lead and lithium batteries.
COLD_SHARES: dict[bool, tuple[tuple[float, float], ...]] = {
    False: ((-20, 0.50), (-10, 0.66), (0, 0.80), (10, 0.91), (25, 1.0)),
    True: ((-20, 0.60), (-10, 0.75), (0, 0.87), (10, 0.95), (25, 1.0)),
}
USABLE = Formula("volts * hours * share * (1 - aged) * cold", "charge, how deep it may be emptied, its age, the cold")
# Lithium that is charged below freezing is damaged for good.
LITHIUM_CHARGES_FROM_C = 0.0
HOUR_S = 3600


class Charged(NamedTuple):
    """The charge at the beginning of each hour and at the end of the last (Wh), and the first hour that empties it.

    `lost_h` are the hours in which it could not give what was asked.
    """

    levels: list[float]
    empty_at: int | None
    lost_h: int


def cold_share(lithium: bool, celsius: float) -> float:
    """The share of its charge that a battery gives at a temperature: straight lines between the rows of the table."""
    rows = COLD_SHARES[lithium]
    if celsius <= rows[0][0]:
        return rows[0][1]
    for (cold, low), (warm, high) in pairwise(rows):
        if celsius <= warm:
            return low + (high - low) * (celsius - cold) / (warm - cold)
    return 1.0


def stepped(
    gained: Sequence[float], drawn: Sequence[float], full: float, swaps: Mapping[int, float] | None = None
) -> Charged:
    """The charge hour by hour, never above full and never below nothing; full at the start and after each swap.

    `gained` and `drawn` are Wh of each hour; a swap stands at its hour, with the share of that hour before it.
    """
    level, levels, empty_at, lost = full, [full], None, 0
    swaps = swaps or {}
    for hour, (more, less) in enumerate(zip(gained, drawn, strict=True)):
        before = swaps.get(hour)
        if before is not None:
            spent = level + (more - less) * before
            if spent < 0 and empty_at is None:
                empty_at = hour
            level, more, less = full, more * (1 - before), less * (1 - before)
        level += more - less
        if level < 0:
            level, lost = 0.0, lost + 1
            empty_at = hour if empty_at is None else empty_at
        elif level > full:
            level = full
        levels.append(level)
    return Charged(levels, empty_at, lost)
