"""Places: read as people write them, with the clock that goes there; and those where one has stood before."""

from datetime import date
from functools import cache
from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.params.functions import Query
from pydantic import Field

from bridle.core.coordinates import read_place
from bridle.core.lists import sky_day
from bridle.core.lists.sky_day import SkyDay
from bridle.core.quantity import QuantityError
from bridle.core.values import ZONES, Zone
from bridle.server.errors import ChangeRefusedError, Trouble
from bridle.server.shoots.models import Shoot

router = Router(tags=["places"])
MOST_REMEMBERED = 30


class AskPlace(Schema):
    """A place as somebody has typed it."""

    text: Annotated[str, Field(max_length=400)]


class PlaceFound(Schema):
    """A place on earth in degrees, north and east positive; what it is called, and the zone of the clock there."""

    latitude_deg: float
    longitude_deg: float
    name: str = ""
    zone: str = ""


@router.post("/places/read", response={200: PlaceFound, 422: Trouble}, operation_id="read_place")
def read_typed(request: HttpRequest, ask: AskPlace) -> Any:
    """What was typed, as degrees; with the zone of that place where one is known."""
    try:
        latitude, longitude = read_place(ask.text)
    except QuantityError as error:
        raise ChangeRefusedError("text", error) from error
    return PlaceFound(latitude_deg=latitude, longitude_deg=longitude, zone=zone_at(latitude, longitude))


@router.get("/places", response=list[PlaceFound], operation_id="list_places")
def list_places(request: HttpRequest) -> Any:
    """Where the shoots stand, the last one first, each place once."""
    found: dict[tuple[float, float], PlaceFound] = {}
    kept = Shoot.objects.filter(binned_at__isnull=True).order_by("-changed_at").values_list("plan", flat=True)
    for plan in kept[: MOST_REMEMBERED * 4]:
        shoot = plan.get("shoot") if isinstance(plan, dict) else None
        place = shoot.get("place") if isinstance(shoot, dict) else None
        if not isinstance(place, dict):
            continue
        latitude, longitude = place.get("latitude_deg"), place.get("longitude_deg")
        if not isinstance(latitude, int | float) or not isinstance(longitude, int | float):
            continue
        key = (round(latitude, 4), round(longitude, 4))
        one = PlaceFound(
            latitude_deg=latitude,
            longitude_deg=longitude,
            name=str(place.get("name", "")),
            zone=str(place.get("zone", "")),
        )
        found.setdefault(key, one)
    return list(found.values())[:MOST_REMEMBERED]


@router.get("/sky", response=SkyDay, operation_id="sky_of_a_day")
def sky_of_a_day(
    request: HttpRequest,
    latitude: float = Query(..., ge=-90, le=90),
    longitude: float = Query(..., ge=-180, le=180),
    zone: Zone = Query("UTC"),
    day: date = Query(...),
) -> Any:
    """From noon of a day to noon of the next, what happens in the sky over a place."""
    if not 1990 <= day.year <= 2150:
        raise ChangeRefusedError("day", ValueError("a day lies between 1990 and 2150"))
    return sky_day.answer(latitude, longitude, zone, day)


def zone_at(latitude: float, longitude: float) -> str:
    """The zone of a place; blank where it is not known, or is one that no clock here goes by."""
    zone = _finder().timezone_at(lat=latitude, lng=longitude) or ""
    return zone if zone in ZONES else ""


@cache
def _finder() -> Any:
    # Its shapes weigh some forty megabytes: they are read when somebody first asks for a zone.
    from timezonefinder import TimezoneFinder  # noqa: PLC0415

    return TimezoneFinder()
