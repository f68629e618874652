"""The move: path, sight, picture, rounds."""
