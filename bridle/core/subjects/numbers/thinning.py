"""Thinning of long series for drawing, keeping what the eye would miss."""

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.numbers.arrays import Floats

# So many points of a series are drawn; up to twice as many are left as they are.
SOME = 500


def kept_indices(values: Floats, most: int = SOME) -> NDArray[np.int64]:
    """Indices of about `most` points of a series: both ends, and the extremes of each stretch between."""
    count = len(values)
    if count <= 2 * most:
        return np.arange(count)
    width = count // max(1, most // 2 - 1)
    whole = count // width * width
    rows = values[:whole].reshape(-1, width)
    base = np.arange(0, whole, width)
    kept = [base + rows.argmin(axis=1), base + rows.argmax(axis=1), np.array([0, count - 1])]
    if whole < count:
        rest = values[whole:]
        kept.append(whole + np.array([rest.argmin(), rest.argmax()]))
    return np.unique(np.concatenate(kept)).astype(np.int64)
