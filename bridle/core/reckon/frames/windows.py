"""Frames within work windows: an interval while a rule's window is open, nothing between and on days off."""

import math
from bisect import bisect_left
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from fractions import Fraction
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.clip import LONGEST_INTERVAL_S, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Edge, Rule, Windows
from bridle.core.reckon.almanac import SUN_UP_DEG, over
from bridle.core.reckon.frames.even import pegs_edit, with_peg
from bridle.core.reckon.frames.found import Found, by_count, keep_of, rate_of
from bridle.core.reckon.scene import placed
from bridle.core.reckon.timeline import Run, Timeline
from bridle.core.subjects.light.crossings import Crossing, crossings
from bridle.core.subjects.light.noon import solar_noon_s
from bridle.core.subjects.time.cycle import FINEST_S
from bridle.core.subjects.time.sentence import HALF, Conflict, Solution
from bridle.core.subjects.time.windows import DAY_MIN, Span, at_clock, closing_day, days, frames_in, ranked, united

Where = tuple[float, float] | None
# Half a day of the sun, and how far its lowest stand may be off what is reckoned here.
HALF_DAY_S, NEAR_S = 12 * 3600, 120
# From this hour on an hour after sunrise is one of the same day.
EARLY_MIN = 4 * 60
EVERY_PATH = "frames.every_s"
ANY = Fraction(1)


class Window(NamedTuple):
    """When a window opens and closes (Unix seconds), its rule, its interval, and how many frames begin in it."""

    opens: int
    closes: int
    rule: int
    every_s: Fraction
    frames: int


@lru_cache(maxsize=8)
def windows_of(frames: Windows, zone: str, where: Where = None) -> tuple[Window, ...]:
    """The windows in which a frame begins at all, in order. Through changes of the clocks.

    A rule that goes by the sun has none on a day on which that does not come up or go down, or where nobody knows the
    place.
    """
    spans = spans_of(frames, zone, where)
    made = []
    for number, span in enumerate(spans):
        every = every_of(frames, span.rule)
        followed = number + 1 < len(spans) and spans[number + 1].opens == span.closes
        made.append(Window(*span, every, frames_in(span.closes - span.opens, every, followed)))
    return tuple(window for window in made if window.frames)


def every_of(frames: Windows, rule: int) -> Fraction:
    """The interval of a rule."""
    own = frames.rules[rule].every_s
    return frames.every_s if own is None else own


def spans_of(frames: Windows, zone: str, where: Where = None) -> tuple[Span, ...]:
    """What each rule has of the time, whatever its interval."""
    edges = tuple(rule if rule.every_s is None else rule.model_copy(update={"every_s": None}) for rule in frames.rules)
    return _spans_of(frames.model_copy(update={"every_s": ANY, "rules": edges}), zone, where)


@lru_cache(maxsize=8)
def _spans_of(frames: Windows, zone: str, where: Where) -> tuple[Span, ...]:
    """The same for all intervals: the edges of windows are searched once for a drag and for what it is drawn from."""
    local = ZoneInfo(zone)
    off = [(at_clock(one.first, 0, local), at_clock(one.last + timedelta(days=1), 0, local)) for one in frames.off]
    claims = [list(claimed(frames, rule, zone, where)) for rule in frames.rules]
    return tuple(ranked(claims, united(off)))


def claimed(frames: Windows, rule: Rule, zone: str, where: Where) -> Iterator[tuple[int, int]]:
    """When a rule opens and closes by itself, before other rules and days off are looked at."""
    first, last = max(frames.first, rule.first or frames.first), min(frames.last, rule.last or frames.last)
    sky = Sky(zone, where, first, last) if rule.opens.by != "clock" or rule.closes.by != "clock" else None
    for day in days(first, last, rule.weekdays):
        opens = _edge(day, rule.opens, zone, sky)
        if opens is None:
            continue
        closes = _closes(day, rule, opens, zone, sky)
        if closes is not None and closes > opens:
            yield opens, closes


def sunless(frames: Windows, rule: Rule, zone: str, where: Where) -> int:
    """On how many of its days a rule that goes by the sun has none: it does not come up, or does not go down, there."""
    first, last = max(frames.first, rule.first or frames.first), min(frames.last, rule.last or frames.last)
    turns = [edge.by for edge in (rule.opens, rule.closes) if edge.by != "clock"]
    if where is None or not turns:
        return 0
    sky = Sky(zone, where, first, last)
    return sum(any(sky.turn(day, by) is None for by in turns) for day in days(first, last, rule.weekdays))


def _closes(day: date, rule: Rule, opens: int, zone: str, sky: "Sky | None") -> int | None:
    """When a window that opens on a day closes: on the clock by the day's count, by the sun at its next turn.

    On the day itself where the hours are meant so, and then not at all where the sun comes too late or goes too soon.
    """
    by_clock = rule.opens.by == rule.closes.by == "clock"
    if by_clock:
        return _edge(closing_day(day, rule.opens.minutes, rule.closes.minutes, rule.closes_on), rule.closes, zone, sky)
    if rule.closes_on is not None:
        ahead = day + timedelta(days=(rule.closes_on - day.weekday()) % 7)
        found = _edge(ahead, rule.closes, zone, sky)
        past = ahead == day and found is not None and found <= opens
        return _edge(day + timedelta(days=7), rule.closes, zone, sky) if past else found
    same = _edge(day, rule.closes, zone, sky)
    if meant_on_the_day(rule) or (same is not None and same > opens):
        return same
    return _edge(day + timedelta(days=1), rule.closes, zone, sky)


def meant_on_the_day(rule: Rule) -> bool:
    """Whether one edge by the sun and one by the clock are meant on the same day, whatever the season makes of them.

    From sunrise to an hour of the day; from an hour to sunset; from sunset to an hour of the same evening; from an hour
    of the early morning to sunrise. All others run into the next day.
    """
    opens, closes = rule.opens, rule.closes
    if opens.by == "clock":
        return closes.by == "sunset" or (closes.by == "sunrise" and opens.minutes < DAY_MIN // 2)
    if closes.by == "clock":
        return closes.minutes >= (EARLY_MIN if opens.by == "sunrise" else DAY_MIN // 2)
    return False


def _edge(day: date, edge: Edge, zone: str, sky: "Sky | None") -> int | None:
    if edge.by == "clock":
        return at_clock(day, edge.minutes, ZoneInfo(zone))
    turn = sky.turn(day, edge.by) if sky else None
    return None if turn is None else turn + 60 * edge.minutes


class Sky:
    """When the sun comes up and goes down on its own day, from one lowest stand to the next, whose noon lies on a day.

    Where a zone is far from its meridian it may come up after noon on the clock, or go down after midnight. Nothing
    where nobody knows the place.
    """

    def __init__(self, zone: str, where: Where, first: date, last: date) -> None:
        self.zone, self.where = ZoneInfo(zone), where
        # A window that opens on the last day may close a week later.
        ends = (at_clock(first, -DAY_MIN, self.zone), at_clock(last, 9 * DAY_MIN, self.zone))
        self.turns: dict[str, list[float]] = {"sunrise": [], "sunset": []}
        for crossing in _turns(*where, *ends) if where is not None else ():
            self.turns["sunrise" if crossing.up else "sunset"].append(crossing.at_s)

    def turn(self, day: date, which: str) -> int | None:
        """The sunrise before the sun's own noon of a day, or the sunset after it; None where there is none that day."""
        if self.where is None:
            return None
        noon, turns = solar_noon_s(at_clock(day, DAY_MIN // 2, self.zone), self.where[1]), self.turns[which]
        at = bisect_left(turns, noon) - (which == "sunrise")
        found = turns[at] if 0 <= at < len(turns) else math.inf
        return round(found) if abs(found - noon) <= HALF_DAY_S + NEAR_S else None


@lru_cache(maxsize=4)
def _turns(latitude: float, longitude: float, first_s: int, last_s: int) -> tuple[Crossing, ...]:
    return crossings(over("sun", latitude, longitude, SUN_UP_DEG), first_s, last_s)


@dataclass(frozen=True)
class Lengths:
    """How long the windows are in which the interval of the shoot counts, seconds, and whether another follows at once.

    `others` are the frames of windows with an interval of their own.
    """

    free_s: NDArray[np.int64]
    followed: NDArray[np.bool_]
    others: int

    def frames(self, every_s: Fraction) -> int:
        """How many frames there are in all with an interval."""
        over = self.free_s * every_s.denominator
        whole = over // every_s.numerator
        return int((whole + (~self.followed & (whole * every_s.numerator < over))).sum()) + self.others


def lengths_of(plan: Plan) -> Lengths:
    """The windows of a plan as lengths."""
    frames = _source(plan)
    spans = spans_of(frames, plan.shoot.place.zone, where_of(plan))
    follows = [one.closes == after.opens for one, after in pairwise(spans)] + [False]
    free = [frames.rules[span.rule].every_s is None for span in spans]
    lengths = np.array([span.closes - span.opens for span in spans], dtype=np.int64)
    return Lengths(
        free_s=lengths[np.array(free, dtype=bool)],
        followed=np.array(follows if spans else [], dtype=bool)[np.array(free, dtype=bool)],
        others=sum(window.frames for window in _windows(plan) if frames.rules[window.rule].every_s is not None),
    )


HELD: tuple[Quantity, ...] = ("interval", "frames", "clip")


def holds_of(plan: Plan) -> dict[str, Fraction]:
    """What is held of a shoot in work windows, with the playback rate: the windows themselves say how long it is."""
    held: dict[str, Fraction] = {peg.quantity: peg.value for peg in plan.clip.pegs if peg.quantity in HELD}
    return {"rate": rate_of(plan), **held}


def settled(plan: Plan) -> Plan:
    """The plan with the interval that comes of what is held; the same where nothing is, or where it contradicts."""
    if not isinstance(plan.frames, Windows):
        return plan
    every = _every_held(plan)
    if every is None or every == plan.frames.every_s:
        return plan
    return plan.model_copy(update={"frames": plan.frames.model_copy(update={"every_s": every})})


def _every_held(plan: Plan) -> Fraction | None:
    """The interval that is held, or that makes the frames or the clip that are; None where none is, or none could."""
    held = holds_of(plan)
    if "interval" in held:
        return held["interval"]
    if "clip" in held:
        return every_for(plan, _shot_for(plan, held["clip"]), at_least=True)
    return every_for(plan, held["frames"]) if "frames" in held else None


def _shot_for(plan: Plan, clip_s: Fraction) -> Fraction:
    """How many frames are shot for a clip: those that are culled are shot too."""
    return Fraction(math.ceil(math.ceil(clip_s * rate_of(plan)) / keep_of(plan.clip)))


def every_for(plan: Plan, wanted: Fraction, at_least: bool = False) -> Fraction | None:
    """The interval, in steps that can be dialled, whose frames come nearest to so many, or to no fewer.

    None where no window is open that goes by the interval of the shoot.
    """
    step, lengths = plan.clip.interval_step_s or FINEST_S, lengths_of(plan)
    if not lengths.free_s.size:
        return None
    low, high = 1, max(1, int(LONGEST_INTERVAL_S / step))
    if lengths.frames(step) < wanted:
        return step
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if lengths.frames(step * middle) >= wanted else (low, middle)
    over, under = lengths.frames(step * low) - wanted, wanted - lengths.frames(step * high)
    return step * (high if not at_least and 0 <= under < over else low)


def _conflict(plan: Plan) -> Conflict | None:
    """Two of an interval, frames and a clip that are held and do not come to the same number of frames."""
    held = holds_of(plan)
    if len(held) < 3 or not lengths_of(plan).free_s.size:
        return None
    asked: list[tuple[tuple[str, ...], Fraction, Fraction | None]] = []
    if "frames" in held:
        asked.append((("frames",), held["frames"], every_for(plan, held["frames"])))
    if "clip" in held:
        shot = _shot_for(plan, held["clip"])
        asked.append((("clip", "rate"), shot, every_for(plan, shot, at_least=True)))
    if "interval" in held:
        counted = Fraction(lengths_of(plan).frames(held["interval"]))
        asked.append((("interval",), counted, held["interval"]))
    for one, other in pairwise(asked):
        # What comes to the same interval agrees, however the windows round it.
        if one[2] != other[2] and abs(one[1] - other[1]) > HALF:
            return Conflict(one[0], one[1], other[0], other[1], "frames")
    return None


def hold(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold an interval, frames or a clip in the windows: what was held of these three before gives way.

    Raises ValueError for what the windows say themselves, and where no window goes by the interval of the shoot.
    """
    if quantity == "rate":
        return [pegs_edit(with_peg(plan.clip.pegs, "rate", value))]
    if quantity == "speed_up":
        return hold(plan, "interval", value / rate_of(plan))
    if quantity == "shoot":
        raise ValueError("the work windows say how long it is: the first and the last day are changed there")
    if quantity != "interval" and not lengths_of(plan).free_s.size:
        raise ValueError("no window is open that goes by the interval of the shoot: it changes nothing")
    kept = tuple(peg for peg in plan.clip.pegs if peg.quantity not in HELD)
    edits = [pegs_edit(with_peg(kept, quantity, value))]
    return [*edits, Edit(path=EVERY_PATH, value=str(value))] if quantity == "interval" else edits


def no_shorter(plan: Plan, interval: Fraction) -> list[Edit]:
    """The interval held at this length, and no rule with a shorter one of its own."""
    rules = enumerate(_source(plan).rules)
    own = [n for n, rule in rules if rule.every_s is not None and rule.every_s < interval]
    longer = [Edit(path=f"frames.rules.{n}.every_s", value=str(interval)) for n in own]
    return [*(hold(plan, "interval", interval) if _source(plan).every_s < interval else []), *longer]


def thinned(plan: Plan, times: int) -> Plan:
    """The plan with so many times the interval in all of its windows, and no pegs of it."""
    frames = _source(plan)
    rules = tuple(
        rule if rule.every_s is None else rule.model_copy(update={"every_s": rule.every_s * times})
        for rule in frames.rules
    )
    fewer = frames.model_copy(update={"every_s": frames.every_s * times, "rules": rules})
    pegs = tuple(peg for peg in plan.clip.pegs if peg.quantity not in HELD)
    return plan.model_copy(update={"frames": fewer, "clip": plan.clip.model_copy(update={"pegs": pegs})})


def find(plan: Plan) -> Found:
    """As many frames as the windows hold, from the first window's opening to the end of the last frame's slot."""
    conflict = _conflict(plan)
    if conflict is not None:
        return Found(conflict=conflict)
    plan = settled(plan)
    frames, windows = _source(plan), _windows(plan)
    count = sum(window.frames for window in windows)
    if not windows:
        return Found(free=("frames",))
    last = windows[-1]
    shoot = Fraction(last.opens - windows[0].opens) + last.frames * last.every_s
    return Found(by_count(plan, count, shoot, frames.every_s, "windows"), frames=count)


def resolve(plan: Plan, solution: Solution) -> Timeline:
    """The frames in time: a run for each window, a gap before the next. The room of a beat is the interval."""
    plan = settled(plan)
    frames, windows = _source(plan), _windows(plan)
    start, runs, first = windows[0].opens, [], 0
    for window in windows:
        runs.append(Run(first, window.frames, Fraction(window.opens - start), window.every_s))
        first += window.frames
    starts = [float(run.at_s) + np.arange(run.frames) * float(run.every_s or 0) for run in runs]
    rooms = np.repeat([float(window.every_s) for window in windows], [window.frames for window in windows])
    return Timeline(
        start=datetime.fromtimestamp(start, UTC).astimezone(ZoneInfo(plan.shoot.place.zone)),
        zone=plan.shoot.place.zone,
        starts_s=np.concatenate(starts),
        rooms_s=rooms,
        runs=tuple(runs),
        end_s=solution.shoot,
        interval_s=frames.every_s,
    )


def _windows(plan: Plan) -> tuple[Window, ...]:
    return windows_of(_source(plan), plan.shoot.place.zone, where_of(plan))


def where_of(plan: Plan) -> Where:
    """The place, where it matters: plans that differ in it alone share their windows."""
    return placed(plan) if by_the_sun(_source(plan)) else None


def by_the_sun(frames: Windows) -> bool:
    """Whether any rule goes by the sun."""
    return any(edge.by != "clock" for rule in frames.rules for edge in (rule.opens, rule.closes))


def _source(plan: Plan) -> Windows:
    assert isinstance(plan.frames, Windows)
    return plan.frames
