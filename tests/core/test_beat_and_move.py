"""The beat and the move: worked examples and properties of the arithmetic."""

from datetime import datetime
from fractions import Fraction as F
from unittest import TestCase
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.reckon.timeline import instant
from bridle.core.subjects.motion import easing, tracking
from bridle.core.subjects.motion.easing import Ease, fit_ease
from bridle.core.subjects.numbers.rounding import ceil_to, first_peak, floor_to
from bridle.core.subjects.numbers.thinning import kept_indices
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time import cycle

ease_frames = st.one_of(st.just(0.0), st.floats(0.01, 500))


class WorkedExamples(TestCase):
    def test_step_times(self) -> None:
        self.assertAlmostEqual(cycle.step_time(3.5, 25, 80), 0.418, 3)
        self.assertAlmostEqual(cycle.step_time(30, 25, 80), 1.5125, 9)

    def test_a_bracketed_cycle_and_its_shortest_interval(self) -> None:
        need = cycle.round_need(5 * 0.4, 2.4, [0.418 + 0.9], wake=0, each=0.06 + 4 * 0.25, write_while_moving=True)[0]
        self.assertAlmostEqual(need, 5.46, 9)
        self.assertEqual(cycle.shortest_interval(need, 0.1, 0.1, F(1, 100)), F(607, 100))

    def test_eased_positions(self) -> None:
        x = 840 * easing.progress(419, Ease(48, 72, False))
        self.assertAlmostEqual(easing.cruise(840, 419, Ease(48, 72, False)), 2.3398, 4)
        for frame, wanted in ((48, 56.156), (210, 435.209), (347, 755.766), (419, 840)):
            self.assertAlmostEqual(x[frame], wanted, 3)

    def test_optics(self) -> None:
        self.assertAlmostEqual(lens.field_of_view_deg(36, 35), 54.43, 2)
        self.assertAlmostEqual(lens.px_per_deg(24, 36, 6000), 69.81, 2)
        start, end = tracking.aim(1000 - np.array([0.0, 800.0]), np.full(2, 1500.0))
        self.assertAlmostEqual(start, 33.690, 3)
        self.assertAlmostEqual(end, 7.595, 3)

    def test_frames_keep_elapsed_time_when_the_clocks_go_back(self) -> None:
        start = datetime(2026, 10, 25, 0, 30, tzinfo=ZoneInfo("Europe/London"))
        self.assertEqual(instant(start, F(7200), "Europe/London").isoformat(), "2026-10-25T01:30:00+00:00")


class Properties(TestCase):
    @given(st.integers(1, 3000), ease_frames, ease_frames, st.floats(-1e4, 1e4), st.floats(-1e4, 1e4))
    def test_an_eased_move(self, steps: int, r_in: float, r_out: float, start: float, end: float) -> None:
        ease = fit_ease(r_in, r_out, steps)
        share = easing.progress(steps, ease)
        x = start * (1 - share) + end * share
        self.assertEqual((x[0], x[-1], len(x)), (start, end, steps + 1))
        moved = np.diff(x) * np.sign(end - start)
        noise = 1e-9 * max(1.0, abs(start), abs(end))
        self.assertGreaterEqual(moved.min(initial=0.0), -noise)
        self.assertLessEqual(moved.max(initial=0.0), abs(easing.cruise(end - start, steps, ease)) + noise)
        self.assertLessEqual(ease.frames_in + ease.frames_out, steps + 1e-9)

    @given(st.integers(2, 500), ease_frames, ease_frames)
    def test_a_move_reversed_is_the_move_back(self, steps: int, r_in: float, r_out: float) -> None:
        ease = fit_ease(r_in, r_out, steps)
        back = easing.progress(steps, Ease(ease.frames_out, ease.frames_in, ease.scaled))
        np.testing.assert_allclose(easing.progress(steps, ease), 1 - back[::-1], atol=1e-9)

    @given(st.floats(1e-3, 1e4), st.floats(0.1, 1e3), st.floats(0.1, 1e3))
    def test_a_step_by_small_pieces_of_time(self, distance: float, speed: float, acceleration: float) -> None:
        # The area under the speed, trapezoid or triangle, is the distance.
        total = cycle.step_time(distance, speed, acceleration)
        t = np.linspace(0, total, 4001)
        pace = np.minimum(speed, acceleration * np.minimum(t, total - t))
        self.assertAlmostEqual(np.trapezoid(pace, t) / distance, 1, 3)

    @given(st.floats(0.01, 500), st.sampled_from([0.0, 0.1, 0.3]), st.sampled_from([F(0), F(1, 10), F(1, 2)]))
    def test_the_shortest_interval_fits_and_a_step_less_does_not(self, need: float, margin: float, step: F) -> None:
        shortest = float(cycle.shortest_interval(need, margin, 0.1, step))
        self.assertLessEqual(need + max(margin * shortest, 0.1), shortest + 1e-6)
        shorter = shortest - float(step or F(1, 1000))
        self.assertGreater(need + max(margin * shorter, 0.1), shorter - 1e-6)

    @given(st.integers(0, 10**6), st.sampled_from([F(1, 10), F(1, 3), F(1, 2), F(7)]))
    def test_multiples_are_left_alone_by_rounding(self, count: int, step: F) -> None:
        for value in (count * step, float(count * step)):
            self.assertEqual(ceil_to(value, step), count * step)
            self.assertEqual(floor_to(value, step), count * step)

    @given(st.integers(1, 20_000), st.integers(0, 10_000))
    def test_thinning_keeps_ends_and_extremes(self, count: int, at: int) -> None:
        spike = np.zeros(count)
        spike[at % count] = 1.0
        kept = kept_indices(spike)
        self.assertIn(at % count, kept)
        self.assertEqual((kept[0], kept[-1]), (0, count - 1))
        self.assertLessEqual(len(kept), max(1000, 502))
        self.assertIn(at % count, kept_indices(-spike))

    @given(st.floats(1e-3, 1e6), st.integers(2, 400), st.integers(0, 399), st.sampled_from([0.9, 1.0, 1.1]))
    def test_of_values_alike_the_first_is_the_peak(self, value: float, count: int, at: int, factor: float) -> None:
        """Float noise does not decide; a real peak does."""
        values = value * (1 + np.linspace(-1, 1, count) * 1e-12)
        self.assertEqual(first_peak(values), 0)
        values[at % count] *= factor
        self.assertEqual(first_peak(values), at % count if factor > 1 else int(factor < 1 and at % count == 0))
