"""How the pictures would come out under a weather that the plan does not count on."""

from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema

from bridle.core.plan.document import Plan
from bridle.core.reckon.series import Series, series
from bridle.core.subjects.numbers.thinning import SOME
from bridle.server.errors import ChangeRefusedError, Trouble
from bridle.server.turns import turn
from bridle.standins.weather import WeatherName, outcome

router = Router(tags=["weather"])


class AskWeather(Schema):
    """A plan, and the weather it is to be seen under."""

    plan: Plan
    weather: WeatherName


class WeatherTold(Schema):
    """By how many stops each picture comes out brighter than right, and what a meter reads, along the frames."""

    weather: WeatherName
    bright: Series
    metered_ev: Series


@router.post("/weather", response={200: WeatherTold, 422: Trouble}, operation_id="look_at_weather")
def look_at_weather(request: HttpRequest, ask: AskWeather) -> Any:
    """The pictures of a plan under a weather. Nothing is kept."""
    with turn(ask.plan):
        found = outcome(ask.plan, ask.weather)
    if found is None:
        raise ChangeRefusedError("weather", ValueError("the light of this shoot is not known"))
    bright, metered = series(found.bright, SOME), series(found.metered_ev, SOME, 1)
    return WeatherTold(weather=ask.weather, bright=bright, metered_ev=metered)
