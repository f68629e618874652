"""What the field card and the page say of this shoot: directions, long lists, hours, years, rooms, shared relays."""

from datetime import UTC, datetime
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.light import Light
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.new import new_plan
from bridle.core.plan.rig import Rig
from bridle.core.plan.upgrade import plan_from
from bridle.core.snag import at_clock, fill
from tests.core.test_told_by_cards import on_card
from tests.core.test_trigger import demo
from tests.provoked import dusk, of_kind
from tests.provoked_staying import BATTERY, BOX, CARD, camera
from tests.strategies import RINGS, plan_of
from tests.wired import BODY, chain

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}


class WhichWay(TestCase):
    def test_plus_is_said_of_every_axis_and_the_sweep_as_one_figure_with_its_direction(self) -> None:
        move = Move(keyframes=(Keyframe(slide_mm=100, tilt_deg=2), Keyframe(slide_mm=500, pan_deg=-180, tilt_deg=2)))
        plan = plan_of(THREE, move=move, rig=Rig(axes=RINGS[:3]))
        self.assertEqual(on_card(plan)["Which way"], {
            "slide, plus is": "forwards", "slide goes": "400 mm forwards",
            "pan, plus is": "to the right", "pan goes": "180° to the left",
            "tilt, plus is": "up", "in": "59 min 50 s",
        })  # fmt: skip
        arrows = {row.label.split(",")[0]: row.arrow for one in evaluate(plan).review.sheets
                  if one.title == "Which way" for row in one.settings if row.arrow}  # fmt: skip
        self.assertEqual(arrows, evaluate(plan).ways)

    def test_what_turns_round_on_its_way_has_no_sweep(self) -> None:
        for keys, legs in (((0, 30, 10), 1), ((0, 30), 2)):
            move = Move(keyframes=tuple(Keyframe(pan_deg=pan) for pan in keys), legs=legs)
            with self.subTest(keys=keys, legs=legs):
                told = on_card(plan_of(THREE, move=move))["Which way"]
                self.assertEqual(told["pan, plus is"], "to the right")
                self.assertNotIn("pan goes", told)


class OneSheet(TestCase):
    def test_a_list_that_is_too_long_stands_on_a_second_sheet_and_the_first_says_so(self) -> None:
        for minutes, pages in ((8, {1}), (150, {1, 2})):
            told = [one for one in evaluate(dusk(school="ramped", minutes=minutes)).review.sheets
                    if one.title == "Changes of setting"]  # fmt: skip
            with self.subTest(minutes):
                self.assertEqual({one.number for one in told}, pages)
                if len(pages) > 1:
                    first, second = told
                    self.assertEqual(first.settings[1].value.value, f"{len(second.settings)}, listed on sheet 2")
                    self.assertGreater(len(second.settings), 12)


class Hours(TestCase):
    def test_days_rules_and_what_is_put_into_the_controller_are_on_it_with_their_years(self) -> None:
        plan = camera(CARD, days=("2026-12-28", "2027-01-10"))
        told = on_card(plan)
        self.assertEqual(told["Hours"]["days"], "28 December 2026 to 10 January 2027")
        self.assertEqual(told["Hours"]["rule 1"], "Every day, 8:00 to 18:00")
        (entries,) = (lines for title, lines in told.items() if title.startswith("Put into the controller"))
        self.assertEqual((entries["days"], entries["from–to"]), ("Every day", "8:00 – 18:00"))
        self.assertIn("10 Jan 2027", told["Times"]["last frame"])
        self.assertNotIn("Hours", on_card(plan_of(THREE)))

    def test_a_clock_time_says_its_day_and_its_year_where_they_are_others(self) -> None:
        start = datetime(2026, 12, 30, 22, 0, tzinfo=UTC)
        for at, said in (
            (datetime(2026, 12, 30, 23, 30, tzinfo=UTC), "23:30:00"),
            (datetime(2026, 12, 31, 1, 0, tzinfo=UTC), "31 Dec, 01:00:00"),
            (datetime(2027, 1, 1, 1, 0, tzinfo=UTC), "1 Jan 2027, 01:00:00"),
        ):
            slot = at_clock(at.timestamp(), start, "Europe/London")
            self.assertEqual(fill("{at}", {"at": slot}, "Europe/London"), said)


class Rooms(TestCase):
    def test_nothing_is_said_of_tides_where_no_daylight_gets_in(self) -> None:
        slid = of_kind(plan_of(THREE), "slide")
        inside = slid.model_copy(update={"light": Light(daylight=False)})
        for plan, indoors in ((slid, False), (inside, True), (of_kind(plan_of(THREE), "grow"), True),
                              (of_kind(inside, "site"), False)):  # fmt: skip
            said = " ".join(evaluate(plan).review.cautions)
            with self.subTest(kind=plan.shoot.kind, daylight=plan.light.daylight):
                for word in ("tide", "turn-back", "into the sun"):
                    self.assertEqual(word in said, not indoors)

    def test_nobody_walks_to_their_own_kitchen(self) -> None:
        for subject, walks in (("dough rising in the kitchen", False), ("clouds over the harbour", True)):
            plan = new_plan("it", subject, "", "Europe/London", datetime(2026, 5, 1, 8, tzinfo=UTC), "slide")
            self.assertEqual("walk there" in {one.name for one in plan.shoot.clock.errands}, walks)


class Standing(TestCase):
    def test_the_core_says_which_chapters_a_shoot_has_a_use_for(self) -> None:
        long = plan_of({"rate": F(25), "frames": F(1000), "interval": F(300)})
        free = plan_of({"rate": F(25)})
        cases: tuple[tuple[str, Plan, set[str]], ...] = (
            ("an hour", plan_of(THREE), {"season/box"}),
            ("three days, though no length is held", long, {"season", "season/box"}),
            ("windows", camera(CARD), {"season", "season/controller", "season/box"}),
            ("a print", demo("lattice-lantern"), {"print", "season/box"}),
            ("what grows", of_kind(plan_of(THREE), "grow"), {"season"}),
            ("an open clip", free, {"season/box"}),
            ("an open clip on a site", of_kind(free, "site"), {"season", "season/box"}),
        )
        for name, plan, stands in cases:
            with self.subTest(name):
                self.assertEqual(set(evaluate(plan).standing), stands)


class OneRelay(TestCase):
    @staticmethod
    def _lamps(**second: Any) -> Plan:
        uses = [{"lamp": "grow-lamp", "lit": "for the frame", "pin": "D5", "before_s": "1"},
                {"lamp": "bench-lamp", "lit": "for the frame", "pin": "D5", "before_s": "1", **second}]  # fmt: skip
        lamps = {"switch": "level", "volts": 12.0, "on_mains": False, "warm_up_s": "1/2", "on_after_power_up": False}
        names = ("microcontroller", "two-optocouplers", BODY, "grow-lamp", "bench-lamp")
        trigger = {"pin": "D2", "lamps": uses}
        return chain(*names, trigger=trigger, beat={"warm_s": "2"}, grow_lamp=lamps, bench_lamp=lamps)

    def test_two_lamps_on_one_pin_that_are_switched_alike_share_one(self) -> None:
        for second, relays in (({}, 1), ({"pin": "D6"}, 2), ({"lit": "between frames"}, 2), ({"before_s": "2"}, 2)):
            told = evaluate(self._lamps(**second))
            with self.subTest(second):
                self.assertEqual(len(told.trigger.lamps), relays)
                cycles = [key for key in told.figures if key.startswith("trigger.lamp.") and key.endswith(".cycles")]
                self.assertEqual(len(cycles), relays)
                clash = "pin-in-use" in {snag.code for snag in told.snags}
                self.assertEqual(clash, relays == 2 and "pin" not in second)

    def test_its_supply_is_in_the_drawing(self) -> None:
        for diagram in evaluate(self._lamps()).trigger.lamps:
            joined = {end for wire in diagram.wires for end in wire.ends}
            self.assertLessEqual({"board.supply", "switch.supply"}, joined)


class OlderPlans(TestCase):
    def test_a_box_comes_to_stand_below_the_camera_with_threads_that_meet(self) -> None:
        mast = {"kind": "support", "name": "mast", "form": "mast", "above": "3/8-16"}
        plate = {"kind": "mount", "name": "plate", "below": "3/8-16", "above": "1/4-20"}
        for cards, order in (
            ((mast, plate, BODY_CARD, BOX), ["support", "box", "mount", "body"]),
            ((BOX, mast, BODY_CARD), ["support", "box", "body"]),
            ((mast, BODY_CARD, BATTERY, BOX), ["support", "box", "body", "battery"]),
        ):
            data = plan_of(THREE).model_dump(mode="json")
            data["bridle_plan"] = 11
            data["kit"] = {"copies": [{"key": f"part-{n}", "card": card} for n, card in enumerate(cards)]}
            plan = plan_from(data)
            with self.subTest(order):
                self.assertEqual([copy.card.kind for copy in plan.kit.copies], order)
                self.assertNotIn("thread-mismatch", {snag.code for snag in evaluate(plan).snags})

    def test_a_phone_has_the_aperture_that_its_plan_counted_on(self) -> None:
        data = apply(plan_of(THREE), [Edit(path="camera.aperture", value=2.4)])[0].model_dump(mode="json")
        data["bridle_plan"] = 11
        data["kit"] = {"copies": [{"key": "phone", "card": {"kind": "phone", "name": "phone"}}]}
        plan = plan_from(data)
        self.assertNotIn("aperture-is-another", {snag.code for snag in evaluate(plan).snags})

    def test_joins_of_ones_own_feed_a_driven_relay_as_they_were_taken_to(self) -> None:
        joins = [{"a": "source.pin", "b": "coupling.plus"}, {"a": "source.ground", "b": "coupling.minus"}]
        plan = chain("microcontroller", "relay-board", BODY, microcontroller={"half_press": False},
                     joins=[(one["a"], one["b"]) for one in joins])  # fmt: skip
        data = {**plan.model_dump(mode="json"), "bridle_plan": 11}
        joined = plan_from(data).trigger.joins
        assert joined is not None
        self.assertIn(("source.supply", "coupling.supply"), {(one.a, one.b) for one in joined})


BODY_CARD: dict[str, Any] = {"kind": "body", "name": "body"}
