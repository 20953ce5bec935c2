"""Settings shared by all tests: hypothesis runs the same examples everywhere."""

import pytest
from hypothesis import settings

settings.register_profile("ridge", deadline=None, derandomize=True)
settings.load_profile("ridge")


@pytest.fixture
def sample_job():
    """The sample job, built once a process."""
    from jobs import SAMPLE

    return SAMPLE
