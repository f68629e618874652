"""Intervals that change, spare frames, and the shoot on the clock."""

from datetime import timedelta
from fractions import Fraction as F
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.changes import ChangingInterval, HoldClock, SetValue, TypeText, make
from bridle.core.asks.pegs import no_shorter
from bridle.core.evaluate import evaluate
from bridle.core.plan.edit import Edit, apply
from bridle.core.subjects.time import pacing, starting_points
from bridle.core.subjects.time import sentence as solver
from tests.strategies import START, plan_of, ramp, ramps, shooting, tenths

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
TWO = ramp((1200, 10), (1800, 5))


class Pacing(TestCase):
    def test_segments_make_frames_and_blending_changes_the_length_and_not_the_count(self) -> None:
        plain, blended = (pacing.pace([(F(1200), F(10)), (F(1800), F(5))], blend) for blend in (0, 40))
        self.assertEqual((plain.frames, blended.frames, plain.length_s), (480, 480, 3000))
        slots = blended.intervals_s()
        self.assertEqual((slots[99], slots[140]), (10, 5))
        # Forty equal ratios from 10 to 5, centred on the boundary.
        self.assertAlmostEqual(slots[101] / slots[100], 0.5 ** (1 / 40), 3)
        self.assertAlmostEqual(slots[119] * slots[120], 50, 1)
        self.assertEqual(plain.boundaries, (120,))

    @given(st.integers(1, 40), st.lists(st.integers(1, 30), min_size=2, max_size=4))
    def test_a_blend_takes_all_its_frames_where_there_is_room(self, blend: int, frames: list[int]) -> None:
        """An odd number too; no two blends share a frame, and no frame is left with neither interval nor blend."""
        segments = [(F(10 * 2**n * count), F(10 * 2**n)) for n, count in enumerate(frames)]
        pace = pacing.pace(segments, blend)
        slots, edges = pace.intervals_s(), [0, *pace.boundaries, sum(frames)]
        changed = sum(not any(abs(slot - float(own)) < 1e-9 for _, own in segments) for slot in slots)
        self.assertEqual(changed, sum(pace.blends))
        for number, used in enumerate(pace.blends):
            before, after = edges[number + 1] - edges[number], edges[number + 2] - edges[number + 1]
            room = min(before * (1 if number else 2), after * (2 if number == len(frames) - 2 else 1))
            self.assertEqual(used, min(blend, room))

    def test_each_segment_tells_how_much_faster_than_life_it_is(self) -> None:
        told = evaluate(plan_of(THREE, clip={"frames": TWO})).figures
        for number, segment in enumerate(TWO["segments"]):
            self.assertEqual(told[f"clip.segment.{number}.speed_up"].value, 25 * F(segment["interval_s"]))

    @given(ramps)
    def test_of_any_ramp(self, drawn: dict) -> None:  # type: ignore[type-arg]
        segments = [(F(one["length_s"]), F(one["interval_s"])) for one in drawn["segments"]]
        pace = pacing.pace(segments, drawn["blend_frames"])
        slots = pace.intervals_s()
        self.assertEqual(pace.frames, sum(pacing.counts(segments)))
        self.assertGreater(slots.min(), 0)
        ends = [float(interval) for _, interval in segments]
        self.assertGreaterEqual(slots.min(), min(ends) - 0.001)
        self.assertLessEqual(slots.max(), max(ends) + 0.001)
        self.assertTrue(all(used <= drawn["blend_frames"] and used >= 0 for used in pace.blends))

    def test_typed_over_figures_stretch_the_segments(self) -> None:
        plan = plan_of(THREE, clip={"frames": TWO})
        for path, text, key, value in (
            ("clip.shoot", "100 min", "clip.shoot", 6000),
            ("clip.frames", "240", "clip.frames", 240),
            ("clip.clip", "10 s", "clip.frames", 250),
            ("clip.rate", "24", "clip.rate", 24),
        ):
            with self.subTest(path):
                told = evaluate(make(plan, [TypeText(do="type", path=path, text=text)])[0])
                self.assertEqual(told.figures[key].value, value)

    @given(ramps, st.integers(1, 3000))
    def test_a_held_count_of_frames_is_shared_as_the_segments_were(self, drawn: dict, wanted: int) -> None:  # type: ignore[type-arg]
        """All of them together are what was asked for, none is left without a frame, none is off by more than one."""
        plan = plan_of({"rate": F(25)}, clip={"frames": drawn})
        before = pacing.counts([(s.length_s, s.interval_s) for s in plan.frames.segments])  # type: ignore[union-attr]
        after, _ = make(plan, [TypeText(do="type", path="clip.frames", text=str(wanted))])
        segments = [(s.length_s, s.interval_s) for s in after.frames.segments]  # type: ignore[union-attr]
        shared = pacing.counts(segments)
        self.assertEqual(sum(shared), max(wanted, len(before)))
        self.assertEqual([s.interval_s for s in after.frames.segments], [s.interval_s for s in plan.frames.segments])  # type: ignore[union-attr]
        for count, own in zip(shared, before, strict=True):
            fair = F(own * wanted, sum(before))
            self.assertGreaterEqual(count, 1)
            if min(F(n * wanted, sum(before)) for n in before) >= 1:
                self.assertLess(abs(count - fair), 1 + len(before))

    @given(ramps, st.integers(2, 300))
    def test_a_held_interval_is_the_mean_of_the_segments_or_a_step_above(self, drawn: dict, tenths_s: int) -> None:  # type: ignore[type-arg]
        mean = F(tenths_s, 10)
        plan = plan_of({"rate": F(25)}, clip={"frames": drawn})
        after, back = make(plan, [SetValue(do="set", path="clip.interval", value=str(mean))])
        before, now = ([s.interval_s for s in p.frames.segments] for p in (plan, after))  # type: ignore[union-attr]
        for is_now in now:
            self.assertEqual(is_now % F(1, 10), 0, "on the step that can be dialled")
            self.assertGreater(is_now, 0)
        # Those that were alike stay alike, and the order of the paces is kept.
        self.assertEqual(
            sorted(range(len(now)), key=lambda n: (before[n], n)),
            sorted(range(len(now)), key=lambda n: (now[n], before[n], n)),
        )
        self.assertEqual(apply(after, back)[0], plan)

    @given(ramps, st.sampled_from([F(1), F(5), F(30)]))
    def test_none_is_shorter_than_what_fits(self, drawn: dict, least: F) -> None:  # type: ignore[type-arg]
        plan = plan_of({"rate": F(25)}, clip={"frames": drawn})
        after = apply(plan, no_shorter(plan, least))[0]
        for was, now in zip(plan.frames.segments, after.frames.segments, strict=True):  # type: ignore[union-attr]
            self.assertEqual(now.interval_s, max(was.interval_s, least))
            self.assertEqual(now.length_s, max(was.length_s, least))

    def test_a_ramp_begins_as_the_shoot_was_and_its_pegs_come_back(self) -> None:
        plan = plan_of(THREE)
        ramped, undo = make(plan, [ChangingInterval(do="changing", on=True)])
        assert ramped.changing is not None
        self.assertEqual([segment.length_s for segment in ramped.changing.segments], [1800, 1800])
        self.assertEqual(evaluate(ramped).figures["clip.shoot"].value, 3600)
        self.assertEqual(apply(ramped, undo)[0], plan)
        self.assertEqual(make(ramped, [ChangingInterval(do="changing", on=False)])[0], plan)


class Spare(TestCase):
    @given(st.integers(1, 4000), st.sampled_from([F(1, 20), F(1, 10), F(1, 4), F(1, 2), F(2, 3)]))
    def test_a_held_clip_keeps_its_frames_when_the_spare_ones_are_culled(self, wanted: int, spare: F) -> None:
        holds = {"clip": F(wanted, 25), "rate": F(25), "interval": F(4)}
        solution = solver.solve(holds, F(0), 1 - spare)
        self.assertEqual(solution.kept, wanted)
        self.assertEqual(solution.frames, -(-wanted // (1 - spare)))
        self.assertEqual(solution.clip, holds["clip"])

    def test_a_held_shoot_gives_a_shorter_clip(self) -> None:
        told = evaluate(plan_of(THREE, clip={"spare": F(1, 10)}))
        self.assertEqual((told.frames, told.figures["clip.kept"].value), (360, 324))
        self.assertAlmostEqual(told.figures["clip.clip"].value, 12.96)


class OnTheClock(TestCase):
    def test_be_done_by(self) -> None:
        plan = plan_of(THREE, clock={"holds": "finish"})
        told = evaluate(plan).figures
        self.assertEqual(told["time.finish"].value, START.timestamp())
        self.assertEqual(told["time.first"].value, (START - timedelta(hours=1)).timestamp())
        longer, _ = make(plan, [SetValue(do="set", path="clip.shoot", value="7200")])
        self.assertEqual(evaluate(longer).figures["time.finish"].value, START.timestamp())

    @given(st.sampled_from(["start", "finish"]), tenths(1, 200))
    def test_changing_what_the_clock_holds_moves_nothing(self, holds: str, interval: F) -> None:
        plan = plan_of({**THREE, "interval": interval})
        after, _ = make(plan, [HoldClock.model_validate({"do": "clock", "holds": holds})])
        before, now = (evaluate(one).figures["time.first"].value for one in (plan, after))
        self.assertAlmostEqual(before, now, 5)

    def test_errands_run_backwards_from_the_press(self) -> None:
        errands = [{"name": "walk there", "length_s": 1200}, {"name": "build", "length_s": 600}]
        told = evaluate(plan_of(THREE, clock={"errands": errands, "start_delay_s": 30})).figures
        starts = [told[key].value - START.timestamp() for key in ("time.errand.0", "time.errand.1", "time.press")]
        self.assertEqual(starts, [-1830, -630, -30])

    def test_where_an_event_falls_in_the_clip(self) -> None:
        events = [{"name": "high tide", "at": (START + timedelta(minutes=30)).isoformat()}]
        even = evaluate(plan_of(THREE, clock={"events": events})).figures
        self.assertEqual((even["event.0.frame"].value, even["event.0.clip"].value), (181, 7.2))
        # Twenty minutes at 10 s are 120 frames, ten more at 5 s another 120.
        changing = evaluate(plan_of(THREE, clip={"frames": TWO}, clock={"events": events})).figures
        self.assertEqual(changing["event.0.clip"].value, 240 / 25)

    def test_frames_called_by_an_event_have_a_range(self) -> None:
        told = evaluate(plan_of(THREE, clip={"called_by": "event", "event_spread": F(1, 4)})).figures
        self.assertEqual(
            [told[f"time.{name}"].value - START.timestamp() for name in ("earliest", "latest")], [2700, 4500]
        )

    def test_handles_stand_still_and_the_move_runs_between_them(self) -> None:
        plan = plan_of(THREE, clip={"handle_in_frames": 10, "handle_out_frames": 20})
        plan = apply(plan, [Edit(path="move.keyframes.1.slide_mm", value=500.0)])[0]
        slide = shooting(plan).positions["slide"]
        self.assertEqual((slide[10], slide[11] > 0, slide[339], slide[338] < 500), (0, True, 500, True))
        self.assertEqual(len(slide), 360)


class StartingPoints(TestCase):
    def test_crossing_and_trial(self) -> None:
        self.assertEqual(starting_points.crossing_interval(F(600), F(8), F(25)), 3)
        self.assertEqual(starting_points.trial_interval(F(7200), F(144), F(2)), 100)

    def test_every_subject_of_the_job_has_its_range(self) -> None:
        ranges = {one.key: (one.low_s, one.high_s) for one in starting_points.POINTS}
        self.assertEqual(ranges["slow-clouds"], (5, 12))
        self.assertEqual(ranges["flowers"], (120, 600))
        self.assertEqual(len(ranges), 12)
        self.assertTrue(all(low < high for low, high in ranges.values()))

    def test_an_interval_is_told_how_it_stands_to_its_subject(self) -> None:
        for subject, interval, expected in (
            ("slow-clouds", 4, "shorter"),
            ("slow-clouds", 5, "within"),
            ("slow-clouds", 12, "within"),
            ("slow-clouds", F(121, 10), "longer"),
            ("flowers", 10, "shorter"),
            ("", 10, None),
            ("nothing that is known", 10, None),
        ):
            with self.subTest(subject, interval=interval):
                plan = plan_of({**THREE, "interval": F(interval)}, clip={"subject": subject})
                self.assertEqual(evaluate(plan).clip.subject, expected)
        # It is held, though the clip is open.
        self.assertEqual(evaluate(plan_of({"interval": F(2)}, clip={"subject": "slow-clouds"})).clip.subject, "shorter")
        self.assertIsNone(evaluate(plan_of({}, clip={"subject": "slow-clouds"})).clip.subject)
