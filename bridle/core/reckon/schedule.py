"""At which frames the keyframes of a move stand, and how it eases between its stops."""

import itertools
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.clip import Clip
from bridle.core.plan.move import Move, OnFrame
from bridle.core.subjects.motion import easing
from bridle.core.subjects.motion.easing import Ease
from bridle.core.subjects.numbers import monotone
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import nearest
from bridle.core.subjects.time.sentence import Solution

# Shares of the way nearer to each other than this cannot be told apart; the ease is left out there.
LIKE = 1e-12


class Span(NamedTuple):
    """The first and the last frame of the move (0-based)."""

    first: int
    last: int

    @property
    def steps(self) -> int:
        """Steps from frame to frame."""
        return self.last - self.first


class Piece(NamedTuple):
    """From one stop to the next: the keyframes (their numbers), their steps within the leg, and the ease."""

    first: int
    last: int
    knots: Floats
    ease: Ease

    @property
    def steps(self) -> float:
        """Steps from end to end."""
        return float(self.knots[-1] - self.knots[0])

    def shares(self, at: Floats) -> Floats:
        """The share of the way at steps of the leg within the piece."""
        return easing.share(at - self.knots[0], self.steps, self.ease)


@dataclass(frozen=True)
class Schedule:
    """Where each keyframe stands in the first leg: the step it is reached at, and the step it is left at.

    `legs` are the frames (0-based) at which each leg begins and ends; `misplaced` are the numbers of the keyframes
    that cannot stand where, or as long as, they were asked to; `eases_asked` is the ease that was asked for.
    """

    span: Span
    legs: tuple[Span, ...]
    arrive: Floats
    leave: Floats
    pieces: tuple[Piece, ...]
    misplaced: tuple[int, ...]
    eases_asked: tuple[float, float]

    @property
    def steps(self) -> int:
        """Steps of a leg."""
        return self.legs[0].steps

    @property
    def plain(self) -> bool:
        """Two keyframes, without a stop between them or a stand at them, there once."""
        return len(self.arrive) == 2 and len(self.legs) == 1 and self.pieces[0].steps == self.steps

    def frame(self, keyframe: int) -> int:
        """The frame (0-based) at which a keyframe is reached for the first time."""
        return self.span.first + round(float(self.arrive[keyframe]))

    def along(self, values: Floats) -> Floats:
        """Positions at each frame of the move, from those at the keyframes; shape (steps of the span + 1,)."""
        there = self._leg(values, self._first_leg)
        parts = [there]
        for number, leg in enumerate(self.legs[1:], 1):
            same = leg.steps == self.steps
            at = self._first_leg if same else self._grid(np.arange(leg.steps + 1) * self.steps / max(leg.steps, 1))
            way = there if same else self._leg(values, at)
            parts.append((way[::-1] if number % 2 else way)[1:])
        return np.concatenate(parts)

    @cached_property
    def _first_leg(self) -> "Grid":
        return self._grid(np.arange(self.steps + 1, dtype=np.float64))

    def _grid(self, at: Floats) -> "Grid":
        """What all axes share at steps of the leg that rise."""
        # A single frame stands at the first keyframe.
        last = len(self.arrive) - 1 if self.steps else 0
        passed = np.minimum(np.searchsorted(self.leave, at, side="right"), last)
        stretches = []
        for piece in self.pieces:
            low = int(np.searchsorted(at, piece.knots[0]))
            high = int(np.searchsorted(at, piece.knots[-1], side="right"))
            if piece.steps > 0 and high > low:
                known, inside = slice(piece.first, piece.last + 1), slice(low, high)
                stretches.append((inside, known, monotone.within(piece.shares(piece.knots), piece.shares(at[inside]))))
        return Grid(passed, tuple(stretches))

    def _leg(self, values: Floats, grid: "Grid") -> Floats:
        """Positions along the leg; exact at the keyframes, at rest between arriving and leaving."""
        made = np.asarray(values[grid.passed], dtype=np.float64)
        for inside, known, places in grid.stretches:
            made[inside] = monotone.through(values[known], places)
        return made


class Grid(NamedTuple):
    """Steps of a leg: the keyframe that is passed at each, and of each piece its steps, keyframes and places."""

    passed: NDArray[np.int64]
    stretches: tuple[tuple[slice, slice, monotone.Within], ...]


def move_span(clip: Clip, frames: int) -> Span:
    """The frames between the handles; handles that leave nothing to move in are passed over."""
    first, last = clip.handle_in_frames, frames - 1 - clip.handle_out_frames
    return Span(first, last) if first < last else Span(0, frames - 1)


def eases(move: Move, rate: Fraction) -> tuple[float, float]:
    """Frames to ease in and out, as asked for."""
    ends = ((move.ease_in_s, move.ease_in_frames), (move.ease_out_s, move.ease_out_frames))
    first, last = (float(frames if seconds is None else seconds * rate) for seconds, frames in ends)
    return first, last


def schedule(move: Move, clip: Clip, solution: Solution) -> Schedule:
    """The schedule of a move. Keyframes that are too many for its steps are spread over it, not on whole frames."""
    span = move_span(clip, solution.frames)
    count = max(1, min(move.legs, span.steps))
    turns = [span.first + nearest(Fraction(span.steps * leg, count)) for leg in range(count + 1)]
    legs = tuple(Span(first, last) for first, last in itertools.pairwise(turns))
    arrive, wrong = _arrivals(move, legs[0].steps, span.first, solution.rate)
    leave, arrive, cut = _holds(move, arrive, legs[0].steps)
    asked = eases(move, solution.rate)
    pieces = tuple(_pieces(move, arrive, leave, asked))
    return Schedule(span, legs, arrive, leave, pieces, tuple(sorted({*wrong, *cut})), asked)


def _arrivals(move: Move, steps: int, first: int, rate: Fraction) -> tuple[Floats, list[int]]:
    """The step at which each keyframe stands, rising; and those that cannot stand where they were asked to."""
    last = len(move.keyframes) - 1
    asked: list[float | None] = [0.0, *(None for _ in move.keyframes[1:-1]), float(steps)]
    for number, key in enumerate(move.keyframes[1:-1], 1):
        if key.when is not None:
            frame = key.when.frame - 1 if isinstance(key.when, OnFrame) else nearest(key.when.at_s * rate)
            asked[number] = float(frame - first)
    if steps < last:
        return np.linspace(0, steps, last + 1), list(range(1, last))
    placed = _spread(asked)
    for number in range(1, last):
        placed[number] = max(placed[number], placed[number - 1] + 1)
    for number in range(last - 1, 0, -1):
        placed[number] = min(placed[number], placed[number + 1] - 1)
    wrong = [n for n in range(1, last) if asked[n] is not None and placed[n] != asked[n]]
    return np.array(placed), wrong


def _spread(asked: list[float | None]) -> list[float]:
    """Those without a step of their own stand evenly between their neighbours, on whole steps."""
    known = [n for n, step in enumerate(asked) if step is not None]
    steps = [step for step in asked if step is not None]
    even = np.interp(np.arange(len(asked)), known, steps)
    return [float(np.floor(step + 0.5)) for step in even]


def _holds(move: Move, arrive: Floats, steps: int) -> tuple[Floats, Floats, list[int]]:
    """When each keyframe is left and reached, with the frames it stands for; the last is reached that much earlier."""
    leave, arrive, cut = arrive.copy(), arrive.copy(), []
    last = len(arrive) - 1
    for number, key in enumerate(move.keyframes):
        if not key.hold_frames or (number not in (0, last) and key.passing == "through"):
            continue
        room = arrive[number + 1] - arrive[number] if number < last else arrive[last] - leave[last - 1]
        stands = min(float(key.hold_frames), max(0.0, room - 1))
        if stands < key.hold_frames:
            cut.append(number)
        if number < last:
            leave[number] += stands
        else:
            arrive[last] -= stands
    return leave, arrive, cut


def _pieces(move: Move, arrive: Floats, leave: Floats, asked: tuple[float, float]) -> list[Piece]:
    last = len(arrive) - 1
    stops = [n for n, key in enumerate(move.keyframes) if n in (0, last) or key.passing == "stop"]
    made = []
    for first, end in itertools.pairwise(stops):
        knots = arrive[first : end + 1].copy()
        knots[0] = leave[first]
        ease = easing.fit_ease(*asked, float(knots[-1] - knots[0]), move.curve)
        piece = Piece(first, end, knots, ease)
        if piece.steps > 0 and np.any(np.diff(piece.shares(knots)) < LIKE):
            piece = piece._replace(ease=_without(ease))
        made.append(piece)
    return made


def _without(ease: Ease) -> Ease:
    """The same move without ease."""
    return ease._replace(frames_in=0.0, frames_out=0.0)
