# ruff: noqa: E501
"""What each kind of drive is told and does, worked out by hand; and what its card and its measuring ask for."""

import math
from dataclasses import replace
from fractions import Fraction as F
from typing import Any, NamedTuple, get_args
from unittest import TestCase

from bridle.core.asks.shelf import usual
from bridle.core.evaluate import evaluate
from bridle.core.plan.move import Keyframe, Move
from bridle.core.reckon.clocks import own_clocks
from bridle.core.snag import fill
from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.motion.drives.bought import Bought
from bridle.core.subjects.motion.drives.clockwork import Clockwork
from bridle.core.subjects.motion.drives.dial import Dial
from bridle.core.subjects.motion.drives.every import AnyDrive
from bridle.core.subjects.motion.drives.gear import Gear
from bridle.core.subjects.motion.drives.hand import ByHand
from bridle.core.subjects.motion.drives.interface import DriveCard, Wanted
from bridle.core.subjects.motion.drives.moves import MoveDial
from bridle.core.subjects.motion.drives.rated import Rated
from bridle.core.subjects.motion.drives.screw import Screw
from bridle.core.subjects.motion.drives.stepped import SteppedSpeed
from tests.strategies import copies, fitted, plan_of

HELD = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
# 600 mm of a rail of 900 in an hour, 1.7 mm a frame at the fastest; and 90° of a head that goes round once.
SLIDE = Wanted("slide", "mm", 100, 600, 3600, 1.7, 900)
PAN = Wanted("pan", "deg", -20, 90, 3600, 0.25, 360)
BACK = replace(PAN, sweep=-90)
STILL = replace(SLIDE, sweep=0, per_frame=0)


class Case(NamedTuple):
    """A drive, what is asked of it, what it is told in words, how far it goes, and some of its figures."""

    drive: DriveCard
    wanted: Wanted
    words: str | None
    goes: float | None
    figures: dict[str, float]


# The whole rail in 1200 s at switch 2 and 7200 s at switch 3; the move needs 3600 · 900 / 600 = 5400 s.
SWITCH = SteppedSpeed.model_validate(
    {"codes": [{"code": code, "run_s": run} for code, run in (("1", 600), ("2", 1200), ("3", 7200))]}
)
TWO_DIALS = MoveDial.model_validate(
    {"paces": [{"dial": dial, "every_s": every} for dial, every in ((0, 2), (4, 8), (10, 14))]}
)
DIAL = Dial.model_validate({"points": [{"dial": d, "run_s": run} for d, run in ((0, 600), (4, 4800), (8, 7200))]})
MENU = Rated.model_validate({
    "keys": [{"name": "slow", "base_deg_min": 0.25}, {"name": "fast", "base_deg_min": 2.0}],
    "low_setting": 0.5, "high_setting": 16, "setting_step": 0.5, "runs_while_held": True,
})  # fmt: skip
CASES = (
    Case(Belt(pitch_mm=2, teeth=20, microsteps=16), SLIDE,
         "136 steps a frame at cruise; each position rounded from its own target", None,
         {"slide.steps": 200 * 16 / 40, "slide.resolution": 40 / 3200, "slide.per_frame": 1.7 * 80}),
    Case(Belt(pitch_mm=2, teeth=20, correction=1.01), SLIDE,
         "137.4 steps a frame at cruise; each position rounded from its own target", None,
         {"slide.steps": 80 * 1.01, "slide.per_frame": 1.7 * 80.8}),
    Case(Screw(lead_mm=8, microsteps=4), SLIDE,
         "170 steps a frame at cruise; each position rounded from its own target", None,
         {"slide.steps": 200 * 4 / 8, "slide.resolution": 0.01}),
    Case(Gear(ratio=27, microsteps=16), PAN,
         "60 steps a frame at cruise; each position rounded from its own target", None,
         {"pan.steps": 200 * 16 * 27 / 360, "pan.per_frame": 0.25 * 240}),
    Case(ByHand(division=0.5), PAN, "set the scale between frames, by 0.25 a frame at cruise", None, {}),
    Case(Clockwork(rate_deg_min=1.2, longest_run_s=7200), PAN,
         "wind it fully, start at −20°; it turns to the right by itself", 1.2 * 60,
         {"pan.does": 72, "pan.time": 90 / 1.2 * 60}),
    Case(Clockwork(rate_deg_min=1.2, clockwise=False), BACK,
         "wind it fully, start at −20°; it turns to the left by itself", 72, {"pan.time": 4500}),
    Case(SWITCH, SLIDE, "switch to 3; the whole travel takes 120 min there", 900 * 3600 / 7200,
         {"slide.run": 5400, "slide.does": 450}),
    Case(SWITCH, replace(SLIDE, sweep=-900, seconds=900), "switch to 2; the whole travel takes 20 min there", 675,
         {"slide.run": 900, "slide.does": 675}),
    Case(SWITCH, STILL, None, None, {}),
    # 5400 s lie a quarter of the way from 4800 to 7200; left out, 4800 would be read at 5.09.
    Case(DIAL, SLIDE, "dial at 5.0 ± 1.1; after ten frames it should stand 17 further; it moves first, then shoots",
         600, {"slide.run": 5400, "slide.dial": 5}),
    Case(DIAL.model_copy(update={"moves_first": False}), replace(SLIDE, seconds=400),
         "dial at 0.0 ± 1.1; after ten frames it should stand 17 further; it shoots first, then moves",
         600, {"slide.run": 600, "slide.dial": 0}),
    Case(DIAL, replace(SLIDE, seconds=9000), "dial at 8, the end of what is calibrated", 900 * 9000 / 7200,
         {"slide.run": 13500}),
    Case(DIAL, STILL, None, None, {}),
    # 1.5°/min: 6 on the slow key, or 0.75 on the fast one, whose step of a half comes to 0.5 or 1.
    Case(MENU, PAN, "key slow, setting 6; hold key slow down and let it go after 60 min: nothing else stops it, set an alarm", 90,
         {"pan.wanted": 1.5, "pan.setting": 6, "pan.rate": 1.5}),
    Case(MENU, replace(PAN, sweep=-1000), "key fast, setting 8.5; hold key fast down and let it go after 60 min: nothing else stops it, set an alarm",
         2 * 8.5 * 60, {"pan.wanted": 1000 / 60, "pan.setting": 1000 / 120, "pan.rate": 17}),
    Case(MENU, replace(PAN, sweep=9000), None, None, {"pan.wanted": 150}),
    Case(MENU, replace(PAN, sweep=0), None, None, {"pan.wanted": 0}),
    # 600 mm in 360 moves are 1.67 mm a move; the position of 2 mm is nearest, and goes 720.
    Case(MoveDial(), replace(SLIDE, frames=361, interval_s=10), "dial at 3, 2 mm a move; start at 100 mm", 720,
         {"slide.each": 600 / 360, "slide.does": 720}),
    Case(MoveDial(), replace(STILL, frames=361), None, None, {}),
    # Out of its reach it goes on in its own time: 257 moves of 14 s in an hour, not 360.
    # 10 s lie a third of the way from 8 to 14; left out, 8 would be read at 5 instead of 4.
    Case(TWO_DIALS, replace(SLIDE, frames=361, interval_s=10),
         "dial at 3, 2 mm a move; second dial at 6.0 ± 1.0: a move every 10 s; start at 100 mm", 720, {"slide.second": 6}),
    Case(TWO_DIALS, replace(SLIDE, frames=361, interval_s=20),
         "dial at 3, 2 mm a move; second dial at 10, the nearest that is calibrated: a move every 14 s; start at 100 mm",
         257 * 2, {"slide.each": 600 / 257}),
    # 90° an hour are a quarter of full speed; 600 mm an hour are 600 on a menu that counts them, in steps of 50.
    Case(Bought(asks="a speed", full_per_h=360), PAN, "start at −20°, speed 25 %, to the right", 90,
         {"pan.wanted": 90, "pan.setting": 25, "pan.does": 90}),
    Case(Bought(asks="a speed", full_per_h=360, number_step=10), replace(BACK, hung=True),
         "start at −20°, speed 20 %, to the left (it hangs upside down: its own menu has that the other way round)", 72,
         {"pan.setting": 25, "pan.does": 72}),
    Case(Bought(asks="a speed", speed_in="by the hour", least_number=1, most_number=900, number_step=50), SLIDE,
         "start at 100 mm, speed 600 mm an hour, forwards", 600, {"slide.wanted": 600, "slide.does": 600}),
    Case(Bought(asks="a speed", full_per_h=60), PAN, "start at −20°, speed 100 %, to the right", 60, {"pan.setting": 150}),
    Case(Bought(asks="a speed"), STILL, None, None, {}),
    Case(Bought(keyframes=3, still=True, ramp=True, grid=0.5),
         replace(PAN, sweep=90.2, frames=361, interval_s=10, still_s=4.498, ease_frames=(25, 40), between=((121, 12.2),)),
         "start −20°, 12° at frame 121, end 70°; 361 frames; every 10 s; still for 4.5 s; ramp 25 frames in, 40 out",
         None, {}),
    Case(Bought(frames=False, interval=False), SLIDE, "start 100 mm, end 700 mm", None, {}),
)  # fmt: skip


class Drives(TestCase):
    def test_each_is_told_what_it_needs_and_goes_as_far_as_it_does(self) -> None:
        for case in CASES:
            with self.subTest(case.drive.NAME, sweep=case.wanted.sweep, seconds=case.wanted.seconds):
                self.assertEqual(case.drive.words(case.wanted), case.words)
                does = case.drive.goes(case.wanted)
                if case.goes is None:
                    self.assertIsNone(does)
                else:
                    self.assertAlmostEqual(does or 0, case.goes)
                told = {figure.key: figure.value for figure in case.drive.working(case.wanted)}
                for key, value in case.figures.items():
                    self.assertAlmostEqual(told[f"drive.{key}"], value, msg=key)

    def test_a_second_dial_goes_no_faster_than_it_is_calibrated(self) -> None:
        self.assertEqual((TWO_DIALS.shortest_s, MoveDial().shortest_s), (2, None))

    def test_what_none_is_asked_is_not_told(self) -> None:
        """A drive without a motor has no steps, one that stands where it is told no pace of its own."""
        without_motor: tuple[DriveCard, ...] = (ByHand(), SWITCH, DIAL, MENU, Clockwork())
        as_told: tuple[DriveCard, ...] = (Belt(), Screw(), Gear(), ByHand())
        for drive in without_motor:
            self.assertIsNone(drive.steps())
        for drive in as_told:
            self.assertEqual((drive.runs_s, drive.one_way, drive.limits_deg_min()), (None, 0, []))
        self.assertEqual(ByHand(division=0.25).division_of_scale, 0.25)
        self.assertIsNone(Belt().division_of_scale)

    def test_what_a_bought_one_can_do_follows_from_what_it_asks_for(self) -> None:
        def can(**card: Any) -> tuple[bool, bool, bool, int | None]:
            drive = Bought.model_validate(card)
            return drive.runs_on, drive.stops, drive.eases, drive.most_points

        self.assertEqual(can(asks="a speed", waits=True, ramp=True, keyframes=5), (True, False, False, 2))
        self.assertEqual(can(waits=False, keyframes=5), (False, False, False, 5))
        self.assertEqual(can(ramp=True), (False, True, True, 2))

    def test_what_runs_down_and_which_way_it_goes(self) -> None:
        self.assertEqual((Clockwork(longest_run_s=7200).runs_s, Clockwork(clockwise=False).one_way), (7200, -1))
        self.assertEqual(MENU.limits_deg_min(), [0.125, 4, 1, 32])

    def test_a_drive_that_is_to_stand_still_is_not_started(self) -> None:
        """Travel nought, for every drive, beside another axis that moves; and with every keyframe of three alike."""
        for kind in get_args(AnyDrive):
            drive = kind()
            for keys in (2, 3):
                with self.subTest(drive.NAME, keyframes=keys):
                    move = Move(keyframes=tuple(Keyframe(slide_mm=100.0 * n, pan_deg=30.0) for n in range(keys)))
                    head = {"kind": "axis", "name": "head", "motion": "rotary", "low": -180, "high": 180,
                            "drive": drive.model_dump(mode="json")}  # fmt: skip
                    plan = fitted(plan_of(HELD, move=move), [*copies("belt-rail"), {"key": "head", "card": head}])
                    told = evaluate(plan)
                    (state,) = [one for one in told.drives if one.axis == "pan"]
                    self.assertEqual((state.stands, state.words), (True, "stands still at 30°"))
                    card = {
                        one.about: {row.label: row.value.value for row in one.settings} for one in told.review.sheets
                    }
                    if state.told != "program":
                        rest = "set it once, then leave it" if state.told == "hand" else "not started"
                        self.assertEqual(card["pan"], {"set it": rest, "stands at": 30.0})
                        self.assertNotIn("drive.pan", "".join(told.figures))
                    self.assertFalse([part for part in own_clocks(plan) if part.name == "pan"])
                    said = [fill(snag.what, snag.slots, "") for snag in told.snags if snag.chapter in ("rig", "clip")]
                    self.assertFalse([one for one in said if "pan" in one or drive.NAME in one], said)

    def test_a_drive_that_comes_back_to_where_it_set_off_does_move(self) -> None:
        """From 0° to 50° and back: no sweep from end to end, and yet a spring cannot do it."""
        keys = tuple(Keyframe(pan_deg=at) for at in (0.0, 50.0, 0.0))
        plan = fitted(plan_of(HELD, move=Move(keyframes=keys), beat={"school": "continuous"}), copies("turntable"))
        told = evaluate(plan)
        self.assertFalse(told.drives[0].stands)
        self.assertIn("drive-goes-straight", [snag.code for snag in told.snags])

    def test_which_way_a_spring_turns_is_only_usual_until_somebody_has_said_so(self) -> None:
        unsure: dict[str, Any] = {"typed": []}
        for card, sure in (({}, True), (unsure, False)):
            plan = fitted(plan_of(HELD, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=60)))),
                          copies("turntable", turntable=card))  # fmt: skip
            told = evaluate(plan)
            self.assertEqual("nobody has checked this one" not in told.drives[0].words, sure)
            on_card = [row.value.value for one in told.review.sheets if one.about == "pan" for row in one.settings]
            self.assertEqual("nobody has checked this one" not in str(on_card), sure)
            self.assertEqual("drive.clockwise" in usual(plan.kit.copies[0].card), not sure)

    def test_what_the_cards_tell(self) -> None:
        def told(drive: DriveCard) -> dict[str, float]:
            return {figure.key: figure.value for figure in drive.card_figures("deg")}

        self.assertEqual(told(Clockwork(rate_deg_min=4, longest_run_s=7200)), {"card.sweep": 480})
        self.assertEqual(told(MENU), {"card.rate.0": 4, "card.rate.1": 32})
        self.assertEqual(told(Gear(ratio=9, microsteps=16)), {"card.steps": 80, "card.resolution": 1 / 80})

    def test_how_hard_it_pulls_is_a_matter_of_its_radius(self) -> None:
        """A belt pulls at its pulley's; a screw as if at that of a pulley as long around as its lead."""
        self.assertAlmostEqual(Belt(pitch_mm=3, teeth=16).pull_radius()[0], 48 / math.tau)
        self.assertAlmostEqual(Screw(lead_mm=2).pull_radius()[0], 2 / math.tau)

    def test_every_figure_that_moves_it_can_be_measured(self) -> None:
        wanted: dict[str, tuple[DriveCard, list[str]]] = {
            "belt": (Belt(), ["drive.correction", "backlash", "settle_s"]),
            "spring": (Clockwork(), ["drive.rate_deg_min"]),
            "distances": (MoveDial(), [f"drive.positions.{n}.each" for n in range(4)]),
            "two dials": (
                TWO_DIALS,
                [*(f"drive.positions.{n}.each" for n in range(4)), *(f"drive.paces.{n}.every_s" for n in range(3))],
            ),
            "bought, by speed": (Bought(asks="a speed"), ["drive.full_per_h"]),
            "bought, by the hour": (Bought(asks="a speed", speed_in="by the hour"), []),
            "bought, by its ends": (Bought(), ["settle_s"]),
            "switch": (SWITCH, [f"drive.codes.{n}.run_s" for n in range(3)]),
            "dial": (DIAL, [f"drive.points.{n}.run_s" for n in range(3)]),
            "menu": (MENU, [f"drive.keys.{n}.base_deg_min" for n in range(2)]),
            "hand": (ByHand(), ["backlash", "settle_s"]),
        }
        for name, (drive, fields) in wanted.items():
            measures = drive.measures("deg")
            self.assertEqual([measure.field for measure in measures], fields, name)
            self.assertEqual(len({measure.key for measure in measures}), len(measures), name)
            self.assertTrue(all(measure.how and measure.columns for measure in measures), name)

    def test_a_dial_that_falls_or_stands_still_between_two_marks_is_refused(self) -> None:
        for dials in ((0, 0), (4, 2)):
            points: list[dict[str, Any]] = [{"dial": dial, "run_s": 60 * (n + 1)} for n, dial in enumerate(dials)]
            with self.subTest(dials), self.assertRaisesRegex(ValueError, "rise from one to the next"):
                Dial.model_validate({"points": points})
            with self.subTest(second=dials), self.assertRaisesRegex(ValueError, "rise from one to the next"):
                MoveDial.model_validate({"paces": [{"dial": dial, "every_s": 9} for dial in dials]})
