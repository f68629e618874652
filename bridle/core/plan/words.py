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

# What the figures of a card are called in a sentence, where their names alone would not say it.
CARD_WORDS = {
    "low": "reaches from",
    "high": "reaches to",
    "top_speed": "top speed",
    "carries_g": "carries",
    "screw_mm": "screw stands out",
    "hole_mm": "hole is deep",
    "shaft_nmm": "shaft takes",
    "off_axis_mm": "load stands off the axis",
    "peak_a": "draws at most",
    "power_w": "draws",
    "turns": "turns as",
    "motion": "moves",
    "below": "thread below",
    "above": "thread above",
    "interval_floor_s": "shortest real interval",
    "interval_step_s": "interval step",
    "wake_s": "wakes in",
    "lag_s": "shutter lag",
    "settle_s": "settles in",
    "write_s": "writes in",
    "sleeps_after_s": "sleeps after",
    "focal_mm": "focal length",
    "focal_to_mm": "zooms to",
    "carriage_g": "carriage, mass",
    "carriage_mm": "carriage, length",
    "length_mm": "length",
    "end_margin_mm": "margin at each end",
}
