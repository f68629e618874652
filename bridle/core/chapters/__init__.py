"""What a person is told: figures and snags, chapter by chapter. No chapter imports another."""
