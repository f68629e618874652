"""The frame table as CSV: one line a frame, with its clock time, every axis and the exposure."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.reckon.path import FIELDS
from bridle.core.reckon.reckoning import reckon
from bridle.formats.csv_lines import csv_line
from bridle.formats.nothing import NothingToWriteError


def header(plan: Plan) -> list[str]:
    """The column names: frame from 1, ISO 8601 clock time, seconds from the start, axes, exposure."""
    axes = [FIELDS[axis.name] for axis in plan.rig.axes]
    return ["frame", "time", "elapsed_s", *axes, "exposure_s", "f_number", "iso"]


def rows(plan: Plan) -> Iterator[list[str]]:
    """One row a frame. Raises `NothingToWriteError` at once while the clip is open."""
    # Only what stands in the table is worked out: the first row of a long shoot is not to wait for all its snags.
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NothingToWriteError("the clip leaves something open, so there are no frames to list")
    times, places = shooting.timeline, shooting.positions
    columns = [places[axis.name] for axis in plan.rig.axes]
    exposure = [f"{float(plan.beat.exposure_s):.9g}", f"{plan.camera.aperture:g}", str(plan.camera.iso)]

    def lines() -> Iterator[list[str]]:
        for frame in range(times.frames):
            clock = times.clock(frame).isoformat(timespec="milliseconds")
            elapsed = f"{float(times.elapsed_s(frame)):.3f}"
            yield [str(frame + 1), clock, elapsed, *(f"{axis[frame]:.4f}" for axis in columns), *exposure]

    return lines()


def write_frames(plan: Plan) -> Iterator[str]:
    """The table line by line, as CSV with a header. Raises `NothingToWriteError` at once."""
    body = rows(plan)

    def lines() -> Iterator[str]:
        yield csv_line(header(plan))
        for row in body:
            yield csv_line(row)

    return lines()
