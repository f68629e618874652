# ruff: noqa: E501
"""Brackets, dark frames, stacks, the buffer, both schools, two clocks."""

import math
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat, Stack, Uncoupled
from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Keyframe, Move
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time import buffer, cycle
from tests.strategies import beats, plan_of, ramp, ramps, shooting

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}


class Exposing(TestCase):
    def test_the_worked_bracket(self) -> None:
        need = cycle.round_need(2.0, 2.4, [0.418 + 0.9], wake=0, each=0.06 + 1.0, write_while_moving=True)[0]
        self.assertAlmostEqual(need, 5.46, 9)
        self.assertAlmostEqual(float(cycle.shortest_interval(need, 0.1, 0.1, F(1, 100))), 6.07)
        beat = Beat(exposure_s=F(2, 5), bracket_frames=5, write_s=F(12, 5), settle_s=F(9, 10))
        move = Move(keyframes=(Keyframe(), Keyframe(slide_mm=3.5 * 359)))
        told = evaluate(plan_of(THREE, beat=beat, move=move)).figures
        self.assertAlmostEqual(told["beat.need"].value, 5.46, 9)
        self.assertAlmostEqual(told["beat.move"].value, 0.418, 3)

    @given(st.integers(1, 9), st.sampled_from([0.0, 0.5, 1.0, 2.0]))
    def test_a_bracket_is_its_exposures_one_by_one(self, count: int, step: float) -> None:
        each = [2 ** (step * (j - (count - 1) / 2)) for j in range(count)]
        self.assertAlmostEqual(cycle.bracket_factor(count, step), sum(each))
        self.assertAlmostEqual(cycle.longest_of_bracket(count, step), max(each))

    def test_noise_reduction_follows_each_exposure_and_only_the_last_overlaps_the_move(self) -> None:
        beat = Beat(exposure_s=F(2), bracket_frames=3, noise_reduction=True)
        told = shooting(plan_of(THREE, beat=beat)).cycle.exposures
        self.assertEqual((told.total_s, told.dark_in_gaps_s, told.dark_last_s), (6, 4, 2))
        self.assertEqual(told.gaps_s, 2 * 0.25 + 4)

    def test_a_focus_stack_multiplies_the_exposures(self) -> None:
        near, far, f, a, c = 300.0, 400.0, 50.0, 8.0, 0.03
        count = lens.stack_positions(near, far, 0.2, f, a, c)
        beat = Beat(exposure_s=F(1, 10), stack=Stack(near_mm=near, far_mm=far))
        plan = plan_of({**THREE, "interval": F(60)}, beat=beat, camera={"focal_mm": f, "aperture": a, "circle_mm": c})
        self.assertAlmostEqual(evaluate(plan).figures["beat.exposures"].value, count * 0.1)
        # As many exposures, each focused where the last one ceases to be sharp, reach the far end.
        hyper, sharp = lens.hyperfocal_mm(f, a, c), near
        for _ in range(count):
            focus = sharp * (hyper - 2 * f) / (hyper - f - sharp)
            sharp = focus * (hyper - f) / (hyper - focus)
        self.assertGreaterEqual(sharp, far)


class Buffering(TestCase):
    def test_the_worked_buffer(self) -> None:
        self.assertAlmostEqual(buffer.estimate(2, 3.2, 22), 58.7, 1)
        stall = buffer.simulate([2.0] * 300, 3.2, 22)
        assert stall is not None
        self.assertEqual(stall.kept, 57)

    @given(st.floats(0.5, 5), st.floats(0.1, 8), st.integers(1, 30), st.integers(1, 3))
    def test_nothing_is_refused_when_everything_is_written_in_time(self, t: float, w: float, b: int, n: int) -> None:
        stall = buffer.simulate([t] * 200, w, b, n)
        if n * w <= t:
            self.assertIsNone(stall)
        elif stall is not None:
            self.assertGreaterEqual(stall.kept, b // n)
            self.assertLessEqual(stall.kept + stall.lost, 200)

    def test_with_a_buffer_the_cycle_leaves_the_writing_out(self) -> None:
        bare, buffered = (evaluate(plan_of(THREE, beat=Beat(write_s=F(5), buffer_frames=n))).figures for n in (0, 9))
        self.assertAlmostEqual(bare["beat.need"].value - buffered["beat.need"].value, 5 - 0.0, 1)


class Schools(TestCase):
    MOVE = Move(keyframes=(Keyframe(), Keyframe(pan_deg=40)), marks=(Mark(name="post", x_mm=0, y_mm=2000),))

    def test_the_worked_smear(self) -> None:
        scale = lens.px_per_deg(24, 36, 6000)
        self.assertAlmostEqual(scale, 69.81, 2)
        centre, edge = lens.smear_px(40 / 3000, 2, scale, 36, 24)
        self.assertAlmostEqual(centre, 1.86, 2)
        self.assertAlmostEqual(edge, 2.91, 2)
        self.assertAlmostEqual(lens.smear_px(40 / 3000, 0.5, scale, 36, 24)[0], 0.47, 2)

    def test_side_by_side(self) -> None:
        told = evaluate(plan_of(THREE, move=self.MOVE, beat=Beat(exposure_s=F(1, 2))))
        stop, flow = told.schools
        self.assertEqual(
            [(school.school, school.here) for school in told.schools],
            [("shoot-move-shoot", True), ("continuous", False)],
        )
        assert flow.smear_px is not None
        self.assertEqual((stop.smear_px, flow.smear_px > 0), (0, True))
        shortest = [told.figures[f"school.{school.school}.shortest"].value for school in told.schools]
        self.assertGreater(shortest[0], shortest[1])

    @given(beats)
    def test_going_on_never_needs_longer_than_stopping(self, beat: Beat) -> None:
        told = evaluate(plan_of(THREE, move=self.MOVE, beat=beat)).figures
        needs = [told[f"school.{name}.need"].value for name in ("shoot-move-shoot", "continuous")]
        self.assertGreaterEqual(needs[0], needs[1] - 1e-9)

    def test_the_tightest_frame_of_a_changing_interval_is_the_one_that_is_judged(self) -> None:
        told = evaluate(plan_of(THREE, clip={"frames": ramp((600, 10), (600, 2))}, beat=Beat(exposure_s=F(2))))
        assert told.beat is not None
        self.assertEqual((told.beat.interval_s, told.beat.frame >= 60), (2, True))
        self.assertIn("interval-too-short", {snag.code for snag in told.snags})

    def test_two_clocks(self) -> None:
        beat = Beat(uncoupled=Uncoupled(between_starts_s=F(25), drift_ppm=1000))
        told = evaluate(plan_of(THREE, beat=beat)).figures
        self.assertEqual((told["untied.first"].value, told["untied.last"].value), (3, 3))
        self.assertAlmostEqual(told["untied.drift"].value, 3.6)


class Tightest(TestCase):
    """Which frame of a shoot is the tightest, by trying each of them."""

    @settings(max_examples=60, deadline=None)
    @given(ramps, beats, st.floats(0, 900), st.floats(-90, 90), st.integers(0, 60))
    def test_no_frame_has_less_left_than_the_one_that_is_shown(
        self,
        drawn: dict[str, Any],
        beat: Beat,
        slide: float,
        pan: float,
        ease: int,
    ) -> None:
        move = Move(keyframes=(Keyframe(), Keyframe(slide_mm=slide, pan_deg=pan)), ease_in_frames=ease)
        plan = plan_of({"rate": F(25)}, clip={"frames": drawn}, move=move, beat=beat)
        shooting = reckon(plan).shooting
        assume(shooting is not None and shooting.frames < 600)
        assert shooting is not None
        cycle_of = shooting.cycle
        left = [self._left(plan, shooting, frame) for frame in range(shooting.frames)]
        self.assertAlmostEqual(left[cycle_of.frame], min(left), delta=1e-6)
        self.assertAlmostEqual(
            float(cycle_of.interval_s), float(shooting.timeline.rooms_s[cycle_of.frame]), delta=0.002
        )

    def _left(self, plan: Plan, shooting: Shooting, frame: int) -> float:
        """What a frame's slot leaves when all that has to fit is done, margin included."""
        beat, exposing = plan.beat, shooting.cycle.exposures
        slot = float(shooting.timeline.rooms_s[frame])
        travel = max(
            (
                cycle.step_time(float(shooting.steps[a.name][0, frame]), a.top_speed, a.acceleration)
                for a in plan.rig.axes
            ),
            default=0.0,
        )
        travel = 0.0 if beat.continuous else travel + (float(beat.settle_s) if travel else 0.0)
        store = exposing.processing_s + (0.0 if beat.buffer_frames else float(beat.write_s))
        after = max(store, travel) if beat.write_while_moving else store + travel
        need = float(beat.wake_s + beat.lag_s) + exposing.busy_s + after
        return slot - need - max(float(beat.margin) * slot, float(beat.least_margin_s))


class Stacks(TestCase):
    def test_as_many_positions_as_it_takes_to_hold_the_depth(self) -> None:
        """35 mm at f/8, a circle of 0.03 mm: what is sharp around the near end, in reciprocals, and how often it fits."""
        hyper = 35**2 / (8 * 0.03) + 35
        for near, far, overlap in (
            (300, 305, 0.0),
            (300, 500, 0.2),
            (300, 500, 0.5),
            (150, 900, 0.2),
            (2000, 9000, 0.2),
        ):
            each = (1 - overlap) * 2 * (1 - 35 / near) / (hyper - 35)
            wanted = max(1, math.ceil((1 / near - 1 / far) / each - 1e-9))
            with self.subTest(near=near, far=far, overlap=overlap):
                self.assertEqual(lens.stack_positions(near, far, overlap, 35, 8, 0.03), wanted)
        self.assertEqual(lens.stack_positions(300, 305, 0, 35, 8, 0.03), 1)

    def test_what_is_sharp_around_one_position_reaches_the_next(self) -> None:
        """Stepping by the depth around each position one comes to the far end with the last of them, and not before."""
        near, far, hyper = 300.0, 800.0, 35**2 / (8 * 0.03) + 35
        count = lens.stack_positions(near, far, 0.0, 35, 8, 0.03)
        step = 2 * (1 - 35 / near) / (hyper - 35)
        self.assertLessEqual(1 / near - count * step, 1 / far + 1e-12)
        self.assertGreater(1 / near - (count - 1) * step, 1 / far)


class Handles(TestCase):
    def test_handles_of_as_many_frames_absorb_two_clocks_and_a_frame_less_does_not(self) -> None:
        beat = Beat(uncoupled=Uncoupled(between_starts_s=F(25)))
        for first, last, enough in ((3, 3, True), (2, 3, False), (3, 2, False), (9, 9, True), (0, 0, False)):
            clip = {"handle_in_frames": first, "handle_out_frames": last}
            told = {snag.code for snag in evaluate(plan_of(THREE, beat=beat, clip=clip)).snags}
            with self.subTest(first=first, last=last):
                self.assertEqual("handles-do-not-absorb" not in told, enough)
