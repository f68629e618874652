"""Sun and shutter."""
