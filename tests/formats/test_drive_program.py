"""The drive's program: a simulated controller runs the very text, and the rig is where it should be."""

import re
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.core.plan.rounds import PanoramaRow, StereoPair
from bridle.core.reckon.orders import steps_a_unit
from bridle.core.subjects.gcode.machine import Machine
from bridle.core.subjects.gcode.reader import GcodeError, read
from bridle.formats.crop_table import write_crops
from bridle.formats.drive_program import program
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.step_table import write_steps
from bridle.standins.program import rehearse
from tests.core.test_trigger import demo
from tests.strategies import RINGS, copies, fitted, moves, plan_of, shooting

HELD = {"rate": F(25), "frames": F(120), "interval": F(20)}
BACK = Move(
    keyframes=(Keyframe(slide_mm=30, pan_deg=12), Keyframe(slide_mm=880, pan_deg=-7)), ease_in_frames=20, legs=2
)
TURNS = Move(
    keyframes=(Keyframe(pan_deg=9), Keyframe(slide_mm=300, pan_deg=-15, passing="stop", hold_frames=8), Keyframe())
)
KIT = copies("tripod", "belt-rail", "pan-head", "full-frame-body")


def played(plan: Plan) -> Plan:
    """The plan with play in its drives."""
    axes = tuple(axis.model_copy(update={"backlash": 0.3}) for axis in plan.rig.axes)
    return plan.model_copy(update={"rig": plan.rig.model_copy(update={"axes": axes})})


class Programs(TestCase):
    def check(self, plan: Plan, pictures: int) -> None:
        lines = list(program(plan))
        told = rehearse(plan, lines)
        self.assertEqual(len(told.fired_s), pictures)
        for name, off in told.off_steps.items():
            # The program's five decimals are the only other rounding.
            axis = plan.rig.axis(name)  # type: ignore[arg-type]
            assert axis is not None
            self.assertLessEqual(off, 0.5 + 0.00001 * steps_a_unit(plan, axis), f"{name}: {off} steps")
        for name, share in told.fastest.items():
            self.assertLessEqual(share, 1 + 1e-6, name)
        if not any(snag.severity == "stop" for snag in evaluate(plan).snags):
            self.assertLess(told.late_s, 0.02)

    def test_every_frame_is_reached_within_half_a_step_and_fired_once(self) -> None:
        beat: dict[str, Any] = {"exposure_s": F(2), "wake_s": F(0)}
        for move, frames, more in (
            (BACK, 120, {}),
            (TURNS, 120, {}),
            (BACK, 120, {"beat": {**beat, "write_while_moving": False}}),
            (BACK, 120, {"beat": {**beat, "school": "continuous"}}),
            (BACK.model_copy(update={"visits": StereoPair(base_mm=50)}), 240, {"beat": beat}),
        ):
            plan = played(fitted(plan_of(HELD, move=move, **more), KIT))
            self.check(plan, frames)

    def test_a_ring_without_marks_is_told_and_never_turned_into_a_number(self) -> None:
        keys = (Keyframe(zoom_mm=24), Keyframe(zoom_mm=70))
        for ring, written in ((RINGS[5], True), (RINGS[5].model_copy(update={"ring": ()}), False)):
            plan = plan_of(HELD, move=Move(keyframes=keys), rig=Rig(axes=(ring,)))
            for write in (program, write_steps):
                if written:
                    self.assertTrue(any("90" in line for line in write(plan)))
                    continue
                with self.assertRaisesRegex(NothingToWriteError, "zoom ring has no marks"):
                    write(plan)

    def test_nothing_moves_while_the_camera_wakes_and_exposes(self) -> None:
        """Two seconds to wake, a tenth of lag, three of exposure: from the trigger on it stands still for 5.1 s."""
        beat = {"wake_s": F(2), "lag_s": F(1, 10), "exposure_s": F(3), "write_s": F(0)}
        for visits, still in ((None, [5.1] * 3), (StereoPair(base_mm=50), [5.1, 3.1, 5.1])):
            move = BACK.model_copy(update={"visits": visits})
            plan = plan_of({**HELD, "frames": F(20), "interval": F(60)}, move=move, beat=beat)
            fired, stood = -1.0, []
            for happening in Machine(rapids={axis.called: axis.fastest for axis in plan.rig.axes}).run(
                read(program(plan))
            ):
                if happening.kind == "on":
                    fired = happening.at_s
                elif happening.kind == "moved" and fired >= 0:
                    stood.append(round(happening.began_s - fired, 3))
                    fired = -1.0
            self.assertEqual(stood[: len(still)], still)

    def test_waits_are_written_to_the_millisecond_and_what_that_leaves_does_not_add_up(self) -> None:
        """A row of pictures, each waited for four tenths of a millisecond too long: never a millisecond apart."""
        keys = (Keyframe(), Keyframe(slide_mm=300))
        move = Move(keyframes=keys, visits=PanoramaRow(sweep_deg=180.0))
        beat = {"exposure_s": F(30006, 10000), "wake_s": F(0), "settle_s": F(0)}
        plan = plan_of({**HELD, "frames": F(3), "interval": F(600)}, move=move, beat=beat)
        due = shooting(plan).orders.due_s
        fired = rehearse(plan, program(plan)).fired_s
        self.assertEqual(len(fired), 15)
        self.assertLess(max(abs(at - fired[0] - then) for at, then in zip(fired, due, strict=True)), 0.001)

    @settings(max_examples=40, deadline=None)
    @given(moves, st.integers(2, 60), st.booleans(), st.sampled_from(["digital output", "coolant output"]))
    def test_of_any_move(self, move: Move, frames: int, running: bool, shutter: Any) -> None:
        rig = Rig(axes=RINGS).model_copy(
            update={"controller": Rig().controller.model_copy(update={"shutter": shutter})}
        )
        beat = {"school": "continuous"} if running else {}
        plan = plan_of({**HELD, "frames": F(frames), "interval": F(900)}, move=move, rig=rig, beat=beat)
        assume(not (running and move.visits is not None))
        self.check(plan, frames * len(shooting(plan).cycle.travels_s))

    def test_the_demo_shoots_end_when_they_are_to_on_axes_that_speed_up_and_slow_down(self) -> None:
        """Counted at top speed alone, Harbour refloat would end 133 s late: 8 frames."""
        for name in ("harbour-refloat", "fern-frond-uncurling", "lamps-along-the-quay", "moonlight-over-the-salt-barn"):
            with self.subTest(name):
                plan = demo(name)
                told = rehearse(plan, program(plan))
                self.assertLess(told.late_s, 0.02)

    def test_the_frame_to_compare_shows_a_clock_that_is_wrong(self) -> None:
        """A clock a thousandth too fast is the seconds off that are named, at the frame that is named."""
        for plan in (demo("harbour-refloat"), plan_of({**HELD, "frames": F(5)})):
            said = " ".join(line.strip() for line in program(plan) if "Clock check" in line or "early" in line)
            found = re.findall(r"frame (\d+) .* (\d+) min (\d+) s .* (\d+) s early", said)
            frame, minutes, seconds, off = map(int, found[0])
            due = shooting(plan).timeline.starts_s[frame - 1]
            self.assertAlmostEqual(60 * minutes + seconds, due, delta=0.5)
            last = frame == len(shooting(plan).timeline.starts_s)
            self.assertTrue(last or abs(due / 1000 - off) < 0.5)

    def test_what_cannot_be_told(self) -> None:
        with self.assertRaises(NothingToWriteError):
            program(plan_of({"rate": F(25)}))
        with self.assertRaises(NothingToWriteError):
            program(plan_of(HELD, rig=Rig(axes=())))
        with self.assertRaisesRegex(NothingToWriteError, "need stops"):
            program(plan_of(HELD, move=Move(visits=StereoPair()), beat={"school": "continuous"}))

    def test_tables_have_a_row_for_each_picture(self) -> None:
        row = plan_of(HELD, move=Move(visits=PanoramaRow(sweep_deg=120)))
        lines = list(write_steps(row))
        self.assertEqual(len(lines), 1 + 120 * 3)
        self.assertEqual(lines[1].split(",")[:3], ["1", "1", "0.000"])
        self.assertEqual(list(write_crops(row))[-1].strip(), "120,0,0,0,6000,4000,6000,4000")


# Lag of 0.06 s, two seconds of exposure; 150 mm take six seconds at 25 mm/s and 0.3125 s more to speed up and slow down
# at 80 mm/s²; the rest of the slot is waited for.
STOPPING = """\
; Trial
; 3 pictures in 60 s, shoot, move, shoot
; X: slide, mm, from 100.0000 to 400.0000
;    set the controller to top speed 25 mm/s, acceleration 80 mm/s^2
; Y: pan, degrees, from 0.0000 to 30.0000
;    set the controller to top speed 20 degrees/s, acceleration 40 degrees/s^2
; Before it starts: every axis at its reference, nothing in the way, hands off. Watch the first ten frames.
; Clock check: frame 3 is due 0 min 40 s after frame 1.
; If it is 1 s early or late, correct the controller's clock or its acceleration.
G21 ; millimetres
G90 ; absolute positions
G93 ; every move says how many of it go into a minute
M65 P0
; to the first position, always from the same side
G1 X97.80000 Y-1.10000 F1.66666666
G1 X100.00000 Y0.00000 F340.909090
G4 P0.800
; camera: 2 s, ISO 100, f/8
; frame 1
M64 P0
G4 P0.200
M65 P0
G4 P1.860
G1 X250.00000 Y15.00000 F10.0000000
G4 P11.627
; frame 2
M64 P0
G4 P0.200
M65 P0
G4 P1.860
G1 X400.00000 Y30.00000 F10.0000000
G4 P11.628
; frame 3
M64 P0
G4 P0.200
M65 P0
G4 P1.860
M2
"""
# Going on it fires on the way: 0.2 s of the shutter, then the rest of the way to the next frame in 19.8 s.
RUNNING = """\
; frame 1
M62 P0
G1 X101.50000 Y0.15000 F300.000000
M63 P0
G1 X250.00000 Y15.00000 F3.03030303
; frame 2
M62 P0
G1 X251.50000 Y15.15000 F300.000000
M63 P0
G1 X400.00000 Y30.00000 F3.03030303
"""


class Text(TestCase):
    """The very lines that a controller is given."""

    def lines(self, **beat: Any) -> str:
        move = Move(keyframes=(Keyframe(slide_mm=100), Keyframe(slide_mm=400, pan_deg=30)))
        held = {"rate": F(25), "frames": F(3), "interval": F(20)}
        return "".join(program(plan_of(held, rig=Rig(axes=RINGS[:2]), move=move, beat={"exposure_s": F(2), **beat})))

    def test_of_a_rig_that_stops_for_each_picture(self) -> None:
        self.assertEqual(self.lines(), STOPPING)

    def test_of_one_that_goes_on(self) -> None:
        self.assertIn(RUNNING, self.lines(school="continuous"))
        self.assertIn(
            "; 3 pictures in 60 s, continuous: it runs through, firing on the way\n", self.lines(school="continuous")
        )

    def test_the_times_of_a_slot_add_up_to_the_interval(self) -> None:
        between = STOPPING.split("; frame 2\n")[1].split("; frame 3")[0].splitlines()
        dwells = sum(float(line.split("P")[1]) for line in between if line.startswith("G4"))
        moves = sum(60 / float(line.split("F")[1]) for line in between if line.startswith("G1"))
        self.assertAlmostEqual(dwells + moves + 25 / 80, 20, 2)


class Interpreter(TestCase):
    def test_moves_from_rest_take_as_long_as_their_ramps(self) -> None:
        """Of 100 mm at 20 mm/s and 40 mm/s²: five seconds, and a quarter at each end that is at rest."""
        for text, seconds in (
            ("G1 X100 F12\nG4 P0", 5.5), ("G1 X100 F12\nM62 P0\nG1 X200 F12\nM64 P0", 10.5),
            ("G1 X100 F12\nG1 X100 F12\nM2", 10.25), ("G1 X1 F600\nM2", 2 * (1 / 40) ** 0.5),
            ("G1 X100 A10 F12\nM2", 6.0), ("G1 X1 F600\nG1 X100 F6\nG4 P1", (2 / 40) ** 0.5 + 1 + 10 + 9.9 / 80),
        ):  # fmt: skip
            with self.subTest(text):
                machine = Machine(rapids={}, gains={"X": 40.0, "A": 2.0})
                for _ in machine.run(read(["G93", *text.splitlines()])):
                    pass
                self.assertAlmostEqual(machine.now_s, seconds, 9)

    def test_what_it_does(self) -> None:
        machine = Machine(rapids={"X": 10.0})
        text = """%
        N10 G21 G90 (a note; with a mark) ; another
        g1x10 y20 f600*35
        G91 G1 X5
        G4 P1.5
        M64 P2
        G93 G1 X.5 F30
        G20 G90 G94
        G0 X1
        G92 X0
        M2
        G99 nothing after the end is read"""
        told = list(machine.run(read(text.splitlines()[:-1])))
        self.assertEqual([(one.line, one.kind) for one in told][2], (6, "on"))
        # 22.4 mm at 10 mm/s, 5 mm, a dwell, half a minute's thirtieth, then an inch from 15.5 mm at 10 mm/s.
        wanted = 500**0.5 / 10 + 0.5 + 1.5 + 2 + (25.4 - 15.5) / 10
        self.assertAlmostEqual(machine.now_s, wanted, 9)
        self.assertEqual(machine.position["X"], 0)

    def test_what_it_refuses(self) -> None:
        for text, stood in (
            ("G1 X1", "G1"), ("X5", "a target without G0 or G1"), ("G2 X1 F5", "G2"), ("M104 S200", "M104"),
            ("G93 G1 X4", "G1"), ("G4", "G4"), ("hello", "hello"), ("G1 X=4", "X=4"), ("M64", "P"),
        ):  # fmt: skip
            with self.assertRaises(GcodeError) as caught:
                list(Machine(rapids={}).run(read(["", text])))
            self.assertEqual((caught.exception.line, caught.exception.stood), (2, stood))
