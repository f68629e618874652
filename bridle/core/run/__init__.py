"""A run as a state machine."""
