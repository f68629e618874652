"""Print: the file, the stop at each frame, the switch that the head meets, and what of it fits."""
