"""Case files: JSON without a job, for one computation of its own."""

import json
from typing import Any

from ridge_tally.core.errors import FormatError


def read_case(text: str, file: str) -> Any:
    """Return the values of a case file; FormatError if it is no JSON."""
    try:
        return json.loads(text)
    except (ValueError, RecursionError) as error:
        raise FormatError(file, "", f"this is not JSON ({error})", "Choose a case file.") from None
