"""Somebody sets the scale between frames."""

from typing import ClassVar, Literal

from bridle.core.subjects.motion.calibration import Measure
from bridle.core.subjects.motion.drives.interface import CardField, DriveCard, Told, Wanted, backlash, settling
from bridle.core.values import Positive


class ByHand(DriveCard):
    """To the nearest of the scale's divisions, in mm or degrees."""

    NAME: ClassVar[str] = "scale"
    SHELF: ClassVar[str] = "by hand"
    FIELDS: ClassVar[tuple[CardField, ...]] = (CardField("division", "scale divided into", "axis"),)
    TOLD: ClassVar[Told] = "hand"
    MINDS: ClassVar[tuple[str, ...]] = ("backlash", "settle_s")
    kind: Literal["hand"] = "hand"
    division: Positive = 1.0

    @property
    def division_of_scale(self) -> float:
        """As it is on the card."""
        return self.division

    def words(self, wanted: Wanted) -> str:
        """By how much to set it on."""
        return f"set the scale between frames, by {wanted.per_frame:.3g} a frame at cruise"

    def measures(self, unit: str) -> list[Measure]:
        """Its play, and how long it shakes after a hand was on it."""
        return [backlash(unit), settling()]
