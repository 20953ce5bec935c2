"""The figures of Money as they are typed: what stands in each field, and whether a person set it."""

from dataclasses import dataclass
from datetime import date

from ridge_tally.core.brief.rate_periods import write_days, write_hours, write_months
from ridge_tally.core.brief.tariff import write_tiers
from ridge_tally.core.job.document import Job
from ridge_tally.core.job.edits.brief.grid import TypedPeriod
from ridge_tally.core.job.edits.money.prices import MoneyField
from ridge_tally.core.job.grid import GridRules, Metering, TariffPeriod
from ridge_tally.core.job.money import Expected, Money, PriceRule, Work
from ridge_tally.editing.money.prices import NAMES


@dataclass(frozen=True, slots=True)
class MoneyFieldView:
    """A field: what stands in it as typed; ``usual`` while nobody typed another figure."""

    field: MoneyField
    name: str
    text: str
    usual: bool


@dataclass(frozen=True, slots=True)
class TariffView:
    """The tariff as it is typed; prices by the hour in ``periods``, none where tiers hold."""

    operator: str
    source: str
    dated: date
    sample: bool
    currency: str
    metering: Metering
    trueup: str
    export: str
    per: TariffPeriod
    fixed: str
    minimum: str
    tax: str
    demand: str
    tiers: str
    periods: tuple[TypedPeriod, ...]
    holidays: str


def tariff_view(grid: GridRules) -> TariffView:
    """Return a tariff as it is typed."""
    tariff = grid.tariff
    return TariffView(
        operator=grid.operator,
        source=grid.source,
        dated=grid.dated,
        sample=grid.sample,
        currency=grid.currency,
        metering=grid.metering,
        trueup="" if grid.trueup_month is None else write_months((grid.trueup_month,)),
        export=f"{grid.export_cents_per_kwh:g}",
        per=tariff.per,
        fixed=_amount(tariff.fixed_cents),
        minimum=_amount(tariff.minimum_cents),
        tax=_percent(tariff.tax_frac),
        demand=_amount(tariff.demand_cents_per_kw),
        tiers=write_tiers(tariff.tiers),
        periods=tuple(
            TypedPeriod(
                p.name,
                write_months(p.months),
                p.days,
                write_hours(p),
                f"{p.buy_cents_per_kwh:g}",
                "" if p.sell_cents_per_kwh is None else f"{p.sell_cents_per_kwh:g}",
            )
            for p in tariff.periods
        ),
        holidays=write_days(tariff.holidays),
    )


def money_fields(job: Job) -> tuple[MoneyFieldView, ...]:
    """Return every field of Money, in the order of the screen."""
    now, usual = _texts(job.money), _texts(Money())
    return tuple(MoneyFieldView(f, NAMES[f], now[f], now[f] == usual[f]) for f in MoneyField)


def _amount(cents: float | None) -> str:
    return "" if cents is None else f"{cents / 100:.2f}"


def _percent(frac: float) -> str:
    return f"{frac * 100:g} %"


def _day(day: date | None) -> str:
    return "" if day is None else day.isoformat()


def _texts(money: Money) -> dict[MoneyField, str]:
    expected, work, payer, loan = money.expected, money.work, money.payer, money.loan
    f = MoneyField
    return {
        f.RULE: PriceRule(money.rule).value,
        f.RULE_FRAC: _percent(money.rule_frac),
        f.SALES_TAX: _percent(money.sales_tax_frac),
        **_work(work),
        f.OWNER: payer.owner.value,
        f.TAX: _percent(payer.tax_frac),
        f.TAX_OWED: _amount(payer.tax_cents_per_year),
        **_years(expected),
        f.LOAN_SHARE: "" if loan is None else _percent(loan.share_frac),
        f.LOAN_RATE: "" if loan is None else _percent(loan.rate_frac),
        f.LOAN_YEARS: "" if loan is None else str(loan.years),
        f.LOAN_FEE: "" if loan is None else _percent(loan.fee_frac),
    }


def _work(work: Work) -> dict[MoneyField, str]:
    return {
        MoneyField.HOUR: _amount(work.cents_per_h),
        MoneyField.ELECTRICAL: f"{work.electrical_h_per_kw:g}",
        MoneyField.EACH_JOB: f"{work.each_job_h:g}",
    }


def _years(expected: Expected) -> dict[MoneyField, str]:
    f = MoneyField
    return {
        f.YEARS: str(expected.years),
        f.DISCOUNT: _percent(expected.discount_frac),
        f.ENERGY_RISE: _percent(expected.energy_rise_frac),
        f.FIXED_RISE: _percent(expected.fixed_rise_frac),
        f.EXPORT_RISE: _percent(expected.export_rise_frac),
        f.AGEING: "" if expected.ageing_frac is None else _percent(expected.ageing_frac),
        f.UPKEEP: _amount(expected.upkeep_cents),
        f.UPKEEP_RISE: _percent(expected.upkeep_rise_frac),
        f.INVERTER_YEAR: str(expected.inverter_year),
        f.INVERTER_PRICE: _amount(expected.inverter_cents),
        f.CONTRACT: _day(expected.contract),
        f.IN_SERVICE: _day(expected.in_service),
        f.PRICE_CHANGE: _percent(expected.price_change_frac),
        f.STAGE_YEAR: str(expected.stage_year),
        f.TILT_CHANGE: _amount(expected.tilt_change_cents),
    }
