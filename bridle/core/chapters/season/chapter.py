"""A scheduled shoot: its rules, each shown back as a sentence, and the calendar of what they cover."""

from collections.abc import Iterator

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.season import rules
from bridle.core.chapters.season.calendar import calendar_days, inked, longest_gap, midnights, per_day, sun_of
from bridle.core.chapters.season.state import RuleTold, SeasonState
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.hours import edge_said, rule_said
from bridle.core.reckon.frames.windows import Window, claimed, spans_of, where_of, windows_of
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.reckon.scene import placed
from bridle.core.snag import Snag
from bridle.core.subjects.time.windows import Span, united

KINDS = rules.KINDS
OPEN = Formula("windows_s / 3600", "all windows together, days off left out")
DAYS = Formula("days", "days of the calendar with a frame at least")
MOST = Formula("most", "the day with the most of them")
GAP = Formula("opens - closes", "from where one window closes to where the next one opens")
HOUR_S = 3600


def tell(known: Reckoning) -> Answer[SeasonState]:
    """The windows and what they come to; nothing where something else calls the frames."""
    plan, frames = known.plan, known.plan.frames
    if not isinstance(frames, Windows):
        return answer(SeasonState(), ())
    there = plan.shoot.place.zone, where_of(plan)
    spans, windows = spans_of(frames, *there), windows_of(frames, *there)
    state = _state(known, frames, spans, windows)
    return answer(state, _findings(plan, frames, spans, windows, state))


def _state(known: Reckoning, frames: Windows, spans: tuple[Span, ...], windows: tuple[Window, ...]) -> SeasonState:
    plan, shooting = known.plan, known.shooting
    zone = plan.shoot.place.zone
    days = calendar_days(frames, spans, zone)
    begins = midnights(days, zone)
    return SeasonState(
        scheduled=True,
        rules=tuple(_rules(plan, frames, spans, windows)),
        first=days[0].isoformat(),
        per_day=per_day(shooting.timeline, begins) if shooting else (0,) * len(days),
        inked=tuple(inked(spans, begins, zone)),
        sun=tuple(sun_of(days, zone, placed(plan))),
        off=tuple(any(one.first <= day <= one.last for one in frames.off) for day in days),
    )


def _rules(plan: Plan, frames: Windows, spans: tuple[Span, ...], windows: tuple[Window, ...]) -> Iterator[RuleTold]:
    for number, rule in enumerate(frames.rules):
        claims = united(claimed(frames, rule, plan.shoot.place.zone, where_of(plan)))
        yield RuleTold(
            said=rule_said(rule),
            opens=edge_said(rule.opens),
            closes=edge_said(rule.closes),
            claims_h=sum(end - begin for begin, end in claims) / HOUR_S,
            has_h=sum(span.closes - span.opens for span in spans if span.rule == number) / HOUR_S,
            frames=sum(window.frames for window in windows if window.rule == number),
        )


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
