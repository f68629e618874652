"""A changed file without its original: what its stops run into, and whether the print goes on where it left off."""

from collections.abc import Iterable

from bridle.standins.printer.log import Log
from bridle.standins.printer.obstacles import Obstacles
from bridle.standins.printer.running import Running
from bridle.standins.printer.tape import Tape
from bridle.standins.printer.virtual import Leg, Printer

# So near the place where the head rested a move begins there; so far from where it left off it is elsewhere.
THERE_MM, ELSEWHERE_MM = 0.5, 1.0


class Alone:
    """A print that is compared with nothing."""

    def __init__(self, printer: Printer, obstacles: Obstacles) -> None:
        """Judged are the gaps between printed moves in which a picture is taken."""
        self.printer, self.obstacles = printer, obstacles
        self._presses = 0

    def run(self, pieces: Iterable[bytes]) -> Log:
        """Carry a file out that comes in pieces of any size."""
        tape, running = Tape(pieces), Running(self.printer)
        while tape.ready():
            to = tape.whole()
            if to > tape.at:
                running.run(tape.held, tape.at, to, self._stepped)
                tape.at = to
            elif (line := tape.line()) is not None:
                prints = self.printer.prints
                self.printer.step(line)
                self._stepped(self.printer.prints != prints)
            self.obstacles.grown()
        return self.printer.finish()

    def _stepped(self, printed: bool) -> None:
        """Behind a line that is not plain; the first printed move after a picture never is."""
        printer = self.printer
        if printed:
            if len(printer.log.presses) > self._presses:
                self._stopped()
        elif printer.lows and len(printer.log.presses) == self._presses:
            self.obstacles.own()

    def _stopped(self) -> None:
        """The first printed move after a picture."""
        printer = self.printer
        self._presses = len(printer.log.presses)
        way: list[Leg] = [(*printer.gap_begun, 0), *printer.gap_way]
        # Once it is back where it left off, it goes on as the file goes by itself.
        back = max(n for n, leg in enumerate(way) if _far(leg, way[0]) <= THERE_MM)
        back = back or len(way) - 1
        self.obstacles.look(way[: back + 1], [printer.began], whole=False)
        self.obstacles.goes([leg[:3] for leg in way[back:]], printer.line)
        rested, began, was = printer.gap_rested, printer.began, printer.gap_begun
        if rested is None or not printer.log.presses[-1].printed:
            return
        # Along an axis that nobody names the head stays where it was parked.
        if any(abs(began[n] - rested[n]) <= THERE_MM and abs(rested[n] - was[n]) > ELSEWHERE_MM for n in (0, 1)):
            printer.met("across", printer.line, began, "", 0.0)


def _far(one: Leg, other: Leg) -> float:
    return max(abs(a - b) for a, b in zip(one[:3], other[:3], strict=True))
