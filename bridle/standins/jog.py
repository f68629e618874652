"""A simulated controller being jogged: it moves axes by steps, within their travel, once it knows where they are."""

from dataclasses import dataclass, field

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis, AxisName
from bridle.core.reckon.orders import steps_a_unit
from bridle.core.subjects.time.cycle import step_time


class UnreferencedError(ValueError):
    """An axis whose place nobody knows was asked to go somewhere."""


@dataclass
class JogRig:
    """Where each axis stands, in the drive's own unit; one that is not in it has not been referenced yet."""

    at: dict[AxisName, float] = field(default_factory=dict)

    def reference(self, plan: Plan, name: AxisName) -> float:
        """Run an axis to its lower end, where it learns where it is; returns the seconds it takes."""
        axis = _axis(plan, name)
        before = self.at.get(name, axis.high)
        self.at[name] = axis.low
        return step_time(abs(before - axis.low), axis.fastest, axis.liveliest)

    def go(self, plan: Plan, name: AxisName, to: float) -> float:
        """Drive an axis to a place, in whole steps and no further than its travel; returns the seconds it takes.

        Raises `UnreferencedError` before it is referenced.
        """
        axis = _axis(plan, name)
        if name not in self.at:
            raise UnreferencedError(f"the {name} does not know where it is; reference it first")
        steps = steps_a_unit(plan, axis)
        inside = min(max(to, axis.low), axis.high)
        before, self.at[name] = self.at[name], round(inside * steps) / steps
        return step_time(abs(self.at[name] - before), axis.fastest, axis.liveliest)

    def by(self, plan: Plan, name: AxisName, step: float) -> float:
        """Jog an axis by a step; as `go`."""
        return self.go(plan, name, self.at.get(name, 0.0) + step)


def _axis(plan: Plan, name: AxisName) -> Axis:
    axis = plan.rig.axis(name)
    if axis is None:
        raise UnreferencedError(f"the rig has no {name}")
    return axis
