"""Drives: what each kind can do, one file each. Every file tells the setting for a wanted pace and what comes of it."""
