"""Runs, their events and the logbook."""
