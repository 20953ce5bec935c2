"""Settings shared by all tests: hypothesis runs the same examples everywhere."""

from hypothesis import settings

settings.register_profile("ridge", deadline=None, derandomize=True)
settings.load_profile("ridge")
