"""Before the start."""
