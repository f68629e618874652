"""The figures on the sheet, worked out beside the code with nothing but a pencil; and the rule that each is told by."""

import math
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.figure import Figure
from bridle.core.plan.beat import Beat, Stack
from bridle.core.plan.camera import Camera
from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Follow, Keyframe, Move, OnFrame
from bridle.core.plan.picture import Crop, Picture, Post
from bridle.core.plan.rig import Rig
from bridle.core.plan.rounds import PanoramaRow, Stations, StereoPair
from tests.strategies import RINGS, START, plan_of, ramp

HELD = {"rate": F(25), "frames": F(201), "interval": F(20)}
POST = Mark(name="post", form="post", x_mm=300, y_mm=2000, z_mm=0)
FROM = Keyframe(slide_mm=100, pan_deg=10, tilt_deg=2, focus_mm=900, zoom_mm=24)
TO = Keyframe(slide_mm=500, pan_deg=-30, tilt_deg=12, roll_deg=4, focus_mm=3000, zoom_mm=70)
# Half a second to wake, a tenth until the shutter opens, three exposures of a bracket two stops apart around two
# seconds at each focus position, dark frames, a second to merge and three to write.
FULL_BEAT = Beat(
    wake_s=F(1, 2), lag_s=F(1, 10), exposure_s=F(2), write_s=F(3), settle_s=F(1), merge_s=F(1),
    bracket_frames=3, bracket_step_stops=2.0, bracket_gap_s=F(1, 4), noise_reduction=True,
    stack=Stack(near_mm=300, far_mm=500, overlap=0.2),
)  # fmt: skip
# All axes but those of the lens; what the zoom changes is below.
FULL = plan_of(
    HELD,
    rig=Rig(axes=RINGS[:4]),
    move=Move(keyframes=(FROM, TO), marks=(POST,), ease_in_frames=20, ease_out_frames=40, live_s=F(60)),
    beat=FULL_BEAT,
    clock={"start_delay_s": F(12)},
)
# 200 steps, of which the eases take away half of sixty.
CRUISED = 200 - (20 + 40) / 2
HYPER = 35**2 / (8 * math.hypot(36, 24) / 1500) + 35
# Between two limits of sharpness 1/f less the reciprocal of the distance grows by this; a fifth of it overlaps.
AT_ONCE = math.log(HYPER / (HYPER - 70))
POSITIONS = 1 + math.ceil((math.log((1 / 35 - 1 / 500) / (1 / 35 - 1 / 300)) / AT_ONCE - 1) / 0.8)
BRACKET = (0.5 + 2 + 8) / 2
EXPOSED = 2 * BRACKET * POSITIONS
# The last dark frame alone comes after the last exposure; those before it lie between the exposures.
# Between focus positions it merges for 1 s and, having no buffer, writes for 3 s while the focus moves for 1 s.
GAPS = POSITIONS * 2 * 0.25 + (POSITIONS - 1) * (1 + 3) + (EXPOSED - 8)
MOVE = 2 * math.sqrt(400 / CRUISED / 80)
NEED = 0.5 + 0.1 + EXPOSED + GAPS + max(8 + 1 + 3, MOVE + 1)
CENTRE = 35 * 6000 / 36 * math.radians(1)
FIGURES: dict[str, float] = {
    "clip.shoot": 201 * 20,
    "clip.clip": 201 / 25,
    "clip.speed_up": 20 * 25,
    "clip.at.24": 201 / 24,
    "clip.at.24000/1001": 201 * 1.001 / 24,
    "time.first": START.timestamp(),
    "time.last": START.timestamp() + 200 * 20,
    "time.finish": START.timestamp() + 201 * 20,
    "time.press": START.timestamp() - 12,
    "time.errand.3": START.timestamp() - 12 - 300,
    "view.across": 2 * math.degrees(math.atan(18 / 35)),
    "view.upright": 2 * math.degrees(math.atan(12 / 35)),
    "move.slide.distance": 400,
    "move.slide.cruise": 400 / CRUISED,
    "move.pan.cruise": 40 / CRUISED,
    "move.tilt.cruise": 10 / CRUISED,
    "move.roll.cruise": 4 / CRUISED,
    "move.ease_in": 20 / 25,
    "move.ease_out": 40 / 25,
    "live.slide": 400 / CRUISED * 200 / 60,
    "live.pan": 40 / CRUISED * 200 / 60,
    "view.parallax": 35 * 6000 / 36 * 400 / 2000,
    "beat.bracket": BRACKET,
    "beat.exposures": EXPOSED,
    "beat.gaps": GAPS,
    "beat.processing": 8 + 1,
    "beat.hyperfocal": HYPER,
    "beat.positions": POSITIONS,
    "beat.move": MOVE,
    "beat.need": NEED,
    "beat.margin": 20 * 0.1,
    "beat.spare": 20 - NEED - 2,
    "beat.shortest": math.ceil(NEED / 0.9 * 10) / 10,
    "beat.still": 20 - MOVE - 2,
    "beat.share": EXPOSED / 20,
    "beat.longest_exposure": 8,
    "view.px_per_deg": CENTRE,
    "school.shoot-move-shoot.need": NEED,
    # Going on nothing waits for the rig: storing comes after the exposures, moving beside all of it.
    "school.continuous.need": 0.5 + 0.1 + EXPOSED + GAPS + 8 + 1 + 3,
    "school.continuous.on_site": 201 * math.ceil((0.6 + EXPOSED + GAPS + 12) / 0.9 * 10) / 10,
}


def told(plan: Plan) -> dict[str, Figure]:
    return evaluate(plan).figures


def lit(**beat: Any) -> Plan:
    """Two seconds in twenty, and nothing moves."""
    return plan_of(HELD, beat={"exposure_s": F(2), "write_s": F(1), "lag_s": F(0), **beat})


class OfAFullRig(TestCase):
    def test_each_is_that_of_a_pencil(self) -> None:
        figures = told(FULL)
        for key, value in FIGURES.items():
            with self.subTest(key):
                self.assertAlmostEqual(figures[key].value, value, delta=1e-9 * max(1.0, abs(value)))

    def test_the_shift_of_the_picture_is_that_of_its_axes(self) -> None:
        shift = told(FULL)["view.shift"]
        across = sum(term.value for term in shift.terms if term.symbol.endswith("_x"))
        up = sum(term.value for term in shift.terms if term.symbol.endswith("_y"))
        self.assertAlmostEqual(shift.value, math.hypot(across, up))
        names = {term.symbol[:-2] for term in shift.terms}
        # Pan against slide: what lies far behind the post passes by more, and the slide has no part in that.
        self.assertIn("far away", shift.label)
        self.assertEqual(names, {"pan", "tilt", "roll"})


# A plan, and the rule that one of its figures is told by: another rule for every way of shooting.
PAIR = Move(keyframes=(Keyframe(slide_mm=100), Keyframe(slide_mm=200)), visits=StereoPair(base_mm=50))
TURNED = Move(keyframes=(Keyframe(), Keyframe(slide_mm=90, when=OnFrame(frame=50)), Keyframe(slide_mm=30)))
RULES: tuple[tuple[str, Plan, str, str], ...] = (
    ("moving waits for storing", lit(), "beat.need",
     "wake + lag + exposures + gaps + max(processing + write, move + settle)"),
    ("storing first", lit(write_while_moving=False), "beat.need",
     "wake + lag + exposures + gaps + processing + write + move + settle"),
    ("nothing waits for the rig", lit(school="continuous"), "beat.need",
     "wake + lag + exposures + gaps + processing + write"),
    ("several places", plan_of(HELD, move=PAIR), "beat.need",
     "wake + visits * (lag + exposures + gaps) + between"),
    ("alike", lit(bracket_frames=3), "beat.bracket", "count"),
    ("its own times", lit(bracket_times_s=(F(1, 60), F(1, 15))), "beat.bracket", "(t1 + t2) / exposure"),
    ("the longest of its own", lit(bracket_times_s=(F(1, 60), F(1, 15))), "beat.longest_exposure", "max(t1, t2)"),
    ("stops apart", lit(bracket_frames=3, bracket_step_stops=1.0), "beat.bracket",
     "(2**(step * count) - 1) / (2**step - 1) / 2**(step * (count - 1) / 2)"),
    ("a short step", plan_of(HELD, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=200)))), "beat.move",
     "2 * sqrt(distance / acceleration)"),
    ("a long one", plan_of({**HELD, "frames": F(3)}, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=200)))),
     "beat.move", "distance / speed + speed / acceleration"),
    ("straight", FULL, "move.slide.distance", "abs(end - start)"),
    ("by way of a third", plan_of(HELD, move=TURNED), "move.slide.distance", "legs * (way_1 + way_2)"),
    ("at an even pace", FULL, "move.slide.cruise", "distance / (steps - (ease_in + ease_out) / 2)"),
    ("between two frames", plan_of(HELD, move=TURNED), "move.slide.cruise", "abs(next - this)"),
    ("a single frame", plan_of({**HELD, "frames": F(1)}), "move.slide.cruise", "0 * distance"),
    ("held", FULL, "clip.frames", "held"),
    ("follows", FULL, "clip.clip", "frames / rate"),
    ("by the start", FULL, "time.first", "held"),
    ("by the finish", plan_of(HELD, clock={"holds": "finish"}), "time.first", "finish - shoot"),
)  # fmt: skip


class Rules(TestCase):
    def test_each_way_of_shooting_is_told_by_its_own(self) -> None:
        for name, plan, key, expression in RULES:
            with self.subTest(name, key=key):
                self.assertEqual(told(plan)[key].expression, expression)

    def test_each_term_has_a_name_of_its_own(self) -> None:
        for figure in told(FULL).values():
            symbols = [term.symbol for term in figure.terms]
            self.assertEqual(len(set(symbols)), len(symbols), figure.key)
            self.assertTrue(all(term.label for term in figure.terms), figure.key)


class OfRounds(TestCase):
    def test_a_pair_needs_both_its_pictures_and_the_way_between_them(self) -> None:
        """50 mm there and 50 mm less half a millimetre back, each with its settling, beside two times of storing."""
        beat = Beat(wake_s=F(1), lag_s=F(1, 5), exposure_s=F(2), write_s=F(1), settle_s=F(1))
        figures = told(plan_of(HELD, move=PAIR, beat=beat))
        there = 50 / 25 + 25 / 80
        back = (50 - 100 / 200) / 25 + 25 / 80
        self.assertAlmostEqual(figures["beat.need"].value, 1 + 2 * (0.2 + 2) + there + 1 + back + 1)
        self.assertAlmostEqual(figures["beat.share"].value, 4 / 20)

    def test_a_row_has_as_many_pictures_as_its_sweep_asks_for(self) -> None:
        """54.4° across, of which a third overlaps: 36.3° from one to the next, so 180° take five."""
        row = PanoramaRow(sweep_deg=180, overlap=1 / 3)
        figures = told(plan_of(HELD, move=Move(visits=row)))
        view = 2 * math.degrees(math.atan(18 / 35))
        shots = 1 + math.ceil((180 - view) / (view * 2 / 3))
        self.assertEqual(figures["round.row"].value, shots)
        self.assertEqual(figures["round.pictures"].value, 201 * shots)
        self.assertAlmostEqual(figures["round.overlap"].value, 1 - (180 - view) / (shots - 1) / view)
        visits = next(term for term in figures["beat.need"].terms if term.symbol == "visits")
        self.assertEqual(visits.value, shots)

    def test_stations_are_gone_to_in_turn(self) -> None:
        stations = [{"name": "A", "slide_mm": 0}, {"name": "B", "slide_mm": 300}, {"name": "C", "slide_mm": 900}]
        visits = Stations.model_validate({"stations": stations})
        plan = plan_of({**HELD, "interval": F(200)}, move=Move(visits=visits), beat=Beat(settle_s=F(0), write_s=F(0)))
        between = next(term for term in told(plan)["beat.need"].terms if term.symbol == "between")
        # Three ways of constant acceleration to 25 mm/s: there, on, and all the way back.
        self.assertAlmostEqual(between.value, sum(way / 25 + 25 / 80 for way in (300, 600, 900)))


class OfThePicture(TestCase):
    def test_a_crop_is_a_move_with_less_headroom(self) -> None:
        post = Post(start=Crop(), end=Crop(width=0.5))
        figures = told(plan_of(HELD, move=Move(post=post), picture=Picture(width_px=3000)))
        self.assertEqual(figures["picture.headroom"].value, 6000 / 3000)
        self.assertEqual(figures["picture.tightest"].value, 6000 * 0.5)

    def test_upright_the_sides_change_places(self) -> None:
        lying, upright = told(plan_of(HELD)), told(plan_of(HELD, camera=Camera(upright=True)))
        self.assertEqual(lying["view.across"].value, upright["view.upright"].value)
        self.assertEqual(lying["view.upright"].value, upright["view.across"].value)

    def test_a_longer_lens_sees_less_and_smears_more(self) -> None:
        turn = Move(keyframes=(Keyframe(), Keyframe(pan_deg=20)))
        short, long = (told(plan_of(HELD, move=turn, camera=Camera(focal_mm=mm))) for mm in (35.0, 70.0))
        self.assertAlmostEqual(long["beat.smear.centre"].value, 2 * short["beat.smear.centre"].value)
        self.assertAlmostEqual(
            math.tan(math.radians(long["view.across"].value / 2)),
            math.tan(math.radians(short["view.across"].value / 2)) / 2,
        )

    def test_a_mark_that_is_followed_at_every_frame_stays_in_its_place(self) -> None:
        for across, share in (("left third", -1 / 6), ("centre", 0), ("right third", 1 / 6)):
            move = Move(
                keyframes=(Keyframe(slide_mm=100), Keyframe(slide_mm=500)),
                marks=(POST,),
                follow=Follow(across=across, every_frame=True),
            )
            evaluation = evaluate(plan_of(HELD, move=move))
            assert evaluation.view is not None
            pans = evaluation.view.poses["pan"].values
            # From a third of the width beside the axis the post is seen that much further round.
            aside = math.degrees(math.atan(share * 36 / 35))
            for slide, pan in ((100, pans[0]), (500, pans[-1])):
                self.assertAlmostEqual(pan, math.degrees(math.atan2(300 - slide, 2000)) - aside, 2)
            self.assertLess(evaluation.figures["track.error"].value, 1e-9)


class OfAnIntervalThatChanges(TestCase):
    def test_each_stretch_has_its_frames_and_all_add_up(self) -> None:
        plan = plan_of({"rate": F(25)}, clip={"frames": ramp((600, 10), (300, 5), (90, 2))})
        figures = told(plan)
        frames = [600 // 10, 300 // 5, 90 // 2]
        self.assertEqual(figures["clip.frames"].value, sum(frames))
        self.assertEqual([term.value for term in figures["clip.frames"].terms], frames)
        self.assertEqual(
            [term.label for term in figures["clip.frames"].terms], [f"frames of segment {n}" for n in (1, 2, 3)]
        )
        self.assertAlmostEqual(figures["clip.shoot"].value, 600 + 300 + 90)

    def test_the_tightest_beat_is_that_of_the_shortest_slot(self) -> None:
        plan = plan_of({"rate": F(25)}, clip={"frames": ramp((600, 10), (90, 2))}, beat=Beat(write_s=F(0)))
        beat = evaluate(plan).beat
        assert beat is not None
        self.assertEqual((beat.frame, beat.interval_s), (60, 2))
