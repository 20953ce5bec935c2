"""What designers hold to where nobody else says a figure: one table, each figure by its name."""

from enum import StrEnum

from ridge_tally.rules import tables

TABLE = "design-practice"


class Practice(StrEnum):
    """The figures of common practice, each a row of the table."""

    PLANES_APART_DEG = "planes in one string apart at most"
    TYPES_APART_PERCENT = "currents of types in one string apart at most"
    HEADROOM_FRAC = "room kept under a voltage limit"
    CAUTIOUS_FRAC_PER_DEGC = "voltage coefficient where a sheet is silent"
    SPARE_OPTIMIZERS = "optimizers of a string that may fail"
    LEFT_BY_SWITCH_V = "left of a module by its switch when shut down"
    THIN_AIR_M = "height above which air cools less"
    NOMINAL_FRAC = "nominal operating power of a module over Pmax"
    KEPT_BY_MICRO_FRAC = "left of a module's power by a microinverter"
    TRUNK_RISE_PERCENT = "voltage rise in a trunk at most"
    INVERTER_FRAC = "efficiency of an inverter where a sheet is silent"
    PAYS_YEARS = "time in which a part pays itself back"
    STILL_WORTH_FRAC = "still worth it: of what an early module gives"
    FAR_FRAC = "far from the best plane: light lost"
    DARKER_FRAC = "darker than its string: light lost"
    HEAVY_FRAC = "a loss worth mending, of a tracker's year"
    LIKE_SIZE_LEAST = "an inverter of like size: at least"
    LIKE_SIZE_MOST = "an inverter of like size: at most"
    YIELD_OFF_FRAC = "a year's yield off its estimate, one in ten"
    PRICE_OFF_FRAC = "a price off its first quote, one in ten"
    RISE_OFF_FRAC = "a rise of energy prices off what is expected, a year, one in ten"
    REPLACED_OFF_FRAC = "a later replacement off today's price, one in ten"


def practice(figure: Practice) -> float:
    """Return a figure of common practice, in the unit of its name."""
    return tables.load(TABLE).number("value", quantity=figure.value)
