"""Migrations of the kit."""
