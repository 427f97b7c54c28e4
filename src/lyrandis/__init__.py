"""Lyrandis: the bench companion from draw length to clean, quiet arrow flight."""

__version__ = "0.1.0"
