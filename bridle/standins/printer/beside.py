"""Two prints side by side: whether a changed file prints, move by move, just what the original prints.

Each is carried out by a virtual printer of its own. Where both files have the same lines, and both printers stand
alike, they go on alike: there one of them is enough.
"""

import copy
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from typing import Literal

from bridle.standins.printer.log import Log
from bridle.standins.printer.model import Three
from bridle.standins.printer.obstacles import Obstacles
from bridle.standins.printer.running import Running
from bridle.standins.printer.setting import any_setting, resting
from bridle.standins.printer.tape import Tape, alike
from bridle.standins.printer.virtual import Printer

# A move begins and ends where it did, with the filament that it had.
PLACE_MM, FILAMENT_MM, FEED = 0.002, 0.0005, 0.01
# Filament goes forward where the print goes on, or where the original pushes it too: this near is there.
THERE_MM, OVER_MM = 0.5, 1.5
MOST_TOLD = 400
Lines = Callable[[], bytes | None]
Kind = Literal["path", "pushed", "oozes", "state"]


@dataclass(frozen=True, slots=True)
class Difference:
    """What is other than in the original: the lines of both, where the nozzle was, what had been printed (mm)."""

    kind: Kind
    line: int
    original: int
    at: Three
    printed: float
    about: str


@dataclass(slots=True)
class Beside:
    """A changed print and its original; `parted` is whether they went apart, and nothing was compared any more."""

    main: Printer
    obstacles: Obstacles | None = None
    told: list[Difference] = field(default_factory=list)
    parted: bool = False
    _ghost: Printer = field(init=False)
    # Where both stood alike for the last time, and by how much they differed there.
    _since: tuple[float, ...] = ()
    _drift: tuple[float, ...] = (0.0,) * 5
    _fresh: bool = True
    _line: int = 0
    _neutral: frozenset[tuple[bytes, bytes]] = frozenset()

    def __post_init__(self) -> None:
        """The other printer has neither switch nor camera."""
        self._ghost = _ghost(self.main)
        self._neutral = frozenset(filter(None, (any_setting(one.encode()) for one in self.main.model.rest)))

    def run(self, changed: Iterable[bytes], original: Iterable[bytes]) -> Log:
        """Carry both out to their ends; pieces of any size."""
        one, other, running = Tape(changed), Tape(original), Running(self.main)
        while True:
            count = alike(one, other)
            if count:
                self._together(running, one, count)
                other.at += count
                continue
            mine, its = one.line(), other.line()
            self._line += its is not None
            if mine is not None and mine == its:
                self.main.step(mine)
                self._fresh = False
                self._stepped()
            elif mine is its is None or not self._apart(mine, its, one.line, other.line):
                break
        while (line := one.line()) is not None:
            self.main.step(line)
        return self.main.finish()

    def _together(self, running: Running, tape: Tape, count: int) -> None:
        """Lines that are the same in both: one printer is enough."""
        before = self.main.line
        running.run(tape.held, tape.at, tape.at + count, self._stepped)
        tape.at += count
        self._line += self.main.line - before
        self._fresh = False
        if self.obstacles:
            self.obstacles.grown()

    def _stepped(self, _: bool = False) -> None:
        if self.main.lows and self.obstacles:
            self.obstacles.own()

    def _apart(self, mine: bytes | None, its: bytes | None, more: Lines, its_more: Lines) -> bool:
        """From lines that differ to the next move that prints, in both; False where there is nothing to go on with."""
        if not self._fresh:
            self._ghost = _ghost(self.main, self._left_over())
        before = self.main.x, self.main.y, self.main.z
        printed = _until_it_prints(self.main, mine, more)
        count = self._ghost.prints
        while its is not None:
            self._ghost.step(its)
            if self._ghost.prints != count:
                break
            its = its_more()
            self._line += its is not None
        if printed != (self._ghost.prints != count):
            self._tell("path", "a move that prints is missing" if not printed else "a move prints that was not there")
            self.parted = True
            return False
        if printed and not self._same_move():
            self.parted = True
            return False
        self._same_filament(printed)
        self._same_state(printed)
        self._nothing_beside(before, printed)
        self._since = (self.main.x, self.main.y, self.main.z, self.main.pushed, self.main.e)
        self._clear(printed)
        other = self._ghost
        there = (other.x, other.y, other.z, other.pushed, other.e)
        self._drift = tuple(a - b for a, b in zip(self._since, there, strict=True))
        self._fresh = True
        return printed

    def _left_over(self) -> tuple[float, ...]:
        """By how much both differ by now: places that were named since then are the same in both."""
        main = self.main
        if not self._since:
            return self._drift
        x, y, z, pushed, e = self._drift
        places = [
            0.0 if main.absolute and at != since else off
            for at, since, off in zip((main.x, main.y, main.z), self._since, (x, y, z), strict=False)
        ]
        named = main.absolute_e and main.e != self._since[4]
        return (*places, pushed - e if named else pushed, 0.0 if named else e)

    def _same_move(self) -> bool:
        main, other = self.main, self._ghost
        off = max(_far(main.began, other.began), _far((main.x, main.y, main.z), (other.x, other.y, other.z)))
        if off > PLACE_MM or (main.bend is None) != (other.bend is None):
            self._tell("path", "place")
            return False
        if main.bend and other.bend:
            bent = max(abs(a - b) for a, b in zip(main.bend[1:], other.bend[1:], strict=True))
            if main.bend[0] != other.bend[0] or bent > PLACE_MM:
                self._tell("path", "arc")
                return False
        if abs(main.feed - other.feed) > FEED:
            self._tell("path", "feed rate")
            other.feed = main.feed
        if abs(main.fed - other.fed) > FILAMENT_MM:
            self._tell("path", "filament")
            other.pushed = main.pushed
        return True

    def _same_filament(self, printed: bool) -> None:
        """As much is drawn back and brought again: told where it does not fit, and then counted from there."""
        main, other = self.main, self._ghost
        off = main.pushed - other.pushed
        if main.absolute_e and other.absolute_e:
            later = off - (main.e - other.e)
            off = later if abs(later) > abs(off) else off
        if abs(off) > FILAMENT_MM:
            self._tell("pushed", f"{off:+.3f} mm" + ("" if printed else " at the end"))
            other.pushed, other.e = main.pushed, main.e
        if main.drawn_back != other.drawn_back:
            self._tell("pushed", "what the printer itself draws back")
            other.drawn_back = main.drawn_back

    def _same_state(self, printed: bool) -> None:
        main, other = self.main, self._ghost
        about = [name for name, values in _modes(main, other) if values[0] != values[1]]
        mine, its = resting(main.settings), resting(other.settings)
        about += [
            key.decode("utf-8", "replace").lower()
            for key in sorted(mine.keys() | its.keys())
            if mine.get(key) != its.get(key) and not (key not in its and (key, mine[key]) in self._neutral)
        ]
        if max(abs(a - b) for a, b in zip(main.off, other.off, strict=True)) > PLACE_MM:
            about.append("where its coordinates begin")
        if not printed and _far((main.x, main.y, main.z), (other.x, other.y, other.z)) > PLACE_MM:
            about.append("where the head stands at the end")
        if about:
            self._tell("state", ", ".join(about))
            line, prints, settings = other.line, other.prints, dict(main.settings)
            self._ghost = _ghost(main)
            self._ghost.line, self._ghost.prints, self._ghost.settings = line, prints, settings

    def _clear(self, printed: bool) -> None:
        """Whether the way to the stop and back is free of what stands there, but where the original goes itself."""
        main, other = self.main, self._ghost
        way, its = (main.gap_way, other.gap_way) if printed else (main.way, other.way)
        main.lows = []
        if self.obstacles is None or [leg[:3] for leg in way] == [leg[:3] for leg in its]:
            return
        begun = main.gap_begun if printed else main.ended
        free = [begun, *(leg[:3] for leg in its), *([main.began] if printed else [])]
        self.obstacles.look([(*begun, 0), *way], free, whole=not printed)
        self.obstacles.goes([begun, *(leg[:3] for leg in its)], main.line)

    def _nothing_beside(self, before: Three, printed: bool) -> None:
        """What is pushed forward before a move goes where the move begins, or where the original pushes it too."""
        main, other = self.main, self._ghost
        mine, its = (main.gap_pushes, other.gap_pushes) if printed else (main.pushes, other.pushes)
        there = [before, *(push[:3] for push in its), *([main.began] if printed else [])]
        beside = 0.0
        for x, y, z, pushed in mine:
            near = (abs(x - a) <= THERE_MM and abs(y - b) <= THERE_MM and abs(z - c) <= OVER_MM for a, b, c in there)
            beside += 0.0 if any(near) else pushed
            if beside > FILAMENT_MM:
                self._tell("oozes", f"{beside:.2f} mm at x {x:.1f}, y {y:.1f}")
                return
        if printed and main.gap_most > max(other.gap_most, main.pushed - main.fed) + FILAMENT_MM:
            self._tell("oozes", f"{main.gap_most - other.gap_most:.2f} mm more than belongs there")

    def _tell(self, kind: Kind, about: str) -> None:
        main = self.main
        if len(self.told) < MOST_TOLD:
            at = main.x, main.y, main.z
            self.told.append(Difference(kind, main.line, self._line, at, main.printed, about))


def _until_it_prints(printer: Printer, line: bytes | None, more: Lines) -> bool:
    """Go on until a line has printed; False where the file ends before."""
    count = printer.prints
    while line is not None:
        printer.step(line)
        if printer.prints != count:
            return True
        line = more()
    return False


def _ghost(main: Printer, off: tuple[float, ...] = (0.0,) * 5) -> Printer:
    """A printer that stands where the other does, less what they differ by; nothing is told of it."""
    other = copy.copy(main)
    other.log, other.lever, other.zones = Log(), None, []
    other.danger = other.nowhere()
    other.off, other.known = list(main.off), set(main.known)
    other.pushes, other.settings = list(main.pushes), dict(main.settings)
    other.way, other.laid = list(main.way), None
    other.x, other.y, other.z = main.x - off[0], main.y - off[1], main.z - off[2]
    other.pushed, other.e = main.pushed - off[3], main.e - off[4]
    other.most = main.most - off[3]
    return other


def _modes(main: Printer, other: Printer) -> tuple[tuple[str, tuple[object, object]], ...]:
    """What a line means depends on these."""
    return (
        ("absolute or relative places", (main.absolute, other.absolute)),
        ("absolute or relative filament", (main.absolute_e, other.absolute_e)),
        ("units", (main.unit, other.unit)),
        ("kind of move", (main.mode, other.mode)),
        ("tool", (main.tool, other.tool)),
        ("how often it homes", (main.homes, other.homes)),
        ("how often it pauses", (main.halts, other.halts)),
        ("how often it calls what the printer has of its own", (main.calls, other.calls)),
    )


def _far(one: Three, other: Three) -> float:
    return max(abs(a - b) for a, b in zip(one, other, strict=True))
