"""When a lens dews over."""

import math

from bridle.core.figure import Formula

# Magnus, with the constants of Sonntag (1990), over water: -45 °C to 60 °C.
A, B = 17.62, 243.12
DEW = Formula(
    "243.12 * (ln(humidity) + 17.62 * air / (243.12 + air)) / (17.62 - (ln(humidity) + 17.62 * air / (243.12 + air)))",
    "the temperature at which this air gives off its water, by Magnus",
)
# A lens under the open sky gets some degrees colder than the air.
NEAR_K = 3.0


def dew_point_c(air_c: float, humidity: float) -> float:
    """The dew point of air at a temperature (°C) and relative humidity (a share), in °C."""
    gamma = math.log(humidity) + A * air_c / (B + air_c)
    return B * gamma / (A - gamma)
