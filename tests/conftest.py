"""Settings shared by all tests."""

from hypothesis import settings

settings.register_profile("bench", max_examples=40, deadline=None, derandomize=True, database=None)
settings.load_profile("bench")
