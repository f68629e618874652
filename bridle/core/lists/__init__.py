"""What one request wants on its own."""
