"""Plain straights as machine code: what most lines of a print are, as long as nothing happens on them.

It carries out just what `Printer.step` carries out, and stops in front of every line of which anything could be told:
near the switch, beyond an end, lower than what is printed, after a wait, or written in any other way. Places in mm,
times in seconds. A number of at most fifteen digits, divided by a power of ten, is what Python reads of it to the last
bit.
"""

import math

import numpy as np

from bridle.standins.printer.compiled import Array, compiled

# A place on a way with its line; a push at rest; a printed straight with its filament and whether it came early.
LEG, PUSH, LAID = 4, 4, 8
ROOM = 4096
LEAST_WAY_MM = 1e-9
MOST_DIGITS = 15
TENS = np.array([10.0**n for n in range(MOST_DIGITS + 1)])
NOT_PLAIN = -1
NEWLINE, RETURN, SPACE, SEMICOLON, SIGN, DOT, ZERO, NINE = 10, 13, 32, 59, 45, 46, 48, 57
PLUS, G, ONE, X, Y, Z, E, F = 43, 71, 49, 88, 89, 90, 69, 70

_FLOATS = (
    "x", "y", "z", "e", "off_x", "off_y", "off_z", "unit", "feed", "now", "printed_at", "pushed", "most", "printed",
    "due", "early", "level", "thick", "longest", "top", "rises", "gain", "lower", "thin",
    "began_x", "began_y", "began_z", "fed", "ended_x", "ended_y", "ended_z", "gap_x", "gap_y", "gap_z", "gap_most",
    *(f"{box}_{side}" for box in ("bounds", "danger") for side in ("left", "right", "front", "back", "low", "high")),
)  # fmt: skip
_COUNTS = (
    "line", "prints", "laid", "laid_before", "way", "way_from", "gap_way_from", "push", "push_from", "gap_push_from",
)  # fmt: skip
_FLAGS = ("absolute", "absolute_e", "still", "keeps", "watched", "straight")
# What a printer is and where it stands, as machine code has it.
STATE = np.dtype(
    [(name, np.float64) for name in _FLOATS]
    + [(name, np.int64) for name in _COUNTS]
    + [(name, np.bool_) for name in _FLAGS]
)


@compiled
def plainly(data: Array, at: int, to: int, state: Array, laid: Array, way: Array, pushes: Array) -> int:
    """Carry out lines of `data` from `at` on; the place of the first one that is left to others, or `to`.

    What is between `at` and `to` are whole lines. `laid`, `way` and `pushes` are room for what is written down.
    """
    s = state[0]
    while at < to:
        first = data[at]
        if first in (SEMICOLON, NEWLINE):
            behind = _over(data, at)
        elif first == G:
            behind = _straight(data, at, s, laid, way, pushes)
        else:
            behind = NOT_PLAIN
        if behind < 0:
            break
        s.line += 1
        at = behind
    return at


@compiled
def _over(data: Array, at: int) -> int:
    """Behind a comment's line; to some printers a return within it ends a line as well."""
    while data[at] != NEWLINE:
        if data[at] == RETURN and data[at + 1] != NEWLINE:
            return NOT_PLAIN
        at += 1
    return at + 1


@compiled
def _ends(byte: int) -> bool:
    """Whether a word ends in front of a byte."""
    return byte in (SPACE, NEWLINE, RETURN, SEMICOLON)


@compiled
def _number(data: Array, at: int) -> tuple[float, int]:
    """A number, and the place behind it; nowhere where it is written in another way."""
    minus = data[at] == SIGN
    if minus or data[at] == PLUS:
        at += 1
    whole, digits, places, dotted = 0, 0, 0, False
    while True:
        byte = data[at]
        if ZERO <= byte <= NINE:
            whole = whole * 10 + (byte - ZERO)
            digits += 1
            places += dotted
            if digits > MOST_DIGITS:
                return 0.0, NOT_PLAIN
        elif byte == DOT and not dotted:
            dotted = True
        else:
            break
        at += 1
    if not digits:
        return 0.0, NOT_PLAIN
    value = np.float64(whole) / TENS[places]
    return (-value if minus else value), at


@compiled
def _straight(data: Array, at: int, s: Array, laid: Array, way: Array, pushes: Array) -> int:
    """One line that begins with a G: the place behind it, or nowhere where it is not plain, or anything may happen."""
    if (data[at + 1] != ZERO and data[at + 1] != ONE) or data[at + 2] != SPACE:
        return NOT_PLAIN
    at += 2
    x, y, z, feed, pushed = s.x, s.y, s.z, s.feed, 0.0
    while True:
        while data[at] == SPACE:
            at += 1
        letter = data[at]
        if letter in (NEWLINE, SEMICOLON, RETURN):
            break
        value, behind = _number(data, at + 1)
        # Words that hang together are read elsewhere.
        if behind < 0 or not _ends(data[behind]):
            return NOT_PLAIN
        at = behind
        if letter == X:
            x = value * s.unit + s.off_x if s.absolute else x + value * s.unit
        elif letter == Y:
            y = value * s.unit + s.off_y if s.absolute else y + value * s.unit
        elif letter == E:
            pushed = value * s.unit - s.e if s.absolute_e else value * s.unit
        elif letter == F:
            feed = value * s.unit if value > 0 else feed
        elif letter == Z:
            z = value * s.unit + s.off_z if s.absolute else z + value * s.unit
        else:
            return NOT_PLAIN
    behind = _over(data, at)
    if behind < 0 or not _quiet(x, y, z, pushed, s, laid, way, pushes):
        return NOT_PLAIN
    s.straight = True
    s.feed = feed
    s.e = s.e + pushed
    if pushed:
        _pushes(x, y, z, pushed, s, pushes)
    _go(x, y, z, pushed, s, laid, way)
    return behind


@compiled
def _quiet(x: float, y: float, z: float, pushed: float, s: Array, laid: Array, way: Array, pushes: Array) -> bool:
    """Whether nothing is to be told of a move, and there is room for it."""
    if s.way >= len(way) or s.push >= len(pushes) or s.laid >= len(laid):
        return False
    far = math.sqrt((x - s.x) ** 2 + (y - s.y) ** 2 + (z - s.z) ** 2)
    if far < LEAST_WAY_MM:
        return far == 0
    if not (
        s.bounds_left <= x <= s.bounds_right
        and s.bounds_front <= y <= s.bounds_back
        and s.bounds_low <= z <= s.bounds_high
    ):
        return False
    if (
        (x >= s.danger_left or s.x >= s.danger_left) and (x <= s.danger_right or s.x <= s.danger_right)
        and (y >= s.danger_front or s.y >= s.danger_front) and (y <= s.danger_back or s.y <= s.danger_back)
        and (z >= s.danger_low or s.z >= s.danger_low) and (z <= s.danger_high or s.z <= s.danger_high)
    ):  # fmt: skip
        return False
    if pushed > 0:
        gap = s.now - s.printed_at
        return not (s.watched or gap > s.longest or s.printed + pushed > s.due)
    return not (s.keeps and z < s.level - s.lower * s.thick)


@compiled
def _pushes(x: float, y: float, z: float, pushed: float, s: Array, pushes: Array) -> None:
    if pushed > 0 and (x != s.x or y != s.y or z != s.z):
        s.prints += 1
        s.began_x, s.began_y, s.began_z, s.fed = s.x, s.y, s.z, pushed
        s.gap_most = s.most
        s.gap_push_from, s.push_from = s.push_from, s.push
        s.gap_way_from, s.way_from = s.way_from, s.way
        s.gap_x, s.gap_y, s.gap_z = s.ended_x, s.ended_y, s.ended_z
        s.ended_x, s.ended_y, s.ended_z = x, y, z
        s.laid_before = s.laid
        s.pushed += pushed
        s.most = s.pushed
        return
    s.pushed += pushed
    if pushed > 0:
        pushes[s.push, 0], pushes[s.push, 1], pushes[s.push, 2], pushes[s.push, 3] = x, y, z, pushed
        s.push += 1
    s.most = max(s.most, s.pushed)


@compiled
def _go(x: float, y: float, z: float, pushed: float, s: Array, laid: Array, way: Array) -> None:
    dx, dy, dz = x - s.x, y - s.y, z - s.z
    far = math.sqrt(dx * dx + dy * dy + dz * dz)
    if far < LEAST_WAY_MM:
        if pushed:
            s.now += abs(pushed) / (s.feed / 60)
        return
    s.still = False
    speed = min(s.feed / 60, s.top)
    if dz and not (dx or dy):
        speed = min(speed, s.rises)
    if pushed > 0:
        _print(x, y, z, pushed, s, laid)
        s.now += far / speed
        s.printed_at = s.now
    else:
        rise = speed * speed / s.gain
        s.now += far / speed + speed / s.gain if far > rise else 2 * math.sqrt(far / s.gain)
        way[s.way, 0], way[s.way, 1], way[s.way, 2], way[s.way, 3] = x, y, z, s.line + 1
        s.way += 1
    s.x, s.y, s.z = x, y, z


@compiled
def _print(x: float, y: float, z: float, pushed: float, s: Array, laid: Array) -> None:
    s.printed += pushed
    if s.keeps:
        row = laid[s.laid]
        row[0], row[1], row[2], row[3], row[4], row[5] = s.x, s.y, s.z, x, y, z
        row[6], row[7] = pushed, s.printed <= s.early
        s.laid += 1
    rise = z - s.level
    if rise > s.thin or rise < -1e-6:
        if rise > 0:
            s.thick = min(rise, 1.0)
        s.level = z
