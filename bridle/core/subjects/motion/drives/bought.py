"""A mover that was bought, with its own menu or app: it is given the ends of the move, or a speed."""

import math
from collections.abc import Iterator
from fractions import Fraction
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.quantity import spoken, write
from bridle.core.subjects.motion.calibration import Column, Measure, instruments
from bridle.core.subjects.motion.drives.interface import CardField, CardTable, DriveCard, Told, Wanted, settling
from bridle.core.subjects.numbers.rounding import GUARD
from bridle.core.values import Duration, Positive

HOUR_S = 3600
SPEED = Formula("sweep / seconds * 3600", "the sweep over the time of the move, an hour")
SETTING = Formula("speed / full * 100", "the speed as a share of the full one")
DOES = Formula("speed * seconds / 3600", "the speed that is set, over the time of the move")
BEHIND = "A load that it hardly carries, a battery that sinks or a slope shows like this."

_ENDS, _SPEED = ("asks", "start and end"), ("asks", "a speed")


class Bought(DriveCard):
    """What it asks for: start and end, and what else it wants to know; or a speed, in percent or by the hour.

    Speeds are in the axis's unit an hour: `full_per_h` at 100 %. `least_number` and `most_number` bound the number in
    its menu, `number_step` is what it is counted in. `grid` is what positions are counted in; None is not known.
    """

    NAME: ClassVar[str] = "own menu"
    SHELF: ClassVar[str] = "bought, with its own menu or app"
    FIELDS: ClassVar[tuple[CardField, ...]] = (
        CardField("asks", "is told", choices=("start and end", "a speed")),
        CardField("keyframes", "keyframes at most", where=_ENDS),
        CardField("frames", "asks for the frames", tick=True, where=_ENDS),
        CardField("interval", "asks for the interval", tick=True, where=_ENDS),
        CardField("still", "asks for the still time", tick=True, where=_ENDS),
        CardField("ramp", "asks for a ramp", tick=True, where=_ENDS),
        CardField("waits", "stands still for each frame", tick=True, where=_ENDS),
        CardField("grid", "positions in steps of", "axis", "not known", where=_ENDS),
        CardField("speed_in", "speed in", choices=("percent", "by the hour"), where=_SPEED),
        CardField("full_per_h", "at full speed it goes", "axis/h", where=_SPEED),
        CardField("least_number", "lowest number", where=_SPEED),
        CardField("most_number", "highest number", where=_SPEED),
        CardField("number_step", "number in steps of", where=_SPEED),
        CardField("least_s", "shortest interval", "s", "not known"),
        CardField("longest_run_s", "runs at most", "s", "not known"),
    )
    TABLES: ClassVar[tuple[CardTable, ...]] = ()
    TOLD: ClassVar[Told] = "setting"
    MINDS: ClassVar[tuple[str, ...]] = ("top_speed", "settle_s", "peak_a")
    kind: Literal["bought"] = "bought"
    asks: Literal["start and end", "a speed"] = "start and end"
    keyframes: Annotated[int, Field(ge=2, le=60)] = 2
    frames: bool = True
    interval: bool = True
    still: bool = False
    ramp: bool = False
    waits: bool = True
    grid: Positive | None = None
    speed_in: Literal["percent", "by the hour"] = "percent"
    full_per_h: Positive = 360.0
    least_number: Positive = 1.0
    most_number: Positive = 100.0
    number_step: Positive = 1.0
    least_s: Duration | None = None
    longest_run_s: Positive | None = None

    @model_validator(mode="after")
    def _low_below_high(self) -> "Bought":
        if self.least_number > self.most_number:
            raise ValueError("the lowest number in the menu is not above the highest")
        return self

    @property
    def runs_on(self) -> bool:
        """At a speed, it just goes."""
        return self.asks == "a speed"

    @property
    def stops(self) -> bool:
        """Where it waits for each frame."""
        return self.asks == "start and end" and self.waits

    @property
    def eases(self) -> bool:
        """Where it asks for a ramp."""
        return self.asks == "start and end" and self.ramp

    @property
    def most_points(self) -> int:
        """From one place to another where it is given a speed, else as many as it takes."""
        return self.keyframes if self.asks == "start and end" else 2

    @property
    def runs_s(self) -> float | None:
        """As its card says."""
        return self.longest_run_s

    @property
    def shortest_s(self) -> Fraction | None:
        """As its card says."""
        return self.least_s

    def _per_h(self, number: float) -> float:
        return number * self.full_per_h / 100 if self.speed_in == "percent" else number

    def _number(self, wanted: Wanted) -> float | None:
        """The number in the menu that comes nearest; None where no speed is asked."""
        if self.asks != "a speed" or not wanted.sweep or not wanted.seconds:
            return None
        exact = abs(wanted.sweep) / wanted.seconds * HOUR_S / self._per_h(1)
        return min(max(round(exact / self.number_step) * self.number_step, self._least()), self.most_number)

    def _least(self) -> float:
        return math.ceil(self.least_number / self.number_step - GUARD) * self.number_step

    def goes(self, wanted: Wanted) -> float | None:
        """How far it goes at the number that comes nearest; where it is told, where it is given the ends."""
        number = self._number(wanted)
        return None if number is None else self._per_h(number) * wanted.seconds / HOUR_S

    def times_s(self, wanted: Wanted) -> list[float]:
        """At the number that comes nearest, and at its neighbours."""
        number = self._number(wanted)
        if number is None:
            return []
        near = {
            min(max(number + off, self._least()), self.most_number) for off in (-self.number_step, 0, self.number_step)
        }
        return [abs(wanted.sweep) / self._per_h(one) * HOUR_S for one in sorted(near)]

    def words(self, wanted: Wanted) -> str | None:
        """What to type into its menu, in the order in which such menus ask."""
        if not wanted.sweep:
            return None
        number = self._number(wanted)
        return self._ends(wanted) if number is None else self._speed(wanted, number)

    def _speed(self, wanted: Wanted, number: float) -> str:
        said = f"{number:g} %" if self.speed_in == "percent" else f"{write(number, wanted.unit)} an hour"
        return f"start at {write(wanted.start, wanted.unit)}, speed {said}, {_way(wanted)}"

    def _ends(self, wanted: Wanted) -> str:
        start, end = (write(self._on_grid(value), wanted.unit) for value in (wanted.start, wanted.end))
        ease_in, ease_out = wanted.ease_frames
        way = [f"{write(self._on_grid(at), wanted.unit)} at frame {frame}" for frame, at in wanted.between]
        said = [", ".join([f"start {start}", *way, f"end {end}"])]
        said += [f"{wanted.frames} frames"] * self.frames
        said += [f"every {write(wanted.interval_s, 's')}"] * self.interval
        # As the beat tells it: what rounding adds comes out of the margin that it keeps.
        said += [f"still for {write(spoken(wanted.still_s, 's'), 's')}"] * self.still
        said += [f"ramp {ease_in} frames in, {ease_out} out"] * self.ramp
        return "; ".join(said)

    def _on_grid(self, value: float) -> float:
        return round(value / self.grid) * self.grid if self.grid else value

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The speed that the move needs, what is set for it, and how far that goes."""
        number = self._number(wanted)
        if number is None:
            return
        key, unit, needs = f"drive.{wanted.axis}", wanted.unit, abs(wanted.sweep) / wanted.seconds * HOUR_S
        sweep = term("sweep", "the move sweeps", abs(wanted.sweep), unit)
        seconds = term("seconds", "time of the move", wanted.seconds, "s")
        yield figure(f"{key}.wanted", "speed wanted", needs, f"{unit}/h", SPEED, sweep, seconds)
        if self.speed_in == "percent":
            asked = term("speed", "speed wanted", needs, f"{unit}/h")
            full = term("full", "full speed", self.full_per_h, f"{unit}/h")
            share = needs / self.full_per_h * 100
            yield figure(f"{key}.setting", "percent, before rounding", share, "", SETTING, asked, full)
        speed = term("speed", "speed that is set", self._per_h(number), f"{unit}/h")
        does = self._per_h(number) * wanted.seconds / HOUR_S
        yield figure(f"{key}.does", f"{wanted.axis} goes", does, unit, DOES, speed, seconds)

    def measures(self, unit: str) -> list[Measure]:
        """Its full speed where it is given one; how long it settles where it waits."""
        if self.asks == "start and end":
            return [settling()] if self.waits else []
        if self.speed_in != "percent":
            return []
        return [Measure("full", "full speed", "drive.full_per_h", f"{unit}/h", (
            Column("went", unit), Column("in", "s"), Column("at per cent", ""),
        ), (
            "Set a speed near the one of the shoot, with the load as it will be, and let it go for some minutes.",
            "Write down how far it went, the time, and the number that was set.",
        ), read_with=instruments(unit), hides=BEHIND, strict=False)]  # fmt: skip


def _way(wanted: Wanted) -> str:
    """Which way it is to go; hung upside down its own menu has it the other way round."""
    if not wanted.hung or wanted.unit == "mm":
        return wanted.way
    return f"{wanted.way} (it hangs upside down: its own menu has that the other way round)"
