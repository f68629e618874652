"""A dial of distances: after each frame it goes on by what its position says, always the same way and as far."""

from collections.abc import Iterator
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.quantity import write
from bridle.core.subjects.motion.calibration import Column, Measure, instruments
from bridle.core.subjects.motion.drives.interface import CardField, CardTable, DriveCard, Told, Wanted
from bridle.core.values import Name, Positive, Section

EACH = Formula("sweep / moves", "the sweep shared among the moves between the frames")
GOES = Formula("each * moves", "the distance of that position, as often as it moves")
SLIPS = "A wheel that slips, or a load that pulls to one side, shows like this."


class MovePosition(Section):
    """A position of the dial, and how far it goes after a frame there, in the unit of the axis."""

    name: Name
    each: Positive


class MoveDial(DriveCard):
    """It stands still for each frame; the nearest of its positions is taken, and what that does is told."""

    NAME: ClassVar[str] = "dial of distances"
    SHELF: ClassVar[str] = "dial of distances, one a move"
    TABLES: ClassVar[tuple[CardTable, ...]] = (
        CardTable("positions", "dial position", (CardField("name", "dial at"), CardField("each", "a move", "axis"))),
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

    def _chosen(self, wanted: Wanted) -> MovePosition:
        each = abs(wanted.sweep) / wanted.moves
        return min(self.positions, key=lambda position: abs(position.each - each))

    def goes(self, wanted: Wanted) -> float | None:
        """As far as its nearest position takes it, move by move; None where nothing is asked of it."""
        return self._chosen(wanted).each * wanted.moves if wanted.sweep and wanted.moves else None

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
        return f"dial at {chosen.name}, {each} a move; start at {start}"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The distance needed, and how far the nearest one goes."""
        goes = self.goes(wanted)
        if goes is None:
            return
        key, unit = f"drive.{wanted.axis}", wanted.unit
        sweep, moves = (
            term("sweep", "the move sweeps", abs(wanted.sweep), unit),
            term("moves", "moves", wanted.moves, ""),
        )
        yield figure(f"{key}.each", "a move, as needed", abs(wanted.sweep) / wanted.moves, unit, EACH, sweep, moves)
        each = term("each", "a move at that position", self._chosen(wanted).each, unit)
        yield figure(f"{key}.does", f"{wanted.axis} goes", goes, unit, GOES, each, moves)

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
        ]
