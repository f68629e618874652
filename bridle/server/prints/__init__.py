"""Prints: uploaded files, what was read of them, and the long work on them."""
