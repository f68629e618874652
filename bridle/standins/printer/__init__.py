"""A virtual printer: it carries a file out as bytes, knows its own card, and tells what it met."""
