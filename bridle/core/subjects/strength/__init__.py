"""Beams that bend, screws that hold."""
