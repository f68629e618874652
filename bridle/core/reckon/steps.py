"""What a stepper turns for a millimetre or a degree."""

from bridle.core.plan.drive import STEPPERS, Belt, Screw
from bridle.core.plan.kit import AxisCard
from bridle.core.subjects.motion import steppers


def base_steps(card: AxisCard) -> float | None:
    """Computed steps a millimetre or a degree, without any correction; None without a stepper."""
    drive = card.drive
    if isinstance(drive, Belt):
        return steppers.belt_steps(drive.full_steps, drive.microsteps, drive.pitch_mm, drive.teeth)
    if isinstance(drive, Screw):
        return steppers.screw_steps(drive.full_steps, drive.microsteps, drive.lead_mm)
    if isinstance(drive, STEPPERS):
        return steppers.gear_steps(drive.full_steps, drive.microsteps, drive.ratio)
    return None


def steps_per_unit(card: AxisCard) -> float | None:
    """Corrected steps a millimetre or a degree; None without a stepper."""
    base = base_steps(card)
    return base * card.drive.correction if base is not None and isinstance(card.drive, STEPPERS) else None
