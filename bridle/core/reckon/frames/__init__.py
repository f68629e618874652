"""The sources of frames. Each file solves the clip, lays the frames in time, holds a quantity, and has its figures."""
