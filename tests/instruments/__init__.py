"""Tests of the instruments."""
