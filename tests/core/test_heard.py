"""The simulated camera at the end of a chain takes the frames that a second one takes, which knows only ticks."""

from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import assume, given
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.signals import signal
from bridle.core.run.events import Asked, Note, Silent
from bridle.core.run.machine import RunState, step
from bridle.core.run.programme import programme
from bridle.standins.bench import new_bench
from bridle.standins.listener import Listener, tried
from tests.core.test_wiring import second
from tests.ticks import PRESSES, Ticking
from tests.wired import BODY, CHAINS, chain


def ticking(plan: Plan, busy_s: float, every_s: float) -> Ticking:
    """The second camera at the end of the same chain."""
    found, sees = reckon(plan).shooting, second(plan)
    assert found is not None and found.hearing is not None and sees is not None
    camera = found.hearing.wiring.parts.camera
    assert camera is not None
    coupling = found.hearing.wiring.parts.coupling
    late = float(coupling.release_s - plan.beat.couple_s) if coupling else 0.0
    return Ticking(
        sees,
        float(plan.beat.half_s),
        float(plan.beat.press_s) + late,
        every_s,
        least_s=float(camera.least_press_s or 0) if camera.hears != "headset button" else 0.0,
        busy_s=busy_s,
        sleeps_s=float(camera.sleeps_after_s),
        wake_s=float(plan.beat.wake_s),
        half_first=camera.half_first == "yes" and camera.hears == "half and full press",
        key=camera.fires_on if camera.hears == "headset button" else "",
    )


def listened(plan: Plan, busy_s: float, every_s: float) -> list[int]:
    """The presses at which the stand-in takes a frame, counted from 1."""
    shooting = reckon(plan).shooting
    assert shooting is not None and shooting.hearing is not None
    listener = Listener(signal(plan, shooting.hearing))
    return [n for n in range(1, PRESSES + 1) if listener.press(n * every_s, busy_s).frames]


class TheSame(TestCase):
    """Two cameras at the end of one chain."""

    def test_every_chain_of_the_table_brings_the_frames_that_it_brings(self) -> None:
        """Right chains take all, wrong ones none; one that is held fires when the press is over."""
        for name, (plan, _, _, verdict) in CHAINS.items():
            if verdict == "not known":
                continue
            with self.subTest(name):
                taken = listened(plan, 2.4, 10.0)
                self.assertEqual(taken, ticking(plan, 2.4, 10.0).frames())
                if verdict == "takes":
                    self.assertEqual(taken, list(range(1, PRESSES + 1)))
                if verdict in ("nothing", "focus alone", "half press missing", "wrong key"):
                    self.assertEqual(taken, [])

    @given(
        st.sampled_from(["wired remote", "switch", "pin and optocoupler", "relay, its normally closed contact",
                         "switch on the shutter alone", "two optocouplers", "focus and shutter changed over"]),
        st.sampled_from([0, F(1, 5), F(2, 5), F(3, 5)]),
        st.sampled_from([F(1, 20), F(1, 10), F(1, 5), F(1, 2), F(4, 5), 3]),
        st.sampled_from([0, 2, 5]),
        st.sampled_from([1.5, 4.0, 7.5]),
        st.sampled_from([0.4, 2.4]),
    )  # fmt: skip
    def test_so_does_any_press(self, name: str, half: Any, press: Any, sleeps: int, every: float, busy: float) -> None:
        """Too short, too long, asleep, woken or not, still at work."""
        # A press that goes on beyond the next one is no press of its own; what it does at its end nobody sees.
        assume(press < every or "closed" not in name)
        plan = CHAINS[name][0]
        copies = [
            copy.model_copy(update={"card": copy.card.model_copy(update={"sleeps_after_s": F(sleeps)})})
            if copy.card.kind == "body"
            else copy
            for copy in plan.kit.copies
        ]
        beat = plan.beat.model_copy(update={"half_s": F(half), "press_s": F(press)})
        plan = plan.model_copy(update={"beat": beat, "kit": plan.kit.model_copy(update={"copies": tuple(copies)})})
        self.assertEqual(listened(plan, busy, every), ticking(plan, busy, every).frames())


def rehearsed(plan: Plan) -> tuple[RunState, list[Note]]:
    """The plan on the stand-ins, as fast as it goes."""
    planned = programme(plan)
    bench, state, notes = new_bench(planned, 0, planned.place(0), 0.0), RunState(), []
    event: Any = Asked("start")
    while event is not None:
        state, commands = step(planned, state, event, bench.now_s)
        notes += [command for command in commands if isinstance(command, Note)]
        for command in commands:
            bench.obey(command)
        event = bench.pop() if bench.next_at() is not None else None
    return state, notes


FEW = {"rate": 25, "frames": 12, "interval": 10}


class Rehearsed(TestCase):
    """A run whose camera hears only what the chain sends."""

    def test_a_sound_chain_takes_every_frame(self) -> None:
        state, _ = rehearsed(chain("print-switch", BODY, held=FEW))
        self.assertEqual((state.phase, state.taken, state.missed), ("finished", 12, 0))

    def test_a_wrong_chain_takes_none_and_says_why(self) -> None:
        plan = chain("print-switch", BODY, held=FEW, joins=[("source.open", "camera.focus"),
                     ("source.common", "camera.ground")])  # fmt: skip
        state, notes = rehearsed(plan)
        self.assertEqual((state.phase, state.taken, state.missed), ("fault", 0, 3))
        self.assertEqual(notes[-1].kind, "deaf")
        self.assertIn("focus contact closed", notes[-1].said)
        state, more = step(programme(plan), state, Asked("go on"), 40.0)
        self.assertEqual((state.phase, state.frame), ("preparing", 3))
        self.assertEqual([command.kind for command in more if isinstance(command, Note)], ["go on"])

    def test_a_camera_that_falls_asleep_misses_and_a_half_press_mends_it(self) -> None:
        slow = {**FEW, "interval": 120}
        asleep, notes = rehearsed(chain("remote-timer", BODY, held=slow))
        self.assertEqual(asleep.taken, 1)
        self.assertIn("it slept", next(note.said for note in notes if note.kind == "missed"))
        awake, _ = rehearsed(chain("remote-timer", BODY, held=slow, beat={"half_s": "2/5"}))
        self.assertEqual((awake.phase, awake.taken), ("finished", 12))

    def test_a_camera_does_not_sleep_with_its_shutter_open(self) -> None:
        """It stays awake for a minute: of two minutes it exposes for 40 s, 70 s or 100 s."""
        for exposure, taken in (("40", 1), ("70", 12), ("100", 12)):
            plan = chain("remote-timer", BODY, held={**FEW, "interval": 120}, beat={"exposure_s": exposure})
            with self.subTest(exposure):
                self.assertEqual(rehearsed(plan)[0].taken, taken)
                self.assertEqual("camera-asleep" in {snag.code for snag in evaluate(plan).snags}, taken == 1)

    def test_a_frame_that_comes_late_twice_changes_nothing(self) -> None:
        planned = programme(chain("print-switch", BODY, held=FEW))
        state = RunState(phase="waiting", taken=3, missed=2)
        self.assertEqual(step(planned, state, Silent(5, "late"), 60.0), (state, []))

    def test_the_bench_counts_what_a_faulty_camera_brings(self) -> None:
        """Of twenty presses it misses three, or takes three twice; asleep, all that come too late after the last."""
        shooting = reckon(CHAINS["switch"][0]).shooting
        assert shooting is not None and shooting.hearing is not None
        sent = signal(shooting.plan, shooting.hearing)
        self.assertEqual(tried(sent, 20, 10, 2.4).came, 20)
        missed = tried(sent, 20, 10, 2.4, "misses")
        self.assertEqual((missed.came, missed.lost), (17, (2, 10, 11)))
        self.assertEqual(tried(sent, 20, 10, 2.4, "fires twice").came, 23)
        self.assertEqual(tried(sent, 20, 40, 2.4, "falls asleep").came, 1)
