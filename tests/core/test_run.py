"""A run: whatever is asked and however often the server restarts, each frame is taken once."""

from fractions import Fraction as F
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move
from bridle.core.run.events import Arrived, Asked, AwaitCall, Called, Event, Fire, Note, Restarted, Shot
from bridle.core.run.machine import RunState, step
from bridle.core.run.programme import LEAD_S, NotReadyError, programme
from bridle.core.subjects.time.pacing import pace
from bridle.standins.bench import Bench, new_bench
from tests.strategies import plan_of, ramp

MOVE = Move(keyframes=(Keyframe(slide_mm=10), Keyframe(slide_mm=400, pan_deg=20)), ease_in_frames=3)
FRAMES = 12


def small(beat: Beat | None = None) -> Plan:
    held = {"frames": F(FRAMES), "interval": F(8), "rate": F(25)}
    return plan_of(held, move=MOVE, beat=beat or Beat(exposure_s=F(1)))


class Rehearsal:
    """A run on the bench, with a server that can be killed after any event, before or after it was recorded."""

    def __init__(self, plan: Plan) -> None:
        self.programme = programme(plan)
        self.state = RunState()
        self.bench: Bench = new_bench(self.programme, 0, self.programme.place(0), 0.0)
        self.notes: list[tuple[float, Note]] = []

    def hear(self, event: Event) -> None:
        self.state, commands = step(self.programme, self.state, event, self.bench.now_s)
        for command in commands:
            if isinstance(command, Note):
                self.notes.append((self.bench.now_s, command))
            self.bench.obey(command)

    def go(self, events: int = 10_000) -> None:
        for _ in range(events):
            if self.bench.next_at() is None:
                return
            self.hear(self.bench.pop())

    def kill(self) -> None:
        """Everything under way is forgotten but the recorded state and the camera's own count."""
        if self.bench.next_at() is not None and isinstance(self.bench._coming[0][2], Shot):
            self.bench.pop()  # the camera has taken it; nobody was there to hear
        now = self.bench.now_s + 3
        place = self.programme.place(min(self.state.taken, FRAMES - 1))
        self.bench = new_bench(self.programme, self.bench.camera.frames, place, now)
        self.hear(Restarted(self.bench.camera.frames))

    def taken(self) -> list[int | None]:
        return [note.frame for _, note in self.notes if note.kind == "taken"]


class Runs(TestCase):
    def test_an_undisturbed_run_keeps_the_grid(self) -> None:
        run = Rehearsal(small())
        run.hear(Asked("start"))
        run.go()
        shots = [at for at, note in run.notes if note.kind == "taken"]
        for frame, at in enumerate(shots):
            self.assertAlmostEqual(at, LEAD_S + frame * 8 + 0.06 + 1, 6)
        self.assertEqual((run.state.phase, len(shots), run.state.shift_s), ("finished", FRAMES, 0))

    def _shots(self, plan: Plan) -> tuple[Rehearsal, list[float]]:
        run = Rehearsal(plan)
        run.hear(Asked("start"))
        run.go()
        return run, [at for at, note in run.notes if note.kind == "taken"]

    def test_a_frame_is_taken_when_it_is_called_and_no_sooner(self) -> None:
        """Called by layers, the run waits for each; a call that comes before the rig is there is not lost."""
        layers = {"frames": {"source": "layers", "layers_s": ["60", "45", "90", "30"]}}
        plan = plan_of({"rate": F(25)}, clip=layers, move=MOVE, beat=Beat(exposure_s=F(1)))
        run, shots = self._shots(plan)
        self.assertEqual((run.programme.calls, run.state.phase), ("layer", "finished"))
        np.testing.assert_allclose(np.array(shots) - LEAD_S - 1.06, [0, 45, 135, 165], atol=1e-9)
        # By hand: nothing happens until somebody calls.
        told, state = programme(plan), RunState(phase="preparing")
        state, commands = step(told, state, Arrived(0), 7.0)
        self.assertEqual((state.phase, commands), ("waiting", [Note("late", 0, 2.0), AwaitCall(0, 7.0)]))
        self.assertEqual(step(told, state, Called(1), 8.0), (state, []))
        self.assertEqual(step(told, state, Called(0), 9.0)[1], [Fire(0)])
        early, commands = step(told, RunState(phase="preparing"), Called(0), 3.0)
        self.assertEqual((early.called, commands), (True, []))
        early, commands = step(told, early, Arrived(0), 4.0)
        self.assertEqual((early.phase, early.called, commands), ("exposing", False, [Fire(0)]))

    def test_an_interval_that_changes_is_kept_frame_by_frame(self) -> None:
        changing = {"frames": ramp((40, 8), (40, 4), blend=4)}
        plan = plan_of({"rate": F(25)}, move=MOVE, beat=Beat(exposure_s=F(1)), clip=changing)
        run, shots = self._shots(plan)
        due = [LEAD_S + at / 1000 for at in pace([(F(40), F(8)), (F(40), F(4))], 4).starts_ms[:-1]]
        self.assertEqual(len(shots), 15)
        for at, planned in zip(shots, due, strict=True):
            self.assertAlmostEqual(at - 0.06 - 1, planned, 6)
        self.assertEqual((run.state.phase, run.state.shift_s), ("finished", 0))

    def test_a_continuous_run_waits_for_no_axis(self) -> None:
        held = {"frames": F(FRAMES), "interval": F(2), "rate": F(25)}
        slow = Beat(exposure_s=F(1, 2), settle_s=F(5), school="continuous")
        run, shots = self._shots(plan_of(held, move=MOVE, beat=slow))
        self.assertAlmostEqual(shots[-1] - shots[0], 2 * (FRAMES - 1), 6)
        self.assertEqual(run.state.shift_s, 0)

    def test_a_bracket_is_one_frame_and_its_gaps_take_time(self) -> None:
        beat = Beat(exposure_s=F(1), bracket_frames=3, bracket_gap_s=F(1, 2))
        _, shots = self._shots(small(beat))
        self.assertAlmostEqual(shots[0], LEAD_S + 0.06 + 3 + 2 * 0.5, 6)

    def test_a_buffer_takes_what_it_can_and_then_makes_frames_late(self) -> None:
        held = {"frames": F(20), "interval": F(2), "rate": F(25)}
        kept, _ = self._shots(plan_of(held, beat=Beat(write_s=F(3), buffer_frames=30)))
        self.assertEqual(kept.state.shift_s, 0)
        full, shots = self._shots(plan_of(held, beat=Beat(write_s=F(3), buffer_frames=4)))
        self.assertEqual(len(shots), 20)
        self.assertGreater(full.state.shift_s, 0)

    def test_a_beat_that_does_not_fit_makes_frames_late(self) -> None:
        run = Rehearsal(small(Beat(exposure_s=F(10))))
        run.hear(Asked("start"))
        run.go()
        late = [note for _, note in run.notes if note.kind == "late"]
        self.assertEqual((len(late), len(run.taken())), (FRAMES - 1, FRAMES))
        self.assertGreater(run.state.shift_s, 20)

    def test_an_open_clip_cannot_be_run(self) -> None:
        with self.assertRaises(NotReadyError):
            programme(plan_of({"interval": F(9)}))

    def test_a_camera_that_disagrees_stops_the_run_until_someone_looked(self) -> None:
        run = Rehearsal(small())
        run.hear(Asked("start"))
        run.go(20)
        before = run.state.taken
        run.hear(Restarted(before + 5))
        self.assertEqual(run.state.phase, "fault")
        run.hear(Asked("go on"))
        run.go()
        self.assertEqual(run.taken(), list(range(FRAMES)))

    @settings(max_examples=200, deadline=None)
    @given(
        st.lists(st.tuples(st.integers(0, 9), st.sampled_from(["pause", "go on", "kill", "start"])), max_size=25),
        st.booleans(),
    )
    def test_each_frame_is_taken_once(self, doings: list[tuple[int, str]], overlap: bool) -> None:
        run = Rehearsal(small(Beat(exposure_s=F(1), write_while_moving=overlap)))
        run.hear(Asked("start"))
        for events, what in doings:
            run.go(events)
            if what == "kill":
                run.kill()
            else:
                run.hear(Asked(what))  # type: ignore[arg-type]
        run.hear(Asked("go on"))
        run.go()
        self.assertEqual(run.taken(), list(range(FRAMES)))
        self.assertEqual((run.state.phase, run.bench.camera.frames), ("finished", FRAMES))

    @settings(deadline=None)
    @given(st.integers(0, 40), st.integers(0, 3))
    def test_stop_keeps_what_was_taken(self, before: int, kills: int) -> None:
        run = Rehearsal(small())
        run.hear(Asked("start"))
        run.go(before)
        for _ in range(kills):
            run.kill()
        run.hear(Asked("stop"))
        run.go()
        self.assertIn(run.state.phase, ("stopped", "finished"))
        self.assertEqual(run.taken(), list(range(run.bench.camera.frames)))
