"""What of an inspection enters a plan: facts and a digest, and the layers as the source of its frames."""

from fractions import Fraction
from math import isfinite

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.frames import MOST_LAYERS, Layers
from bridle.core.plan.printing import MOST_LISTED, MOST_PLACES, Already, PrintFile, Unread
from bridle.core.subjects.prints.found import Inspection

LEAST_S = Fraction(1, 10)
FARTHEST_MM = 5000


class NoLayersError(ValueError):
    """A file in which nothing could be found that calls a frame."""


def file_facts(found: Inspection, name: str, digest: str) -> PrintFile:
    """The facts of a file."""
    box = found.box if found.layers else (0.0, 0.0, 0.0, 0.0)
    return PrintFile(
        name=name[:120] or "print",
        digest=digest,
        bytes=max(1, found.size),
        lines=max(1, found.lines),
        announced=found.style or "by height",
        things=max(1, found.things),
        spiral=found.spiral,
        extents_mm=_box(box),
        start_mm=_start(found),
        start_s=_seconds(found.start_s),
        start_way=_way(found.start_path),
        end_way=_way(found.end_path),
        first_line=found.layers[0].line if found.layers else 0,
        first_mm=_box(found.layers[0].box) if found.layers else (),
        tower_mm=_box(found.tower) if found.tower else (),
        relative_e=bool(found.layers) and not found.layers[-1].end.absolute_e,
        apart=found.apart if found.doubts else None,
        infills=sum(layer.fill is not None for layer in found.layers),
        homes=found.homes,
        tools=found.tools[:20],
        already=tuple(
            Already(name=one.name, sort=one.sort, count=one.count, layers=one.layers, line=one.line, text=one.text)
            for one in sorted(found.others, key=lambda one: one.sort not in ("unknown", "fire", "pause"))[:MOST_LISTED]
        ),
        parks=found.parks[0] if found.parks else 0,
        unread=tuple(Unread(line=one.line, stood=one.stood, expected=one.expected) for one in found.wrong),
        unread_count=found.wrong_count,
    )


def layer_source(found: Inspection, before: Layers | None = None) -> Layers:
    """The layers as a plan has them; what was chosen of another file's layers is kept, as far as it fits.

    Raises `NoLayersError` where there are none, or more than a plan holds.
    """
    if not found.layers:
        raise NoLayersError("no layers were found: nothing says when a frame is to be taken")
    if len(found.layers) > MOST_LAYERS:
        raise NoLayersError(f"{len(found.layers):,} layers; a shoot holds {MOST_LAYERS:,}")
    made = Layers(
        layers_s=tuple(max(LEAST_S, Fraction(round(layer.seconds * 10), 10)) for layer in found.layers),
        z_mm=tuple(round(layer.z, 3) for layer in found.layers),
    )
    if before is None:
        return made
    return made.model_copy(update={"every": before.every, "equal_mm": before.equal_mm})


def _start(found: Inspection) -> tuple[float, ...]:
    """How far the head goes before the first layer: x, X, y, Y."""
    if not len(found.start_path):
        return ()
    low, high = found.start_path[:, :2].min(0), found.start_path[:, :2].max(0)
    return tuple(round(float(side), 2) for side in (low[0], high[0], low[1], high[1]))


def _box(box: tuple[float, ...]) -> tuple[float, ...]:
    return tuple(round(float(side), 2) if isfinite(side) else 0.0 for side in box)


def _way(path: NDArray[np.float64]) -> tuple[tuple[float, ...], ...]:
    """A way as a plan has it: places, mm, without those at which the head stays."""
    places = np.round(path[:, :3], 2)
    places = places[np.isfinite(places).all(1) & (np.abs(places) <= FARTHEST_MM).all(1)]
    moved = np.append(True, (np.diff(places, axis=0) != 0).any(1)) if len(places) else np.zeros(0, bool)
    return tuple((float(x), float(y), float(z)) for x, y, z in places[moved][:MOST_PLACES])


def _seconds(value: float) -> Fraction:
    return Fraction(round(value * 100), 100)
