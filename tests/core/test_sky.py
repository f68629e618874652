"""Sun, moon and twilight against an independent library, and what is said where they do not come."""

import warnings
from datetime import UTC, datetime
from unittest import TestCase

import numpy as np
from astropy import units as u
from astropy.coordinates import AltAz, EarthLocation, SkyCoord, get_body
from astropy.time import Time
from astropy.utils import iers

from bridle.core.reckon.almanac import over
from bridle.core.reckon.twilight import bands
from bridle.core.subjects.light import sky
from bridle.core.subjects.light.crossings import crossings
from bridle.core.subjects.light.sky import Body

iers.conf.auto_download = False
iers.conf.iers_degraded_accuracy = "warn"
# The bundled tables reach that far; latitudes go up to where the sun hardly rises.
FIRST, LAST = datetime(2000, 1, 1, tzinfo=UTC).timestamp(), datetime(2026, 6, 1, tzinfo=UTC).timestamp()
COUNT = 300
SUNSET_DEG = -0.833


def somewhere() -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Places all over the earth, every fifth of them in high latitudes, and moments."""
    random = np.random.default_rng(13)
    latitude = np.degrees(np.arcsin(random.uniform(-1, 1, COUNT)))
    latitude[::5] = random.uniform(62, 85, len(latitude[::5])) * random.choice([-1, 1], len(latitude[::5]))
    return latitude, random.uniform(-180, 180, COUNT), np.sort(random.uniform(FIRST, LAST, COUNT))


def theirs(body: str, latitude: np.ndarray, longitude: np.ndarray, at: np.ndarray) -> AltAz:
    """Where the library has a body, as seen from the place and without the air's bending of light."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        place = EarthLocation(lat=latitude * u.deg, lon=longitude * u.deg)
        when = Time(at, format="unix", scale="utc")
        frame = AltAz(obstime=when, location=place)
        if body == "galactic centre":
            return SkyCoord(l=0 * u.deg, b=0 * u.deg, frame="galactic").transform_to(frame)
        return get_body(body, when, place).transform_to(frame)


class Places(TestCase):
    def test_every_body_stands_where_another_library_has_it(self) -> None:
        latitude, longitude, at = somewhere()
        for body, track, most in (
            ("sun", sky.sun, 0.05), ("moon", sky.moon, 0.3), ("galactic centre", sky.galactic_centre, 0.1)
        ):  # fmt: skip
            with self.subTest(body):
                there = theirs(body, latitude, longitude, at)
                ours = [track(*each[:2], np.array([each[2]])) for each in zip(latitude, longitude, at, strict=True)]
                azimuth, altitude = (np.array([one[n][0] for one in ours]) for n in (0, 1))
                up = np.abs(altitude - there.alt.deg)
                # Azimuth counts for less the higher it stands.
                aside = np.abs((azimuth - there.az.deg + 180) % 360 - 180) * np.cos(np.radians(altitude))
                self.assertLess(float(up.max()), most)
                self.assertLess(float(aside.max()), most)

    def test_they_rise_and_set_when_the_other_library_says_so(self) -> None:
        latitude, longitude, at = somewhere()
        checked: dict[Body, int] = {"sun": 0, "moon": 0}
        for body in checked:
            for where, east, start in zip(latitude[:90], longitude[:90], at[:90], strict=True):
                for passed in crossings(over(body, where, east, SUNSET_DEG), float(start), float(start) + 86_400):
                    around = passed.at_s + np.array([-300.0, -60.0, 60.0, 300.0])
                    one = np.ones(4)
                    there = theirs(body, where * one, east * one, around).alt.deg - SUNSET_DEG
                    if abs(there[3] - there[0]) < 1:
                        continue
                    checked[body] += 1
                    self.assertLess(there[1] * (1 if passed.up else -1), 0, (body, where, east, passed))
                    self.assertGreater(there[2] * (1 if passed.up else -1), 0, (body, where, east, passed))
        self.assertGreater(min(checked.values()), 60)

    def test_the_moon_is_lit_as_the_other_library_has_it(self) -> None:
        _, _, at = somewhere()
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            when = Time(at, format="unix", scale="utc")
            sun, moon = get_body("sun", when), get_body("moon", when)
            elongation = sun.separation(moon, origin_mismatch="ignore")
            towards = sun.distance * np.sin(elongation), moon.distance - sun.distance * np.cos(elongation)
            share = ((1 + np.cos(np.arctan2(*towards))) / 2).value
        ours = np.array([sky.lit_share(sky.moon_phase_deg(np.array([one])))[0] for one in at])
        self.assertLess(float(np.abs(ours - share).max()), 0.005)


class Twilight(TestCase):
    def test_dusk_at_port_ellary(self) -> None:
        """The worked example, in UTC: 18:51 to 18:52, 19:31, 20:19 and 21:12, each within half a minute."""
        noon = datetime(2026, 9, 12, 12, tzinfo=UTC).timestamp()
        ends = [band.to_s for band in bands(57.32, -6.18, noon, noon + 43_200)][:-1]
        for end, (hour, minute, second) in zip(
            ends, ((18, 51, 30), (19, 31, 0), (20, 19, 0), (21, 12, 0)), strict=True
        ):
            self.assertLess(abs(end - datetime(2026, 9, 12, hour, minute, second, tzinfo=UTC).timestamp()), 31)
        altitude = sky.sun(57.32, -6.18, np.array([datetime(2026, 9, 12, 20, tzinfo=UTC).timestamp()]))[1][0]
        self.assertAlmostEqual(altitude, -9.678, 2)

    def test_a_sun_that_does_not_set_and_a_night_that_has_no_end_of_twilight(self) -> None:
        for latitude, month, day, dark in (
            (78.2, 6, 21, ["day"]),
            (78.2, 12, 21, ["night", "astronomical", "nautical", "astronomical", "night"]),
            (57.32, 6, 21, ["day", "civil", "nautical", "civil", "day"]),
        ):
            start = datetime(2026, month, day, 12 if month == 6 else 0, tzinfo=UTC).timestamp()
            found = [band.dark for band in bands(latitude, 15.6 if latitude > 70 else -6.18, start, start + 86_400)]
            self.assertEqual([one for n, one in enumerate(found) if n == 0 or one != found[n - 1]], dark, latitude)

    def test_what_only_just_looks_over_the_edge_is_found(self) -> None:
        """A parabola that is above nought for forty seconds between two looks a quarter of an hour apart."""
        top = 1000.0 + 120

        def parabola(at: np.ndarray) -> np.ndarray:
            return np.asarray(400 - (at - top) ** 2)

        found = crossings(parabola, 0.0, 4000.0)
        self.assertEqual([one.up for one in found], [True, False])
        for one, wanted in zip(found, (top - 20, top + 20), strict=True):
            self.assertAlmostEqual(one.at_s, wanted, delta=0.2)
