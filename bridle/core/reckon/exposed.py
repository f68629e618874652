"""What the shutter does in one cycle."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import lens


@dataclass(frozen=True)
class Exposures:
    """What the shutter does in one cycle, or where a motor steps through a stack at one position of it.

    Times in seconds, counts of exposures.

    `bracket_s` are the exposures at each position; `between_s` lies between positions, `gap_s` within a bracket.
    """

    positions: int
    pictures: int
    factor: float
    total_s: float
    gaps_s: float
    refocus_s: float
    storing_s: float
    dark_in_gaps_s: float
    dark_last_s: float
    processing_s: float
    longest_s: float
    bracket_s: tuple[float, ...]
    between_s: float
    gap_s: float

    @property
    def count(self) -> int:
        """How often the shutter opens."""
        return self.positions * len(self.bracket_s)

    def in_turn(self) -> Iterator[tuple[float, float]]:
        """Each exposure and the gap after it, in the order of time; the last has none."""
        for position in range(1, self.positions + 1):
            for number, exposure in enumerate(self.bracket_s, 1):
                dark = exposure if self.dark_last_s else 0.0
                if number < len(self.bracket_s):
                    yield exposure, dark + self.gap_s
                else:
                    yield exposure, dark + self.between_s if position < self.positions else 0.0

    def starts_s(self) -> Iterator[float]:
        """When each picture is begun after the first, as the buffer gets them: a merged bracket is one."""
        now, each = 0.0, self.count // self.pictures
        for number, (exposure, gap) in enumerate(self.in_turn()):
            if number % each == 0:
                yield now
            now += exposure + gap

    @property
    def busy_s(self) -> float:
        """From the first shutter to the last one's end."""
        return self.total_s + self.gaps_s


def exposures(beat: Beat, camera: Camera, driven: bool = False) -> Exposures:
    """Bracket, focus stack and noise reduction of one cycle.

    Where a motor is told each position of the stack (`driven`), what is at one of them.
    """
    positions, bracket = 1 if driven else stack_positions(beat, camera), beat.bracket_s
    total = sum(bracket) * positions
    # The dark frame after the last exposure alone overlaps the move.
    dark_last = bracket[-1] if beat.noise_reduction else 0.0
    dark_in_gaps = total - dark_last if beat.noise_reduction else 0.0
    refocus = float(beat.stack.move_s + beat.stack.settle_s) if beat.stack and not driven else 0.0
    # Each focus position is an order of its own: without a buffer the camera refuses it until the last is written.
    storing = float(beat.merge_s) + (0.0 if beat.buffer_frames else float(beat.write_s)) if positions > 1 else 0.0
    between = max(refocus, storing)
    gaps = positions * (len(bracket) - 1) * float(beat.bracket_gap_s) + (positions - 1) * between + dark_in_gaps
    return Exposures(
        positions=positions,
        pictures=positions if beat.merge_s else positions * len(bracket),
        factor=sum(bracket) / float(beat.exposure_s),
        total_s=total,
        gaps_s=gaps,
        refocus_s=refocus,
        storing_s=storing,
        dark_in_gaps_s=dark_in_gaps,
        dark_last_s=dark_last,
        processing_s=dark_last + float(beat.merge_s),
        longest_s=max(bracket),
        bracket_s=bracket,
        between_s=between,
        gap_s=float(beat.bracket_gap_s),
    )


def stack_positions(beat: Beat, camera: Camera) -> int:
    """Focus positions of a cycle: 1 without a stack that can be taken."""
    stack = beat.stack
    if stack is None or not stackable(beat, camera):
        return 1
    overlap, circle = float(stack.overlap), camera.circle
    return lens.stack_positions(stack.near_mm, stack.far_mm, overlap, camera.focal_mm, camera.aperture, circle)


def focus_distances_mm(beat: Beat, camera: Camera, numbers: Iterable[int] | None = None) -> list[float]:
    """Where to focus for each exposure of a stack, or for those with some numbers (from 0), from near to far.

    Nothing without a stack that can be taken. A stack may have millions of them: ask for few.
    """
    stack = beat.stack
    if stack is None or not stackable(beat, camera):
        return []
    count, circle = stack_positions(beat, camera), camera.circle
    return lens.focus_distances_mm(
        stack.near_mm, stack.far_mm, count, camera.focal_mm, camera.aperture, circle, numbers
    )


def stackable(beat: Beat, camera: Camera) -> bool:
    """Whether there is a stack whose near end can be focused, by a lens for which not everything passes for sharp."""
    hyper = lens.hyperfocal_mm(camera.focal_mm, camera.aperture, camera.circle)
    return beat.stack is not None and beat.stack.near_mm > camera.focal_mm and hyper > 2 * camera.focal_mm


@dataclass(frozen=True)
class Shuttered:
    """What the shutter does at each frame: few kinds of it, and which of them each frame has (one entry for all alike).

    `exposed_s` is the exposure of each frame, in seconds; a bracket goes along with it.
    """

    beats: tuple[Beat, ...]
    kinds: tuple[Exposures, ...]
    which: NDArray[np.int64]
    exposed_s: Floats

    def of(self, frame: int) -> Exposures:
        """What it does at a frame."""
        return self.kinds[self._which(frame)]

    def beat(self, frame: int) -> Beat:
        """The beat with the exposure of a frame."""
        return self.beats[self._which(frame)]

    def _which(self, frame: int) -> int:
        return int(self.which[min(frame, len(self.which) - 1)])

    @cached_property
    def busy_s(self) -> Floats:
        """From the first shutter to the last one's end; one entry a frame, or one for all."""
        return np.array([kind.busy_s for kind in self.kinds])[self.which]

    @cached_property
    def processing_s(self) -> Floats:
        """What the camera works on afterwards, likewise."""
        return np.array([kind.processing_s for kind in self.kinds])[self.which]

    @cached_property
    def longest_s(self) -> Floats:
        """The longest exposure of each frame's bracket, likewise."""
        return np.array([kind.longest_s for kind in self.kinds])[self.which]


def exposed_for(beat: Beat, exposure: Fraction) -> Beat:
    """The beat exposed for another time; a bracket of its own times goes along by as many stops."""
    times = tuple(time * exposure / beat.exposure_s for time in beat.bracket_times_s)
    return beat.model_copy(update={"exposure_s": exposure, "bracket_times_s": times})


def shuttered(beat: Beat, camera: Camera, driven: bool, frames: int, followed_s: Floats | None) -> Shuttered:
    """What the shutter does in each frame: the same throughout, or as the exposures that follow the light have it."""
    if followed_s is None:
        one = exposures(beat, camera, driven)
        return Shuttered((beat,), (one,), np.zeros(1, dtype=np.int64), np.full(frames, float(beat.exposure_s)))
    each, which = np.unique(followed_s, return_inverse=True)
    beats = tuple(exposed_for(beat, seconds_of(value)) for value in each.tolist())
    return Shuttered(beats, tuple(exposures(one, camera, driven) for one in beats), which, followed_s)


def seconds_of(exposed_s: float) -> Fraction:
    """An exposure as the plan's exact numbers have it, to a nanosecond."""
    return Fraction(round(exposed_s * 10**9), 10**9)
