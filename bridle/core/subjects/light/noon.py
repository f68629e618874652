"""When the sun stands highest, to within a minute: enough to say to which day its rising belongs."""

import math

DAY_S, NOON_S = 86_400, 43_200
# 1 January 2000, from which days of the year are counted on; how long a year is.
EPOCH_S, YEAR_DAYS = 946_684_800, 365.2422


def equation_of_time_s(at_unix_s: float) -> float:
    """By how much a sundial is ahead of the mean sun, in seconds (Spencer 1971; within a minute)."""
    turn = math.tau * ((at_unix_s - EPOCH_S) / DAY_S % YEAR_DAYS) / YEAR_DAYS
    minutes = 229.18 * (
        0.000075
        + 0.001868 * math.cos(turn)
        - 0.032077 * math.sin(turn)
        - 0.014615 * math.cos(2 * turn)
        - 0.040849 * math.sin(2 * turn)
    )
    return 60 * minutes


def solar_noon_s(near_unix_s: float, longitude_deg: float) -> float:
    """The highest stand of the sun that is nearest to a moment, as Unix time; east is positive."""
    mean = NOON_S - longitude_deg / 360 * DAY_S
    days = round((near_unix_s - mean) / DAY_S)
    return days * DAY_S + mean - equation_of_time_s(near_unix_s)
