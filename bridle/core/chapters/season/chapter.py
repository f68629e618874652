"""A scheduled shoot: its rules, each shown back as a sentence, and the calendar of what they cover."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

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
from bridle.core.chapters.season.state import RuleTold, SeasonState
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
    stay = staying(shooting) if shooting else None
    windowed = _Windowed.of(known.plan)
    if windowed is None and stay is None:
        return answer(SeasonState(), ())
    days = _days(known, windowed)
    begins = midnights(days, known.plan.shoot.place.zone)
    state = _state(known, windowed, stay, days, begins)
    return answer(state, (*_of_windows(known.plan, windowed, state), *_of_staying(shooting, stay, state)))


def windows_alone(known: Reckoning) -> Answer[SeasonState]:
    """What the rules of work windows come to, and nothing that follows from them: for a drag."""
    windowed = _Windowed.of(known.plan)
    if windowed is None:
        return answer(SeasonState(), ())
    days = _days(known, windowed)
    state = _state(known, windowed, None, days, midnights(days, known.plan.shoot.place.zone))
    return answer(state, (one for one in _of_windows(known.plan, windowed, state) if isinstance(one, Figure)))


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


def _days(known: Reckoning, windowed: _Windowed | None) -> list[date]:
    """The days of the calendar: of the rules, or from the first frame to the last."""
    if windowed is not None:
        return calendar_days(windowed.frames, windowed.spans, known.plan.shoot.place.zone)
    assert known.shooting is not None  # without windows there is a long run
    times = known.shooting.timeline
    first, last = times.clock(0).date(), times.clock(times.frames - 1).date()
    return [first + timedelta(days=number) for number in range((last - first).days + 1)]


def _state(
    known: Reckoning, windowed: _Windowed | None, stay: Staying | None, days: list[date], begins: list[int]
) -> SeasonState:
    plan, shooting = known.plan, known.shooting
    zone = plan.shoot.place.zone
    state = SeasonState(
        first=days[0].isoformat(),
        per_day=per_day(shooting.timeline, begins) if shooting else (0,) * len(days),
        sun=tuple(sun_of(days, zone, placed(plan))),
        off=(False,) * len(days),
    )
    if windowed is not None:
        state.scheduled = True
        state.rules = tuple(_rules(plan, windowed.frames, windowed.spans, windowed.windows))
        state.inked = tuple(inked(windowed.spans, begins, zone))
        state.off = tuple(any(one.first <= day <= one.last for one in windowed.frames.off) for day in days)
    if shooting is not None and stay is not None:
        state.long, state.fed_by = True, stay.power.supply.by
        state.draws = tuple(drawn.draws(stay))
        state.levels = drawn.levels(shooting, stay, begins)
        state.months = tuple(drawn.months(plan, stay))
        state.visits = tuple(coming.told(shooting, stay))
        state.telling = telling.told(shooting, stay)
        state.aims = tuple(aim.aims(plan))
        state.obstacles = tuple(in_view.obstacles(shooting))
        state.glare = in_view.glare_told(shooting, stay)
    return state


def _of_windows(plan: Plan, windowed: _Windowed | None, state: SeasonState) -> Iterator[Figure | Snag]:
    if windowed is not None:
        yield from _findings(plan, windowed.frames, windowed.spans, windowed.windows, state)


def _of_staying(shooting: Shooting | None, stay: Staying | None, state: SeasonState) -> Iterator[Figure | Snag]:
    if shooting is None or stay is None:
        return
    yield from storing.findings(shooting.plan, stay)
    yield from powering.findings(shooting, stay)
    yield from box.findings(shooting.plan, stay)
    yield from clocks.findings(shooting)
    yield from coming.findings(shooting, stay)
    yield from aim.findings(shooting.plan)
    yield from in_view.findings(shooting)
    yield from noticed.findings(shooting)
    yield from telling.findings(shooting, stay, state.telling)


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
    plan: Plan, frames: Windows, spans: tuple[Span, ...], windows: tuple[Window, ...], state: SeasonState
) -> Iterator[Figure | Snag]:
    if spans:
        length = sum(span.closes - span.opens for span in spans)
        yield figure(
            "season.open", "windows, in all", length / HOUR_S, "h", OPEN, term("windows_s", "windows", length, "s")
        )
    with_frames, most = sum(count > 0 for count in state.per_day), max(state.per_day, default=0)
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
