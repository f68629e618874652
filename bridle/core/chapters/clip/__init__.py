"""The clip: sentence, clock, subject."""
