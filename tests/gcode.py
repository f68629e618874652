"""G-code made by rule for the tests: layered prints in every dialect that Bridle reads."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from hypothesis import strategies as st

ANNOUNCED = {
    "numbered": ";LAYER:{n}",
    "change": ";LAYER_CHANGE|;Z:{z:.3f}",
    "with height": "; layer {n}, Z = {z:.3f}",
    "before": ";BEFORE_LAYER_CHANGE|;{z:.3f}",
    "none": "",
}


@dataclass
class Dialect:
    """How a file is written."""

    style: str = "numbered"
    relative: bool = False
    relative_e: bool = False
    inches: bool = False
    crlf: bool = False
    last_end: bool = True
    firmware: bool = False
    arcs: bool = False
    numbers: bool = False
    resets: bool = False
    shifted: bool = False
    hops: bool = False
    features: bool = True


@dataclass
class Writer:
    """Writes moves in a dialect and knows itself where the head is, in mm."""

    how: Dialect
    lines: list[str] = field(default_factory=list)
    at: list[float] = field(default_factory=lambda: [0.0, 0.0, 0.0])
    off: list[float] = field(default_factory=lambda: [0.0, 0.0, 0.0])
    e: float = 0.0
    pushed: float = 0.0
    printed: list[tuple[float, ...]] = field(default_factory=list)

    def _n(self, mm: float) -> float:
        return round(mm / (25.4 if self.how.inches else 1.0), 6)

    def move(self, x: float, y: float, z: float | None = None, push: float = 0.0, feed: float = 0.0) -> None:
        to = [x, y, self.at[2] if z is None else z]
        words = []
        for n, letter in enumerate("XYZ"):
            if abs(to[n] - self.at[n]) < 1e-9:
                continue
            told = self._n(to[n] - self.at[n] if self.how.relative else to[n] - self.off[n])
            words.append(f"{letter}{told:.6f}")
            mm = told * (25.4 if self.how.inches else 1.0)
            self.at[n] = self.at[n] + mm if self.how.relative else mm + self.off[n]
        if push:
            words.append(self._e(push))
        if feed:
            words.append(f"F{self._n(feed):.3f}")
        self.put(f"G{1 if push else 0} " + " ".join(words))

    def _e(self, push: float) -> str:
        self.pushed += push
        if self.how.relative_e:
            return f"E{self._n(push):.6f}"
        self.e += push
        return f"E{self._n(self.e):.6f}"

    def arc(self, radius: float, push: float) -> None:
        """A half turn to the right about a middle beside the head."""
        x = self.at[0] + 2 * radius
        told = self._n(x - self.at[0] if self.how.relative else x - self.off[0])
        y = self._n(0.0 if self.how.relative else self.at[1] - self.off[1])
        self.put(f"G2 X{told:.6f} Y{y:.6f} I{self._n(radius):.6f} J0 {self._e(push)}")
        mm = told * (25.4 if self.how.inches else 1.0)
        self.at[0] = self.at[0] + mm if self.how.relative else mm + self.off[0]

    def push(self, mm: float) -> None:
        self.put(f"G1 {self._e(mm)} F{self._n(2100):.3f}")

    def put(self, line: str) -> None:
        self.lines.append(line)

    def text(self) -> bytes:
        end = "\r\n" if self.how.crlf else "\n"
        lines = list(self._numbered()) if self.how.numbers else self.lines
        text = end.join(lines) + (end if self.how.last_end else "")
        return text.encode()

    def _numbered(self) -> Iterator[str]:
        """Commands with numbers one after another and their checksums; comments as they are."""
        number = 0
        for line in self.lines:
            if line.startswith(";"):
                yield line
                continue
            number += 1
            body = f"N{number} {line}"
            total = 0
            for byte in body.encode():
                total ^= byte
            yield f"{body}*{total}"


def program(how: Dialect, shapes: list[list[tuple[float, float]]], thick: float = 0.2, things: int = 1) -> bytes:
    """A print of some layers, each a way through some points; `things` of it one after another."""
    pen = Writer(how)
    for line in ("M140 S60", "G20" if how.inches else "G21", "G90", "M83" if how.relative_e else "M82", "G28"):
        pen.put(line)
    if how.shifted:
        pen.put(f"G92 X{pen._n(-7):.6f} Y{pen._n(3):.6f} E0")
        pen.off = [7.0, -3.0, 0.0]
    if how.relative:
        pen.put("G91")
        pen.put("M83" if how.relative_e else "M82")
    pen.move(20, 20, 5, feed=6000)
    pen.move(20, 20, 0.3)
    pen.move(20, 60, push=3.0, feed=1200)
    number = 0
    for thing in range(things):
        for n, points in enumerate(shapes):
            z = thick * (n + 1)
            _layer(pen, number, z, [(x + 30 * thing, y) for x, y in points])
            number += 1
    pen.push(-2.0)
    pen.move(5, 150, pen.at[2] + 5, feed=6000)
    pen.put("M84")
    return pen.text()


def _layer(pen: Writer, number: int, z: float, points: list[tuple[float, float]]) -> None:
    how = pen.how
    if how.resets and number % 2:
        pen.put("G92 E0")
        pen.e = 0.0
    for line in filter(None, ANNOUNCED[how.style].format(n=number, z=z).split("|")):
        pen.put(line)
    if how.features:
        pen.put(";TYPE:Outer wall")
    pen.put("G10") if how.firmware else pen.push(-0.8)
    if how.hops:
        pen.move(*points[0], z + 0.4, feed=9000)
    pen.move(*points[0], z, feed=9000)
    pen.put("G11") if how.firmware else pen.push(0.8)
    for k, (x, y) in enumerate(points[1:], 1):
        if how.features and k == len(points) // 2:
            pen.put(";TYPE:Sparse infill")
        far = math.hypot(x - pen.at[0], y - pen.at[1])
        pen.move(x, y, push=max(0.01, far * 0.04), feed=1800 if k == 1 else 0)
    if how.arcs:
        pen.arc(3.0, 0.4)


def dialects() -> Any:
    """Any way of writing."""
    return st.builds(
        Dialect,
        style=st.sampled_from(sorted(ANNOUNCED)),
        **{
            name: st.booleans()
            for name in ("relative", "relative_e", "inches", "crlf", "last_end", "firmware", "arcs", "numbers",
                         "resets", "shifted", "hops", "features")
        },
    )  # fmt: skip


def shapes() -> Any:
    """Layers as ways through points on the bed."""
    spot = st.tuples(st.integers(70, 140), st.integers(60, 120)).map(lambda at: (float(at[0]), float(at[1])))
    return st.lists(st.lists(spot, min_size=3, max_size=7, unique=True), min_size=2, max_size=9)
