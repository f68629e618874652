"""What a stop runs into: the part itself, what stands beside it, and a purge line."""

from collections.abc import Sequence

from bridle.standins.printer.field import Field, Three
from bridle.standins.printer.laid import Laid
from bridle.standins.printer.virtual import Printer

# Where the print goes on is the file's own, within the width of a nozzle; lower by a fifth of a layer is lower.
NOZZLE_MM, FIFTH = 0.5, 0.2
# A part of the head that reaches down to the tip is the nozzle's own; what it does is seen there.
CLEAR_MM = 1.0
MOST_LAID = 100_000


class Obstacles:
    """The heights of what a printer has printed, as far as it has been told to keep it."""

    def __init__(self, printer: Printer) -> None:
        """The printer keeps from now on what it prints."""
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
        printer, places = self._printer, [(x, y, z) for x, y, z, _ in way]
        lowest = min(z for _, _, z in places)
        if self._field.top - lowest > FIFTH * printer.thick:
            met = self._field.met(places, free, NOZZLE_MM, FIFTH * printer.thick)
            if met is not None:
                kind = "purge" if met.early and met.above < printer.thick else "strikes"
                printer.met(kind, way[met.leg][3], met.at, "nozzle", met.above)
        for name, outline in self._outlines:
            if self._field.top <= lowest + outline[4]:
                continue
            met = self._field.under(places, outline)
            if met is not None and (len(free) < 2 or self._field.under(free, outline) is None):
                printer.met("strikes", way[met.leg][3], met.at, name, met.above)
