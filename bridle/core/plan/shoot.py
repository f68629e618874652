"""The shoot: what it is called, what is filmed, where and when."""

from typing import Annotated

from pydantic import Field

from bridle.core.plan.values import Instant, Line, Name, Section, Zone


class Place(Section):
    """Where the camera stands; latitude and longitude in degrees, north and east positive."""

    name: Line = ""
    latitude_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] | None = None
    longitude_deg: Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)] | None = None
    zone: Zone = "UTC"


class Shoot(Section):
    """What every screen has in its head."""

    name: Name
    subject: Line = ""
    place: Place = Place()
    start: Instant
