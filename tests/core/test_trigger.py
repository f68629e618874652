"""The chapter Trigger in figures: the bench and its pass mark, lamps, the remote look, and fixes on any chain."""

import json
import math
from datetime import date
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import plan_from
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.tested import chain_digest, may_miss, presses_needed, stands
from bridle.core.snag import fill
from bridle.core.subjects.circuits.headset import READ_AS, key_of
from tests.core.test_wiring import soldered
from tests.mutated import DEMO
from tests.provoked import fixes_work
from tests.strategies import plans, presses, triggers
from tests.wired import BODY, chain

FEW = {"rate": 25, "frames": 360, "interval": 10}


def demo(name: str) -> Plan:
    return plan_from(json.loads((DEMO / "shoots" / f"{name}.json").read_text()))


def tried(plan: Plan, *trials: dict[str, Any]) -> Plan:
    """A plan with trials of this very chain, unless another is said."""
    made = [{"on": "2026-10-03", "of": chain_digest(plan), **trial} for trial in trials]
    data = plan.model_dump(mode="json")
    data["trigger"]["trials"] = made
    return Plan.model_validate(data)


HOW_MANY = {"one press": 1, "ten presses": 10, "with the rig": 10, "many presses": 400}
ALL = tuple({"what": what, "asked": asked, "came": asked} for what, asked in HOW_MANY.items())


class Bench(TestCase):
    """How a chain stands, and how much is enough."""

    def test_the_pass_mark_makes_it_that_certain(self) -> None:
        """With one press fewer it is not yet so; a camera that missed more would have shown it."""
        for frames, missed, sure in ((350, 2, 0.9), (350, 3, 0.95), (100, 1, 0.95), (12, 1, 0.5), (260_000, 100, 0.99)):
            needed = presses_needed(frames, missed, sure)
            self.assertLessEqual((1 - missed / frames) ** needed, 1 - sure + 1e-12)
            self.assertGreater((1 - missed / frames) ** (needed - 1), 1 - sure)
        self.assertEqual(presses_needed(350, 2, 0.9), 402)
        self.assertEqual(presses_needed(10, 10, 0.9), 1)
        self.assertEqual(may_miss(chain("remote-timer", BODY), 360), 3)

    def test_how_it_stands_is_the_worst_of_its_tests(self) -> None:
        plan = chain("print-switch", BODY, held=FEW)
        self.assertEqual(stands(plan, 360), "never")
        self.assertEqual(stands(tried(plan, *ALL), 360), "passed")
        self.assertEqual(stands(tried(plan, *ALL[:3], {**ALL[3], "asked": 20, "came": 20}), 360), "fewer")
        self.assertEqual(stands(tried(plan, *ALL, {**ALL[1], "came": 9}), 360), "missed")
        self.assertEqual(stands(tried(plan, *ALL[:3], {**ALL[3], "simulated": True}), 360), "simulated")

    def test_another_chain_makes_it_old_and_another_shoot_does_not(self) -> None:
        plan = tried(chain("print-switch", BODY, held=FEW), *ALL)
        data = plan.model_dump(mode="json")
        for path, value, stand in (
            (("beat", "press_s"), "1/2", "older"), (("trigger", "joins"), [], "older"),
            (("beat", "exposure_s"), "1/8", "passed"), (("shoot", "name"), "Other", "passed"),
            (("trigger", "dwell_s"), "3", "passed"),
        ):  # fmt: skip
            changed = {**data, path[0]: {**data[path[0]], path[1]: value}}
            self.assertEqual(stands(Plan.model_validate(changed), 360), stand, path)

    def test_the_demo_s_bench_is_of_its_own_chain(self) -> None:
        state = evaluate(demo("lattice-lantern")).trigger
        self.assertEqual([step.stand for step in state.bench], ["passed", "passed", "missed", "never"])
        self.assertEqual((state.bench[2].on, state.bench[2].came), (date(2026, 10, 4), 9))
        self.assertEqual(state.verdict, "takes")


class Figures(TestCase):
    """By hand."""

    def alike(self, plan: Plan, wanted: dict[str, float]) -> None:
        figures = evaluate(plan).figures
        for key, value in wanted.items():
            with self.subTest(key):
                self.assertAlmostEqual(figures[key].value, value, delta=1e-6 * max(1.0, abs(value)))

    def test_lamps_for_the_frame_and_off_for_the_frame(self) -> None:
        """18 W at 12 V; on 1 s before the shutter opens and until it closes, or dark for as long."""
        for lit, share in (("for the frame", (1 + 1 / 60) / 10), ("between frames", 1 - (1 + 1 / 60) / 10)):
            plan = chain("remote-timer", BODY, "grow-lamp", "lamp-supply", held=FEW, beat={"warm_s": "1"},
                         trigger={"lamps": [{"lamp": "grow-lamp", "lit": lit}]})  # fmt: skip
            at = [copy.key for copy in plan.kit.copies].index("grow-lamp")
            self.alike(plan, {
                f"trigger.lamp.{at}.share": share, f"trigger.lamp.{at}.heat": 18 * share,
                f"trigger.lamp.{at}.saved": 18 * (1 - share), "trigger.drawn": 1.5,
                f"trigger.lamp.{at}.mixed": 2 / (1 / 4000 + 1 / 5500),
            })  # fmt: skip

    def test_the_look_from_afar(self) -> None:
        """A frame every two minutes, a picture of every sixth: 120 a day; the alarm after two that did not come."""
        held = {"rate": 25, "frames": 3600, "interval": 120}
        look = {"every_frames": 6, "picture_kb": 180, "link_w": 1.2, "alarm_frames": 2}
        plan = chain("camera-board", BODY, held=held, trigger={"look": look})
        self.alike(plan, {
            "trigger.look.pictures": 120, "trigger.look.data": 21.6, "trigger.look.energy": 28.8,
            "trigger.look.alarm": 240,
        })  # fmt: skip

    def test_a_relay_is_late_both_ways(self) -> None:
        """It pulls in after 10 ms and lets go after 5: of 200 ms the camera hears 195, and opens 10 ms later."""
        plan = chain("microcontroller", "relay-board", BODY, held=FEW, microcontroller={"half_press": False})
        self.alike(plan, {"trigger.heard": 0.195, "trigger.closed": 0.01 + 0.06 + 1 / 60})
        shooting = reckon(plan).shooting
        assert shooting is not None
        self.assertAlmostEqual(shooting.cycle.need_s, 0.4 + 0.01 + 0.06 + 1 / 60 + 2.2, places=9)

    def test_a_rod_stands_out_between_the_click_and_the_end(self) -> None:
        rod = {"wall_mm": 3, "rod_mm": 4, "click_mm": 0.8, "travel_mm": 1.6}
        plan = chain("print-switch", BODY, held=FEW, trigger={"actuator": rod})
        self.alike(plan, {"trigger.rod.out": 1.2, "trigger.rod.length": 4.2, "trigger.rod.hole": 4.4})

    def test_motors_hang_on_the_same_supply_where_no_battery_feeds_them(self) -> None:
        plan = chain("remote-timer", BODY, "grow-lamp", "lamp-supply", "belt-rail", held=FEW)
        peak = next(copy.card.peak_a for copy in plan.kit.copies if copy.card.kind == "axis") or 0
        self.assertGreater(peak, 0)
        self.alike(plan, {"trigger.drawn": 1.5 + peak})

    def test_a_phone_reads_a_resistor_as_the_specification_has_it(self) -> None:
        for key, low, high in READ_AS:
            self.assertEqual((key_of(low), key_of(high)), (key, key))
        for ohms in (90, 200, 300, 700, None, math.inf):
            self.assertIsNone(key_of(ohms))


def card(plan: Plan) -> dict[str, dict[str, str]]:
    """The field card's sections, as they are written."""
    return {
        sheet.title: {one.label: fill("{v}", {"v": one.value}) for one in sheet.settings}
        for sheet in evaluate(plan).review.sheets
    }


class Card(TestCase):
    """What the field card says of the trigger, and what is packed."""

    def test_a_switch_of_one_s_own(self) -> None:
        told = card(demo("lattice-lantern"))
        self.assertEqual(told["Trigger"], {"press for": "0.5 s", "wait for the frame": "1 s"})
        self.assertEqual(told["The shoot"]["bench test"], "with the rig: not passed")

    def test_lamps_and_a_pin(self) -> None:
        told = card(demo("fern-frond-uncurling"))["Trigger"]
        self.assertEqual(told["pin"], "D2")
        self.assertEqual(told["pair of bench lamps"], "on 2 s ahead of the frame, pin D6")
        self.assertEqual(told["grow lamp"], "off 1 s ahead of the frame, pin D5")

    def test_what_is_bought_is_not_told_how_to_press(self) -> None:
        """A remote presses as it was made to; its cell and an adapter are packed."""
        told = card(chain("remote-timer", BODY, held=FEW, full_frame_body={"socket": "3.5 mm"}))
        self.assertNotIn("Trigger", told)
        self.assertIn("adapter lead, 2.5 mm to 3.5 mm · spare cell for the wired interval remote", told["Pack"]["□"])
        self.assertNotIn("bench test", {label for rows in card(demo("market-morning")).values() for label in rows})

    def test_cautions_stand_where_they_arise(self) -> None:
        """Soldering with a switch, hot parts with a print, mains with a lamp on it; none of it with a phone's app."""
        said = {name: " ".join(evaluate(demo(name)).review.cautions) for name in ("lattice-lantern", "market-morning")}
        for word in ("Soldering", "hot and moving parts"):
            self.assertIn(word, said["lattice-lantern"])
            self.assertNotIn(word, said["market-morning"])
        lit = chain("remote-timer", BODY, "grow-lamp", held=FEW, grow_lamp={"on_mains": True})
        self.assertIn("qualified person", " ".join(evaluate(lit).review.cautions))


class AnyChain(TestCase):
    """Whatever hangs together how: what is told is mended by what is offered."""

    @given(soldered(), triggers, presses, st.sampled_from(["1/2", "10", "120"]))
    def test_every_fix_of_a_chain_takes_its_snag_away(self, plan: Plan, more: Any, press: Any, every: str) -> None:
        """Joined at random, pressed and lit at random, awake or asleep."""
        data = plan.model_dump(mode="json")
        data["trigger"] |= {name: value for name, value in more.items() if name not in ("joins", "lead")}
        data["beat"] |= press
        next(peg for peg in data["clip"]["pegs"] if peg["quantity"] == "interval")["value"] = every
        plan = Plan.model_validate(data)
        for snag in evaluate(plan).snags:
            if snag.chapter == "trigger":
                fixes_work(self, plan, snag)

    @settings(max_examples=60)
    @given(plans)
    def test_what_is_not_wired_is_not_spoken_of(self, plan: Plan) -> None:
        """Without a source no word of contacts, pins or the bench."""
        assume(not any(copy.card.kind == "trigger" for copy in plan.kit.copies))
        told = evaluate(plan)
        self.assertEqual((told.trigger.verdict, told.trigger.bench, told.trigger.diagram), ("", (), None))
        codes = {snag.code for snag in told.snags if snag.chapter == "trigger"}
        self.assertLessEqual(codes, {"lamp-not-warm", "warm-up-not-in-beat", "toggle-loses-count", "dwell-too-short",
                                     "lamp-on-after-power-cut", "lamp-supply-too-weak", "ground-lifted",
                                     "lamp-lead-loses", "shutter-falls-into-move", "two-starts-no-room",
                                     "autofocus-left-on",
                                     "focus-blocks-release", "stabiliser-left-on"})  # fmt: skip
