"""Leads and what they lose."""
