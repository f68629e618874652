"""The folder in which everything is kept: where it is, who has it, whether it is well, and copies of it."""
