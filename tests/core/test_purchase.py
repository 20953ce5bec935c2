"""Prices, incentives, loans and years by hand, and against a finance library."""

from dataclasses import replace
from datetime import date

import numpy_financial as npf
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridge_tally.core.errors import BadGeometry
from ridge_tally.core.job.money import (
    BaseKind,
    Expected,
    Incentive,
    IncentiveId,
    IncentiveKind,
    Less,
    LineKind,
    Loan,
    Money,
    Over,
    Owner,
    Payer,
    PriceRule,
)
from ridge_tally.core.money.cents import half_up
from ridge_tally.core.money.cost import Costed, priced
from ridge_tally.core.money.incentives import Bought, Granted, granted, require_sound_order
from ridge_tally.core.money.years import Paid, borrowed, payback, rate_of_return

HOUSE, EXPECTED = Payer(), Expected()
REBATE, CREDIT = IncentiveId("rebate"), IncentiveId("credit")


@pytest.mark.parametrize(
    ("cents", "whole"), [(0.5, 1), (1.4999, 1), (-0.5, -1), (2.5, 3), (-2.4, -2)]
)
def test_halves_go_up(cents: float, whole: int) -> None:
    assert half_up(cents) == whole


@pytest.mark.parametrize(("rule", "price"), [(PriceRule.MARKUP, 12500), (PriceRule.MARGIN, 13333)])
def test_markup_and_margin_differ(rule: PriceRule, price: int) -> None:
    # A quarter on 100 is 125; a quarter of the price is 133.33.
    found = priced(
        Money(rule=rule, rule_frac=0.25), (Costed("x", LineKind.OTHER, 1, "pcs", 10000, ""),)
    )
    assert found.price_cents == price


@given(
    st.lists(st.tuples(st.floats(0, 500), st.floats(0, 99999)), max_size=12),
    st.floats(0, 0.8),
    st.floats(0, 0.3),
)
def test_lines_come_to_their_sum(rows: list[tuple[float, float]], x: float, tax: float) -> None:
    lines = tuple(Costed(str(n), LineKind.OTHER, c, "pcs", e, "") for n, (c, e) in enumerate(rows))
    found = priced(Money(rule_frac=x, sales_tax_frac=tax), lines)
    assert found.gross_cents == found.price_cents + found.tax_cents
    assert found.gross_cents == sum((x.price_cents or 0) + x.tax_cents for x in found.lines)


def test_what_has_no_price_is_named_and_not_nothing() -> None:
    wire = Costed("wire", LineKind.WIRING, 3, "m", None, "")
    found = priced(Money(), (wire, Costed("x", LineKind.OTHER, 1, "pcs", 100, "")))
    assert (found.unknown, found.gross_cents) == (("wire",), 100)


@pytest.mark.parametrize(
    ("base", "cap", "rebate", "credit", "net"),
    [
        # A tenth and a quarter of 9 200 in their four ways: the founders' page on money, section 3.
        (BaseKind.AFTER_PREVIOUS, None, 920, 2070, 6210),
        (BaseKind.AFTER_PREVIOUS, 700, 700, 2125, 6375),
        (BaseKind.GROSS, None, 920, 2300, 5980),
        (BaseKind.GROSS, 700, 700, 2300, 6200),
    ],
)
def test_order_and_base_change_the_answer(
    base: BaseKind, cap: int | None, rebate: int, credit: int, net: int
) -> None:
    first = Incentive(
        REBATE, "rebate", IncentiveKind.SHARE, 0.10, base=BaseKind.GROSS,
        cap_cents=None if cap is None else cap * 100,
    )  # fmt: skip
    second = Incentive(CREDIT, "credit", IncentiveKind.CREDIT, 0.25, base=base)
    found = granted((first, second), bought(9200), HOUSE, EXPECTED)
    assert [g.cents // 100 for g in found] == [rebate, credit]
    assert 9200 - sum(g.cents for g in found) // 100 == net
    # The same, the base less the other one by name.
    named = replace(second, base=BaseKind.GROSS, less=(Less(REBATE),))
    if base is BaseKind.AFTER_PREVIOUS:
        assert granted((first, named), bought(9200), HOUSE, EXPECTED)[1].cents // 100 == credit


def bought(gross: int, dc_kw: float = 6.0, ac_kw: float = 5.0) -> Bought:
    return Bought(gross * 100, gross * 100, gross * 100, dc_kw, ac_kw)


@pytest.mark.parametrize(
    ("dc_kw", "over", "kw"),
    [
        (7.98, Over.REJECT, 7.98),
        (7.98, Over.CAP, 7.98),
        (8.10, Over.CAP, 7.98),
        (8.10, Over.REJECT, 0.0),
        (6.00, Over.REJECT, 6.0),
    ],
)
def test_a_kw_rebate_at_its_loading_rule(dc_kw: float, over: Over, kw: float) -> None:
    # 6 kW of inverters at 133 %: 7.98 kW is paid whole.
    one = Incentive(
        REBATE, "r", IncentiveKind.PER_KW, cents=50000, base=BaseKind.GROSS,
        most_dc_ac_ratio=1.33, over=over,
    )  # fmt: skip
    (found,) = granted((one,), bought(20000, dc_kw, 6.0), HOUSE, EXPECTED)
    assert found.cents == half_up(kw * 50000)
    assert bool(found.refused) == (kw == 0)


def only(one: Incentive, payer: Payer = HOUSE, expected: Expected = EXPECTED) -> Granted:
    (found,) = granted((one,), bought(10000), payer, expected)
    return found


@pytest.mark.parametrize(
    ("day", "refused"),
    [(date(2026, 12, 31), ""), (date(2027, 1, 1), "ended"), (None, "no day")],
)
def test_the_last_day_holds(day: date | None, refused: str) -> None:
    one = Incentive(CREDIT, "c", IncentiveKind.CREDIT, 0.3, ends=date(2026, 12, 31))
    found = only(one, expected=Expected(in_service=day))
    assert refused in found.refused
    assert bool(found.cents) == (refused == "")


def test_allowances_are_for_companies_that_pay_tax() -> None:
    one = Incentive(CREDIT, "a", IncentiveKind.ALLOWANCE, 0.8, base=BaseKind.GROSS)
    assert "household" in only(one).refused
    # Four fifths of 10 000 written off at a quarter of tax: 2 000.
    company = Payer(Owner.COMPANY, tax_frac=0.25)
    assert only(one, company).cents == 200000
    assert "tax rate" in only(one, Payer(Owner.COMPANY)).refused


@pytest.mark.parametrize(
    ("owed", "arrives"),
    [
        (120000, ((1, 120000), (2, 120000), (3, 60000))),
        (300000, ((1, 300000),)),
        (None, ((1, 300000),)),
        (0, ()),
    ],
)
def test_a_credit_is_carried_as_far_as_tax_goes(
    owed: int | None, arrives: tuple[tuple[int, int], ...]
) -> None:
    one = Incentive(CREDIT, "c", IncentiveKind.CREDIT, 0.3, base=BaseKind.GROSS, refundable=False)
    assert only(one, Payer(tax_cents_per_year=owed)).by_year == arrives


def test_a_base_on_itself_or_on_what_comes_later_is_refused() -> None:
    one = Incentive(CREDIT, "c", IncentiveKind.CREDIT, 0.3, less=(Less(CREDIT),))
    later = replace(one, less=(Less(REBATE),))
    rebate = Incentive(REBATE, "r", IncentiveKind.SHARE, 0.1)
    for wrong, words in (((one,), "itself"), ((later, rebate), "after it")):
        with pytest.raises(BadGeometry, match=words):
            require_sound_order(wrong)
    require_sound_order((rebate, later))


@pytest.mark.parametrize(("rate", "years"), [(0.0, 10), (0.0499, 12), (0.08, 25), (0.005, 1)])
def test_loans_as_the_library_has_them(rate: float, years: int) -> None:
    loan = borrowed(Loan(1.0, rate, years), 2_000_000)
    # Source: numpy-financial 1.0, pmt.
    exact = -npf.pmt(rate / 12, years * 12, 2_000_000) if rate else 2_000_000 / (years * 12)
    assert loan.monthly_cents == half_up(float(exact))
    assert sum(loan.by_year_cents) == pytest.approx(exact * years * 12, abs=years * 12)
    assert loan.interest_cents == sum(loan.by_year_cents) - 2_000_000


def test_a_loans_fee_is_owed_too() -> None:
    loan = borrowed(Loan(0.5, 0.0, 10, fee_frac=0.2), 2_000_000)
    assert (loan.taken_cents, loan.owed_cents, loan.interest_cents) == (
        1_000_000,
        1_200_000,
        200_000,
    )
    assert sum(loan.by_year_cents) == 1_200_000


@given(st.integers(100, 5_000_000), st.lists(st.integers(1, 400_000), min_size=2, max_size=30))
def test_rates_of_return_as_the_library_has_them(price: int, flows: list[int]) -> None:
    whole = [-price, *flows]
    found = rate_of_return(whole)
    if sum(whole) < 0:
        assert found is None
        return
    # Source: numpy-financial 1.0, irr and npv.
    exact = float(npf.irr(whole))
    if exact < 9:
        assert found == pytest.approx(exact, abs=1e-6)
        assert npf.npv(found, whole) == pytest.approx(0.0, abs=price * 1e-6 + 1)


def test_flows_that_turn_twice_have_no_rate_to_tell() -> None:
    assert rate_of_return([-100, 80, -30, 90]) is None
    assert rate_of_return([-100, 30, 30]) is None


@pytest.mark.parametrize(
    ("flows", "paid"),
    [
        # 10 000 at 3 000 a year: three years and a third.
        ([-10000, 3000, 3000, 3000, 3000], Paid(10 / 3, 10 / 3)),
        # A replacement in year 4 puts it under water again.
        ([-9000, 3000, 3000, 3000, -2000, 3000], Paid(3.0, 4 + 2 / 3)),
        ([-10000, 3000, 3000], Paid(None, None)),
        ([-9000, 3000, 3000, 3000, -2000], Paid(3.0, None)),
        ([0, 100], Paid(0.0, 0.0)),
    ],
)
def test_payback_first_lasting_and_never(flows: list[float], paid: Paid) -> None:
    found = payback(flows)
    for mine, hand in ((found.first, paid.first), (found.lasting, paid.lasting)):
        assert mine == (None if hand is None else pytest.approx(hand))


def test_prices_rise_as_the_page_on_money_has_it() -> None:
    # 320 a month that fall to a fixed 38, both at 4 % a year: 3 384 in year 1, 4 816.49 in year 10,
    # 100 769 over twenty.  Source: the founders' page on money, section 4, checked by hand.
    spared = [(320 - 38) * 12 * 1.04**n for n in range(20)]
    assert (spared[0], round(spared[9], 2), round(sum(spared))) == (3384, 4816.49, 100769)
