"""Ways round what stands there: those that are offered are clear, in the file that is made with them."""

from datetime import date
from itertools import pairwise
from typing import Any

from bridle.bench.jobs import Made, make_changed
from bridle.bench.rounds import rounds
from bridle.bench.telling import fixes_of
from bridle.core.evaluate import evaluate
from bridle.core.given import Given, Proved
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.printing import print_digest, steps_of
from bridle.core.subjects.parking.stop import Stand, Stop, lines
from tests.gcode import Dialect, program
from tests.prints.test_attacks import TWO
from tests.prints.test_jobs import Bench
from tests.provoked_print import printed

STAND = Stand(0, 1, (100.0, 100.0, 5.0), 1800.0, True, False, False, False, 0.0, 0.0, (0.0, 0.0, 0.0))
FIRES = {"fires": "commands", "fire_on": ("M240",), "fire_off": ()}


class Rounds(Bench):
    """Two columns, one after the other: from the second, the way to the parking place leads through the first."""

    def made(self, plan: Plan) -> Made:
        return make_changed(self.folder / "cup.gcode", self.folder / "out", plan)

    def offered(self, **stop: Any) -> dict[str, Plan]:
        """The labels of what a failed proof offers, with the plan that each makes."""
        path = self.put(TWO)
        plan = self.plan_for(path, printer=FIRES, stop=stop)
        proof = self.made(plan).proof
        [struck] = {one.kind for one in proof.failures}
        self.assertEqual(struck, "strikes")
        fixes = fixes_of(proof.failures[0], plan, proof.free)
        return {fix.label.split(" {")[0]: apply(plan, list(fix.edits))[0] for fix in fixes}

    def test_each_way_round_that_is_offered_is_clear(self) -> None:
        for stop, labels in (
            ({"park_x_mm": 20.0, "park_y_mm": 85.0}, ["Park at", "Raise the head by"]),
            (
                {"park_x_mm": 60.0, "park_y_mm": 95.0},
                ["Go along Y first, then along X", "Park at", "Raise the head by"],
            ),
        ):
            offered = self.offered(**stop)
            self.assertEqual(list(offered), labels)
            for label, plan in offered.items():
                with self.subTest(label, **stop):
                    self.assertEqual(self.made(plan).proof.stands, "proven")

    def test_the_chapter_stands_down_where_the_proof_has_found_the_way_clear(self) -> None:
        """And takes it up again with the next change."""
        round_ = self.offered(park_x_mm=60.0, park_y_mm=95.0)["Go along Y first, then along X"]

        def told(plan: Plan, of: str, stands: Any) -> bool:
            given = Given(proofs=(Proved(of, stands, date(2026, 9, 1)),))
            return "stop-hits-neighbours" in {snag.code for snag in evaluate(plan, given=given).snags}

        digest = print_digest(round_)
        self.assertEqual(
            [told(round_, digest, stands) for stands in ("proven", "incomplete", "failed")], [False, True, True]
        )
        straight = apply(round_, [Edit(path="printing.stop.order", value="straight")])[0]
        self.assertTrue(told(straight, digest, "proven"))

    def test_a_place_that_nobody_named_is_another_one_at_each_layer(self) -> None:
        path = self.put(program(Dialect(), [[(80.0, 80.0), (120.0, 80.0), (100.0, 90.0 + 5 * n)] for n in range(6)]))
        plan = self.plan_for(path, printer={**FIRES, "park_x_mm": 5.0, "park_y_mm": None})
        [told] = [snag for snag in evaluate(plan).snags if snag.code == "stop-parks-anywhere"]
        proof = self.made(plan).proof
        elsewhere = next(one for one in proof.failures if one.kind == "elsewhere")
        self.assertEqual(tuple(fixes_of(elsewhere, plan)), tuple(told.fixes))
        parked = apply(plan, list(told.fixes[0].edits))[0]
        self.assertNotIn("elsewhere", {one.kind for one in self.made(parked).proof.failures})

    def test_it_comes_back_the_way_it_went(self) -> None:
        """From 100, 100: the places that the file names on the way there, and on the way back."""
        for order, there in (("straight", []), ("x first", [(20.0, 100.0)]), ("y first", [(100.0, 30.0)])):
            at, places = list(STAND.at[:2]), []
            for line in lines(Stop(park=(20.0, 30.0), on=("M240",), order=order), STAND):  # type: ignore[arg-type]
                if line.startswith("G0"):
                    for word in line.split()[1:]:
                        if word[0] in "XY":
                            at["XY".index(word[0])] = float(word[1:])
                    places.append(tuple(at))
            with self.subTest(order):
                whole = [tuple(STAND.at[:2]), *there, (20.0, 30.0), *there, tuple(STAND.at[:2])]
                self.assertEqual([whole[0], *places], whole)

    def test_one_axis_after_the_other_takes_longer(self) -> None:
        plans = [
            printed(printer=FIRES, stop={"park_x_mm": 0.0, "park_y_mm": 0.0, "order": one})
            for one in ("straight", "x first")
        ]
        times = [next(step for step in steps_of(plan) if step.what == "travel") for plan in plans]
        for one, other in pairwise(times):
            self.assertLess((one.far_mm or 0, one.seconds), (other.far_mm or 0, other.seconds))

    def test_a_place_at_nought_is_as_far_as_it_is(self) -> None:
        """From a part about X 100 the high end of X is nearer than the low one, which lies at nought."""
        reach = {"low_x_mm": -5.0, "high_x_mm": 190.0, "low_y_mm": 0.0, "high_y_mm": 220.0}
        plan = printed(printer={**FIRES, **reach}, stop={"park_x_mm": 50.0, "park_y_mm": 95.0})
        along = [one.park[0] for one in rounds(plan) if one.park is not None and one.park[1] == 95.0]
        self.assertEqual(along, [185.0, 0.0])
