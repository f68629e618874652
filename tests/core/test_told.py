"""What a person is told, line by line: the card, the ring, the marks to set, the shares, the clocks of sights."""

from datetime import timedelta
from fractions import Fraction as F
from unittest import TestCase

import numpy as np

from bridle.core.evaluate import evaluate
from bridle.core.lists.hand_marks import mark_lines
from bridle.core.plan.beat import Beat
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Axis, Rig
from bridle.core.plan.rounds import StereoPair
from bridle.core.reckon.loads import carriages, over_mm
from bridle.core.reckon.stack import stack
from bridle.core.run.programme import programme
from tests.strategies import START, copies, fitted, plan_of, ramp, shooting
from tests.workings import worked_out

THREE = {"rate": F(25), "frames": F(420), "interval": F(10)}
SLOW = {"rate": F(25), "frames": F(11), "interval": F(60)}
ALONG = Move(keyframes=(Keyframe(), Keyframe(slide_mm=100)))


class Beats(TestCase):
    def test_the_second_picture_of_a_pair_comes_after_all_that_lies_before_it(self) -> None:
        """Lag, exposure, then storing or moving and settling, whichever is longer: all of the first picture."""
        beat = Beat(lag_s=F(1, 5), exposure_s=F(2), write_s=F(3), settle_s=F(1), write_while_moving=True)
        plan = plan_of(SLOW, move=Move(visits=StereoPair(base_mm=50)), beat=beat)
        say, move = shooting(plan).orders, 2.0 + 25 / 80 + 0.0
        # 50 mm at 25 mm/s and 80 mm/s²: speed over acceleration, and the distance over the speed.
        self.assertAlmostEqual(say.due_s[1] - say.due_s[0], 0.2 + 2 + max(3, move + 1), 9)
        self.assertAlmostEqual(say.due_s[2] - say.due_s[0], 60, 9)

    def test_each_place_of_a_round_is_due_as_soon_as_its_own_move_allows(self) -> None:
        """From the second pair on the carriage turns round before each picture and takes up its play first."""
        beat = Beat(lag_s=F(0), exposure_s=F(1), write_s=F(0), settle_s=F(0))
        slide = Rig().axes[0].model_copy(update={"backlash": 2.0})
        keys = (Keyframe(slide_mm=300), Keyframe(slide_mm=300))
        plan = plan_of(
            SLOW, move=Move(keyframes=keys, visits=StereoPair(base_mm=50)), beat=beat, rig=Rig(axes=(slide,))
        )
        due = shooting(plan).orders.due_s
        self.assertAlmostEqual(due[1] - due[0], 1 + 50 / 25 + 25 / 80, 9)
        self.assertAlmostEqual(due[3] - due[2], 1 + 52 / 25 + 25 / 80, 9)

    def test_the_ring_is_one_interval_with_its_margin_at_the_end(self) -> None:
        """Parts follow one another without overlap on their track; the margin is the last share of the interval."""
        beat = Beat(wake_s=F(1), lag_s=F(0), exposure_s=F(2), write_s=F(3), settle_s=F(1), margin=F(1, 10))
        for held, over in ((SLOW, False), ({**SLOW, "interval": F(4)}, True)):
            told = evaluate(plan_of(held, move=ALONG, beat=beat)).beat
            assert told is not None
            outer = {part.name: part for part in told.parts if part.track == "outer"}
            margin, spare = outer["margin"], outer["spare"]
            self.assertEqual(told.over_s > 0, over)
            # A half of four seconds is exposed, or a thirtieth of sixty.
            self.assertEqual(told.character, "flowing" if over else "staccato")
            self.assertAlmostEqual(margin.length_s, float(held["interval"]) / 10)
            if over:
                self.assertAlmostEqual(margin.start_s, told.need_s)
                self.assertEqual(spare.length_s, 0)
            else:
                self.assertAlmostEqual(margin.start_s + margin.length_s, 60)
                self.assertAlmostEqual(spare.start_s + spare.length_s, margin.start_s)

    def test_what_stands_still_has_nothing_to_settle(self) -> None:
        beat = Beat(exposure_s=F(2), write_s=F(1), settle_s=F(5), lag_s=F(0))
        still = plan_of(SLOW, move=Move(keyframes=(Keyframe(), Keyframe())), beat=beat)
        need = evaluate(still).figures["beat.need"]
        self.assertAlmostEqual(need.value, 3)
        self.assertAlmostEqual(worked_out(need), 3)

    def test_a_run_waits_for_the_dark_frame(self) -> None:
        """Noise reduction takes as long again; the camera refuses the next trigger until then."""
        beat = Beat(exposure_s=F(4), noise_reduction=True, merge_s=F(1, 2))
        told = programme(plan_of(SLOW, beat=beat))
        self.assertEqual((told.exposure_s(0), told.process_s(0)), (4, 4.5))


class Clocks(TestCase):
    def test_the_card_has_the_first_frame_the_last_and_the_end(self) -> None:
        sheets = {sheet.title: sheet for sheet in evaluate(plan_of(SLOW)).review.sheets}
        times = {line.label: line.value.value for line in sheets["Times"].settings}
        first = START.timestamp()
        self.assertEqual(times, {"first frame": first, "last frame": first + 600, "finished": first + 660})

    def test_a_hand_mark_is_set_after_the_frame_before_it(self) -> None:
        """A slide of ten divisions over eleven frames: each mark is set as soon as the frame before it is taken."""
        plan = plan_of(SLOW, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=10))))
        known = shooting(plan)
        lines = mark_lines(plan, known.positions, known.timeline)
        self.assertEqual([line.frame for line in lines], list(range(1, 12)))
        self.assertEqual([line.marks[0] for line in lines], list(range(11)))
        asked = [START + timedelta(seconds=60 * max(n - 1, 0)) for n in range(11)]
        self.assertEqual([line.clock for line in lines], [moment.timestamp() for moment in asked])

    def test_a_mark_is_seen_from_one_clock_to_another(self) -> None:
        """Panned away from it: it leaves the picture on its way, and the last clock is that of its last frame."""
        move = Move(keyframes=(Keyframe(), Keyframe(pan_deg=90)), marks=(Mark(name="post", x_mm=0, y_mm=3000),))
        told = evaluate(plan_of(THREE, move=move)).view
        assert told is not None
        ((first, last),) = told.sights[0].runs
        self.assertEqual(first, 0)
        self.assertTrue(0 < last < 419)
        self.assertEqual(told.sights[0].clocks, ((START.timestamp(), START.timestamp() + 10 * last),))

    def test_the_page_is_told_when_the_frames_are(self) -> None:
        even = evaluate(plan_of(THREE)).traces
        assert even is not None
        self.assertEqual((even.map.frames, even.map.elapsed_s), ((0, 420), (0, 4200)))
        two = evaluate(plan_of(THREE, clip={"frames": ramp((600, 10), (600, 2))})).traces
        assert two is not None
        self.assertEqual((two.map.frames, two.map.elapsed_s), ((0, 60, 360), (0, 600, 1200)))

    def test_culled_frames_are_no_part_of_the_clip(self) -> None:
        for clip, frames in (({"frames": ramp((600, 10), (600, 2))}, 360), ({}, 420)):
            told = evaluate(plan_of(THREE, clip={**clip, "spare": F(1, 4)})).figures
            self.assertEqual((told["clip.frames"].value, told["clip.clip"].value), (frames, frames * 3 // 4 / 25))


class Shares(TestCase):
    def test_the_shift_is_a_share_of_the_width(self) -> None:
        """A pan of 42 degrees over 420 steps, seen in a corner: a tenth of a degree, in widths of the picture."""
        told = evaluate(plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=41.9)))))
        shift, share, *sides = (
            told.figures[f"view.{name}"].value for name in ("shift", "shift_share", "across", "upright")
        )
        assert told.view is not None
        self.assertAlmostEqual(share, shift / told.view.delivered_px[0], 12)
        # There a pan passes by more than in the middle: 1 + tan² of half the view across, and both tangents up.
        half, high = np.tan(np.radians(np.array(sides) / 2))
        self.assertAlmostEqual(share, np.radians(0.1) * np.hypot(1 + half**2, half * high) / (2 * half), 6)


class Standing(TestCase):
    def test_the_carriage_goes_from_its_lowest_place_to_its_highest(self) -> None:
        move = Move(keyframes=(Keyframe(slide_mm=700), Keyframe(slide_mm=100)))
        plan = fitted(plan_of(THREE, move=move), copies("tripod", "belt-rail", "crop-body"))
        put = stack(plan)
        low, high = carriages(plan, put)
        self.assertAlmostEqual(high - low, 600)
        told = evaluate(plan).rig
        assert told is not None
        self.assertEqual(told.carriage_mm, (low, high))

    def test_an_unlevel_base_leaves_less_to_both_sides(self) -> None:
        plan = fitted(plan_of(THREE, move=ALONG), copies("tripod", "belt-rail", "crop-body"))
        standing = plan.rig.standing.model_copy(update={"level_error_deg": 3.0})
        leaning = plan.model_copy(update={"rig": plan.rig.model_copy(update={"standing": standing})})
        put = stack(plan)
        for carriage in put.ends_mm:
            self.assertGreater(over_mm(leaning, put, carriage), over_mm(plan, put, carriage) + 10)

    def test_a_part_carries_what_stands_on_it_and_not_itself(self) -> None:
        plan = fitted(plan_of(THREE, move=ALONG), copies("tripod", "ball-head", "crop-body"))
        put = stack(plan)
        masses = [copy.card.mass_g for copy in plan.kit.copies]
        self.assertEqual([put.above(index) for index in range(3)], [masses[1] + masses[2], masses[2], 0])


class Timers(TestCase):
    def test_a_timer_that_gives_up_is_told_and_one_that_lasts_is_not(self) -> None:
        for longest, most, wanted in ((3600, 0, 1), (4200, 0, 0), (0, 300, 1), (0, 420, 0), (0, 0, 0)):
            trigger = copies("remote-timer", remote_timer={"longest_run_s": str(longest), "most_frames": most})
            told = evaluate(fitted(plan_of(THREE), trigger)).snags
            self.assertEqual(sum(snag.code == "trigger-gives-up" for snag in told), wanted, (longest, most))

    def test_one_axis_is_enough_for_a_rig(self) -> None:
        """The rig of a plan has just the axes that it has: nothing is told of those it has not."""
        pan = Axis(name="pan", kind="rotary", low=-90, high=90, top_speed=10, acceleration=20)
        told = evaluate(plan_of(THREE, rig=Rig(axes=(pan,))))
        assert told.traces is not None
        self.assertEqual(set(told.traces.axes), {"pan"})
        self.assertFalse([key for key in told.figures if "slide" in key])
