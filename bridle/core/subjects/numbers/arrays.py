"""What a series of numbers is called everywhere."""

from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

# One entry for each frame, unless it says otherwise.
Floats: TypeAlias = NDArray[np.float64]
