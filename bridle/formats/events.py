"""An event of a calendar file, at the place of a shoot."""

from datetime import datetime

from icalendar import Event

from bridle.core.plan.document import Plan
from bridle.core.reckon.scene import placed


def event_at(name: str, start: datetime, end: datetime, plan: Plan) -> Event:
    """An event from a start to an end, both with their zone."""
    event = Event()
    event.add("summary", name)
    event.add("dtstart", start)
    event.add("dtend", end)
    if plan.shoot.place.name:
        event.add("location", plan.shoot.place.name)
    where = placed(plan)
    if where is not None:
        event.add("geo", where)
    return event
