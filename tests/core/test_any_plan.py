"""Whatever a plan or a card holds: it is worked out, compared and brought back."""

import copy
import tracemalloc
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from bridle.core.asks.fitting import fit
from bridle.core.compare import differences
from bridle.core.evaluate import evaluate
from bridle.core.lists.card import card_figures
from bridle.core.lists.sides import side_by_side
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import MOST_EDITS, Edit, apply, difference
from bridle.core.plan.kit import AnyCard, Copy
from bridle.core.reckon.exposed import stack_positions
from bridle.core.reckon.picture import longest_lens
from bridle.core.run.programme import NotReadyError, programme
from bridle.formats.catalogue import FORMATS
from bridle.formats.nothing import NothingToWriteError
from tests.following import Following
from tests.mutated import EXAMPLES, PLANS, mutated_cards, mutated_plans

OFTEN = settings(max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck))
SELDOM = settings(max_examples=max(20, EXAMPLES // 4), deadline=None, suppress_health_check=list(HealthCheck))


def make_every_fix(case: TestCase, plan: Plan) -> None:
    """Each fix changes the plan, can be undone, and leaves a plan that is worked out."""
    now = Following(plan)
    if (now.told.frames or 0) > 20_000:
        return
    for snag in now.told.snags:
        for fix in snag.fixes:
            after, undo = apply(plan, fix.edits)
            case.assertNotEqual(after, plan, (snag.code, fix.label))
            case.assertEqual(apply(after, undo)[0], plan)
            now.beside(after)


class AnyPlan(TestCase):
    @OFTEN
    @given(mutated_plans())
    def test_is_worked_out(self, plan: Plan) -> None:
        told = evaluate(plan)
        self.assertEqual(len(told.clip.quantities), 6)
        if told.frames is not None and told.traces is not None:
            self.assertEqual((told.traces.map.frames[0], told.traces.map.frames[-1]), (0, told.frames))

    @SELDOM
    @given(mutated_plans(6))
    def test_has_no_fix_that_cannot_be_made(self, plan: Plan) -> None:
        make_every_fix(self, plan)

    @SELDOM
    @given(mutated_plans(3), mutated_plans(3))
    def test_becomes_any_other_by_edits_whose_places_can_be_told_apart(self, old: Plan, new: Plan) -> None:
        after, undo = apply(old, difference(old, new))
        self.assertEqual((after, apply(after, undo)[0]), (new, old))
        sides = side_by_side(new, old)
        self.assertEqual(len({side.path for side in sides}), len(sides))
        self.assertEqual(len({side.place for side in sides}), len(sides))
        self.assertEqual(sides == [], old == new)

    @SELDOM
    @given(mutated_plans(4))
    def test_is_run_or_says_why_not(self, plan: Plan) -> None:
        try:
            told = programme(plan)
        except NotReadyError:
            self.assertIsNone(evaluate(plan).frames)
            return
        self.assertEqual(told.frames, len(told.starts_s) - 1)

    @SELDOM
    @given(mutated_plans(4))
    def test_is_written_or_says_why_not(self, plan: Plan) -> None:
        if (evaluate(plan).frames or 0) > 3000:
            return
        for made in FORMATS:
            try:
                self.assertTrue(all(line.endswith("\n") for line in made.write(plan)))
            except NothingToWriteError as error:
                self.assertNotIn("nan", str(error))


class Found(TestCase):
    def test_what_random_plans_have_found_stays_mended(self) -> None:
        """A spring that runs for no time; a stretched interval beyond all bounds."""
        wound = next(copy.deepcopy(data) for data in PLANS if data["shoot"]["name"] == "Market morning")
        for one in wound["kit"]["copies"]:
            if one["card"]["kind"] == "axis":
                one["card"]["drive"]["longest_run_s"] = "0.5"
        snags = {snag.code: snag for snag in evaluate(Plan.model_validate(wound)).snags}
        self.assertEqual(snags["spring-runs-down"].fixes, ())

    def test_a_floor_or_a_step_of_a_year_is_worked_out(self) -> None:
        for data in PLANS:
            slow = copy.deepcopy(data)
            slow["clip"]["interval_step_s"] = "31536000"
            for one in slow["kit"]["copies"]:
                if one["card"]["kind"] in ("body", "phone"):
                    one["card"]["interval_floor_s"] = "31536000"
            evaluate(Plan.model_validate(slow))

    def test_a_stack_of_a_million_pictures_is_not_written_out(self) -> None:
        """An aperture that nobody has asks for them; the sheet says where three of them stand."""
        for buffer in (0, 20):
            data = next(copy.deepcopy(data) for data in PLANS if data["beat"]["stack"])
            data["camera"]["aperture"] = 1e-6
            data["beat"]["buffer_frames"] = buffer
            plan = Plan.model_validate(data)
            self.assertGreater(stack_positions(plan.beat, longest_lens(plan)), 1_000_000)
            tracemalloc.start()
            told = evaluate(plan)
            most = tracemalloc.get_traced_memory()[1]
            tracemalloc.stop()
            self.assertLess(most, 30e6)
            stack = next(one for one in told.review.sheets if one.title == "Focus stack, near to far")
            shown = [row.label.partition(" of ")[0] for row in stack.settings if row.label.startswith("position")]
            self.assertEqual(shown[:2], ["position 1", "position 2"])
            self.assertGreater(int(shown[2].removeprefix("position ")), 1_000_000)


class Many(TestCase):
    def test_two_plans_that_differ_everywhere_are_brought_together_in_one_change(self) -> None:
        old = Plan.model_validate(PLANS[0])
        keys = [{"slide_mm": n, "pan_deg": n, "tilt_deg": 1, "roll_deg": n, "focus_mm": 9 + n, "zoom_mm": 9 + n,
                 "hold_frames": 1, "passing": "stop"} for n in range(60)]  # fmt: skip
        plain = apply(old, [Edit(path="move.keyframes", value=[{}] * 60)])[0]
        full = apply(old, [Edit(path="move.keyframes", value=keys)])[0]
        edits = difference(plain, full)
        self.assertLessEqual(len(edits), MOST_EDITS)
        self.assertEqual(apply(plain, edits)[0], full)


class AnyCardAtAll(TestCase):
    @OFTEN
    @given(mutated_cards(), st.sampled_from(PLANS))
    def test_is_worked_out_alone_and_in_a_plan(self, card: AnyCard, data: object) -> None:
        card_figures(card)
        plan = Plan.model_validate(data)
        copies = (*plan.kit.copies[:20], Copy(key="another", card=card))
        made = apply(plan, fit(plan, copies))[0]
        evaluate(made)

    @SELDOM
    @given(mutated_cards(), mutated_cards(), st.sampled_from(PLANS))
    def test_has_no_fix_that_cannot_be_made(self, one: AnyCard, other: AnyCard, data: object) -> None:
        """Two cards that nobody would make, in place of the rig's own of their kind."""
        plan = Plan.model_validate(data)
        kinds = {card.kind for card in (one, other)}
        kept = [copy for copy in plan.kit.copies if copy.card.kind not in kinds]
        copies = (*kept, Copy(key="another", card=one), Copy(key="one-more", card=other))
        make_every_fix(self, apply(plan, fit(plan, copies))[0])

    @SELDOM
    @given(mutated_cards(), mutated_cards())
    def test_is_compared_with_any_other(self, one: AnyCard, other: AnyCard) -> None:
        self.assertTrue(differences(one, other))
