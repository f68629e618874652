"""The clip solver: worked examples, and what must hold of every solution."""

import itertools
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.asks.changes import HoldPeg, make
from bridle.core.asks.pegs import changed, take_over
from bridle.core.chapters.clip.state import RoundingNote
from bridle.core.evaluate import evaluate
from bridle.core.plan.edit import apply
from bridle.core.reckon.clip import holds_of, solved
from bridle.core.reckon.reckoning import reckon
from bridle.core.snag import fill
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
    # A speed-up beside a count of frames: as surely as without one.
    (dict(frames=500, interval=10, rate=25, speed_up=280), {"interval", "rate", "speed_up"}, {250, 280}),
    (dict(frames=500, shoot=5000, clip=20, speed_up=280), {"shoot", "speed_up", "clip"}, {5000, 5600}),
    # All six: the two counts furthest apart.
    (
        dict(frames=500, shoot=5000, clip=20, rate=25, interval=10, speed_up=280),
        {"shoot", "interval", "rate", "clip", "speed_up"},
        {F(5000 * 25, 280), 20 * 28},
    ),
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


ALL_SUBSETS = [names for count in range(2, 7) for names in itertools.combinations(solver.NAMES, count)]


@st.composite
def true_shoots(draw: st.DrawFn) -> dict[str, F]:
    """All six figures of a shoot that can be: whole frames, an interval and a rate."""
    frames, interval = draw(st.integers(1, 5000)), F(draw(st.integers(1, 6000)), 10)
    rate = draw(st.sampled_from(solver.RATES))
    values = (frames * interval, interval, F(frames), rate, frames / rate, interval * rate)
    return dict(zip(solver.NAMES, values, strict=True))


class EverySubset(TestCase):
    """Two to six pegs, of a shoot that can be and of ones that are off: nothing pegged comes out different unsaid."""

    @given(true_shoots(), st.sampled_from(ALL_SUBSETS))
    def test_what_can_be_is_no_contradiction_and_comes_out_as_it_is(
        self, whole: dict[str, F], names: tuple[str, ...]
    ) -> None:
        told = evaluate(plan_of({name: whole[name] for name in names}, step=F(0)))
        self.assertNotEqual(told.clip.state, "contradiction")
        self.assertEqual(told.clip.rounding, ())
        if told.clip.state == "solved":
            for quantity in told.clip.quantities:
                self.assertEqual(F(quantity.exact or 0), whole[quantity.quantity])

    @settings(max_examples=400)
    @given(
        true_shoots(),
        st.sampled_from(ALL_SUBSETS),
        st.lists(
            st.sampled_from([F(1), F(1), F(1), F(1001, 1000), F(101, 100), F(9, 10), F(2), F(10)]),
            min_size=6,
            max_size=6,
        ),
        st.sampled_from([F(0), F(1, 10), F(1)]),
    )
    def test_what_is_pegged_is_met_contradicted_or_named(
        self, whole: dict[str, F], names: tuple[str, ...], off: list[F], step: F
    ) -> None:
        held = {name: whole[name] * factor for name, factor in zip(solver.NAMES, off, strict=True) if name in names}
        held = {name: F(max(1, round(value))) if name == "frames" else value for name, value in held.items()}
        plan = plan_of(held, step=step)
        told, solution = evaluate(plan), solved(plan)[0]
        if told.clip.state != "solved":
            return
        assert solution is not None
        named: dict[str, RoundingNote] = {note.quantity: note for note in told.clip.rounding}
        for name, wanted in held.items():
            got = solution.value(name)
            if got == wanted:
                self.assertNotIn(name, named)
                continue
            self.assertIn(name, named, f"{name} {float(wanted)} comes out as {float(got)}")
            off_by = abs(got - wanted)
            if name == "clip":
                self.assertLessEqual(off_by, 1 / solution.rate)
            elif named[name].cause == "whole frames":
                self.assertLessEqual(
                    off_by, max(solution.interval, wanted / solution.frames * F(11, 10), wanted / 5000)
                )

    def test_an_interval_step_that_makes_the_shoot_longer_is_a_snag_with_ways_out(self) -> None:
        """2000 frames in twenty minutes are 0.6 s apart; with steps of a second they take 33 min 20 s."""
        plan = plan_of({"clip": F(80), "rate": F(25), "shoot": F(1200)}, step=F(1))
        (snag,) = [snag for snag in evaluate(plan).snags if snag.code == "shoot-overrun"]
        said = fill(snag.what, snag.slots)
        self.assertEqual(
            said, "The shoot was to last 20 min and takes 33 min 20 s: 2000 frames need an interval of 0.6 s."
        )
        outcomes = {}
        for fix in snag.fixes:
            after, _ = apply(plan, fix.edits)
            told = evaluate(after)
            self.assertNotIn("shoot-overrun", {each.code for each in told.snags})
            outcomes[fill(fix.label, fix.slots)] = (told.frames, told.interval_s)
        self.assertEqual(
            outcomes,
            {
                "Dial in steps of 0.5 s": (2000, 0.5),
                "1200 frames, one every 1 s": (1200, 1),
                "Watch for 33 min 20 s": (2000, 1),
            },
        )

    def test_a_note_names_what_rounded_it_and_what_comes_nearer(self) -> None:
        """Forty-five minutes for 500 frames are 5.4 s each: with half seconds 5 s, and 41 min 40 s."""
        plan = plan_of({"clip": F(20), "rate": F(25), "shoot": F(2700)}, step=F(1, 2))
        (note,) = evaluate(plan).clip.rounding
        self.assertEqual((note.quantity, note.cause, note.asked, note.got), ("shoot", "interval step", 2700, 2500))
        labels = [fill(fix.label, fix.slots) for fix in note.fixes]
        self.assertEqual(labels, ["540 frames, one every 5 s", "Dial in steps of 0.1 s"])
        for fix, frames in zip(note.fixes, (540, 500), strict=True):
            solution, _ = solved(apply(plan, fix.edits)[0])
            assert solution is not None
            self.assertEqual((solution.shoot, solution.frames), (2700, frames))

    def test_whole_frames_are_named_where_they_are_the_cause(self) -> None:
        (note,) = evaluate(plan_of({"shoot": F(100), "interval": F(7), "rate": F(25)})).clip.rounding
        self.assertEqual((note.quantity, note.cause, note.got, note.fixes), ("shoot", "whole frames", 98, ()))


class NotTheStep(TestCase):
    def test_a_shoot_shorter_than_its_one_frame_is_no_matter_of_the_step(self) -> None:
        """3854.9 times faster at 25 a second is a frame every 154.2 s; of 129 s that is one."""
        held = {"shoot": F(1291, 10), "rate": F(25), "speed_up": F(38549, 10)}
        told = evaluate(plan_of(held, step=F(1, 10)))
        self.assertNotIn("shoot-overrun", {snag.code for snag in told.snags})
        self.assertEqual({note.cause for note in told.clip.rounding}, {"whole frames"})
