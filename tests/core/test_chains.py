"""Fixes one after another: they end, no plan is met twice, no axis leaves its travel, and what is new is foretold."""

from collections import Counter
from fractions import Fraction as F
from itertools import islice
from random import Random
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.changes import MakeEdits, make
from bridle.core.evaluation import Evaluation
from bridle.core.foreseen import brought, foreseen, lessens
from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe
from bridle.core.plan.rounds import Station, Stations
from bridle.core.reckon.path import FIELDS, at, reach
from bridle.core.reckon.reckoning import reckon
from bridle.core.snag import Fix
from tests.core.test_trigger import demo
from tests.following import Following
from tests.mutated import EXAMPLES, unshrunk
from tests.provoked import PROVOKE
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


def wrong(told: Evaluation) -> list[int]:
    """Stops, minds and notes, counted."""
    return [sum(snag.severity == severity for snag in told.snags) for severity in ("stop", "mind", "note")]


def stops(told: Evaluation) -> Counter[str]:
    """The stops, by their kind."""
    return Counter(snag.code for snag in told.snags if snag.severity == "stop")


def taken(plan: Plan, now: Following, fixes: list[tuple[str, Fix]]) -> tuple[str, Plan, Evaluation] | None:
    """The first of some fixes that is offered, the plan after it and what is told of that; None where none is."""
    for label, fix in fixes:
        tried, _ = make(plan, [MakeEdits(do="edits", edits=fix.edits)])
        after = now.beside(tried)
        if lessens(now.told, after):
            return label, tried, after
    return None


def deaf(told: Evaluation) -> bool:
    """Whether the camera listens to nothing: what else is wrong with its chain nobody knows until it does."""
    return any(snag.code == "camera-hears-no-contact" for snag in told.snags)


def drawn_in(plan: Plan, name: str, reach_deg: float) -> Plan:
    """The plan with an axis that comes only so far to either side of nought."""
    axes = tuple(
        axis.model_copy(update={"low": -reach_deg, "high": reach_deg}) if axis.name == name else axis
        for axis in plan.rig.axes
    )
    return plan.model_copy(update={"rig": plan.rig.model_copy(update={"axes": axes})})


class Chains(TestCase):
    @SELDOM
    @given(plans)
    def test_end_and_never_come_back(self, plan: Plan) -> None:
        met, way, now = {plan.model_dump_json()}, [], Following()
        for _ in range(MOST):
            told = now(plan)
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
        now = Following(plan)
        told = now.told
        for fix in islice((fix for snag in told.snags for fix in snag.fixes), 4):
            after = now.beside(make(plan, [MakeEdits(do="edits", edits=fix.edits)])[0])
            stops = {snag.code for snag in after.snags if snag.severity == "stop"}
            news = stops - {snag.code for snag in told.snags}
            self.assertLessEqual(news, {one.code for one in brought(told, after)})

    @SELDOM
    @given(plans, st.randoms(use_true_random=False))
    def test_any_fixes_that_are_offered_lead_somewhere(self, plan: Plan, chance: Random) -> None:
        """Whichever is taken: after each there is less wrong, by a count of its own, and no stop of a new kind."""
        way: list[str] = []
        now = Following(plan)
        for _ in range(MOST):
            told = now.told
            fixes = [(f"{snag.code}: {fix.label}", fix) for snag in told.snags for fix in snag.fixes]
            chance.shuffle(fixes)
            found = taken(plan, now, fixes)
            if found is None:
                return
            label, plan, after = found
            way.append(label)
            if (told.frames is not None or after.frames is None) and deaf(after) >= deaf(told):
                self.assertLess(wrong(after), wrong(told), way[-6:])
                self.assertLessEqual(stops(after) - stops(told), Counter(), way[-6:])
            now(plan)
        self.fail(f"no end: {way[-6:]}")

    def test_the_circles_that_were_found_are_broken(self) -> None:
        """Marks that drift, leave or are never seen, and limits drawn in: first fixes went in circles."""
        names = ("mark-drifts", "mark-leaves", "cue-never-seen", "ends-beside", "follows-out-of-travel")
        cases = {name: PROVOKE[name] for name in (*names, "rig-in-picture")}
        for name, axis, reach_deg in (("harbour-refloat", "pan", 8.0), ("moonlight-over-the-salt-barn", "tilt", 1.0)):
            cases[name] = drawn_in(demo(name), axis, reach_deg)
        for name, plan in cases.items():
            with self.subTest(name):
                now = Following()
                for _ in range(MOST):
                    told = now(plan)
                    found = taken(plan, now, [(snag.code, fix) for snag in told.snags for fix in snag.fixes])
                    if found is None:
                        break
                    _, plan, _ = found
                else:
                    self.fail(name)

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
