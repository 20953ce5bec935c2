"""What must hold of prices, incentives, loan and expectations before money is worked out from them."""

from collections.abc import Iterable

from ridge_tally.core.errors import OutOfRange
from ridge_tally.core.job.money import Incentive, Money, Offer, PriceRule
from ridge_tally.core.money.incentives import require_sound_order
from ridge_tally.rules.distinct import require_distinct
from ridge_tally.rules.ranges import Range, require_named, require_ranges

MOST_CENTS, MOST_LINES = 100_000_000_00, 200


def require_sound_money(money: Money) -> None:
    """Raise on the first figure of money that cannot be.

    Raises
    ------
    OutOfRange
        Naming the field, the value and what to do.
    """
    rows = (money.prices, money.lines, money.incentives)
    for name, many in zip(("Prices", "Lines of one's own", "Incentives"), rows, strict=True):
        if len(many) > MOST_LINES:
            raise OutOfRange(name, len(many), f"at most {MOST_LINES}")
    require_distinct("lines", [x.id for x in money.lines])
    require_distinct("incentives", [i.id for i in money.incentives])
    require_ranges(_ranges(money))
    for incentive in money.incentives:
        require_ranges(_incentive_ranges(incentive))
        require_named(incentive.name, "an incentive")
    require_sound_order(money.incentives)
    require_distinct("offers", [o.id for o in money.offers])
    for offer in money.offers:
        require_ranges(_offer_ranges(offer))


def _ranges(money: Money) -> Iterable[Range]:
    # A margin of all of the price would be a price without end.
    most = 0.9 if money.rule is PriceRule.MARGIN else 5.0
    yield ("Markup or margin, as a fraction", money.rule_frac, 0.0, most)
    yield ("Sales tax, as a fraction", money.sales_tax_frac, 0.0, 1.0)
    for price in money.prices:
        yield (f"Price of {price.name}, cents", price.cents, 0.0, MOST_CENTS)
    for line in money.lines:
        yield (f"Count of {line.name}", line.count, 0.0, 100_000.0)
        yield (f"Price of {line.name}, cents", line.cents, 0.0, MOST_CENTS)
    for fuel in money.fuel_prices:
        yield ("Price of the fuel, cents", fuel.cents, 0.0, MOST_CENTS)
    work, payer, loan, expected = money.work, money.payer, money.loan, money.expected
    yield ("An hour of work, cents", work.cents_per_h, 0.0, 1_000_000.0)
    yield ("Electrical hours a kW", work.electrical_h_per_kw, 0.0, 100.0)
    yield ("Hours each job takes besides", work.each_job_h, 0.0, 1000.0)
    yield ("Tax rate, as a fraction", payer.tax_frac, 0.0, 1.0)
    yield ("Tax owed in a year, cents", payer.tax_cents_per_year, 0, MOST_CENTS)
    if loan is not None:
        yield ("Share on loan, as a fraction", loan.share_frac, 0.0, 1.0)
        yield ("Interest of the loan, as a fraction", loan.rate_frac, 0.0, 1.0)
        yield ("Years of the loan", loan.years, 1, 40)
        yield ("Fee of the loan, as a fraction", loan.fee_frac, 0.0, 1.0)
    yield ("Years of the table", expected.years, 1, 40)
    yield ("Discount rate, as a fraction", expected.discount_frac, 0.0, 0.5)
    for name, rise in (
        ("Energy prices rise", expected.energy_rise_frac),
        ("Fixed charges rise", expected.fixed_rise_frac),
        ("Export prices rise", expected.export_rise_frac),
        ("Upkeep rises", expected.upkeep_rise_frac),
        ("Prices of arrays change", expected.price_change_frac),
    ):
        yield (f"{name}, as a fraction a year", rise, -0.2, 0.3)
    yield ("Modules lose a year, as a fraction", expected.ageing_frac, 0.0, 0.1)
    yield ("Upkeep a year, cents", expected.upkeep_cents, 0, MOST_CENTS)
    yield ("Inverter replaced in year", expected.inverter_year, 1, 100)
    yield ("The rest is built in year", expected.stage_year, 1, 40)
    yield ("Changing a table’s tilt, each time, cents", expected.tilt_change_cents, 0, MOST_CENTS)
    yield ("Replacing the inverter, cents", expected.inverter_cents, 0, MOST_CENTS)


def _offer_ranges(offer: Offer) -> tuple[Range, ...]:
    return (
        (f"kW, offer of {offer.name}", offer.p_dc_kw, 0.05, 1000.0),
        (f"Price, offer of {offer.name}, cents", offer.price_cents, 0, MOST_CENTS),
        (f"Modules, offer of {offer.name}", offer.modules, 1, 5000),
        (f"kWh claimed, offer of {offer.name}", offer.claimed_kwh, 1.0, 5_000_000.0),
        (f"Years of warranty, offer of {offer.name}", offer.warranty_years, 1, 50),
        (f"Free modules, offer of {offer.name}", offer.free_modules, 0, 5000),
    )


def _incentive_ranges(one: Incentive) -> tuple[Range, ...]:
    return (
        (f"Share, {one.name}, as a fraction", one.rate_frac, 0.0, 1.0),
        (f"Amount, {one.name}, cents", one.cents, 0.0, MOST_CENTS),
        (f"Cap, {one.name}, cents", one.cap_cents, 0, MOST_CENTS),
        (f"Up to kW, {one.name}", one.most_kw, 0.1, 1000.0),
        (f"DC over AC, {one.name}", one.most_dc_ac_ratio, 0.5, 5.0),
        (f"Pays in year, {one.name}", one.pays_in_year, 0, 40),
        *((f"Base of {one.name}, as a fraction", less.frac, 0.0, 1.0) for less in one.less),
    )
