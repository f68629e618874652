"""A spring that turns at one rate: its sweep follows from the time, or the time from the sweep."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.quantity import write
from bridle.core.subjects.motion.calibration import Column, Measure, instruments
from bridle.core.subjects.motion.drives.interface import CardField, DriveCard, Told, Wanted, way
from bridle.core.values import Positive

SLOWS = (
    "A spring slows as it runs down: measure over the part of its run that the shoot uses, and count on the spread. "
    "A weight that it hardly carries shows like this too."
)
SWEEP = Formula("rate * seconds / 60", "its rate over the time of the move")
TIME = Formula("sweep / rate * 60", "how long it takes for a sweep")
AT_MOST = Formula("rate * run / 60", "its rate over the longest run of the spring")


class Clockwork(DriveCard):
    """A fixed rate in one direction until it has run down. It cannot stop."""

    NAME: ClassVar[str] = "spring"
    SHELF: ClassVar[str] = "wind-up clockwork"
    FIELDS: ClassVar[tuple[CardField, ...]] = (
        CardField("rate_deg_min", "turns", "deg/min"),
        CardField("longest_run_s", "runs down after", "s"),
        CardField("stops_after_deg", "stops by itself after", "deg", "it runs down"),
        CardField("clockwise", "turns, seen from above", yes_no=("clockwise", "anticlockwise")),
    )
    TOLD: ClassVar[Told] = "spring"
    MINDS: ClassVar[tuple[str, ...]] = ()
    RUNS_ON: ClassVar[bool] = True
    EASES: ClassVar[bool] = False
    POINTS: ClassVar[int | None] = 2
    STOPS: ClassVar[bool] = False
    kind: Literal["clockwork"] = "clockwork"
    rate_deg_min: Positive = 6.0
    longest_run_s: Positive = 3600.0
    # What counts its turns, and stops it.
    stops_after_deg: Positive | None = None
    clockwise: bool = True

    @property
    def runs_on(self) -> bool:
        """Until somebody stops it, unless it counts its turns."""
        return self.stops_after_deg is None

    @property
    def runs_s(self) -> float:
        """Until it has run down."""
        return self.longest_run_s

    @property
    def one_way(self) -> int:
        """The way it is wound for."""
        return 1 if self.clockwise else -1

    def goes(self, wanted: Wanted) -> float:
        """How far it turns in the time of the move."""
        turned = self.rate_deg_min * wanted.seconds / 60
        return turned if self.stops_after_deg is None else min(turned, self.stops_after_deg)

    def times_s(self, wanted: Wanted) -> list[float]:
        """At its one rate."""
        return [abs(wanted.sweep) / self.rate_deg_min * 60] if wanted.sweep else []

    def words(self, wanted: Wanted) -> str:
        """Wind it, and where to start."""
        turns = way(wanted.axis, self.clockwise != wanted.hung)
        hung = "hang it upside down, " if wanted.hung else ""
        sure = "" if wanted.way_known else " (as most do; nobody has checked this one)"
        counted = "" if self.stops_after_deg is None else f" and stops after {write(self.stops_after_deg, 'deg')}"
        return f"{hung}wind it fully, start at {write(wanted.start, 'deg')}; it turns {turns} by itself{counted}{sure}"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """How far it goes, and how long it would take for the sweep."""
        key, axis = f"drive.{wanted.axis}", wanted.axis
        rate = term("rate", "rate", self.rate_deg_min, "deg/min")
        seconds = term("seconds", "time of the move", wanted.seconds, "s")
        yield figure(f"{key}.does", f"{axis} goes", self.goes(wanted), wanted.unit, SWEEP, rate, seconds)
        sweep = term("sweep", "the move sweeps", abs(wanted.sweep), wanted.unit)
        needs = abs(wanted.sweep) / self.rate_deg_min * 60
        yield figure(f"{key}.time", "time for the sweep", needs, "s", TIME, sweep, rate)

    def card_figures(self, unit: str) -> Iterator[Figure]:
        """How far it turns at most."""
        rate = term("rate", "rate", self.rate_deg_min, "deg/min")
        run = term("run", "longest run", self.longest_run_s, "s")
        sweep = self.rate_deg_min * self.longest_run_s / 60
        yield figure("card.sweep", "turns in one winding", sweep, "deg", AT_MOST, rate, run)

    def measures(self, unit: str) -> list[Measure]:
        """Its rate."""
        return [Measure("rate", "rate", "drive.rate_deg_min", "deg/min", (Column("turned", unit), Column("in", "s")), (
            "Wind it fully and set it on a level place with the weight it will carry.",
            "Mark the start on the rim, start the clock, read the angle after ten minutes or more.",
            "Again near the end of its run: a spring slows down.",
        ), read_with=instruments("deg"), hides=SLOWS, strict=False)]  # fmt: skip
