"""A new sheet stands still; what is put on moves as its drive can, and takes its motion along when it comes off."""

from datetime import datetime
from fractions import Fraction as F
from typing import Any
from unittest import TestCase
from zoneinfo import ZoneInfo

from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter

from bridle.core.asks.changes import AnyChange, FitKit, PutOn, make
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, apply
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.new import new_plan
from bridle.core.plan.rig import Rig
from bridle.core.reckon.parts import axis_name
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.server.kit.models import CARD
from tests.strategies import CARDS, copies, fitted, plan_of, shooting

NEW = new_plan("quay", "", "", "Europe/London", datetime(2026, 9, 27, 6, 10, tzinfo=ZoneInfo("Europe/London")))
ASKED: TypeAdapter[Any] = TypeAdapter(AnyChange)
MOVERS = sorted(name for name, card in CARDS.items() if card["kind"] == "axis")
# Minds that follow from what the thing is, not from what a beginner has done.
TRUE_OF_IT = {
    "nothing-moves", "move-strobes", "move-quick", "scale-too-coarse", "smear-unknown", "steps-uneven", "rig-tips",
}  # fmt: skip


def put(plan: Plan, *names: str) -> Plan:
    cards = [{"card": CARDS[name]} for name in names]
    return make(plan, [PutOn.model_validate({"do": "put", "cards": cards})])[0]


def off(plan: Plan, name: str) -> Plan:
    kept = tuple(copy for copy in plan.kit.copies if copy.card != CARD.validate_python(CARDS[name]))
    return make(plan, [FitKit(do="fit", copies=kept)])[0]


def numbers(plan: Plan) -> Shooting:
    known = reckon(plan).shooting
    assert known is not None
    return known


class NewSheet(TestCase):
    def test_stands_still_and_finds_no_fault(self) -> None:
        told = evaluate(NEW)
        self.assertEqual((NEW.rig.axes, told.drives), ((), ()))
        self.assertEqual([snag.code for snag in told.snags], ["nothing-moves"])
        assert told.traces is not None and told.view is not None
        self.assertEqual(told.traces.axes, {})
        for name in ("x", "z", "pan", "tilt", "roll"):
            self.assertEqual(set(told.view.poses[name].values), {0.0}, name)

    def test_every_mover_moves_when_it_is_put_on_and_is_asked_for_nothing_it_cannot_do(self) -> None:
        for name in MOVERS:
            with self.subTest(name):
                plan = put(NEW, name)
                card = plan.kit.copies[0].card
                assert isinstance(card, AxisCard)
                axis = axis_name(card)
                places = numbers(plan).positions[axis]
                if axis in ("slide", "pan"):
                    self.assertGreater(abs(places[-1] - places[0]), 5)
                    self.assertTrue(card.low <= min(places) and max(places) <= card.high)
                    if card.drive.one_way:
                        self.assertEqual(card.drive.one_way, 1 if places[-1] > places[0] else -1)
                found = {snag.code for snag in evaluate(plan).snags if snag.severity != "note"}
                self.assertLessEqual(found, TRUE_OF_IT)
                self.assertEqual(plan.beat.continuous, not card.drive.stops)

    @given(st.sampled_from(MOVERS))
    def test_off_again_it_stands_as_before_and_both_are_one_undo(self, name: str) -> None:
        cards = [{"card": CARDS[name]}]
        plan, undo = make(NEW, [PutOn.model_validate({"do": "put", "cards": cards})])
        self.assertEqual(apply(plan, undo)[0], NEW)
        bare = off(put(plan, "tripod"), name)
        self.assertEqual(bare.rig.axes, ())
        self.assertEqual({(key.slide_mm, key.pan_deg) for key in bare.move.keyframes[1:]},
                         {(0.0, bare.move.start.pan_deg)})  # fmt: skip

    def test_a_motion_that_was_made_stays_when_another_part_comes_on(self) -> None:
        keys = (Keyframe(slide_mm=300), Keyframe(slide_mm=350))
        plan = put(NEW, "belt-rail").model_copy(update={"move": Move(keyframes=keys)})
        self.assertEqual(put(plan, "tripod", "full-frame-body").move.keyframes, keys)
        turned = put(plan, "pan-head").move.keyframes
        self.assertEqual([key.slide_mm for key in turned], [300, 350])
        self.assertNotEqual(turned[0].pan_deg, turned[1].pan_deg)


class WithoutARail(TestCase):
    def test_the_camera_stands_at_nought_wherever_a_carriage_once_stood(self) -> None:
        """A mark straight ahead of it is in the middle of the picture, and aiming at it turns to nought."""
        keys = (Keyframe(slide_mm=400), Keyframe(slide_mm=700))
        post = Mark(name="post", x_mm=0, y_mm=3000, z_mm=0)
        held = {"rate": F(25), "frames": F(9), "interval": F(10)}
        plan = plan_of(held, rig=Rig(axes=()), move=Move(keyframes=keys, marks=(post,)))
        self.assertEqual(set(shooting(plan).poses.x), {0.0})
        self.assertTrue(shooting(plan).seeing[0].inside.all())


class OwnLens(TestCase):
    def test_a_camera_with_its_own_lens_takes_no_other_and_is_as_long_as_that(self) -> None:
        plan = put(NEW, "full-frame-body", "macro", "nd6")
        self.assertEqual(plan.camera.focal_mm, 60)
        for name, focal in (("compact", 8.8), ("phone", 5.4)):
            with self.subTest(name):
                other = put(plan, name)
                self.assertEqual([copy.card.name for copy in other.kit.copies],
                                 ["neutral density, 6 stops", CARDS[name]["name"]])  # fmt: skip
                self.assertEqual(other.camera.focal_mm, focal)
                with self.assertRaisesRegex(PathError, "has a lens of its own"):
                    put(other, "35mm")


class Twice(TestCase):
    def test_a_second_axis_of_a_kind_is_refused_in_words(self) -> None:
        with self.assertRaisesRegex(PathError, "there is a pan on the rig already, the two-axis head, pan"):
            put(put(NEW, "pan-head"), "turntable")
        with self.assertRaisesRegex(PathError, "there is a slide on the rig already"):
            put(NEW, "belt-rail", "short-rail")

    def test_where_two_came_with_a_plan_either_can_be_taken_off(self) -> None:
        plan = fitted(NEW, copies("tripod", "pan-head", "turntable"))
        (snag,) = [snag for snag in evaluate(plan).snags if snag.code == "axis-twice"]
        left = [[copy.key for copy in apply(plan, fix.edits)[0].kit.copies] for fix in snag.fixes]
        self.assertEqual(left, [["tripod", "pan-head"], ["tripod", "turntable"]])


class Polar(TestCase):
    """A camera on a tripod has marks around it: so far off, in such a direction."""

    PLAN = plan_of({}, move=Move(marks=(Mark(name="post", x_mm=3000, y_mm=4000, z_mm=0),)), rig=Rig(axes=()))

    def at(self, **change: object) -> tuple[float, float]:
        ((mark),) = make(self.PLAN, [ASKED.validate_python(change)])[0].move.marks
        return mark.x_mm, mark.y_mm

    def test_a_distance_or_a_direction_moves_it_and_leaves_the_other(self) -> None:
        self.assertEqual(self.at(do="type", path="move.marks.0.distance_mm", text="10 m"), (6000, 8000))
        self.assertEqual(self.at(do="type", path="move.marks.0.turn_deg", text="-90"), (-5000, 0))
        self.assertEqual(self.at(do="set", path="move.marks.0.turn_deg", value=180), (0, -5000))
        self.assertEqual(self.at(do="set", path="move.marks.0.distance_mm", value=2500), (1500, 2000))

    def test_a_bearing_counts_from_where_straight_ahead_looks(self) -> None:
        change = ASKED.validate_python({"do": "type", "path": "move.marks.0.compass_deg", "text": "210"})
        with self.assertRaises(PathError):
            make(self.PLAN, [change])
        known = apply(self.PLAN, [Edit(path="rig.normal_bearing_deg", value=120)])[0]
        (mark,) = make(known, [change])[0].move.marks
        self.assertEqual((mark.x_mm, mark.y_mm), (5000, 0))

    def test_it_is_one_undo_and_nowhere_is_refused(self) -> None:
        change = ASKED.validate_python({"do": "set", "path": "move.marks.0.turn_deg", "value": 12})
        plan, undo = make(self.PLAN, [change])
        self.assertEqual(apply(plan, undo)[0], self.PLAN)
        for wrong in ({"do": "set", "path": "move.marks.0.distance_mm", "value": 0},
                      {"do": "type", "path": "move.marks.3.turn_deg", "text": "4"}):  # fmt: skip
            with self.assertRaises(PathError):
                make(self.PLAN, [ASKED.validate_python(wrong)])


class Followed(TestCase):
    def test_a_spring_s_sweep_follows_from_the_time(self) -> None:
        """4° a minute: 240° in an hour, 120° in half of it; undone it is as it was, and a fix is made as it is."""
        plan = put(NEW, "turntable", "phone")
        before = numbers(plan).positions["pan"]
        longer, undo = make(plan, [ASKED.validate_python({"do": "type", "path": "clip.shoot", "text": "30 min"})])
        shorter = numbers(longer).positions["pan"]
        seconds = float(numbers(longer).timeline.starts_s[-1])
        self.assertAlmostEqual(abs(float(shorter[-1] - shorter[0])), 4 * seconds / 60, 2)
        self.assertNotEqual(len(before), len(shorter))
        self.assertNotIn("sweep-differs", [snag.code for snag in evaluate(longer).snags])
        self.assertEqual(apply(longer, undo)[0], plan)
        # A move that asks something else of it already is left as somebody has set it.
        ends = apply(plan, [Edit(path="move.keyframes.1.pan_deg", value=plan.move.keyframes[0].pan_deg + 20)])[0]
        kept, _ = make(ends, [ASKED.validate_python({"do": "type", "path": "clip.shoot", "text": "30 min"})])
        self.assertEqual(kept.move, ends.move)
