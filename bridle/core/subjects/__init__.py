"""Arithmetic on numbers and arrays, one file per subject, knowing no plan."""
