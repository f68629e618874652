"""Visits: when somebody comes, what is brought and looked at, and what cannot wait for a day that suits."""

from collections.abc import Iterator
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from bridle.core.chapters.season.box import box_of
from bridle.core.chapters.season.state import VisitTold
from bridle.core.chapters.season.telling import entries_told
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.hours import DAYS, day_said, days_said
from bridle.core.plan.kit import StorageCard
from bridle.core.plan.wired import Battery, Trigger
from bridle.core.quantity import listed
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.season import Staying, staying
from bridle.core.reckon.season.visits import CARD, CELL, CHARGE, CLOCK, ENTRIES, GLASS, LOOK, OPENS_BOX, RESTART
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.time.visits import MOST_VISITS, Visit

LATE = SnagKind(
    "visit-too-late",
    "stop",
    "season",
    "Nobody can come before it is due to {task}, first on {day}.",
    "Between two visits there is at least a day: until then frames are lost, or wrong.",
)
OFF_WISH = SnagKind(
    "visit-off-its-day",
    "mind",
    "season",
    "{times} somebody has to come on another day than {wished}, first on {day}: {tasks}.",
    "No day that suits lies between two deadlines.",
)
OFTEN = SnagKind(
    "visits-without-end",
    "stop",
    "season",
    "More than {most} visits would be needed.",
    "Nobody climbs as often. Something is swapped far too early.",
)
KINDS = (LATE, OFF_WISH, OFTEN)
COUNT = Formula("visits", "between setting up and taking down, with everything done at once that can be")
BRINGS = {
    CARD: ("an empty card, formatted in this camera", "a case for the full one, and the way to copy it the same day"),
    CHARGE: ("a charged battery", "a meter, to see its voltage under load before it is lifted"),
    GLASS: ("water, a soft cloth, a brush for cobwebs",),
    CLOCK: ("a clock that is right",),
    LOOK: ("something to look at the last frames with",),
    RESTART: ("the menu entries on paper",),
    CELL: ("a new coin cell",),
    ENTRIES: ("the menu entries on paper",),
}
CHECKS = {
    CARD: ("the last frames are there and sharp", "the new card counts up after the next frame"),
    CHARGE: ("polarity before it is connected", "the terminals are tight and covered"),
    GLASS: ("no streak when the sun is on it",),
    CLOCK: ("time, date and time zone; interval and hours are still in",),
    LOOK: ("number of frames against the plan; exposure, focus and frame as on the first day",),
    RESTART: ("the next frame comes when it should",),
    CELL: ("its clock and settings are still in",),
    ENTRIES: ("days, hours and interval are in as they stand on paper",),
}
ALWAYS = ("take a frame before anything is touched, and one after: the reference for the aim",)
OPENED = ("dry inside, the gasket clean, its drying bag changed", "closed, sealed and locked; leads in a loop below")
OUTSIDE = ("guys, clamp, second tether; leads, gnawed or chafed",)
SIZES_GB = (32.0, 64.0, 128.0, 256.0, 512.0, 1024.0, 2048.0)


def told(shooting: Shooting, stay: Staying) -> Iterator[VisitTold]:
    """Each visit with what to bring and what to look at."""
    plan, zone = shooting.plan, ZoneInfo(stay.hours.zone)
    box = box_of(plan)
    begins = {menu.from_s: menu.entries for menu in stay.menus[1:]}
    for visit in stay.coming.visits:
        at = datetime.fromtimestamp(visit.at, UTC).astimezone(zone)
        opens = box is not None and any(task in OPENS_BOX for task in visit.tasks)
        out = plan.season.visiting.camera_out and any(task in (CARD, CHARGE) for task in visit.tasks)
        yield VisitTold(
            at_s=visit.at,
            day=at.date().isoformat(),
            said=f"{DAYS[at.weekday()]}, {day_said(at.date())}, {at:%H:%M}",
            tasks=visit.tasks,
            brings=tuple(thing for task in visit.tasks for thing in BRINGS[task]),
            checks=tuple(_checks(visit, opens)),
            opens_box=opens,
            camera_out=out,
            off_wish=visit.off_wish,
            late=visit.late,
            entries=tuple(entries_told(begins[visit.at])) if visit.at in begins else (),
        )


def _checks(visit: Visit, opens: bool) -> Iterator[str]:
    yield from ALWAYS
    for task in visit.tasks:
        yield from CHECKS[task]
    yield from OPENED if opens else ()
    yield from OUTSIDE


def findings(shooting: Shooting, stay: Staying) -> Iterator[Figure | Snag]:
    """How often somebody comes, and what does not go as it is wished."""
    plan, visits = shooting.plan, stay.coming.visits
    if stay.coming.due or visits:
        many = term("visits", "visits", len(visits), "")
        yield figure("season.visits", "visits", len(visits), "times", COUNT, many)
    if len(visits) >= MOST_VISITS:
        yield OFTEN.at("season.visiting", {"most": slot(str(MOST_VISITS))}, list(_rarer(shooting, stay.coming.due)))
        return
    for task in stay.coming.due:
        late = next((visit for visit in visits if task in visit.late), None)
        if late is not None:
            slots = {"task": slot(task), "day": slot(_day(late, stay))}
            yield LATE.at("season.visiting", slots, list(_rarer(shooting, (task,))))
    off = [visit for visit in visits if visit.off_wish and not visit.late]
    if off:
        yield _off_wish(plan, stay, off)


def _day(visit: Visit, stay: Staying) -> str:
    return day_said(datetime.fromtimestamp(visit.at, UTC).astimezone(ZoneInfo(stay.hours.zone)).date())


def _off_wish(plan: Plan, stay: Staying, off: list[Visit]) -> Snag:
    fix = Fix(
        label="Any day will do",
        consequence="Then everything is done as late as it can be.",
        slots={},
        edits=(Edit(path="season.visiting.weekdays", value=list(range(7))),),
    )
    slots = {
        "times": slot("Once" if len(off) == 1 else f"{len(off)} times"),
        "wished": slot(days_said(plan.season.visiting.weekdays)),
        "day": slot(_day(off[0], stay)),
        "tasks": slot(listed(off[0].tasks)),
    }
    return OFF_WISH.at("season.visiting.weekdays", slots, [fix])


def _rarer(shooting: Shooting, tasks: tuple[str, ...]) -> Iterator[Fix]:
    """What makes these tasks come less often, the first of each kind that is enough."""
    for task in tasks:
        for offers in _offers(shooting, task):
            fix = next((one for one in offers if _in_time(shooting, one, tasks)), None)
            if fix is not None:
                yield fix


def _in_time(shooting: Shooting, fix: Fix, tasks: tuple[str, ...]) -> bool:
    after, _ = apply(shooting.plan, fix.edits)
    stay = staying(shooting.over(after))
    if stay is None or len(stay.coming.visits) >= MOST_VISITS:
        return False
    return not any(task in visit.late for visit in stay.coming.visits for task in tasks)


def _offers(shooting: Shooting, task: str) -> Iterator[Iterator[Fix]]:
    plan, visiting = shooting.plan, "season.visiting"
    for index, copy in enumerate(plan.kit.copies):
        path, card = f"kit.copies.{index}.card", copy.card
        if task == CARD and isinstance(card, StorageCard):
            sizes = (size for size in SIZES_GB if size > card.gigabytes)
            said, field = "{size} in the camera.", f"{path}.gigabytes"
            yield (_with("A card of {size}", said, field, size, "GB") for size in sizes)
        if task == CHARGE and isinstance(card, Battery):
            charges = (card.amp_hours * times for times in (2, 4, 8, 16, 32))
            said = "Several times as heavy. A fuse at its terminal; connected by somebody who knows."
            yield (_with("A battery of {size}", said, f"{path}.amp_hours", size, "Ah") for size in charges)
        if task == RESTART and isinstance(card, Trigger):
            yield iter((_unlimited(path),))
    spans = (float(days) for days in (7, 14, 28, 56, 112))
    if task in (GLASS, LOOK):
        field = "clean_days" if task == GLASS else "may_lose_days"
        label, said = "Every {size} days", "Less often than it was wished."
        yield (_with(label, said, f"{visiting}.{field}", days, "") for days in spans)
    if task == CLOCK:
        off = (float(visiting_s) for visiting_s in (600, 1800, 3600, 7200))
        said = "Windows open that much earlier or later then."
        yield (_with("Let the clock be off by {size}", said, f"{visiting}.clock_off_s", size, "s") for size in off)


def _with(label: str, consequence: str, path: str, size: float, unit: str) -> Fix:
    value: float | int | str = str(int(size)) if unit == "s" else int(size) if not unit else size
    return Fix(
        label=label, consequence=consequence, slots={"size": slot(size, unit)}, edits=(Edit(path=path, value=value),)
    )


def _unlimited(path: str) -> Fix:
    return Fix(
        label="Plan with a controller that does not stop by itself",
        consequence="To be looked up: for how long, and how many frames, it goes on.",
        slots={},
        edits=(Edit(path=f"{path}.longest_run_s", value=None), Edit(path=f"{path}.most_frames", value=None)),
    )
