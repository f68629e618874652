"""The made-up demo data, as readable files."""
