"""Where the frames come from: each source laid in time, its gaps, its exact map, and who calls."""

from datetime import UTC, date, datetime, timedelta
from fractions import Fraction as F
from itertools import pairwise
from typing import Any
from unittest import TestCase
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given, settings

from bridle.core.asks.changes import ChangingInterval, HoldPeg, TypeText, make
from bridle.core.asks.pegs import take_over
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.timeline import Timeline
from bridle.core.run.programme import programme
from tests.strategies import clips, enough_holds, plan_of, shooting
from tests.workings import worked_out

RATE = {"rate": F(25)}
# Three years of working days on a building site: 780 of them, 260 frames in each.
SITE = {
    "source": "windows", "every_s": "150", "first": "2026-01-05", "last": "2028-12-29",
    "rules": [{"weekdays": [0, 1, 2, 3, 4], "opens": {"minutes": 420}, "closes": {"minutes": 1068}}],
}  # fmt: skip
# Layers of a lantern: thick ones below, ever quicker towards the tip, with a pause for each change of filament.
LAYERS = [90 - layer / 10 + (240 if layer % 175 == 174 else 0) for layer in range(700)]
NIGHT = {"opens_min": 1320, "closes_min": 120}
PRINT = {"source": "layers", "layers_s": [str(F(round(length * 10), 10)) for length in LAYERS]}


def planned(frames: dict[str, Any], zone: str = "Europe/London", **more: Any) -> Plan:
    plan = plan_of(RATE, clip={"frames": frames}, **more)
    place = plan.shoot.place.model_copy(update={"zone": zone})
    return plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place})})


class Windows(TestCase):
    def test_three_years_of_working_days(self) -> None:
        plan = planned(SITE)
        times, told = shooting(plan).timeline, evaluate(plan)
        self.assertEqual((len(times.runs), times.frames, told.frames), (780, 202_800, 202_800))
        # Every frame by counting minutes on the clock of the site, one day after another.
        expected, day, zone = [], date(2026, 1, 5), ZoneInfo("Europe/London")
        while day <= date(2028, 12, 29):
            if day.weekday() < 5:
                opens = datetime(day.year, day.month, day.day, 7, tzinfo=zone).astimezone(UTC).timestamp()
                expected += [opens + 150 * n for n in range(260)]
            day += timedelta(days=1)
        np.testing.assert_allclose(times.start.timestamp() + times.starts_s, expected, atol=1e-6)
        for frame in (0, 259, 260, 101_000, 202_799):
            self.assertAlmostEqual(times.clock(frame).timestamp(), expected[frame], 6)
        # The clocks change in spring: the site opens at seven all the same.
        self.assertEqual({times.clock(run.first).strftime("%H:%M") for run in times.runs}, {"07:00"})
        # A night is no part of a beat, and the last frame of a day has as much room as any.
        self.assertEqual((times.rooms_s.min(), times.rooms_s.max(), times.room_s(259)), (150, 150, 150))
        self.assertEqual(float(times.elapsed_s(times.frames)), expected[-1] + 150 - expected[0])
        self.assertEqual(told.figures["clip.frames"].value, 202_800)
        self.assertEqual(told.figures["time.first"].value, expected[0])

    def test_windows_that_are_none_are_refused(self) -> None:
        wrongs: list[dict[str, Any]] = [
            {"last": "2026-01-04"}, {"every_s": "0"}, {"rules": []}, {"rules": [{"weekdays": []}]},
            {"rules": [{"opens": {"minutes": 1441}}]}, {"rules": [{"opens": {"minutes": -1}}]},
            {"off": [{"first": "2026-02-02", "last": "2026-02-01"}]},
        ]  # fmt: skip
        for wrong in [*wrongs, {"first": "1900-01-01"}]:
            with self.subTest(wrong), self.assertRaises(ValueError):
                planned({**SITE, **wrong})


class Layers(TestCase):
    def test_a_frame_when_each_layer_is_done(self) -> None:
        plan = planned(PRINT)
        times = shooting(plan).timeline
        self.assertEqual((times.frames, times.calls), (700, "layer"))
        done = np.cumsum(LAYERS)
        np.testing.assert_allclose(times.starts_s, done - done[0], atol=1e-6)
        # Its room is what the next layer takes; the last has what its own took, since nothing comes after it.
        np.testing.assert_allclose(times.rooms_s, [*LAYERS[1:], LAYERS[-1]], atol=1e-6)
        self.assertAlmostEqual(evaluate(plan).figures["clip.clip"].value, 28)
        self.assertEqual(evaluate(plan).beat.frame, int(np.argmin(times.rooms_s)))  # type: ignore[union-attr]
        every = shooting(planned({**PRINT, "every": 3})).timeline
        called = [n for n in range(1, 701) if (700 - n) % 3 == 0]
        np.testing.assert_allclose(every.starts_s, done[np.array(called) - 1] - done[0], atol=1e-6)
        one = shooting(planned({**PRINT, "every": 1000})).timeline
        self.assertEqual((one.frames, float(one.end_s)), (1, round(LAYERS[-1], 1)))


class Whatever(TestCase):
    def check(self, times: Timeline) -> None:
        frames, seconds = times.map
        self.assertTrue((np.diff(seconds) >= -1e-9).all() and (np.diff(frames) >= 0).all())
        # The map tells each frame to the millisecond; of two knots on one frame the later is its start.
        first = dict(zip(frames.tolist(), seconds.tolist(), strict=True))
        knots = np.array(sorted(first))
        for run in times.runs:
            inside = np.arange(run.first, run.first + run.frames)
            last = run.first + run.frames
            own = knots[(knots >= run.first) & (knots < last)]
            at = [first[frame] for frame in own] + [float(times.starts_s[last - 1] + times.rooms_s[last - 1])]
            np.testing.assert_allclose(np.interp(inside, [*own, last], at), times.starts_s[inside], atol=1e-3)
        self.assertEqual(sum(run.frames for run in times.runs), times.frames)
        for one, after in pairwise(times.runs):
            self.assertEqual(one.first + one.frames, after.first)
        for frame in {0, times.frames // 2, times.frames - 1}:
            self.assertAlmostEqual(float(times.elapsed_s(frame)), float(times.starts_s[frame]), 6)
            self.assertAlmostEqual(times.frame_at(float(times.starts_s[frame])), frame, 5)

    @settings(max_examples=60, deadline=None)
    @given(enough_holds(), clips)
    def test_the_map_of_any_shoot_tells_its_frames(self, held: dict[str, F], clip: dict[str, Any]) -> None:
        known = plan_of(held, clip=clip)
        if evaluate(known).frames is not None:
            self.check(shooting(known).timeline)

    def test_the_map_of_windows_and_layers(self) -> None:
        for frames in (SITE, PRINT, {**PRINT, "every": 7}):
            self.check(shooting(planned(frames)).timeline)
        # In the night between two windows the clip stands at the first frame of the morning.
        times = shooting(planned(SITE)).timeline
        night = float(times.runs[1].at_s) - 3600
        self.assertEqual((times.frame_at(night), times.frame_at(night + 3600 + 75)), (260, 260.5))

    def test_every_figure_has_its_working_and_a_run_its_times(self) -> None:
        short = {**SITE, "last": "2026-01-07", "every_s": "1200"}
        for frames in (short, PRINT):
            plan = planned(frames)
            told, times = evaluate(plan), shooting(plan).timeline
            for figure in told.figures.values():
                self.assertAlmostEqual(worked_out(figure), figure.value, 3, figure.key)
            run = programme(plan)
            np.testing.assert_allclose(run.starts_s[:-1], times.starts_s, atol=1e-6)

    def test_what_the_source_says_is_not_held_in_the_sentence(self) -> None:
        plan = planned(PRINT)
        after, _ = make(plan, [TypeText(do="type", path="clip.rate", text="30")])
        self.assertAlmostEqual(evaluate(after).figures["clip.clip"].value, 700 / 30)
        self.assertEqual(make(plan, [HoldPeg(do="hold", quantity="frames")])[0], plan)
        with self.assertRaisesRegex(ValueError, "come from somewhere else"):
            take_over(plan, "frames", F(20))
        self.assertEqual(make(plan, [ChangingInterval(do="changing", on=False)])[0].frames.source, "even")
        even, undo = apply(plan, [Edit(path="frames", value={"source": "even"})])
        self.assertEqual((even.frames.source, apply(even, undo)[0]), ("even", plan))
