"""What a stop runs into: the part itself, what stands beside it, and a purge line."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from bridle.standins.printer.field import Field, Met, Three
from bridle.standins.printer.laid import Laid
from bridle.standins.printer.virtual import Printer

# Where the print goes on is the file's own, within the width of a nozzle; lower by a fifth of a layer is lower.
NOZZLE_MM, FIFTH = 0.5, 0.2
# A part of the head that reaches down to the tip is the nozzle's own; what it does is seen there.
CLEAR_MM = 1.0
MOST_LAID = 100_000


@dataclass(frozen=True, slots=True)
class Round:
    """Another way that a stop could take: how far up first, where it parks, along which axis first (mm)."""

    park: tuple[float | None, float | None]
    raised: float = 0.0
    first: Literal["X", "Y"] | None = None

    def way(self, at: Three) -> list[Three]:
        """From a place to where it parks."""
        x, y, z = at[0], at[1], at[2] + self.raised
        to_x, to_y = (at[n] if to is None else to for n, to in enumerate(self.park))
        corner = {"X": [(to_x, y, z)], "Y": [(x, to_y, z)], None: []}[self.first]
        return [at, (x, y, z), *corner, (to_x, to_y, z)]


class Obstacles:
    """The heights of what a printer has printed, as far as it has been told to keep it."""

    def __init__(self, printer: Printer, rounds: Sequence[Round] = ()) -> None:
        """The printer keeps from now on what it prints; `rounds` are tried at every stop."""
        self._rounds, self._free, self._looked = rounds, set(range(len(rounds))), False
        self._printer, self._field = printer, Field(printer.model.low, printer.model.high)
        self._outlines = [
            (part.name, (*part.box[:4], part.box[4])) for part in printer.model.parts if part.box[4] >= CLEAR_MM
        ]
        printer.laid = Laid()

    def keep(self, all_of_it: bool = False) -> None:
        """Take over what was printed, but for the last move, which has only just begun."""
        laid = self._printer.laid
        assert laid is not None
        if all_of_it:
            self._printer.laid_before = laid.count
        count = self._printer.laid_before
        self._field.lay(laid.taken(count))
        self._printer.laid_before = 0

    def grown(self) -> None:
        """Now and then, that what is kept by the move does not grow without end."""
        if self._printer.laid is not None and self._printer.laid.count > MOST_LAID:
            self.keep(all_of_it=True)

    def own(self) -> None:
        """Tell what the file's own travels meet that come lower than the layer that is printed."""
        lows, self._printer.lows = self._printer.lows, []
        self.keep(all_of_it=True)
        for begins, ends, line in lows:
            self.goes([begins, ends], line)

    def goes(self, way: Sequence[Three], line: int) -> None:
        """Tell what a way of the file itself meets; what was printed is kept already."""
        printer = self._printer
        met = self._field.met(way, (), NOZZLE_MM, FIFTH * printer.thick) if len(way) > 1 else None
        if met is not None:
            printer.met("own travel", line, met.at, "nozzle", met.above)

    def look(self, way: Sequence[tuple[float, float, float, int]], free: Sequence[Three], whole: bool) -> None:
        """Tell what is met on a way since the last printed move; `free` is the way of the file itself.

        `whole`: all that was printed stands there; else the last move has only just begun.
        """
        self._printer.lows = []
        self.keep(whole)
        if len(way) < 2:
            return
        printer = self._printer
        for name, met in self._meets([(x, y, z) for x, y, z, _ in way], free):
            brushed = name == "nozzle" and met.early and met.above < printer.thick
            printer.met("purge" if brushed else "strikes", way[met.leg][3], met.at, name, met.above)
        self._looked = True
        for number in sorted(self._free):
            round_ = self._rounds[number].way(way[0][:3])
            if next(self._meets(round_, free), None) or printer.touches(round_):
                self._free.remove(number)

    @property
    def free(self) -> tuple[int, ...]:
        """Which of the rounds nothing stands in the way of, at any stop."""
        return tuple(sorted(self._free)) if self._looked else ()

    def _meets(self, places: Sequence[Three], free: Sequence[Three]) -> Iterator[tuple[str, Met]]:
        """What the nozzle and each part of the head first meet on a way."""
        lowest, least = min(z for _, _, z in places), FIFTH * self._printer.thick
        if self._field.top - lowest > least:
            met = self._field.met(places, free, NOZZLE_MM, least)
            if met is not None:
                yield "nozzle", met
        for name, outline in self._outlines:
            if self._field.top <= lowest + outline[4]:
                continue
            met = self._field.under(places, outline)
            if met is not None and (len(free) < 2 or self._field.under(free, outline) is None):
                yield name, met
