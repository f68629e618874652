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
    stretches = max(1, most // 2 - 1)
    width = -(-count // stretches)
    padded = np.pad(values, (0, width * stretches - count), mode="edge").reshape(stretches, width)
    base = np.arange(stretches) * width
    extremes = np.concatenate([base + padded.argmin(axis=1), base + padded.argmax(axis=1), [0]])
    return np.unique(np.append(np.minimum(extremes, count - 1), count - 1)).astype(np.int64)
