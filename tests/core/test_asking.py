"""What a person asks for does what was asked, and no more; and what one request is answered: properties over plans."""

import itertools
from fractions import Fraction as F
from unittest import TestCase

import numpy as np
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from bridle.core.asks import move_offers
from bridle.core.asks.changes import (
    AddKeyframe,
    AimAt,
    ChangingInterval,
    HoldClock,
    HoldPeg,
    ReleasePeg,
    SetValue,
    TypeText,
    make,
)
from bridle.core.asks.pegs import no_shorter
from bridle.core.evaluate import evaluate
from bridle.core.lists import frame as one_frame
from bridle.core.lists.origins import answer as origins
from bridle.core.lists.sides import side_by_side
from bridle.core.plan.clip import QUANTITIES, RANGES
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import PathError, apply, difference
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Keyframe, Move, OnFrame
from bridle.core.plan.rig import Rig
from bridle.core.reckon.clip import solved
from bridle.core.reckon.poses import see_mark
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.sights import runs_of
from tests.strategies import RINGS, copies, enough_holds, fitted, plan_of, plans, shooting

HELD = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
SLOW = settings(max_examples=30, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much])
places = st.floats(0, 900)
turns = st.floats(-160, 160)


def moving(*keys: Keyframe, **more: object) -> Plan:
    """A full rig's plan with these keyframes."""
    return plan_of(HELD, rig=Rig(axes=RINGS), move=Move.model_validate({"keyframes": keys, **more}))


class Keyframes(TestCase):
    @given(st.integers(1, 358), places, places, turns, turns)
    def test_one_more_stands_where_the_move_was_and_moves_no_other(
        self, frame: int, a: float, b: float, c: float, d: float
    ) -> None:
        plan = moving(Keyframe(slide_mm=a, pan_deg=c), Keyframe(slide_mm=b, pan_deg=d))
        before = shooting(plan)
        after = shooting(make(plan, [AddKeyframe(do="keyframe", frame=frame)])[0])
        self.assertEqual(len(after.plan.move.keyframes), 3)
        for name, digits in (("slide", 0.06), ("pan", 0.006)):
            was, now = before.positions[name], after.positions[name]
            self.assertAlmostEqual(float(was[frame]), float(now[frame]), delta=digits)
            self.assertEqual((was[0], was[-1]), (now[0], now[-1]))
        self.assertEqual(after.schedule.frame(1), frame)

    @given(st.integers(0, 5000), places)
    def test_captured_where_a_controller_stands_whatever_the_frame(self, frame: int, at: float) -> None:
        plan = moving(Keyframe(), Keyframe(slide_mm=500), ease_in_frames=20)
        after, back = make(plan, [AddKeyframe(do="keyframe", frame=frame, stands={"slide": at})])
        told = shooting(after)
        number = min(frame, 359)
        keys = [told.schedule.frame(n) for n in range(len(after.move.keyframes))]
        self.assertIn(number, keys)
        self.assertAlmostEqual(after.move.keyframes[keys.index(number)].slide_mm, at, delta=0.051)
        self.assertEqual(apply(after, back)[0], plan)

    def test_even_ones_stay_on_their_frames_when_another_comes_in(self) -> None:
        plan = moving(Keyframe(), Keyframe(slide_mm=100), Keyframe(slide_mm=300), Keyframe(slide_mm=900))
        stood = [shooting(plan).schedule.frame(n) for n in range(4)]
        after, _ = make(plan, [AddKeyframe(do="keyframe", frame=200)])
        now = [shooting(after).schedule.frame(n) for n in range(5)]
        self.assertEqual(sorted([*stood, 200]), now)
        self.assertEqual([key.when for key in after.move.keyframes][1], OnFrame(frame=stood[1] + 1))


class Aiming(TestCase):
    @given(places, places, st.floats(-3000, 4000), st.floats(800, 9000), st.floats(-800, 1500))
    def test_puts_the_mark_into_the_middle_as_far_as_the_head_reaches(
        self, a: float, b: float, x: float, y: float, z: float
    ) -> None:
        mark = Mark(name="post", x_mm=x, y_mm=y, z_mm=z)
        plan = moving(Keyframe(slide_mm=a), Keyframe(slide_mm=b), marks=(mark,))
        after, _ = make(plan, [AimAt(do="aim", mark=0)])
        told = shooting(after)
        seen = see_mark(after, told.poses, mark)
        for frame, key in ((0, after.move.start), (-1, after.move.end)):
            inside = -45 < key.tilt_deg < 60 and abs(key.pan_deg) < 170
            if inside:
                self.assertAlmostEqual(float(seen.across()[frame]), 0, delta=0.001)
                self.assertAlmostEqual(float(seen.above()[frame]), 0, delta=0.001)

    def test_at_what_is_not_there_is_refused(self) -> None:
        plan = moving(Keyframe(), Keyframe(), marks=(Mark(name="post"),))
        for mark, keyframe in ((1, None), (0, 2), (5, 9)):
            with self.subTest(mark=mark, keyframe=keyframe):
                self.assertRaises(PathError, make, plan, [AimAt(do="aim", mark=mark, keyframe=keyframe)])


class Holding(TestCase):
    @given(enough_holds(), st.sampled_from(QUANTITIES))
    def test_what_is_held_is_what_stood_there(self, held: dict, name: str) -> None:  # type: ignore[type-arg]
        plan = plan_of(held)
        solution, _ = solved(plan)
        assume(solution is not None)
        assert solution is not None
        low, high, _ = RANGES[name]
        if not low < solution.value(name) <= high:
            # It follows from the others, but nobody can hold it.
            self.assertRaises(ValidationError, make, plan, [HoldPeg(do="hold", quantity=name)])
            return
        after, back = make(plan, [HoldPeg(do="hold", quantity=name)])
        again, _ = solved(after)
        assert again is not None
        self.assertEqual([again.value(each) for each in QUANTITIES], [solution.value(each) for each in QUANTITIES])
        self.assertEqual(apply(after, back)[0], plan)

    @given(enough_holds(), st.sampled_from(QUANTITIES))
    def test_a_peg_that_is_pulled_is_pulled(self, held: dict, name: str) -> None:  # type: ignore[type-arg]
        after, _ = make(plan_of(held), [ReleasePeg(do="release", quantity=name)])
        self.assertNotIn(name, [peg.quantity for peg in after.clip.pegs])
        self.assertEqual({peg.quantity for peg in after.clip.pegs}, set(held) - {name})

    @given(st.integers(11, 6000).map(lambda tenths: F(tenths, 10)))
    def test_nothing_shorter_than_is_kept_however_it_is_held(self, least: F) -> None:
        for held in (
            HELD,
            {"rate": F(25), "frames": F(360), "shoot": F(3600)},
            {"rate": F(25), "clip": F(10), "interval": F(2)},
        ):
            plan = plan_of(held)
            after = apply(plan, no_shorter(plan, least))[0]
            solution, _ = solved(after)
            assert solution is not None
            self.assertGreaterEqual(solution.interval, least)

    @given(st.sampled_from(["start", "finish"]), st.booleans())
    def test_the_clock_holds_the_other_end_and_the_shoot_stays_where_it_is(self, holds: str, changing: bool) -> None:
        plan = plan_of(HELD)
        if changing:
            plan, _ = make(plan, [ChangingInterval(do="changing", on=True)])
        after, _ = make(plan, [HoldClock(do="clock", holds=holds)])
        self.assertEqual(shooting(after).timeline.start, shooting(plan).timeline.start)


class Offers(TestCase):
    @given(st.floats(0, 1), places, places, turns)
    def test_a_smaller_move_begins_where_it_began_and_goes_a_share_of_the_way(
        self, share: float, a: float, b: float, pan: float
    ) -> None:
        plan = moving(Keyframe(slide_mm=a), Keyframe(slide_mm=b, pan_deg=pan))
        less = move_offers.scaled(plan, RINGS[:2], share)
        self.assertAlmostEqual(less.start.slide_mm, a, delta=0.001)
        self.assertAlmostEqual(less.end.slide_mm, a + (b - a) * share, delta=0.002)
        self.assertAlmostEqual(less.end.pan_deg, pan * share, delta=0.002)

    def test_a_still_plan_stands_still(self) -> None:
        plan = moving(Keyframe(), Keyframe(slide_mm=600, pan_deg=40, tilt_deg=5))
        told = shooting(apply(plan, move_offers.still(plan))[0])
        for name, places_of in told.positions.items():
            self.assertEqual(float(np.ptp(places_of)), 0, name)


class Lists(TestCase):
    @SLOW
    @given(plans, st.integers(0, 4000))
    def test_any_frame_of_any_plan_has_its_working_or_nothing(self, plan: Plan, frame: int) -> None:
        figures = one_frame.answer(plan, frame)
        known = reckon(plan).shooting
        if known is None:
            self.assertEqual(figures, [])
            return
        at = min(frame, known.frames - 1)
        by_key = {figure.key: figure.value for figure in figures}
        clock = known.timeline.clock(at).timestamp()
        self.assertAlmostEqual(by_key["frame.time"], clock, delta=0.002)

    @SLOW
    @given(plans, plans)
    def test_two_sides_are_told_where_and_only_where_they_differ(self, mine: Plan, theirs: Plan) -> None:
        self.assertEqual(side_by_side(mine, mine), [])
        sides = side_by_side(mine, theirs)
        self.assertEqual(bool(sides), bool(difference(mine, theirs)))

    @given(st.lists(st.booleans(), min_size=1, max_size=60))
    def test_runs_are_the_frames_at_which_something_holds(self, holds: list[bool]) -> None:
        found: list[int] = []
        for first, last in runs_of(np.array(holds)):
            found += range(first, last + 1)
        self.assertEqual(found, [number for number, held in enumerate(holds) if held])
        runs = runs_of(np.array(holds))
        for (_, last), (first, _) in itertools.pairwise(runs):
            self.assertGreater(first, last + 1, "runs that touch are one")

    def test_an_origin_is_typed_as_soon_as_it_differs_from_its_card(self) -> None:
        plan = fitted(plan_of(HELD), copies("full-frame-body"))
        self.assertIn(origins(plan)["beat.lag_s"].how, ("card", "measured"))
        typed, back = make(plan, [SetValue(do="set", path="beat.lag_s", value="0.333")])
        self.assertEqual(origins(typed)["beat.lag_s"].how, "typed")
        self.assertEqual(origins(apply(typed, back)[0]), origins(plan))


class GivingWay(TestCase):
    """Which peg gives way is told before anything is typed, and it is the one longest untouched."""

    def held(self, plan: Plan) -> list[str]:
        return [peg.quantity for peg in plan.clip.pegs]

    def typed(self, plan: Plan, quantity: str, text: str) -> Plan:
        return make(plan, [TypeText(do="type", path=f"clip.{quantity}", text=text)])[0]

    def test_what_was_typed_a_moment_ago_stays(self) -> None:
        plan = plan_of({"rate": F(25), "shoot": F(3600), "interval": F(10)})
        self.assertEqual(self.held(self.typed(plan, "clip", "20 s")), ["rate", "interval", "clip"])
        again = self.typed(plan, "shoot", "2 h")
        self.assertEqual(self.held(self.typed(again, "clip", "20 s")), ["rate", "shoot", "clip"])
        # And so on: the shoot is the one longest untouched now, the rate set aside; frames and clip give the rate up.
        self.assertEqual(
            self.held(self.typed(self.typed(again, "clip", "20 s"), "speed_up", "200")), ["rate", "clip", "speed_up"]
        )

    @given(enough_holds())
    def test_what_gives_way_is_what_was_told(self, held: dict[str, F]) -> None:
        plan = plan_of(held)
        told = evaluate(plan).clip
        assume(told.state == "solved")
        for one in told.quantities:
            if one.held or one.exact is None:
                continue
            after = make(plan, [SetValue(do="set", path=f"clip.{one.quantity}", value=one.exact)])[0]
            self.assertEqual(set(self.held(plan)) - set(self.held(after)), set(one.pulls), one.quantity)
