"""A step's routes, described only where somebody asks for the description of the API.

To describe a route is to write out the schema of all it may answer: seconds for a job, at every
start of a program that seldom tells anybody.
"""

from collections.abc import Callable
from functools import partial
from typing import Any

from flask_openapi import APIBlueprint


class Routes(APIBlueprint):
    """A blueprint that keeps the describing of its routes until ``describe`` is called."""

    def __init__(self, name: str, import_name: str, url_prefix: str) -> None:
        super().__init__(name, import_name, url_prefix=url_prefix)
        self._to_describe: list[Callable[[], object]] = []

    def _collect_openapi_info(self, rule: str, func: Any, **told: Any) -> Any:
        whole = super()._collect_openapi_info
        self._to_describe.append(partial(whole, rule, func, **told))
        return whole(rule, func, **{**told, "doc_ui": False})

    def describe(self) -> None:
        """Describe every route; to be called before an application registers them."""
        for describe in self._to_describe:
            describe()
        self._to_describe.clear()
