"""A camera that stays: what all its frames share, what grows into its view, the sun on its daily path."""

import math
from datetime import UTC, date, datetime, timedelta
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.chapters.season.aim import aims, registered
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.season.glare import glares
from bridle.core.reckon.season.hours import season_hours
from bridle.core.subjects.light import sky
from tests.provoked_staying import CARD, camera
from tests.strategies import shooting

shifts = st.fixed_dictionaries(
    {"on": st.just("2026-06-03"), "across_px": st.floats(-800, 800), "down_px": st.floats(-800, 800)}
)


class Registered(TestCase):
    @given(st.lists(shifts, min_size=1, max_size=5))
    def test_every_frame_has_the_whole_of_what_they_share(self, some: list[dict[str, float]]) -> None:
        plan = camera(CARD, aims=some)
        shared = registered(plan)
        for aim, told in zip(plan.season.aims, aims(plan), strict=True):
            self.assertGreaterEqual(min(told.left_px, told.top_px), -0.5)
            self.assertLessEqual(told.left_px + shared.width, 6000.5)
            self.assertLessEqual(told.top_px + shared.height, 4000.5)
            self.assertAlmostEqual(told.left_px - aim.across_px, shared.left, delta=0.5)
            self.assertAlmostEqual(told.top_px - aim.down_px, shared.top, delta=0.5)
        # And no more could be had: some frame ends where it ends, on either side.
        reach = [0.0, *(aim.across_px for aim in plan.season.aims)]
        self.assertAlmostEqual(shared.width, 6000 - (max(reach) - min(reach)))

    def test_a_shift_in_degrees_by_hand(self) -> None:
        """24 mm on 36 mm and 6000 px: a pixel is 6 µm. 30 and 40 px are 50, 0.3 mm, atan(0.3 / 24)."""
        told = evaluate(camera(CARD, aims=[{"on": "2026-06-03", "across_px": 30.0, "down_px": -40.0}]))
        self.assertAlmostEqual(told.figures["aim.0.far"].value, 50)
        self.assertAlmostEqual(told.figures["aim.0.deg"].value, math.degrees(math.atan(0.3 / 24)))
        turned = evaluate(camera(CARD, aims=[{"on": "2026-06-03", "turned_deg": 1.0}]))
        s, c = math.sin(math.radians(1)), math.cos(math.radians(1))
        self.assertAlmostEqual(turned.figures["aim.left"].value, 6000 * 4000 / (6000 * s + 4000 * c), places=3)


class Obstacles(TestCase):
    def growing(self, **more: float) -> Plan:
        """A lens 1.5 m up and level, as long as the sensor is high: a quarter begins 1 in 4 below the level."""
        thing = {"name": "alder", "from_day": "2026-06-01", "tall_mm": 700.0, "away_mm": 2400.0, **more}
        return camera(CARD, obstacles=[thing], days=("2026-06-01", "2026-09-30"))

    def test_the_day_on_which_it_hides_a_quarter(self) -> None:
        """1500 − 2400 / 4 = 900 mm: 200 mm more at 100 a month are two months, of 30.44 days."""
        told = evaluate(self.growing(grows_mm_month=100.0))
        (one,) = told.season.obstacles
        enters = date(2026, 6, 1) + timedelta(math.ceil(2 * 365.25 / 12))
        self.assertEqual(one.enters, f"{enters.day} {enters:%B %Y}")
        days = (date(2026, 9, 30) - enters).days + 1
        self.assertEqual(one.frames, days * 60)
        # At the end 121 days of growth: 1097.5 mm, which is 402.5 below the lens.
        tall = 700 + 121 / (365.25 / 12) * 100
        self.assertAlmostEqual(one.share, (0.5 - (1500 - tall) / 2400) / 1.0, places=6)

    def test_what_stays_low_or_goes_before_is_not_told(self) -> None:
        self.assertEqual(evaluate(self.growing(grows_mm_month=40.0)).season.obstacles[0].enters, "")
        before = Edit(path="season.obstacles.0.to_day", value="2026-07-20")
        gone = apply(self.growing(grows_mm_month=100.0), [before])[0]
        self.assertEqual(evaluate(gone).season.obstacles[0].frames, 0)
        self.assertNotIn("stands-in-view", [snag.code for snag in evaluate(gone).snags])


class Sun(TestCase):
    def test_the_days_are_those_of_a_pencil(self) -> None:
        """Looking south, 10° down, 24 mm: every ten minutes of the season, the sun projected by plain trigonometry."""
        plan = camera(CARD, days=("2026-01-20", "2026-03-20"))
        edits = [Edit(path="rig.normal_bearing_deg", value=180.0)]
        edits += [Edit(path=f"move.keyframes.{key}.tilt_deg", value=-10.0) for key in (0, 1)]
        plan = apply(plan, edits)[0]
        shoot = shooting(plan)
        found = glares(shoot, season_hours(plan, shoot.timeline))
        assert found
        told = {one.first + timedelta(day) for one in found for day in range(one.days)}
        begin = datetime(2026, 1, 20, 8, tzinfo=UTC).timestamp()
        wanted = set()
        for step in range(60 * 144):
            at = begin + 600 * step
            if self._in_view(at):
                wanted.add(datetime.fromtimestamp(at, UTC).date())
        last = shoot.timeline.clock(shoot.frames - 1).date()
        self.assertEqual(told, {day for day in wanted if day <= last})
        self.assertTrue(0 < len(told) < 60)

    def _in_view(self, at: float) -> bool:
        azimuth, altitude = (float(each[0]) for each in sky.sun(57.32, -6.18, np.array([at])))
        if altitude < -0.833:
            return False
        east, north, up = (
            math.sin(math.radians(azimuth)) * math.cos(math.radians(altitude)),
            math.cos(math.radians(azimuth)) * math.cos(math.radians(altitude)),
            math.sin(math.radians(altitude)),
        )
        ahead = -north * math.cos(math.radians(10)) - up * math.sin(math.radians(10))
        above = -north * math.sin(math.radians(10)) + up * math.cos(math.radians(10))
        return ahead > 0 and abs(-east / ahead) < 18 / 24 and abs(above / ahead) < 12 / 24

    def test_nobody_knows_where_north_is(self) -> None:
        self.assertIsNone(evaluate(camera(CARD)).season.glare)
