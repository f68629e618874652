"""The frame table as CSV: one line a frame, with its clock time, every axis and the exposure."""

from collections.abc import Callable, Iterator

from bridle.core.plan.document import Plan
from bridle.core.reckon.path import FIELDS
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.scene import lit_at
from bridle.core.reckon.settings import density_of
from bridle.formats.csv_lines import csv_line
from bridle.formats.nothing import NothingToWriteError

# What is told beyond shutter, aperture and ISO: where there are filters, and where the exposure follows the light.
FILTERED, FOLLOWED = ("filter_stops",), ("leftover_stops",)


def header(plan: Plan) -> list[str]:
    """The column names: frame from 1, ISO 8601 clock time, seconds from the start, axes, exposure."""
    axes = [FIELDS[axis.name] for axis in plan.rig.axes]
    beyond = [*(FILTERED if plan.light.densities or follows(plan) else ()), *(FOLLOWED if follows(plan) else ())]
    return ["frame", "time", "elapsed_s", *axes, "exposure_s", "f_number", "iso", *beyond]


def follows(plan: Plan) -> bool:
    """Whether exposures follow a light that is known: then each frame has its own, and something left for the edit."""
    return plan.light.school != "locked" and lit_at(plan) is not None


def rows(plan: Plan) -> Iterator[list[str]]:
    """One row a frame. Raises `NothingToWriteError` at once while the clip is open."""
    # Only what stands in the table is worked out: the first row of a long shoot is not to wait for all its snags.
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NothingToWriteError("the clip leaves something open, so there are no frames to list")
    times, places = shooting.timeline, shooting.positions
    columns = [places[axis.name] for axis in plan.rig.axes]
    exposure = _exposures(shooting)

    def lines() -> Iterator[list[str]]:
        for frame in range(times.frames):
            clock = times.clock(frame).isoformat(timespec="milliseconds")
            elapsed = f"{float(times.elapsed_s(frame)):.3f}"
            yield [str(frame + 1), clock, elapsed, *(f"{axis[frame]:.4f}" for axis in columns), *exposure(frame)]

    return lines()


def _exposures(shooting: Shooting) -> Callable[[int], list[str]]:
    """The exposure of a frame: seconds as they really are, f-number and ISO as they are engraved."""
    plan, followed = shooting.plan, shooting.followed
    if followed is None:
        locked = [f"{float(plan.beat.exposure_s):.9g}", f"{plan.camera.aperture:g}", str(plan.camera.iso)]
        density = density_of(plan, shooting.frames)
        if not plan.light.densities:
            return lambda _: locked
        return lambda frame: [*locked, f"{float(density[frame]):g}"]
    return lambda frame: [
        f"{float(followed.shutter_s[frame]):.9g}",
        f"{followed.label('aperture', frame):g}",
        f"{followed.label('iso', frame):g}",
        f"{float(followed.density[frame]):g}",
        f"{float(followed.leftover[frame]):.3f}",
    ]


def write_frames(plan: Plan) -> Iterator[str]:
    """The table line by line, as CSV with a header. Raises `NothingToWriteError` at once."""
    body = rows(plan)

    def lines() -> Iterator[str]:
        yield csv_line(header(plan))
        for row in body:
            yield csv_line(row)

    return lines()
