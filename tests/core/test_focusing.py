"""Focus stacks that a motor on the focus ring goes through: each order, what the ring does, what people read."""

import csv
import io
import math
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import numpy as np

from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat, Stack
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Axis, Rig
from bridle.core.plan.rounds import Station, Stations
from bridle.core.run.programme import programme
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time.cycle import step_time
from bridle.formats.drive_program import program
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.step_table import write_steps
from bridle.standins.program import rehearse
from tests.core.test_agree import run_of
from tests.core.test_card import card
from tests.provoked import fixes_work
from tests.strategies import RINGS, plan_of, shooting

HELD = {"rate": F(25), "frames": F(6)}
NEAR, FAR = 520.0, 4000.0
# A ring of 90° from half a metre to ten; the turn goes by the reciprocal of the distance.
FOCUS = RINGS[4].model_copy(update={"backlash": 0.5, "top_speed": 5.0, "acceleration": 10.0})
BEAT = Beat(
    wake_s=F(1), lag_s=F(1, 10), exposure_s=F(2), write_s=F(1), settle_s=F(3), write_while_moving=False,
    stack=Stack(near_mm=NEAR, far_mm=FAR, overlap=F(0), settle_s=F(1, 4)),
)  # fmt: skip


def stacked(focus: Axis | None = FOCUS, interval: int = 120, **sections: Any) -> Plan:
    axes = (RINGS[0], RINGS[1], *([focus] if focus else []))
    move = Move(keyframes=(Keyframe(slide_mm=100, focus_mm=700), Keyframe(slide_mm=400, focus_mm=700)))
    return plan_of({**HELD, "interval": F(interval)}, **{"rig": Rig(axes=axes), "move": move, "beat": BEAT, **sections})


def turned(distance: float) -> float:
    return 90 * (1 / 500 - 1 / distance) / (1 / 500 - 1 / 10_000)


def distances() -> list[float]:
    """Where to focus; that all is sharp between them is held against a walk of the limits elsewhere."""
    return lens.focus_distances_mm(
        NEAR, FAR, shooting(stacked(None)).cycle.exposures.positions, 35, 8, math.hypot(36, 24) / 1500
    )


class Driven(TestCase):
    def test_the_ring_stands_at_each_distance_when_its_picture_is_fired(self) -> None:
        """In the orders, in the program on axes with play, and in the run; at all of them the carriage waits."""
        plan, wanted = stacked(), [turned(distance) for distance in distances()]
        count = len(wanted)
        self.assertGreater(count, 4)
        say = shooting(plan).orders
        self.assertEqual((len(say), say.positions), (6 * count, count))
        np.testing.assert_allclose(say.targets["focus"].reshape(6, count), [wanted] * 6, atol=1e-6)
        slide = say.targets["slide"].reshape(6, count)
        self.assertTrue((np.ptp(slide, axis=1) == 0).all() and (np.diff(slide[:, 0]) > 0).all())
        lines = list(program(plan))
        reached = rehearse(plan, lines)
        np.testing.assert_allclose(reached.loads["focus"], say.targets["focus"], atol=0.001)
        np.testing.assert_allclose(np.array(reached.fired_s) - reached.fired_s[0], say.due_s, atol=0.001)
        np.testing.assert_allclose(run_of(plan), say.due_s, atol=0.001)
        self.assertIn(f"; frame 2, focus {count}\n", lines)

    def test_a_beat_holds_every_position_with_its_lag_its_writing_and_the_ring(self) -> None:
        """Between positions a picture is written, the ring turns and settles; then ring and carriage go back and on."""
        shot = shooting(stacked())
        ring: Floats = shot.orders.targets["focus"][: len(shot.stack_mm)]
        ways = [step_time(far, 5, 10) + 0.25 for far in np.diff(ring).tolist()]
        # The first way up again takes up the play of half a degree, and so does the way back.
        ways[0] = step_time(float(ring[1] - ring[0]) + 0.5, 5, 10) + 0.25 if ring[0] else ways[0]
        back = max(step_time(float(ring[-1] - ring[0]) + 0.5, 5, 10), step_time(60.0, 25, 80)) + 3
        need = 1 + len(ring) * (0.1 + 2 + 1) + sum(ways) + back
        self.assertAlmostEqual(shot.cycle.need_s, need, 6)

    def test_a_bracket_at_every_position_of_every_station(self) -> None:
        stations = tuple(Station(name=name, slide_mm=x) for name, x in (("A", 100.0), ("B", 300.0)))
        beat = BEAT.model_copy(update={"bracket_frames": 3, "bracket_step_stops": 1.0})
        plan = stacked(interval=300, beat=beat, move=Move(visits=Stations(stations=stations)))
        say, count = shooting(plan).orders, len(distances())
        self.assertEqual(len(say), 6 * 2 * count)
        self.assertEqual(say.called(count + 2), "place 2, focus 3")
        np.testing.assert_allclose(say.targets["slide"][: 2 * count], [100] * count + [300] * count)
        self.assertEqual(len(programme(plan).begun_s(0)), 3)
        np.testing.assert_allclose(run_of(plan), say.due_s, atol=0.001)

    def test_table_and_card_tell_each_position(self) -> None:
        plan, count = stacked(), len(distances())
        rows = list(csv.DictReader(io.StringIO("".join(write_steps(plan)))))
        self.assertEqual([row["focus"] for row in rows[: count + 1]], [*map(str, range(1, count + 1)), "1"])
        self.assertEqual({row["place"] for row in rows}, {"1"})
        for row, distance in zip(rows, distances(), strict=False):
            self.assertAlmostEqual(float(row["focus_deg"]), turned(distance), delta=0.0001)
        told = card(plan)["Focus stack, near to far"]
        self.assertEqual(len(told), 2 * count)

    def test_without_a_motor_on_the_ring_the_camera_steps_by_itself(self) -> None:
        plan = stacked(focus=None)
        say = shooting(plan).orders
        self.assertEqual((len(say), say.positions), (6, 1))
        self.assertNotIn("focus", "".join(program(plan)).replace("focus stack", ""))
        self.assertEqual([snag.code for snag in evaluate(plan).snags if snag.code.startswith("stack-")], [])
        self.assertEqual(shooting(stacked()).cycle.exposures.positions, 1)
        self.assertEqual(shooting(plan).cycle.exposures.positions, len(distances()))

    def test_a_ring_without_marks_is_never_a_number(self) -> None:
        plan = stacked(focus=FOCUS.model_copy(update={"ring": ()}))
        self.assertIn("ring-unmarked", [snag.code for snag in evaluate(plan).snags])
        for write in (program, write_steps):
            with self.assertRaisesRegex(NothingToWriteError, "the focus ring has no marks"):
                list(write(plan))

    def test_a_shorter_way_of_the_ring_is_looked_for_with_all_axes(self) -> None:
        """At the long end of the zoom the stack begins inside the focal length: no motor steps it; the ring moves."""
        beat = BEAT.model_copy(update={"stack": Stack(near_mm=40, far_mm=500)})
        keys = (Keyframe(focus_mm=600, zoom_mm=24), Keyframe(focus_mm=9000, zoom_mm=90), Keyframe(focus_mm=700))
        held = {**HELD, "frames": F(40), "interval": F(2, 5)}
        zoomed = plan_of(held, beat=beat, rig=Rig(axes=(FOCUS, RINGS[5])), move=Move(keyframes=keys))
        snags = [snag for snag in evaluate(zoomed).snags if snag.code == "axis-too-slow"]
        self.assertIn("focus", [snag.slots["axis"].value for snag in snags])
        for snag in snags:
            fixes_work(self, zoomed, snag)

    def test_taking_the_stack_away_gives_the_keyframes_their_focus_back(self) -> None:
        plan = stacked(move=Move(keyframes=(Keyframe(focus_mm=700), Keyframe(focus_mm=2000))))
        (note,) = [snag for snag in evaluate(plan).snags if snag.code == "stack-holds-focus"]
        self.assertEqual(float(shooting(plan).positions["focus"][-1]), shooting(plan).stack_mm[0])
        bare, _ = apply(plan, [Edit(path="beat.stack", value=None)])
        self.assertEqual(apply(plan, note.fixes[1].edits)[0], bare)
        self.assertAlmostEqual(float(shooting(bare).positions["focus"][-1]), 2000)
        tried = shooting(plan).tried(beat=bare.beat)
        self.assertAlmostEqual(float(tried.positions["focus"][-1]), 2000)
