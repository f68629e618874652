"""The run as a state machine: step(programme, state, event) -> (state, commands). It knows no device and no clock.

A frame is taken in three acts: the axes arrive (and the camera has written the frame before), the frame's moment
comes (by the clock, or something else calls it), the shutter fires. A frame counts as taken when the camera says so,
never when it was asked.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

from bridle.core.reckon.firing import LATE_S
from bridle.core.run.events import (
    TASK_END,
    Arrived,
    Asked,
    AwaitCall,
    Called,
    Command,
    CutOff,
    Due,
    Event,
    Fire,
    MoveTo,
    Note,
    Restarted,
    Shot,
    Silent,
    Visited,
    WakeAt,
    Written,
)
from bridle.core.run.programme import Programme

Phase = Literal["ready", "preparing", "waiting", "exposing", "paused", "finished", "stopped", "fault"]
# So many presses in a row that bring no frame are told as a chain that does not work.
DEAF_AFTER = 3
ACTIVE: tuple[Phase, ...] = ("preparing", "waiting", "exposing", "paused", "fault")


@dataclass(frozen=True)
class RunState:
    """Where a run is: `taken` frames are on the card, `missed` were called and never came, `in_a_row` just now."""

    phase: Phase = "ready"
    taken: int = 0
    missed: int = 0
    in_a_row: int = 0
    arrived: bool = False
    written: bool = True
    shift_s: float = 0.0
    pause_asked: bool = False
    stop_asked: bool = False
    # The next frame was called before the rig was there for it.
    called: bool = False

    @property
    def frame(self) -> int:
        """The next frame, counted from 0."""
        return self.taken + self.missed


Stepped = tuple[RunState, list[Command]]


def step(programme: Programme, state: RunState, event: Event, now_s: float) -> Stepped:
    """The state after an event at a time (seconds after the start), and what is to be done.

    An event that means nothing in this state changes nothing: devices may answer late or twice.
    """
    handler = _HANDLERS[type(event)]
    return handler(programme, state, event, now_s)


def due_s(programme: Programme, state: RunState, frame: int) -> float:
    """When a frame is to be taken, delays included."""
    return programme.due_s(frame) + state.shift_s


def _asked(programme: Programme, state: RunState, event: Asked, now_s: float) -> Stepped:
    if event.what == "start" and state.phase == "ready":
        return _prepare(replace(state, phase="preparing"), [Note("start")])
    if event.what == "pause" and state.phase in ("preparing", "waiting"):
        return replace(state, phase="paused"), [Note("pause", state.frame)]
    if event.what == "pause" and state.phase == "exposing":
        return replace(state, pause_asked=True), []
    if event.what == "go on" and state.phase in ("paused", "fault"):
        return _prepare(replace(state, phase="preparing", pause_asked=False), [Note("go on", state.frame)])
    if event.what == "go on" and state.phase == "exposing":
        return replace(state, pause_asked=False), []
    if event.what == "stop" and state.phase == "exposing":
        return replace(state, stop_asked=True), []
    if event.what == "stop" and state.phase in (*ACTIVE, "ready"):
        return replace(state, phase="stopped"), [Note("stop", state.taken)]
    return state, []


def _prepare(state: RunState, before: list[Command]) -> Stepped:
    """Go to the next frame's positions, wherever the axes are."""
    return replace(state, arrived=False, called=False), [*before, MoveTo(state.frame)]


def _arrived(programme: Programme, state: RunState, event: Arrived, now_s: float) -> Stepped:
    if event.frame != state.frame or state.phase not in ("preparing", "paused"):
        return state, []
    return _when_ready(programme, replace(state, arrived=True), now_s)


def _visited(programme: Programme, state: RunState, event: Visited, now_s: float) -> Stepped:
    """Whoever comes starts again what had given up."""
    if state.phase not in ACTIVE:
        return state, []
    note = Note("visit", state.frame, said=TASK_END.join(event.tasks))
    if state.phase == "fault":
        return _prepare(replace(state, phase="preparing", in_a_row=0), [note])
    return state, [note]


def _cut(programme: Programme, state: RunState, event: CutOff, now_s: float) -> Stepped:
    return (state, [Note("cut", state.frame, event.seconds)]) if state.phase in ACTIVE else (state, [])


def _written(programme: Programme, state: RunState, event: Written, now_s: float) -> Stepped:
    if event.frame != state.frame - 1 or state.phase not in ("preparing", "paused"):
        return state, []
    state = replace(state, written=True)
    if not state.arrived and state.phase == "preparing" and not programme.write_while_moving:
        return state, [MoveTo(state.frame)]
    return _when_ready(programme, state, now_s)


def _when_ready(programme: Programme, state: RunState, now_s: float) -> Stepped:
    if state.phase != "preparing" or not (state.arrived and state.written):
        return state, []
    due = due_s(programme, state, state.frame)
    notes: list[Command] = []
    if now_s > due + LATE_S and programme.by_windows:
        # Windows stay where they are: what has gone by is left out, and the next frame comes when it should.
        gone = programme.next_after(now_s - LATE_S) - state.frame
        if gone > 0:
            state = replace(state, missed=state.missed + gone)
            return _after_frame(programme, state, [Note("skipped", state.frame - gone, float(gone))])
    elif now_s > due + LATE_S:
        # The grid moves with a late frame, so that the pace of the clip stays even from here on.
        notes = [Note("late", state.frame, round(now_s - due, 3))]
        state = replace(state, shift_s=state.shift_s + now_s - due)
    if state.called:
        return replace(state, phase="exposing", called=False), [*notes, Fire(state.frame)]
    at = max(due, now_s)
    wait = WakeAt(state.frame, at) if programme.calls == "clock" else AwaitCall(state.frame, at)
    return replace(state, phase="waiting"), [*notes, wait]


def _due(programme: Programme, state: RunState, event: Due | Called, now_s: float) -> Stepped:
    if event.frame != state.frame:
        return state, []
    if state.phase == "preparing" and isinstance(event, Called):
        return replace(state, called=True), []
    if state.phase != "waiting":
        return state, []
    return replace(state, phase="exposing"), [Fire(state.frame)]


def _shot(programme: Programme, state: RunState, event: Shot, now_s: float) -> Stepped:
    if event.frame != state.frame or state.phase != "exposing":
        return state, []
    state, note = replace(state, written=False), Note("taken", state.frame)
    return _after_frame(programme, replace(state, taken=state.taken + 1, in_a_row=0), [note])


def _silent(programme: Programme, state: RunState, event: Silent, now_s: float) -> Stepped:
    """A controller goes on after a press that brought nothing; after several it is told that nothing comes at all."""
    if event.frame != state.frame or state.phase != "exposing":
        return state, []
    notes: list[Command] = [Note("missed", state.frame, said=event.why)]
    state = replace(state, missed=state.missed + 1, in_a_row=state.in_a_row + 1)
    state, commands = _after_frame(programme, state, notes)
    if state.in_a_row == DEAF_AFTER and state.phase == "preparing" and not programme.by_windows:
        return replace(state, phase="fault"), [*notes, Note("deaf", state.frame, said=event.why)]
    return state, commands


def _after_frame(programme: Programme, state: RunState, notes: list[Command]) -> Stepped:
    state = replace(state, arrived=False)
    if state.frame == programme.frames:
        return replace(state, phase="finished"), [*notes, Note("finish", state.taken)]
    if state.stop_asked:
        return replace(state, phase="stopped"), [*notes, Note("stop", state.taken)]
    if state.pause_asked:
        return replace(state, phase="paused", pause_asked=False), [*notes, Note("pause", state.frame)]
    state = replace(state, phase="preparing")
    if programme.write_while_moving or state.written:
        notes.append(MoveTo(state.frame))
    return state, notes


def _restarted(programme: Programme, state: RunState, event: Restarted, now_s: float) -> Stepped:
    """Ask nobody but the camera: it alone knows whether the frame that was under way was taken."""
    if state.phase not in ACTIVE:
        return state, []
    found = event.camera_frames - state.taken
    said: list[Command] = [Note("restart", state.frame)]
    if found not in (0, 1):
        return replace(state, phase="fault"), [*said, Note("fault", event.camera_frames)]
    state = replace(state, written=True)
    paused = state.phase in ("paused", "fault") or state.pause_asked
    if found:
        note = Note("taken", state.frame)
        state, commands = _after_frame(programme, replace(state, taken=state.taken + 1), [*said, note])
        said = [command for command in commands if isinstance(command, Note)]
    if state.phase in ("finished", "stopped"):
        return state, said
    if state.stop_asked:
        return replace(state, phase="stopped"), [*said, Note("stop", state.taken)]
    if paused:
        return replace(state, phase="paused", pause_asked=False, arrived=False), said
    return _prepare(replace(state, phase="preparing"), said)


_HANDLERS: dict[type, Callable[..., Stepped]] = {
    Asked: _asked,
    Visited: _visited,
    CutOff: _cut,
    Arrived: _arrived,
    Written: _written,
    Due: _due,
    Called: _due,
    Shot: _shot,
    Silent: _silent,
    Restarted: _restarted,
}
