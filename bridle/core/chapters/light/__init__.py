"""What lights the scene, and what the camera is set to."""
