"""What each kind of drive does."""
