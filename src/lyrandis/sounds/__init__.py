"""Recordings: reading sound files, and keeping them on this machine until they are forgotten."""
