"""The chapter Long run: when a scheduled shoot takes its frames."""
