"""Five people's rigs: what each is told, in figures and words, and what is not said to them."""

import json
import re
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from bridle.core.asks.chain import Taken
from bridle.core.asks.changes import PutOn, make
from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.beat import Beat
from bridle.core.plan.clip import Clip
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import CARD_TYPES
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from tests.provoked import stopping
from tests.strategies import CARDS, RINGS, plan_of

HELD = {"rate": F(25), "shoot": F(3600), "interval": F(10)}


def put_on(plan: Plan, *names: str) -> Plan:
    """A plan with these demo cards put on, as a hand takes them off the shelf."""
    cards = tuple(Taken(card=CARD_TYPES[CARDS[name]["kind"]].model_validate(CARDS[name])) for name in names)
    return make(plan, [PutOn(do="put", cards=cards)])[0]


def said(told: Evaluation) -> str:
    """All words that a person could read: labels of figures, snags with their fixes, what the drives are told."""
    snags = [text for snag in told.snags for text in (snag.what, *(fix.label for fix in snag.fixes))]
    drives = [drive.words for drive in told.drives]
    return "\n".join([*(figure.label for figure in told.figures.values()), *snags, *drives])


def cards_by(**wanted: Any) -> list[str]:
    """The demo cards that have these values."""
    return [name for name, card in CARDS.items() if all(_at(card, key) == value for key, value in wanted.items())]


def _at(card: dict[str, Any], path: str) -> Any:
    at: Any = card
    for step in path.split("__"):
        at = at.get(step) if isinstance(at, dict) else None
    return at


class Rigs(TestCase):
    def test_a_home_made_belt_slider_is_told_its_run(self) -> None:
        (rail,) = cards_by(kind="axis", drive__kind="belt")[:1]
        plan = put_on(plan_of(HELD, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=600)))), rail)
        told = evaluate(plan)
        self.assertEqual([drive.axis for drive in told.drives], ["slide"])
        self.assertNotRegex(said(told), r"(?i)pan |tilt|spring|wind")

    def test_a_wound_up_turntable_and_a_phone_hear_of_no_steps_and_no_program(self) -> None:
        names = [*cards_by(kind="axis", drive__kind="clockwork")[:1], *cards_by(kind="phone")[:1]]
        self.assertEqual(len(names), 2)
        keys = (Keyframe(), Keyframe(pan_deg=90))
        plan = put_on(plan_of(HELD, move=Move(keyframes=keys)), *names)
        told = evaluate(plan)
        self.assertEqual([axis.name for axis in plan.rig.axes], ["pan"])
        self.assertFalse([key for key in told.figures if re.search(r"microstep|\.steps$|\.ripple$", key)])
        self.assertNotRegex(said(told), r"(?i)microstep|rail |slide ")
        self.assertTrue(told.drives[0].one_way, "the page offers to hang it upside down")
        # A dial that always turns at one pace runs the whole hour, whatever the plan asks of it.
        (drive,) = told.drives
        self.assertIn("°", drive.words + " ".join(f"{f.value}°" for f in told.figures.values() if f.unit == "deg"))

    def test_a_bought_head_is_told_its_key_and_its_number(self) -> None:
        """90° in an hour are 1.504° a minute: 6 times the base rate of the first key comes nearest."""
        (head,) = cards_by(kind="axis", drive__kind="rated")[:1]
        keys = (Keyframe(pan_deg=-45), Keyframe(pan_deg=45))
        plan = put_on(plan_of(HELD, move=Move(keyframes=keys), beat=Beat(school="continuous")), head)
        told = evaluate(plan)
        (drive,) = told.drives
        self.assertEqual((drive.words, drive.one_way), ("key 1, setting 6", False))
        self.assertAlmostEqual(told.figures["drive.pan.wanted"].value, 90 / 3590 * 60)
        self.assertAlmostEqual(told.figures["drive.pan.rate"].value, 0.251 * 6)
        self.assertFalse(
            [key for key in told.figures if re.search(r"\.steps$|\.resolution$|\.ripple$|\.per_frame$", key)]
        )
        self.assertNotRegex(said(told), r"(?i)microstep|spring|wind |belt|rail |slide ")
        # Its numbers are coarse: what it really turns is within a hundredth of the move, or it would be said.
        does = 0.251 * 6 * 3590 / 60
        self.assertEqual("sweep-differs" in {snag.code for snag in told.snags}, abs(does - 90) > 0.9)

    def test_a_bought_head_that_cannot_wait_says_so_to_somebody_who_stops_for_each_frame(self) -> None:
        (head,) = cards_by(kind="axis", drive__kind="rated")[:1]
        keys = (Keyframe(pan_deg=-45), Keyframe(pan_deg=45))
        told = evaluate(stopping(put_on(plan_of(HELD, move=Move(keyframes=keys)), head)))
        found = [snag for snag in told.snags if snag.code == "drive-cannot-stop"]
        self.assertEqual([fix.label for snag in found for fix in snag.fixes], ["Move all the time"])

    def test_a_body_that_nothing_fires_stops_the_shoot(self) -> None:
        """A spring, a rate or a hand fires no camera; a controller, a menu that waits, a timer or an app does."""
        keys = (Keyframe(slide_mm=100), Keyframe(slide_mm=500, pan_deg=60))
        plan = plan_of(HELD, move=Move(keyframes=keys), beat=Beat(school="continuous"))
        for names, fired in (
            (("full-frame-body",), False), (("turntable", "full-frame-body"), False),
            (("star-mount", "full-frame-body"), False), (("marked-base", "full-frame-body"), False),
            (("turntable", "full-frame-body", "remote-timer"), True), (("belt-rail", "full-frame-body"), True),
            (("app-head", "full-frame-body"), True), (("turntable", "phone"), True),
        ):  # fmt: skip
            with self.subTest(names):
                codes = {snag.code for snag in evaluate(put_on(plan, *names)).snags if snag.severity == "stop"}
                self.assertEqual("nothing-fires" in codes, not fired)
        video = put_on(plan_of(HELD, clip=Clip(school="video")), "full-frame-body")
        self.assertNotIn("nothing-fires", {snag.code for snag in evaluate(video).snags})

    def test_a_still_camera_hears_nothing_of_moving(self) -> None:
        plan = plan_of(HELD, rig=Rig(axes=()), move=Move(), beat=Beat(school="continuous"))
        told = evaluate(plan)
        assert told.traces is not None and told.view is not None
        self.assertEqual((told.traces.axes, told.drives, told.letters), ({}, (), {}))
        self.assertEqual(told.view.shift_share.values, (0,))
        self.assertNotRegex(said(told), r"(?i)backlash|top speed|steps a frame|the rail|keyframe \d")

    def test_a_full_rig_sees_as_its_zoom_stands(self) -> None:
        keys = (Keyframe(zoom_mm=24), Keyframe(zoom_mm=70, slide_mm=500, pan_deg=20))
        plan = plan_of(HELD, rig=Rig(axes=RINGS), move=Move(keyframes=keys))
        told = evaluate(plan)
        assert told.view is not None and told.traces is not None
        self.assertEqual(list(told.traces.axes), [axis.name for axis in RINGS])
        focal = told.view.poses["focal"]
        self.assertEqual((focal.values[0], focal.values[-1]), (24, 70))
        self.assertEqual(list(told.letters.values()), ["X", "Y", "Z", "A", "B", "C"])

    def test_whatever_is_put_on_the_plan_still_answers_in_whole_words(self) -> None:
        """No card leaves a slot of a sentence empty, and none a figure that is no number."""
        for name in CARDS:
            with self.subTest(name):
                told = evaluate(put_on(plan_of(HELD, rig=Rig(), clip=Clip()), name))
                for snag in told.snags:
                    for text in (snag.what, snag.why, snag.short, *(fix.label for fix in snag.fixes)):
                        asked = set(re.findall(r"\{(\w+)\}", text))
                        slots = set(snag.slots).union(*(fix.slots for fix in snag.fixes))
                        self.assertLessEqual(asked, slots)
                for figure in told.figures.values():
                    self.assertEqual(figure.value, figure.value, figure.key)
                json.loads(told.model_dump_json())
