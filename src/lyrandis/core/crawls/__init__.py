"""Crawls: where to hook for each distance, from the rig and a few good marks."""
