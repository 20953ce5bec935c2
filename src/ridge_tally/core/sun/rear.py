"""Light on the back of modules in rows, from the ground and past their edges."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pvlib.bifacial import infinite_sheds

from ridge_tally.core.sky.sun import SunPath
from ridge_tally.core.sky.weather_year import WeatherYear

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class RearView:
    """What the back of a row sees: its own size, the next row, and the ground below.

    ``middle_m`` is the height of the glass's middle over the ground, ``pitch_m`` from one row
    to the next.
    """

    tilt_deg: float
    azimuth_deg: float
    slant_m: float
    pitch_m: float
    middle_m: float


def rear_w_per_m2(
    weather: WeatherYear, sun: SunPath, view: RearView, reflected_frac: FloatArray | float
) -> FloatArray:
    """Return (n,): irradiance on the back of long rows, hour by hour.

    Notes
    -----
    View-factor model of Marion et al. 2017 and Mikofski et al. 2019 in the reference library,
    isotropic sky; no shade of posts and rails, and light from the ground alike along its row, so
    that the height hardly counts.  The back's own sensitivity is not in it.
    """
    back_tilt, back_azimuth = 180.0 - view.tilt_deg, (view.azimuth_deg + 180.0) % 360
    with np.errstate(all="ignore"):
        found = infinite_sheds.get_irradiance_poa(
            back_tilt,
            back_azimuth,
            np.minimum(sun.zenith_deg, 89.9),
            sun.azimuth_deg,
            view.slant_m / view.pitch_m,
            view.middle_m,
            view.pitch_m,
            weather.ghi_w_per_m2,
            weather.dhi_w_per_m2,
            weather.dni_w_per_m2,
            reflected_frac,
        )
    light = np.nan_to_num(np.asarray(found["poa_global"], dtype=np.float64))
    return np.asarray(np.maximum(light, 0.0))
