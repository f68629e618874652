"""Names and units of the quantities of a clip, as all of Bridle speaks of them."""

LABELS = {
    "shoot": "shoot length",
    "interval": "interval",
    "frames": "frames",
    "rate": "playback rate",
    "clip": "clip length",
    "speed_up": "speed-up",
}
UNITS = {"shoot": "s", "interval": "s", "frames": "frames", "rate": "rate", "clip": "s", "speed_up": "times"}
