"""What people needed to say of their things and could not: each on its card, and what the plan makes of it."""

from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.move import Keyframe, Move
from bridle.core.reckon.clocks import own_clocks
from bridle.core.reckon.reckoning import shooting_of
from bridle.core.reckon.season.draws import lamps
from bridle.core.reckon.tested import chain_digest
from bridle.core.snag import fill
from tests.core.test_ready import on_the_rig
from tests.strategies import CARDS, copies, fitted, plan_of
from tests.wired import BODY, chain
from tests.workings import worked_out

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}


def rig(*cards: dict[str, Any], plan: Plan | None = None) -> Plan:
    """A plan with these cards put on."""
    made_of = [{"key": f"part-{n}", "card": card} for n, card in enumerate(cards)]
    return fitted(plan or plan_of(THREE), made_of)


def on_card(plan: Plan) -> dict[str, dict[str, str]]:
    """The field card: its sections, and in each what stands beside each label."""
    return {
        sheet.title: {row.label: fill("{it}", {"it": row.value}, "Europe/London") for row in sheet.settings}
        for sheet in evaluate(plan).review.sheets
    }


def codes(plan: Plan) -> set[str]:
    return {snag.code for snag in evaluate(plan).snags}


class Cards(TestCase):
    def test_a_lens_clipped_on_in_front_makes_another_focal_length_and_a_smaller_picture(self) -> None:
        clip_on = {"kind": "filter", "name": "wide clip-on", "effect": "clip-on lens", "factor": 0.6, "clear": 0.9}
        plain, wide = rig(CARDS["phone"]), rig(CARDS["phone"], clip_on)
        self.assertAlmostEqual(wide.camera.focal_mm, plain.camera.focal_mm * 0.6)
        self.assertEqual((plain.camera.corrected, wide.camera.corrected), (1.0, 0.9))
        self.assertIn("wide clip-on", on_card(wide)["Pack"]["□"])

    def test_a_rail_on_a_table_or_the_ground_stands_and_fits(self) -> None:
        rail = {**CARDS["belt-rail"], "below": "M8", "above": "1/4-20"}
        for form, told in (("tripod", {"threads-look-alike"}), ("table", set()), ("ground", set())):
            support = {"kind": "support", "name": "it", "form": form, "feet_radius_mm": 20.0, "carries_g": None}
            plan = rig(support, rail, CARDS[BODY], plan=plan_of(THREE, move=Move(keyframes=(
                Keyframe(slide_mm=50), Keyframe(slide_mm=800)))))  # fmt: skip
            with self.subTest(form):
                self.assertEqual(codes(plan) & {"thread-mismatch", "threads-look-alike"}, told)
                self.assertEqual("rig-tips" in codes(plan), form == "tripod")
                self.assertEqual("rig.hold" in evaluate(plan).figures, form == "tripod")

    def test_a_clamp_has_no_legs_to_tip_over(self) -> None:
        heavy = Move(keyframes=(Keyframe(slide_mm=20), Keyframe(slide_mm=880)))
        plan = fitted(
            plan_of(THREE, move=heavy), copies("tripod", "belt-rail", "down-bush", BODY, tripod={"feet_radius_mm": 150})
        )
        self.assertIn("rig-tips", codes(plan))
        clamped = apply(plan, [Edit(path="kit.copies.0.card.form", value="clamp")])[0]
        self.assertNotIn("rig-tips", codes(clamped))

    def test_a_controller_that_makes_more_frames_than_it_is_told_is_told_fewer(self) -> None:
        plan = rig(CARDS[BODY], {**CARDS["remote-timer"], "extra_frames": 1})
        self.assertEqual(on_card(plan)["Controller"]["frames"], "set 359: it makes 1 more, 360 frames in all")

    def test_a_lamp_for_some_exposures_of_a_frame(self) -> None:
        """Of three exposures of 2 s with 1 s between them; it comes on in 1 s and draws 20 W, a frame every 30 s."""
        for levels, said, times, joules in (
            ([1], "1 s ahead of the frame", 1, 20 * (1 + 8)),
            ([0.5], "1 s ahead of the frame, at 50 %", 1, 20 * 9 / 2),
            # Lit for 3 s, then dark for 3 s until it warms up again.
            ([0.5, 0, 0.5], "1 s ahead of exposures 1 and 3, at 50 %", 2, 20 * 6 / 2),
            ([0, 1, 0], "1 s ahead of exposure 2", 1, 20 * 3),
            # It stays lit from the first to the second; the last level holds for the third.
            ([1, 0.5], "1 s ahead of exposure 1 at 100 %, exposure 2 at 50 % and exposure 3 at 50 %", 1, 20 * (3 + 3)),
        ):
            use = {"lamp": "grow-lamp", "lit": "for the frame", "levels": levels}
            bracket = {"exposure_s": "2", "bracket_times_s": ["2", "2", "2"], "bracket_gap_s": "1", "warm_s": "1"}
            lamp = {"watts": 20.0, "warm_up_s": "1"}
            plan = chain("remote-timer", BODY, "grow-lamp", trigger={"lamps": [use]}, beat=bracket, grow_lamp=lamp,
                         held={"rate": 25, "shoot": 3600, "interval": 30})  # fmt: skip
            with self.subTest(levels):
                figures = evaluate(plan).figures
                (on,) = (value for name, value in on_card(plan)["Trigger"].items() if "lamp" in name)
                self.assertIn(said, on)
                (key,) = (key for key in figures if key.endswith(".cycles"))
                self.assertEqual(figures[key].value, 120 * times)
                heat = figures[key.replace("cycles", "heat")]
                self.assertAlmostEqual(heat.value, joules / 30)
                self.assertAlmostEqual(heat.value, worked_out(heat))
                shooting = shooting_of(plan)
                assert shooting is not None
                (drawn,) = lamps(shooting)
                self.assertAlmostEqual(drawn.frame_j, joules)

    def test_the_steps_through_a_menu_are_printed_in_their_order(self) -> None:
        steps = ["Menu, three times to the right", "Interval: as above", "leave “delay” as it is"]
        plan = rig(CARDS[BODY], {**CARDS["remote-timer"], "menu": steps})
        (title,) = (title for title in on_card(plan) if title.startswith("Menu of"))
        self.assertEqual(list(on_card(plan)[title].items()), [(f"{n}.", step) for n, step in enumerate(steps, 1)])

    def test_a_spring_that_counts_its_turns_stops_by_itself(self) -> None:
        """4° a minute for half an hour would be 120°; it stops after 90°, and nobody has to be there."""
        for stops, ends, stopped in ((None, 120.0, True), (90.0, 90.0, False), (200.0, 120.0, False)):
            drive = {**CARDS["turntable"]["drive"], "rate_deg_min": 4.0, "stops_after_deg": stops}
            plan = rig({**CARDS["turntable"], "drive": drive}, CARDS["phone"], plan=plan_of(
                {**THREE, "shoot": F(1810)}, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=100)))))  # fmt: skip
            (section,) = (lines for title, lines in on_card(plan).items() if title.startswith("The pan:"))
            with self.subTest(stops):
                self.assertAlmostEqual(evaluate(plan).figures["drive.pan.does"].value, ends, 3)
                self.assertEqual("stop it at" in section, stopped)
                self.assertEqual("stops after" in section["set it"], stops is not None)

    def test_an_interval_that_is_not_on_a_short_list_is_a_stop_with_its_neighbours(self) -> None:
        listed = {**CARDS["remote-timer"], "intervals": ["1", "5", "15", "30", "60"]}
        snag = next(one for one in evaluate(rig(CARDS[BODY], listed)).snags if one.code == "interval-not-listed")
        self.assertEqual(str(snag.slots["listed"].value), "1 s, 5 s, 15 s, 30 s and 1 min")
        self.assertEqual([fill(fix.label, fix.slots) for fix in snag.fixes], ["Set it to 5 s", "Set it to 15 s"])
        for interval in (F(5), F(30)):
            plan = rig(CARDS[BODY], listed, plan=plan_of({**THREE, "interval": interval}))
            self.assertNotIn("interval-not-listed", codes(plan))

    def test_two_units_that_share_one_pace_are_one_clock(self) -> None:
        plan = on_the_rig("app-slider", "app-head", "compact", "remote-timer")
        plan = plan.model_copy(update={"move": Move(keyframes=(Keyframe(), Keyframe(slide_mm=300, pan_deg=20)))})
        self.assertEqual(len(own_clocks(plan)), 2)
        edits = [
            Edit(path=f"kit.copies.{number}.card.paced_by", value="the app")
            for number, copy in enumerate(plan.kit.copies) if copy.card.kind == "axis"
        ]  # fmt: skip
        self.assertEqual(len(own_clocks(apply(plan, edits)[0])), 1)

    def test_a_battery_goes_onto_its_charger_before_the_first_errand(self) -> None:
        """The first frame at 6:10, 55 min of errands, three hours to charge: at 2:15."""
        battery = {"kind": "battery", "name": "camera battery", "charges_s": "10800"}
        plan = rig(CARDS[BODY], battery)
        self.assertEqual(on_card(plan)["Before"]["charge the camera battery, from"], "02:15:00")

    def test_leads_have_slack_for_the_whole_travel_and_room_for_their_plug(self) -> None:
        far = plan_of(THREE, move=Move(keyframes=(Keyframe(slide_mm=50), Keyframe(slide_mm=850))))
        for length, told in ((1099.0, True), (1100.0, False)):
            plan = rig(
                CARDS["belt-rail"], CARDS[BODY], {"kind": "cable", "name": "lead", "length_mm": length}, plan=far
            )
            self.assertEqual("lead-too-short" in codes(plan), told)
        box = {"kind": "box", "name": "box", "wide_mm": 215.0}
        for bend, told in ((41.0, True), (40.0, False), (None, False)):
            plan = rig(box, CARDS[BODY], {"kind": "cable", "name": "lead", "bend_mm": bend})
            self.assertEqual("plug-meets-box" in codes(plan), told)

    def test_what_a_way_of_working_needs_is_packed(self) -> None:
        held = {**CARDS["star-mount"], "drive": {**CARDS["star-mount"]["drive"], "runs_while_held": True}}
        front = {**CARDS["phone"], "faces": "front"}
        for card, packed in ((held, "a clamp that holds its button down"), (front, "a mirror to frame by")):
            self.assertIn(packed, on_card(rig(card))["Pack"]["□"])
        self.assertNotIn("mirror", on_card(rig(CARDS["phone"]))["Pack"]["□"])

    def test_what_came_to_the_cards_later_makes_no_chain_another_one(self) -> None:
        """A test on the bench holds as long as nothing that it was made for is another."""

        def digest(**more: Any) -> str:
            board = {"half_press": False, **more}
            return chain_digest(chain("microcontroller", "relay-board", "release-lead", BODY, microcontroller=board))

        changes: tuple[tuple[dict[str, Any], bool], ...] = (
            ({"menu": ["one"]}, True), ({"extra_frames": 0}, True), ({"intervals": []}, True),
            ({"supply_v": 5.0}, True), ({"supply_v": 12.0}, False),
        )  # fmt: skip
        for change, alike in changes:
            with self.subTest(change):
                self.assertEqual(digest(**change) == digest(), alike)


class Boxed(TestCase):
    def test_a_box_weighs_on_what_carries_it_with_what_is_in_it(self) -> None:
        mast = {"kind": "support", "name": "mast", "form": "mast", "carries_g": 5000.0}
        battery = {"kind": "battery", "name": "battery", "mass_g": 3000.0}
        trigger = {**CARDS["remote-timer"], "mass_g": 100.0}
        for inside, carried in ((False, 2200 + 100 + 680), (True, 2200 + 100 + 680 + 3000)):
            box = {"kind": "box", "name": "box", "mass_g": 2200.0, "holds_battery": inside}
            told = evaluate(rig(mast, box, CARDS[BODY], battery, trigger))
            with self.subTest(inside):
                self.assertEqual(told.figures["rig.carried.0"].value, carried)
                self.assertEqual(told.figures["rig.carried.1"].value, 680)
                self.assertEqual("overload" in {snag.code for snag in told.snags}, inside)

    def test_its_threads_meet_what_is_below_and_what_stands_in_it(self) -> None:
        mast = {"kind": "support", "name": "mast", "form": "mast", "above": "M8"}
        box: dict[str, Any] = {"kind": "box", "name": "box", "below": "M8", "above": "1/4-20"}
        for changed, told in (({}, False), ({"below": "3/8-16"}, True), ({"above": "3/8-16"}, True)):
            with self.subTest(changed):
                wrong = codes(rig(mast, {**box, **changed}, CARDS[BODY])) & {"thread-mismatch", "threads-look-alike"}
                self.assertEqual(bool(wrong), told)
