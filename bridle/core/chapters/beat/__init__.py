"""One beat: what fits into an interval."""
