"""A dial of distances: after each frame it goes on by what its position says, always the same way and as far.

Some have a second dial without units for how often: from one move to the next.
"""

from collections.abc import Iterator
from fractions import Fraction
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.quantity import write
from bridle.core.subjects.motion.calibration import TIMES, Column, Measure, instruments
from bridle.core.subjects.motion.drives.dial import DIAL, dial_doubt, dial_for, dial_terms, rising
from bridle.core.subjects.motion.drives.interface import CardField, CardTable, DriveCard, Told, Wanted
from bridle.core.values import Name, Positive, Section

EACH = Formula("sweep / moves", "the sweep shared among the moves between the frames")
GOES = Formula("each * moves", "the distance of that position, as often as it moves")
SLIPS = "A wheel that slips, or a load that pulls to one side, shows like this."


class MovePosition(Section):
    """A position of the dial, and how far it goes after a frame there, in the unit of the axis."""

    name: Name
    each: Positive


class PacePoint(Section):
    """A calibrated position of a second dial: how long it is from one move to the next there, in seconds."""

    dial: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]
    every_s: Positive


class MoveDial(DriveCard):
    """It stands still for each frame; the nearest of its positions is taken, and what that does is told."""

    NAME: ClassVar[str] = "dial of distances"
    SHELF: ClassVar[str] = "dial of distances, one a move"
    TABLES: ClassVar[tuple[CardTable, ...]] = (
        CardTable("positions", "dial position", (CardField("name", "dial at"), CardField("each", "a move", "axis"))),
        CardTable(
            "paces",
            "position of a second dial",
            (CardField("dial", "second dial at"), CardField("every_s", "a move every", "s")),
            0,
            (0.0, 5.0),
        ),
    )
    TOLD: ClassVar[Told] = "setting"
    MINDS: ClassVar[tuple[str, ...]] = ("top_speed", "settle_s", "peak_a")
    EASES: ClassVar[bool] = False
    POINTS: ClassVar[int | None] = 2
    kind: Literal["moves"] = "moves"
    positions: Annotated[tuple[MovePosition, ...], Field(min_length=1, max_length=64)] = (
        MovePosition(name="1", each=0.5),
        MovePosition(name="2", each=1),
        MovePosition(name="3", each=2),
        MovePosition(name="4", each=4),
    )
    # None: it has no second dial, and goes on when it is told to.
    paces: Annotated[tuple[PacePoint, ...], Field(max_length=40)] = ()

    @model_validator(mode="after")
    def _rising(self) -> "MoveDial":
        rising([point.dial for point in self.paces])
        return self

    @property
    def shortest_s(self) -> Fraction | None:
        """The quickest position of its second dial."""
        return Fraction(str(min(point.every_s for point in self.paces))) if self.paces else None

    def _chosen(self, wanted: Wanted) -> MovePosition:
        each = abs(wanted.sweep) / self._moves(wanted)
        return min(self.positions, key=lambda position: abs(position.each - each))

    def goes(self, wanted: Wanted) -> float | None:
        """As far as its nearest position takes it, move by move; None where nothing is asked of it."""
        return self._chosen(wanted).each * self._moves(wanted) if wanted.sweep and wanted.moves else None

    def _moves(self, wanted: Wanted) -> int:
        """As many as there are from frame to frame; in its own time where its second dial has no such interval."""
        if not self.paces or dial_for(wanted.interval_s, self._pairs()):
            return wanted.moves
        return max(1, int(wanted.seconds / self._nearest(wanted)[1] + 1e-9))

    def _nearest(self, wanted: Wanted) -> tuple[float, float]:
        return min(self._pairs(), key=lambda point: abs(point[1] - wanted.interval_s))

    def times_s(self, wanted: Wanted) -> list[float]:
        """At each of its positions, with as many moves at the interval as make up the sweep."""
        if not wanted.sweep:
            return []
        counts = (round(abs(wanted.sweep) / position.each) for position in self.positions)
        return [count * wanted.interval_s for count in counts if count]

    def words(self, wanted: Wanted) -> str | None:
        """The position, and how far it goes there."""
        if not wanted.sweep or not wanted.moves:
            return None
        chosen = self._chosen(wanted)
        start, each = write(wanted.start, wanted.unit), write(chosen.each, wanted.unit)
        return f"dial at {chosen.name}, {each} a move{self._paced(wanted)}; start at {start}"

    def _pairs(self) -> list[tuple[float, float]]:
        return [(point.dial, point.every_s) for point in self.paces]

    def _paced(self, wanted: Wanted) -> str:
        """The second dial with its doubt; its nearest position where the interval is not among what is calibrated."""
        if not self.paces:
            return ""
        found = dial_for(wanted.interval_s, self._pairs())
        if found is None:
            dial, every = self._nearest(wanted)
            return f"; second dial at {dial:g}, the nearest that is calibrated: a move every {write(every, 's')}"
        doubt, every = dial_doubt(self._pairs()), wanted.interval_s
        return f"; second dial at {found[1]:.1f} ± {doubt:.1f}: a move every {write(every, 's')}"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The distance needed, and how far the nearest one goes."""
        goes = self.goes(wanted)
        if goes is None:
            return
        key, unit = f"drive.{wanted.axis}", wanted.unit
        sweep, moves = (
            term("sweep", "the move sweeps", abs(wanted.sweep), unit),
            term("moves", "moves", self._moves(wanted), ""),
        )
        yield figure(
            f"{key}.each", "a move, as needed", abs(wanted.sweep) / self._moves(wanted), unit, EACH, sweep, moves
        )
        each = term("each", "a move at that position", self._chosen(wanted).each, unit)
        yield figure(f"{key}.does", f"{wanted.axis} goes", goes, unit, GOES, each, moves)
        found = dial_for(wanted.interval_s, self._pairs())
        if found is not None:
            terms = dial_terms(self._pairs(), found[0], "from move to move", wanted.interval_s)
            yield figure(f"{key}.second", "second dial", found[1], "", DIAL, *terms)

    def measures(self, unit: str) -> list[Measure]:
        """How far each position really goes."""
        how = (
            "Mark where it stands, let it make twenty moves or more, and measure how far it has come.",
            "The load as it will be, and the way it will go.",
        )
        return [
            Measure(
                f"each.{i}",
                f"a move, dial at {position.name}",
                f"drive.positions.{i}.each",
                unit,
                (Column("went", unit), Column("in moves", "")),
                how,
                read_with=instruments(unit),
                hides=SLIPS,
                strict=False,
            )
            for i, position in enumerate(self.positions)
        ] + [
            Measure(
                f"run.pace.{i}",
                f"from move to move, second dial at {point.dial:g}",
                f"drive.paces.{i}.every_s",
                "s",
                (Column("took", "s"),),
                (
                    "Time it from the start of one move to the start of the next.",
                    "Or time ten of them, and type a tenth of that.",
                ),
                2,
                TIMES,
                strict=False,
            )
            for i, point in enumerate(self.paces)
        ]
