"""What kind of quantity stands at each place of a plan or a card, so that typed text can be read there."""

from fractions import Fraction
from typing import Any

from bridle.core.quantity import read

# How the text typed at a path is read. A path that is in none of these tables takes its text as it stands.
KINDS_BY_PATH = {
    "clip.shoot": "shoot",
    "clip.interval": "duration",
    "clip.frames": "count",
    "clip.rate": "rate",
    "clip.clip": "duration",
    "clip.speed_up": "times",
    "clip.spare": "share",
    "clip.event_spread": "share",
    "shoot.clock.tied.offset_s": "number",
    "shoot.clock.until.offset_s": "number",
    "beat.margin": "share",
    "beat.stack.overlap": "share",
    "beat.uncoupled.drift_ppm": "number",
    "camera.aperture": "f-number",
    "camera.iso": "count",
    "picture.reserve": "share",
    "camera.corrected": "share",
    "camera.lens_px": "pixels",
    "light.shutter_short_s": "duration",
    "light.shutter_long_s": "duration",
    "light.iso_low": "count",
    "light.iso_high": "count",
    "light.aperture_wide": "f-number",
    "light.aperture_narrow": "f-number",
    "light.town_lx": "number",
    "light.lamp_k": "number",
    "light.air_c": "number",
    "light.humidity": "share",
    "camera.extension_mm": "focal",
    "camera.thread_mm": "focal",
    "move.visits.overlap": "share",
    "move.legs": "count",
    "rig.controller.output": "count",
    "rig.standing.rail_at": "share",
    "rig.standing.friction": "number",
    "trigger.certainty": "share",
    "trigger.look.picture_kb": "number",
    "trigger.look.link_w": "number",
    "trigger.ground_ohm_per_m": "number",
    "season.storing.reserve": "share",
    "season.storing.copies": "count",
    "season.powering.aged": "share",
    "season.powering.outage_s": "shoot",
    "season.powering.panels": "count",
    "season.climate.usual": "share",
    "season.climate.cloudy": "share",
    "season.climate.dewy": "share",
}
_ENDINGS = {
    "_s": "duration",
    "_mm": "length",
    # Optics are millimetres to everybody.
    "focal_mm": "focal",
    "focal_to_mm": "focal",
    "zoom_mm": "focal",
    "sensor_width_mm": "focal",
    "sensor_height_mm": "focal",
    "circle_mm": "focal",
    "thread_mm": "focal",
    "_deg": "angle",
    "_g": "mass",
    "_px": "pixels",
    "_frames": "count",
    "_frame": "count",
    "_stops": "stops",
    "_deg_min": "deg/min",
    "length_s": "shoot",
    "cross_s": "shoot",
    "apart_s": "shoot",
    "longest_run_s": "shoot",
    # Of circuits: read in the unit that the field names.
    "_v": "number",
    "_ma": "number",
    "_ohm": "number",
    "_w": "number",
    "_j": "number",
    "_c": "number",
    "_mb": "number",
    "_ppm": "number",
    "_months": "number",
    "_m_s": "number",
    "_days": "count",
    "_mm_month": "length",
    "takes_s": "shoot",
    "run_s": "shoot",
}
_AXIS_KINDS = {
    "low": ("length", "angle"),
    "high": ("length", "angle"),
    "top_speed": ("mm/s", "deg/s"),
    "acceleration": ("mm/s²", "deg/s²"),
    "backlash": ("length", "angle"),
    "division": ("length", "angle"),
    "grid": ("length", "angle"),
    "each": ("length", "angle"),
    "full_per_h": ("mm/h", "deg/h"),
}
_LAST = {
    "stops": "stops",
    "iso": "count",
    "aperture": "f-number",
    "only_f": "f-number",
    "frame": "count",
    "across": "share",
    "down": "share",
    "width": "share",
    "clear": "share",
}
_NUMBERS = frozenset(
    (
        "full_steps",
        "microsteps",
        "teeth",
        "ratio",
        "torque_nmm",
        "detent_nmm",
        "efficiency",
        "correction",
        "low_setting",
        "least_number",
        "most_number",
        "number_step",
        "high_setting",
        "setting_step",
        "dial",
        "count",
        "modulus_gpa",
        "density_kg_m3",
        "shaft_nmm",
        "power_w",
        "peak_a",
        "gives_a",
        "area_mm2",
        "ohm_per_m",
        "widest_f",
        "volts",
        "amp_hours",
        "usable",
        "gigabytes",
        "write_mb_s",
        "watts",
        "kelvin",
        "most_frames",
        "buffer_frames",
        "factor",
        "channels",
        "presses",
        "may_miss",
        "counter_at",
        "counter_last",
        "shutter_done",
        "shutter_rated",
        "spans",
        "step_min",
        "holes",
        "closed",
    )
)


def kind_of(path: str, linear: bool = True) -> str | None:
    """The kind of quantity that stands at a path; None for plain text. `linear` tells which axis it belongs to."""
    if path in KINDS_BY_PATH:
        return KINDS_BY_PATH[path]
    if path.startswith("beat.bracket_times_s."):
        return "duration"
    if path.startswith("trigger.lamps.") and ".levels." in path:
        return "share"
    last = path.rpartition(".")[2]
    if last in _AXIS_KINDS:
        return _AXIS_KINDS[last][0 if linear else 1]
    if last in _LAST:
        return _LAST[last]
    if last in _NUMBERS:
        return "number"
    endings = [ending for ending in _ENDINGS if last.endswith(ending)]
    return _ENDINGS[max(endings, key=len)] if endings else None


def as_stored(standing: Any, path: str, value: Fraction) -> Any:
    """Exact values stay exact, counts whole; what has stood empty takes the form that its place asks for."""
    if isinstance(standing, str) or (standing is None and path.endswith("_s")):
        return str(value)
    if isinstance(standing, int) and value.denominator == 1 and not isinstance(standing, bool):
        return int(value)
    return float(value)


def read_at(path: str, text: str, standing: Any, linear: bool = True, imperial: bool = False) -> Any:
    """Typed text as the JSON value that belongs at a path. Raises `QuantityError`."""
    kind = kind_of(path, linear)
    if kind is None:
        return text.strip()
    return as_stored(standing, path, read(text, kind, imperial))
