"""A spring that turns at one rate: its sweep follows from the time, or the time from the sweep."""

from bridle.core.figure import Formula

SWEEP = Formula("rate * seconds / 60", "its rate over the time of the move")
TIME = Formula("sweep / rate * 60", "how long it takes for a sweep")


def sweep_deg(rate_deg_min: float, seconds: float) -> float:
    """How far it turns in a time."""
    return rate_deg_min * seconds / 60


def seconds_for(sweep_deg: float, rate_deg_min: float) -> float:
    """How long it takes for a sweep."""
    return sweep_deg / rate_deg_min * 60
