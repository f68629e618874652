"""The crop of each frame as CSV, for an encoder: turn level first, then cut the rectangle, then scale."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.reckon.clip import solved
from bridle.core.reckon.crops import rectangles
from bridle.core.reckon.picture import kept
from bridle.formats.csv_lines import csv_line
from bridle.formats.nothing import NothingToWriteError

HEADER = ["frame", "turn_deg", "left_px", "top_px", "width_px", "height_px", "out_width_px", "out_height_px"]


def write_crops(plan: Plan) -> Iterator[str]:
    """The table line by line, with a header. Raises `NothingToWriteError` at once."""
    solution, _missing = solved(plan)
    if solution is None:
        raise NothingToWriteError("the clip leaves something open, so there are no frames to crop")
    made, frame = rectangles(plan, solution), kept(plan)

    def lines() -> Iterator[str]:
        yield csv_line(HEADER)
        for number, (left, top, width, height) in enumerate(made.tolist(), 1):
            turn = f"{plan.picture.level_deg:g}"
            yield csv_line([number, turn, left, top, width, height, frame.width_px, frame.height_px])

    return lines()
