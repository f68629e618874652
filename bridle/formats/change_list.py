"""The list of changes as CSV: before which frame, at which clock time, what is dialled in."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.quantity import write_shutter
from bridle.core.reckon.changes import ChangeLine, change_lines
from bridle.core.reckon.reckoning import reckon
from bridle.formats.csv_lines import csv_line
from bridle.formats.nothing import NothingToWriteError

HEADER = ["frame", "time", "elapsed_s", "shutter", "exposure_s", "iso", "f_number", "filter_stops", "changes"]


def write_changes(plan: Plan) -> Iterator[str]:
    """The list line by line, with a header; the first line is what is set to begin with.

    Raises `NothingToWriteError` at once where nothing follows the light.
    """
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NothingToWriteError("the clip leaves something open, so there are no frames to set anything for")
    if plan.light.school == "locked" and not plan.light.densities:
        raise NothingToWriteError("one exposure for all frames: there is nothing to change")
    if plan.light.school != "locked" and shooting.followed is None:
        raise NothingToWriteError("nobody knows the light of this scene: its place on earth is needed")

    def lines() -> Iterator[str]:
        yield csv_line(HEADER)
        for change in change_lines(shooting):
            clock = shooting.timeline.clock(change.frame).isoformat(timespec="seconds")
            elapsed = f"{float(shooting.timeline.elapsed_s(change.frame)):.3f}"
            exposed = f"{float(shooting.shuttered.exposed_s[change.frame]):.9g}"
            shown = write_shutter(change.shutter_s)
            settings = [shown, exposed, f"{change.iso:g}", f"{change.aperture:g}", f"{change.density:g}"]
            yield csv_line([change.frame + 1, clock, elapsed, *settings, " ".join(change.moved)])

    return lines()


def said(change: ChangeLine) -> str:
    """A setting in a line of text."""
    filtered = f", filter of {change.density:g} stops" if change.density else ""
    return f"{write_shutter(change.shutter_s)}, ISO {change.iso:g}, f/{change.aperture:g}{filtered}"
