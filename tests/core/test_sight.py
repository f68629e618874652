# ruff: noqa: E501
"""What the lens makes of a move: shift and smear at any place of the picture, against a camera of rotation matrices."""

import math
import re
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat, Stack
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Follow, Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.core.plan.rounds import PanoramaRow, Stations, StereoPair
from bridle.core.reckon.passing import CENTRE, CORNERS, EDGES, PLACES
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.sky import mask
from bridle.core.snag import fill
from bridle.core.subjects.numbers.arrays import Floats
from tests.provoked import fixes_work, sunny
from tests.strategies import RINGS, copies, fitted, plan_of, ramp, shooting

HELD = {"rate": F(25), "frames": F(301), "interval": F(10)}
W, H, PX = 36.0, 24.0, 6000


def moved(*keys: Keyframe, marks: tuple[Mark, ...] = (), axes: Any = RINGS, held: Any = HELD, **more: Any) -> Plan:
    return plan_of(held, rig=Rig(axes=axes), move=Move(keyframes=keys, marks=marks, **more))


def looking(pan: float, tilt: float, roll: float) -> Floats:
    """The camera's right, up and ahead as rows, in a scene of x along the rail, y away from it, z upwards."""
    p, t, r = (math.radians(angle) for angle in (pan, tilt, roll))
    ahead = np.array([math.sin(p) * math.cos(t), math.cos(p) * math.cos(t), math.sin(t)])
    right = np.array([math.cos(p), -math.sin(p), 0.0])
    up = np.cross(right, ahead)
    return np.array([right * math.cos(r) - up * math.sin(r), right * math.sin(r) + up * math.cos(r), ahead])


def px_between(known: Shooting, step: int, place: str, depth: float) -> float:
    """How far a thing at a place of the picture and a distance ahead moves to the next frame, in pixels."""
    at = known.poses
    right, up = (PLACES | EDGES)[place]
    focal, after = float(at.focal[step]), float(at.focal[step + 1])
    ray = np.array([right * W / 2 / focal, up * H / 2 / focal, 1.0])
    here, there = (looking(float(at.pan[n]), float(at.tilt[n]), float(at.roll[n])) for n in (step, step + 1))
    thing = here.T @ ray * depth + np.array([float(at.x[step]), 0.0, float(at.z[step])])
    seen = there @ (thing - np.array([float(at.x[step + 1]), 0.0, float(at.z[step + 1])]))
    before, now = ray[:2] * focal, seen[:2] / seen[2] * after
    return float(np.hypot(*(now - before)) * PX / W)


keys = st.builds(
    Keyframe,
    slide_mm=st.floats(0, 900), pan_deg=st.floats(-60, 60), tilt_deg=st.floats(-40, 50), roll_deg=st.floats(-15, 15),
    zoom_mm=st.floats(18, 200),
)  # fmt: skip


class Shifts(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(keys, keys, st.integers(0, 299), st.floats(1500, 20_000), st.sampled_from([*PLACES, *EDGES]))
    def test_any_step_at_any_place_is_what_a_camera_of_matrices_sees(
        self, first: Keyframe, last: Keyframe, step: int, away: float, place: str
    ) -> None:
        known = shooting(moved(first, last, marks=(Mark(name="post", x_mm=-90_000, y_mm=away),)))
        # The post stands outside of every picture: things are taken to be as far ahead as it is off the rail.
        assume(not known.seeing[0].inside.any())
        told, wanted = known.shift.at(step, place).px, px_between(known, step, place, away)
        self.assertAlmostEqual(told, wanted, delta=0.02 * max(1.0, wanted))

    @settings(max_examples=40, deadline=None)
    @given(keys, keys)
    def test_the_worst_place_is_the_worst_of_all(self, first: Keyframe, last: Keyframe) -> None:
        shift = shooting(moved(first, last, marks=(Mark(name="post", y_mm=4000),))).shift
        worst = shift.place(shift.worst)
        self.assertAlmostEqual(worst.px, shift.most, delta=1e-6 * max(1.0, shift.most))
        for name in PLACES:
            self.assertLessEqual(shift.at(shift.worst, name).px, shift.most + 1e-6)
        self.assertLessEqual(float((shift.centre - shift.px).max()), 1e-9)

    def test_what_lies_behind_a_followed_mark_passes_by_the_turning_alone(self) -> None:
        """The head takes back what the carriage does to the mark, and turns the horizon by as much."""
        post = Mark(name="post", x_mm=450, y_mm=2000)
        plan = moved(Keyframe(), Keyframe(slide_mm=900), marks=(post,), axes=RINGS[:2], follow=Follow(every_frame=True))
        shift = shooting(plan).shift
        near, far = shift.at(150, CENTRE).px, shift.at(150, f"{CENTRE}, far away").px
        self.assertLess(near, 0.01 * far)
        self.assertAlmostEqual(far, 3 / 2000 * 35 * PX / W, 2)
        self.assertAlmostEqual(float(shift.centre[150]), far, 6)
        self.assertIn("far away", shift.place(150).name)

    def test_a_tilt_is_judged_by_its_height(self) -> None:
        """Half the height over the focal length, and in the corner half the width beside it."""
        known = shooting(moved(Keyframe(), Keyframe(tilt_deg=30)))
        step = math.radians(0.1) * 35 * PX / W
        u, v = 18 / 35, 12 / 35
        self.assertAlmostEqual(known.shift.at(0, CENTRE).px, step, 3)
        self.assertAlmostEqual(known.shift.at(0, "upper edge").px, step * (1 + v * v), 3)
        self.assertAlmostEqual(known.shift.most, step * math.hypot(1 + v * v, u * v), 3)
        self.assertIn(known.shift.place(0).name, CORNERS)

    def test_a_tilt_that_strobes_is_told(self) -> None:
        """At the centre just under 1.2 % of the width a frame, and above it in the corners."""
        short = {"rate": F(25), "frames": F(31), "interval": F(10)}
        plan = moved(Keyframe(tilt_deg=-10), Keyframe(tilt_deg=10.8), held=short)
        known = shooting(plan)
        self.assertLess(float(known.shift.centre.max()), 0.012 * PX)
        self.assertIn("move-strobes", {snag.code for snag in evaluate(plan).snags})

    def test_with_a_zoom_each_frame_has_its_own_scale(self) -> None:
        """The same pan at 24 and at 72 mm: three times as far, at the end of the move."""
        known = shooting(moved(Keyframe(zoom_mm=24), Keyframe(zoom_mm=72, pan_deg=30)))
        first, last = (known.shift.at(step, CENTRE).parts["pan"][0] for step in (0, 299))
        focal = known.poses.focal
        self.assertAlmostEqual(last / first, float(focal[299] / focal[0]), 6)
        self.assertGreater(last / first, 2.8)
        self.assertEqual(known.shift.worst, 299)

    def test_the_nearest_mark_in_the_picture_is_what_passes(self) -> None:
        """Straight ahead it lies as far away as it stands off the rail, aside further; what nobody sees does not count."""
        near, far = Mark(name="near", x_mm=450, y_mm=2000), Mark(name="far", x_mm=450, y_mm=8000)
        ahead = shooting(moved(Keyframe(slide_mm=440), Keyframe(slide_mm=460), marks=(near, far)))
        self.assertAlmostEqual(ahead.shift.most, 20 / 300 * 35 * PX / W / 2000, 6)
        looks = Keyframe(slide_mm=440, pan_deg=50), Keyframe(slide_mm=460, pan_deg=50)
        post = Mark(name="aside", x_mm=450 + 3000 * math.tan(math.radians(50)), y_mm=3000)
        aside = shooting(moved(*looks, marks=(post,)))
        away = 3000 / math.cos(math.radians(50))
        # The rail runs aside of the view: across it only the cosine of the pan is seen.
        along = math.cos(math.radians(50)) * 20 / 300 * 35 * PX / W / away
        self.assertAlmostEqual(aside.shift.at(150, CENTRE).px, along, 2)


class Smears(TestCase):
    def smear(self, plan: Plan) -> dict[str, float]:
        return {key: figure.value for key, figure in evaluate(plan).figures.items() if key.startswith("beat.smear")}

    def going(self, *keys: Keyframe, exposure: F = F(2), **more: Any) -> Plan:
        beat = Beat(school="continuous", exposure_s=exposure)
        return moved(*keys, **more).model_copy(update={"beat": beat})

    def test_it_is_the_shift_of_the_slot_for_as_long_as_the_shutter_is_open(self) -> None:
        plan = self.going(Keyframe(zoom_mm=24), Keyframe(zoom_mm=70, pan_deg=30, tilt_deg=8))
        shift, told = shooting(plan).shift, self.smear(plan)
        self.assertAlmostEqual(told["beat.smear"], shift.most * 2 / 10)
        self.assertAlmostEqual(told["beat.smear.centre"], float(shift.centre.max()) * 2 / 10)
        self.assertLess(told["beat.smear.centre"], told["beat.smear.edge"])
        self.assertLess(told["beat.smear.edge"], told["beat.smear"])

    def test_looking_aside_and_up_a_pan_smears_less(self) -> None:
        """About the vertical: at the centre by the cosine of the tilt."""
        level, steep = (
            self.smear(self.going(Keyframe(tilt_deg=tilt), Keyframe(pan_deg=30, tilt_deg=tilt))) for tilt in (0, 60)
        )
        self.assertAlmostEqual(steep["beat.smear.centre"], level["beat.smear.centre"] * 0.5, 6)

    def test_without_a_mark_the_smear_of_a_carriage_is_not_known_and_is_asked_for(self) -> None:
        plan = self.going(Keyframe(), Keyframe(slide_mm=300, pan_deg=10))
        told = evaluate(plan)
        self.assertEqual([school.smear_px for school in told.schools], [0, None])
        self.assertNotIn("beat.smear", told.figures)
        self.assertIn("not known", told.schools[1].risk)
        self.assertIn("smear-unknown", {snag.code for snag in told.snags})
        for still in (self.going(Keyframe(), Keyframe(pan_deg=10)), self.going(Keyframe(), Keyframe())):
            self.assertNotIn("smear-unknown", {snag.code for snag in evaluate(still).snags})

    def test_a_camera_that_stands_still_is_told_no_shift_and_no_smear(self) -> None:
        told = evaluate(self.going(Keyframe(), Keyframe(), axes=())).figures
        self.assertFalse([key for key in told if key.startswith(("view.shift", "beat.smear"))])

    def test_in_a_shorter_slot_more_of_the_shift_is_smeared(self) -> None:
        move = Move(keyframes=(Keyframe(), Keyframe(pan_deg=30)))
        beat = Beat(school="continuous", exposure_s=F(1))
        plan = plan_of({"rate": F(25)}, clip={"frames": ramp((1000, 10), (500, 5))}, move=move, beat=beat)
        shift = shooting(plan).shift
        self.assertAlmostEqual(self.smear(plan)["beat.smear"], shift.most * 1 / 5)


class Crossing(TestCase):
    def test_a_pan_is_across_when_it_has_turned_by_its_view(self) -> None:
        """Not at the pace of its edge: 54.4° at a third of a degree a frame."""
        short = {"rate": F(25), "frames": F(31), "interval": F(10)}
        plan = moved(Keyframe(), Keyframe(pan_deg=20), held=short)
        snag = next(snag for snag in evaluate(plan).snags if snag.code in ("move-quick", "move-strobes"))
        view = 2 * math.degrees(math.atan(18 / 35))
        cross = snag.slots["cross"].value
        assert isinstance(cross, float)
        self.assertAlmostEqual(cross, view / (20 / 30) / 25, delta=0.01)

    def test_a_tilt_is_over_when_it_has_turned_by_its_height(self) -> None:
        short = {"rate": F(25), "frames": F(31), "interval": F(10)}
        known = shooting(moved(Keyframe(tilt_deg=-10), Keyframe(tilt_deg=20), held=short))
        high = 2 * math.degrees(math.atan(12 / 35))
        self.assertAlmostEqual(known.shift.crossing_frames(known.shift.worst) or 0, high / (30 / 30), delta=0.02)

    def test_nothing_gets_across_a_picture_that_only_turns_or_grows(self) -> None:
        for last in (Keyframe(roll_deg=15), Keyframe(zoom_mm=70)):
            known = shooting(moved(Keyframe(), last))
            self.assertIsNone(known.shift.crossing_frames(known.shift.worst))


class Followed(TestCase):
    """A mark that is followed: beside its place, in its height, and out of the picture."""

    def track(self, *keys: Keyframe, mark: Mark, every: bool = False) -> tuple[dict[str, float], dict[str, Any]]:
        plan = moved(*keys, marks=(mark,), axes=RINGS[:3], follow=Follow(every_frame=every))
        told = evaluate(plan)
        figures = {key: figure.value for key, figure in told.figures.items() if key.startswith("track.")}
        return figures, {snag.code: snag for snag in told.snags}

    def test_how_far_it_rises_is_told(self) -> None:
        """A post a metre above the lens, from straight ahead at two metres to 60° aside at four: half as high."""
        post = Mark(name="post", x_mm=0, y_mm=2000, z_mm=500)
        aside = 2000 * math.tan(math.radians(23))
        keys = Keyframe(), Keyframe(slide_mm=aside, pan_deg=-23)
        figures, snags = self.track(*keys, mark=post)
        # Ahead along the axis it is further away by the cosine.
        drop = 35 * 500 / 2000 * (1 - math.cos(math.radians(23)))
        self.assertAlmostEqual(figures["track.height"], drop / 36, 6)
        self.assertNotIn("mark-leaves", snags)

    def test_above_the_picture_it_is_not_tracked(self) -> None:
        post = Mark(name="post", x_mm=300, y_mm=2000, z_mm=1500)
        figures, snags = self.track(Keyframe(pan_deg=8.53), Keyframe(slide_mm=600, pan_deg=-8.53), mark=post)
        self.assertLess(figures["track.error"], 0.005)
        self.assertEqual(snags["mark-leaves"].slots["way"].value, "above it")
        self.assertNotIn("mark-drifts", snags)
        labels = [fix.label for fix in snags["mark-leaves"].fixes]
        self.assertIn("Follow it at every frame", labels)

    def test_with_a_tilt_at_every_frame_it_stays(self) -> None:
        post = Mark(name="post", x_mm=300, y_mm=2000, z_mm=1500)
        figures, snags = self.track(Keyframe(), Keyframe(slide_mm=600), mark=post, every=True)
        self.assertLess(max(figures.values()), 1e-6)
        self.assertNotIn("mark-leaves", snags)


class Lenses(TestCase):
    """What depends on how long the lens gets takes it as long as it gets."""

    def zoomed(self, *focal: float, **more: Any) -> Plan:
        return moved(*(Keyframe(zoom_mm=mm, slide_mm=100 * n) for n, mm in enumerate(focal)), **more)

    def test_fields_of_view_of_both_ends(self) -> None:
        told = evaluate(self.zoomed(24, 70)).figures
        for key, focal, side in (
            ("view.across", 24, 18), ("view.upright", 24, 12), ("view.across.narrowest", 70, 18), ("view.upright.narrowest", 70, 12),
        ):  # fmt: skip
            self.assertAlmostEqual(told[key].value, 2 * math.degrees(math.atan(side / focal)))
        self.assertNotIn("view.across.narrowest", evaluate(self.zoomed(50, 50)).figures)

    def test_a_row_has_enough_pictures_where_the_view_is_narrowest(self) -> None:
        row = PanoramaRow(sweep_deg=120, overlap=0.3)
        counts = [
            evaluate(self.zoomed(*ends, visits=row)).figures["round.row"].value
            for ends in ((24, 24), (70, 70), (24, 70), (70, 24))
        ]
        self.assertEqual(counts[1:], [counts[1]] * 3)
        self.assertGreater(counts[1], counts[0])

    def test_pixels_a_degree_and_a_step_are_told_at_the_longest(self) -> None:
        plan = fitted(
            plan_of(HELD, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=20)))), copies("tripod", "pan-head")
        )
        zoom = plan.model_copy(update={"rig": plan.rig.model_copy(update={"axes": (*plan.rig.axes, RINGS[5])})})
        keys = (Keyframe(zoom_mm=24), Keyframe(zoom_mm=70, pan_deg=20))
        zoom = zoom.model_copy(update={"move": Move(keyframes=keys)})
        before, after = evaluate(plan).figures, evaluate(zoom).figures
        for key in ("view.px_per_deg", "drive.pan.step_px"):
            self.assertAlmostEqual(after[key].value, before[key].value * 70 / 35, msg=key)

    def test_a_focus_stack_is_as_fine_as_the_longest_lens_asks_for(self) -> None:
        beat = Beat(exposure_s=F(1), stack=Stack(near_mm=600, far_mm=900))
        counts = []
        for ends in ((24.0, 70.0), (70.0, 70.0), (24.0, 24.0)):
            plan = self.zoomed(*ends).model_copy(update={"beat": beat})
            counts.append(evaluate(plan).figures["beat.positions"].value)
        self.assertEqual(counts[0], counts[1])
        self.assertGreater(counts[0], counts[2])

    def test_near_passes_far_at_the_length_the_lens_has_on_the_way(self) -> None:
        post = Mark(name="post", x_mm=50, y_mm=2000)
        even = evaluate(self.zoomed(24, 72, marks=(post,))).figures["view.parallax"]
        focal = next(term.value for term in even.terms if term.symbol == "focal")
        self.assertTrue(24 < focal < 72)
        self.assertAlmostEqual(even.value, focal * PX / W * 100 / 2000)

    def test_the_card_says_that_it_zooms(self) -> None:
        def focal(plan: Plan) -> Any:
            rows = [row for sheet in evaluate(plan).review.sheets for row in sheet.settings]
            return next(row.value.value for row in rows if row.label == "focal length")

        self.assertEqual(focal(self.zoomed(24, 70)), "24 to 70 mm, as it zooms")
        self.assertEqual(focal(self.zoomed(50, 50)), 50)


class Rounds(TestCase):
    """A mark that one picture of a round has is in the picture."""

    def sights(self, visits: Any, pan: float = 0.0) -> tuple[tuple[int, ...], ...]:
        cue = Mark(name="door", form="person", x_mm=3000, y_mm=3000, cue=True)
        plan = moved(Keyframe(pan_deg=pan), Keyframe(pan_deg=pan), marks=(cue,), visits=visits)
        evaluation = evaluate(plan)
        assert evaluation.view is not None
        runs = evaluation.view.sights[0].runs
        self.assertEqual("cue-never-seen" in {snag.code for snag in evaluation.snags}, not runs)
        return runs

    def test_a_row_sees_what_lies_beside_its_middle(self) -> None:
        self.assertEqual(self.sights(None), ())
        self.assertEqual(self.sights(PanoramaRow(sweep_deg=150)), ((0, 300),))

    def test_stations_see_what_any_of_them_sees(self) -> None:
        def stations(*pans: float) -> Stations:
            each = [{"name": str(n), "pan_deg": pan} for n, pan in enumerate(pans)]
            return Stations.model_validate({"stations": each})

        self.assertEqual(self.sights(stations(-30, 45)), ((0, 300),))
        self.assertEqual(self.sights(stations(-30, -50)), ())

    def test_one_eye_of_a_pair_is_enough(self) -> None:
        """27.2° of half a view: 45° off, seen from 17.8° of pan on; a base of a metre moves that by some degrees."""
        edge = 45 - math.degrees(math.atan(18 / 35))
        self.assertEqual(self.sights(None, pan=edge - 2), ())
        self.assertEqual(self.sights(StereoPair(base_mm=900), pan=edge - 2), ((0, 300),))


class RigInView(TestCase):
    def test_looking_up_is_offered_only_where_the_rig_is_out_of_the_picture_then(self) -> None:
        """A head that follows something beside the picture's middle turns otherwise when the camera looks up."""
        post = Mark(name="post", x_mm=0, y_mm=700, z_mm=2000)
        move = Move(
            keyframes=(Keyframe(tilt_deg=-20), Keyframe(slide_mm=900, tilt_deg=-20)),
            marks=(post,),
            follow=Follow(across="right third", every_frame=True),
        )
        plan = plan_of({**HELD, "frames": F(31)}, move=move, camera={"focal_mm": 20})
        found = [snag for snag in evaluate(plan).snags if snag.code == "rig-in-picture"]
        self.assertTrue(found)
        for snag in found:
            fixes_work(self, plan, snag)

    def test_turning_the_rail_is_not_offered_to_a_head_that_follows_a_bearing(self) -> None:
        """It looks at the same bearing however the rail lies, and the camera's shadow with it."""
        west = Mark(name="church", form="bearing", bearing_deg=275)
        move = Move(keyframes=(Keyframe(), Keyframe()), marks=(west,), follow=Follow(every_frame=True))
        plan = plan_of(HELD, move=move, rig=Rig(normal_bearing_deg=275), clock={"at": "2026-09-27T08:10+01:00"})
        place = plan.shoot.place.model_copy(update={"latitude_deg": 57.32, "longitude_deg": -6.18})
        plan = plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place})})
        found = [snag for snag in evaluate(plan).snags if snag.code == "own-shadow"]
        self.assertTrue(found)
        for snag in found:
            fixes_work(self, plan, snag)
            self.assertNotIn("Turn the rail to face {bearing}", [fix.label for fix in snag.fixes])


class SunAtAnotherTime(TestCase):
    """The shoot is moved away from the sun only as far as what it is shot for stays in it."""

    def test_what_is_shot_stays_in_the_shoot(self) -> None:
        """An hour from 08:00 with the sun in the picture at first: by itself a shoot later would do."""
        for bells, moved in (((), True), (("09:30",), True), (("08:55",), True), (("08:10",), False)):
            events = [{"name": "bell", "at": f"2026-09-27T{at}+00:00"} for at in bells]
            plan, _ = apply(sunny(90, 0, at="2026-09-27T08:00+00:00"), [Edit(path="shoot.clock.events", value=events)])
            (snag,) = [snag for snag in evaluate(plan).snags if snag.code == "sun-in-picture"]
            by = [(fix.slots["by"].value, fix.slots["way"].value) for fix in snag.fixes if "by} {way" in fix.label]
            self.assertEqual(by, [(1800, "later")] if moved else [], bells)
            fixes_work(self, plan, snag)


class SunAgain(TestCase):
    """Every stretch in which the sun stands in the picture, not the first alone."""

    def said(self, frames: int, interval: int, at: str = "2026-09-27T05:00+01:00", bearing: float = 100) -> str:
        held = {"rate": F(25), "frames": F(frames), "interval": F(interval)}
        move = Move(keyframes=(Keyframe(tilt_deg=5), Keyframe(tilt_deg=5)))
        plan = plan_of(held, move=move, rig=Rig(normal_bearing_deg=bearing), clock={"at": at})
        place = plan.shoot.place.model_copy(update={"latitude_deg": 57.32, "longitude_deg": -6.18})
        plan = plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place})})
        (snag,) = [snag for snag in evaluate(plan).snags if snag.code == "sun-in-picture"]
        self._frames(plan, fill(snag.what, snag.slots))
        return fill(snag.what, snag.slots)

    def _frames(self, plan: Plan, said: str) -> None:
        """The frames that are named are those at which the almanac has the sun within half the view, and up."""
        known = shooting(plan)
        assert known.sun is not None
        inside = mask("sun", plan, known.poses, known.sun)
        numbers = [
            int(number) for number in re.findall(r"(?<=frame |rames |.. to )\d+", said.replace("frame ", "  frame "))
        ]
        for number in numbers:
            self.assertTrue(inside[number - 1], said)

    def test_two_mornings_are_told_one_by_one(self) -> None:
        self.assertRegex(self.said(250, 900), r"to frame \d+; again in frames \d+ to \d+ and \d+ to \d+\.$")

    def test_a_week_of_mornings_is_told_as_that(self) -> None:
        said = self.said(700, 900)
        self.assertRegex(said, r"; again every day until 4 October, 8 times in all, the last in frames \d+ to \d+\.$")

    def test_a_week_into_another_year_says_which(self) -> None:
        said = self.said(700, 900, at="2026-12-28T05:00+00:00", bearing=150)
        self.assertRegex(
            said, r"; again every day until \d January 2027, \d times in all, the last in frames \d+ to \d+\.$"
        )

    def test_a_single_morning_is_all_there_is(self) -> None:
        self.assertRegex(self.said(40, 900), r"to frame \d+\.$")
