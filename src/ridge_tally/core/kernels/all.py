"""Every compiled kernel made ready, so that nobody waits for the compiler."""

from ridge_tally.core.kernels import dome, dome_light, house, hung, inverter, modules, strings


def warm_all() -> None:
    """Compile every kernel once, or load it from the cache."""
    for kernels in (dome, dome_light, strings, modules, inverter, house, hung):
        kernels.warm()
