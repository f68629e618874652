"""The unit in which the corners of a print's paths are kept."""

# A 16-bit number of these reaches over beds of 1.3 m.
UNIT_MM = 0.02
