"""A simulated motion controller: it moves its axes within their limits and says when they stand still."""

from dataclasses import dataclass

from bridle.core.run.programme import Programme
from bridle.core.subjects.time.cycle import step_time


@dataclass
class Controller:
    """Axes at absolute positions; a position not set yet is the axis's first one."""

    programme: Programme
    position: dict[str, float]

    def move_to(self, frame: int) -> float:
        """Go to a frame's positions; returns the seconds until the rig stands still again."""
        target = self.programme.place(frame)
        if self.programme.continuous:
            # It is under way all the time and passes the position when the frame is due.
            self.position = target
            return 0.0
        times = [
            step_time(abs(target[name] - self.position.get(name, 0.0)), *self.programme.speeds[name]) for name in target
        ]
        seconds = max(times, default=0.0)
        self.position = target
        return seconds + self.programme.settle_s if seconds else 0.0
