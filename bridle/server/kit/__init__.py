"""The kit: a shelf of cards."""
