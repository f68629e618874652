"""Where to start for a subject: the interval that suits it, from what it does between two frames.

The ranges are common practice, narrowed to what the job asks for; they are starting points, not limits.
"""

from dataclasses import dataclass
from fractions import Fraction

from bridle.core.figure import Formula

CROSSING = Formula(
    "crossing / (screen * rate)", "the subject crosses the picture in so many seconds of clip, one step a frame"
)
TRIAL = Formula(
    "step / (moved / apart)", "the step wanted from frame to frame over the speed that two trial frames show"
)
TRIAL_CHANGE = Formula("moved / apart * shoot", "the speed that the trial shows, over the whole shoot")


@dataclass(frozen=True)
class StartingPoint:
    """A subject, its interval from `low_s` to `high_s` in seconds, and the reason."""

    key: str
    name: str
    low_s: int
    high_s: int
    reason: str


POINTS: tuple[StartingPoint, ...] = (
    StartingPoint(
        "traffic", "traffic", 1, 2, "Cars pass in a second or two; any longer and they jump about instead of flowing."
    ),
    StartingPoint("crowd", "a crowd", 1, 3, "People take a step or two between frames and can still be followed."),
    StartingPoint(
        "fast-clouds",
        "fast clouds",
        1,
        3,
        "Low cloud in wind crosses the picture within minutes; its edges would tear.",
    ),
    StartingPoint("sunset", "sunset", 4, 10, "The light changes slowly, the clouds beside it do not."),
    StartingPoint("slow-clouds", "slow clouds", 5, 12, "High cloud drifts; shorter intervals only fill the card."),
    StartingPoint(
        "dough", "dough, a pan", 5, 20, "It swells by a little every minute; the kitchen light is the limit."
    ),
    StartingPoint("tide", "the tide", 8, 30, "Water and boats rise by millimetres; waves are noise at any interval."),
    StartingPoint("shadows", "shadows", 10, 30, "A shadow's edge creeps a degree in four minutes."),
    StartingPoint(
        "stars", "stars", 15, 40, "The exposure itself takes most of it; the sky turns a degree in four minutes."
    ),
    StartingPoint(
        "flowers", "flowers opening", 120, 600, "Hours from bud to bloom; a shorter interval stores days of nothing."
    ),
    StartingPoint(
        "seedlings", "seedlings", 300, 1200, "Days of growth, with nodding in between that short intervals show."
    ),
    StartingPoint(
        "site", "a building site", 300, 1800, "Weeks of work; people and machines are gone by the next frame anyway."
    ),
)


def point(key: str) -> StartingPoint | None:
    """The starting point of that key."""
    return next((one for one in POINTS if one.key == key), None)


def crossing_interval(cross_s: Fraction, screen_s: Fraction, rate: Fraction) -> Fraction:
    """`T = X / (s·f)`: real crossing time over the frames that the crossing takes on screen; seconds."""
    return cross_s / (screen_s * rate)


def trial_interval(apart_s: Fraction, moved_px: Fraction, step_px: Fraction) -> Fraction:
    """The interval after which the subject has moved by the step, from two trial frames; seconds."""
    return step_px * apart_s / moved_px
