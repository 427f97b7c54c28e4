"""Alembic migrations, applied at start."""
