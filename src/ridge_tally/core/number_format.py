"""Numbers as they stand in sentences: thousands grouped by spaces that do not break, a true minus."""

import math
from decimal import ROUND_HALF_UP, Context, Decimal

_SPACE = "\u00a0"
# As many digits as any number has.
_BROWSERS = Context(prec=400, rounding=ROUND_HALF_UP)


def spaced(value: float, places: int = 0) -> str:
    """Return ``17 036`` or ``−4.5``; next to nothing is nothing, on neither side of it.

    Halves go up as a browser rounds them, so that paper and screen show one figure: 10.53 over 6
    is 1.755, hence ``1.76`` on both.
    """
    size: float | Decimal = abs(float(value))
    if math.isfinite(size):
        size = Decimal(repr(size)).quantize(Decimal(1).scaleb(-places), context=_BROWSERS)
    text = f"{size:,.{places}f}".replace(",", _SPACE)
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
