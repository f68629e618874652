"""Commands of the prints."""
