"""The tests. Properties have no deadline, and CI draws the same examples every time; by hand they differ."""

import os

from hypothesis import settings

settings.register_profile("bridle", deadline=None, derandomize=bool(os.environ.get("CI")))
settings.load_profile("bridle")
