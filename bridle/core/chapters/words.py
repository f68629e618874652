"""Names and units of the quantities of a clip, as the chapters speak of them."""

LABELS = {
    "shoot": "shoot length",
    "interval": "interval",
    "frames": "frames",
    "rate": "playback rate",
    "clip": "clip length",
    "speed_up": "speed-up",
}
UNITS = {"shoot": "s", "interval": "s", "frames": "frames", "rate": "rate", "clip": "s", "speed_up": "times"}


def listed(names: list[str] | tuple[str, ...]) -> str:
    """`a`, `a and b`, `a, b and c`."""
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else list(names))
