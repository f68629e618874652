"""Lenses, crops, panoramas, and what a camera sees."""
