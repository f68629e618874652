"""The tests. Properties have no deadline; `make test` draws the same examples every time, the long hunts others."""

import os

from hypothesis import settings

settings.register_profile("bridle", deadline=None, derandomize="BRIDLE_EXAMPLES" not in os.environ)
settings.load_profile("bridle")
