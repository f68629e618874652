"""What each layer comes to, gathered line by line: its height, time, filament and extents, and the places of a stop."""

import math

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints.compiled import compiled
from bridle.core.subjects.prints.follow import ARC_BAD, MOVED, STATE, arc_of
from bridle.core.subjects.prints.units import UNIT_MM

# Sums over everything printed, which no stop may change: filament, way, and the way weighed with feed, x, y and z.
SUMS = 6
# A place where a stop can stand: its byte, its line, the clock, the state there, the sums so far.
BYTE, LINE, CLOCK, STATE_AT = 0, 1, 2, 3
# The length of the state (24) is compiled into what is kept beside this file: who changes it changes this line too.
SUMS_AT = STATE_AT + STATE
PLACE = SUMS_AT + SUMS
# The places of a layer: where the next one is announced, where its infill begins, behind its last printed move.
CHANGE, FILL, END = 0, 1, 2
# Facts of a layer.
OBJECT, HEIGHT, LOW, SECONDS, FILAMENT, X0, X1, Y0, Y1, WAY, MOVES, RISING = range(12)
# How far the head went without printing, and the line and byte of the layer's beginning.
OUT_X0, OUT_X1, OUT_Y0, OUT_Y1, FROM_LINE, FROM_BYTE, TOP = range(12, 19)
FACTS = 19
# Marks that comments set on a line.
A_LAYER, AN_INFILL, ANOTHER_PART = 1, 2, 3
# What is carried on from piece to piece.
NOW, SUM, PRINTED_TO, ROW, TAIL, HEAD_PATH = 0, 1, 7, 8, 9, 10
CARRIED = 12
PATHS = 3000
SAME_MM = 0.005


class Table:
    """Growing tables of what was gathered: row 0 is what comes before the first layer, then a row a layer."""

    def __init__(self, by_marks: bool, points: int, rows: int = 64) -> None:
        """`points` is how many corners of its path are kept of each layer, `rows` how many layers there are to be."""
        self.by_marks = by_marks
        self.facts: NDArray[np.float64] = np.zeros((rows, FACTS))
        self.places: NDArray[np.float64] = np.full((rows, 3, PLACE), np.nan)
        self.points: NDArray[np.int16] = np.zeros((rows, points, 3), np.int16)
        self.kept: NDArray[np.int64] = np.zeros((rows, 2), np.int64)
        self.start_path: NDArray[np.float64] = np.zeros((PATHS, 4))
        self.tail_path: NDArray[np.float64] = np.zeros((PATHS, 4))
        self.carried: NDArray[np.float64] = np.zeros(CARRIED)
        _fresh(self.facts, 0)

    @property
    def layers(self) -> int:
        """How many layers there are so far, the one at work included."""
        return int(self.carried[ROW])

    def grow(self) -> None:
        """Twice as many rows."""
        self.facts = np.concatenate([self.facts, np.zeros_like(self.facts)])
        self.places = np.concatenate([self.places, np.full_like(self.places, np.nan)])
        self.points = np.concatenate([self.points, np.zeros_like(self.points)])
        self.kept = np.concatenate([self.kept, np.zeros_like(self.kept)])


@compiled
def _fresh(facts, row):
    facts[row, :] = 0.0
    for low in (X0, Y0, OUT_X0, OUT_Y0, LOW):
        facts[row, low] = np.inf
    for high in (X1, Y1, OUT_X1, OUT_Y1, HEIGHT, TOP):
        facts[row, high] = -np.inf


@compiled
def gather(first, codes, values, after, before, length, took, did, marks, begins, base_byte, base_line,
           by_marks, facts, places, points, kept, start_path, tail_path, carried):  # fmt: skip
    """Gather lines from `first` on; returns the line at which the tables are full, or the count of lines.

    `begins` has one entry more than there are lines: the end of the piece.
    """
    for n in range(first, len(codes)):
        was = before if n == 0 else after[n - 1]
        row = int(carried[ROW])
        if row + 2 >= len(facts):
            return n
        if marks[n] == A_LAYER and by_marks:
            row = _next_layer(row, was, base_byte + begins[n], base_line + n, facts, places, kept, carried, False)
        elif marks[n] == AN_INFILL and row > 0 and np.isnan(places[row, FILL, BYTE]) and facts[row, MOVES] > 0:
            _note(places[row, FILL], base_byte + begins[n], base_line + n, was, carried)
        pushed = after[n, 3] - was[3]
        printing = pushed > 0 and length[n] > 0 and did[n] != 0
        if printing and not by_marks:
            fresh = row == 0 or abs(after[n, 2] - carried[PRINTED_TO]) > SAME_MM
            if fresh and (row == 0 or after[n, 2] == was[2]):
                row = _next_layer(row, was, base_byte + begins[n], base_line + n, facts, places, kept, carried, True)
                carried[PRINTED_TO] = after[n, 2]
        carried[NOW] += took[n]
        facts[row, SECONDS] += took[n]
        facts[row, TOP] = max(facts[row, TOP], after[n, 2])
        if did[n] != MOVED and did[n] != ARC_BAD:
            continue
        if printing:
            _printed(n, row, codes, values, after[n], was, length[n], pushed, facts, points, kept, carried)
            _note(places[row, END], base_byte + begins[n + 1], base_line + n + 1, after[n], carried)
            carried[TAIL] = 0
        else:
            _travelled(row, after[n], facts)
        _path(row, after[n], printing, start_path, tail_path, carried)
    return len(codes)


@compiled
def _next_layer(row, was, byte, line, facts, places, kept, carried, by_height):
    """Close the layer at work and begin the next; one in which nothing was printed is begun anew."""
    if row > 0 and facts[row, MOVES] == 0:
        facts[row, FROM_LINE], facts[row, FROM_BYTE] = line, byte
        return row
    if row > 0:
        if by_height:
            places[row, CHANGE] = places[row, END]
        else:
            _note(places[row, CHANGE], byte, line, was, carried)
    row += 1
    _fresh(facts, row)
    facts[row, FROM_LINE], facts[row, FROM_BYTE] = line, byte
    carried[ROW] = row
    kept[row, 0], kept[row, 1] = 0, 1
    return row


@compiled
def _note(place, byte, line, state, carried):
    place[BYTE], place[LINE], place[CLOCK] = byte, line, carried[NOW]
    place[STATE_AT : STATE_AT + STATE] = state
    place[SUMS_AT : SUMS_AT + SUMS] = carried[SUM : SUM + SUMS]


@compiled
def _printed(n, row, codes, values, now, was, length, pushed, facts, points, kept, carried):
    facts[row, MOVES] += 1
    facts[row, FILAMENT] += pushed
    facts[row, WAY] += length
    facts[row, HEIGHT] = max(facts[row, HEIGHT], now[2])
    facts[row, LOW] = min(facts[row, LOW], now[2])
    if now[2] > was[2] + 1e-9:
        facts[row, RISING] += 1
    x, y = (now[0] + was[0]) / 2, (now[1] + was[1]) / 2
    code = int(codes[n]) if codes[n] != 1 else int(now[15])
    if code == 700020 or code == 700030:
        mx, my, sweep = arc_of(code, values[n], was[12], now[0] - was[0], now[1] - was[1])
        chords = min(64, max(2, int(abs(sweep) * 8)))
        from_angle, radius = math.atan2(-my, -mx), math.sqrt(mx * mx + my * my)
        if radius > 0:
            middle = from_angle + sweep / 2
            far = radius * math.sin(abs(sweep) / 2) / (abs(sweep) / 2)
            x, y = was[0] + mx + far * math.cos(middle), was[1] + my + far * math.sin(middle)
            px, py = was[0], was[1]
            for k in range(1, chords):
                angle = from_angle + sweep * k / chords
                qx, qy = was[0] + mx + radius * math.cos(angle), was[1] + my + radius * math.sin(angle)
                _corner(row, px, py, qx, qy, facts, points, kept)
                px, py = qx, qy
            _corner(row, px, py, now[0], now[1], facts, points, kept)
    else:
        _corner(row, was[0], was[1], now[0], now[1], facts, points, kept)
    carried[SUM] += pushed
    carried[SUM + 1] += length
    carried[SUM + 2] += length * now[9] / 1000
    carried[SUM + 3] += length * x
    carried[SUM + 4] += length * y
    carried[SUM + 5] += length * (now[2] + was[2]) / 2


@compiled
def _corner(row, px, py, x, y, facts, points, kept):
    """Take a printed straight into the extents and, thinned, into the points that are drawn."""
    facts[row, X0], facts[row, X1] = min(facts[row, X0], px, x), max(facts[row, X1], px, x)
    facts[row, Y0], facts[row, Y1] = min(facts[row, Y0], py, y), max(facts[row, Y1], py, y)
    count = kept[row, 0]
    ax, ay = _short(px), _short(py)
    if count == 0 or points[row, count - 1, 0] != ax or points[row, count - 1, 1] != ay:
        if count + 2 > points.shape[1]:
            count = _thin(points[row], count)
        points[row, count, 0], points[row, count, 1], points[row, count, 2] = ax, ay, 0
        count += 1
    elif count >= 2 and points[row, count - 1, 2] == 1:
        # The last corner is left out where the way on from before it is short: its stride grows with the thinning.
        gap = abs(points[row, count - 1, 0] - points[row, count - 2, 0])
        gap += abs(points[row, count - 1, 1] - points[row, count - 2, 1])
        if gap < kept[row, 1]:
            count -= 1
    if count + 1 > points.shape[1]:
        count = _thin(points[row], count)
        kept[row, 1] = kept[row, 1] * 2 + 16
    points[row, count, 0], points[row, count, 1], points[row, count, 2] = _short(x), _short(y), 1
    kept[row, 0] = count + 1


@compiled
def _short(mm):
    return np.int16(max(-32000, min(32000, round(mm / UNIT_MM))))


@compiled
def _thin(points, count):
    """Leave out every second corner within a way; where there are only ends, every second way."""
    to, skip = 0, False
    for n in range(count):
        inner = points[n, 2] == 1 and n + 1 < count and points[n + 1, 2] == 1
        skip = inner and not skip
        if not skip:
            points[to] = points[n]
            to += 1
    if to > count * 3 // 4:
        count, to, way = to, 0, 0
        for n in range(count):
            if points[n, 2] == 0:
                way += 1
            if way % 2 == 0:
                points[to] = points[n]
                to += 1
    return to


@compiled
def _travelled(row, now, facts):
    facts[row, OUT_X0], facts[row, OUT_X1] = min(facts[row, OUT_X0], now[0]), max(facts[row, OUT_X1], now[0])
    facts[row, OUT_Y0], facts[row, OUT_Y1] = min(facts[row, OUT_Y0], now[1]), max(facts[row, OUT_Y1], now[1])


@compiled
def _path(row, now, printing, start_path, tail_path, carried):
    """Keep the way before the first layer, and the way since the last printed move."""
    if row == 0 and carried[HEAD_PATH] < len(start_path):
        at = int(carried[HEAD_PATH])
        start_path[at, 0], start_path[at, 1], start_path[at, 2] = now[0], now[1], now[2]
        start_path[at, 3] = 1.0 if printing else 0.0
        carried[HEAD_PATH] += 1
    elif row > 0 and not printing and carried[TAIL] < len(tail_path):
        at = int(carried[TAIL])
        tail_path[at, 0], tail_path[at, 1], tail_path[at, 2], tail_path[at, 3] = now[0], now[1], now[2], 0.0
        carried[TAIL] += 1
