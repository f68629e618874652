"""One line of a CSV file, as all tables write it."""

import csv
import io
from collections.abc import Sequence


def csv_line(cells: Sequence[object]) -> str:
    """The cells as a line that ends in CR LF, quoted where they need it."""
    out = io.StringIO()
    csv.writer(out, lineterminator="\r\n").writerow(cells)
    return out.getvalue()
