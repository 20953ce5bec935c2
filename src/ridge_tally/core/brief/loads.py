"""Loads to come, month by month."""

from dataclasses import dataclass

from ridge_tally.core.job.brief import CarLoad, Fuel, HeatPumpLoad, Load, OtherLoad
from ridge_tally.core.nominal_year import DAYS_IN_MONTH

HEATING_BASE_DEGC = 18.0


@dataclass(frozen=True, slots=True)
class LoadYear:
    """What a load adds to each month (negative: takes off), and the fuel it displaces."""

    monthly_kwh: tuple[float, ...]
    displaced_fuel: float
    displaced_unit: str

    @property
    def energy_kwh(self) -> float:
        """The whole year."""
        return sum(self.monthly_kwh)


def heating_shares(mean_degc: tuple[float, ...]) -> tuple[float, ...]:
    """Return each month's share of the year's heating degree days.

    Parameters
    ----------
    mean_degc : (12,) tuple of float
        Monthly mean air temperatures.

    Notes
    -----
    share = days * max(0, 18 - mean) / sum; monthly means leave out the cold days of mild
    months.  A place that never needs heat is spread by days.  Base 18 °C: common practice.
    """
    degree_days = [
        days * max(0.0, HEATING_BASE_DEGC - mean)
        for days, mean in zip(DAYS_IN_MONTH, mean_degc, strict=True)
    ]
    whole = sum(degree_days)
    if whole == 0:
        return tuple(days / 365 for days in DAYS_IN_MONTH)
    return tuple(d / whole for d in degree_days)


def load_year(
    load: Load, heating: tuple[float, ...], kwh_per_fuel_unit: float, fuel_unit: str
) -> LoadYear:
    """Return what a load adds to the year.

    Parameters
    ----------
    load : Load
        Any kind.
    heating : (12,) tuple of float
        Shares of the year's heat, for a heat pump.
    kwh_per_fuel_unit, fuel_unit
        Of a heat pump's fuel; not used by the others.

    Notes
    -----
    car: km * kWh/km / (1 - charging loss) * share charged at home, by days.
    heat pump: fuel * kWh per unit * burner efficiency / seasonal COP, by heating degree
    days; resistance heat that it replaces is taken off, since the bills hold it.
    """
    match load:
        case CarLoad():
            drawn = load.distance_km_per_year * load.use_kwh_per_km / (1 - load.charging_loss_frac)
            litres = load.distance_km_per_year / 100 * load.displaced_l_per_100km
            return LoadYear(_spread(drawn * load.charged_at_home_frac), litres, "l of fuel")
        case HeatPumpLoad():
            bought = load.fuel_per_year * kwh_per_fuel_unit
            drawn = bought * load.burner_efficiency_frac / load.seasonal_cop
            if load.fuel is Fuel.ELECTRIC_KWH:
                drawn -= bought
            return LoadYear(tuple(drawn * s for s in heating), load.fuel_per_year, fuel_unit)
        case OtherLoad():
            return LoadYear(_spread(load.energy_kwh_per_year, _months_of(load)), 0.0, "")


def _months_of(load: OtherLoad) -> frozenset[int]:
    """Return the months counted from 0; October to March runs over the new year."""
    first, last = load.first_month - 1, load.last_month - 1
    length = (last - first) % 12 + 1
    return frozenset((first + i) % 12 for i in range(length))


def _spread(energy_kwh: float, months: frozenset[int] = frozenset(range(12))) -> tuple[float, ...]:
    days = [d if m in months else 0 for m, d in enumerate(DAYS_IN_MONTH)]
    return tuple(energy_kwh * d / sum(days) for d in days)
