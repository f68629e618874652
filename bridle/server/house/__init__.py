"""The house itself: for how long Bridle has run, and whether its clock is to be believed."""
