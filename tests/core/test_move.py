"""The move: worked examples, and what must hold for any path, any mark and any picture."""

import math
from datetime import UTC, datetime
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import ephem
import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator

from bridle.core.asks.changes import AddKeyframe, AimAt, make
from bridle.core.chapters.beat.ring import parts_of
from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.marks import Aimed, Mark
from bridle.core.plan.move import Follow, Keyframe, Move, OnClip, OnFrame
from bridle.core.plan.picture import Crop, Picture, Post
from bridle.core.plan.rig import Axis, Rig, Standing
from bridle.core.plan.rounds import PanoramaRow, Station, Stations, StereoPair
from bridle.core.reckon import travel
from bridle.core.reckon.crops import rectangles
from bridle.core.reckon.path import at as stands_at
from bridle.core.reckon.path import reach
from bridle.core.reckon.picture import kept
from bridle.core.snag import fill
from bridle.core.subjects.light import sky
from bridle.core.subjects.motion import easing, tracking
from bridle.core.subjects.motion.easing import fit_ease
from bridle.core.subjects.numbers import monotone
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import cropping, panorama, projecting, rings
from bridle.core.subjects.optics.projecting import Poses
from tests.strategies import RINGS, moves, plan_of, shooting
from tests.workings import worked_out

THREE = {"rate": F(25), "frames": F(420), "interval": F(10)}
POST = Mark(name="post", x_mm=1000, y_mm=1500)
WIDE = Rig(
    axes=(
        Axis(name="slide", kind="linear", low=-1000, high=2000, top_speed=25, acceleration=80, backlash=0.5),
        Axis(name="pan", kind="rotary", low=-300, high=300, top_speed=20, acceleration=40, backlash=0.1),
        Axis(name="tilt", kind="rotary", low=-90, high=90, top_speed=20, acceleration=40),
    )
)


def places(plan: Plan) -> dict[str, Floats]:
    return shooting(plan).positions


def following(*keys: Keyframe, mark: Mark = POST, **more: Any) -> Plan:
    move = Move(keyframes=keys, marks=(mark,), follow=Follow(**more))
    return plan_of(THREE, move=move, rig=WIDE)


class WorkedExamples(TestCase):
    def test_s_curve(self) -> None:
        x = 840 * easing.progress(419, fit_ease(48, 72, 419, "s-curve"))
        for frame, wanted in ((12, 1.5355), (24, 10.5292), (48, 56.156), (383, 824.206)):
            self.assertAlmostEqual(x[frame], wanted, 3 if frame > 24 else 4)
        # One and a half times the peak acceleration of the other curve.
        plain = 840 * easing.progress(419, fit_ease(48, 72, 419))
        self.assertAlmostEqual(np.diff(x, n=2)[:48].max() / np.diff(plain, n=2)[10:40].max(), 1.5, 2)

    def test_a_plain_pan_drifts_off_and_keyframes_bring_it_back(self) -> None:
        plan = following(Keyframe(pan_deg=33.690), Keyframe(slide_mm=800, pan_deg=7.595))
        told = evaluate(plan)
        error = told.figures["track.error"]
        self.assertAlmostEqual(error.value * 100, 1.97, 2)
        at = places(plan)
        frame = int(next(s for s in told.snags if s.code == "mark-drifts").slots["frame"].value) - 1
        self.assertAlmostEqual(at["slide"][frame], 380, delta=4)
        self.assertAlmostEqual(
            abs(at["pan"][frame] - tracking.aim(1000 - at["slide"], np.full(len(at["slide"]), 1500.0))[frame]), 1.162, 3
        )
        one, every, let_go = next(s for s in told.snags if s.code == "mark-drifts").fixes
        self.assertEqual([fill(f.label, f.slots) for f in (one, every)], ["Add 1 keyframe", "Follow it at every frame"])
        better = evaluate(apply(plan, one.edits)[0])
        self.assertAlmostEqual(better.figures["track.error"].value * 100, 0.12, 2)
        self.assertLess(evaluate(apply(plan, every.edits)[0]).figures["track.error"].value, 1e-9)
        self.assertNotIn("track.error", evaluate(apply(plan, let_go.edits)[0]).figures)

    def test_aiming_twice(self) -> None:
        found = tracking.aimed_twice(0, 800, 33.690, 7.595, 0.5)
        self.assertEqual([round(v) for v in (found.x_mm, found.y_mm)], [1000, 1500])
        self.assertEqual([round(v) for v in (*found.away_mm, *found.along_mm)], [1442, 1563, 979, 1022])
        for first, second in ((10, 9.5), (7.6, 33.7), (89.8, 10)):
            with self.assertRaises(ValueError):
                tracking.aimed_twice(0, 800, first, second, 0.5)

    def test_aiming_twice_tells_between_what_it_stands_both_ways(self) -> None:
        aimed = Aimed(slide_1_mm=0, pan_1_deg=33.690, slide_2_mm=800, pan_2_deg=7.595)
        mark = Mark(name="post", form="post", x_mm=1000, y_mm=1500, aimed=aimed)
        told = evaluate(plan_of(THREE, move=Move(marks=(mark,)))).figures
        self.assertEqual(
            {name: round(told[f"aimed.0.{name}"].value) for name in ("near", "far", "left", "right")},
            {"near": 1442, "far": 1563, "left": 979, "right": 1022},
        )
        for name in ("near", "far", "left", "right"):
            self.assertAlmostEqual(worked_out(told[f"aimed.0.{name}"]), told[f"aimed.0.{name}"].value, 6)

    def test_the_exposure_that_smears_half_a_pixel_does_just_that(self) -> None:
        turn = Move(keyframes=(Keyframe(), Keyframe(pan_deg=40)))
        beat = Beat(school="continuous", exposure_s=F(1, 2))
        told = evaluate(plan_of(THREE, move=turn, beat=beat)).figures["beat.smear.half"]
        self.assertAlmostEqual(worked_out(told), told.value)
        short = beat.model_copy(update={"exposure_s": F(told.value)})
        self.assertAlmostEqual(evaluate(plan_of(THREE, move=turn, beat=short)).figures["beat.smear"].value, 0.5)

    def test_smear_of_a_pan_that_runs_through(self) -> None:
        turn = Move(keyframes=(Keyframe(), Keyframe(pan_deg=40)))
        # Forty degrees in the fifty minutes from the first frame to the last.
        held = {"rate": F(25), "frames": F(301), "interval": F(10)}
        for exposure, centre, edge in ((2, 1.86, 2.91), (F(1, 2), 0.47, None)):
            beat = Beat(school="continuous", exposure_s=F(exposure))
            figures = evaluate(plan_of(held, move=turn, beat=beat, camera={"focal_mm": 24})).figures
            self.assertAlmostEqual(figures["beat.smear.centre"].value, centre, 2)
            if edge:
                self.assertAlmostEqual(figures["beat.smear.edge"].value, edge, 2)

    def test_levelling(self) -> None:
        self.assertAlmostEqual(cropping.largest(6000, 4000, 6000, 4000, 2.0)[0] / 6000, 0.9508, 4)
        frame = kept(plan_of(THREE, picture=Picture(level_deg=2)))
        self.assertEqual((frame.width_px, frame.height_px), (5704, 3802))

    def test_a_levelled_picture_of_another_shape_is_the_largest_within_the_turned_one(self) -> None:
        """6000 × 4000 turned by 2°, as 16:9: 6000/(16·cos + 9·sin) across, and not a crop of a crop."""
        plan = plan_of(THREE, picture=Picture(level_deg=2, shape="16:9"))
        across = 16 * min(
            6000 / (16 * math.cos(math.radians(2)) + 9 * math.sin(math.radians(2))),
            4000 / (16 * math.sin(math.radians(2)) + 9 * math.cos(math.radians(2))),
        )
        frame = kept(plan)
        self.assertEqual(
            (frame.width_px, frame.height_px), (2 * math.floor(across / 2), 2 * math.floor(across / 32 * 9))
        )
        self.assertEqual(frame.width_px, 5886)
        self.assertAlmostEqual(evaluate(plan).figures["picture.levelled"].value, across / 6000)

    @given(st.floats(10, 100), st.floats(10, 100), st.floats(1, 20), st.floats(1, 20), st.floats(-45, 45))
    def test_the_largest_rectangle_touches_the_edge_of_the_turned_picture(
        self, wide: float, high: float, across: float, upright: float, turn: float
    ) -> None:
        w, h = cropping.largest(wide, high, across, upright, turn)
        self.assertAlmostEqual(w / h, across / upright)
        angle = math.radians(turn)
        corners = [(sx * w / 2, sy * h / 2) for sx in (1, -1) for sy in (1, -1)]
        seen = [
            (x * math.cos(angle) - y * math.sin(angle), x * math.sin(angle) + y * math.cos(angle)) for x, y in corners
        ]
        reach = max(max(abs(x) / wide * 2, abs(y) / high * 2) for x, y in seen)
        self.assertAlmostEqual(reach, 1)

    def test_panorama_rows(self) -> None:
        for sweep, view, overlap, closed, wanted in (
            (180, 54.43, 0.3, False, 5),
            (54.43, 54.43, 0.3, False, 1),
            (20, 54.43, 0.3, False, 1),
            (360, 54.43, 0.3, True, 10),
            (100, 40, 0.25, False, 3),
        ):
            self.assertEqual(panorama.shots(sweep, view, overlap, closed), wanted)


class Paths(TestCase):
    @settings(deadline=None)
    @given(st.lists(st.tuples(st.floats(0.01, 1), st.floats(-100, 100)), min_size=2, max_size=9))
    def test_the_monotone_cubic_is_the_known_one(self, points: list[tuple[float, float]]) -> None:
        x = np.cumsum([gap for gap, _ in points])
        y = np.array([value for _, value in points])
        at = np.linspace(x[0], x[-1], 120)
        wanted = PchipInterpolator(x, y)(at) if len(x) > 2 else np.interp(at, x, y)
        np.testing.assert_allclose(monotone.curve(x, y, at), wanted, atol=1e-7)

    @settings(max_examples=120, deadline=None)
    @given(moves, st.integers(2, 900), st.integers(0, 40), st.integers(0, 40))
    def test_exact_at_keyframes_and_never_beyond_two_neighbours(
        self, move: Move, frames: int, head: int, tail: int
    ) -> None:
        follow = move.follow and move.follow.model_copy(update={"every_frame": False})
        move = move.model_copy(update={"visits": None, "follow": follow})
        held = {**THREE, "frames": F(frames)}
        clip = {"handle_in_frames": head, "handle_out_frames": tail}
        plan = plan_of(held, move=move, clip=clip, rig=Rig(axes=RINGS))
        told, at = shooting(plan).schedule, places(plan)
        assume(told.steps >= len(move.keyframes) - 1)
        for axis in plan.rig.axes:
            keys = np.array([stands_at(plan, key, axis.name) for key in move.keyframes])
            if axis.on_lens:
                keys = np.clip(keys, *reach(axis))
            noise = 1e-7 * max(1.0, float(np.abs(keys).max()))
            for number in range(len(keys)):
                self.assertAlmostEqual(at[axis.name][told.frame(number)], keys[number], delta=noise)
                if number:
                    way = at[axis.name][told.frame(number - 1) : told.frame(number) + 1]
                    low, high = sorted(keys[number - 1 : number + 1])
                    self.assertTrue(low - noise <= way.min() and way.max() <= high + noise)
            # Each way back is the way there, backwards.
            there, back = told.legs[0], told.legs[-1]
            if len(told.legs) % 2 == 0 and back.steps == there.steps:
                out = at[axis.name][there.first : there.last + 1]
                np.testing.assert_allclose(at[axis.name][back.first : back.last + 1], out[::-1], atol=noise)

    @settings(max_examples=60, deadline=None)
    @given(moves, st.integers(30, 600))
    def test_a_move_turned_round_is_the_same_move_backwards(self, move: Move, frames: int) -> None:
        keys = [key.model_copy(update={"when": None, "hold_frames": 0}) for key in move.keyframes]
        plain = move.model_copy(
            update={"keyframes": tuple(keys), "legs": 1, "visits": None, "follow": None, "ease_in_s": None}
        )
        turned = plain.model_copy(
            update={
                "keyframes": tuple(reversed(keys)),
                "ease_in_frames": plain.ease_out_frames,
                "ease_out_frames": plain.ease_in_frames,
            }
        )
        held, rig = {**THREE, "frames": F((frames // len(keys)) * (len(keys) - 1) + 1)}, Rig(axes=RINGS)
        there, back = (places(plan_of(held, move=one, rig=rig)) for one in (plain, turned))
        for name, values in there.items():
            np.testing.assert_allclose(values, back[name][::-1], atol=1e-6 * max(1, np.abs(values).max()))

    def test_where_keyframes_stand(self) -> None:
        def stands(*inner: Keyframe, **more: Any) -> tuple[list[int], tuple[int, ...]]:
            move = Move(keyframes=(Keyframe(), *inner, Keyframe()), **more)
            plan = plan_of({**THREE, "frames": F(101)}, move=move)
            told = shooting(plan).schedule
            return [told.frame(n) for n in range(len(inner) + 2)], told.misplaced

        at_frame, at_time = Keyframe(when=OnFrame(frame=26)), Keyframe(when=OnClip(at_s=F(3)))
        stop = Keyframe(when=OnFrame(frame=26), passing="stop", hold_frames=200)
        for wanted, wrong, keys, more in (
            ([0, 25, 75, 100], (), (at_frame, at_time), {}),
            ([0, 33, 67, 100], (), (Keyframe(), Keyframe()), {}),
            ([0, 25, 63, 100], (), (at_frame, Keyframe()), {}),
            ([0, 75, 76, 100], (2,), (at_time, at_frame), {}),
            ([0, 25, 100], (1,), (stop,), {}),
            ([0, 25, 50], (), (at_frame,), {"legs": 2}),
        ):
            self.assertEqual(stands(*keys, **more), (wanted, wrong))

    def test_backlash_is_taken_up_where_a_drive_turns_back(self) -> None:
        move = Move(keyframes=(Keyframe(), Keyframe(slide_mm=100)), legs=2)
        plan = plan_of({**THREE, "frames": F(21)}, move=move, rig=WIDE)
        far = shooting(plan).steps["slide"][0]
        self.assertEqual([round(step, 6) for step in far[8:13]], [10, 10, 10.5, 10, 10])
        self.assertEqual(travel.turned_back(np.array([0, 1, 0, -1, -2, 0, 0, 3.0])).nonzero()[0].tolist(), [3, 7])

    def test_a_single_frame_stands_at_the_first_keyframe(self) -> None:
        move = Move(keyframes=(Keyframe(slide_mm=10, pan_deg=5), Keyframe(slide_mm=500), Keyframe(slide_mm=40)))
        told = shooting(plan_of({**THREE, "frames": F(1)}, move=move)).positions
        self.assertEqual({name: values.tolist() for name, values in told.items()}, {"slide": [10], "pan": [5]})

    def test_a_keyframe_at_the_playhead_changes_nothing_and_one_from_the_rig_does(self) -> None:
        plan = following(Keyframe(pan_deg=30), Keyframe(slide_mm=800, pan_deg=7))
        before = places(plan)
        more, undo = make(plan, [AddKeyframe(do="keyframe", frame=200)])
        for name, values in places(more).items():
            np.testing.assert_allclose(values, before[name], atol=0.06)
        self.assertEqual(apply(more, undo)[0], plan)
        jogged, _ = make(more, [AddKeyframe(do="keyframe", frame=200, stands={"pan": 12.5})])
        self.assertEqual((len(jogged.move.keyframes), jogged.move.keyframes[1].pan_deg), (3, 12.5))
        aimed, _ = make(plan, [AimAt(do="aim", mark=0)])
        self.assertEqual([key.pan_deg for key in aimed.move.keyframes], [33.69, 7.59])


def standing(stands: dict[str, float]) -> Poses:
    """One pose of a head whose pan stands upright."""
    x, z, pan, tilt, roll, focal = (np.array([stands[name]]) for name in ("x", "z", "pan", "tilt", "roll", "focal"))
    return Poses(x, z, pan, tilt, roll, focal)


class Seeing(TestCase):
    angles = st.floats(-50, 50)

    @settings(deadline=None)
    @given(
        st.floats(-300, 300), angles, st.floats(-40, 40), st.floats(-40, 40), st.floats(-0.5, 0.5), st.floats(-0.4, 0.4)
    )
    def test_the_flow_of_a_picture_is_what_small_steps_do(
        self, x: float, pan: float, tilt: float, roll: float, u: float, v: float
    ) -> None:
        stands = {"x": x, "z": 20.0, "pan": pan, "tilt": tilt, "roll": roll, "focal": 35.0}
        at = standing(stands)
        axes = [projecting.turn(at, *(np.array([c]) for c in row)) for row in np.eye(3)]
        away = np.array([[each.right[0], each.up[0], each.ahead[0]] for each in axes]) @ (2000 * np.array([u, v, 1.0]))
        point = away + np.array([x, 0, 20.0])
        for name, field, small in (
            ("pan", "pan", 1e-5),
            ("tilt", "tilt", 1e-5),
            ("roll", "roll", 1e-5),
            ("slide", "x", 1e-3),
        ):
            moved = {**stands, field: stands[field] + small}
            seen = projecting.see(standing(moved), *point)
            across, up = (
                np.asarray(way).item()
                for way in projecting.motions(at, {name: np.array([small])}, 2000.0)[name].at(u, v)
            )
            self.assertAlmostEqual((seen.across()[0] - u) / small, across / small, 5)
            self.assertAlmostEqual((seen.above()[0] - v) / small, up / small, 5)

    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(st.tuples(st.floats(0, 900), angles, st.floats(-30, 30)), min_size=2, max_size=5),
        st.tuples(st.floats(-2000, 3000), st.floats(300, 9000), st.floats(-1000, 2000)),
        st.sampled_from(["left third", "centre", "right third"]),
        st.floats(-20, 20),
        st.booleans(),
    )
    def test_the_error_of_tracking_is_never_understated(
        self,
        keys: list[tuple[float, float, float]],
        mark: tuple[float, float, float],
        across: Any,
        slope: float,
        every: bool,
    ) -> None:
        stands = [Keyframe(slide_mm=s, pan_deg=p, tilt_deg=t) for s, p, t in keys]
        post = Mark(name="post", x_mm=mark[0], y_mm=mark[1], z_mm=mark[2])
        plan = following(*stands, mark=post, across=across, every_frame=every)
        plan = plan.model_copy(update={"rig": WIDE.model_copy(update={"standing": Standing(slope_deg=slope)})})
        at, found = places(plan), shooting(plan).tracked
        assert found is not None
        # By rotating the point into the camera step by step, in plain numbers.
        wanted = {"left third": -1 / 6, "centre": 0, "right third": 1 / 6}[across]
        worst = 0.0
        for s, p, t in zip(at["slide"], np.radians(at["pan"]), np.radians(at["tilt"]), strict=True):
            dx = mark[0] - s * math.cos(math.radians(slope))
            dz = mark[2] - s * math.sin(math.radians(slope))
            east, north = dx * math.cos(p) - mark[1] * math.sin(p), dx * math.sin(p) + mark[1] * math.cos(p)
            ahead = north * math.cos(t) + dz * math.sin(t)
            worst = max(worst, abs(35 * east / ahead / 36 - wanted) if ahead > 1 else math.inf)
        if math.isinf(worst):
            self.assertTrue(math.isnan(found.error))
        else:
            self.assertAlmostEqual(found.error, worst, 9)
            # Steeper than five in one no pan brings a mark to a third: it comes as near as it can, and is told so.
            if every and mark[2] + 900 * math.sin(math.radians(20)) < 5 * mark[1]:
                self.assertLess(worst, 1e-6)

    @settings(max_examples=40, deadline=None)
    @given(moves, st.floats(-30, 30))
    def test_what_is_followed_stays_within_the_reach_of_the_head(self, move: Move, slope: float) -> None:
        keys = tuple(key.model_copy(update={"slide_mm": min(900, max(0, key.slide_mm))}) for key in move.keyframes)
        post = Mark(name="post", x_mm=move.keyframes[0].slide_mm * 3, y_mm=-50 + move.keyframes[0].focus_mm / 20)
        led = Move(keyframes=keys, marks=(post,), follow=Follow(every_frame=True))
        plan = plan_of(THREE, move=led, rig=Rig(axes=RINGS, standing=Standing(slope_deg=slope)))
        for axis in plan.rig.axes[:3]:
            self.assertTrue(axis.low <= places(plan)[axis.name].min() and places(plan)[axis.name].max() <= axis.high)

    def test_the_shift_of_a_frame_is_that_of_pan_and_slide(self) -> None:
        pan = plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=41.9))), camera={"focal_mm": 24})
        told = shooting(pan).shift
        self.assertAlmostEqual(told.at(0, "left edge").px, 0.1 * 69.81 * 1.5625, 2)
        self.assertAlmostEqual(told.most, 0.1 * 69.81 * math.hypot(1.5625, 0.75 * 0.5), 2)
        slide = plan_of(
            THREE, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=838)), marks=(Mark(name="a", y_mm=2000),))
        )
        self.assertAlmostEqual(shooting(slide).shift.most, 2 * 35 * 6000 / 36 / 2000, 6)

    def test_when_a_door_is_in_the_picture(self) -> None:
        """Half of a view of 54.43 degrees: a pan from -60 to 60 sees what lies straight ahead from -27.2 to 27.2."""
        door = Mark(name="door", form="bearing", bearing_deg=90)
        move = Move(keyframes=(Keyframe(pan_deg=-60), Keyframe(pan_deg=60)), marks=(door,))
        plan = plan_of({**THREE, "frames": F(121)}, move=move, rig=Rig(normal_bearing_deg=90))
        told = evaluate(plan).view
        assert told is not None
        self.assertEqual(told.sights[0].runs, ((33, 87),))

    def test_the_sun_where_the_almanac_has_it(self) -> None:
        """Near the equinox the sun is due south at 12:07:50 at Greenwich, 7 min 50 s of equation of time after noon.

        Eleven minutes and fifty seconds before that it stands 2.96 degrees of hour angle, 3.76 of azimuth, to the east.
        """
        noon = 1_773_921_360.0  # 2026-03-19 11:56 UTC
        azimuth, altitude = sky.sun(51.48, 0.0, np.array([noon, noon + 600]))
        self.assertAlmostEqual(azimuth[0] % 360, 180 - 3.76, delta=0.1)
        self.assertAlmostEqual(altitude[0], 90 - 51.48 - 0.5, delta=0.4)

    @settings(max_examples=60, deadline=None)
    @given(
        st.floats(-89, 89), st.floats(-180, 180), st.floats(0.8e9, 3e9), st.sampled_from([3600, 86_400, 9e5, 8e7]),
        st.lists(st.floats(0, 1), min_size=2, max_size=30),
    )  # fmt: skip
    def test_the_sun_over_an_hour_or_thirty_months(
        self, latitude: float, longitude: float, start: float, length: float, shares: list[float]
    ) -> None:
        """Against the almanac's own altitude and azimuth, moment by moment, as an angle in the sky."""
        times = np.sort(start + length * np.array(shares))
        azimuth, altitude = sky.sun(latitude, longitude, times)
        self.assertTrue(0 <= azimuth[0] < 360)
        for time, az, alt in zip(times, np.radians(azimuth), np.radians(altitude), strict=True):
            here = ephem.Observer()
            here.lat, here.lon, here.pressure = math.radians(latitude), math.radians(longitude), 0
            here.date = datetime.fromtimestamp(time, UTC).replace(tzinfo=None)
            body = ephem.Sun(here)
            up, round_ = float(body.alt), float(body.az)
            cosine = math.sin(up) * math.sin(alt) + math.cos(up) * math.cos(alt) * math.cos(round_ - az)
            self.assertLess(math.degrees(math.acos(min(1.0, cosine))), 0.005)


class Rounds(TestCase):
    def test_the_cycle_holds_every_station(self) -> None:
        stations = Stations(stations=tuple(Station(name=n, slide_mm=x) for n, x in (("A", 0), ("B", 300), ("C", 600))))
        beat = Beat(exposure_s=F(1), write_s=F(2), settle_s=F(1), wake_s=F(0), lag_s=F(0))
        plan = plan_of(THREE, move=Move(visits=stations), beat=beat)
        told = shooting(plan).cycle
        legs = [300 / 25 + 25 / 80, 300 / 25 + 25 / 80, 600 / 25 + 25 / 80]
        self.assertAlmostEqual(told.need_s, sum(1 + max(2, leg + 1) for leg in legs), 9)
        self.assertEqual([part.name for part in parts_of(told)].count("exposure"), 3)

    def test_rows_and_pairs_lie_around_the_move(self) -> None:
        move = Move(visits=StereoPair(base_mm=60), keyframes=(Keyframe(slide_mm=100), Keyframe(slide_mm=500)))
        plan = plan_of({**THREE, "frames": F(3)}, move=move)
        np.testing.assert_allclose(travel.stops(plan, places(plan))["slide"], [[70, 130], [270, 330], [470, 530]])
        row = plan_of({**THREE, "frames": F(1)}, move=Move(visits=PanoramaRow(sweep_deg=120, overlap=0.2)))
        pans = travel.stops(row, places(row))["pan"][0]
        view = evaluate(row).figures["view.across"].value
        self.assertAlmostEqual(pans[-1] - pans[0] + view, 120, 9)

    @settings(deadline=None)
    @given(st.floats(1, 359), st.floats(10, 120), st.floats(0, 0.8), st.booleans())
    def test_a_row_covers_its_sweep_with_no_less_overlap(
        self, sweep: float, view: float, overlap: float, closed: bool
    ) -> None:
        count = panorama.shots(sweep, view, overlap, closed)
        apart = panorama.apart_deg(sweep, view, count, closed)
        self.assertGreaterEqual(1 - apart / view, overlap - 1e-9 if count > 1 else 0)
        self.assertGreaterEqual(
            apart * (count if closed else count - 1) + (0 if closed else view), (360 if closed else sweep) - 1e-6
        )
        if count > 2:
            fewer = panorama.apart_deg(sweep, view, count - 1, closed)
            self.assertLess(1 - fewer / view, overlap + 1e-9)


class Pictures(TestCase):
    shares = st.floats(0, 1)

    @settings(max_examples=80, deadline=None)
    @given(
        st.builds(Crop, across=shares, down=shares, width=st.floats(0.05, 1)),
        st.builds(Crop, across=shares, down=shares, width=st.floats(0.05, 1)),
        st.sampled_from(["as shot", "16:9", "9:16", "1:1"]),
        st.floats(-20, 20),
    )
    def test_crops_stay_within_what_is_kept(self, start: Crop, end: Crop, shape: Any, level: float) -> None:
        picture = Picture(shape=shape, level_deg=level)
        plan = plan_of(THREE, picture=picture, move=Move(post=Post(start=start, end=end), ease_in_frames=20))
        made, frame = rectangles(plan, shooting(plan).solution), kept(plan)
        left, top = (frame.shot_px[0] - frame.source_px[0]) / 2, (frame.shot_px[1] - frame.source_px[1]) / 2
        x, y, w, h = made.T
        self.assertTrue((w % 2 == 0).all() and (h % 2 == 0).all() and w.min() >= 2)
        self.assertTrue(x.min() >= math.floor(left) and (x + w).max() <= math.ceil(left + frame.source_px[0]))
        self.assertTrue(y.min() >= math.floor(top) and (y + h).max() <= math.ceil(top + frame.source_px[1]))

    def test_an_upright_camera_swaps_its_fields_of_view(self) -> None:
        flat, upright = (evaluate(plan_of(THREE, camera={"upright": on})).figures for on in (False, True))
        self.assertEqual(flat["view.across"].value, upright["view.upright"].value)

    @settings(deadline=None)
    @given(st.lists(st.floats(24, 70), min_size=1, max_size=9), st.booleans())
    def test_rings_go_there_and_back(self, values: list[float], reciprocal: bool) -> None:
        ring = ((0.0, 24.0), (40.0, 35.0), (75.0, 50.0), (120.0, 70.0))
        turned = rings.turned(np.array(values), ring, reciprocal)
        np.testing.assert_allclose(rings.set_to(turned, ring, reciprocal), values, rtol=1e-9)
