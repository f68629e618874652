"""The list of changes: at which frame, at which clock time, what is set."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.settings import density_of
from bridle.core.subjects.light.dials import Dial

DIALS: tuple[Dial, ...] = ("shutter", "iso", "aperture")


@dataclass(slots=True, kw_only=True)
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
    before: ChangeLine | None = None
    for frame in [0, *changes[:most].tolist()]:
        line = _line(shooting, frame, float(density[frame]))
        before = replace(line, moved=() if before is None else tuple(_moved(before, line)))
        yield before


def _line(shooting: Shooting, frame: int, density: float) -> ChangeLine:
    """What is set at a frame; nothing of it said to be moved."""
    shutter, iso, aperture = set_at(shooting, frame)
    return ChangeLine(
        frame=frame,
        moment=shooting.timeline.unix_s(frame),
        shutter_s=shutter,
        iso=iso,
        aperture=aperture,
        density=density,
        moved=(),
    )


def set_at(shooting: Shooting, frame: int) -> tuple[float, float, float]:
    """Shutter in seconds, ISO and f-number at a frame, as engraved; as typed where they do not follow the light."""
    plan, followed = shooting.plan, shooting.followed
    if followed is None:
        return float(plan.beat.exposure_s), float(plan.camera.iso), plan.camera.aperture
    shutter, iso, aperture = (followed.label(dial, frame) for dial in DIALS)
    return shutter, iso, aperture


def _moved(before: ChangeLine, now: ChangeLine) -> Iterator[str]:
    for name, field in (("shutter", "shutter_s"), ("iso", "iso"), ("aperture", "aperture"), ("filter", "density")):
        if getattr(before, field) != getattr(now, field):
            yield name
