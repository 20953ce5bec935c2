"""Numbers in sentences: no minus before nothing, losses to three digits, halves as a browser has them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.number_format import loss_share, signed, spaced


@pytest.mark.parametrize(
    ("frac", "told"),
    [
        (0.0, "0 %"), (-0.0, "0 %"), (0.000_004, "0 %"), (0.000_006, "0.001 %"), (0.000_123, "0.012 %"),
        (0.009_99, "0.999 %"), (0.009_996, "1.00 %"), (0.019_28, "1.93 %"), (0.099_94, "9.99 %"),
        (0.099_96, "10.0 %"), (0.1214, "12.1 %"),
    ],
)  # fmt: skip
def test_a_loss_has_three_digits_where_they_decide(frac: float, told: str) -> None:
    assert loss_share(frac) == told


@given(st.floats(-1e6, 1e6), st.integers(0, 3))
def test_nothing_has_no_sign(value: float, places: int) -> None:
    for text in (spaced(value, places), signed(value, places)):
        if not any(c in "123456789" for c in text):
            assert text[0] == "0"
        else:
            assert ("−" in text) is (value < 0)


@pytest.mark.parametrize(
    ("value", "places", "said"),
    [
        # By hand: 10.53 / 6 = 1.755 and 17.01 / 6 = 2.835; in binary both lie just below.
        (10.53 / 6, 2, "1.76"), (17.01 / 6, 2, "2.84"), (0.5, 0, "1"), (2.5, 0, "3"),
        (17_035.5, 0, "17\u00a0036"), (-4.45, 1, "−4.5"), (float("inf"), 1, "inf"),
    ],
)  # fmt: skip
def test_halves_go_up_on_either_side_of_nothing(value: float, places: int, said: str) -> None:
    assert spaced(value, places) == said


def test_any_number_has_a_text() -> None:
    assert spaced(1e300).startswith("1\u00a0000")
