"""Lines of a file carried out as fast as they allow: plain ones as machine code, all others one by one."""

import math
from collections.abc import Callable

import numpy as np

from bridle.standins.printer import swift
from bridle.standins.printer.compiled import Array
from bridle.standins.printer.laid import WIDE
from bridle.standins.printer.virtual import LEAST_LAYER_MM, LOWER, Leg, Printer, Push

# What a printer and the machine code call alike.
TAKEN = (
    "x", "y", "z", "e", "unit", "feed", "now", "pushed", "most", "printed", "early", "level", "thick", "fed",
    "gap_most", "line", "prints", "laid_before", "absolute", "absolute_e", "still",
)  # fmt: skip
GIVEN = tuple(name for name in TAKEN if name not in ("unit", "early", "absolute", "absolute_e"))
PLACES = (("began", "began"), ("ended", "ended"), ("gap_begun", "gap"))


class Running:
    """A printer at work on lines that are held as one piece."""

    def __init__(self, printer: Printer) -> None:
        """`printer` may be carried on line by line in between."""
        self.printer = printer
        self._state = np.zeros(1, swift.STATE)
        self._way, self._pushes = np.empty((swift.ROOM, swift.LEG)), np.empty((swift.ROOM, swift.PUSH))
        self._none = np.empty((1, WIDE))
        s = self._state[0]
        sides = ("left", "right", "front", "back", "low", "high")
        for box in ("bounds", "danger"):
            for side, at in zip(sides, getattr(printer, box), strict=True):
                s[f"{box}_{side}"] = at
        s["top"], s["rises"], s["gain"] = printer.model.top[0], printer.model.top[2], printer.model.gain
        s["lower"], s["thin"] = LOWER, LEAST_LAYER_MM

    def run(self, held: bytes, at: int, to: int, after: Callable[[bool], None]) -> None:
        """Carry out the whole lines between two places; `after` hears behind each that was not plain if it printed."""
        data = np.frombuffer(held, np.uint8)
        while at < to:
            if self._may():
                at = self._plainly(data, at, to)
                if at >= to:
                    return
            end = held.find(b"\n", at) + 1
            prints = self.printer.prints
            self.printer.step(held[at:end])
            at = end
            after(self.printer.prints != prints)

    def _may(self) -> bool:
        """Whether a plain move could be just that, and the first line is over, which may begin with a mark."""
        printer = self.printer
        busy = printer.lost or printer.pressed or printer.waits or printer.let_go or printer.is_drawn
        return printer.line > 0 and not busy

    def _plainly(self, data: Array, at: int, to: int) -> int:
        printer = self.printer
        self._enter()
        laid = printer.laid.rows if printer.laid is not None else self._none
        prints = printer.prints
        at = swift.plainly(data, at, to, self._state, laid, self._way, self._pushes)
        self._leave(prints)
        return at

    def _enter(self) -> None:
        printer, s = self.printer, self._state[0]
        for name in TAKEN:
            s[name] = getattr(printer, name)
        for name, its in PLACES:
            s[f"{its}_x"], s[f"{its}_y"], s[f"{its}_z"] = getattr(printer, name)
        s["off_x"], s["off_y"], s["off_z"] = printer.off
        s["printed_at"] = math.nan if printer.printed_at is None else printer.printed_at
        s["due"], s["longest"] = printer.due, printer.log.longest_wait_s
        s["watched"] = len(printer.log.presses) > printer.pictures
        s["keeps"] = printer.laid is not None
        s["laid"] = printer.laid.count if printer.laid is not None else 0
        s["straight"] = False
        for name in ("way", "way_from", "gap_way_from", "push", "push_from", "gap_push_from"):
            s[name] = 0

    def _leave(self, prints: int) -> None:
        printer = self.printer
        told = dict(zip(swift.STATE.names or (), self._state[0].item(), strict=True))
        for name in GIVEN:
            setattr(printer, name, told[name])
        for name, its in PLACES:
            setattr(printer, name, (told[f"{its}_x"], told[f"{its}_y"], told[f"{its}_z"]))
        printer.printed_at = None if math.isnan(told["printed_at"]) else told["printed_at"]
        if printer.laid is not None:
            printer.laid.count = told["laid"]
        if told["straight"]:
            printer.mode = 1
        self._gaps(told, printer.prints - prints)

    def _gaps(self, told: dict[str, int], printed: int) -> None:
        """What lies between the last two printed moves, and behind the last; what was before may be part of it."""
        printer = self.printer
        way: list[Leg] = [
            (x, y, z, int(line)) for x, y, z, line in self._way[told["gap_way_from"] : told["way"]].tolist()
        ]
        pushes: list[Push] = [tuple(one) for one in self._pushes[told["gap_push_from"] : told["push"]].tolist()]
        if not printed:
            printer.way = [*printer.way, *way]
            printer.pushes = [*printer.pushes, *pushes]
            return
        before, cut, at = (
            printed == 1,
            told["way_from"] - told["gap_way_from"],
            told["push_from"] - told["gap_push_from"],
        )
        printer.gap_way, printer.way = [*(printer.way if before else []), *way[:cut]], way[cut:]
        printer.gap_pushes, printer.pushes = [*(printer.pushes if before else []), *pushes[:at]], pushes[at:]
        printer.gap_rested, printer.rested = printer.rested if before else None, None
        printer.bend = None
