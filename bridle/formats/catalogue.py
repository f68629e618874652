"""Every file that is made from a plan: for the command line, the server and the page alike.

A new format is one file that writes it, and a line here.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from bridle.core.plan.document import Plan
from bridle.formats.calendar_file import write_calendar
from bridle.formats.change_list import write_changes
from bridle.formats.crop_table import write_crops
from bridle.formats.drive_program import program
from bridle.formats.frame_table import write_frames
from bridle.formats.plan_json import plan_lines
from bridle.formats.step_table import write_steps
from bridle.formats.told_table import write_told


@dataclass(frozen=True)
class Format:
    """A file made from a plan, line by line.

    `key` names it on the command line and in addresses (`<key><suffix>`), `title` is what the page calls it, `does`
    what the command line says of it; `ending` follows the shoot's name where it is taken along. Its writer raises
    `NothingToWriteError` at once where the plan leaves it open.
    """

    key: str
    suffix: str
    title: str
    does: str
    ending: str
    media: str
    write: Callable[[Plan], Iterator[str]]

    @property
    def file(self) -> str:
        """Its last part in an address."""
        return f"{self.key}{self.suffix}"


FORMATS = (
    Format(
        "plan", ".json", "plan (JSON)", "print the plan as Bridle writes it",
        ".bridle.json", "application/json", plan_lines,
    ),
    Format(
        "frames", ".csv", "frame table (CSV)", "print the frame table as CSV",
        "-frames.csv", "text/csv", write_frames,
    ),
    Format(
        "changes", ".csv", "list of changes (CSV)", "print every change of setting as CSV",
        "-changes.csv", "text/csv", write_changes,
    ),
    Format(
        "calendar", ".ics", "shoot, windows, visits, sun and moon (iCalendar)",
        "print shoot, windows, visits, sun and moon as a calendar file",
        ".ics", "text/calendar", write_calendar,
    ),
    Format(
        "steps", ".csv", "table of steps (CSV)", "print what the drives are told as CSV, in steps",
        "-steps.csv", "text/csv", write_steps,
    ),
    Format(
        "crops", ".csv", "rectangles for the encoder (CSV)", "print the crop of each frame as CSV",
        "-crops.csv", "text/csv", write_crops,
    ),
    Format(
        "told", ".csv", "frames besides and missed (CSV)", "print what a controller takes besides and misses as CSV",
        "-told.csv", "text/csv", write_told,
    ),
    Format(
        "program", ".gcode", "program for the controller (G-code)", "print the drive's program as G-code",
        ".gcode", "text/plain", program,
    ),
)  # fmt: skip
