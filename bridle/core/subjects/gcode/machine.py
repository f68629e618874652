"""The one interpreter of G-code: what a motion controller does with a program, block by block.

Lengths in mm, angles in degrees, times in seconds. It knows the moves, dwells and outputs of the open dialect of
hobby controllers; whatever else stands there is refused by name, never passed over.
"""

import math
from collections import deque
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from itertools import islice
from typing import Literal

from bridle.core.subjects.gcode.reader import Block, GcodeError

AXES = "XYZABC"
ROTARY = "ABC"
INCH_MM = 25.4
# Codes that change nothing here: planes, cutter and length compensation off, path blending, the first work offset.
IDLE_G = {17.0, 40.0, 49.0, 54.0, 61.0, 64.0, 80.0}


def _moves(block: Block) -> bool:
    """Whether axes go somewhere in it."""
    targets = any(block.value(letter) is not None for letter in AXES)
    return targets and 4.0 not in block.codes("G") and 92.0 not in block.codes("G")


def _stands(block: Block) -> bool:
    """Whether the rig stands still for it: a dwell, an output that is not tied to a move, the end."""
    return 4.0 in block.codes("G") or any(code not in (62.0, 63.0) for code in block.codes("M"))


@dataclass(frozen=True)
class Happening:
    """Something at a time: a move that ends (`moved`), or an output that switches (`on`, `off`).

    `position` is where the axes stand then; for a move, `began_s` and `began_at` are its start, and `steady_s` is how
    long it would take at the pace that it speeds up to.
    """

    at_s: float
    line: int
    kind: Literal["moved", "on", "off"]
    position: dict[str, float]
    output: str = ""
    began_s: float = 0.0
    began_at: dict[str, float] = field(default_factory=dict)
    steady_s: float = 0.0


@dataclass
class Machine:
    """Modal state of a controller; `rapids` are the top speeds of the axes for `G0`, per second.

    `gains` are the accelerations of the axes, per second squared: a move speeds up where it begins at rest, and slows
    down where something else than a move follows it. An axis that is not named there needs no time for that.
    """

    rapids: dict[str, float]
    gains: dict[str, float] = field(default_factory=dict)
    position: dict[str, float] = field(default_factory=dict)
    now_s: float = 0.0
    motion: float | None = None
    absolute: bool = True
    inverse_time: bool = False
    unit: float = 1.0
    feed: float | None = None
    on: set[str] = field(default_factory=set)
    waiting: list[tuple[str, bool, int]] = field(default_factory=list)
    ended: bool = False
    # How much of its steady pace the rig has at the beginning of the next move, and keeps at its end: 0 or 1.
    rolling: int = 0
    goes_on: int = 0

    def run(self, blocks: Iterable[Block]) -> Iterator[Happening]:
        """Carry the blocks out, one after another. Raises `GcodeError` at what it does not know or cannot do."""
        ahead: deque[Block] = deque()
        coming = iter(blocks)
        while True:
            while not any(_stands(block) or _moves(block) for block in islice(ahead, 1, None)):
                following = next(coming, None)
                if following is None:
                    break
                ahead.append(following)
            if self.ended or not ahead:
                return
            block = ahead.popleft()
            self.goes_on = int(next((_moves(after) for after in ahead if _moves(after) or _stands(after)), False))
            yield from self.obey(block)
            if _moves(block) or _stands(block):
                self.rolling = self.goes_on if _moves(block) else 0

    def obey(self, block: Block) -> Iterator[Happening]:
        """Carry one block out."""
        dwell = False
        for code in block.codes("G"):
            dwell = self._modal(block, code) or dwell
        feed = block.value("F")
        if feed is not None:
            self.feed = feed
        for code in block.codes("M"):
            yield from self._switch(block, code)
        if dwell:
            self._dwell(block)
        elif 92.0 in block.codes("G"):
            self.position |= self._targets(block, absolute=True)
        elif any(block.value(letter) is not None for letter in AXES):
            yield from self._move(block)

    def _modal(self, block: Block, code: float) -> bool:
        """Take a G code in; true for a dwell."""
        if code in (0, 1):
            self.motion = code
        elif code in (20, 21):
            self.unit = INCH_MM if code == 20 else 1.0
        elif code in (90, 91):
            self.absolute = code == 90
        elif code in (93, 94):
            self.inverse_time, self.feed = code == 93, None
        elif code not in (4, 92) and code not in IDLE_G:
            raise GcodeError(block.line, f"G{code:g}", "a move, a dwell or a setting that a motion controller knows")
        return code == 4

    def _dwell(self, block: Block) -> None:
        seconds = block.value("P")
        if seconds is None or seconds < 0:
            raise GcodeError(block.line, "G4", "G4 with P and the seconds to wait")
        self.now_s += seconds

    def _switch(self, block: Block, code: float) -> Iterator[Happening]:
        if code in (2, 30):
            self.ended = True
        elif code in (62, 63, 64, 65):
            name = f"output {self._output(block)}"
            if code >= 64:
                yield self._set(name, code == 64, block.line)
            else:
                self.waiting.append((name, code == 62, block.line))
        elif code in (7, 8):
            yield self._set("mist" if code == 7 else "coolant", True, block.line)
        elif code == 9:
            for name in sorted(self.on & {"coolant", "mist"}):
                yield self._set(name, False, block.line)
        elif code not in (0, 1, 5):
            raise GcodeError(block.line, f"M{code:g}", "an output or the end of the program")

    def _output(self, block: Block) -> int:
        number = block.value("P")
        if number is None or number < 0 or number != int(number):
            raise GcodeError(block.line, "P", "P and the number of the output")
        return int(number)

    def _set(self, name: str, on: bool, line: int) -> Happening:
        if on:
            self.on.add(name)
        else:
            self.on.discard(name)
        return Happening(self.now_s, line, "on" if on else "off", dict(self.position), name)

    def _targets(self, block: Block, absolute: bool) -> dict[str, float]:
        made = {}
        for letter in AXES:
            number = block.value(letter)
            if number is None:
                continue
            number *= 1.0 if letter in ROTARY else self.unit
            made[letter] = number if absolute else self.position.get(letter, 0.0) + number
        return made

    def _move(self, block: Block) -> Iterator[Happening]:
        targets = self._targets(block, self.absolute)
        if self.motion is None:
            raise GcodeError(block.line, "a target without G0 or G1", "G0 or G1 before the first target")
        before = dict(self.position)
        distances = {letter: abs(at - before.get(letter, 0.0)) for letter, at in targets.items()}
        steady = self._seconds(block, distances)
        seconds = self._ramped_s(steady, distances)
        for name, on, line in self.waiting:
            # These switch with the start of the move that follows them.
            yield self._set(name, on, line)
        self.waiting.clear()
        began, self.now_s = self.now_s, self.now_s + seconds
        self.position |= targets
        yield Happening(self.now_s, block.line, "moved", dict(self.position), "", began, before, steady)

    def _ramped_s(self, steady_s: float, distances: dict[str, float]) -> float:
        """A move at a steady pace, with the time that speeding up and slowing down adds to it."""
        ramps = 2 - self.rolling - self.goes_on
        pushes = [self.gains[letter] / far for letter, far in distances.items() if far and letter in self.gains]
        if not pushes or not ramps or steady_s <= 0:
            return steady_s
        pace, push = 1 / steady_s, min(pushes)
        # Up to its pace takes pace/push seconds, and covers half of what it would have at its pace.
        ramp_s = pace / push
        if ramps * ramp_s * pace / 2 > 1:
            return ramps * math.sqrt(2 / (ramps * push))
        return steady_s + ramps * ramp_s / 2

    def _seconds(self, block: Block, distances: dict[str, float]) -> float:
        if self.motion == 0:
            return max((far / self.rapids.get(letter, math.inf) for letter, far in distances.items()), default=0.0)
        if self.inverse_time:
            own = block.value("F")
            if own is None or own <= 0:
                raise GcodeError(block.line, "G1", "an F on every move: how many of it would go into a minute")
            return 60 / own
        if self.feed is None or self.feed <= 0:
            raise GcodeError(block.line, "G1", "an F, the units to go in a minute")
        straight = math.hypot(*(far for letter, far in distances.items() if letter not in ROTARY))
        return (straight or math.hypot(*distances.values())) / (self.feed * (self.unit if straight else 1.0)) * 60
