"""Rules of work windows as words: how they are said, and how their hours are typed."""

import re
from datetime import date

from bridle.core.plan.anchors import read_anchor
from bridle.core.plan.frames import DAY_MIN, Edge, Rule
from bridle.core.quantity import LONGEST_TEXT, QuantityError, listed, write_duration

DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
EXPECTED = "an hour such as 7:00, or sunrise, 30 min after sunrise, 1 h before sunset"
FEWEST_IN_A_ROW = 3


def edge_said(edge: Edge) -> str:
    """When a window opens or closes."""
    if edge.by == "clock":
        return f"{edge.minutes // 60}:{edge.minutes % 60:02}"
    if not edge.minutes:
        return edge.by
    return f"{write_duration(abs(edge.minutes) * 60)} {'before' if edge.minutes < 0 else 'after'} {edge.by}"


def read_edge(text: str) -> Edge:
    """Read an hour of the clock, or of the sun. Raises `QuantityError`."""
    body = " ".join(text.lower().split())
    clock = re.fullmatch(r"(\d\d?)(?:[:.h](\d\d))? ?(am|pm)?", body)
    try:
        return Edge(minutes=_minutes(clock)) if clock else _by_the_sun(text)
    except ValueError as error:
        raise QuantityError(text.strip()[:LONGEST_TEXT], EXPECTED) from error


def _minutes(clock: re.Match[str]) -> int:
    hour, minute = int(clock[1]), int(clock[2] or 0)
    if clock[3]:
        if not 1 <= hour <= 12:
            raise ValueError("an hour before or after noon lies between 1 and 12")
        hour = hour % 12 + 12 * (clock[3] == "pm")
    if minute > 59 or hour * 60 + minute > DAY_MIN:
        raise ValueError("a day has 24 hours of 60 minutes")
    return hour * 60 + minute


def _by_the_sun(text: str) -> Edge:
    anchor = read_anchor(text)
    if anchor.to not in ("sunrise", "sunset"):
        raise ValueError("windows go by sunrise and sunset")
    return Edge.model_validate({"by": anchor.to, "minutes": round(anchor.offset_s / 60)})


def rule_said(rule: Rule) -> str:
    """A rule as a sentence without its full stop."""
    parts = [_hours(rule)]
    if rule.every_s is not None:
        parts.append(f"every {write_duration(rule.every_s)}")
    if rule.first is not None:
        parts.append(f"from {day_said(rule.first)}")
    if rule.last is not None:
        parts.append(f"until {day_said(rule.last)}")
    return ", ".join(parts)


def _hours(rule: Rule) -> str:
    opens, closes, days = edge_said(rule.opens), edge_said(rule.closes), days_said(rule.weekdays)
    if rule.closes_on is not None:
        return f"{days} {opens} to {DAYS[rule.closes_on]} {closes}"
    if rule.opens.by == rule.closes.by == "clock":
        if rule.opens.minutes == 0 and rule.closes.minutes == DAY_MIN:
            return f"{days}, all day"
        if rule.closes.minutes <= rule.opens.minutes:
            return f"{days}, {opens} to {closes} of the next day"
    return f"{days}, {opens} to {closes}"


def days_said(weekdays: tuple[int, ...]) -> str:
    """Days of the week, those in a row from the first to the last of them."""
    days = sorted(set(weekdays))
    if len(days) == len(DAYS):
        return "Every day"
    if len(days) >= FEWEST_IN_A_ROW and days[-1] - days[0] == len(days) - 1:
        return f"{DAYS[days[0]]} to {DAYS[days[-1]]}"
    return listed([DAYS[day] for day in days])


def day_said(day: date) -> str:
    """A day of the calendar."""
    return f"{day.day} {day:%B %Y}"
