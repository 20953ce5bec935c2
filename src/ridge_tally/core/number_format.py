"""Numbers as they stand in sentences: thousands grouped by spaces that do not break, a true minus."""

_SPACE = "\u00a0"


def spaced(value: float, places: int = 0) -> str:
    """Return ``17 036`` or ``−4.5``; next to nothing is nothing, on neither side of it."""
    text = f"{abs(value):,.{places}f}".replace(",", _SPACE)
    return f"−{text}" if value < 0 and any(c in "123456789" for c in text) else text


def signed(value: float, places: int = 0) -> str:
    """Return ``+17 036`` or ``−4.5``; ``0`` without a sign."""
    text = spaced(value, places)
    nothing = all(c in f"0.{_SPACE}" for c in text)
    return text if nothing or text.startswith("−") else f"+{text}"
