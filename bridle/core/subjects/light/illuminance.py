"""How bright a scene is: from the heights of sun and moon to the exposure value that renders it."""

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers import monotone
from bridle.core.subjects.numbers.arrays import Floats

# Illuminance of level ground under a clear sky, in lux, by the sun's true altitude in degrees: published values of
# daylight and twilight. Below the last it is starlight already, and stays.
CLEAR_SKY: tuple[tuple[float, float], ...] = (
    (-18, 0.00065), (-15, 0.00202), (-12, 0.00831), (-9, 0.116), (-6, 3.40), (-5, 10.4), (-3, 79), (-0.8, 453),
    (0, 732), (2.5, 2290), (5, 4760), (10, 10_900), (15, 19_200), (20, 27_400), (30, 46_700), (45, 77_800),
    (60, 102_000), (90, 124_000),
)  # fmt: skip
# The full moon overhead, in lux; and the share that is left of it at lower altitudes.
FULL_MOON_LX = 0.27
MOON_SHARES: tuple[tuple[float, float], ...] = ((0, 0.0), (10, 0.10), (30, 0.36), (60, 0.80), (90, 1.0))
# A scene of average reflectance that gets so many lux has EV100 = log2(E / 2.5): an incident-light meter's usual
# constant of 250, over ISO 100.
PER_EV0_LX = 2.5
EV_OF_LX = Formula("log2(light / 2.5)", "as an incident-light meter is set: 2.5 lx are EV100 0")
TOGETHER = Formula("(sun + moon) / 2**cloud + town", "sun and moon through the cloud, and what lamps add")
MOON = Formula(
    "0.27 / 10**(0.4 * (0.026 * phase + 4e-9 * phase**4)) * share",
    "the full moon overhead, less by its phase and by its height",
)

_SUN_DEG = np.array([row[0] for row in CLEAR_SKY], dtype=np.float64)
_SUN_LOG = np.log(np.array([row[1] for row in CLEAR_SKY]))
_MOON_DEG, _MOON_SHARE = (np.array(column, dtype=np.float64) for column in zip(*MOON_SHARES, strict=True))


def sun_lx(altitude_deg: Floats) -> Floats:
    """Illuminance by the sun and the sky it lights, in lux: a monotone cubic through the logarithms of the table."""
    return np.asarray(np.exp(monotone.curve(_SUN_DEG, _SUN_LOG, np.asarray(altitude_deg, dtype=np.float64))))


def moon_share(altitude_deg: Floats) -> Floats:
    """Which share of its light overhead the moon gives at a height; nothing below the horizon."""
    return monotone.curve(_MOON_DEG, _MOON_SHARE, np.asarray(altitude_deg, dtype=np.float64))


def moon_lx(altitude_deg: Floats, phase_deg: Floats) -> Floats:
    """Illuminance by the moon in lux, for its height and its phase angle (0° when full)."""
    dimmed = 10 ** (-0.4 * (0.026 * phase_deg + 4e-9 * phase_deg**4))
    return np.asarray(FULL_MOON_LX * dimmed * moon_share(altitude_deg))


def scene_lx(sun: Floats, moon: Floats, cloud_stops: Floats | float, town_lx: float) -> Floats:
    """All the light on the scene, in lux; cloud takes so many stops of what comes from the sky."""
    return np.asarray((sun + moon) * 2.0 ** -np.asarray(cloud_stops) + town_lx)


def ev100(lx: Floats) -> Floats:
    """The exposure value at ISO 100 that renders a scene in so many lux."""
    return np.asarray(np.log2(lx / PER_EV0_LX))
