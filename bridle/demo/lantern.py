"""The demo print: a lattice lantern, its G-code made by rule, the same bytes every time."""

import math
from collections.abc import Iterator

LAYER_MM = 0.24
LAYERS = 700
MIDDLE = (117.5, 110.0)
LINE_MM = 0.45
# Filament of 1.75 mm pushed for each mm of a line of this height and width.
PUSH = LAYER_MM * LINE_MM / (math.pi * 1.75**2 / 4)
BACK_MM = 0.8
STRUTS = 24

START = """\
; Lattice lantern, 168 mm, layers of 0.24 mm
; bed 235 x 235 mm, nozzle 0.4 mm
M140 S60
M104 S205
G21
G90
M82
G28
M190 S60
M109 S205
M204 P1500 T1500
G92 E0
G1 Z2 F600
G1 X8 Y20 F6000
G1 Z0.3 F600
G1 X8 Y180 E12.6 F1500
G1 X8.5 Y180 F6000
G1 X8.5 Y20 E25.2 F1500
G92 E0
G1 Z2 F600
"""
END = """\
M104 S0
M140 S0
M107
G91
G1 Z4 F600
G90
G1 X5 Y215 F6000
M84
; end of the lantern
"""


def radius(share: float) -> float:
    """The lantern's outer radius at a share of its height, mm."""
    return 34 + 14 * math.sin(math.pi * (0.12 + 0.76 * share)) - 8 * share


class _Pen:
    """What has been written so far: where the head is and the E that was told."""

    def __init__(self) -> None:
        self.x, self.y, self.e = 8.5, 20.0, 0.0

    def travel(self, x: float, y: float) -> Iterator[str]:
        yield f"G1 E{self.e - BACK_MM:.5f} F2100\n"
        yield f"G0 X{x:.3f} Y{y:.3f} F9000\n"
        yield f"G1 E{self.e:.5f} F2100\n"
        self.x, self.y = x, y

    def line(self, x: float, y: float, feed: int) -> str:
        self.e += math.hypot(x - self.x, y - self.y) * PUSH
        self.x, self.y = x, y
        return f"G1 X{x:.3f} Y{y:.3f} E{self.e:.5f} F{feed}\n"

    def ring(self, points: list[tuple[float, float]], feed: int) -> Iterator[str]:
        yield from self.travel(*points[0])
        for x, y in [*points[1:], points[0]]:
            yield self.line(x, y, feed)


def lantern(layers: int = LAYERS) -> Iterator[str]:
    """The lines of the print."""
    yield START
    pen = _Pen()
    for layer in range(layers):
        z = LAYER_MM * (layer + 1)
        yield f";LAYER:{layer}\n"
        if layer == 1:
            yield "M106 S255\n"
        yield f"G0 F9000 Z{z:.2f}\n"
        share = layer / (LAYERS - 1)
        r = radius(share)
        feed = 900 if layer == 0 else 1500
        yield ";TYPE:wall\n"
        if layer < 5 or layer >= layers - 4:
            yield from pen.ring(_circle(r, 72), feed)
            yield from pen.ring(_circle(r - 4, 72), feed)
            yield ";TYPE:infill\n"
            yield from _floor(pen, r - 4.5, layer, feed + 600)
        else:
            yield from _lattice(pen, r, share, feed)
    yield END


def _circle(r: float, count: int) -> list[tuple[float, float]]:
    turn = [2 * math.pi * k / count for k in range(count)]
    return [(MIDDLE[0] + r * math.cos(a), MIDDLE[1] + r * math.sin(a)) for a in turn]


def _lattice(pen: _Pen, r: float, share: float, feed: int) -> Iterator[str]:
    """Struts that wind up in both directions, each a small closed outline with a line of infill in it."""
    centres = []
    for hand in (1, -1):
        for k in range(STRUTS // 2):
            centres.append(2 * math.pi * (k / (STRUTS // 2) + hand * 0.42 * share))
    wide = 0.055
    outlines = [[(a - wide, r), (a + wide, r), (a + wide, r - 3.2), (a - wide, r - 3.2)] for a in centres]
    for outline in outlines:
        for inner in (0.0, 0.45):
            inwards = ((inner / r, -inner), (-inner / r, -inner), (-inner / r, inner), (inner / r, inner))
            corners = [(a + da, far + df) for (a, far), (da, df) in zip(outline, inwards, strict=True)]
            yield from pen.ring([_polar(a, far) for a, far in corners], feed)
    yield ";TYPE:infill\n"
    for outline in outlines:
        (a, far), (b, near) = outline[0], outline[2]
        yield from pen.travel(*_polar(a + 0.015, far - 0.8))
        x, y = _polar(b - 0.015, near + 0.8)
        yield pen.line(x, y, feed + 600)


def _polar(angle: float, r: float) -> tuple[float, float]:
    return MIDDLE[0] + r * math.cos(angle), MIDDLE[1] + r * math.sin(angle)


def _floor(pen: _Pen, r: float, layer: int, feed: int) -> Iterator[str]:
    """Lines from wall to wall, the next layer's across them."""
    step, across = 2.2, layer % 2
    rows = int(2 * r / step)
    for n in range(1, rows):
        off = -r + n * step
        half = math.sqrt(max(0.0, r * r - off * off))
        ends = [(-half, off), (half, off)] if n % 2 else [(half, off), (-half, off)]
        (ax, ay), (bx, by) = [(y, x) for x, y in ends] if across else ends
        if n == 1:
            yield from pen.travel(MIDDLE[0] + ax, MIDDLE[1] + ay)
        else:
            yield pen.line(MIDDLE[0] + ax, MIDDLE[1] + ay, feed)
        yield pen.line(MIDDLE[0] + bx, MIDDLE[1] + by, feed)
