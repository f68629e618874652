"""What a print on the virtual printer came to: presses, troubles, pauses, times. Lengths in mm, times in seconds."""

from dataclasses import dataclass, field

from bridle.standins.printer.model import Three


@dataclass(slots=True)
class Press:
    """A press of the camera: line, time, where the nozzle stood, what had been printed; when let go, when moved on.

    `printed` is the filament of all moves that print, `pushed` all filament so far (mm). `homing`: an axis on its way
    home did it.
    """

    line: int
    at_s: float
    at: Three
    printed: float
    pushed: float
    homing: bool = False
    released_s: float | None = None
    moved_s: float | None = None
    moved_line: int = 0


@dataclass(slots=True)
class Trouble:
    """Something that went wrong: what, at which line, where the nozzle stood, and what it was about.

    `above` is how far what stood in the way reached above the nozzle, or above that part of the head.
    """

    kind: str
    line: int
    at: Three
    about: str
    printed: float = 0.0
    above: float = 0.0


@dataclass(slots=True)
class Log:
    """What a print came to.

    `longest_wait_s` is the longest time without printing between two printed moves, `stopped_s` all such times in
    which a picture was taken.
    """

    presses: list[Press] = field(default_factory=list)
    troubles: list[Trouble] = field(default_factory=list)
    more: int = 0
    pauses: list[int] = field(default_factory=list)
    seconds: float = 0.0
    printed: float = 0.0
    pushed: float = 0.0
    longest_wait_s: float = 0.0
    longest_wait_line: int = 0
    longest_wait_printed: float = 0.0
    longest_wait_at: Three = (0.0, 0.0, 0.0)
    stopped_s: float = 0.0
    lines: int = 0
    at: Three = (0.0, 0.0, 0.0)
    held: bool = False
    broken: bool = False
    # Where the print went on after each press that was due.
    passed: list[tuple[int, Three]] = field(default_factory=list)

    def often(self, name: str) -> bool:
        """Whether a part has been told of often enough as touching the switch."""
        return sum(1 for one in self.troubles[-20:] if one.kind == "touch" and one.about == name) >= 5
