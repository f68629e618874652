"""What the shutter does in one cycle."""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.plan.document import Plan
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time import cycle


@dataclass(frozen=True)
class Exposures:
    """What the shutter does in one cycle: times in seconds, counts of exposures."""

    positions: int
    pictures: int
    factor: float
    total_s: float
    gaps_s: float
    refocus_s: float
    dark_in_gaps_s: float
    dark_last_s: float
    processing_s: float
    longest_s: float

    @property
    def busy_s(self) -> float:
        """From the first shutter to the last one's end."""
        return self.total_s + self.gaps_s


def exposures(beat: Beat, camera: Camera) -> Exposures:
    """Bracket, focus stack and noise reduction of one cycle."""
    positions = stack_positions(beat, camera)
    factor = cycle.bracket_factor(beat.bracket_frames, beat.bracket_step_stops)
    total, exposure = float(beat.exposure_s) * factor * positions, float(beat.exposure_s)
    longest = exposure * cycle.longest_of_bracket(beat.bracket_frames, beat.bracket_step_stops)
    # Brackets end on their longest exposure, and its dark frame alone overlaps the move.
    dark_last = longest if beat.noise_reduction else 0.0
    dark_in_gaps = total - dark_last if beat.noise_reduction else 0.0
    refocus = float(beat.stack.move_s + beat.stack.settle_s) if beat.stack else 0.0
    gaps = positions * (beat.bracket_frames - 1) * float(beat.bracket_gap_s) + (positions - 1) * refocus + dark_in_gaps
    processing = dark_last + float(beat.merge_s)
    pictures = positions if beat.merge_s else positions * beat.bracket_frames
    return Exposures(positions, pictures, factor, total, gaps, refocus, dark_in_gaps, dark_last, processing, longest)


def stack_positions(beat: Beat, camera: Camera) -> int:
    """Focus positions of a cycle: 1 without a stack, and where the near end cannot be focused at all."""
    stack = beat.stack
    if stack is None or stack.near_mm <= camera.focal_mm:
        return 1
    overlap, circle = float(stack.overlap), camera.circle_mm
    return lens.stack_positions(stack.near_mm, stack.far_mm, overlap, camera.focal_mm, camera.aperture, circle)


def exposed_s(plan: Plan, frames: int) -> Floats:
    """How long each frame is exposed, in seconds, shape (frames,): the same throughout while it is locked."""
    return np.full(frames, float(plan.beat.exposure_s))
