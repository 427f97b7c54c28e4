"""Keeping entries in SQLite; the only place that knows SQL."""
