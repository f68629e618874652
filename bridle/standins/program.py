"""A simulated controller that runs a drive's program, on axes that have play and count in steps."""

from collections.abc import Iterable
from dataclasses import dataclass, field

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.orders import steps_a_unit
from bridle.core.reckon.parts import programmed
from bridle.core.reckon.reckoning import reckon
from bridle.core.subjects.gcode.machine import Happening, Machine
from bridle.core.subjects.gcode.reader import read


@dataclass
class Play:
    """A load behind a drive with backlash: it follows once the play is taken up. All in the axis's unit.

    `motor` is counted in whole steps, as a stepper does; the load may start anywhere within the play.
    """

    steps_a_unit: float
    backlash: float
    load: float

    def drive_to(self, motor: float) -> None:
        """Turn the motor to a position; the load is taken along at either end of the play."""
        motor = round(motor * self.steps_a_unit) / self.steps_a_unit
        # The load touches the front of the play on the way up, and its back on the way down.
        self.load = min(max(self.load, motor), motor + self.backlash)


@dataclass(frozen=True)
class Rehearsed:
    """What came of a program: pictures fired, when each was, and for each axis where the load stood then.

    `off_steps` is the largest distance from the target in steps of the axis, `fastest` the largest share of an
    axis's top speed; `late_s` the largest difference from when a picture was due.
    """

    fired_s: tuple[float, ...]
    loads: dict[str, tuple[float, ...]]
    off_steps: dict[str, float]
    fastest: dict[str, float]
    late_s: float
    ends_s: float


@dataclass
class _Bench:
    axes: tuple[Axis, ...]
    plays: dict[str, Play]
    fired: list[float] = field(default_factory=list)
    loads: dict[str, list[float]] = field(default_factory=dict)
    fastest: dict[str, float] = field(default_factory=dict)
    open: bool = False

    def see(self, happening: Happening) -> None:
        if happening.kind == "moved":
            self._moved(happening)
        elif happening.kind == "on" and not self.open:
            self.open = True
            self.fired.append(happening.at_s)
            for axis in self.axes:
                self.loads.setdefault(axis.name, []).append(self.plays[axis.name].load)
        elif happening.kind == "off":
            self.open = False

    def _moved(self, happening: Happening) -> None:
        seconds = happening.steady_s
        for axis in self.axes:
            way = happening.position.get(axis.called, 0.0) - happening.began_at.get(axis.called, 0.0)
            # The way to the first position starts from wherever the rig was left, and is not part of the move.
            if seconds > 0 and self.fired:
                speed = abs(way) / seconds / axis.fastest
                self.fastest[axis.name] = max(self.fastest.get(axis.name, 0.0), speed)
            if axis.called in happening.position:
                self.plays[axis.name].drive_to(happening.position[axis.called])


def rehearse(plan: Plan, lines: Iterable[str]) -> Rehearsed:
    """Run a program on simulated axes. Raises `GcodeError` at what the controller does not know."""
    shooting = reckon(plan).shooting
    assert shooting is not None  # there is a program
    say, axes = shooting.orders, programmed(plan)
    # Wherever the load was left within its play.
    bench = _Bench(axes, {a.name: Play(steps_a_unit(plan, a), a.backlash, a.high + a.backlash) for a in axes})
    gains: dict[str, float] = {axis.called: axis.acceleration for axis in axes if axis.acceleration is not None}
    machine = Machine({axis.called: axis.fastest for axis in axes}, gains)
    for happening in machine.run(read(lines)):
        bench.see(happening)
    count = min(len(bench.fired), len(say))
    fired = np.array(bench.fired)
    off: dict[str, float] = {
        axis.name: float(
            np.abs(np.array(bench.loads.get(axis.name, [0.0]))[:count] - say.targets[axis.name][:count]).max(
                initial=0.0
            )
            * steps_a_unit(plan, axis)
        )
        for axis in axes
    }
    late = float(np.abs(fired[:count] - fired[:1] - say.due_s[:count]).max(initial=0.0))
    loads = {name: tuple(values) for name, values in bench.loads.items()}
    return Rehearsed(tuple(bench.fired), loads, off, bench.fastest, late, machine.now_s)
