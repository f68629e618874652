"""Stepper drives: how many steps make a millimetre or a degree, and how even the pace is with few steps a frame."""

import math

from bridle.core.figure import Formula

BELT = Formula("full * micro / (pitch * teeth) * correction", "one turn of the pulley moves the belt by its teeth")
SCREW = Formula("full * micro / lead * correction", "one turn of the screw moves the nut by its lead")
GEAR = Formula("full * micro * ratio / 360 * correction", "one turn of the table takes the gear's ratio of motor turns")
RESOLUTION = Formula("1 / steps", "the way of a single step")
PER_FRAME = Formula("pace * steps", "the way from frame to frame at cruise, in steps")
RIPPLE = Formula("1 / abs(per_frame)", "one step more or less in each frame; nothing where it is a whole number")

FEW_STEPS = 8


def belt_steps(full: float, micro: float, pitch_mm: float, teeth: float) -> float:
    """`full steps × microsteps / (belt pitch × pulley teeth)`, steps a millimetre."""
    return full * micro / (pitch_mm * teeth)


def screw_steps(full: float, micro: float, lead_mm: float) -> float:
    """`full steps × microsteps / lead`, steps a millimetre."""
    return full * micro / lead_mm


def gear_steps(full: float, micro: float, ratio: float) -> float:
    """`full steps × microsteps × ratio / 360`, steps a degree."""
    return full * micro * ratio / 360


def ripple(per_frame: float) -> float:
    """The largest unevenness of the pace, as a share: `1/n` for `n` steps a frame, none where `n` is whole."""
    steps = abs(per_frame)
    if steps == 0 or abs(steps - round(steps)) < 1e-9:
        return 0.0
    return min(1.0, 1 / steps)


def step_positions(positions: list[float], steps: float) -> list[int]:
    """Whole steps of absolute targets: rounded each from the target, never accumulated."""
    return [math.floor(position * steps + 0.5) for position in positions]
