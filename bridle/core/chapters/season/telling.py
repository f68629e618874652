"""What the controller is told: its entries for each run, the frames that it takes besides, and those that it misses."""

from collections import Counter
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.chapters.season.state import CountTold, EntryTold, MenuTold, TellingTold
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import DAY_MIN, Windows
from bridle.core.plan.hours import day_said, days_said
from bridle.core.plan.outdoors import Schedule
from bridle.core.quantity import write_duration
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.season import Staying
from bridle.core.reckon.season.told import (
    Entries,
    Menu,
    ToldFrames,
    caller,
    in_its_own_words,
    told_frames,
)  # fmt: skip
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.time.windows import at_clock

NO_HOURS = SnagKind(
    "controller-has-no-hours",
    "note",
    "season",
    "The {device} has no hours: it goes on day and night, and {besides} are taken that no window asks for.",
    "They fill the card, draw on the battery and wear the shutter; afterwards they are taken out by their time.",
)
UNCERTAIN = SnagKind(
    "controller-clock-change",
    "note",
    "season",
    "Nobody knows whether the {device} puts its clock forward and back by itself; the clocks change on {day}.",
    "Its hours are made wide enough for both, which takes frames that no window asks for.",
)
MISSES = SnagKind(
    "controller-misses-frames",
    "mind",
    "season",
    "As the {device} can be told, {missing} of {frames} will not be taken.",
    "Its rules are coarser than the windows, or its interval cannot be dialled as it is planned.",
)
KINDS = (NO_HOURS, UNCERTAIN, MISSES)
KEPT = Formula("planned - missing", "each planned frame that has one within half its interval")
COUNTED = Formula("frames", "counted one by one, over all runs")
OFF, NO_WINDOW, BESIDE = "on days off", "on days without a window", "before and after the hours"
AGAIN, COARSE = "while it is started again", "as its rules are coarser"


def told(shooting: Shooting, stay: Staying) -> TellingTold | None:
    """The entries of each run, with what is taken besides and missed; None where it is told the windows as they are."""
    known = in_its_own_words(shooting.plan)
    if known is None:
        return None
    found = told_frames(shooting.plan, shooting.timeline, stay.menus)
    return TellingTold(
        name=known[0].name,
        menus=tuple(_menu(shooting.plan, stay, menu, number) for number, menu in enumerate(stay.menus)),
        surplus=tuple(_surplus(shooting, found)),
        missing=tuple(_missing(found)),
    )


def _menu(plan: Plan, stay: Staying, menu: Menu, number: int) -> MenuTold:
    zone = ZoneInfo(plan.shoot.place.zone)
    begins, ends = (datetime.fromtimestamp(at, UTC).astimezone(zone) for at in (menu.from_s, menu.to_s))
    last = "the end" if menu is stay.menus[-1] else f"the visit of {day_said(ends.date())}"
    first = "setting up" if number == 0 else f"the visit of {day_said(begins.date())}"
    return MenuTold(
        said=f"From {first} to {last}",
        entries=tuple(entries_told(menu.entries)),
    )


def entries_told(entries: Entries) -> Iterator[EntryTold]:
    """Each entry of a menu as it is put in."""
    yield EntryTold(name="interval", value=write_duration(entries.every_s))
    if entries.all_day:
        yield EntryTold(name="hours", value="none: day and night")
        return
    yield EntryTold(name="days", value=days_said(entries.days) if entries.days else "none")
    for number, (opens, closes) in enumerate(entries.spans):
        name = "from–to" if len(entries.spans) == 1 else f"from–to {number + 1}"
        yield EntryTold(name=name, value=f"{_hour(opens)} – {_hour(closes)}")
    ahead = (entries.offset_s or 0) / 3600
    followed = "as on the wall" if entries.offset_s is None else f"{ahead:+g} h of UTC, not put forward or back"
    yield EntryTold(name="its clock", value=followed)


def _hour(minute: int) -> str:
    rest = minute % DAY_MIN
    return "24:00" if minute == DAY_MIN else f"{rest // 60}:{rest % 60:02}{' (next day)' if minute > DAY_MIN else ''}"


def _surplus(shooting: Shooting, found: ToldFrames) -> Iterator[CountTold]:
    off = shooting.plan.frames.off if isinstance(shooting.plan.frames, Windows) else ()
    counts: Counter[str] = Counter()
    if not len(found.compared.surplus):
        return
    for day, planned, besides in _by_day(shooting, found):
        if any(one.first <= day <= one.last for one in off):
            counts[OFF] += besides
        else:
            counts[BESIDE if planned else NO_WINDOW] += besides
    for reason in (BESIDE, NO_WINDOW, OFF):
        if counts[reason]:
            yield CountTold(reason=reason, frames=counts[reason])


def _by_day(shooting: Shooting, found: ToldFrames) -> Iterator[tuple[date, int, int]]:
    """Each day of the calendar with how many frames are planned on it, and how many are taken besides."""
    times, surplus = shooting.timeline, found.compared.surplus
    zone = ZoneInfo(times.zone)
    planned = times.start_unix_s + times.starts_s
    ends = min(planned[0], surplus[0]), max(planned[-1], surplus[-1])
    first, last = (datetime.fromtimestamp(float(at), UTC).astimezone(zone).date() for at in ends)
    days = [first + timedelta(days=number) for number in range((last - first).days + 1)]
    begins = np.array([at_clock(day, 0, zone) for day in [*days, last + timedelta(days=1)]])
    both = (np.diff(np.searchsorted(frames, begins)).tolist() for frames in (planned, surplus))
    yield from zip(days, *both, strict=True)


def _missing(found: ToldFrames) -> Iterator[CountTold]:
    if found.stopped:
        yield CountTold(reason=AGAIN, frames=found.stopped)
    left = len(found.compared.missing) - found.stopped
    if left:
        yield CountTold(reason=COARSE, frames=left)


def findings(shooting: Shooting, stay: Staying, state: TellingTold | None) -> Iterator[Figure | Snag]:
    """How many are taken, besides and missed; and what could be told more closely."""
    known, found = in_its_own_words(shooting.plan), caller(shooting.plan)
    if known is None or found is None or state is None:
        return
    (card, schedule), at = known, found[0]
    surplus, missing = sum(one.frames for one in state.surplus), sum(one.frames for one in state.missing)
    planned, missed = (
        term("planned", "planned", shooting.frames, "frames"),
        term("missing", "missed", missing, "frames"),
    )
    yield figure(
        "told.kept", "planned frames that are taken", shooting.frames - missing, "frames", KEPT, planned, missed
    )
    for key, label, count in (("told.surplus", "taken besides", surplus), ("told.missing", "missed", missing)):
        yield figure(key, label, count, "frames", COUNTED, term("frames", label, count, "frames"))
    path = f"kit.copies.{at}.card.schedule"
    device = {"device": slot(card.name)}
    if schedule is None and surplus:
        yield NO_HOURS.at(path, {**device, "besides": slot(surplus, "frames")}, [_with_hours(path)])
    if schedule is not None and schedule.follows_change == "not known":
        yield from _uncertain(shooting, path, device)
    coarse = sum(one.frames for one in state.missing if one.reason == COARSE)
    if coarse:
        slots = {**device, "missing": slot(coarse, "frames"), "frames": slot(shooting.frames, "frames")}
        yield MISSES.at(path, slots, [_program(at)])


def _with_hours(path: str) -> Fix:
    return Fix(
        label="Plan with one that can be told hours and days",
        consequence="Its entries are worked out; look up what rules it knows.",
        slots={},
        edits=(Edit(path=path, value=Schedule(follows_change="yes").model_dump(mode="json")),),
    )


def _program(at: int) -> Fix:
    return Fix(
        label="Plan with a board that runs a program of one's own",
        consequence="Every window is told it as it is; it has to be written and tried.",
        slots={},
        edits=(
            Edit(path=f"kit.copies.{at}.card.source", value="controller"),
            Edit(path=f"kit.copies.{at}.card.schedule", value=None),
        ),
    )


def _uncertain(shooting: Shooting, path: str, device: dict[str, Slot]) -> Iterator[Snag]:
    change = _first_change(shooting)
    if change is None:
        return
    fixes = [
        Fix(
            label=label,
            consequence=said,
            slots={},
            edits=(Edit(path=f"{path}.follows_change", value=value),),
        )
        for label, said, value in (
            ("It does", "Set its clock to another year's day of change once, and see.", "yes"),
            ("It does not", "Its hours stay wide, or its clock is set at a visit.", "no"),
        )
    ]
    yield UNCERTAIN.at(f"{path}.follows_change", {**device, "day": slot(day_said(change))}, fixes)


def _first_change(shooting: Shooting) -> date | None:
    """The first day of the shoot on which the clocks are changed."""
    times = shooting.timeline
    zone, at = ZoneInfo(times.zone), times.start_unix_s
    before = datetime.fromtimestamp(at, zone).utcoffset()
    while at < times.start_unix_s + float(times.end_s):
        at += 86_400
        if datetime.fromtimestamp(at, zone).utcoffset() != before:
            return datetime.fromtimestamp(at, zone).date()
    return None
