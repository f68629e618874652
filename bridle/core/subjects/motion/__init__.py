"""Easing, steps, tracking, calibration."""
