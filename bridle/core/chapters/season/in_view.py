"""What will stand before the camera: something that grows or is put up, and the sun on its daily path."""

import math
from collections.abc import Iterator
from datetime import date
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.chapters.season.state import GlareTold, ObstacleTold
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.hours import day_said
from bridle.core.plan.season import Obstacle
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.glare import glares
from bridle.core.reckon.season.hours import DAY_S
from bridle.core.reckon.season.season import Staying
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.time.windows import DAY_MIN, at_clock

IN_VIEW = SnagKind(
    "stands-in-view",
    "mind",
    "season",
    "{name} reaches over a quarter of the picture from {day} on; by the end over {share} of its height.",
    "It hides what the shoot is for, and nothing brings that back.",
)
KINDS = (IN_VIEW,)
MONTH_S = 365.25 / 12 * DAY_S
# Grass at the lower edge is part of a picture; what reaches higher hides something.
HIDES = 0.25
MOST_HIGHER = 1.5


def obstacles(shooting: Shooting) -> Iterator[ObstacleTold]:
    """From when each stands in the picture, over how much of its height at the end, and in how many frames."""
    for thing in shooting.plan.season.obstacles:
        enters, share = _enters(shooting, thing)
        yield ObstacleTold(
            name=thing.name,
            enters=day_said(enters) if enters else "",
            share=share,
            frames=_frames_from(shooting, thing, enters) if enters else 0,
        )


def _limit_mm(plan: Plan, thing: Obstacle) -> float:
    """How high something may be at its distance before it hides a quarter of the picture from below."""
    lower = math.atan((2 * HIDES - 1) * _half(plan)) + math.radians(plan.move.start.tilt_deg)
    return plan.rig.standing.lens_height_mm + thing.away_mm * math.tan(lower)


def _half(plan: Plan) -> float:
    """Half the picture's height over the focal length."""
    camera = plan.camera
    return (camera.sensor_width_mm if camera.upright else camera.sensor_height_mm) / 2 / camera.focal_mm


def _tall_mm(thing: Obstacle, days: float) -> float:
    return thing.tall_mm + thing.grows_mm_month * max(0.0, days) * DAY_S / MONTH_S


def _enters(shooting: Shooting, thing: Obstacle) -> tuple[date | None, float]:
    """The day from which something stands in the picture, and over which share of its height at the end."""
    plan, times = shooting.plan, shooting.timeline
    first, last = times.clock(0).date(), times.clock(times.frames - 1).date()
    end = min(last, thing.to_day or last)
    begin, limit = max(first, thing.from_day), _limit_mm(plan, thing)
    if begin > end or _tall_mm(thing, (end - thing.from_day).days) <= limit:
        return None, 0.0
    days = 0.0 if thing.tall_mm > limit else math.ceil((limit - thing.tall_mm) / thing.grows_mm_month * MONTH_S / DAY_S)
    enters = max(begin, date.fromordinal(thing.from_day.toordinal() + int(days)))
    return enters, _share(plan, thing, _tall_mm(thing, (end - thing.from_day).days))


def _share(plan: Plan, thing: Obstacle, tall: float) -> float:
    """Over which share of the picture's height something so tall reaches."""
    half, tilt = _half(plan), plan.move.start.tilt_deg
    up = math.degrees(math.atan((tall - plan.rig.standing.lens_height_mm) / thing.away_mm)) - tilt
    return min(1.0, max(0.0, (math.tan(math.radians(up)) + half) / (2 * half)))


def _frames_from(shooting: Shooting, thing: Obstacle, enters: date) -> int:
    times, zone = shooting.timeline, ZoneInfo(shooting.timeline.zone)
    begins = times.start_unix_s + times.starts_s
    first = np.searchsorted(begins, at_clock(enters, 0, zone))
    end = times.frames if thing.to_day is None else np.searchsorted(begins, at_clock(thing.to_day, DAY_MIN, zone))
    return max(0, int(end - first))


def glare_told(shooting: Shooting, stay: Staying) -> tuple[GlareTold, ...] | None:
    """The days on which the sun stands in the picture; None where nobody knows the place, or where it looks."""
    found = glares(shooting, stay.hours)
    if found is None:
        return None
    return tuple(
        GlareTold(
            said=day_said(one.first) if one.days == 1 else f"{day_said(one.first)} to {day_said(one.last)}",
            days=one.days,
            from_min=one.from_min,
            to_min=one.to_min,
        )
        for one in found
    )


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Each thing that will stand in the view."""
    for number, thing in enumerate(shooting.plan.season.obstacles):
        yield from _in_view(shooting, number, thing)


def _in_view(shooting: Shooting, number: int, thing: Obstacle) -> Iterator[Snag]:
    plan = shooting.plan
    enters, share = _enters(shooting, thing)
    if enters is None or thing.belongs:
        return
    path, times = f"season.obstacles.{number}", shooting.timeline
    last = times.clock(times.frames - 1).date()
    end = min(last, thing.to_day or last)
    grown = _tall_mm(thing, (end - thing.from_day).days) - thing.tall_mm
    cut = math.floor(_limit_mm(plan, thing) - grown)
    higher = math.ceil(plan.rig.standing.lens_height_mm + thing.tall_mm + grown - _limit_mm(plan, thing))
    fixes = [
        Fix(
            label="It belongs to the picture",
            consequence="It is not looked at any more here.",
            slots={},
            edits=(Edit(path=f"{path}.belongs", value=True),),
        )
    ]
    if higher <= MOST_HIGHER * plan.rig.standing.lens_height_mm:
        said, slots_of = (
            "It sees over it to the end. Another picture, and more for the wind.",
            {"higher": slot(higher, "mm")},
        )
        edit = Edit(path="rig.standing.lens_height_mm", value=float(higher))
        fixes.insert(0, Fix(label="Put the camera {higher} high", consequence=said, slots=slots_of, edits=(edit,)))
    if cut > 0:
        said = "At its owner's leave, before it is in leaf. It grows until the end."
        label, edit = "Have it cut to a height of {cut}", Edit(path=f"{path}.tall_mm", value=float(cut))
        fixes.insert(0, Fix(label=label, consequence=said, slots={"cut": slot(cut, "mm")}, edits=(edit,)))
    slots = {"name": slot(thing.name), "day": slot(day_said(enters)), "share": slot(share, "share")}
    yield IN_VIEW.at(path, slots, fixes)
