"""The list of changes: at which frame, at which clock time, what is set."""

from collections.abc import Iterator
from dataclasses import dataclass

from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.settings import Followed
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


def change_lines(shooting: Shooting, ramp: Followed, most: int | None = None) -> Iterator[ChangeLine]:
    """The list, the first setting at its head; so many changes of it at most."""
    before: ChangeLine | None = None
    for frame in [0, *ramp.changes[:most].tolist()]:
        said = {dial: ramp.label(dial, frame) for dial in DIALS}
        density = float(ramp.density[frame])
        now = (said["shutter"], said["iso"], said["aperture"], density)
        was = None if before is None else (before.shutter_s, before.iso, before.aperture, before.density)
        names = (*DIALS, "filter")
        moved = () if was is None else tuple(name for name, a, b in zip(names, was, now, strict=True) if a != b)
        before = ChangeLine(
            frame=frame,
            moment=shooting.timeline.unix_s(frame),
            shutter_s=said["shutter"],
            iso=said["iso"],
            aperture=said["aperture"],
            density=density,
            moved=moved,
        )
        yield before
