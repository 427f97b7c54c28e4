"""Tests of the string."""
