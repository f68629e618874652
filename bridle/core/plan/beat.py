"""The beat section: what one interval of a shoot-move-shoot has to hold, in seconds."""

from fractions import Fraction

from bridle.core.plan.values import Duration, PositiveDuration, Section, Share


class Beat(Section):
    """Times of one cycle; the margin is a share of the interval, never less than the least margin."""

    wake_s: Duration = Fraction(0)
    lag_s: Duration = Fraction(6, 100)
    exposure_s: PositiveDuration = Fraction(1, 60)
    write_s: Duration = Fraction(6, 10)
    settle_s: Duration = Fraction(8, 10)
    write_while_moving: bool = True
    margin: Share = Fraction(1, 10)
    least_margin_s: Duration = Fraction(1, 10)
