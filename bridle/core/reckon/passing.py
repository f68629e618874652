"""How fast the picture passes from frame to frame."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import NamedTuple

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.reckon.picture import Kept, kept
from bridle.core.reckon.poses import nearest_mm
from bridle.core.reckon.sights import Seeing
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Motion, Poses

# Where the picture is looked at, in halves of its width and height from the centre: turning and zooming shift it most
# in a corner.
CENTRE = "centre"
EDGES = {"left edge": (-1, 0), "right edge": (1, 0), "upper edge": (0, 1), "lower edge": (0, -1)}
CORNERS = {
    "upper left corner": (-1, 1), "upper right corner": (1, 1),
    "lower left corner": (-1, -1), "lower right corner": (1, -1),
}  # fmt: skip
PLACES: dict[str, tuple[int, int]] = {CENTRE: (0, 0)} | CORNERS
# Where the carriage goes along something near, what lies far behind it passes by the turning alone: often by more, as a
# head that follows takes back what the carriage does to the near.
FAR = ", far away"
ALONG = ("slide", "rise")
# Something crosses the picture on its way through so many points of it.
CROSSING_POINTS = 33
# What goes slower somewhere on its way than this share of the largest shift does not get across.
LEAST_PACE = 0.05


class Place(NamedTuple):
    """The shift at a frame and a place of the picture, in pixels across and up by each axis."""

    name: str
    parts: dict[str, tuple[float, float]]

    @property
    def px(self) -> float:
        """All axes together."""
        return math.hypot(sum(part[0] for part in self.parts.values()), sum(part[1] for part in self.parts.values()))


@dataclass(frozen=True)
class Shift:
    """Pixels from each frame to the next, shape (frames - 1,): at the worst of centre and corners, and at the centre.

    Of what is near and what is far away always that which passes by more.
    `known` is false where the carriage goes along something and nobody has said how near it is: then only turning and
    zooming are in the numbers.
    """

    px: Floats
    centre: Floats
    known: bool
    frame: Kept
    before: Poses
    motions: dict[str, Motion]
    _picked: dict[int, dict[str, Motion]] = field(default_factory=dict, compare=False, repr=False)
    _largest: dict[tuple[int, tuple[str, ...]], Place] = field(default_factory=dict, compare=False, repr=False)

    @cached_property
    def worst(self) -> int:
        """The frame with the largest shift."""
        return first_peak(self.px) if len(self.px) else 0

    @property
    def most(self) -> float:
        """The largest shift in pixels."""
        return float(self.px[self.worst]) if len(self.px) else 0.0

    @property
    def both(self) -> bool:
        """Whether near and far pass differently."""
        return any(axis in self.motions for axis in ALONG)

    def place(self, step: int, names: Iterable[str] = PLACES) -> Place:
        """At which of some places the shift of a step is largest, near or far away, and by which axes."""
        key = (step, tuple(names))
        if key not in self._largest:
            each = [name + far for far in (("", FAR) if self.both else ("",)) for name in names]
            self._largest[key] = max((self.at(step, name) for name in each), key=lambda place: round(place.px, 9))
        return self._largest[key]

    def at(self, step: int, name: str) -> Place:
        """The shift of a step at a place of the picture, by each axis."""
        if not len(self.px):
            return Place(name, {})
        focal = float(self.before.focal[step])
        right, up = (PLACES | EDGES)[name.removesuffix(FAR)]
        u, v = right * self.frame.width_mm / 2 / focal, up * self.frame.height_mm / 2 / focal
        scale = focal * self.frame.width_px / self.frame.width_mm
        left_out = ALONG if name.endswith(FAR) else ()
        made = {axis: motion.at(u, v) for axis, motion in self._here(step).items() if axis not in left_out}
        return Place(name, {axis: (float(x) * scale, float(y) * scale) for axis, (x, y) in made.items()})

    def _here(self, step: int) -> dict[str, Motion]:
        """The motions of one step; five places and more ask for the same ones."""
        if step not in self._picked:
            self._picked[step] = {axis: _one(motion, step) for axis, motion in self.motions.items()}
        return self._picked[step]

    def crossing_frames(self, step: int) -> float | None:
        """In how many frames something crosses the picture at its pace there: across, else upright; None if neither."""
        whole, focal = projecting.together(self._here(step).values()), float(self.before.focal[step])
        ways = (self.frame.width_mm, 0.0), (0.0, self.frame.height_mm)
        for number, (wide, high) in enumerate(ways):
            along = np.linspace(-0.5, 0.5, CROSSING_POINTS) / focal
            pace = np.broadcast_to(whole.at(along * wide, along * high)[number], CROSSING_POINTS)
            least = float(np.abs(pace).min()) * focal * self.frame.width_px / self.frame.width_mm
            if least > LEAST_PACE * self.most and not pace.min() < 0 < pace.max():
                return float(np.trapezoid(1 / np.abs(pace), dx=(wide + high) / focal / (CROSSING_POINTS - 1)))
        return None


def _one(motion: Motion, step: int) -> Motion:
    """A motion at one step."""
    turn, goes = (tuple(_pick(way, step) for way in ways) for ways in (motion.turn, motion.goes))
    return Motion(turn, goes, _pick(motion.grows, step))  # type: ignore[arg-type]


def _pick(values: float | Floats, step: int) -> float:
    """One of the values, or the one that stands for all."""
    return values if isinstance(values, float) else float(values[step if len(values) > 1 else 0])


def steps_between(at: Poses) -> dict[str, Floats]:
    """The signed steps of the camera from each frame to the next, by axis; what does not move is left out."""
    ways = {"slide": at.x, "rise": at.z, "pan": at.pan, "tilt": at.tilt, "roll": at.roll, "zoom": at.focal}
    steps = {name: np.diff(values) for name, values in ways.items()}
    return {name: step for name, step in steps.items() if len(step) and np.any(np.abs(step) > 1e-12)}


def depth_mm(plan: Plan, seen: Sequence[Seeing]) -> Floats | None:
    """How far ahead the nearest mark in the picture lies at each frame; with none in it, as far as one is off the rail.

    None where no mark has a place.
    """
    away = nearest_mm(plan)
    if away is None:
        return None
    ahead = np.min([np.where(each.inside, each.ahead, np.inf) for each in seen], axis=0)
    return np.where(np.isfinite(ahead), ahead, away)


def shift(plan: Plan, at: Poses, seen: Sequence[Seeing]) -> Shift:
    """The shift from frame to frame, linear axes seen at the nearest mark."""
    frame, steps = kept(plan), steps_between(at)
    before = at.before()
    goes = "slide" in steps or "rise" in steps
    away = depth_mm(plan, seen) if goes else None
    motions = projecting.motions(before, steps, None if away is None else away[:-1])
    scale = before.lens * (frame.width_px / frame.width_mm)
    # All places at once: a row for each.
    right, up = (np.array(side)[:, np.newaxis] for side in zip(*PLACES.values(), strict=True))
    u, v = right * frame.width_mm / 2 / before.lens, up * frame.height_mm / 2 / before.lens
    px = np.zeros((len(PLACES), max(0, len(at) - 1)))
    for left_out in ((), ALONG) if any(axis in motions for axis in ALONG) else ((),):
        whole = projecting.together(motion for axis, motion in motions.items() if axis not in left_out)
        px = np.maximum(px, np.hypot(*whole.at(u, v)) * scale)
    centre = px[list(PLACES).index(CENTRE)]
    return Shift(px.max(axis=0), centre, not goes or away is not None, frame, before, motions)
