"""Who tells the camera, and what it cannot do."""
