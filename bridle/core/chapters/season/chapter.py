"""A scheduled shoot: its rules, each shown back as a sentence, and the calendar of what they cover."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from datetime import date, timedelta
from typing import TypeAlias

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.season import (
    aim,
    box,
    clocks,
    coming,
    drawn,
    in_view,
    noticed,
    powering,
    rules,
    storing,
    telling,
)
from bridle.core.chapters.season.calendar import calendar_days, inked, longest_gap, midnights, per_day, sun_of
from bridle.core.chapters.season.state import RuleTold, SeasonState, TellingTold
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Rule, Windows
from bridle.core.plan.hours import edge_said, rule_said
from bridle.core.reckon.frames.windows import Window, claimed, spans_of, sunless, where_of, windows_of
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.scene import placed
from bridle.core.reckon.season.season import Staying, staying
from bridle.core.snag import Snag
from bridle.core.subjects.time.windows import Span, united

KINDS = (
    *rules.KINDS, *storing.KINDS, *powering.KINDS, *box.KINDS, *clocks.KINDS, *coming.KINDS, *aim.KINDS,
    *in_view.KINDS, *noticed.KINDS, *telling.KINDS,
)  # fmt: skip
OPEN = Formula("windows_s / 3600", "all windows together, days off left out")
DAYS = Formula("days", "days of the calendar with a frame at least")
MOST = Formula("most", "the day with the most of them")
GAP = Formula("opens - closes", "from where one window closes to where the next one opens")
HOUR_S = 3600


def tell(known: Reckoning) -> Answer[SeasonState]:
    """A long run; of anything shorter nothing."""
    shooting = known.shooting
    long = shooting is not None and shooting.ask(_long)
    if not long and known.ask(_windowed) is None:
        return answer(SeasonState(), ())
    found = [*known.every(_of_windows)]
    if shooting is not None and long:
        found += [one for family in FAMILIES for one in shooting.every(family)]
    return answer(known.ask(_state), found)


def windows_alone(known: Reckoning) -> Answer[SeasonState]:
    """What the rules of work windows come to, and nothing that follows from them: for a drag."""
    if known.ask(_windowed) is None:
        return answer(SeasonState(), ())
    return answer(known.ask(_scheduled), (one for one in known.every(_of_windows) if isinstance(one, Figure)))


def _long(shooting: Shooting) -> bool:
    return staying(shooting) is not None


@dataclass(frozen=True)
class _Windowed:
    """Work windows, as they call the frames."""

    frames: Windows
    spans: tuple[Span, ...]
    windows: tuple[Window, ...]

    @classmethod
    def of(cls, plan: Plan) -> "_Windowed | None":
        """Those of a plan; None where something else calls the frames."""
        if not isinstance(plan.frames, Windows):
            return None
        there = plan.shoot.place.zone, where_of(plan)
        return cls(plan.frames, spans_of(plan.frames, *there), windows_of(plan.frames, *there))


def _windowed(known: Reckoning) -> _Windowed | None:
    return _Windowed.of(known.plan)


def _days(known: Reckoning) -> tuple[date, ...]:
    """The days of the calendar: of the rules, or from the first frame to the last."""
    windowed = known.ask(_windowed)
    if windowed is not None:
        return tuple(calendar_days(windowed.frames, windowed.spans, known.plan.shoot.place.zone))
    assert known.shooting is not None  # without windows there is a long run
    times = known.shooting.timeline
    first, last = times.clock(0).date(), times.clock(times.frames - 1).date()
    return tuple(first + timedelta(days=number) for number in range((last - first).days + 1))


def _begins(known: Reckoning) -> tuple[int, ...]:
    """When each of them begins."""
    return tuple(midnights(known.ask(_days), known.plan.shoot.place.zone))


def _scheduled(known: Reckoning) -> SeasonState:
    """The calendar, and the rules that fill it."""
    plan, shooting, windowed = known.plan, known.shooting, known.ask(_windowed)
    days, begins = known.ask(_days), known.ask(_begins)
    zone = plan.shoot.place.zone
    state = SeasonState(
        first=days[0].isoformat(),
        per_day=per_day(shooting.timeline, begins) if shooting else (0,) * len(days),
        sun=tuple(sun_of(days, zone, placed(plan))),
        off=(False,) * len(days),
    )
    if windowed is None:
        return state
    return replace(
        state,
        scheduled=True,
        rules=tuple(_rules(plan, windowed.frames, windowed.spans, windowed.windows)),
        inked=tuple(inked(windowed.spans, begins, zone)),
        off=tuple(any(one.first <= day <= one.last for one in windowed.frames.off) for day in days),
    )


def _state(known: Reckoning) -> SeasonState:
    """The same with what a camera that stays lives on, where it is one."""
    state, shooting = known.ask(_scheduled), known.shooting
    stay = staying(shooting) if shooting else None
    if shooting is None or stay is None:
        return state
    plan = known.plan
    return replace(
        state,
        long=True,
        fed_by=stay.power.supply.by,
        draws=tuple(drawn.draws(stay)),
        levels=drawn.levels(shooting, stay, known.ask(_begins)),
        months=tuple(drawn.months(plan, stay)),
        visits=tuple(coming.told(shooting, stay)),
        telling=shooting.ask(_telling),
        aims=tuple(aim.aims(plan)),
        obstacles=tuple(in_view.obstacles(shooting)),
        glare=in_view.glare_told(shooting, stay),
    )


def _of_windows(known: Reckoning) -> Iterator[Figure | Snag]:
    windowed = known.ask(_windowed)
    if windowed is not None:
        per_day = known.ask(_scheduled).per_day
        yield from _findings(known.plan, windowed.frames, windowed.spans, windowed.windows, per_day)


def _stay(shooting: Shooting) -> Staying:
    stay = staying(shooting)
    assert stay is not None  # the families of a long run are asked of one
    return stay


def _telling(shooting: Shooting) -> TellingTold | None:
    return telling.told(shooting, _stay(shooting))


Family: TypeAlias = Callable[[Shooting], Iterable[Figure | Snag]]


def _staying(family: Callable[[Shooting, Staying], Iterable[Figure | Snag]]) -> Family:
    return lambda shooting: family(shooting, _stay(shooting))


FAMILIES: tuple[Family, ...] = (
    lambda shooting: storing.findings(shooting.plan, _stay(shooting)),
    _staying(powering.findings),
    lambda shooting: box.findings(shooting.plan, _stay(shooting)),
    clocks.findings,
    _staying(coming.findings),
    lambda shooting: aim.findings(shooting.plan),
    in_view.findings,
    noticed.findings,
    lambda shooting: telling.findings(shooting, _stay(shooting), shooting.ask(_telling)),
)


def _rules(plan: Plan, frames: Windows, spans: tuple[Span, ...], windows: tuple[Window, ...]) -> Iterator[RuleTold]:
    for number, rule in enumerate(frames.rules):
        claims = united(claimed(frames, rule, plan.shoot.place.zone, where_of(plan)))
        yield RuleTold(
            said=_said(plan, frames, rule),
            opens=edge_said(rule.opens),
            closes=edge_said(rule.closes),
            claims_h=sum(end - begin for begin, end in claims) / HOUR_S,
            has_h=sum(span.closes - span.opens for span in spans if span.rule == number) / HOUR_S,
            frames=sum(window.frames for window in windows if window.rule == number),
        )


def _said(plan: Plan, frames: Windows, rule: Rule) -> str:
    """The rule as a sentence, with the days on which the sun makes no window of it."""
    said, lost = rule_said(rule), sunless(frames, rule, plan.shoot.place.zone, where_of(plan))
    if not lost:
        return said
    days = "one day" if lost == 1 else f"{lost} days"
    return f"{said}; none on {days} when the sun stays up or stays down there"


def _findings(
    plan: Plan, frames: Windows, spans: tuple[Span, ...], windows: tuple[Window, ...], days: tuple[int, ...]
) -> Iterator[Figure | Snag]:
    if spans:
        length = sum(span.closes - span.opens for span in spans)
        yield figure(
            "season.open", "windows, in all", length / HOUR_S, "h", OPEN, term("windows_s", "windows", length, "s")
        )
    with_frames, most = sum(count > 0 for count in days), max(days, default=0)
    if most:
        yield figure(
            "season.days", "days with frames", with_frames, "days", DAYS, term("days", "days", with_frames, "days")
        )
        yield figure(
            "season.most", "frames of a day, at most", most, "frames", MOST, term("most", "most", most, "frames")
        )
    gap = longest_gap(spans)
    if gap:
        ends = term("opens", "opens", gap[1], "instant"), term("closes", "closes", gap[0], "instant")
        yield figure("season.gap", "longest gap", gap[1] - gap[0], "s", GAP, *ends)
    yield from rules.findings(plan, frames, spans, windows)
