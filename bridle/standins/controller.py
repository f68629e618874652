"""A simulated motion controller: it moves its axes within their limits and says when they stand still."""

from dataclasses import dataclass

from bridle.core.run.programme import Programme
from bridle.core.subjects.cycle import step_time


@dataclass
class Controller:
    """Axes at absolute positions; a position not set yet is the axis's first one."""

    programme: Programme
    position: dict[str, float]

    def move_to(self, frame: int) -> float:
        """Go to a frame's positions; returns the seconds until the rig stands still again."""
        target = self.programme.place(frame)
        seconds = max(
            step_time(abs(target[name] - self.position.get(name, 0.0)), *self.programme.speeds[name]) for name in target
        )
        self.position = target
        return seconds + self.programme.settle_s if seconds else 0.0
