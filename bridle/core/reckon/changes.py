"""The list of changes: at which frame, at which clock time, what is set."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.settings import density_of
from bridle.core.subjects.light.dials import Dial

DIALS: tuple[Dial, ...] = ("shutter", "iso", "aperture")
NAMES = (*DIALS, "filter")


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangeLine:
    """A change of settings: the frame (0-based) before which it is made, and what is set from there on.

    `moment` is a Unix time, `moved` what is different from before. Labels as they are engraved: seconds, ISO, f-number.
    """

    frame: int
    moment: float
    shutter_s: float
    iso: float
    aperture: float
    density: float
    moved: tuple[str, ...]


def change_lines(shooting: Shooting, most: int | None = None) -> Iterator[ChangeLine]:
    """The list, the first setting at its head; so many changes of it at most.

    Where nothing follows the light it is one line, and one for each filter that is put on or taken off.
    """
    density = density_of(shooting.plan, shooting.frames)
    followed = shooting.followed
    changes = np.flatnonzero(np.diff(density)) + 1 if followed is None else followed.changes
    frames = np.append(0, changes[:most]).astype(np.int64)
    moments = shooting.timeline.start_unix_s + shooting.timeline.starts_s[frames]
    before: tuple[float, ...] | None = None
    for frame, moment, *now in zip(frames.tolist(), moments.tolist(), *_set(shooting, frames), strict=True):
        moved = () if before is None else tuple(name for name, a, b in zip(NAMES, before, now, strict=True) if a != b)
        before = shutter, iso, aperture, filtered = tuple(now)
        yield ChangeLine(
            frame=frame,
            moment=moment,
            shutter_s=shutter,
            iso=iso,
            aperture=aperture,
            density=filtered,
            moved=moved,
        )


def _set(shooting: Shooting, frames: NDArray[np.int64]) -> tuple[list[float], ...]:
    """Shutter, ISO, f-number and filters at some frames."""
    plan, followed = shooting.plan, shooting.followed
    density = density_of(plan, shooting.frames)[frames].tolist()
    if followed is None:
        fixed = float(plan.beat.exposure_s), float(plan.camera.iso), plan.camera.aperture
        return (*([value] * len(frames) for value in fixed), density)
    return (*(followed.labels(dial, frames) for dial in DIALS), density)


def set_at(shooting: Shooting, frame: int) -> tuple[float, float, float]:
    """Shutter in seconds, ISO and f-number at a frame, as engraved; as typed where they do not follow the light."""
    plan, followed = shooting.plan, shooting.followed
    if followed is None:
        return float(plan.beat.exposure_s), float(plan.camera.iso), plan.camera.aperture
    shutter, iso, aperture = (followed.label(dial, frame) for dial in DIALS)
    return shutter, iso, aperture
