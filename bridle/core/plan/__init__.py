"""The plan: the one document that a shoot is."""
