"""Clocks of their own: whose is tied to the camera, what is started when, and what has to be stopped."""

from typing import Any
from unittest import TestCase

from bridle.core.asks.changes import PutOn, make
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.clocks import own_clocks
from bridle.core.snag import fill
from tests.core.test_moving import NEW, put
from tests.strategies import CARDS, shooting


def with_trigger(plan: Plan, source: str) -> Plan:
    card = {**CARDS["controller"], "source": source}
    return make(plan, [PutOn.model_validate({"do": "put", "cards": [{"card": card}]})])[0]


def read(plan: Plan, about: str) -> dict[str, Any]:
    """A section of the field card: what stands beside each label."""
    (sheet,) = (one for one in evaluate(plan).review.sheets if one.about == about)
    return {row.label: fill("{it}", {"it": row.value}, "Europe/London") for row in sheet.settings}


UNTIED = {"continuous": "clocks-not-tied", "shoot-move-shoot": "moves-by-chance"}


class Clocks(TestCase):
    def test_who_has_one(self) -> None:
        """Parts that are put on a new sheet, who fires, and which of them run by a clock of their own."""
        cases: tuple[tuple[tuple[str, ...], str | None, tuple[str, ...]], ...] = (
            (("belt-rail", "full-frame-body"), None, ()),
            (("belt-rail", "full-frame-body"), "controller", ()),
            (("belt-rail", "full-frame-body"), "wired remote", ("belt-rail",)),
            (("belt-rail", "pan-head", "phone"), None, ("belt-rail",)),
            (("belt-rail", "app-head", "full-frame-body"), "controller", ("app-head",)),
            (("belt-rail", "app-head", "phone"), None, ("belt-rail", "app-head")),
            (("turntable", "full-frame-body"), "controller", ("turntable",)),
            (("belt-rail", "turntable", "full-frame-body"), "controller", ("turntable",)),
            (("app-head", "full-frame-body"), None, ()),
            (("app-head", "full-frame-body"), "camera timer", ("app-head",)),
            (("app-slider", "app-head", "compact"), None, ("app-slider",)),
            (("app-slider", "app-head", "compact"), "camera timer", ("app-slider", "app-head")),
            (("dial-slider", "full-frame-body"), None, ()),
            (("dial-slider", "full-frame-body"), "wired remote", ("dial-slider",)),
            (("marked-base", "phone"), None, ()),
            (("full-frame-body",), "camera timer", ()),
        )
        for names, source, own in cases:
            with self.subTest(names, source=source):
                plan = put(NEW, *names)
                plan = with_trigger(plan, source) if source else plan
                wanted = [CARDS[name]["name"] for name in own]
                self.assertEqual([part.copy.card.name for part in own_clocks(plan)], wanted)
                codes = [snag.code for snag in evaluate(plan).snags]
                # What cannot stop is told as that; where it could, its moves fall where they like.
                untied = {"clocks-not-tied", "moves-by-chance"} & {*codes}
                self.assertEqual(untied, {own and UNTIED[plan.beat.school]} if own else set())

    def test_of_two_that_wait_for_the_frames_one_can_fire_the_camera(self) -> None:
        """Two bought movers that each stand still for every frame: the other one has a clock of its own."""
        slider = {**CARDS["app-slider"], "drive": {"kind": "bought", "asks": "start and end"}}
        cards = [{"card": card} for card in (slider, CARDS["app-head"], CARDS["full-frame-body"])]
        plan = make(NEW, [PutOn.model_validate({"do": "put", "cards": cards})])[0]
        self.assertEqual([part.copy.card.name for part in own_clocks(plan)], [CARDS["app-head"]["name"]])

    def test_a_head_whose_two_axes_move_is_one_clock(self) -> None:
        """It fires the camera itself, or a timer does: then it is one start more, not two."""
        for source, own in ((None, 0), ("camera timer", 1)):
            plan = put(NEW, "app-head", "full-frame-body")
            plan = with_trigger(plan, source) if source else plan
            both, _ = apply(plan, [Edit(path="move.keyframes.1.tilt_deg", value=12.0)])
            self.assertEqual(len(own_clocks(both)), own)

    def test_two_apps_and_a_camera_are_three_starts(self) -> None:
        plan = with_trigger(put(NEW, "app-slider", "app-head", "compact"), "camera timer")
        (snag,) = (one for one in evaluate(plan).snags if one.code == "clocks-not-tied")
        self.assertIn(
            "short slider with an app and motion head with an app, pan and tilt", fill(snag.what, snag.slots, "")
        )
        started = apply(plan, snag.fixes[0].edits)[0]
        rows = read(started, "clocks")
        self.assertEqual(rows["20 s later"], "start the short slider with an app")
        self.assertEqual(rows["40 s later"], "start the motion head with an app, pan and tilt")
        # Forty seconds at an interval of ten are four frames; the clocks drift by a fifth of a second in the hour.
        self.assertEqual((rows["off the plan at the start"], rows["off the plan at the end"]), ("4 frames", "5 frames"))
        tied = apply(plan, snag.fixes[1].edits)[0]
        self.assertNotIn("clocks-not-tied", [one.code for one in evaluate(tied).snags])

    def test_what_does_not_stop_by_itself_has_an_alarm_and_a_time_to_stop(self) -> None:
        """The new sheet starts at 06:10 and lasts an hour: its last frame is ten seconds before the end."""
        for name, axis in (
            ("turntable", "pan"),
            ("star-mount", "pan"),
            ("switch-dolly", "slide"),
            ("app-slider", "slide"),
        ):
            with self.subTest(name):
                rows = read(put(NEW, name), axis)
                self.assertEqual((rows["alarm at"], rows["stop it at"]), ("07:07:50", "07:09:50"))
        self.assertNotIn("stop it at", read(put(NEW, "app-head"), "pan"))


class Head(TestCase):
    def test_a_head_of_two_axes_is_one_card(self) -> None:
        plan = put(NEW, "tripod", "app-head", "full-frame-body")
        self.assertEqual([(axis.name, axis.low, axis.top_speed, axis.acceleration) for axis in plan.rig.axes],
                         [("pan", -170, 30, None), ("tilt", -45, 20, None)])  # fmt: skip
        told = evaluate(plan)
        assert told.rig is not None
        self.assertEqual([part.name for part in told.rig.parts].count("motion head with an app, pan and tilt"), 1)

    def test_what_is_typed_over_an_axis_of_it_stays(self) -> None:
        plan = put(NEW, "app-head")
        (typed, _) = apply(plan, [Edit(path="rig.axes.1.high", value=30.0)])
        self.assertEqual(put(typed, "tripod").rig.axes[1].high, 30)
        origins = evaluate(typed).origins
        self.assertEqual((origins["rig.axes.1.high"].how, origins["rig.axes.1.low"].how), ("typed", "card"))


class Still(TestCase):
    def test_it_is_what_the_interval_leaves_when_it_has_moved(self) -> None:
        """Of ten seconds one is margin; a turn of 20/359 of a degree at 0.05 degrees a second takes 1.1142 s."""
        slow = {**CARDS["app-head"], "top_speed": 0.05}
        plan = make(NEW, [PutOn.model_validate({"do": "put", "cards": [{"card": slow}]})])[0]
        straight = apply(plan, [Edit(path=f"move.ease_{end}_frames", value=0) for end in ("in", "out")])[0]
        self.assertAlmostEqual(shooting(straight).cycle.still_s, 10 - 1 - 20 / 359 / 0.05, 6)
        told = {one.axis: one.words for one in evaluate(straight).drives}
        self.assertIn("still for 7.89 s", told["pan"])
        self.assertEqual(told["tilt"], "stands still at 0°")
