"""The light of a scene, the dials, and the ramp: by hand, by the worked examples, and for any light at all."""

import math
from datetime import datetime
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.plan.document import Plan
from bridle.core.plan.light import Light
from bridle.core.plan.move import Keyframe, Move
from bridle.core.reckon.changes import change_lines
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.scene import proof_ev, scene_between
from bridle.core.run.programme import programme
from bridle.core.subjects.light import dials, illuminance, ramp, trails
from bridle.core.subjects.light.dials import STEPS_A_STOP, Dial, Step
from bridle.core.subjects.light.ramp import Limits, Settings
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Lean, Poses
from bridle.formats.drive_program import program
from tests.provoked import dusk, proof
from tests.strategies import RINGS, plan_of, shooting
from tests.workings import worked_out

DIALS: tuple[Dial, ...] = ("shutter", "iso", "aperture")
# What is engraved, and what it really stands for: seconds, ISO, f-number.
ENGRAVED: tuple[tuple[Dial, Step, float, float], ...] = (
    ("shutter", "third", 30, 32), ("shutter", "third", 1 / 125, 1 / 128), ("shutter", "third", 13, 2 ** (11 / 3)),
    ("shutter", "half", 20, 16 * math.sqrt(2)), ("shutter", "full", 1 / 60, 1 / 64),
    ("iso", "third", 125, 100 * 2 ** (1 / 3)), ("iso", "half", 560, 400 * math.sqrt(2)),
    ("aperture", "third", 5.6, 4 * math.sqrt(2)), ("aperture", "half", 9.5, 2**3.25), ("aperture", "full", 11, 2**3.5),
)  # fmt: skip


class Dialled(TestCase):
    def test_exposure_values_of_the_worked_examples(self) -> None:
        self.assertAlmostEqual(dials.ev100(1 / 125, 100, 8), 12.97, 2)
        self.assertAlmostEqual(dials.ev100(20, 3200, 2.8), -6.35, 2)

    def test_what_is_engraved_stands_for_powers_of_two(self) -> None:
        for dial, step, engraved, real in ENGRAVED:
            with self.subTest(f"{dial} {engraved:g}"):
                steps = dials.nearest(dial, engraved, STEPS_A_STOP[step])
                self.assertAlmostEqual(dials.true(dial, steps, STEPS_A_STOP[step]), real, 9)
                self.assertAlmostEqual(dials.label(dial, steps, STEPS_A_STOP[step]), engraved, 9)

    def test_no_mark_is_further_from_what_it_stands_for_than_a_third_of_a_stop(self) -> None:
        for a_stop in STEPS_A_STOP.values():
            for dial in DIALS:
                row = dials.marks(dial, a_stop)
                self.assertEqual(list(row.values), sorted(set(row.values)))
                for n, value in enumerate(row.values):
                    stops = math.log2(value / dials.true(dial, row.first + n, a_stop)) * (
                        2 if dial == "aperture" else 1
                    )
                    self.assertLess(abs(stops), 0.26, (dial, a_stop, value))


class Brightness(TestCase):
    def test_the_published_values_stand_in_the_curve_and_it_only_rises(self) -> None:
        heights, lx = (np.array(column) for column in zip(*illuminance.CLEAR_SKY, strict=True))
        np.testing.assert_allclose(illuminance.sun_lx(heights), lx, rtol=1e-12)
        self.assertTrue((np.diff(illuminance.sun_lx(np.linspace(-30, 90, 5000))) >= 0).all())
        self.assertEqual(illuminance.sun_lx(np.array([-40.0]))[0], illuminance.sun_lx(np.array([-18.0]))[0])

    def test_the_moon(self) -> None:
        """Full and overhead 0.27 lx; at half moon 0.09 of that; 0.80, 0.36 and 0.10 at 60°, 30° and 10°."""
        self.assertAlmostEqual(float(illuminance.moon_lx(np.array([90.0]), np.array([0.0]))[0]), 0.27, 12)
        half = float(illuminance.moon_lx(np.array([90.0]), np.array([90.0]))[0]) / 0.27
        self.assertAlmostEqual(half, 10 ** (-0.4 * (0.026 * 90 + 4e-9 * 90**4)), 12)
        self.assertAlmostEqual(half, 0.09, 2)
        shares = illuminance.moon_lx(np.array([60.0, 30, 10, 0, -20]), np.zeros(5)) / 0.27
        np.testing.assert_allclose(shares, [0.80, 0.36, 0.10, 0, 0], atol=1e-12)

    def test_cloud_takes_stops_of_the_sky_and_lamps_stay(self) -> None:
        """32 lx through two stops are 8; with 2 of lamps 10, which is EV 2."""
        lx = illuminance.scene_lx(np.array([32.0]), np.array([0.0]), 2.0, 2.0)
        self.assertAlmostEqual(float(illuminance.ev100(lx)[0]), 2.0, 12)

    def test_tests_shift_the_curve_by_their_mean_and_half_their_difference_is_the_misfit(self) -> None:
        early, late = proof("2026-09-12T19:30+01:00", F(1, 60)), proof("2026-09-12T20:30+01:00", F(2))
        plain = self._scene(dusk(night_stops=0.0))
        offs = []
        for one in (early, late):
            plan = dusk(night_stops=0.0, proofs=[one])
            at = datetime.fromisoformat(one["at"]).timestamp()
            model = scene_between(plain.plan, at, at + 1, 2)
            shifted = scene_between(plan, at, at + 1, 2)
            assert model is not None and shifted is not None
            wanted = proof_ev(plan.light.proofs[0], "third")
            self.assertAlmostEqual(float(shifted.ev[0]), wanted, 9)
            offs.append(wanted - float(model.ev[0]))
        both = self._scene(dusk(night_stops=0.0, proofs=[early, late])).scene
        assert both is not None and plain.scene is not None
        np.testing.assert_allclose(both.ev - plain.scene.ev, sum(offs) / 2, atol=1e-9)
        self.assertAlmostEqual(both.misfit_stops or 0, abs(offs[0] - offs[1]) / 2, 9)

    def test_a_night_is_as_much_darker_as_it_is_to_look_and_what_looked_right_is_what_is_wanted(self) -> None:
        """With the sun at −9.678° it is 0.538 of a night: of two stops 1.075."""
        plan = dusk("2026-09-12T21:00+01:00", minutes=30, night_stops=2.0)
        scene = self._scene(plan).scene
        assert scene is not None
        self.assertAlmostEqual(float((scene.wanted_ev - scene.ev)[0]), 2 * 9.678 / 18, 3)
        tried = self._scene(dusk("2026-09-12T21:00+01:00", minutes=30, night_stops=2.0,
                                 proofs=[proof("2026-09-12T21:00+01:00", F(4))])).scene  # fmt: skip
        assert tried is not None
        self.assertAlmostEqual(float(tried.wanted_ev[0]), dials.ev100(4, 100, 8), 9)

    def _scene(self, plan: Plan) -> Shooting:
        return shooting(plan)


class Stars(TestCase):
    def test_the_worked_example(self) -> None:
        """20 mm, f/2.8, 5.93 µm: 25 s and 13.8 s by the rules; one pixel of drift on the equator takes 4.07 s."""
        self.assertEqual(trails.rule_500_s(20), 25)
        self.assertAlmostEqual(trails.rule_pixels_s(2.8, 5.93, 20), 13.8, 1)
        scale = math.radians(1) * 20 / 0.00593
        self.assertAlmostEqual(float(trails.longest_s(1, 0.0, scale)), 4.07, 2)
        self.assertAlmostEqual(float(trails.longest_s(1, 60.0, scale)), 2 * 4.0654, 2)

    @given(
        st.floats(-170, 170), st.floats(-40, 60), st.floats(-30, 30), st.floats(-0.4, 0.4), st.floats(-0.3, 0.3),
        st.sampled_from([None, Lean(15.0, 40.0)]),
    )  # fmt: skip
    def test_a_point_of_the_picture_lies_where_it_is_seen(
        self, pan: float, tilt: float, roll: float, u: float, v: float, lean: Lean | None
    ) -> None:
        x, turn, up, over, focal = (np.array([value]) for value in (0.0, pan, tilt, roll, 35.0))
        at = Poses(x, x, turn, up, over, focal, lean)
        seen = projecting.see_far(at, *projecting.directions(at, u, v))
        self.assertAlmostEqual(float(seen.across()[0]), u, 9)
        self.assertAlmostEqual(float(seen.above()[0]), v, 9)

    def test_a_camera_on_the_pole_may_expose_longer_than_one_on_the_equator(self) -> None:
        """At 57.32° N the pole is 57.32° high, and in the south the equator 32.68°: there 2 px at 35 mm take 4.6 s."""
        for bearing, tilt, low, high in ((0.0, 57.32, 9.0, 30.0), (180.0, 32.68, 4.6, 4.7)):
            plan = dusk("2026-09-12T22:30+01:00", minutes=30, interval=60, school="ramped", shutter_long_s=F(30))
            rig = plan.rig.model_copy(update={"normal_bearing_deg": bearing})
            move = Move(keyframes=(Keyframe(tilt_deg=tilt), Keyframe(tilt_deg=tilt)))
            plan = plan.model_copy(update={"rig": rig, "move": move, "camera": Camera(aperture=2.0)})
            followed = shooting(plan).followed
            assert followed is not None
            longest = float(followed.shutter_s.max())
            self.assertLessEqual(longest, high)
            self.assertGreaterEqual(longest, low / 2 ** (1 / 3))


steps: st.SearchStrategy[Step] = st.sampled_from(("third", "half", "full"))
orders = st.permutations(DIALS).flatmap(lambda dials: st.integers(1, 3).map(lambda n: tuple(dials[:n])))


@st.composite
def limited(draw: st.DrawFn) -> Limits:
    """Limits of all kinds; what does not follow has one mark alone."""
    step: Step = draw(steps)
    order = draw(orders)
    ends: dict[Dial, tuple[float, float]] = {"shutter": (1 / 4000, 30), "iso": (100, 12_800), "aperture": (1.8, 16)}
    chosen = {}
    for dial, (low, high) in ends.items():
        one, other = sorted(draw(st.tuples(*2 * [st.floats(math.log2(low), math.log2(high))])))
        chosen[dial] = (2**one, 2**other) if dial in order else (2**one, 2**one)
    return ramp.limits(chosen["shutter"], chosen["iso"], chosen["aperture"], order, step)


lights = st.lists(st.floats(-12, 18), min_size=2, max_size=60).map(np.array)


def ev_of(settings: Settings) -> np.ndarray:
    """The exposure values, from the true values one by one."""
    rows = zip(settings.shutter, settings.iso, settings.aperture, strict=True)
    one = settings.a_stop
    return np.array(
        [
            dials.ev100(dials.true("shutter", s, one), dials.true("iso", i, one), dials.true("aperture", a, one))
            for s, i, a in rows
        ]
    )


class AnyRamp(TestCase):
    @given(lights, limited())
    def test_within_its_limits_it_is_never_more_than_half_a_step_off_and_no_limit_is_broken(
        self, wanted: np.ndarray, within: Limits
    ) -> None:
        settings = ramp.follow(wanted, within)
        left = ev_of(settings) - wanted
        np.testing.assert_allclose(settings.ev100, ev_of(settings), atol=1e-9)
        low = (within.aperture.high - within.shutter.low - within.iso.low) / within.a_stop
        high = (within.aperture.low - within.shutter.high - within.iso.high) / within.a_stop
        reached = (wanted <= low) & (wanted >= high)
        self.assertLessEqual(float(np.abs(left[reached]).max(initial=0.0)), 0.5 / within.a_stop + 1e-9)
        self.assertTrue((left[wanted > low] <= 1e-9).all())
        self.assertTrue((left[wanted < high] >= -1e-9).all())
        for dial, values in zip(DIALS, settings[:3], strict=True):
            limit = getattr(within, dial)
            self.assertTrue(((values >= limit.low) & (values <= limit.high)).all(), dial)

    @given(lights, limited())
    def test_nothing_is_set_against_the_light_and_backwards_it_is_the_ramp_of_the_light_backwards(
        self, wanted: np.ndarray, within: Limits
    ) -> None:
        falling = ramp.follow(np.sort(wanted)[::-1], within)
        for values, way in ((falling.shutter, 1), (falling.iso, 1), (falling.aperture, -1)):
            self.assertTrue((np.diff(values) * way >= 0).all())
        there, back = ramp.follow(wanted, within), ramp.follow(wanted[::-1], within)
        for one, other in zip(there[:3], back[:3], strict=True):
            np.testing.assert_array_equal(one, other[::-1])

    @given(lights, limited(), st.integers(-30, 18))
    def test_a_shutter_that_may_go_no_further_leaves_the_rest_to_the_others(
        self, wanted: np.ndarray, within: Limits, longest: int
    ) -> None:
        caps = np.full(len(wanted), longest)
        settings = ramp.follow(wanted, within, caps)
        most = min(max(longest, within.shutter.low), within.shutter.high)
        self.assertLessEqual(int(settings.shutter.max()), most)
        high = (within.aperture.low - most - within.iso.high) / within.a_stop
        low = (within.aperture.high - within.shutter.low - within.iso.low) / within.a_stop
        inside = (wanted >= high) & (wanted <= low)
        left = np.abs(settings.ev100 - wanted)[inside]
        self.assertLessEqual(float(left.max(initial=0.0)), 0.5 / within.a_stop + 1e-9)

    @given(st.lists(st.floats(0.1, 900), min_size=0, max_size=40))
    def test_how_quick_a_hand_has_to_be(self, gaps: list[float]) -> None:
        at = np.cumsum(np.array(gaps))
        often, gap = ramp.pace(at, 600.0)
        self.assertEqual(often, max((sum(0 <= b - a < 600 for b in at) for a in at), default=0))
        self.assertEqual(gap, None if len(at) < 2 else float(np.diff(at).min()))


LIGHTS: tuple[dict[str, Any], ...] = (
    {}, {"order": ["iso", "shutter"], "step": "half"}, {"order": ["shutter", "iso", "aperture"], "step": "full"},
    {"densities": [{"stops": 3, "first_frame": 20, "last_frame": 120}]}, {"town_lx": 2.0, "night_stops": 0.0},
    {"cloud_stops": 2.0, "proofs": [proof("2026-09-12T19:00+01:00", F(1, 30))]}, {"school": "automatic"},
)  # fmt: skip


class Sharp(TestCase):
    def test_what_passes_for_a_point_follows_the_sensor(self) -> None:
        """A diagonal over 1500: 0.0288 mm on full frame, 0.0058 on a phone; on a board camera of 640 pixels a pixel."""
        for width, height, px, circle in (
            (36, 24, 6000, 0.02884),
            (7, 5.25, 4000, 0.005833),
            (3.6, 2.7, 640, 0.005625),
        ):
            camera = Camera(sensor_width_mm=width, sensor_height_mm=height, picture_width_px=px)
            self.assertAlmostEqual(camera.circle, circle, 5)
            told = evaluate(plan_of({"rate": F(25), "shoot": F(3600), "interval": F(10)}, camera=camera.model_dump()))
            figure = told.figures["help.circle"]
            self.assertAlmostEqual(worked_out(figure), figure.value, 9)
        typed = plan_of({"rate": F(25), "shoot": F(3600), "interval": F(10)}, camera={"circle_mm": 0.05})
        self.assertEqual((typed.camera.circle, "help.circle" in evaluate(typed).figures), (0.05, False))


class Replayed(TestCase):
    def test_the_list_of_changes_gives_what_is_set_at_every_frame(self) -> None:
        for light in LIGHTS:
            with self.subTest(light):
                known = shooting(dusk(**{"school": "ramped", **light}))
                followed = known.followed
                assert followed is not None
                lines, now = list(change_lines(known)), None
                self.assertEqual(lines[0].frame, 0)
                for frame in range(known.frames):
                    now = next((line for line in lines if line.frame == frame), now)
                    assert now is not None
                    self.assertEqual(
                        [now.shutter_s, now.iso, now.aperture], [followed.label(dial, frame) for dial in DIALS]
                    )
                    self.assertEqual(now.density, followed.density[frame])
                self.assertTrue(all(line.moved for line in lines[1:]))

    def test_each_dial_follows_where_the_one_before_has_run_out(self) -> None:
        """1/4000 s at f/4 and ISO 100 is EV 16; what is marked 15 s is 16 s, so sixteen stops; then five of ISO."""
        limits: dict[str, Any] = {
            "shutter_short_s": F(1, 4000),
            "shutter_long_s": F(15),
            "iso_low": 100,
            "iso_high": 3200,
        }
        plan = dusk(school="ramped", order=("shutter", "iso"), camera=Camera(aperture=4.0), **limits)
        told = evaluate(plan)
        parts = [(part.dial, round(part.from_ev, 6), round(part.to_ev, 6)) for part in told.light.reach]
        self.assertEqual(parts, [("shutter", 16, 0), ("iso", 0, -5)])
        ends = [told.figures[f"light.reach.{end}"].value for end in ("bright", "dark")]
        self.assertEqual(ends, [told.light.reach[0].from_ev, told.light.reach[-1].to_ev])

    def test_the_beat_of_every_frame_holds_its_exposure(self) -> None:
        """Ninety minutes with a frame every 20 s and every 5 s: the shutter stays within what the beat leaves."""
        for every, longest in ((20, 16.0), (5, 4.0)):
            beat = Beat(wake_s=F(0), lag_s=F(0), write_s=F(1), settle_s=F(0), margin=F(0), least_margin_s=F(0))
            plan = dusk(minutes=120, interval=every, school="ramped", beat=beat, shutter_long_s=F(15))
            known = shooting(plan)
            self.assertEqual(known.cycle.over_s, 0)
            self.assertAlmostEqual(float(known.shuttered.exposed_s.max()), longest, 6)
            self.assertEqual(known.cycle.frame, int(known.shuttered.exposed_s.argmax()))


class FedBack(TestCase):
    """Exposures that follow the light reach what devices are told."""

    def setUp(self) -> None:
        beat = Beat(wake_s=F(0), lag_s=F(1, 10), write_s=F(1), settle_s=F(1), margin=F(0), least_margin_s=F(0))
        self.plan = dusk(minutes=100, interval=20, school="ramped", beat=beat).model_copy(
            update={
                "rig": dusk().rig.model_copy(update={"axes": RINGS[:2]}),
                "move": Move(keyframes=(Keyframe(), Keyframe(slide_mm=300, pan_deg=20))),
            }
        )
        self.known = shooting(self.plan)

    def test_the_run_is_told_each_frame_s_own_exposure(self) -> None:
        told, exposed = programme(self.plan), self.known.shuttered.exposed_s
        self.assertGreater(len(set(exposed.tolist())), 20)
        for frame in range(self.known.frames):
            self.assertAlmostEqual(told.exposure_s(frame), float(exposed[frame]), 8)

    def test_the_program_stands_still_for_as_long_as_each_frame_is_exposed(self) -> None:
        """The dwell after the pulse of 0.2 s: the lag of 0.1 s and the exposure."""
        lines, dwells = list(program(self.plan)), {}
        frame = 0
        for number, line in enumerate(lines):
            if line.startswith("; frame "):
                frame = int(line.split()[2].rstrip(","))
            if line.startswith("M65") and frame:
                found = lines[number + 1]
                dwells[frame] = float(found.split("P")[1]) if found.startswith("G4") else 0.0
        for frame, exposed in enumerate(self.known.shuttered.exposed_s.tolist(), 1):
            self.assertAlmostEqual(dwells[frame], max(0.0, 0.1 + exposed - 0.2), 3)

    def test_smear_is_judged_where_shift_and_exposure_together_are_worst(self) -> None:
        beat = self.plan.beat.model_copy(update={"school": "continuous"})
        rig = self.plan.rig.model_copy(update={"axes": RINGS[1:2]})
        plan = self.plan.model_copy(update={"beat": beat, "rig": rig})
        known, told = shooting(plan), evaluate(plan)
        each = known.shift.px * known.shuttered.exposed_s[:-1] / known.timeline.rooms_s[:-1]
        self.assertAlmostEqual(told.figures["beat.smear"].value, float(each.max()), 6)

    def test_a_locked_shoot_is_exposed_as_it_is_set(self) -> None:
        known = shooting(dusk(beat=Beat(exposure_s=F(1, 15))))
        self.assertEqual(set(known.shuttered.exposed_s.tolist()), {1 / 15})
        self.assertEqual(len(known.shuttered.kinds), 1)

    def test_what_lights_the_scene_is_not_guessed(self) -> None:
        """Without a place, or with daylight kept out, nothing follows the light, and nothing is said of it."""
        place = self.plan.shoot.place.model_copy(update={"latitude_deg": None})
        nowhere = self.plan.shoot.model_copy(update={"place": place})
        for plan, missing in (
            (self.plan.model_copy(update={"shoot": nowhere}), "place"),
            (self.plan.model_copy(update={"light": Light(school="ramped", daylight=False)}), "daylight"),
        ):
            told = evaluate(plan)
            self.assertEqual(told.light.missing, (missing,))
            self.assertFalse([key for key in told.figures if key.startswith("light.")])
            self.assertFalse([snag for snag in told.snags if snag.chapter == "light"])
            known = reckon(plan).shooting
            assert known is not None
            self.assertEqual(set(known.shuttered.exposed_s.tolist()), {float(plan.beat.exposure_s)})
