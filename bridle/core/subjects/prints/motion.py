"""How long moves take: trapezoids of speed, with as much speed kept at each corner as the printer's card allows.

An estimate: it knows the accelerations that card and file name, not the printer's own smoothing nor its heaters.
The speed at a corner comes from the deviation from it that is allowed: v² = a·d·s/(1 − s), with s = sin(θ/2) of the
angle θ between the two ways; d is such that a right-angled corner is taken at the card's corner speed.
"""

import math

import numpy as np

from bridle.core.subjects.prints.compiled import compiled

STILL = 1e-6


@compiled
def seconds(length, turn, lifted, pushed, feed, print_a, travel_a, limits, stop, took):
    """Fill the seconds of each move.

    `limits` are the top speeds of x, y, z and the filament (mm/s), the accelerations while printing, travelling and
    pushing filament alone (mm/s²), and the corner speed (mm/s). `stop` tells where the head stands still before a move
    (a wait, a homing). All arrays are of one shape, but `turn` (moves, 4).
    """
    count = len(length)
    top, gain, way = np.zeros(count), np.zeros(count), np.zeros(count)
    for n in range(count):
        way[n] = length[n] if length[n] > STILL else abs(pushed[n])
        if way[n] <= STILL:
            continue
        top[n] = feed[n] / 60
        if length[n] <= STILL:
            top[n], gain[n] = min(top[n], limits[3]), limits[6]
            continue
        flat = math.sqrt(max(0.0, length[n] ** 2 - lifted[n] ** 2)) / length[n]
        for axis in range(2):
            share = max(abs(turn[n, axis]), abs(turn[n, axis + 2])) * flat
            if share > STILL:
                top[n] = min(top[n], limits[axis] / share)
        if abs(lifted[n]) > STILL:
            top[n] = min(top[n], limits[2] * length[n] / abs(lifted[n]))
        own = print_a[n] if pushed[n] > 0 else travel_a[n]
        gain[n] = own if own > 0 else (limits[4] if pushed[n] > 0 else limits[5])
    enter = _corners(length, turn, lifted, way, top, gain, limits[7], stop)
    for n in range(count - 1, -1, -1):
        after = enter[n + 1] if n + 1 < count else 0.0
        if way[n] > STILL:
            enter[n] = min(enter[n], math.sqrt(after * after + 2 * gain[n] * way[n]))
    for n in range(count):
        took[n] = 0.0
        if way[n] <= STILL:
            continue
        out = enter[n + 1] if n + 1 < count else 0.0
        out = min(out, math.sqrt(enter[n] ** 2 + 2 * gain[n] * way[n]))
        if n + 1 < count:
            enter[n + 1] = out
        took[n] = _trapezoid(way[n], enter[n], out, top[n], gain[n])


@compiled
def _corners(length, turn, lifted, way, top, gain, corner, stop):
    """The most speed with which each move can begin, as the corner before it allows."""
    count = len(length)
    enter, last = np.zeros(count + 1), -1
    for n in range(count):
        if way[n] <= STILL:
            if stop[n]:
                last = -1
            continue
        if last >= 0 and not stop[n] and length[n] > STILL and length[last] > STILL:
            flat = math.sqrt(max(0.0, 1 - (lifted[n] / length[n]) ** 2))
            before = math.sqrt(max(0.0, 1 - (lifted[last] / length[last]) ** 2))
            along = (turn[last, 2] * turn[n, 0] + turn[last, 3] * turn[n, 1]) * flat * before
            along += lifted[n] / length[n] * lifted[last] / length[last]
            half = math.sqrt(max(0.0, (1 + min(1.0, along)) / 2))
            most = min(top[n], top[last])
            if half < 0.999999:
                least = min(gain[n], gain[last])
                # At a right angle s/(1 − s) is 1 + √2, and the speed is the corner speed whatever the acceleration is.
                keeps = corner * math.sqrt(half / (1 - half) / 2.414213562)
                most = min(most, keeps) if least > 0 else 0.0
            enter[n] = most
        last = n
    # Lines that move nothing hand the speed on.
    for n in range(count - 1, -1, -1):
        if way[n] <= STILL:
            enter[n] = enter[n + 1] if not stop[n] else 0.0
    return enter


@compiled
def _trapezoid(way, enter, out, top, gain):
    enter, out = min(enter, top), min(out, top)
    if gain <= 0:
        return way / top
    peak = math.sqrt(gain * way + (enter * enter + out * out) / 2)
    if peak <= top:
        return max(0.0, (2 * peak - enter - out) / gain)
    rising = (top * top - enter * enter) / (2 * gain) + (top * top - out * out) / (2 * gain)
    return (2 * top - enter - out) / gain + (way - rising) / top
