"""What the page is told of the house: whether the clock has jumped, and which data folder this is."""

from datetime import datetime
from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from bridle.server.house import clock
from bridle.server.house.models import House

router = Router(tags=["house"])


class Jumped(Schema):
    """The clock before it jumped and after; for so many more seconds of running nothing from before is cleared."""

    from_: datetime = Field(alias="from")
    to: datetime
    left_s: float
    read: bool


class HouseTold(Schema):
    """The identity of this data, and the last jump of the clock while it still keeps things from being cleared."""

    identity: str
    jumped: Jumped | None


@router.get("/house", response=HouseTold, by_alias=True, operation_id="look_at_house")
def look_at_house(request: HttpRequest) -> Any:
    """The data folder's identity, and whether its clock is in doubt."""
    house = House.objects.first()
    return {"identity": house.identity if house else "", "jumped": _jumped(house)}


@router.post("/house/clock-read", response=HouseTold, by_alias=True, operation_id="read_clock_notice")
def read_clock_notice(request: HttpRequest) -> Any:
    """Put the notice of a jump away; what it keeps is kept all the same."""
    House.objects.update(jump_read=True)
    return look_at_house(request)


def _jumped(house: House | None) -> dict[str, Any] | None:
    if house is None or house.jumped_ran_s is None or house.jumped_from is None or house.jumped_to is None:
        return None
    left = house.jumped_ran_s + clock.PASSED_S - clock.RUNNING.now_s()
    if left <= 0:
        return None
    return {"from": house.jumped_from, "to": house.jumped_to, "left_s": left, "read": house.jump_read}
