"""Long hunts: `make fuzz` runs each of them, bounded, and prints what it came to."""
