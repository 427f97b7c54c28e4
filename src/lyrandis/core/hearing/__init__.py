"""Hearing a typed line: numbers and words, one table of what archers say, and what to ask back."""
