"""What is wrong with rules: one that never calls a frame, two that fight, one that needs a place, none open at all."""

from collections.abc import Iterator, Sequence

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Rule, Windows
from bridle.core.plan.hours import rule_said
from bridle.core.reckon.frames.windows import Window, claimed, every_of, where_of
from bridle.core.reckon.scene import placed
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.time.windows import Span, united, without

EMPTY = SnagKind(
    "windows-hold-nothing",
    "stop",
    "season",
    "No window is open for a frame between {first} and {last}.",
    "The rules never meet a day, days off leave none, or the sun does not do there what they wait for.",
)
NEVER = SnagKind(
    "rule-never-fires",
    "mind",
    "season",
    "Rule {number} calls no frame: {rule}.",
    "Rules before it have all of its time, days off do, or none of its days lies in the season.",
)
FIGHT = SnagKind(
    "rules-fight",
    "mind",
    "season",
    "Rules {one} and {other} claim the same {hours} with different intervals.",
    "The first of them has that time; at each border between them the clip changes its pace.",
)
PLACE = SnagKind(
    "rule-needs-a-place",
    "stop",
    "season",
    "Rule {number} goes by the sun, and nobody knows where that comes up: {rule}.",
    "Without a latitude and a longitude it has no window at all.",
)
KINDS = (EMPTY, NEVER, FIGHT, PLACE)
DAYTIME = {"opens": {"by": "clock", "minutes": 7 * 60}, "closes": {"by": "clock", "minutes": 17 * 60}}


def findings(plan: Plan, frames: Windows, spans: Sequence[Span], windows: Sequence[Window]) -> Iterator[Snag]:
    """What is wrong with the rules of a season."""
    lost = [n for n, rule in enumerate(frames.rules) if _by_the_sun(rule) and placed(plan) is None]
    for number in lost:
        yield _needs_a_place(frames, number)
    if not windows:
        if not lost:
            yield _empty(frames)
        return
    calling = {window.rule for window in windows}
    for number in range(len(frames.rules)):
        if number not in calling and number not in lost:
            yield _never(frames, number)
    yield from _fights(plan, frames)


def _by_the_sun(rule: Rule) -> bool:
    return rule.opens.by != "clock" or rule.closes.by != "clock"


def _needs_a_place(frames: Windows, number: int) -> Snag:
    path = f"frames.rules.{number}"
    fix = Fix(
        label="By the clock, 7:00 to 17:00",
        consequence="In summer it is light before, in winter dark by then.",
        slots={},
        edits=tuple(Edit(path=f"{path}.{name}", value=value) for name, value in DAYTIME.items()),
    )
    slots = {"number": slot(str(number + 1)), "rule": slot(rule_said(frames.rules[number]))}
    return PLACE.at(path, slots, [fix])


def _empty(frames: Windows) -> Snag:
    fix = Fix(
        label="Every day from 7:00 to 17:00",
        consequence="One rule instead of those that are there; days off go.",
        slots={},
        edits=(Edit(path="frames.rules", value=[DAYTIME]), Edit(path="frames.off", value=[])),
    )
    slots = {"first": slot(frames.first.isoformat()), "last": slot(frames.last.isoformat())}
    return EMPTY.at("frames.rules", slots, [fix])


def _never(frames: Windows, number: int) -> Snag:
    slots = {"number": slot(str(number + 1)), "rule": slot(rule_said(frames.rules[number]))}
    return NEVER.at(f"frames.rules.{number}", slots, [_without(frames, number)])


def _without(frames: Windows, number: int) -> Fix:
    kept = [rule.model_dump(mode="json") for n, rule in enumerate(frames.rules) if n != number]
    return Fix(
        label="Take rule {number} out",
        consequence="The others have what they had.",
        slots={"number": slot(str(number + 1))},
        edits=(Edit(path="frames.rules", value=kept),),
    )


def _fights(plan: Plan, frames: Windows) -> Iterator[Snag]:
    """Two rules at a time, the first pair of each rule."""
    zone, where = plan.shoot.place.zone, where_of(plan)
    claims = [united(claimed(frames, rule, zone, where)) for rule in frames.rules]
    for later in range(1, len(claims)):
        for one in range(later):
            if every_of(frames, one) == every_of(frames, later):
                continue
            mine = [Span(*pair, later) for pair in claims[later]]
            left = sum(span.closes - span.opens for span in without(mine, claims[one]))
            both = sum(span.closes - span.opens for span in mine) - left
            if both and left:
                yield _fight(frames, one, later, both)
                break


def _fight(frames: Windows, one: int, later: int, both_s: int) -> Snag:
    same = Fix(
        label="Give rule {other} the interval of rule {one}",
        consequence="The clip goes at one pace through both.",
        slots={"one": slot(str(one + 1)), "other": slot(str(later + 1))},
        edits=(Edit(path=f"frames.rules.{later}.every_s", value=str(every_of(frames, one))),),
    )
    slots = {"one": slot(str(one + 1)), "other": slot(str(later + 1)), "hours": slot(both_s, "s")}
    return FIGHT.at(f"frames.rules.{later}.every_s", slots, [same])
