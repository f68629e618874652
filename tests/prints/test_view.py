"""How a print stands in the picture: worked out by hand, with the move's scene, and what each way out comes to."""

import math
from fractions import Fraction
from pathlib import Path
from typing import Any
from unittest import TestCase

from bridle.core.asks.beginnings import drop
from bridle.core.chapters.printing.state import Framed
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.snag import fill
from bridle.formats.plan_json import read_plan
from tests.provoked import PROVOKE
from tests.provoked_print import CUP, printed

LANTERN = Path(__file__).parents[2] / "bridle" / "demo" / "shoots" / "lattice-lantern.json"
# The part of `printed` is 40 mm wide, 30 mm deep and 2.4 mm high; its head parks at X 228, Y 200.
WIDE, DEEP, HIGH = 40.0, 30.0, 2.4
# How far behind a lens of 50 mm, focused a metre away, the picture is drawn.
DRAWN = 50 * 1000 / 950


def framed(plan: Plan) -> Framed:
    told = evaluate(plan).printing.framed
    assert told is not None
    return told


def changed(plan: Plan, **edits: Any) -> Plan:
    return apply(plan, [Edit(path=path.replace("__", "."), value=value) for path, value in edits.items()])[0]


def fixes_of(plan: Plan, code: str) -> dict[str, Plan]:
    """What each fix of a snag leads to, by its label."""
    snag = next(snag for snag in evaluate(plan).snags if snag.code == code)
    return {fill(fix.label, fix.slots): apply(plan, list(fix.edits))[0] for fix in snag.fixes}


class InThePicture(TestCase):
    def test_part_and_head_are_where_a_ruler_and_a_pocket_calculator_have_them(self) -> None:
        """50 mm on 36 by 24, focused a metre away, draws at 50 · 1000/950: 20 mm at 985 mm are 20/985 · 52.6/36."""
        told = framed(printed(printing__distance_mm=1000, camera__focal_mm=50))
        half = WIDE / 2 / (1000 - DEEP / 2) * DRAWN / 36
        for at, want in zip(
            told.last, (-half, half, -HIGH / 2 / 985 * DRAWN / 24, HIGH / 2 / 985 * DRAWN / 24), strict=True
        ):
            self.assertAlmostEqual(at, want, delta=1e-4)
        # The finished part is in the middle of the picture, so the first layers lie at its foot.
        self.assertAlmostEqual(told.first[2], told.last[2], delta=1e-4)
        self.assertLess(told.first[3], 0)
        # It parks 128 mm to the right of the part's middle and 105 behind it; the shroud reaches from 28 before that.
        self.assertAlmostEqual(told.head[0], (128 - 28) / (1000 + 105 + 25) * DRAWN / 36, delta=1e-4)
        self.assertAlmostEqual(told.head[1], (128 + 32) / (1000 + 105 - 30) * DRAWN / 36, delta=1e-4)

    def test_from_each_side_the_head_is_elsewhere_and_the_part_as_deep_as_it_is_there(self) -> None:
        for side, where, wide in (("front", 1, 40), ("back", -1, 40), ("left", -1, 30), ("right", 1, 30)):
            told = framed(printed(printing__distance_mm=1000, camera__focal_mm=50, printing__seen_from=side))
            with self.subTest(side):
                self.assertEqual(math.copysign(1, told.head[0] + told.head[1]), where)
                deep = DEEP if wide == WIDE else WIDE
                self.assertAlmostEqual(told.last[1], wide / 2 / (1000 - deep / 2) * DRAWN / 36, delta=1e-4)

    def test_a_mark_straight_ahead_is_the_same_as_its_distance(self) -> None:
        """A block's mark is the middle of its front and its top; the bed lies as much lower as the part is high."""
        ahead = {**CUP, "y_mm": 985, "z_mm": HIGH / 2}
        by_mark = framed(printed(move__marks=[ahead], printing__mark=0, camera__focal_mm=50))
        by_hand = framed(printed(printing__distance_mm=1000, camera__focal_mm=50))
        for name in ("first", "last", "head"):
            for one, other in zip(getattr(by_mark, name), getattr(by_hand, name), strict=True):
                self.assertAlmostEqual(one, other, delta=2e-4)

    def test_the_zoom_counts_where_it_stands_and_not_what_the_card_of_the_lens_says(self) -> None:
        plan = printed(printing__distance_mm=1000, camera__focal_mm=24)
        # Among what provokes snags there are rigs of every kind.
        zooming = next(one for one in PROVOKE.values() if one.rig.axis("zoom") is not None)
        keys = [{**key.model_dump(mode="json"), "zoom_mm": 70} for key in zooming.move.keyframes]
        there = plan.model_copy(update={"rig": zooming.rig})
        there = changed(there, move__keyframes=keys)
        self.assertAlmostEqual(framed(there).last[1] / framed(plan).last[1], 70 * 976 / (24 * 930), delta=0.01)

    def test_a_camera_that_tilts_away_loses_the_part_and_the_frame_is_named(self) -> None:
        plan = read_plan(LANTERN.read_bytes())
        away = changed(plan, move__keyframes__0__tilt_deg=-14.0, move__keyframes__1__tilt_deg=-14.0)
        said = next(snag for snag in evaluate(away).snags if snag.code == "print-leaves-picture")
        # Its top edge is half of 17.3 mm over 64.3 mm, as 60 mm draw focused at 900: 7.66 degrees over -14.
        lost = next(n for n in range(350) if self._top_deg(0.48 * (n + 1)) > -14 + 7.66)
        self.assertAlmostEqual(float(str(said.slots["first"].value)), lost + 1, delta=2)

    @staticmethod
    def _top_deg(height: float) -> float:
        """Of the lantern's far upper edge, from a lens 260 mm over the bed."""
        return math.degrees(math.atan2(height - 260, 860 - 4.4 + 84.4))

    def test_level_the_head_is_in_the_picture_and_the_ways_out_are_the_ones_that_work(self) -> None:
        # So little has to be sharp that depth of field rules nothing out.
        plan = changed(
            read_plan(LANTERN.read_bytes()), camera__upright=False, picture__shape="16:9", camera__circle_mm=0.06
        )
        led = fixes_of(plan, "print-leaves-picture")
        farther = next(after for label, after in led.items() if label.startswith("Stand the part"))
        self.assertNotIn("print-leaves-picture", {snag.code for snag in evaluate(farther).snags})
        ways = fixes_of(farther, "print-head-in-picture")
        upright = next(after for label, after in ways.items() if label.startswith("Hold it upright"))
        told = framed(upright)
        self.assertEqual((told.head_in, max(map(abs, told.last)) < 0.5, upright.picture.shape), (0, True, "9:16"))

    def test_a_head_that_presses_nothing_parks_elsewhere(self) -> None:
        plan = printed(
            printer={"fires": "commands", "fire_on": ("M42 P4 S255",), "fire_off": ("M42 P4 S0",), "park_x_mm": 100.0},
            printing__distance_mm=400, camera__focal_mm=100,
        )  # fmt: skip
        self.assertTrue(framed(plan).head_in)
        self.assertFalse(framed(fixes_of(plan, "print-head-in-picture")["Park at X 240 mm"]).head_in)

    def test_a_mark_that_does_not_count_leaves_the_distance_to_be_judged_and_its_fixes_change_that(self) -> None:
        """The mark is a bearing, or pictures are taken from several places: then nobody knows how far it is away."""
        bearing = {**CUP, "form": "bearing"}
        plan = printed(
            move__marks=[bearing],
            printing__mark=0,
            printing__distance_mm=300,
            camera__focal_mm=50,
            camera__aperture=5.6,
        )
        rounds = printed(
            move__marks=[CUP], printing__mark=0, move__visits={"kind": "stereo"}, printing__distance_mm=300,
            camera__focal_mm=50, camera__aperture=5.6,
        )  # fmt: skip
        for one in (plan, rounds):
            after = fixes_of(one, "print-out-of-focus")["Stand the camera 520 mm away"]
            self.assertEqual(after.printing.distance_mm, 520)
            self.assertNotIn("print-out-of-focus", {snag.code for snag in evaluate(after).snags})

    def test_of_a_part_behind_the_lens_no_figure_is_shown(self) -> None:
        plan = printed(move__marks=[CUP], printing__mark=0, camera__focal_mm=50)
        keys = [{**key.model_dump(mode="json"), "pan_deg": 180} for key in plan.move.keyframes]
        told = evaluate(changed(plan, move__keyframes=keys))
        self.assertIn("print-leaves-picture", {snag.code for snag in told.snags})
        self.assertFalse({"printing.wide", "printing.sharp"} & set(told.figures))

    def test_what_is_not_known_is_not_drawn(self) -> None:
        self.assertIsNone(evaluate(printed()).printing.framed)
        self.assertEqual(framed(printed(switch={"clicks_mm": None}, printing__distance_mm=900)).head, ())

    def test_a_mark_that_is_taken_away_is_the_part_no_longer_and_another_stays_it(self) -> None:
        plan = printed(move__marks=[CUP, {**CUP, "name": "pot"}], printing__mark=1)
        for gone, left in ((0, 0), (1, None)):
            after = apply(plan, drop(plan, f"move.marks.{gone}"))[0]
            self.assertEqual(after.printing.mark, left)


class Sharp(TestCase):
    def test_what_is_sharp_of_the_part_follows_from_its_near_and_far_limits(self) -> None:
        """H = f²/(N·c) + f, near = s(H - f)/(H + s - 2f), far = s(H - f)/(H - s): 50 mm, f/5.6, 0.03 mm, 300 mm."""
        plan = printed(printing__distance_mm=300, camera__focal_mm=50, camera__aperture=5.6)
        hyper = 2500 / (5.6 * plan.camera.circle) + 50
        near, far = 300 * (hyper - 50) / (hyper + 200), 300 * (hyper - 50) / (hyper - 300)
        said = next(snag for snag in evaluate(plan).snags if snag.code == "print-out-of-focus")
        self.assertAlmostEqual(float(str(said.slots["sharp"].value)), far - near, delta=0.01)
        after = evaluate(fixes_of(plan, "print-out-of-focus")["Stand the camera 520 mm away"])
        self.assertNotIn("print-out-of-focus", {snag.code for snag in after.snags})


class Daylight(TestCase):
    def test_of_a_print_from_noon_to_midnight_those_frames_are_told_that_the_sun_is_up_in(self) -> None:
        """At the equator on the day of equal night the sun sets at about 18:00, six hours of twelve."""
        plan = printed(
            layers={"layers_s": (Fraction(3600),) * 12},
            shoot__place__latitude_deg=0, shoot__place__longitude_deg=0, shoot__place__zone="UTC",
            shoot__clock__at="2026-09-22T12:10:00Z", printer={"idle_s": None},
        )  # fmt: skip
        said = {snag.code: snag for snag in evaluate(plan).snags}["print-in-daylight"]
        self.assertEqual([slot.value for slot in said.slots.values()], [3, "6"])
        for unknown in (changed(plan, light__daylight=False), changed(plan, shoot__place__latitude_deg=None)):
            self.assertNotIn("print-in-daylight", {snag.code for snag in evaluate(unknown).snags})
