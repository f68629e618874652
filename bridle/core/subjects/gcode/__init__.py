"""G-code: reading it, and carrying it out."""
