"""Bridle plans, checks, rehearses and logs motion time-lapse shoots."""
