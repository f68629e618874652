# ruff: noqa: E501
"""The simulated devices, timed by hand: a camera with and without a buffer, a controller, an axis with play."""

import math
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.core.run.events import Arrived, Due, Fire, MoveTo, Shot, WakeAt, Written
from bridle.core.run.programme import Programme, programme
from bridle.core.subjects.gcode.reader import GcodeError
from bridle.formats.drive_program import program
from bridle.standins.bench import new_bench
from bridle.standins.camera import Camera
from bridle.standins.controller import Controller
from bridle.standins.jog import JogRig, UnreferencedError
from bridle.standins.program import Play, rehearse
from tests.strategies import RINGS, copies, fitted, plan_of

HELD = {"rate": F(25), "frames": F(11), "interval": F(20)}
ALONG = Move(keyframes=(Keyframe(slide_mm=100), Keyframe(slide_mm=400, pan_deg=30)))


def made(**beat: Any) -> Programme:
    usual = {"wake_s": F(1, 2), "lag_s": F(1, 10), "exposure_s": F(2), "write_s": F(3), "settle_s": F(1)}
    return programme(plan_of(HELD, move=ALONG, beat=Beat.model_validate(usual | beat)))


class Cameras(TestCase):
    def test_from_the_trigger_to_the_closed_shutter(self) -> None:
        self.assertAlmostEqual(Camera(made()).until_shot_s(0), 0.5 + 0.1 + 2)

    def test_without_a_buffer_it_waits_for_the_card(self) -> None:
        self.assertEqual(Camera(made()).until_written_s(10), 3)
        self.assertEqual(Camera(made(noise_reduction=True, merge_s=F(1))).until_written_s(10), 2 + 1 + 3)

    def test_a_buffer_takes_frames_until_it_is_full_and_then_as_fast_as_the_card(self) -> None:
        """Two pictures' room, three seconds each to write: the third frame within a moment waits for the first."""
        camera = Camera(made(buffer_frames=2))
        # Each was begun 2 s before its shutter closed: written by 1, 4, 7 and 10. With room for two, the next may
        # open, 0.6 s after its trigger, when all but one are written.
        waits = [camera.until_written_s(0.0) for _ in range(4)]
        for wait, wanted in zip(waits, (0, 0.4, 3.4, 6.4), strict=True):
            self.assertAlmostEqual(wait, wanted)
        self.assertEqual(camera.until_written_s(20.0), 0, "by then all of it is written")

    def test_it_counts_by_itself(self) -> None:
        camera = Camera(made(), frames=7)
        camera.take()
        self.assertEqual(camera.frames, 8)


class Controllers(TestCase):
    def test_it_stands_still_when_its_slowest_axis_has_settled(self) -> None:
        """30 mm at 25 mm/s and 80 mm/s²; 3° of pan take less. Then a second to settle."""
        controller = Controller(made(), {"slide": 100.0, "pan": 0.0})
        self.assertAlmostEqual(controller.move_to(1), 30 / 25 + 25 / 80 + 1)
        self.assertAlmostEqual(controller.position["slide"], 130)
        self.assertEqual(controller.move_to(1), 0, "it is there: nothing moves, and nothing settles")

    def test_all_the_time_under_way_it_passes_where_it_has_to_be(self) -> None:
        # How fast it goes nobody has said: it settles all the same.
        programme = made()
        programme.speeds.update(slide=(math.inf, math.inf), pan=(math.inf, math.inf))
        controller = Controller(programme, {"slide": 100.0, "pan": 0.0})
        self.assertEqual([controller.move_to(frame) for frame in (1, 1)], [1, 0])
        controller = Controller(made(school="continuous"), {})
        self.assertEqual(controller.move_to(10), 0)
        self.assertAlmostEqual(controller.position["slide"], 400)


class Benches(TestCase):
    def test_what_follows_comes_in_the_order_of_time(self) -> None:
        bench = new_bench(made(), 0, {"slide": 100.0, "pan": 0.0}, 0.0)
        bench.obey(Fire(0))
        bench.obey(WakeAt(1, 4.0))
        bench.obey(MoveTo(1))
        came = []
        while bench.next_at() is not None:
            event = bench.pop()
            came.append((type(event), round(bench.now_s, 4)))
        # Arrived after the move and its settling, shot after waking, lag and exposure, written three seconds later.
        self.assertEqual(came, [(Arrived, 2.5125), (Shot, 2.6), (Due, 4.0), (Written, 5.6)])
        self.assertEqual(bench.camera.frames, 1)

    def test_nothing_comes_before_now(self) -> None:
        bench = new_bench(made(), 0, {}, 50.0)
        bench.obey(WakeAt(3, 12.0))
        bench.pop()
        self.assertEqual(bench.now_s, 50)


class Jogging(TestCase):
    plan: Plan = fitted(plan_of(HELD), copies("tripod", "belt-rail", "pan-head"))

    def test_it_goes_nowhere_before_it_knows_where_it_is(self) -> None:
        rig = JogRig()
        with self.assertRaisesRegex(UnreferencedError, "slide does not know where it is"):
            rig.by(self.plan, "slide", 10)
        with self.assertRaisesRegex(UnreferencedError, "no tilt"):
            rig.reference(self.plan, "tilt")
        # From wherever it was: it may be as far as the other end.
        self.assertAlmostEqual(rig.reference(self.plan, "slide"), 900 / 25 + 25 / 80)
        self.assertEqual(rig.at, {"slide": 0})

    def test_it_goes_in_whole_steps_and_stops_at_its_ends(self) -> None:
        """80.184 steps a millimetre, as the card's correction has it."""
        rig = JogRig()
        rig.reference(self.plan, "slide")
        self.assertAlmostEqual(rig.go(self.plan, "slide", 100), 100 / 25 + 25 / 80, 3)
        steps = 80 * 1.0023
        self.assertAlmostEqual(rig.at["slide"], round(100 * steps) / steps, 9)
        self.assertNotEqual(rig.at["slide"], 100)
        for _ in range(3):
            rig.by(self.plan, "slide", 400)
        self.assertAlmostEqual(rig.at["slide"], 900, 2)
        self.assertEqual(rig.by(self.plan, "slide", -9000) > 0, True)
        self.assertEqual(rig.at["slide"], 0)


class Playing(TestCase):
    def test_the_load_follows_at_either_end_of_the_play(self) -> None:
        """Half a millimetre of play: on the way up it stands where the motor does, on the way down half of one above."""
        play = Play(steps_a_unit=10, backlash=0.5, load=3.0)
        for motor, load in (
            (10, 10),
            (10.3, 10.3),
            (10.1, 10.3),
            (9.8, 10.3),
            (9.7, 10.2),
            (9, 9.5),
            (9.4, 9.5),
            (9.6, 9.6),
        ):
            play.drive_to(motor)
            self.assertAlmostEqual(play.load, load, 9, f"motor at {motor}")

    def test_the_motor_counts_whole_steps(self) -> None:
        play = Play(steps_a_unit=10, backlash=0, load=0)
        play.drive_to(1.26)
        self.assertAlmostEqual(play.load, 1.3)

    def test_a_program_is_rehearsed_on_time(self) -> None:
        """Eleven pictures twenty seconds apart; the rig lies within a step of each target when they are fired."""
        plan = plan_of(HELD, rig=Rig(axes=RINGS[:2]), move=ALONG, beat=Beat(exposure_s=F(2)))
        told = rehearse(plan, program(plan))
        self.assertEqual(len(told.fired_s), 11)
        for number, fired in enumerate(told.fired_s):
            self.assertAlmostEqual(fired - told.fired_s[0], 20 * number, delta=0.02)
        self.assertEqual(set(told.loads), {"slide", "pan"})
        for number in range(11):
            self.assertAlmostEqual(told.loads["slide"][number], 100 + 30 * number, delta=0.0011)
        self.assertTrue(0.9 < told.fastest["slide"] <= 1 + 1e-9)
        self.assertLess(told.late_s, 0.02)
        self.assertGreater(told.ends_s, told.fired_s[-1] + 2)

    def test_a_program_that_does_something_else_is_found_out(self) -> None:
        """The same program with one way a millimetre longer, one picture later, one left out, and one line too many."""
        plan = plan_of(HELD, rig=Rig(axes=RINGS[:2]), move=ALONG, beat=Beat(exposure_s=F(2)))
        lines = list(program(plan))
        here = next(n for n, line in enumerate(lines) if "X220" in line)
        longer = [*lines[:here], lines[here].replace("X220", "X221"), *lines[here + 1 :]]
        self.assertGreater(rehearse(plan, longer).off_steps["slide"], 990)
        waits = next(n for n, line in enumerate(lines) if line.startswith("G4") and n > here)
        later = [*lines[:waits], "G4 P1.5\n", *lines[waits:]]
        self.assertAlmostEqual(rehearse(plan, later).late_s, 1.5, delta=0.02)
        with self.assertRaises(GcodeError) as caught:
            rehearse(plan, [*lines[:here], "G38.2 X1 F100\n", *lines[here:]])
        self.assertEqual(caught.exception.line, here + 1)

    def test_time_is_not_made_by_a_program(self) -> None:
        """A move that is faster than its axis shows in the share of the top speed."""
        plan = plan_of({**HELD, "interval": F(4)}, rig=Rig(axes=RINGS[:2]), move=ALONG, beat=Beat(school="continuous"))
        told = rehearse(plan, program(plan))
        self.assertAlmostEqual(told.fastest["slide"], 30 / 4 / 25, delta=0.01)
        self.assertTrue(math.isfinite(told.ends_s))
