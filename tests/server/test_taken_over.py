"""What the server takes over from one evaluation to the next: bounded, and the same as from nothing."""

from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.plan.edit import Edit, apply
from bridle.core.same import same
from bridle.server.shoots.runs import MOST_RUNS, Runs
from tests.core.test_trigger import demo

MARKET, HARBOUR = demo("market-morning"), demo("harbour-refloat")


class TakenOver(TestCase):
    def test_no_more_is_held_than_may_be(self) -> None:
        """As many runs as it may be, and as many bytes; what several share counts once."""
        alone, many, few = Runs(), Runs(), Runs(most_bytes=1000)
        for number in range(MOST_RUNS + 3):
            renamed = apply(MARKET, [Edit(path="shoot.name", value=f"number {number}")])[0]
            for runs in (many, few):
                runs.evaluate(renamed)
        alone.evaluate(MARKET)
        self.assertLess(many.held_bytes(), 1.2 * alone.held_bytes())
        self.assertGreater(alone.held_bytes(), 100_000)
        self.assertEqual((many.count, few.count), (MOST_RUNS, 0))

    def test_what_a_drag_leaves_out_is_there_when_the_hand_rests(self) -> None:
        """Many steps of the cloud: trigger and move are told as they were, and no sheet is pushed out."""
        runs, plan = Runs(), HARBOUR
        other, before = runs.evaluate(MARKET), runs.evaluate(plan)
        for number in range(MOST_RUNS + 3):
            plan = apply(HARBOUR, [Edit(path="light.cloud_stops", value=number / 4)])[0]
            runs.evaluate(plan, 120, aside=False, lit=True)
        after = runs.evaluate(plan)
        self.assertIs(after.trigger, before.trigger)
        self.assertIs(after.traces, before.traces)
        self.assertIsNot(after.light, before.light)
        self.assertTrue(same(after.light, evaluate(plan).light))
        self.assertIs(runs.evaluate(MARKET).trigger, other.trigger)

    def test_it_is_taken_from_the_plan_that_is_most_alike(self) -> None:
        """Two sheets are open and are changed in turn, dragged and looked at whole."""
        runs, plans = Runs(), [MARKET, HARBOUR]
        for number in range(6):
            plan = apply(plans[number % 2], [Edit(path="beat.settle_s", value=f"{number + 2}/2")])[0]
            nearest = runs.nearest(plan, whole=number > 3)
            dragged = runs.evaluate(plan, 120, aside=False)
            if nearest is not None and number > 1:
                self.assertEqual(nearest.inputs.plan.shoot.name, plan.shoot.name)  # type: ignore[attr-defined]
            self.assertTrue(same(dragged.snags, evaluate(plan, 120, aside=False).snags))
            self.assertTrue(same(runs.evaluate(plan).figures, evaluate(plan).figures))
