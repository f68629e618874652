"""The plan, a run on the stand-ins and the program rehearsed: to the millisecond the same, whatever the plan."""

from unittest import TestCase

from hypothesis import assume, event, given

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.reckon.orders import Orders
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.run.events import Asked, Fire, Note
from bridle.core.run.machine import RunState, step
from bridle.core.run.programme import programme
from bridle.formats.drive_program import program
from bridle.formats.nothing import NothingToWriteError
from bridle.standins.bench import new_bench
from bridle.standins.program import rehearse
from tests.following import Following
from tests.mutated import EXAMPLES, unshrunk
from tests.strategies import plans

OVERRUN = (
    "interval-too-short",
    "axis-too-slow",
    "buffer-stalls",
    "buffer-stalls-in-part",
    "round-needs-stops",
    "round-without-axis",
)
MOST_FRAMES, MOST_PICTURES = 300, 2000


def that_fits(plan: Plan) -> Plan | None:
    """The plan after the first fix of whatever does not fit into its beat; None where that does not end soon."""
    now = Following()
    for _ in range(7):
        wrong = next((snag for snag in now(plan).snags if snag.code in OVERRUN and snag.fixes), None)
        if wrong is None:
            return plan
        plan, _undo = apply(plan, wrong.fixes[0].edits)
    return None


def run_of(plan: Plan) -> list[float]:
    """When each picture was fired in a run on the stand-ins, from the first."""
    planned = programme(plan)
    bench, fired = new_bench(planned, 0, planned.place(0), 0.0), []
    state, commands = step(planned, RunState(), Asked("start"), 0.0)
    while True:
        for command in commands:
            if isinstance(command, Fire):
                fired.append(bench.now_s)
            if not isinstance(command, Note):
                bench.obey(command)
        if bench.next_at() is None or state.phase == "finished":
            return [at - fired[0] for at in fired]
        event = bench.pop()
        state, commands = step(planned, state, event, bench.now_s)


def every_press_takes(plan: Plan) -> bool:
    """Whether the camera hears each press: one that does not is another test's."""
    return not any(snag.chapter == "trigger" and snag.severity == "stop" for snag in evaluate(plan).snags)


def lets_go(plan: Plan, shooting: Shooting) -> bool:
    """Whether the controller's press is over by the end of the shortest picture."""
    return float(plan.beat.lag_s) + float(shooting.shuttered.busy_s.min()) >= plan.rig.controller.pulse_s


class Agree(TestCase):
    @unshrunk(max(25, EXAMPLES // 4))
    @given(plans)
    def test_plan_run_and_program_fire_together(self, drawn: Plan) -> None:
        """Left out: a controller that still presses when the next picture of a stack or a round would be due."""
        # What is far too long is not made to fit first.
        begun = reckon(drawn).shooting
        assume(begun is not None and begun.frames <= 10 * MOST_FRAMES)
        plan = that_fits(drawn)
        shooting = reckon(plan).shooting if plan is not None else None
        assume(plan is not None and shooting is not None and len(shooting.orders) <= MOST_PICTURES)
        assert plan is not None and shooting is not None
        assume(every_press_takes(plan) and lets_go(plan, shooting))
        self.assertEqual(self._apart(shooting.orders, run_of(plan)), [])
        try:
            lines = list(program(plan))
        except NothingToWriteError:
            return
        fired = rehearse(plan, lines).fired_s
        self.assertEqual(self._apart(shooting.orders, [at - fired[0] for at in fired]), [])

    @unshrunk(max(25, EXAMPLES // 4))
    @given(plans)
    def test_where_the_beat_does_not_fit_run_and_program_wait_for_the_same(self, drawn: Plan) -> None:
        """Neither fires before the picture is stored and the rig has settled; the grid moves with what is late.

        What a controller is told is rounded to the millisecond, and where all is late nothing takes that back.
        Left out: a buffer that fills up, over the shoot or with the pictures of one frame before a move that waits for
        it, as no program knows of it; a move that never stops, as nothing can wait in it; a press that is longer than
        the shutter is open.
        """
        plan = drawn.model_copy(update={"beat": drawn.beat.model_copy(update={"school": "shoot-move-shoot"})})
        shooting = reckon(plan).shooting
        assume(shooting is not None and len(shooting.orders) <= MOST_PICTURES)
        told = evaluate(plan)
        assert shooting is not None
        assume(told.stalls_at is None and lets_go(plan, shooting) and every_press_takes(plan))
        full = max(kind.pictures for kind in shooting.shuttered.kinds) >= plan.beat.buffer_frames > 0
        assume(plan.beat.write_while_moving or not full)
        try:
            lines = list(program(plan))
        except NothingToWriteError:
            return
        event("late" if shooting.cycle.over_s > shooting.cycle.margin_s else "fits")
        fired, ran = rehearse(plan, lines).fired_s, run_of(plan)
        self.assertEqual(len(fired), len(ran))
        apart = [(n, at - fired[0] - then) for n, (at, then) in enumerate(zip(fired, ran, strict=True))]
        self.assertEqual([one for one in apart if abs(one[1]) > 0.001 + 0.0005 * one[0]], [])

    def _apart(self, say: Orders, fired: list[float]) -> list[tuple[int, float]]:
        """The pictures that were not fired when they were due, and by how much; all where some are missing."""
        self.assertEqual(len(fired), len(say))
        return [
            (n, at - due) for n, (at, due) in enumerate(zip(fired, say.due_s, strict=True)) if abs(at - due) > 0.001
        ]
