"""A sky with weather, and a light meter: small, seeded, and not what the plan counts on."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.reckon.compared import exposed_as
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.scene import scene_at
from bridle.core.subjects.numbers.arrays import Floats

WeatherName = Literal["as planned", "passing cloud", "dull evening", "haze", "uneven days", "dark weeks"]
WEATHERS: tuple[WeatherName, ...] = ("as planned", "passing cloud", "dull evening", "haze")
# Of a shoot of weeks: days of all sorts, and a stretch of dark ones within these shares of it.
LONG_WEATHERS: tuple[WeatherName, ...] = ("as planned", "uneven days", "dark weeks")
DARK_FROM, DARK_TO = 0.3, 0.42
# A thick cloud takes so many stops; a dull evening comes to as much; haze takes less, and all the time.
THICK_STOPS, HAZE_STOPS, MOST_STOPS = 2.5, 0.7, 4.0
# The cloud comes and goes within these shares of the shoot.
COMES, GONE, EDGE = 0.35, 0.6, 0.06
# A meter reads to a tenth of a stop.
TENTH = 0.1


@dataclass(frozen=True)
class Outcome:
    """Pictures as they would come out, one entry a frame: stops brighter than right, and what a meter reads (EV100)."""

    bright: Floats
    metered_ev: Floats


def cloud_stops(weather: WeatherName, share: Floats, planned: float, seed: int = 0) -> Floats:
    """What cloud takes at shares of the shoot from 0 to 1, in stops; the plan's own where the weather is as planned."""
    random = np.random.default_rng(seed)
    if weather in ("as planned", "uneven days"):
        extra = np.zeros_like(share)
    elif weather == "passing cloud":
        ragged = 0.25 * np.interp(share, np.linspace(0, 1, 40), random.uniform(-1, 1, 40))
        extra = (THICK_STOPS + ragged) * _ramp(share, COMES, EDGE) * (1 - _ramp(share, GONE, EDGE))
    elif weather == "dark weeks":
        extra = np.where((share >= DARK_FROM) & (share < DARK_TO), THICK_STOPS, 0.0)
    elif weather == "dull evening":
        extra = THICK_STOPS * _ramp(share, 0.25, 0.25)
    else:
        extra = HAZE_STOPS + 0.2 * np.interp(share, np.linspace(0, 1, 12), random.uniform(-1, 1, 12))
    return np.asarray(np.clip(planned + extra, 0, MOST_STOPS))


def _ramp(share: Floats, middle: float, half: float) -> Floats:
    """From 0 to 1 around a share, with soft ends."""
    t = np.clip((share - middle + half) / (2 * half), 0, 1)
    return np.asarray(t * t * (3 - 2 * t))


def outcome(plan: Plan, weather: WeatherName, seed: int = 0) -> Outcome | None:
    """The pictures of a plan under a weather; None while its frames or its light are not known."""
    shooting = reckon(plan).shooting
    return None if shooting is None else outcome_of(shooting, weather, seed)


def outcome_of(shooting: Shooting, weather: WeatherName, seed: int = 0) -> Outcome | None:
    """The same of a shoot that is reckoned already. A camera that exposes by itself follows the weather too."""
    plan, times = shooting.plan, shooting.timeline
    exposed = exposed_as(shooting, plan.light.school)
    share = times.starts_s / max(float(times.starts_s[-1]), 1.0)
    cloud = cloud_stops(weather, share, plan.light.cloud_stops, seed)
    scene = scene_at(shooting.plan, times.start_unix_s + times.starts_s, cloud)
    if exposed is None or scene is None or shooting.scene is None:
        return None
    by_itself = plan.light.school == "automatic"
    bright = exposed.bright if by_itself else exposed.bright + scene.ev - shooting.scene.ev
    return Outcome(bright, np.round(scene.ev / TENTH) * TENTH)
