"""A year of light put together from the days on which a glass was held one way or another."""

from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

from ridge_tally.core.sky.plane_irradiance import GlassPassing, LightParts
from ridge_tally.core.sun.shading import Hours, ModuleLight, sum_of

FloatArray = NDArray[np.float64]


def parts_while(parts: LightParts, held: NDArray[np.bool_]) -> LightParts:
    """Return the light of the steps at which a glass is held so, none at the others."""
    return _by_part(lambda of: of(parts) * held)


def spliced_parts(parts: Sequence[LightParts], which: NDArray[np.int64]) -> LightParts:
    """Return the light of a glass held the way ``which`` (n,) numbers at each step."""
    return _by_part(lambda of: np.choose(which, [of(p) for p in parts]))


def spliced_passing(passing: Sequence[GlassPassing], which: NDArray[np.int64]) -> GlassPassing:
    """Return what a glass lets through, held the way ``which`` (n,) numbers at each step."""
    return GlassPassing(
        np.choose(which, [p.beam_frac for p in passing]),
        np.choose(which, [p.sky_frac for p in passing]),
        np.choose(which, [p.ground_frac for p in passing]),
    )


def spliced_light(
    lights: Sequence[ModuleLight], which: NDArray[np.int64], hours: Hours
) -> ModuleLight:
    """Return a module's light of a year, from its light while it is held each way.

    Parameters
    ----------
    lights : sequence of ModuleLight
        One way each, its sums those of its own steps alone.
    which : (n,) int
    """
    up = which[hours.up]
    return ModuleLight(
        reach=np.choose(up, [x.reach for x in lights]),
        reach_least=np.choose(up, [x.reach_least for x in lights]),
        sky_open_frac=np.concatenate([x.sky_open_frac for x in lights], axis=1),
        sky_number=which * 12 + hours.month,
        lost=sum_of(x.lost for x in lights),
        alone=sum_of(x.alone for x in lights),
        only=sum_of(x.only for x in lights),
    )


def _by_part(made: Callable[[Callable[[LightParts], FloatArray]], FloatArray]) -> LightParts:
    return LightParts(
        beam_w_per_m2=made(lambda p: p.beam_w_per_m2),
        circumsolar_w_per_m2=made(lambda p: p.circumsolar_w_per_m2),
        isotropic_w_per_m2=made(lambda p: p.isotropic_w_per_m2),
        horizon_w_per_m2=made(lambda p: p.horizon_w_per_m2),
        ground_w_per_m2=made(lambda p: p.ground_w_per_m2),
    )
