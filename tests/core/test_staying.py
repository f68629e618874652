"""A camera that stays: sun on its panel, charge hour by hour, room on its card, a box in the sun, visits merged."""

import itertools
import math
from datetime import date
from typing import Any
from unittest import TestCase

import numpy as np
import pandas as pd
import pvlib
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.season.power import worst_start
from bridle.core.reckon.season.season import Staying, staying
from bridle.core.reckon.season.visits import CARD, CHARGE
from bridle.core.subjects.light import sky
from bridle.core.subjects.power import box, charge, panel
from bridle.core.subjects.strength import wind
from bridle.core.subjects.time.visits import Visit, merged
from tests.provoked_staying import BATTERY, BODY, BOX, PANEL, TIMER, another, camera
from tests.provoked_staying import CARD as MEMORY
from tests.strategies import shooting

DAY = 86_400.0


def stays(plan: Plan) -> Staying:
    found = staying(shooting(plan))
    assert found is not None
    return found


class Sun(TestCase):
    def test_a_panel_gets_what_another_library_says_under_a_clear_sky(self) -> None:
        """Position of the sun, clear sky, its split and the tilted plane, all by pvlib; within two per cent."""
        for latitude, longitude, tilt, toward in (
            (57.32, -6.18, 60.0, 180.0), (57.32, -6.18, 0.0, 0.0), (-33.9, 151.2, 35.0, 0.0), (1.3, 103.8, 15.0, 90.0),
        ):  # fmt: skip
            for day in ("2026-03-02", "2026-06-21", "2026-12-15"):
                times = pd.date_range(day, periods=96, freq="15min", tz="UTC")
                at = times.as_unit("s").astype("int64").to_numpy().astype(float)
                mine = panel.on_panel_w_m2(
                    *sky.sun(latitude, longitude, at), np.full(96, float(times[0].dayofyear)), tilt, toward
                )
                other = self._pvlib(times, latitude, longitude, tilt, toward)
                with self.subTest(latitude=latitude, day=day, tilt=tilt):
                    self.assertAlmostEqual(mine.sum() / other.sum(), 1.0, delta=0.02)
                    self.assertLess(np.abs(mine - other).max(), 45.0)

    def _pvlib(self, times: Any, latitude: float, longitude: float, tilt: float, toward: float) -> Any:
        sun = pvlib.solarposition.get_solarposition(times, latitude, longitude)
        clear = pvlib.clearsky.haurwitz(sun["zenith"])["ghi"]
        split = pvlib.irradiance.erbs(clear, sun["zenith"], times)
        plane = pvlib.irradiance.get_total_irradiance(
            tilt, toward, sun["zenith"], sun["azimuth"], split["dni"], clear, split["dhi"], albedo=0.2
        )
        return plane["poa_global"].fillna(0.0).to_numpy()


watt_hours = st.lists(st.floats(0, 40), min_size=1, max_size=120)


class Charge(TestCase):
    @given(st.data(), watt_hours, st.floats(5, 300))
    def test_it_stays_between_nothing_and_full_and_says_when_it_cannot_give(
        self, data: st.DataObject, drawn: list[float], full: float
    ) -> None:
        gained = data.draw(st.lists(st.floats(0, 40), min_size=len(drawn), max_size=len(drawn)))
        told = charge.stepped(gained, drawn, full)
        self.assertEqual(len(told.levels), len(drawn) + 1)
        self.assertTrue(all(0 <= level <= full for level in told.levels))
        owed = [
            hour for hour, (low, more, less) in enumerate(zip(told.levels, gained, drawn, strict=False))
            if low + more - less < 0
        ]  # fmt: skip
        self.assertEqual(told.empty_at, owed[0] if owed else None)
        self.assertEqual(told.lost_h, len(owed))
        larger = charge.stepped(gained, drawn, full * 2)
        self.assertTrue(all(more >= low for more, low in zip(larger.levels, told.levels, strict=True)))

    @given(
        st.lists(st.floats(0, 3), min_size=24 * 9, max_size=24 * 9), st.floats(0.2, 1.2), st.floats(5, 90),
        st.integers(1, 4), st.floats(0, 0.6),
    )  # fmt: skip
    def test_the_worst_cloudy_days_are_worse_than_on_any_other_date(
        self, usual: list[float], watts: float, full: float, days: int, share: float
    ) -> None:
        """Each date tried by itself: the battery is empty soonest, or, where it never is, has the least in it."""
        gives, draws = np.array(usual), np.full(len(usual), watts)
        begins = worst_start(gives, gives * share, draws, full, days)

        def comes_to(start: int) -> tuple[float, float]:
            made = gives.copy()
            made[start : start + 24 * days] *= share
            level, low, empty = full, full, math.inf
            for hour in range(len(made)):
                level = min(full, level + made[hour] - watts)
                low = min(low, level) if hour >= start else low
                empty = min(empty, hour) if level <= 0 else empty
            return empty, low

        (empty, low), worst = comes_to(begins), min(map(comes_to, range(0, len(usual), 24)))
        self.assertEqual(empty, worst[0])
        if math.isinf(empty):
            self.assertAlmostEqual(low, worst[1], places=6)

    def test_cold_takes_its_share(self) -> None:
        for lithium, celsius, share in ((False, 25, 1), (False, 0, 0.8), (False, -5, 0.73), (True, -40, 0.6)):
            self.assertAlmostEqual(charge.cold_share(lithium, celsius), share)


class Powered(TestCase):
    def test_a_battery_alone_lasts_as_long_as_a_pencil_says(self) -> None:
        """0.5 W for the camera and 0.1 W for the timer, 20 J with each of 60 frames a day, a regulator that loses a
        tenth of the camera's; 192 Wh of a lead battery that is five years old."""
        plan = camera(BATTERY, visiting={"swaps_battery": False}, days=("2026-06-01", "2026-07-31"))
        told, stay = evaluate(plan), stays(plan)
        watts = 1.1 * (0.5 + 20 * 60 / 86_400) + 0.1
        self.assertAlmostEqual(told.figures["season.usable"].value, 12 * 40 * 0.5 * 0.8)
        # From 8:00 of the first to 18:00 of the last day: fourteen hours of night less than sixty-one days.
        self.assertAlmostEqual(told.figures["season.average"].value, watts, delta=0.003 * watts)
        assert stay.power.lasts_h is not None
        self.assertAlmostEqual(stay.power.lasts_h, 192 / watts, delta=8)
        self.assertIn("battery-runs-out", [snag.code for snag in told.snags])

    def test_moving_the_cloudy_week_moves_the_day_it_runs_out(self) -> None:
        out = []
        for day in ("2026-06-08", "2026-06-20", "2026-07-10"):
            climate = {"cloudy": 0.0, "cloudy_days": 14, "cloudy_from": day, "usual": 0.5}
            stay = stays(camera(BATTERY, PANEL, days=("2026-06-01", "2026-08-15"), climate=climate))
            self.assertIsNotNone(stay.power.lasts_h)
            empty = stay.hours.day(int(stay.power.lasts_h or 0))
            self.assertTrue(8 <= (empty - date.fromisoformat(day)).days <= 13, (day, empty))
            out.append(empty)
        self.assertEqual(out, sorted(set(out)))

    def test_the_worst_date_empties_what_any_date_empties(self) -> None:
        """A battery that just holds through the worst week holds through every other; one a little smaller does not."""
        for amp_hours, holds in ((40.0, True), (16.0, False)):
            card, ends = another(BATTERY, amp_hours=amp_hours), ("2026-02-01", "2026-03-20")
            climate: dict[str, Any] = {"cloudy": 0.05, "cloudy_days": 9}
            worst = stays(camera(card, another(PANEL, watts=40.0), days=ends, climate=climate))
            each = [
                stays(camera(card, another(PANEL, watts=40.0), days=ends, climate={**climate, "cloudy_from": day}))
                for day in ("2026-02-02", "2026-02-09", "2026-02-20", "2026-03-02", "2026-03-08")
            ]
            lowest = min(min(one.power.charged.levels) for one in each)
            self.assertLessEqual(min(worst.power.charged.levels), lowest + 1e-6)
            self.assertEqual(worst.power.charged.empty_at is None, holds)

    def test_what_nobody_knows_is_not_counted_on(self) -> None:
        unknown = another(BODY, standby_w=None)
        frames = camera(BATTERY).model_dump(mode="json")
        frames["kit"]["copies"] = [{"key": f"k{n}", "card": card} for n, card in enumerate((BATTERY, unknown, TIMER))]
        told = evaluate(Plan.model_validate(frames))
        self.assertFalse({"season.average", "season.lasts"} & told.figures.keys())
        self.assertEqual(told.season.levels and told.season.levels.charge, ())
        self.assertNotIn(CHARGE, [task for visit in told.season.visits for task in visit.tasks])
        self.assertEqual([draw.known for draw in told.season.draws], [False, True])

    def test_the_timer_and_the_heater_draw_when_they_should(self) -> None:
        """Ten hours of windows a day; a heater by night alone, and a third of the night below the dew point."""
        plain = camera(BATTERY, another(BOX, heater_w=3.0), days=("2026-06-01", "2026-06-30"))

        def average(*edits: Edit) -> float:
            return evaluate(apply(plain, edits)[0]).figures["season.average"].value

        base = average()
        timed = average(Edit(path="season.powering.timer", value=True))
        self.assertAlmostEqual(base - timed, 1.1 * 0.5 * 14 / 24, delta=0.01)
        night = average(Edit(path="season.powering.heater", value="at night"))
        share = Edit(path="season.climate.dewy", value=0.3)
        dewy = average(Edit(path="season.powering.heater", value="below the dew point"), share)
        self.assertAlmostEqual((dewy - base) / (night - base), 0.3, places=6)
        # A night in June at 57° is six and a half hours from sunset to sunrise.
        self.assertAlmostEqual((night - base) / 3.0 * 24, 6.5, delta=0.7)


class Stored(TestCase):
    def test_what_fits_and_when_it_is_swapped(self) -> None:
        plan = camera(
            another(MEMORY, gigabytes=8.0), storing={"frame_mb": 30.0, "counter_at": 9900, "counter_last": 9999}
        )
        told, stay = evaluate(plan), stays(plan)
        self.assertEqual(told.figures["season.card"].value, math.floor(8000 * 0.9 / 30))
        self.assertAlmostEqual(told.figures["season.all"].value, 14 * 60 * 30 / 1000)
        self.assertEqual(told.figures["season.rolls"].value, 1)
        # 240 frames are four days; a picture a little larger and one fewer fits, so that somebody comes a day sooner.
        for picture_mb, holds, apart in ((30.0, 240, 4), (30.1, 239, 3)):
            data = camera(another(MEMORY, gigabytes=8.0), storing={"frame_mb": picture_mb})
            swaps = stays(data).coming.at(CARD)
            self.assertEqual([round((after - one) / DAY) for one, after in itertools.pairwise(swaps)][:1], [apart])
            taken = [0, *np.searchsorted(shooting(data).timeline.starts_s + stay.hours.start_s, swaps), 14 * 60]
            self.assertLessEqual(max(after - before for before, after in itertools.pairwise(taken)), holds)
        fill = told.season.levels.fill if told.season.levels else ()
        self.assertTrue(0 < max(fill) <= 900)


hours = st.integers(0, 23)


class Visits(TestCase):
    @given(
        st.dictionaries(st.sampled_from(["card", "glass", "clock", "look"]), st.integers(2, 60), min_size=1),
        st.lists(st.integers(0, 6), min_size=1, max_size=7, unique=True), st.integers(20, 300),
        st.lists(st.integers(1, 250), max_size=3, unique=True),
    )  # fmt: skip
    def test_merged_they_keep_every_deadline_and_nobody_climbs_twice(
        self, every: dict[str, int], weekdays: list[int], season: int, arranged: list[int]
    ) -> None:
        days = [float(day) for day in range(season + 1)]
        wished = [day for day in days if int(day) % 7 in weekdays]
        due = {task: (lambda done, apart=apart: done + apart) for task, apart in every.items()}
        there = sorted(float(day) for day in arranged if 0 < day < season)
        visits = merged(due, 0.0, float(season), wished, days, there)
        self.assertEqual(len({visit.at for visit in visits}), len(visits))
        for task, apart in every.items():
            at = [0.0, *(visit.at for visit in visits if task in visit.tasks), float(season)]
            self.assertLessEqual(max(b - a for a, b in itertools.pairwise(at)), apart, task)
        self.assertFalse([visit for visit in visits if visit.late])
        self.assertTrue(set(there) <= {visit.at for visit in visits})
        # Off a wished day only where none lies between the visit before and the deadline.
        before = 0.0
        for visit in visits:
            if visit.off_wish:
                self.assertFalse([day for day in wished if before < day <= visit.at])
            before = visit.at

    @given(
        st.dictionaries(st.sampled_from(["card", "glass", "clock"]), st.integers(2, 9), min_size=1), st.integers(8, 16),
        st.lists(st.integers(0, 3), min_size=1, max_size=4, unique=True),
    )  # fmt: skip
    def test_fewer_would_not_do(self, every: dict[str, int], season: int, of_four: list[int]) -> None:
        """Every set of days tried, each task done at every visit, which can only make do with fewer."""
        days = [float(day) for day in range(season + 1)]
        due = {task: (lambda done, apart=apart: done + apart) for task, apart in every.items()}
        visits = merged(due, 0.0, float(season), days, days)
        shortest = min(every.values())
        needed = next(
            many for many in range(season)
            if any(
                max(b - a for a, b in itertools.pairwise((0, *some, season))) <= shortest
                for some in itertools.combinations(range(1, season), many)
            )
        )  # fmt: skip
        self.assertEqual(len(visits), needed)

    def test_a_task_that_can_wait_waits(self) -> None:
        due = {"card": lambda done: done + 10, "clock": lambda done: done + 25}
        days = [float(day) for day in range(41)]
        self.assertEqual(
            merged(due, 0.0, 40.0, days, days),
            [Visit(10.0, ("card",)), Visit(20.0, ("card", "clock")), Visit(30.0, ("card",))],
        )


class Boxes(TestCase):
    def test_warmth_and_wind_by_hand(self) -> None:
        walls = 2 * (0.22 * 0.18 + 0.22 * 0.32 + 0.18 * 0.32)
        self.assertAlmostEqual(box.walls_m2(220, 180, 320), walls)
        self.assertAlmostEqual(box.inside_c(27, 0.5, 20, walls, vented=False), 27 + 20.5 / (5 * walls))
        self.assertAlmostEqual(box.linear_loss_w(12.6, 7.4, 3.7), 5.2 * 0.5)
        # The shadow of a cube seen along its diagonal is √3 times a face.
        self.assertAlmostEqual(box.sunlit_m2(1000, 1000, 1000), math.sqrt(3))
        self.assertAlmostEqual(wind.push_n(20, 0.05), 0.5 * 1.225 * 400 * 1.3 * 0.05)
        moment = wind.second_moment_mm4(60, 54)
        self.assertAlmostEqual(moment, math.pi / 64 * (60**4 - 54**4))
        self.assertAlmostEqual(math.radians(wind.lean_deg(40, 0, 1000, 210, moment)), 40 * 1e6 / (2 * 210e3 * moment))
        self.assertAlmostEqual(math.radians(wind.lean_deg(0, 60, 1000, 210, moment)), 60 * 1e6 / (6 * 210e3 * moment))
        self.assertAlmostEqual(wind.mast_push_n(20, 60, 1000), 0.5 * 1.225 * 400 * 1.2 * 0.06)
