"""A mount whose rate is a number in a menu: `rate = base(key) × setting`."""

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, NamedTuple

from pydantic import Field

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.subjects.motion.calibration import Column, Measure, instruments
from bridle.core.subjects.motion.drives.interface import CardField, CardTable, DriveCard, Told, Wanted
from bridle.core.subjects.numbers.rounding import GUARD
from bridle.core.values import Name, Positive, Section

SLIPS = "That hides a clutch that slips, or a load that is out of balance."
WANTED = Formula("sweep / seconds * 60", "the sweep over the time of the move")
SETTING = Formula("wanted / base", "the wanted rate over the base rate of the key")
RATE = Formula("base * setting", "the base rate of the key times the setting")
AT_MOST = Formula("base * setting", "the base rate of the key times the number in the menu")


class Setting(NamedTuple):
    """A key (by its place) and a number for the menu; `exact` is the number before rounding to the menu's step."""

    key: int
    number: float
    exact: float


def setting_for(rate: float, bases: Sequence[float], low: float, high: float, step: float) -> Setting | None:
    """The key and the number that come nearest to a rate; None where every key is out of range."""
    found = []
    for key, base in enumerate(bases):
        exact = rate / base
        number = round(exact / step) * step
        if low - GUARD <= number <= high + GUARD:
            found.append((abs(number * base - rate), Setting(key, number, exact)))
    return min(found)[1] if found else None


class SpeedKey(Section):
    """A speed key of a rated drive and its rate at setting 1, in degrees a minute."""

    name: Name
    base_deg_min: Positive


class Rated(DriveCard):
    """Its keys, the range and the step of the number; some run only while a button is held."""

    NAME: ClassVar[str] = "rate from a menu"
    SHELF: ClassVar[str] = "rate from a menu"
    FIELDS: ClassVar[tuple[CardField, ...]] = (
        CardField("low_setting", "lowest setting"),
        CardField("high_setting", "highest setting"),
        CardField("setting_step", "step of the setting"),
        CardField("runs_while_held", "runs while a button is held", tick=True),
    )
    TABLES: ClassVar[tuple[CardTable, ...]] = (
        CardTable(
            "keys", "speed key", (CardField("name", "key"), CardField("base_deg_min", "at setting 1", "deg/min"))
        ),
    )
    TOLD: ClassVar[Told] = "setting"
    MINDS: ClassVar[tuple[str, ...]] = ("peak_a",)
    RUNS_ON: ClassVar[bool] = True
    EASES: ClassVar[bool] = False
    POINTS: ClassVar[int | None] = 2
    STOPS: ClassVar[bool] = False
    kind: Literal["rated"] = "rated"
    keys: Annotated[tuple[SpeedKey, ...], Field(min_length=1, max_length=12)] = (SpeedKey(name="1", base_deg_min=0.25),)
    low_setting: Positive = 0.1
    high_setting: Positive = 99.0
    setting_step: Positive = 0.1
    runs_while_held: bool = False

    def limits_deg_min(self) -> list[float]:
        """The slowest and the fastest of each key."""
        return [key.base_deg_min * limit for key in self.keys for limit in (self.low_setting, self.high_setting)]

    def _wanted(self, wanted: Wanted) -> float:
        return abs(wanted.sweep) / wanted.seconds * 60 if wanted.seconds else 0.0

    def _setting(self, wanted: Wanted) -> Setting | None:
        rate, bases = self._wanted(wanted), [key.base_deg_min for key in self.keys]
        return setting_for(rate, bases, self.low_setting, self.high_setting, self.setting_step) if rate else None

    def goes(self, wanted: Wanted) -> float | None:
        """How far the nearest number takes it; None where no number comes near, or nothing is asked of it."""
        found = self._setting(wanted)
        return None if found is None else self.keys[found.key].base_deg_min * found.number * wanted.seconds / 60

    def times_s(self, wanted: Wanted) -> list[float]:
        """At the number that comes nearest; where none does, at the slowest and the fastest of each key."""
        found = self._setting(wanted)
        rates = self.limits_deg_min() if found is None else [self.keys[found.key].base_deg_min * found.number]
        return [abs(wanted.sweep) / rate * 60 for rate in rates] if wanted.sweep else []

    def words(self, wanted: Wanted) -> str | None:
        """The key and the number, and when to stop what does not stop by itself."""
        found = self._setting(wanted)
        if found is None:
            return None
        key, minutes = self.keys[found.key].name, f"{wanted.seconds / 60:.0f} min"
        alarm = f"; hold key {key} down and let it go after {minutes}: nothing else stops it, set an alarm"
        return f"key {key}, setting {found.number:.6g}{alarm if self.runs_while_held else ''}"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The rate wanted, the number for it, and the rate it gives."""
        key, rate = f"drive.{wanted.axis}", self._wanted(wanted)
        sweep = term("sweep", "the move sweeps", abs(wanted.sweep), wanted.unit)
        seconds = term("seconds", "time of the move", wanted.seconds, "s")
        yield figure(f"{key}.wanted", "rate wanted", rate, "deg/min", WANTED, sweep, seconds)
        found = self._setting(wanted)
        if found is None:
            return
        button = self.keys[found.key]
        base = term("base", f"base rate of key {button.name}", button.base_deg_min, "deg/min")
        asked = term("wanted", "rate wanted", rate, "deg/min")
        yield figure(f"{key}.setting", "setting, before rounding", found.exact, "", SETTING, asked, base)
        number = term("setting", "setting", found.number, "")
        yield figure(f"{key}.rate", "rate it gives", button.base_deg_min * found.number, "deg/min", RATE, base, number)

    def card_figures(self, unit: str) -> Iterator[Figure]:
        """How fast each key goes at most."""
        for number, key in enumerate(self.keys):
            base = term("base", f"base rate of key {key.name}", key.base_deg_min, "deg/min")
            fastest = term("setting", "highest setting", self.high_setting, "")
            rate = key.base_deg_min * self.high_setting
            yield figure(f"card.rate.{number}", f"key {key.name} at most", rate, "deg/min", AT_MOST, base, fastest)

    def measures(self, unit: str) -> list[Measure]:
        """The base rate of each key."""
        columns = Column("turned", unit), Column("in", "s"), Column("at setting", "")
        how = (
            "Set a number in the middle of the menu and let it turn for some minutes.",
            "Write down the angle, the time and the number.",
        )
        return [
            Measure(
                f"base.{i}",
                f"base rate of key {key.name}",
                f"drive.keys.{i}.base_deg_min",
                "deg/min",
                columns,
                how,
                read_with=instruments("deg"),
                hides=SLIPS,
            )
            for i, key in enumerate(self.keys)
        ]
