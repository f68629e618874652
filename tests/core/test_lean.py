"""A pan that leans on purpose: what the camera sees, what is followed, what the card says; against another library."""

import math
from fractions import Fraction as F
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Across, Follow, Keyframe, Move
from bridle.core.plan.rig import Rig, Standing
from bridle.core.plan.rounds import PanoramaRow, Station, Stations
from bridle.core.reckon.poses import WANTED, see_mark
from bridle.core.reckon.sights import visited
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Lean, Poses
from bridle.formats.drive_program import program
from tests.core.test_card import card
from tests.strategies import RINGS, copies, fitted, leant, plan_of, shooting

HELD = {"rate": F(25), "frames": F(60), "interval": F(10)}
turns = st.floats(-170, 170)


def camera(pan: float, tilt: float, roll: float, lean: float, toward: float) -> Rotation:
    """From the camera's right, ahead and up to the scene's, as one joint sits on the other."""
    way = math.radians(toward)
    leans = Rotation.from_rotvec(np.radians(lean) * np.array([-math.cos(way), math.sin(way), 0]))
    pans, tilts, rolls = (
        Rotation.from_euler(axis, angle, degrees=True) for axis, angle in (("z", -pan), ("x", tilt), ("y", roll))
    )
    return leans * pans * tilts * rolls


def pose(pan: float, tilt: float, roll: float, lean: float, toward: float) -> Poses:
    pans, tilts, rolls = (np.array([angle]) for angle in (pan, tilt, roll))
    return Poses(np.zeros(1), np.zeros(1), pans, tilts, rolls, np.full(1, 35.0), Lean(lean, toward))


class Leaned(TestCase):
    @settings(max_examples=80)
    @given(turns, st.floats(-80, 80), st.floats(-40, 40), st.floats(0, 60), turns)
    def test_the_camera_is_where_its_joints_put_it(
        self, pan: float, tilt: float, roll: float, lean: float, toward: float
    ) -> None:
        """The top of the axis goes where the lean points, and everything on it with it."""
        at, turned = pose(pan, tilt, roll, lean, toward), camera(pan, tilt, roll, lean, toward)
        top, way = camera(0, 0, 0, lean, toward).apply([0, 0, 1]), math.radians(toward)
        self.assertAlmostEqual(float(top @ [math.sin(way), math.cos(way), 0]), math.sin(math.radians(lean)), 9)
        for point in ((300.0, 900.0, -50.0), (-2000.0, 400.0, 700.0)):
            right, ahead, up = turned.inv().apply(point)
            seen = projecting.turn(at, *point)
            np.testing.assert_allclose([seen.right[0], seen.ahead[0], seen.up[0]], [right, ahead, up], atol=1e-8)
        bearing, height, roll = (float(way[0]) for way in at.views)
        upright = camera(bearing, height, roll, 0, 0)
        np.testing.assert_allclose(upright.as_matrix(), turned.as_matrix(), atol=1e-8)

    def test_the_arc_has_its_figures_with_their_working(self) -> None:
        """Leaned 10° towards its zero: there it looks down by as much, square to it it rolls, behind it looks up."""
        move = Move(keyframes=(Keyframe(), Keyframe(pan_deg=90)))
        told = evaluate(plan_of(HELD, move=move, rig=Rig(axes=leant(10, axes=RINGS[:2])))).figures
        for key, wanted in {"start.height": -10, "start.roll": 0, "end.height": 0, "end.roll": -10, "arc": 10}.items():
            self.assertAlmostEqual(told[f"lean.{key}"].value, wanted, 9, key)
        upright = evaluate(plan_of(HELD, move=move)).figures
        self.assertEqual([key for key in upright if key.startswith("lean.")], [])

    @settings(max_examples=40)
    @given(
        st.floats(0, 40), turns, st.sampled_from(["left third", "centre", "right third"]), st.sampled_from([2, 3]),
        st.floats(-400, 900), st.sampled_from(["post", "bearing"]),
    )  # fmt: skip
    def test_what_is_followed_stays_in_its_place(
        self, lean: float, toward: float, across: Across, axes: int, high: float, form: str
    ) -> None:
        mark = Mark.model_validate(
            {
                "name": "post",
                "form": form,
                "x_mm": 600,
                "y_mm": 2500,
                "z_mm": high,
                "bearing_deg": 20,
                "altitude_deg": 9,
            }
        )
        move = Move(
            keyframes=(Keyframe(), Keyframe(slide_mm=800)),
            marks=(mark,),
            follow=Follow(across=across, every_frame=True),
        )
        wide = leant(lean, toward, RINGS[:axes])
        plan = plan_of(
            HELD,
            move=move,
            rig=Rig(axes=tuple(axis.model_copy(update={"low": -720.0, "high": 1000.0}) for axis in wide)),
        )
        known = shooting(plan)
        seen = see_mark(plan, known.poses, mark)
        np.testing.assert_allclose(seen.across() * 35 / 36, WANTED[across], atol=1e-9)
        if axes == 3 and across == "centre":
            np.testing.assert_allclose(seen.above(), 0, atol=1e-9)

    def test_a_row_and_stations_turn_about_the_leaned_axis(self) -> None:
        """And a station on a sloped rail stands as high as the rail is there."""
        rig = Rig(axes=leant(20, 0, RINGS[:3]), standing=Standing(slope_deg=10))
        row = plan_of(HELD, rig=rig, move=Move(visits=PanoramaRow(sweep_deg=120)))
        places = visited(row, shooting(row).poses)
        self.assertGreater(len(places), 2)
        for at in places:
            down = math.sin(math.radians(20)) * math.cos(math.radians(at.pan[0]))
            self.assertAlmostEqual(float(at.views[1][0]), -math.degrees(math.asin(down)), 9)
        station = Station(name="A", slide_mm=500, pan_deg=90, tilt_deg=0)
        plan = plan_of(HELD, rig=rig, move=Move(visits=Stations(stations=(station,))))
        (at,) = visited(plan, shooting(plan).poses)
        slope = math.radians(10)
        np.testing.assert_allclose([at.x[0], at.z[0]], [500 * math.cos(slope), 500 * math.sin(slope)])
        np.testing.assert_allclose([way[0] for way in at.views], [90, 0, -20], atol=1e-9)

    def test_the_card_the_program_and_the_preview_have_it(self) -> None:
        move = Move(keyframes=(Keyframe(), Keyframe(pan_deg=90)))
        plan = plan_of(HELD, move=move, rig=Rig(axes=leant(10, 30, RINGS[:2])))
        self.assertIn("leaned 10 degrees towards 30", "".join(program(plan)))
        told = evaluate(plan)
        assert told.view is not None
        rolls = told.view.poses["roll"].values
        self.assertEqual((round(rolls[0], 2), round(rolls[-1], 2)), self._rolls(plan))
        self.assertIn("leaned by 10°, its top towards its own 30°", card(plan)["On the rig, before framing"].values())

    def _rolls(self, plan: Plan) -> tuple[float, float]:
        """By the rotation library, at both ends."""
        made = []
        for pan in (0.0, 90.0):
            right, _, up = camera(pan, 0, 0, 10, 30).apply(np.eye(3))
            made.append(round(math.degrees(math.atan2(-right[2], up[2])), 2))
        return made[0], made[1]


class OnItsAxis(TestCase):
    def test_how_an_axis_stands_outlasts_the_cards_that_are_put_on_and_off(self) -> None:
        """A head that leans, hangs and has a letter of its own is put onto another tripod."""
        axes = tuple(axis.model_copy(update={"hung": True, "letter": "C"}) for axis in leant(10, 30, RINGS[1:2]))
        standing = plan_of(HELD, rig=Rig(axes=axes))
        for names in (("tripod", "pan-head"), ("light-tripod", "pan-head", "full-frame-body")):
            standing = fitted(standing, copies(*names))
            pan = standing.rig.axis("pan")
            assert pan is not None
            stands = (pan.lean_deg, pan.lean_toward_deg, pan.hung, pan.letter)
            self.assertEqual(stands, (10, 30, True, "C"), names)


class OnASlope(TestCase):
    """A pan on a sloped rail: nobody has said how it stands, until somebody does."""

    def told(self, plan: Plan) -> list[str]:
        return [snag.code for snag in evaluate(plan).snags if snag.chapter == "rig"]

    def test_each_answer_is_what_is_planned_then(self) -> None:
        for slope, downhill in ((12.0, -90.0), (-12.0, 90.0)):
            plan = plan_of(HELD, rig=Rig(standing=Standing(slope_deg=slope)), move=Move())
            (snag,) = [snag for snag in evaluate(plan).snags if snag.code == "pan-on-slope"]
            leaning, upright = (apply(plan, fix.edits)[0] for fix in snag.fixes)
            self.assertEqual([self.told(after) for after in (leaning, upright)], [[], []])
            # Square to the rail the camera rolls with it: to the left where the rail rises to the right.
            self.assertAlmostEqual(self.roll(leaning), -slope, 9)
            self.assertEqual(self.roll(upright), 0)
            pan = leaning.rig.axis("pan")
            assert pan is not None
            self.assertEqual(pan.lean_toward_deg, downhill)

    def test_a_level_rail_and_a_turntable_without_one_are_not_asked(self) -> None:
        for rig in (Rig(), Rig(axes=RINGS[1:2], standing=Standing(slope_deg=12))):
            self.assertNotIn("pan-on-slope", self.told(plan_of(HELD, rig=rig)))

    def roll(self, plan: Plan) -> float:
        rolls: Floats = shooting(plan).poses.views[2]
        return float(rolls[0])
