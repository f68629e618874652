"""Brackets, dark frames, stacks, the buffer, both schools, two clocks."""

import itertools
import math
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.asks.changes import Begin, Drop, MakeEdits, TypeText, make
from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat, Stack, Uncoupled
from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Keyframe, Move
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time import buffer, cycle
from tests.provoked import fixes_work
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
        beat = Beat(exposure_s=F(1, 2), bracket_frames=count, bracket_step_stops=step)
        told = shooting(plan_of({**THREE, "interval": F(60)}, beat=beat)).cycle.exposures
        each = [2 ** (step * (j - (count - 1) / 2)) for j in range(count)]
        self.assertAlmostEqual(told.factor, sum(each))
        self.assertAlmostEqual(told.longest_s, max(each) / 2)
        self.assertAlmostEqual(list(told.starts_s())[-1], sum(each[:-1]) / 2 + (count - 1) / 4)

    def test_a_bracket_of_the_camera_s_own_times(self) -> None:
        """1/60, 1/15 and 1/4: their sum, the longest of them, and on the card what is dialled."""
        times = (F(1, 60), F(1, 15), F(1, 4))
        told = evaluate(plan_of(THREE, beat=Beat(exposure_s=F(1, 15), bracket_times_s=times)))
        self.assertAlmostEqual(told.figures["beat.exposures"].value, 1 / 3)
        self.assertAlmostEqual(told.figures["beat.bracket"].value, 5)
        self.assertAlmostEqual(told.figures["beat.longest_exposure"].value, 0.25)
        self.assertAlmostEqual(told.figures["beat.gaps"].value, 0.5)
        dialled = {line.label: line.value.value for sheet in told.review.sheets for line in sheet.settings}
        self.assertEqual(dialled["bracket"], "1/60 s, 1/15 s and 1/4 s")

    def test_a_bracket_of_its_own_is_begun_from_the_one_that_stands_and_goes_along_with_a_fix(self) -> None:
        plan = plan_of(THREE, beat=Beat(exposure_s=F(1, 60), bracket_frames=3, bracket_step_stops=2))
        for wanted in (["1/250", "1/60", "1/15"], ["1/250", "1/60", "1/15", "1/4"]):
            plan, _ = make(plan, [Begin(do="begin", path="beat.bracket_times_s")])
            self.assertEqual([str(time) for time in plan.beat.bracket_times_s], wanted)
        plan, _ = make(plan, [TypeText(do="type", path="beat.bracket_times_s.3", text="8s")])
        self.assertEqual(plan.beat.bracket_times_s[-1], 8)
        short = next(one for one in evaluate(plan).snags if one.code == "interval-too-short")
        fix = next(fix for fix in short.fixes if fix.label.startswith("Expose"))
        fixed, _ = make(plan, [MakeEdits(do="edits", edits=fix.edits)])
        self.assertNotIn("interval-too-short", {one.code for one in evaluate(fixed).snags})
        self.assertLess(fixed.beat.bracket_times_s[-1], 8)
        for left in (3, 2, 0):
            plan, _ = make(plan, [Drop(do="drop", path="beat.bracket_times_s.0")])
            self.assertEqual(len(plan.beat.bracket_times_s), left)

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
        stall = buffer.simulate([t] * 200, w, b, [0.01 * number for number in range(n)])
        if n * w <= t and n <= b:
            self.assertIsNone(stall)
        elif stall is not None:
            self.assertGreaterEqual(stall.kept, b // n)
            self.assertLessEqual(stall.kept + stall.lost, 200)
            self.assertLessEqual(stall.lost, stall.pictures)

    def test_a_full_buffer_refuses_picture_by_picture(self) -> None:
        """Five pictures at once every 5 s, 2 s to write each, room for six, followed by hand.

        At 0 s five go in; by 5 s two are out, three are left, three fit and two are refused; by 10 s three more are
        out (at 6, 8 and 10 s), three are left again; by 15 s only two (12 and 14 s), so two fit of five.
        """
        self.assertEqual(buffer.simulate([5.0], 2, 6, [0.0] * 5), None)
        self.assertEqual(buffer.simulate([5.0] * 2, 2, 6, [0.0] * 5), (1, 1, 2))
        self.assertEqual(buffer.simulate([5.0] * 3, 2, 6, [0.0] * 5), (1, 2, 4))
        self.assertEqual(buffer.simulate([5.0] * 4, 2, 6, [0.0] * 5), (1, 3, 7))

    def test_a_bracket_that_alone_fills_the_buffer_is_told_however_long_the_interval(self) -> None:
        """Five pictures in a second, 2 s to write each, room for three: the fourth is refused, and a minute is no help.

        A frame of five in a room for five is written after 10 s: told in a minute of interval by nobody.
        """
        bracket = {"bracket_frames": 5, "bracket_gap_s": F(1, 10), "exposure_s": F(1, 10), "write_s": F(2)}
        for room, stalls in ((3, True), (5, False)):
            held = {"interval": F(60), "frames": F(20), "rate": F(25)}
            plan = plan_of(held, beat=Beat(buffer_frames=room, **bracket))
            told = evaluate(plan)
            found = [snag for snag in told.snags if snag.code == "buffer-stalls-in-part"]
            self.assertEqual((bool(found), told.stalls_at), (stalls, 0 if stalls else None))
            for snag in found:
                fixes_work(self, plan, snag)

    def test_a_stack_without_a_buffer_waits_for_each_picture_and_is_never_better_off_than_one_with(self) -> None:
        """2.2 s to write and 14 positions: each but the last is written before the focus may go on."""
        stack = Stack(near_mm=150, far_mm=610, overlap=F(1, 5))
        needs, told = [], []
        for room in (0, 30):
            beat = Beat(write_s=F(11, 5), buffer_frames=room, stack=stack, exposure_s=F(1, 10))
            plan = plan_of({**THREE, "interval": F(25)}, beat=beat)
            positions = shooting(plan).cycle.exposures.positions
            self.assertGreater(positions, 10)
            needs.append(evaluate(plan).figures["beat.need"].value)
            told.append({snag.code for snag in evaluate(plan).snags})
        self.assertAlmostEqual(needs[0] - needs[1], (positions - 1) * (2.2 - 1.0) + 2.2)
        self.assertIn("interval-too-short", told[0])
        self.assertIn("buffer-stalls-in-part", told[1])

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
            (cycle.step_time(float(shooting.steps[a.name][0, frame]), a.fastest, a.liveliest) for a in plan.rig.axes),
            default=0.0,
        )
        travel = 0.0 if beat.continuous else travel + (float(beat.settle_s) if travel else 0.0)
        store = exposing.processing_s + (0.0 if beat.buffer_frames else float(beat.write_s))
        after = max(store, travel) if beat.write_while_moving else store + travel
        need = float(beat.wake_s + beat.lag_s) + exposing.busy_s + after
        return slot - need - max(float(beat.margin) * slot, float(beat.least_margin_s))


class Stacks(TestCase):
    # Focal length, f-number, near, far, and how many positions a walk from limit to limit takes.
    WALKED = (
        (35, 8, 300, 305, 1), (35, 8, 300, 500, 4), (35, 8, 150, 900, 17), (50, 8, 60, 70, 57), (50, 8, 55, 400, 236),
        (35, 8, 2000, 9000, 2), (35, 8, 2000, 20000, 2), (24, 2.8, 500, 1e6, 8),
    )  # fmt: skip

    def test_without_overlap_as_many_as_a_walk_from_limit_to_limit_takes(self) -> None:
        for focal, stop, near, far, wanted in self.WALKED:
            with self.subTest(focal=focal, near=near, far=far):
                self.assertEqual(self._walked(near, far, focal, stop), wanted)
                self.assertEqual(lens.stack_positions(near, far, 0, focal, stop, 0.03), wanted)

    @given(st.floats(8, 200), st.floats(1.4, 22), st.floats(1.05, 60), st.floats(1.01, 40), st.floats(0, 0.8))
    def test_all_is_sharp_from_near_to_far_and_one_position_fewer_would_not_do(
        self, focal: float, stop: float, near: float, deep: float, overlap: float
    ) -> None:
        near, circle, far = near * focal, 0.03, near * focal * deep
        count = lens.stack_positions(near, far, overlap, focal, stop, circle)
        assume(count < 2000)
        hyper = focal**2 / (stop * circle) + focal
        limits = [
            (
                at * (hyper - focal) / (hyper + at - 2 * focal),
                at * (hyper - focal) / (hyper - at) if at < hyper else 1e12,
            )
            for at in lens.focus_distances_mm(near, far, count, focal, stop, circle)
        ]
        self.assertLessEqual(limits[0][0], near * (1 + 1e-9))
        self.assertGreaterEqual(limits[-1][1], far * (1 - 1e-9))
        for (_, sharp_to), (sharp_from, further) in itertools.pairwise(limits):
            self.assertLessEqual(sharp_from, sharp_to * (1 + 1e-9))
            self.assertGreater(further, sharp_to)
        if not overlap:
            self.assertLessEqual(
                abs(count - self._walked(near, far, focal, stop)), 0 if self._clear(near, far, focal, stop) else 1
            )

    def test_a_single_position_leaves_both_ends_as_sharp(self) -> None:
        """A point at d is drawn as a disc by a lens that is focused at s: f² · |d − s| / (N · d · (s − f)) across."""
        for near, far in ((1000.0, 1100.0), (600.0, 620.0), (3000.0, 3900.0)):
            (at,) = lens.focus_distances_mm(near, far, 1, 50.0, 8.0, 0.03)
            blurred = [50.0**2 * abs(end - at) / (8.0 * end * (at - 50.0)) for end in (near, far)]
            self.assertAlmostEqual(blurred[0] / blurred[1], 1, delta=0.05)

    def _walked(self, near: float, far: float, focal: float, stop: float) -> int:
        """Each position focused so that it is sharp from where the one before ceases to be."""
        hyper, sharp, count = focal**2 / (stop * 0.03) + focal, near, 0
        while sharp < far * (1 - 1e-12):
            focus = sharp * (hyper - 2 * focal) / (hyper - focal - sharp) if sharp < hyper - focal else math.inf
            sharp = focus * (hyper - focal) / (hyper - focus) if focus < hyper else math.inf
            count += 1
        return max(count, 1)

    def _clear(self, near: float, far: float, focal: float, stop: float) -> bool:
        """Whether the walk's end is not decided by the last digits of a float."""
        return self._walked(near, far * (1 - 1e-6), focal, stop) == self._walked(near, far * (1 + 1e-6), focal, stop)

    def test_where_everything_passes_for_sharp_there_is_no_stack_to_count(self) -> None:
        wide = {"focal_mm": 10, "aperture": 22, "circle_mm": 1}
        told = evaluate(plan_of(THREE, camera=wide, beat=Beat(stack=Stack(near_mm=20, far_mm=90)))).figures
        self.assertNotIn("beat.positions", told)
        self.assertEqual(told["beat.exposures"].value, 1 / 60)
        with self.assertRaisesRegex(ValueError, "everything passes for sharp"):
            lens.stack_positions(20, 90, 0, 10, 22, 1)


class Handles(TestCase):
    def test_handles_of_as_many_frames_absorb_two_clocks_and_a_frame_less_does_not(self) -> None:
        beat = Beat(uncoupled=Uncoupled(between_starts_s=F(25)))
        for first, last, enough in ((3, 3, True), (2, 3, False), (3, 2, False), (9, 9, True), (0, 0, False)):
            clip = {"handle_in_frames": first, "handle_out_frames": last}
            told = {snag.code for snag in evaluate(plan_of(THREE, beat=beat, clip=clip)).snags}
            with self.subTest(first=first, last=last):
                self.assertEqual("handles-do-not-absorb" not in told, enough)
