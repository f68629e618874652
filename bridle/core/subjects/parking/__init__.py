"""Putting stops into a print's file, and taking them out again to the byte."""
