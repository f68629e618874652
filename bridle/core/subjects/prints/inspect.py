"""The full pass over a file: every line carried out and timed, layers gathered, what else stands there told."""

import re
from collections import defaultdict
from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints import gather as g
from bridle.core.subjects.prints.commands import WORD, Sort, name_of, sort_of
from bridle.core.subjects.prints.follow import (
    APART,
    ARC_BAD,
    DOUBTS,
    FEED,
    HOMED,
    NOTHING,
    PRINT_A,
    PRINTS,
    PULLS,
    PUSHED,
    STATE,
    TRAVEL_A,
    WAITED,
    beginning,
    follow,
)
from bridle.core.subjects.prints.found import Inspection, Layer, Motion, Other, Wrong
from bridle.core.subjects.prints.heights import Grouped, grouped, merged, places
from bridle.core.subjects.prints.motion import seconds
from bridle.core.subjects.prints.scan import STYLES, Scanned
from bridle.core.subjects.prints.tower import Feature, Tower
from bridle.core.subjects.prints.units import UNIT_MM
from bridle.core.subjects.prints.words import BAD, CHECKSUM, EMPTY, MODAL, TWICE, Rows
from bridle.core.subjects.prints.words import WORD as A_WORD
from bridle.core.subjects.prints.words import rows as rows_of_text

FEATURE = re.compile(rb"^[ \t]*;[ \t]*(?:(?:TYPE|FEATURE)[ \t]*:[ \t]*)([^\r\n]{1,60})", re.M)
INFILLS = re.compile(rb"infill|^fill$|^skin$", re.I)
EXPECTED = {
    BAD: "a letter with a number behind it",
    TWICE: "one command on a line",
    CHECKSUM: "a checksum that fits the line",
}
SHOWN_WRONG = 20
FOREIGN_LAYERS = 3
APART_MM = 5.0
MOST_FORESEEN = 40_000


class _Others:
    """Commands besides moves and settings, counted as they come."""

    def __init__(self) -> None:
        self.count: dict[str, int] = defaultdict(int)
        self.layers: dict[str, set[int]] = defaultdict(set)
        self.first: dict[str, tuple[int, str, Sort]] = {}

    def take(self, name: str, sort: Sort, layer: int, line: int, text: bytes) -> None:
        self.count[name] += 1
        self.layers[name].add(layer)
        self.first.setdefault(name, (line, text[:80].decode("utf-8", "replace").strip(), sort))

    def found(self) -> list[Other]:
        return [
            Other(name, sort, self.count[name], len(self.layers[name] - {0}), line, text)
            for name, (line, text, sort) in self.first.items()
        ]


def inspect(
    pieces: Iterable[bytes], scanned: Scanned, motion: Motion, told: Callable[[int], None] = lambda _: None
) -> Inspection:
    """Read pieces of whole lines; `told` hears how many bytes are done, and may raise to stop."""
    style = scanned.style
    count = scanned.marks[style] if style else 1500
    table = g.Table(bool(style), int(min(800, max(40, 1_500_000 // max(count, 1)))), min(count, MOST_FORESEEN) + 4)
    state, others, tower = beginning(bool(motion.apart)), _Others(), Tower()
    wrong: list[Wrong] = []
    byte = line = bad = homes = numbered = 0
    for piece in pieces:
        read = rows_of_text(piece)
        features = _features(piece, read)
        bad += _wrongs(piece, read, line, wrong)
        before, worked = state.copy(), _work(read, state, motion)
        marks = _marks(piece, read, style, features)
        rows_of = _gather(piece, read, before, worked, table, marks, byte, line)
        tower.take(features, before, worked["after"], worked["did"], rows_of)
        _commands(piece, read, others, rows_of, line)
        bad += _arcs(piece, read, worked["did"], line, wrong)
        homes += int((worked["did"] == HOMED).sum())
        numbered += piece.startswith((b"N", b"n")) if not byte else 0
        byte, line = byte + len(piece), line + len(read.code)
        told(byte)
    found = _result(scanned, table, others, wrong, bad, bool(homes), bool(numbered), style)
    found.pushed, found.tower, found.tower_layers = float(state[PUSHED]), tower.found, len(tower.layers - {0})
    found.apart, found.doubts = bool(state[APART]), int(state[DOUBTS])
    found.pulls = float(state[PULLS] / max(1, state[PRINTS] + state[PULLS]))
    return found


def _work(read: Rows, state: NDArray[np.float64], motion: Motion) -> dict[str, Any]:
    """State after each line, lengths, directions, seconds."""
    count = len(read.code)
    after, length, turn = np.empty((count, STATE)), np.empty(count), np.empty((count, 4))
    waits, did = np.empty(count), np.empty(count, np.int64)
    before = state.copy()
    follow(read.code, read.values, state, np.array(motion.home), after, length, turn, waits, did)
    change = np.diff(after[:, [2, 3]], axis=0, prepend=before[None, [2, 3]])
    lifted, pushed = np.ascontiguousarray(change[:, 0]), np.ascontiguousarray(change[:, 1])
    took = np.empty(count)
    limits = np.array([*motion.top, motion.push_top, motion.print_a, motion.travel_a, motion.push_a, motion.corner])
    moving = np.where(did == NOTHING, 0.0, length)
    moving[did == HOMED] = 0.0
    pushed[did == HOMED] = 0.0
    stop = (did == WAITED) | (did == HOMED)
    feed, print_a, travel_a = (after[:, column].copy() for column in (FEED, PRINT_A, TRAVEL_A))
    seconds(moving, turn, lifted, pushed, feed, print_a, travel_a, limits, stop, took)
    return {"after": after, "length": length, "took": took + waits, "did": did}


def _gather(
    piece: bytes,
    read: Rows,
    before: NDArray[np.float64],
    worked: dict[str, Any],
    table: g.Table,
    marks: NDArray[np.int64],
    byte: int,
    line: int,
) -> NDArray[np.int64]:
    """Gather a piece; returns the layer in which each line stands."""
    begins = np.append(read.begins, len(piece)).astype(np.int64)
    first, count, was = 0, len(read.code), table.layers
    while first < count:
        first = g.gather(
            first, read.code, read.values, worked["after"], before, worked["length"], worked["took"], worked["did"],
            marks, begins, byte, line, table.by_marks, table.facts, table.places, table.points, table.kept,
            table.start_path, table.tail_path, table.carried,
        )  # fmt: skip
        if first < count:
            table.grow()
    fresh = table.facts[was + 1 : table.layers + 1, g.FROM_LINE] - line
    return was + np.searchsorted(fresh, np.arange(count), side="right")


@lru_cache(maxsize=200)
def _part(text: bytes) -> int:
    return g.AN_INFILL if INFILLS.search(text) else g.ANOTHER_PART


def _features(piece: bytes, read: Rows) -> list[Feature]:
    """Which lines say what is printed from there on."""
    found = list(FEATURE.finditer(piece))
    lines = np.searchsorted(read.begins, [one.start() for one in found], side="right") - 1
    return [(int(line), one[1].strip()) for line, one in zip(lines, found, strict=True)]


def _marks(piece: bytes, read: Rows, style: str | None, features: list[Feature]) -> NDArray[np.int64]:
    marks = np.zeros(len(read.code), np.int64)
    for line, text in features:
        marks[line] = _part(text)
    if style:
        at = np.array([found.start() for found in STYLES[style].finditer(piece)], np.int64)
        marks[np.searchsorted(read.begins, at, side="right") - 1] = g.A_LAYER
    return marks


def _wrongs(piece: bytes, read: Rows, line: int, wrong: list[Wrong]) -> int:
    """Take the lines that cannot be read; returns how many there are."""
    lines = np.flatnonzero(read.code < EMPTY)
    for n in lines[: max(0, SHOWN_WRONG - len(wrong))]:
        at = int(read.wrong_at[n])
        stood = piece[at : at + 24].split(b"\n")[0].decode("utf-8", "replace").strip()
        wrong.append(Wrong(line + int(n) + 1, stood, EXPECTED[int(read.code[n])]))
    return len(lines)


def _arcs(piece: bytes, read: Rows, did: NDArray[np.int64], line: int, wrong: list[Wrong]) -> int:
    lines = np.flatnonzero(did == ARC_BAD)
    for n in lines[: max(0, SHOWN_WRONG - len(wrong))]:
        text = piece[read.begins[n] :].split(b"\n", 1)[0][:40].decode("utf-8", "replace").strip()
        wrong.append(Wrong(line + int(n) + 1, text, "a middle (I, J) or a radius (R) that reaches the arc's end"))
    return len(lines)


def _commands(piece: bytes, read: Rows, others: _Others, layer: NDArray[np.int64], line: int) -> None:
    """Count commands that are neither moves nor settings."""
    for one in np.unique(read.code).tolist():
        if one in (EMPTY, MODAL) or one < 0:
            continue
        if one != A_WORD and sort_of(name_of(one)) == "plain":
            continue
        for n in np.flatnonzero(read.code == one).tolist():
            text = piece[read.begins[n] :].split(b"\n", 1)[0] if n + 1 == len(read.code) else piece[
                read.begins[n] : read.begins[n + 1]
            ]  # fmt: skip
            name = name_of(one)
            if one == A_WORD:
                found = WORD.match(text)
                name = found[1].decode().upper() if found else "?"
            sort = sort_of(name)
            if sort != "plain":
                others.take(name, sort, int(layer[n]), line + n + 1, text)


def _result(
    scanned: Scanned,
    table: g.Table,
    others: _Others,
    wrong: list[Wrong],
    bad: int,
    homes: bool,
    numbered: bool,
    style: str | None,
) -> Inspection:
    groups = _groups(table)
    layers = _layers(table, groups.layers)
    facts = table.facts[1 : table.layers + 1]
    # Of several rows of one layer the longest is drawn.
    drawn = [max(rows, key=lambda row: table.facts[row, g.WAY]) for rows in groups.layers]
    before = [0, *groups.before]
    # In a spiral nearly every printed move rises, once the bottom is done.
    rising = facts[:, g.RISING].sum() > 0.5 * max(1.0, facts[:, g.MOVES].sum())
    found = others.found()
    return Inspection(
        size=scanned.size,
        lines=scanned.lines,
        crlf=scanned.crlf * 2 > scanned.lines,
        last_ends=scanned.last_ends,
        style=style,
        layers=[] if rising else layers,
        seconds=float(table.carried[g.NOW]),
        start_s=float(table.facts[before, g.SECONDS].sum()),
        purge=float(table.facts[before, g.FILAMENT].sum()),
        start_path=_start_path(table, groups.before),
        end_path=table.tail_path[: int(table.carried[g.TAIL])],
        start_line=layers[0].line - 1 if layers else 0,
        spiral=bool(rising),
        homes=homes,
        others=found,
        wrong=wrong,
        wrong_count=bad,
        parks=_parks(layers),
        points=table.points[drawn],
        kept=table.kept[drawn, 0],
        total=layers[-1].end if layers else None,
        tools=tuple(sorted({int(one.name[1:]) for one in found if one.sort == "tool"})),
        numbered=numbered,
    )


def _groups(table: g.Table) -> Grouped:
    """The rows of each layer: one, but where only their heights tell them from one another."""
    facts = table.facts[: table.layers + 1]
    if not table.by_marks:
        return grouped(facts)
    return Grouped((), tuple((row,) for row in range(1, table.layers + 1) if facts[row, g.MOVES] > 0))


def _start_path(table: g.Table, before: tuple[int, ...]) -> NDArray[np.float64]:
    """The way before the first layer, with what was printed beside the part."""
    paths = [table.start_path[: int(table.carried[g.HEAD_PATH])]]
    for row in before:
        points = table.points[row, : table.kept[row, 0]]
        height, printed = np.full(len(points), table.facts[row, g.HEIGHT]), points[:, 2].astype(float)
        paths.append(np.column_stack([points[:, :2] * UNIT_MM, height, printed]))
    return np.concatenate(paths)


def _layers(table: g.Table, groups: tuple[tuple[int, ...], ...]) -> list[Layer]:
    """The layers in which something was printed; objects begin where heights start again."""
    made: list[Layer] = []
    thing, below = 1, 0.0
    for rows in groups:
        fact = merged(table.facts, rows)
        z = float(fact[g.HEIGHT])
        if made and z < made[-1].z - 0.5 * max(0.05, made[-1].thick):
            thing, below = thing + 1, 0.0
        box = tuple(float(fact[k]) for k in (g.X0, g.X1, g.Y0, g.Y1))
        out = tuple(float(fact[k]) for k in (g.OUT_X0, g.OUT_X1, g.OUT_Y0, g.OUT_Y1))
        made.append(
            Layer(
                number=len(made) + 1,
                thing=thing,
                z=z,
                thick=z - below,
                seconds=float(fact[g.SECONDS]),
                filament=float(fact[g.FILAMENT]),
                way=float(fact[g.WAY]),
                box=(box[0], box[1], box[2], box[3]),
                out=(out[0], out[1], out[2], out[3]),
                line=int(fact[g.FROM_LINE]) + 1,
                rows=places(table.facts, table.places, rows),
            )
        )
        below = z
    return made


def _parks(layers: list[Layer]) -> tuple[int, float, float] | None:
    """How many layers send the head to the same place well outside of all that is printed, and where that is."""
    if len(layers) < FOREIGN_LAYERS:
        return None
    boxes = np.array([layer.box for layer in layers])
    low, high = boxes[:, [0, 2]].min(0), boxes[:, [1, 3]].max(0)
    best: tuple[int, float, float] | None = None
    for axis, which, side in ((0, 0, -1), (0, 1, 1), (1, 2, -1), (1, 3, 1)):
        reached = np.array([layer.out[which] for layer in layers[:-1]])
        beyond = (reached < low[axis] - APART_MM) if side < 0 else (reached > high[axis] + APART_MM)
        beyond &= np.isfinite(reached)
        if not beyond.any():
            continue
        values, counts = np.unique(np.round(reached[beyond], 1), return_counts=True)
        most = int(counts.argmax())
        if counts[most] >= FOREIGN_LAYERS and (best is None or counts[most] > best[0]):
            best = (
                int(counts[most]),
                float(values[most]) if axis == 0 else np.nan,
                float(values[most]) if axis else np.nan,
            )
    return best
