"""Carrying commands out: where the head stands and how much filament has been pushed after every line.

Lengths in mm, feed in mm/min, whatever units the file is written in.
"""

import math

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints.compiled import compiled

# Where the head stands, the filament pushed in all and the most of it before (what lies between is drawn back).
AT_X, AT_Y, AT_Z, PUSHED, MOST = 0, 1, 2, 3, 4
# What is added to a number of the file to have the place; the file's own E; feed rate.
OFF_X, OFF_Y, OFF_Z, TOLD_E, FEED = 5, 6, 7, 8, 9
# Modes: 1 absolute, 1 absolute E, mm of a unit, drawn back by the firmware, tool, the last motion command, axes known.
ABSOLUTE, ABSOLUTE_E, UNIT, FIRMWARE_BACK, TOOL, MOTION, KNOWN = 10, 11, 12, 13, 14, 15, 16
# Accelerations told by the file, mm/s²; 0 where it told none.
PRINT_A, TRAVEL_A = 17, 18
# 1 where the mode of places leaves that of the filament alone; what the filament's mode would be otherwise; and how
# many lines mean something else by that.
APART, OTHER_E, DOUBTS = 19, 20, 21
# How many moves print, and how many draw filament back on their way, as a wipe does.
PRINTS, PULLS = 22, 23
STATE = 24
INCH_MM = 25.4
# What a line did besides: nothing, waited, went home, drew back or primed by firmware, pulled nothing but set a place.
NOTHING, MOVED, WAITED, HOMED, FIRMWARE, ARC_BAD = 0, 1, 2, 3, 4, 5


def beginning(apart: bool = False) -> NDArray[np.float64]:
    """The state that a printer starts with: absolute, millimetres, nowhere known.

    `apart` is whether `G90` and `G91` leave the filament's mode alone.
    """
    state = np.zeros(STATE)
    state[ABSOLUTE] = state[ABSOLUTE_E] = state[OTHER_E] = state[UNIT] = 1
    state[APART] = apart
    state[FEED] = 1500
    return state


@compiled
def follow(codes, values, state, home, after, length, turn, waits, did):
    """Fill the state after each line, the length of its way, start and end directions of it, waits, and what it did.

    Shapes (lines, 24), (lines,), (lines, 4) as x and y of both directions, (lines,), (lines,). `state` is carried on.
    """
    for n in range(len(codes)):
        code, value = codes[n], values[n]
        length[n], waits[n], did[n] = 0.0, 0.0, NOTHING
        turn[n, 0] = turn[n, 1] = turn[n, 2] = turn[n, 3] = 0.0
        if code == 1:
            code = int(state[MOTION])
        if 700000 <= code <= 700030:
            _move(code, value, state, n, length, turn, did)
        elif code == 700920:
            _reset(value, state)
        elif code == 700040:
            waits[n] = (value[8] / 1000 if not np.isnan(value[8]) else 0.0) + (0.0 if np.isnan(value[9]) else value[9])
            did[n] = WAITED
        elif code == 700900 or code == 700910:
            state[ABSOLUTE] = 1.0 if code == 700900 else 0.0
            state[OTHER_E if state[APART] == 1 else ABSOLUTE_E] = state[ABSOLUTE]
        elif code == 1300820 or code == 1300830:
            state[ABSOLUTE_E] = state[OTHER_E] = 1.0 if code == 1300820 else 0.0
        elif code == 700200 or code == 700210:
            state[UNIT] = 25.4 if code == 700200 else 1.0
        elif code == 700100 or code == 700110:
            state[FIRMWARE_BACK] = 1.0 if code == 700100 else 0.0
            did[n] = FIRMWARE
        elif code == 700280:
            every = np.isnan(value[0]) and np.isnan(value[1]) and np.isnan(value[2])
            for axis in range(3):
                if every or not np.isnan(value[axis]):
                    state[axis], state[5 + axis] = home[axis], 0.0
            state[KNOWN] = 1.0
            did[n] = HOMED
        elif code == 1302040:
            if not np.isnan(value[9]):
                state[PRINT_A] = state[TRAVEL_A] = value[9]
            if not np.isnan(value[8]):
                state[PRINT_A] = value[8]
            if not np.isnan(value[10]):
                state[TRAVEL_A] = value[10]
        elif 2000000 <= code < 2100000:
            state[TOOL] = (code - 2000000) // 10
            # How far the filament of another tool is drawn back nobody knows.
            state[MOST] = state[PUSHED]
        elif code == 1306000 or code == 1306010 or code == 1300000 or code == 1300010 or code == 1302260:
            # While it pauses the filament may be changed by hand.
            state[MOST] = state[PUSHED]
        after[n] = state


@compiled
def _reset(value, state):
    every = True
    for column in range(4):
        if not np.isnan(value[column]):
            every = False
    for axis in range(3):
        if every or not np.isnan(value[axis]):
            told = 0.0 if every else value[axis] * state[UNIT]
            state[5 + axis] = state[axis] - told
    if every or not np.isnan(value[3]):
        state[TOLD_E] = 0.0 if every else value[3] * state[UNIT]


@compiled
def _move(code, value, state, n, length, turn, did):
    unit = state[UNIT]
    if not np.isnan(value[4]) and value[4] > 0:
        state[FEED] = value[4] * unit
    before_x, before_y, before_z = state[0], state[1], state[2]
    for axis in range(3):
        if not np.isnan(value[axis]):
            told = value[axis] * unit
            state[axis] = told + state[5 + axis] if state[ABSOLUTE] == 1 else state[axis] + told
    pushed = 0.0
    if not np.isnan(value[3]):
        told = value[3] * unit
        pushed = told - state[TOLD_E] if state[ABSOLUTE_E] == 1 else told
        if state[ABSOLUTE_E] != state[OTHER_E]:
            state[DOUBTS] += 1
        state[TOLD_E] += pushed
        state[PUSHED] += pushed
        state[MOST] = max(state[MOST], state[PUSHED])
    state[MOTION] = code
    dx, dy, dz = state[0] - before_x, state[1] - before_y, state[2] - before_z
    if code == 700020 or code == 700030:
        flat = _arc(code, value, unit, dx, dy, turn, n)
        if flat < 0:
            did[n] = ARC_BAD
            flat = math.sqrt(dx * dx + dy * dy)
    else:
        flat = math.sqrt(dx * dx + dy * dy)
        if flat > 0:
            turn[n, 0], turn[n, 1] = dx / flat, dy / flat
            turn[n, 2], turn[n, 3] = dx / flat, dy / flat
    length[n] = math.sqrt(flat * flat + dz * dz)
    if flat > 0 and pushed != 0:
        state[PRINTS if pushed > 0 else PULLS] += 1
    if length[n] > 0 and pushed > 0:
        # Where it prints the filament is at the tip, however much of it was taken out and put in by hand before.
        state[MOST] = state[PUSHED]
    if did[n] == NOTHING and (length[n] > 0 or pushed != 0):
        did[n] = MOVED


@compiled
def arc_of(code, value, unit, dx, dy):
    """The middle of an arc from its beginning, and the signed angle that it turns; (0, 0, 0) where it is none."""
    if not np.isnan(value[7]):
        radius, chord = value[7] * unit, math.sqrt(dx * dx + dy * dy)
        if chord == 0 or chord > 2 * abs(radius) * (1 + 1e-9):
            return 0.0, 0.0, 0.0
        away = math.sqrt(max(0.0, radius * radius - chord * chord / 4)) / chord
        side = 1.0 if (code == 700030) == (radius > 0) else -1.0
        mx, my = dx / 2 - side * dy * away, dy / 2 + side * dx * away
    else:
        mx = 0.0 if np.isnan(value[5]) else value[5] * unit
        my = 0.0 if np.isnan(value[6]) else value[6] * unit
    if mx == 0 and my == 0:
        return 0.0, 0.0, 0.0
    sweep = math.atan2(dy - my, dx - mx) - math.atan2(-my, -mx)
    if code == 700030:
        sweep = sweep + 2 * math.pi if sweep <= 1e-9 else sweep
    else:
        sweep = sweep - 2 * math.pi if sweep >= -1e-9 else sweep
    return mx, my, sweep


@compiled
def _arc(code, value, unit, dx, dy, turn, n):
    mx, my, sweep = arc_of(code, value, unit, dx, dy)
    radius = math.sqrt(mx * mx + my * my)
    if radius == 0:
        return -1.0
    side = 1.0 if sweep > 0 else -1.0
    turn[n, 0], turn[n, 1] = side * my / radius, -side * mx / radius
    ex, ey = (dx - mx) / radius, (dy - my) / radius
    turn[n, 2], turn[n, 3] = -side * ey, side * ex
    return abs(sweep) * radius
