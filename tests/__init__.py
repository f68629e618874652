"""The tests. Properties have no deadline; `make test` draws the same examples every time, the long hunts others."""

import os

from hypothesis import settings
from hypothesis.internal.conjecture import providers

HUNTS = "BRIDLE_EXAMPLES" in os.environ
settings.register_profile("bridle", deadline=None, derandomize=not HUNTS)
settings.load_profile("bridle")
if not HUNTS:
    # The library draws numbers that stand in the modules which happen to be loaded: other examples in each process, and
    # after every change anywhere. The long hunts may; of a check everybody gets the same.
    assert callable(providers._get_local_constants)
    providers._get_local_constants = lambda: providers._local_constants
