"""Asking work windows for an interval, for so many frames or so long a clip: which interval makes that of them."""

from fractions import Fraction

from bridle.core.plan.clip import LONGEST_INTERVAL_S, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Windows
from bridle.core.reckon.frames.found import rate_of
from bridle.core.reckon.frames.windows import Lengths, lengths_of
from bridle.core.subjects.time.cycle import FINEST_S

ASKED: tuple[Quantity, ...] = ("interval", "frames", "clip")


def asks_windows(plan: Plan, quantity: Quantity) -> bool:
    """Whether work windows answer for a quantity, and not a peg."""
    return isinstance(plan.frames, Windows) and quantity in ASKED


def interval_for(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """The edit that sets the interval, or the interval whose frames come nearest to what is asked, more where two do.

    Raises ValueError where rules with an interval of their own take all there is, or no window is open at all.
    """
    if quantity == "interval":
        return [Edit(path="frames.every_s", value=str(value))]
    wanted = max(Fraction(1), value * rate_of(plan) if quantity == "clip" else value)
    step, lengths = plan.clip.interval_step_s or FINEST_S, lengths_of(plan)
    if not lengths.free_s.size:
        raise ValueError("no window is open that goes by the interval of the shoot: it changes nothing")
    return [Edit(path="frames.every_s", value=str(step * _steps_for(lengths, step, wanted)))]


def _steps_for(lengths: Lengths, step: Fraction, wanted: Fraction) -> int:
    """The most steps with which there are still so many frames, or one more where that comes nearer."""
    low, high = 1, max(1, int(LONGEST_INTERVAL_S / step))
    if lengths.frames(step) < wanted:
        return 1
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if lengths.frames(step * middle) >= wanted else (low, middle)
    over, under = lengths.frames(step * low) - wanted, wanted - lengths.frames(step * high)
    return high if 0 <= under < over else low
