"""Rounding, thinning, curves through points."""
