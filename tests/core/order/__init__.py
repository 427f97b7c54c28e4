"""Tests of the order of work."""
