"""What every drive is asked: its name, what it can do, what it is told, how it is measured, what is on its card.

A drive is one file: its card (the fields that a plan keeps), and these answers. A stepper or a scale goes wherever it
is told; others run at a pace of their own and say how far that takes them.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import ClassVar, Literal, NamedTuple

from bridle.core.figure import Figure
from bridle.core.subjects.motion.calibration import TIMES, Column, Measure, instruments
from bridle.core.values import Section

Told = Literal["program", "setting", "spring", "hand"]
# The figures of an axis that a drive may have no use for.
AXIS_FIGURES = ("top_speed", "acceleration", "backlash", "settle_s", "peak_a")


@dataclass(frozen=True)
class Wanted:
    """What a move asks of an axis: a sweep from a start, in so many seconds, so much a frame at its fastest.

    Lengths and angles are in the axis's unit; `travel` is the whole of what the axis can do; `hung` is whether it hangs
    upside down. `frames` and `interval_s` are those of the move, `still_s` what an interval leaves to stand still,
    `ease_frames` how many frames the move eases over at its start and at its end; `between` are the frames (from 1 at
    the first of the move) and places of the keyframes on the way. `stands` is whether it never moves, `way_known`
    whether somebody has said which way a drive turns that turns one way only.
    """

    axis: str
    unit: str
    start: float
    sweep: float
    seconds: float
    per_frame: float
    travel: float
    hung: bool = False
    frames: int = 0
    interval_s: float = 0.0
    still_s: float = 0.0
    ease_frames: tuple[int, int] = (0, 0)
    between: tuple[tuple[int, float], ...] = ()
    stands: bool = False
    way_known: bool = True

    @property
    def moves(self) -> int:
        """How many moves from frame to frame there are."""
        return max(0, self.frames - 1)

    @property
    def end(self) -> float:
        """Where the move asks it to end."""
        return self.start + self.sweep

    @property
    def way(self) -> str:
        """Which way the sweep goes, as somebody sees it who stands behind the camera."""
        return way(self.axis, self.sweep > 0)


# Above nought and below it, axis by axis; any other axis turns.
WAYS = {"slide": ("forwards", "backwards"), "pan": ("to the right", "to the left"), "tilt": ("up", "down")}


def way(axis: str, positive: bool) -> str:
    """A direction of an axis in words; a roll, and a ring, go as somebody sees them from behind the camera."""
    return WAYS.get(axis, ("clockwise", "anticlockwise"))[0 if positive else 1]


class CardField(NamedTuple):
    """A figure on a drive's card, as the shelf shows it: where it stands, its label and its unit.

    The unit `axis` is that of the axis, `axis/h` that of its speed an hour. `empty` says what an empty one means; a
    `tick` is yes or no; `yes_no` is the same in two words, one of which somebody has to choose, as the usual one may be
    wrong; `choices` are words to choose from. It is on the card only `where` another field of the drive has a value.
    """

    path: str
    label: str
    unit: str = ""
    empty: str = ""
    tick: bool = False
    yes_no: tuple[str, ...] = ()
    choices: tuple[str, ...] = ()
    where: tuple[str, str] | None = None


class CardTable(NamedTuple):
    """A list on a drive's card, a row for each thing in it: what a row is called, its columns, and the fewest rows.

    A list that may be empty has the figures with which its first row begins, column by column.
    """

    path: str
    label: str
    columns: tuple[CardField, ...]
    fewest: int = 1
    first: tuple[float, ...] = ()


class DriveCard(Section):
    """Base of the drives."""

    # What it is called in a sentence, and on the shelf; and what is on its card, in order.
    NAME: ClassVar[str]
    SHELF: ClassVar[str]
    FIELDS: ClassVar[tuple[CardField, ...]] = ()
    TABLES: ClassVar[tuple[CardTable, ...]] = ()
    # Who tells it: a controller's program, a setting made before the start, a spring that is wound, a hand.
    TOLD: ClassVar[Told]
    # Which figures of its axis mean something with it.
    MINDS: ClassVar[tuple[str, ...]] = AXIS_FIGURES
    # Whether it runs by the clock, at one pace, whatever the frames do; and whether it can stand still for a frame.
    RUNS_ON: ClassVar[bool] = False
    STOPS: ClassVar[bool] = True
    # Whether its pace can change on the way; and how many places one after the other it can be sent to.
    EASES: ClassVar[bool] = True
    POINTS: ClassVar[int | None] = None

    @property
    def runs_on(self) -> bool:
        """Whether it runs by the clock, at one pace, whatever the frames do."""
        return self.RUNS_ON

    @property
    def stops(self) -> bool:
        """Whether it can stand still for a frame."""
        return self.STOPS

    @property
    def eases(self) -> bool:
        """Whether its pace can change on the way."""
        return self.EASES

    @property
    def most_points(self) -> int | None:
        """To how many places one after the other it can be sent; None for any number."""
        return self.POINTS

    @property
    def shortest_s(self) -> Fraction | None:
        """The shortest interval that it can do; None where it has none of its own, or nobody knows it."""
        return None

    @property
    def runs_s(self) -> float | None:
        """How long it runs at most, in seconds; None where nothing ends it."""
        return None

    @property
    def one_way(self) -> int:
        """1 or −1 where it turns one way only (clockwise is 1), else 0."""
        return 0

    @property
    def division_of_scale(self) -> float | None:
        """What a scale that somebody sets is divided into; None with a motor."""
        return None

    def base_steps(self) -> float | None:
        """Computed steps a millimetre or a degree, without any correction; None without a stepper."""
        return None

    def steps(self) -> float | None:
        """Corrected steps a millimetre or a degree; None without a stepper."""
        return None

    def goes(self, wanted: Wanted) -> float | None:
        """How far it goes in the time of the move; None where it goes as far as it is told."""
        return None

    def times_s(self, wanted: Wanted) -> list[float]:
        """In which times the drive could do the sweep exactly; none where it does it in any, or nothing is asked."""
        return []

    def limits_deg_min(self) -> list[float]:
        """The slowest and the fastest rate of each of its keys; none where it has no menu."""
        return []

    def words(self, wanted: Wanted) -> str | None:
        """What to set, in a sentence; None where nothing can be set for this move."""
        return None

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """What it is told, with the working."""
        yield from ()

    def card_figures(self, unit: str) -> Iterator[Figure]:
        """What follows from its card alone."""
        yield from ()

    def measures(self, unit: str) -> list[Measure]:
        """What can be measured on it, the most useful first."""
        return []


def backlash(unit: str) -> Measure:
    """The play of an axis: the same place approached from both sides."""
    return Measure("backlash", "backlash", "backlash", unit, (
        Column("read coming from below", unit), Column("read coming from above", unit),
    ), (
        "Go well below the mark, then up to it; read the scale.",
        "Go well above, then down to the same commanded position; read again.",
    ), read_with=instruments(unit))  # fmt: skip


def settling() -> Measure:
    """How long the rig shakes after its longest step."""
    return Measure("settle", "time to settle", "settle_s", "s", (Column("still again after", "s"),), (
        "Put on the heaviest lens of the shoot, with the longest reach of the rail.",
        "Make the longest step of the move and watch the live picture at full magnification.",
        "Stop the clock when it stands still. With wind, on the soft pads and without.",
    ), read_with=TIMES)  # fmt: skip
