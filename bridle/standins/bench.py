"""The bench: controller and camera in simulated time. Commands go in; the next event comes out with its time."""

import heapq
from collections.abc import Iterable
from dataclasses import dataclass, field

from bridle.core.run.events import (
    Arrived,
    AwaitCall,
    Called,
    Command,
    Due,
    Event,
    Fire,
    MoveTo,
    Shot,
    Silent,
    Visited,
    WakeAt,
    Written,
)
from bridle.core.run.programme import LEAD_S, Programme
from bridle.standins.camera import Camera
from bridle.standins.controller import Controller
from bridle.standins.listener import Listener
from bridle.standins.site import Site


@dataclass
class Bench:
    """Simulated devices; `now_s` is the time of the event that came out last."""

    programme: Programme
    camera: Camera
    controller: Controller
    now_s: float = 0.0
    listener: Listener | None = None
    site: Site | None = None
    _coming: list[tuple[float, int, Event]] = field(default_factory=list)
    _order: int = 0

    def obey(self, command: Command) -> None:
        """Carry out one command; what follows from it is put down for its time."""
        match command:
            case MoveTo(frame):
                self._later(self.now_s + self.controller.move_to(frame), Arrived(frame))
            case WakeAt(frame, at_s):
                self._later(max(at_s, self.now_s), Due(frame))
            case AwaitCall(frame, about_s):
                # Whatever calls the frames here keeps to the plan.
                self._later(max(about_s, self.now_s), Called(frame))
            case Fire(frame):
                self._fire(frame)

    def _fire(self, frame: int) -> None:
        """Press, and let the camera hear what the chain sends; without a chain it takes every frame."""
        shot, why = self.now_s + self.camera.until_shot_s(frame), ""
        if self.site is not None:
            why = self.site.why_not(self.now_s - LEAD_S)
        if why:
            self._later(shot, Silent(frame, why))
            return
        if self.listener is not None:
            shot, why = self._pressed(frame, self.listener)
        if why:
            self._later(shot, Silent(frame, why))
            return
        self._later(shot, Shot(frame))
        self._later(shot + self.camera.until_written_s(shot, frame), Written(frame))

    def _pressed(self, frame: int, listener: Listener) -> tuple[float, str]:
        """When the shutter has closed, or would have, and why no frame came of the press."""
        programme = self.programme
        ahead = programme.wake_s if frame % programme.visits else 0.0
        at = self.now_s + listener.signal.after_s - ahead
        open_s = programme.shutter_lag_s + programme.exposure_s(frame)
        busy = open_s + programme.process_s(frame) + (0.0 if programme.buffer_frames else programme.write_s)
        heard = listener.press(at, busy)
        return heard.at_s + open_s, "" if heard.frames else heard.why

    def next_at(self) -> float | None:
        """When the next event comes; None when nothing is under way."""
        return self._coming[0][0] if self._coming else None

    def pop(self) -> Event:
        """Let time run to the next event. The camera has counted its frame by then."""
        at, _, event = heapq.heappop(self._coming)
        self.now_s = max(at, self.now_s)
        if isinstance(event, Shot):
            self.camera.take()
        elif isinstance(event, Silent) and self.site is not None:
            self.site.missed()
        elif isinstance(event, Visited) and self.site is not None:
            self.site.visit(self.now_s - LEAD_S, event.tasks)
        return event

    def expect(self, visits: Iterable[tuple[float, tuple[str, ...]]]) -> None:
        """Somebody will come at these times, in seconds after the run was started, and do this."""
        for at_s, tasks in visits:
            if at_s >= self.now_s:
                self._later(at_s, Visited(tasks))

    def _later(self, at_s: float, event: Event) -> None:
        self._order += 1
        heapq.heappush(self._coming, (at_s, self._order, event))


def new_bench(
    programme: Programme, frames: int, position: dict[str, float], now_s: float, site: Site | None = None
) -> Bench:
    """A bench whose camera already holds some frames and whose axes stand somewhere."""
    listener = None if programme.signal is None else Listener(programme.signal)
    return Bench(programme, Camera(programme, frames), Controller(programme, position), now_s, listener, site)
