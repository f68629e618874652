"""Functions compiled on their first use; the result is kept beside the source, so that only the first use waits."""

from collections.abc import Callable
from typing import Any, TypeVar, cast

import numba

F = TypeVar("F", bound=Callable[..., Any])


def compiled(function: F) -> F:
    """Compile a function of numbers and arrays to machine code; it lets other threads run meanwhile."""
    return cast(F, numba.njit(cache=True, nogil=True)(function))
