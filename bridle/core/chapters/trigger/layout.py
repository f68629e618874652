"""Wiring diagrams: blocks from left to right, every wire on a row and a track of its own.

In each gap between two blocks every net has rows that no other has, and every line that goes up or down a track that
no other has: so no two wires lie on one another, and they cross at right angles where they must. What passes a block
goes below all of them.
"""

import itertools
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from bridle.core.chapters.trigger.state import BlockDrawn, Diagram, EndDrawn, Glyph, Point, WireDrawn, Written
from bridle.core.reckon.wiring import called

ROW, TRACK, TOP, EDGE, BELOW = 34.0, 13.0, 46.0, 10.0, 30.0
PAD = 22.0
CHARACTER = 6.4
GAP, GAP_WITH_LEAD, ROOM_OF_LEAD = 56.0, 168.0, 90.0
MOST_LINES = 2

Ends = dict[str, Point]
Drawing = Glyph | tuple[Point, ...]


@dataclass(frozen=True)
class Block:
    """A part: its name, its ends on either side, what is said below it, and what is drawn inside between its ends."""

    part: str
    title: str
    width: float
    left: tuple[str, ...]
    right: tuple[str, ...]
    inside: Callable[[float, float, Ends], list[Drawing]]
    said: str = ""
    copy: int | None = None


@dataclass(frozen=True)
class Chart:
    """Blocks in a row, what is joined, what each end is called; `lead` is what the last gap is bridged by."""

    blocks: tuple[Block, ...]
    joins: tuple[tuple[str, str], ...]
    labels: dict[str, str]
    lead: str = ""


@dataclass(frozen=True)
class Side:
    """The ends of a block on one of its sides, each with its row."""

    ends: tuple[str, ...]
    rows: dict[str, int] = field(default_factory=dict)


@dataclass
class Gap:
    """Between two blocks: what stands on either side, where it begins and how wide it is."""

    left: Side
    right: Side
    tracks: list[str] = field(default_factory=list)
    x: float = 0.0
    width: float = GAP

    def track_x(self, net: str) -> float:
        """Where a net goes up and down in this gap."""
        return self.x + PAD + TRACK * self.tracks.index(net)


def drawn(chart: Chart) -> Diagram:
    """The drawing of a chart, in pixels of its own."""
    gaps = [Gap(Side(one.right), Side(other.left)) for one, other in itertools.pairwise(chart.blocks)]
    joined = {end for pair in chart.joins for end in pair}
    nets = _nets(gaps, called(chart.joins), joined)
    spanning = [net for net, ends in nets.items() if len({gap for gap, _, _ in ends}) > 1]
    rows = max([_rows(number, gap, nets, spanning) for number, gap in enumerate(gaps)], default=1)
    _place(chart, gaps)
    bottom = TOP + rows * ROW
    blocks = tuple(_blocks(chart, gaps, joined))
    return Diagram(
        width=blocks[-1].x + blocks[-1].width + EDGE,
        height=bottom + BELOW + TRACK * len(spanning) + EDGE,
        blocks=blocks,
        wires=tuple(_wires(gaps, nets, spanning, bottom)),
        words=(*_titles(chart, blocks), *_end_words(blocks), *_said(chart, blocks), *_lead_words(chart, gaps)),
        sheath=_sheath(chart, gaps),
    )


Nets = dict[str, list[tuple[int, str, str]]]


def _nets(gaps: list[Gap], name: Callable[[str], str], joined: set[str]) -> Nets:
    """The ends of each net, with their gap and side; an end that hangs loose is a net of its own."""
    nets: Nets = {}
    for number, gap in enumerate(gaps):
        for side, of in (("left", gap.left), ("right", gap.right)):
            for end in of.ends:
                net = name(end) if end in joined else f"loose {end}"
                nets.setdefault(net, []).append((number, side, end))
    return nets


def _rows(number: int, gap: Gap, nets: Nets, spanning: list[str]) -> int:
    """Give every end of a gap its row; those that go on elsewhere lie lowest. Returns how many rows there are."""
    here = {net: [(side, end) for at, side, end in ends if at == number] for net, ends in nets.items()}
    order = [net for net in here if here[net] and net not in spanning]
    order.sort(key=lambda net: net.startswith("loose"))
    row = 0
    for net in order:
        taken = {"left": 0, "right": 0}
        for side, end in here[net]:
            (gap.left if side == "left" else gap.right).rows[end] = row + taken[side]
            taken[side] += 1
        if max(taken.values()) > 1:
            gap.tracks.append(net)
        row += max(taken.values())
    for net in (net for net in spanning if here[net]):
        for side, end in here[net]:
            (gap.left if side == "left" else gap.right).rows[end] = row
            row += 1
        gap.tracks.append(net)
    return row


def _place(chart: Chart, gaps: list[Gap]) -> None:
    x = EDGE
    for block, gap in zip(chart.blocks, gaps, strict=False):
        x += block.width
        gap.x = x
        lead = bool(chart.lead) and gap is gaps[-1]
        room = 2 * PAD + TRACK * len(gap.tracks) + (ROOM_OF_LEAD if lead else 0)
        gap.width = max(GAP_WITH_LEAD if lead else GAP, room)
        x += gap.width


def _y(row: int) -> float:
    return TOP + ROW * (row + 0.5)


def _wires(gaps: list[Gap], nets: Nets, spanning: list[str], bottom: float) -> Iterator[WireDrawn]:
    for net, ends in nets.items():
        if net.startswith("loose"):
            continue
        names = tuple(end for _, _, end in ends)
        if net in spanning:
            bus = bottom + BELOW + TRACK * spanning.index(net)
            lines, dots = _spanned(gaps, net, ends, bus)
        else:
            lines, dots = _local(gaps[ends[0][0]], net, ends)
        yield WireDrawn(ends=names, lines=lines, dots=dots)


def _at(gap: Gap, side: str, end: str) -> Point:
    of = gap.left if side == "left" else gap.right
    return (gap.x if side == "left" else gap.x + gap.width, _y(of.rows[end]))


Lines = tuple[tuple[tuple[Point, ...], ...], tuple[Point, ...]]


def _local(gap: Gap, net: str, ends: list[tuple[int, str, str]]) -> Lines:
    points = [(side, _at(gap, side, end)) for _, side, end in ends]
    if net not in gap.tracks:
        return (tuple(sorted(point for _, point in points)),), ()
    x = gap.track_x(net)
    rows = sorted({y for _, (_, y) in points})
    lines = [((x, rows[0]), (x, rows[-1])), *((point, (x, point[1])) for _, point in points)]
    return tuple(lines), tuple(_dots(x, points, rows))


def _dots(x: float, points: list[tuple[str, Point]], rows: list[float]) -> Iterator[Point]:
    """Where three lines meet: an end that joins a line that goes on, or two ends at its last row."""
    for y in rows:
        here = sum(at[1] == y for _, at in points)
        if here + (y != rows[0]) + (y != rows[-1]) > 2:
            yield (x, y)


def _spanned(gaps: list[Gap], net: str, ends: list[tuple[int, str, str]], bus: float) -> Lines:
    lines: list[tuple[Point, ...]] = []
    dots: list[Point] = []
    tracks = []
    for number in sorted({number for number, _, _ in ends}):
        gap, x = gaps[number], gaps[number].track_x(net)
        tracks.append(x)
        here = [(side, _at(gap, side, end)) for at, side, end in ends if at == number]
        rows = sorted(y for _, (_, y) in here)
        lines += [((x, rows[0]), (x, bus)), *((point, (x, point[1])) for _, point in here)]
        dots += [(x, y) for y in rows[1:]]
    lines.append(((min(tracks), bus), (max(tracks), bus)))
    dots += [(x, bus) for x in tracks[1:-1]]
    return tuple(lines), tuple(dots)


def _blocks(chart: Chart, gaps: list[Gap], joined: set[str]) -> Iterator[BlockDrawn]:
    x = EDGE
    for number, block in enumerate(chart.blocks):
        left = gaps[number - 1].right.rows if number else {}
        right = gaps[number].left.rows if number < len(gaps) else {}
        placed = [(end, (x, _y(row))) for end, row in left.items()]
        placed += [(end, (x + block.width, _y(row))) for end, row in right.items()]
        order = [*block.left, *block.right]
        ends = tuple(
            EndDrawn(end=end, label=chart.labels.get(end, end), at=at, joined=end in joined)
            for end, at in sorted(placed, key=lambda one: order.index(one[0]))
        )
        made = block.inside(x, block.width, {end.end: end.at for end in ends})
        yield BlockDrawn(
            part=block.part,
            copy=block.copy,
            x=x,
            y=TOP,
            width=block.width,
            height=max((end.at[1] for end in ends), default=TOP) - TOP + ROW / 2,
            ends=ends,
            glyphs=tuple(one for one in made if isinstance(one, Glyph)),
            lines=tuple(one for one in made if not isinstance(one, Glyph)),
        )
        x += block.width + (gaps[number].width if number < len(gaps) else 0.0)


def _titles(chart: Chart, blocks: tuple[BlockDrawn, ...]) -> Iterator[Written]:
    for block, placed in zip(chart.blocks, blocks, strict=True):
        lines = wrapped(block.title, int(block.width / (CHARACTER + 0.4)))
        for number, line in enumerate(lines):
            y = TOP - 10 - 16 * (len(lines) - 1 - number)
            yield Written(text=line, at=(placed.x, y), role="title")


def wrapped(text: str, most: int) -> list[str]:
    """A name over two lines at most; what does not fit is left off with an ellipsis."""
    line, lines = "", []
    for word in text.split():
        longer = f"{line} {word}".strip()
        if len(longer) <= most or not line:
            line = longer
        else:
            lines.append(line)
            line = word
    lines.append(line)
    short = [one if len(one) <= most else f"{one[: most - 1]}…" for one in lines]
    if len(short) > MOST_LINES:
        short = [short[0], f"{short[1][: most - 1]}…"]
    return short


def _end_words(blocks: tuple[BlockDrawn, ...]) -> Iterator[Written]:
    for block in blocks:
        for end in block.ends:
            x, y = end.at
            right = x > block.x
            yield Written(text=end.label, at=(x - 7 if right else x + 7, y - 5), anchor="end" if right else "start")


def _said(chart: Chart, blocks: tuple[BlockDrawn, ...]) -> Iterator[Written]:
    for block, placed in zip(chart.blocks, blocks, strict=True):
        if block.said:
            yield Written(text=block.said, at=(placed.x, placed.y + placed.height + 15), role="value")


def _lead_words(chart: Chart, gaps: list[Gap]) -> Iterator[Written]:
    if not chart.lead:
        return
    gap = gaps[-1]
    lines = wrapped(chart.lead, int(gap.width / (CHARACTER + 0.2)))
    for number, line in enumerate(lines):
        at = gap.x + gap.width / 2, TOP - 10 - 16 * (len(lines) - 1 - number)
        yield Written(text=line, at=at, anchor="middle", role="lead")


def _sheath(chart: Chart, gaps: list[Gap]) -> tuple[float, float, float, float] | None:
    """The lead round its wires, to the right of where they branch."""
    if not chart.lead:
        return None
    gap = gaps[-1]
    left = gap.x + PAD + TRACK * len(gap.tracks) + 6
    used = list(gap.right.rows.values())
    return (left, TOP + 4, gap.x + gap.width - left - 12, ROW * (max(used, default=0) + 1) - 8)
