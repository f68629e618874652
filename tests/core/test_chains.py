"""Fixes one after another: they end, no plan is met twice, no axis leaves its travel, and what is new is foretold."""

from fractions import Fraction as F
from itertools import islice
from unittest import TestCase

from hypothesis import given

from bridle.core.asks.changes import MakeEdits, make
from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.foreseen import brought, foreseen
from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe
from bridle.core.plan.rounds import Station, Stations
from bridle.core.reckon.path import FIELDS, at, reach
from bridle.core.reckon.reckoning import reckon
from bridle.core.snag import Fix
from tests.mutated import EXAMPLES, unshrunk
from tests.strategies import plan_of, plans

SELDOM = unshrunk(max(12, EXAMPLES // 10))
# So many fixes mend any plan; on random plans the longest chain seen had half as many.
MOST = 40


def first_fix(told: Evaluation) -> Fix | None:
    """The first fix of the worst snag that has one."""
    return next((snag.fixes[0] for snag in told.snags if snag.fixes), None)


def outside(plan: Plan) -> int:
    """How many positions of keyframes and stations lie outside what their axis can reach."""
    stations = plan.move.visits.stations if isinstance(plan.move.visits, Stations) else ()
    places: tuple[Keyframe | Station, ...] = (*plan.move.keyframes, *stations)
    count = 0
    for axis in plan.rig.axes:
        low, high = reach(axis)
        for stands in places:
            if hasattr(stands, FIELDS[axis.name]):
                count += not low - 1e-6 <= at(plan, stands, axis.name) <= high + 1e-6
    return count


def held(plan: Plan) -> set[int]:
    """Which events fall into the shoot, at the hours that the sky gives those that are tied to it."""
    shooting = reckon(plan).shooting
    events = shooting.plan.shoot.clock.events if shooting else ()
    return {number for number, event in enumerate(events) if shooting and shooting.timeline.holds(event.at)}


class Chains(TestCase):
    @SELDOM
    @given(plans)
    def test_end_and_never_come_back(self, plan: Plan) -> None:
        met, way = {plan.model_dump_json()}, []
        for _ in range(MOST):
            told = evaluate(plan)
            fix = first_fix(told)
            if fix is None:
                return
            way.append(next((snag.code, fix.label) for snag in told.snags if fix in snag.fixes))
            before, events = outside(plan), held(plan)
            plan, _ = make(plan, [MakeEdits(do="edits", edits=fix.edits)])
            if any(edit.path == "shoot.clock.at" for edit in fix.edits):
                self.assertLessEqual(events, held(plan), way[-1])
            self.assertLessEqual(outside(plan), before, way[-1])
            again = plan.model_dump_json()
            self.assertFalse(again in met, way[-8:])
            met.add(again)
        self.fail(f"no end: {way[-6:]}")

    @SELDOM
    @given(plans)
    def test_what_a_fix_brings_is_told_with_it(self, plan: Plan) -> None:
        told = evaluate(plan)
        for fix in islice((fix for snag in told.snags for fix in snag.fixes), 4):
            after = evaluate(make(plan, [MakeEdits(do="edits", edits=fix.edits)])[0])
            stops = {snag.code for snag in after.snags if snag.severity == "stop"}
            news = stops - {snag.code for snag in told.snags}
            self.assertLessEqual(news, {one.code for one in brought(plan, told, fix)})

    def test_a_longer_beat_that_leaves_no_room_for_handles_says_so(self) -> None:
        """An hour with a frame every 10 s; exposed 20 s it needs one every 24 s: 150 frames, and handles of 160."""
        held = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
        clip = {"handle_in_frames": 80, "handle_out_frames": 80}
        (line,) = [
            one
            for one in foreseen(plan_of(held, clip=clip, beat=Beat(exposure_s=F(20))))
            if one.code == "interval-too-short"
        ]
        longer, *shorter = line.brings
        self.assertEqual([(one.code, one.severity) for one in longer], [("handles-too-long", "stop")])
        self.assertEqual([list(one) for one in shorter], [[]])
