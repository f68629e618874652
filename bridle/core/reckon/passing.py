"""How fast the picture passes from frame to frame."""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import nearest_mm
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Flow


@dataclass(frozen=True)
class Shift:
    """Pixels from each frame to the next, at the worst of centre and both edges; which frame is worst, and where."""

    px: Floats
    worst: int
    at: str
    parts: dict[str, tuple[float, float]]

    @property
    def most(self) -> float:
        """The largest shift in pixels."""
        return float(self.px[self.worst]) if len(self.px) else 0.0


def steps_between(at: projecting.Poses) -> dict[str, Floats]:
    """The signed steps of the camera from each frame to the next, by axis; what does not move is left out."""
    ways = {"slide": at.x, "rise": at.z, "pan": at.pan, "tilt": at.tilt, "roll": at.roll, "zoom": at.focal}
    steps = {name: np.diff(values) for name, values in ways.items()}
    return {name: step for name, step in steps.items() if len(step) and np.any(np.abs(step) > 1e-12)}


def shift(plan: Plan, at: projecting.Poses) -> Shift:
    """The shift from frame to frame, linear axes seen at the nearest mark."""
    frames, frame = len(at), kept(plan)
    steps, per_mm = steps_between(at), frame.width_px / frame.width_mm
    before = projecting.Poses(*(getattr(at, name)[:-1] for name in ("x", "z", "pan", "tilt", "roll", "focal")))
    half = frame.width_mm / 2 / before.lens
    spots = {"centre": 0 * half, "left edge": -half, "right edge": half}
    flows = {name: projecting.flow(before, steps, u, 0 * u, nearest_mm(plan)) for name, u in spots.items()}
    px = {name: each.total(before.lens) * per_mm * np.ones(frames - 1) for name, each in flows.items()}
    if frames < 2:
        return Shift(np.zeros(0), 0, "centre", {})
    spot = list(px)[first_peak(np.array([values.max() for values in px.values()]))]
    worst = first_peak(px[spot])
    parts = _parts(flows[spot], worst, float(before.focal[worst]) * per_mm)
    return Shift(np.max(list(px.values()), axis=0), worst, spot, parts)


def _parts(flow: Flow, frame: int, scale: float) -> dict[str, tuple[float, float]]:
    return {
        name: (float(flow.across[name][frame]) * scale, float(flow.up[name][frame]) * scale) for name in flow.across
    }
