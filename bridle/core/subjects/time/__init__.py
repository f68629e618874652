"""Shoots, intervals, beats and buffers."""
