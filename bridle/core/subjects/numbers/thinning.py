"""Thinning of long series for drawing, keeping what the eye would miss."""

import numpy as np
from numpy.typing import NDArray

MOST = 1000


def kept_indices(series: list[NDArray[np.float64]], most: int = MOST) -> NDArray[np.int64]:
    """Indices of at most `most` points (a few more for many series): ends, and each bucket's extremes."""
    count = len(series[0])
    if count <= most:
        return np.arange(count)
    buckets = most // (2 * len(series)) - 1
    width = -(-count // buckets)
    kept = {0, count - 1}
    for values in series:
        padded = np.pad(values, (0, width * buckets - count), mode="edge").reshape(buckets, width)
        base = np.arange(buckets) * width
        for extreme in (padded.argmin(axis=1), padded.argmax(axis=1)):
            kept.update(np.minimum(base + extreme, count - 1).tolist())
    return np.array(sorted(kept))
