"""Numbers as they stand in sentences: thousands grouped by spaces that do not break, a true minus."""

_SPACE = "\u00a0"


def spaced(value: float, places: int = 0) -> str:
    """Return ``17 036`` or ``−4.5``; next to nothing is nothing, on neither side of it."""
    text = f"{abs(value):,.{places}f}".replace(",", _SPACE)
    return f"−{text}" if value < 0 and any(c in "123456789" for c in text) else text


def loss_share(frac: float) -> str:
    """Return a share lost in per cent to three digits, ``1.93 %``; ``0 %`` where it rounds to none."""
    percent = abs(frac) * 100
    places = 1 if percent >= 9.995 else 2 if percent >= 0.9995 else 3
    text = spaced(percent, places)
    return f"{text if any(c in '123456789' for c in text) else '0'} %"


def signed(value: float, places: int = 0) -> str:
    """Return ``+17 036`` or ``−4.5``; ``0`` without a sign."""
    text = spaced(value, places)
    nothing = all(c in f"0.{_SPACE}" for c in text)
    return text if nothing or text.startswith("−") else f"+{text}"
