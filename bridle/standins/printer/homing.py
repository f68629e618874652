"""From where an axis may come home: what is not known yet may stand anywhere. Lengths in mm."""

from collections.abc import Set
from itertools import product

from bridle.standins.printer.model import Model, Three

AXES = "XYZ"
# A head that is switched on stands beside the switch, and does not hold it down.
BESIDE_MM = 0.01


def starts(model: Model, at: Three, known: Set[str], n: int) -> list[Three]:
    """Where the head may stand when axis `n` sets off: at both ends of what is not known, and level with the switch."""
    choices: list[tuple[float, ...]] = []
    for m, axis in enumerate(AXES):
        if axis in known or (m != n and model.key is None):
            choices.append((at[m],))
        elif m == n:
            choices.append(_ends(model, n))
        else:
            choices.append(_level(model, m))
    return [(x, y, z) for x, y, z in product(*choices)]


def _ends(model: Model, n: int) -> tuple[float, ...]:
    low, high, key = model.low[n], model.high[n], model.key
    if key is None or AXES[n] != key.axis:
        return (low, high)
    free = key.clicks - key.sign * (key.lets_go + BESIDE_MM)
    return (min(low, free), min(high, free)) if key.sign > 0 else (max(low, free), max(high, free))


def _level(model: Model, m: int) -> tuple[float, ...]:
    key = model.key
    assert key is not None
    if AXES[m] == key.axis:
        return _ends(model, m)
    return (model.low[m], key.at[1] if m == 2 else key.at[0], model.high[m])


def put(at: Three, n: int, to: float) -> Three:
    """A place with one of its axes elsewhere."""
    x, y, z = (to if m == n else one for m, one in enumerate(at))
    return x, y, z
