"""One module on one input of its own: what an optimizer or a microinverter sees of it."""

from dataclasses import dataclass

from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.strings.voltage import string_voltage_v
from ridge_tally.core.working import Check, Given, LimitKind, Source, check
from ridge_tally.rules.design import Design, vmp_coefficient
from ridge_tally.rules.strings.limits import SHEET, rear_gain


@dataclass(frozen=True, slots=True)
class ModuleInput:
    """An input as its sheet has it: ``rule`` begins the ids of its checks, ``name`` their titles."""

    rule: str
    name: str
    v_max: float
    v_min: float
    i_max_a: float | None
    source: Source

    def limit(self, symbol: str, label: str, value: float | None, unit: str) -> Given:
        """Return a limit of its datasheet."""
        return Given(symbol, label, value, unit, self.source.document)


def module_input_checks(design: Design, sheet: ModuleSheet, at: ModuleInput) -> tuple[Check, ...]:
    """Return what a module's cold voltage, its current and its hot voltage come to on an input.

    A coefficient or a temperature nobody gave leaves its check not made.
    """
    beta, gamma = sheet.beta_voc_frac_per_degc, vmp_coefficient(sheet)
    cold, hot = design.coldest, design.hottest_cell
    cold_v = hot_v = None
    if beta is not None and cold.value is not None:
        cold_v = string_voltage_v(1, sheet.voc_v, beta, cold.value)
    if gamma.value is not None and hot.value is not None:
        hot_v = string_voltage_v(1, sheet.vmp_v, gamma.value, hot.value)
    factor, gain = design.rules.bright_cloud_factor, rear_gain(design, sheet)
    return (
        check(
            rule_id=f"{at.rule}.cold-voltage",
            title=f"{at.name}, cold Voc",
            subject=sheet.name,
            kind=LimitKind.STOP,
            formula=f"voc * (1 + beta * ({cold.symbol} - 25))",
            givens=(
                Given("voc", "Voc", sheet.voc_v, "V", SHEET),
                Given("beta", "Voc coefficient", beta, "1/°C", SHEET),
                cold,
            ),
            value=cold_v,
            symbol="v_cold",
            unit="V",
            relation="<=",
            limit=at.limit("v_in_max", "its highest input", at.v_max, "V"),
            source=at.source,
        ),
        check(
            rule_id=f"{at.rule}.short-circuit",
            title=f"{at.name}, short circuit",
            subject=sheet.name,
            kind=LimitKind.STOP,
            formula="f * r * isc",
            givens=(
                Given("f", "bright-cloud factor", factor, "", design.rules.bright_cloud.document),
                Given("r", "gain by rear light", gain, "", "this design"),
                Given("isc", "Isc", sheet.isc_a, "A", SHEET),
            ),
            value=factor * gain * sheet.isc_a,
            symbol="i_sc",
            unit="A",
            relation="<=",
            limit=at.limit("i_in_max", "its largest input current", at.i_max_a, "A"),
            source=at.source,
        ),
        check(
            rule_id=f"{at.rule}.hot-window",
            title=f"{at.name}, hot Vmp",
            subject=sheet.name,
            kind=LimitKind.COSTS,
            formula=f"vmp * (1 + {gamma.symbol} * ({hot.symbol} - 25))",
            givens=(Given("vmp", "Vmp", sheet.vmp_v, "V", SHEET), gamma, hot),
            value=hot_v,
            symbol="v_hot",
            unit="V",
            relation=">=",
            limit=at.limit("v_in_min", "its lowest input", at.v_min, "V"),
            source=at.source,
        ),
    )


def module_watts(
    rule_id: str, title: str, sheet: ModuleSheet, kind: LimitKind, limit: Given, source: Source
) -> Check:
    """Return a module's rating against the most, or the least, that an input is meant for."""
    return check(
        rule_id=rule_id,
        title=title,
        subject=sheet.name,
        kind=kind,
        formula="p_max",
        givens=(Given("p_max", "Pmax", sheet.p_max_w, "W", SHEET),),
        value=sheet.p_max_w,
        symbol="p_max",
        unit="W",
        relation=">=" if limit.symbol == "p_least" else "<=",
        limit=limit,
        source=source,
    )
