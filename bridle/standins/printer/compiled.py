"""Functions of the virtual printer that are machine code."""

from collections.abc import Callable
from typing import Any, TypeVar, cast

import numba

F = TypeVar("F", bound=Callable[..., Any])
# What numba is given has no type that Python could look at.
Array = Any


def compiled(function: F) -> F:
    """Machine code on the first use, kept beside the source; other threads run meanwhile."""
    return cast(F, numba.njit(cache=True, nogil=True)(function))
