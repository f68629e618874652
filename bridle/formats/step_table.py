"""The table of steps as CSV: what each drive is told at every picture, in its unit and in whole steps."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.reckon.orders import steps_a_unit, unmarked
from bridle.core.reckon.parts import programmed
from bridle.core.reckon.reckoning import reckon
from bridle.core.subjects.motion.steppers import step_positions
from bridle.formats.csv_lines import csv_line
from bridle.formats.nothing import NothingToWriteError


def header(plan: Plan, positions: int = 1) -> list[str]:
    """The column names: frame and place from 1, seconds from the first; per axis target, motor, steps and change.

    With a focus stack that a motor goes through, which of its positions it is.
    """
    axes = [f"{axis.name}_{what}" for axis in programmed(plan) for what in (axis.unit, "motor", "steps", "change")]
    return ["frame", "place", *(["focus"] if positions > 1 else []), "due_s", *axes]


def write_steps(plan: Plan) -> Iterator[str]:
    """The table line by line, with a header. Raises `NothingToWriteError` at once."""
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NothingToWriteError("the clip leaves something open, so there are no steps to list")
    if plan.rig.axes and not programmed(plan):
        raise NothingToWriteError("nothing on this rig counts steps: the field card says what to set instead")
    say = shooting.orders
    if ring := unmarked(plan, say):
        raise NothingToWriteError(f"the {ring} ring has no marks, so nobody knows how far its motor has to turn")
    columns = []
    for axis in programmed(plan):
        motor = say.motor[axis.name]
        steps = step_positions(motor.tolist(), steps_a_unit(plan, axis))
        columns.append((say.targets[axis.name], motor, steps))

    def lines() -> Iterator[str]:
        yield csv_line(header(plan, say.positions))
        for n in range(len(say)):
            place, position = divmod(int(say.visit[n]), say.positions)
            which = [place, position] if say.positions > 1 else [place]
            cells = [str(say.frame[n] + 1), *(str(one + 1) for one in which), f"{say.due_s[n]:.3f}"]
            for targets, motor, steps in columns:
                change = steps[n] - steps[n - 1] if n else 0
                cells += [f"{targets[n]:.4f}", f"{motor[n]:.4f}", str(steps[n]), str(change)]
            yield csv_line(cells)

    return lines()
