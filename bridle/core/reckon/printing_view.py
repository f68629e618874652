"""How a print stands in the picture: the part from the empty bed to the finished one, and the parked head beside it."""

from dataclasses import dataclass, replace

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.reckon.picture import kept, longest_lens
from bridle.core.reckon.printing import chosen, layered, middle, parking, printer_of, stop_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics.depth import limits_mm
from bridle.core.subjects.optics.projecting import NEAREST_MM, Poses, see, still_or_each

# The printer's X and Y as the camera has them: to the right, and away from it.
TURNED = {"front": (1, 0, 0, 1), "back": (-1, 0, 0, -1), "left": (0, -1, 1, 0), "right": (0, 1, -1, 0)}


@dataclass(frozen=True)
class Standing:
    """Where the part stands: its middle in the scene, the bed's height and the part's own, in mm.

    `at` is the camera while the pictures are taken, `focus` the distance that it is focused at, mm; shape (frames,)
    or (1,). `mark` is the number of the mark that says so; None where a distance does.
    """

    x: float
    y: float
    bed: float
    high: float
    at: Poses
    focus: Floats
    mark: int | None = None

    @property
    def ahead(self) -> Floats:
        """How far before the lens the middle of the finished part lies, mm."""
        return see(self.at, self.x, self.y, self.bed + self.high / 2).ahead

    @property
    def image(self) -> Floats:
        """How far behind the lens the picture is drawn, mm: close up a lens stands further out than its focal length.

        `f·s/(s − f)` for a lens focused at `s`; where nothing can be sharp so near, the focal length itself.
        """
        lens, focus = self.at.lens, self.focus
        if not len(focus):
            focus = self.ahead
        beyond = np.where(focus > lens + NEAREST_MM, focus, np.inf)
        with np.errstate(invalid="ignore"):
            drawn = lens / (1 - lens / beyond)
        return still_or_each(np.asarray(drawn))


@dataclass(frozen=True)
class Views:
    """Part and head as shares of the picture from its middle, shape (frames, 4): left, right, low, high.

    The picture reaches from −0.5 to 0.5 both ways; what is behind the lens is not a number. `head` is None where nobody
    knows where it is parked.
    """

    part: Floats
    head: Floats | None

    @property
    def out(self) -> np.ndarray:
        """At which frames the part is not all in the picture."""
        return np.asarray(~(np.abs(self.part) <= 0.5).all(axis=1))

    @property
    def head_in(self) -> np.ndarray:
        """At which frames any of the head is in the picture."""
        if self.head is None:
            return np.zeros(len(self.part), dtype=bool)
        left, right, low, high = self.head.T
        return np.asarray((left < 0.5) & (right > -0.5) & (low < 0.5) & (high > -0.5))


def part_mm(plan: Plan) -> tuple[float, float, float]:
    """The finished part as the camera sees it: across, deep, high; mm. It needs a file and heights."""
    file, frames = plan.printing.file, layered(plan)
    assert file is not None and frames is not None
    x0, x1, y0, y1 = file.extents_mm
    sides = (x1 - x0, y1 - y0) if plan.printing.seen_from in ("front", "back") else (y1 - y0, x1 - x0)
    return sides[0], sides[1], max(frames.z_mm)


def part_mark(plan: Plan) -> Mark | None:
    """The mark of the move's scene that is the finished part, where somebody has said so."""
    number = plan.printing.mark
    return plan.move.marks[number] if number is not None and number < len(plan.move.marks) else None


def standing(plan: Plan, shooting: Shooting | None) -> Standing | None:
    """Where the part stands before the camera; None while nobody has said, or no file has been read.

    A mark of the move's scene counts with all that the camera does there; a distance that was measured with a camera
    that looks at the middle of the finished part, its lens as long as it gets.
    """
    frames = layered(plan)
    if plan.printing.file is None or frames is None or not frames.z_mm:
        return None
    mark, high = part_mark(plan), max(frames.z_mm)
    if mark is not None and mark.form != "bearing" and shooting is not None and plan.move.visits is None:
        deep = mark.depth_mm / 2 if mark.form == "block" else 0.0
        place = Standing(
            mark.x_mm, mark.y_mm + deep, mark.z_mm - high, high, shooting.poses, np.array([]), plan.printing.mark
        )
        focus = shooting.positions.get("focus", place.ahead[:1])
        return replace(place, focus=np.maximum(focus, plan.camera.focal_mm + NEAREST_MM))
    far = plan.printing.distance_mm
    if far is None:
        return None
    nought, focal = np.zeros(1), np.array([longest_lens(plan).focal_mm])
    at = Poses(nought, nought, nought, nought, nought, focal)
    return Standing(0.0, far, -high / 2, high, at, np.array([max(far, plan.camera.focal_mm + NEAREST_MM)]))


def views(plan: Plan, place: Standing, some: np.ndarray | None = None) -> Views:
    """How part and head stand in the picture, at all frames or at some."""
    frames = layered(plan)
    assert frames is not None
    heights = np.array([frames.z_mm[layer - 1] for layer in chosen(frames)])
    at = place.at
    if some is not None:
        heights, at = heights[some], at.some(some) if len(at) > 1 else at
    place = replace(place, at=at)
    wide, deep, _ = part_mm(plan)
    part = _shares(plan, place, (-wide / 2, wide / 2, -deep / 2, deep / 2), np.zeros_like(heights), heights)
    return Views(part, _head(plan, place, heights))


def _head(plan: Plan, place: Standing, heights: Floats) -> Floats | None:
    printer = printer_of(plan)
    if printer is None or stop_of(plan) is None:
        return None
    (x, y), (mx, my), parts = parking(plan), middle(plan), printer.head
    dx, dy = (0.0 if x is None else x - mx), (0.0 if y is None else y - my)
    across, along = (
        (min(part.left_mm for part in parts) + dx, max(part.right_mm for part in parts) + dx),
        (min(part.front_mm for part in parts) + dy, max(part.back_mm for part in parts) + dy),
    )
    a, b, c, d = TURNED[plan.printing.seen_from]
    right = sorted(a * px + b * py for px, py in zip(across, along, strict=True))
    away = sorted(c * px + d * py for px, py in zip(across, along, strict=True))
    tip = heights + plan.printing.stop.raise_mm
    low, high = min(part.low_mm for part in parts), max(part.high_mm for part in parts)
    return _shares(plan, place, (right[0], right[1], away[0], away[1]), tip + low, tip + high)


def _shares(plan: Plan, place: Standing, box: tuple[float, ...], low: Floats, high: Floats) -> Floats:
    """A box about the part's middle, as the picture has it at each frame: shape (frames, 4)."""
    frame = kept(plan)
    sides = [(x, y, z) for x in box[:2] for y in box[2:] for z in (low, high)]
    x, y = (np.array([side[n] for side in sides])[:, np.newaxis] for n in (0, 1))
    z = np.stack([side[2] for side in sides])
    seen = see(place.at, place.x + x, place.y + y, place.bed + z)
    image = place.image
    across, above = seen.across() * image / frame.width_mm, seen.above() * image / frame.height_mm
    return np.stack([across.min(0), across.max(0), above.min(0), above.max(0)], axis=1)


def sharp_of_part(plan: Plan, place: Standing, f_number: float) -> tuple[float, int]:
    """How much of the part's depth is sharp where least of it is, mm, and at which frame (from 0)."""
    deep, circle = part_mm(plan)[1], plan.camera.circle
    ahead, focal, focus = np.broadcast_arrays(place.ahead, place.at.lens, place.focus)
    least, where = deep, 0
    # Most shoots have one distance and one lens, however many frames.
    for n in np.unique(np.stack([ahead, focal, focus], axis=1).round(3), axis=0, return_index=True)[1]:
        near, far = limits_mm(float(focus[n]), float(focal[n]), f_number, circle)
        sharp = min(far, ahead[n] + deep / 2) - max(near, ahead[n] - deep / 2)
        if sharp < least:
            least, where = max(0.0, float(sharp)), int(n)
    return least, where
