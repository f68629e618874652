"""Shoots as they are kept."""
