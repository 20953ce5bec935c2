"""Parts of a document that go by an id: each has its own."""

from collections.abc import Sequence

from ridge_tally.core.errors import BadGeometry


def require_distinct(what: str, ids: Sequence[str]) -> None:
    """Raise BadGeometry, naming the id, if one is there twice."""
    if len(set(ids)) < len(ids):
        twice = next(i for i in ids if ids.count(i) > 1)
        raise BadGeometry(what, f"the id “{twice}” is there twice", "Give each its own.")
