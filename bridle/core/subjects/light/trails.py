"""How far stars are drawn out while the shutter is open, and how long it may be."""

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats

# Seconds of arc that the sky turns in a second, on the celestial equator: 360° in a day of the stars.
DRIFT_ARCSEC_S = 15.041
DRIFT_RAD_S = np.radians(DRIFT_ARCSEC_S / 3600)
DRIFT = Formula(
    "pixels / (15.041 / 3600 * cos(radians(declination)) * scale)",
    "the sky turns by 15.04 seconds of arc a second on its equator, less towards its poles; the scale is the one that "
    "holds at this place of the picture, along the star's way",
)
DRAWN = Formula(
    "15.041 / 3600 * cos(radians(declination)) * scale * seconds", "how far the sky turns meanwhile, in pixels there"
)
RULE_500 = Formula("500 / focal", "a quick rule of thumb, for the focal length as it would be on full frame")
RULE_PIXELS = Formula("(35 * f_number + 30 * pitch) / focal", "a quick rule that knows the pixel pitch, in micrometres")


def longest_s(pixels: float, declination_deg: Floats | float, px_per_deg: Floats | float) -> Floats:
    """How long the shutter may be open until a star is drawn out over so many pixels, in seconds."""
    turn = DRIFT_ARCSEC_S / 3600 * np.cos(np.radians(np.asarray(declination_deg)))
    with np.errstate(divide="ignore"):
        return np.asarray(pixels / (turn * px_per_deg))


def rule_500_s(focal_mm: float) -> float:
    """The oldest of the quick rules; `focal_mm` as on full frame."""
    return 500 / focal_mm


def rule_pixels_s(f_number: float, pitch_um: float, focal_mm: float) -> float:
    """The quick rule that asks for the pixels."""
    return (35 * f_number + 30 * pitch_um) / focal_mm


def declination_deg(azimuth_deg: Floats | float, altitude_deg: Floats | float, latitude_deg: float) -> Floats:
    """The declination of a direction in the sky (Meeus, chapter 13)."""
    up, here, turn = np.radians(altitude_deg), np.radians(latitude_deg), np.radians(azimuth_deg)
    sine = np.sin(here) * np.sin(up) + np.cos(here) * np.cos(up) * np.cos(turn)
    return np.asarray(np.degrees(np.arcsin(np.clip(sine, -1, 1))))
