"""The commands of manage.py that need the whole server."""
