"""The clip solver: worked examples, and what must hold of every solution."""

from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import assume, given
from hypothesis import strategies as st

from bridle.core.asks.changes import HoldPeg, make
from bridle.core.asks.pegs import changed, take_over
from bridle.core.evaluate import evaluate
from bridle.core.reckon.clip import holds_of, solved
from bridle.core.reckon.reckoning import reckon
from bridle.core.subjects.time import sentence as solver
from tests.strategies import VALUES, enough_holds, holds, plan_of

NTSC_30 = F(30000, 1001)
SOLVED: list[tuple[dict[str, Any], dict[str, Any]]] = [
    (dict(clip=18, rate=24, shoot=8640), dict(frames=432, interval=20, speed_up=480)),
    (dict(interval=7, shoot=6300, rate=30), dict(frames=900, clip=30)),
    (dict(interval=11, clip=20, rate=25), dict(frames=500, shoot=5500)),
    (dict(clip=12, rate=NTSC_30, interval=4), dict(frames=360, clip=F(12012, 1000), shoot=1440)),
    # Both lengths held: frames up, then the interval down to the camera's step, and the new end shown.
    (dict(clip=10, rate=24, shoot=1000), dict(frames=240, interval=4, shoot=960)),
    # The shoot alone held rounds down, so that it ends in time.
    (dict(shoot=100, interval=7, rate=25), dict(frames=14, shoot=98)),
    (dict(speed_up=240, rate=24, frames=100), dict(interval=10, shoot=1000)),
    (dict(shoot=3600, clip=15, frames=360), dict(interval=10, rate=24)),
    (dict(shoot=3600, frames=360, speed_up=240), dict(interval=10, rate=24, clip=15)),
]  # fmt: skip
CONTRADICTIONS = [
    (dict(interval=9, shoot=3600, clip=30, rate=25), {"interval", "shoot", "clip", "rate"}, {400, 750}),
    (dict(frames=400, interval=9, shoot=3700), {"frames", "interval", "shoot"}, {400, F(3700, 9)}),
    (dict(interval=10, rate=24, speed_up=200), {"interval", "rate", "speed_up"}, {240, 200}),
]


def held(values: dict[str, Any]) -> dict[str, F]:
    return {name: F(value) for name, value in values.items()}


class WorkedExamples(TestCase):
    def test_any_consistent_three_fix_the_rest(self) -> None:
        for given_values, wanted in SOLVED:
            solution = solver.solve(held(given_values), F(1, 2))
            for name, value in wanted.items():
                with self.subTest(held=given_values, name=name):
                    self.assertEqual(solution.value(name), value)

    def test_the_same_frames_at_another_rate(self) -> None:
        figures = evaluate(plan_of(held(dict(interval=7, shoot=6300, rate=30)))).figures
        self.assertEqual(figures["clip.at.24"].value, 37.5)

    def test_contradictions_name_the_holds(self) -> None:
        for given_values, names, counts in CONTRADICTIONS:
            with self.subTest(held=given_values):
                found = solver.conflict(held(given_values))
                assert found is not None
                self.assertEqual(set(found.names), names)
                self.assertEqual({found.first_value, found.second_value}, counts)

    def test_dependent_holds_that_agree_leave_two_free(self) -> None:
        for agreeing in (dict(shoot=4000, interval=10, frames=400), dict(frames=400, rate=25, clip=16)):
            with self.subTest(held=agreeing):
                self.assertIsNone(solver.conflict(held(agreeing)))
                self.assertEqual(len(solver.still_free(held(agreeing))), 3)

    def test_within_half_a_frame_is_no_contradiction(self) -> None:
        close = held(dict(clip=12, rate=NTSC_30, interval=4, shoot=1440))
        self.assertIsNone(solver.conflict(close))
        self.assertEqual(solver.solve(close).frames, 360)
        self.assertIsNotNone(solver.conflict(held(dict(clip=12, rate=NTSC_30, interval=4, shoot=1444))))

    def test_no_float_noise_in_a_division(self) -> None:
        self.assertEqual(solver.solve(held(dict(shoot="0.3", interval="0.1", rate=25))).frames, 3)


class Properties(TestCase):
    @given(enough_holds(), st.sampled_from([F(0), F(1, 10), F(1, 2)]))
    def test_what_is_held_stays_held_and_both_equations_hold(self, given_values: dict[str, F], step: F) -> None:
        solution = solver.solve(given_values, step)
        self.assertEqual(solution.shoot, solution.frames * solution.interval)
        self.assertEqual(solution.clip, solution.frames / solution.rate)
        self.assertEqual(solution.speed_up, solution.interval * solution.rate)
        self.assertGreaterEqual(solution.frames, 1)
        for name in ("interval", "frames", "rate", "speed_up"):
            if name in given_values and name != "speed_up":
                self.assertEqual(solution.value(name), given_values[name], name)
        if "clip" in given_values:
            # A held clip is never cut short, and grows by less than a frame.
            self.assertTrue(0 <= solution.clip - given_values["clip"] < 1 / solution.rate)
        if "shoot" in given_values and "clip" not in given_values and solution.frames > 1 and solution.interval != step:
            self.assertLessEqual(solution.shoot, given_values["shoot"])
        if "speed_up" in given_values and not {"shoot", "clip"} <= set(given_values):
            self.assertEqual(solution.speed_up, given_values["speed_up"])

    @given(holds())
    def test_every_set_of_holds_is_solved_or_told_why_not(self, given_values: dict[str, F]) -> None:
        told = evaluate(plan_of(given_values))
        codes = {snag.code for snag in told.snags}
        if told.clip.state == "contradiction":
            self.assertLessEqual(set(told.clip.missing), set(given_values))
            self.assertIn("holds-contradict", codes)
        elif told.clip.state == "solved":
            self.assertIsNotNone(told.frames)
        else:
            self.assertTrue(codes & {"holds-too-few", "too-many-frames", "beyond-range"})

    @given(holds())
    def test_a_contradiction_is_one_by_trying_every_whole_count(self, given_values: dict[str, F]) -> None:
        found = solver.estimates(given_values)
        assume(len(found) > 1 and max(e.frames for e in found) < 20_000)
        nearest = round(found[0].frames)
        fits = any(
            all(abs(estimate.frames - count) <= F(1, 2) for estimate in found)
            for count in range(max(1, nearest - 3), nearest + 4)
        )
        self.assertEqual(solver.conflict(given_values) is None, fits)

    @given(enough_holds(), st.data())
    def test_typing_over_a_following_figure_pulls_exactly_one_peg(
        self, given_values: dict[str, F], data: st.DataObject
    ) -> None:
        plan = plan_of(given_values)
        name = data.draw(st.sampled_from([n for n in solver.NAMES if n not in given_values]))
        value = data.draw(VALUES[name])
        edits = take_over(plan, name, value)  # type: ignore[arg-type]
        after = holds_of(changed(plan, edits))
        self.assertEqual(after[name], value)
        self.assertEqual(len(after), 3)
        self.assertEqual(solver.still_free(after), ())

    @given(enough_holds(), st.sampled_from([F(0), F(1, 2)]))
    def test_pegging_what_follows_changes_nothing(self, given_values: dict[str, F], step: F) -> None:
        plan = plan_of(given_values, step=step)
        before, _ = solved(plan)
        assume(reckon(plan).shooting is not None)
        for name in solver.NAMES:
            plan, _ = make(plan, [HoldPeg(do="hold", quantity=name)])
            after, _ = solved(plan)
            assert before is not None and after is not None, name
            self.assertEqual([after.value(n) for n in solver.NAMES], [before.value(n) for n in solver.NAMES], name)
