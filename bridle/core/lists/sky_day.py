"""A day's sky over any place: what rises and sets, how dark it gets, and in words what does not happen."""

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.quantity import write
from bridle.core.reckon.almanac import TRACKS, SkyEvent, almanac, moon_up
from bridle.core.reckon.series import Series, series
from bridle.core.reckon.twilight import Band, bands, dark_of
from bridle.core.subjects.light import sky
from bridle.core.subjects.numbers.arrays import Floats

EVERY_S = 600.0
# The moon is called full or new within so many degrees of its phase angle, and half around a right angle.
FULL_DEG, HALF_DEG = 12.0, 8.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SkyEventTold:
    """What happens, when (a Unix time), and in which direction."""

    name: str
    at: float
    azimuth_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SkyBand:
    """A stretch of the clock (Unix times) that is as dark throughout."""

    dark: str
    start: float
    end: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SkyDay:
    """From noon of a day to noon of the next, by the clock of the place; heights are those at even steps between.

    `words` say what is not to be had: a sun that does not set, a night that does not get dark.
    """

    start: float
    end: float
    events: tuple[SkyEventTold, ...]
    bands: tuple[SkyBand, ...]
    heights: dict[str, Series]
    lit: float
    phase: str
    words: tuple[str, ...]


def answer(latitude: float, longitude: float, zone: str, day: date) -> SkyDay:
    """The night that begins on a day."""
    start, end = _noon(day, zone), _noon(day + timedelta(days=1), zone)
    happens = almanac(latitude, longitude, start, end)
    dark = bands(latitude, longitude, start, end)
    count = round((end - start) / EVERY_S) + 1
    at = np.linspace(start, end, count)
    heights: dict[str, Floats] = {name: track(latitude, longitude, at)[1] for name, track in TRACKS.items()}
    middle = np.array([(start + end) / 2])
    return SkyDay(
        start=start,
        end=end,
        events=tuple(SkyEventTold(name=e.name, at=e.at_s, azimuth_deg=round(e.azimuth_deg, 2)) for e in happens),
        bands=tuple(SkyBand(dark=one.dark, start=one.from_s, end=one.to_s) for one in dark),
        heights={name: series(values, count, 2) for name, values in heights.items()},
        lit=float(sky.lit_share(sky.moon_phase_deg(middle))[0]),
        phase=phase_name(float(middle[0])),
        words=tuple(_words(latitude, longitude, happens, dark, heights, at)),
    )


def _noon(day: date, zone: str) -> float:
    return datetime.combine(day, time(12), ZoneInfo(zone)).astimezone(UTC).timestamp()


def phase_name(at_s: float) -> str:
    """What the moon is called at a moment."""
    now, later = (float(sky.moon_phase_deg(np.array([at]))[0]) for at in (at_s, at_s + 21_600))
    if now < FULL_DEG:
        return "full moon"
    if now > 180 - FULL_DEG:
        return "new moon"
    waxing = later < now
    if abs(now - 90) < HALF_DEG:
        return "first quarter" if waxing else "last quarter"
    shape = "gibbous" if now < 90 else "crescent"
    return f"{'waxing' if waxing else 'waning'} {shape}"


def _deg(angle: float) -> str:
    return write(round(angle, 1), "deg")


def _words(
    latitude: float,
    longitude: float,
    happens: tuple[SkyEvent, ...],
    dark: tuple[Band, ...],
    heights: dict[str, Floats],
    at: Floats,
) -> list[str]:
    names = {event.name for event in happens}
    said = []
    lowest, highest = float(heights["sun"].min()), float(heights["sun"].max())
    if not names & {"sunrise", "sunset"}:
        up = dark[0].dark == "day"
        said.append("The sun does not set." if up else f"The sun does not rise; at noon it stands at {_deg(highest)}.")
    deepest = dark_of(lowest)
    if deepest not in ("night", "day"):
        what = {"civil": "civil", "nautical": "nautical", "astronomical": "astronomical"}[deepest]
        said.append(f"It does not get darker than {what} twilight: the sun goes down to {_deg(lowest)}.")
    if not names & {"moonrise", "moonset"}:
        stays = bool((moon_up(latitude, longitude)(at) > 0).all())
        said.append("The moon does not set." if stays else "The moon does not rise.")
    if float(heights["galactic centre"].max()) <= 0:
        said.append("The galactic centre does not rise at this latitude.")
    return said
