"""A simulated motion controller: it moves its axes within their limits and says when they stand still."""

from dataclasses import dataclass, field

from bridle.core.run.programme import Programme
from bridle.core.subjects.time.cycle import step_time

# Float noise is no way.
STILL = 1e-9


@dataclass
class Controller:
    """Axes at absolute positions; a position not set yet is the axis's first one."""

    programme: Programme
    position: dict[str, float]
    # Where the motors stand: behind the load by the backlash, once it has gone somewhere.
    _motor: dict[str, float] = field(default_factory=dict)

    def move_to(self, frame: int) -> float:
        """Go to a frame's positions; returns the seconds until the rig stands still again."""
        target = self.programme.place(frame)
        if self.programme.continuous:
            # It is under way all the time and passes the position when the frame is due.
            self.position = target
            return 0.0
        motor = {name: float(values[frame]) for name, values in self.programme.motor.items()}
        before = self._motor or self.position
        far = {name: abs(at - before.get(name, 0.0)) for name, at in motor.items()}
        seconds = max((step_time(way, *self.programme.speeds[name]) for name, way in far.items()), default=0.0)
        self.position, self._motor = target, motor
        # How long an axis takes may not be known, and is nothing here then; that the rig settles after it is.
        return seconds + (float(self.programme.settles_s[frame]) if max(far.values(), default=0.0) > STILL else 0.0)
