"""Tests of the nock and the riser."""
