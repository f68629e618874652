"""Whether a shoot is long enough to show what a trial has shown to move."""

from fractions import Fraction

from bridle.core.plan.document import Plan
from bridle.core.reckon.picture import kept

# Below this share of the picture's width a clip looks like a still with a fault.
LEAST_CHANGE = Fraction(3, 100)


def change_px(plan: Plan, shoot_s: Fraction) -> Fraction | None:
    """How far the subject moves over a shoot of some length, by the trial; None without one."""
    trial = plan.clip.trial
    return None if trial is None else trial.moved_px / trial.apart_s * shoot_s


def shows(plan: Plan, shoot_s: Fraction) -> bool:
    """Whether that is enough to be seen; nobody knows better without a trial."""
    change = change_px(plan, shoot_s)
    return change is None or change >= LEAST_CHANGE * kept(plan).width_px
