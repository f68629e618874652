"""Whether a straight meets a box: a lever that is pressed, a body that is touched. Lengths in mm."""

from bridle.standins.printer.model import Box, Three


def holds(at: Three, box: Box, slack: float) -> bool:
    """Whether a place lies in a box that lets go later than it catches."""
    return all(box[2 * n] - slack <= at[n] <= box[2 * n + 1] + slack for n in range(3))


def within(a: Three, b: Three, box: Box) -> tuple[float, float] | None:
    """From which share of a straight to which it lies in a box; nothing where it never does."""
    enter, leave = 0.0, 1.0
    for n in range(3):
        low, high, way = box[2 * n], box[2 * n + 1], b[n] - a[n]
        if abs(way) < 1e-12:
            if not low <= a[n] <= high:
                return None
            continue
        first, last = (low - a[n]) / way, (high - a[n]) / way
        if first > last:
            first, last = last, first
        enter, leave = max(enter, first), min(leave, last)
        if enter > leave:
            return None
    return enter, leave
