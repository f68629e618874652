"""What has to fit inside one interval of a shoot-move-shoot, and whether it does."""

from dataclasses import dataclass, field

from bridle.core.chapters import beat_measure, beat_snags
from bridle.core.chapters.beat_measure import Cycle
from bridle.core.chapters.clip import ClipAnswer
from bridle.core.chapters.path import PathAnswer
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.snag import Snag

KINDS = beat_snags.KINDS


@dataclass(frozen=True)
class Part:
    """A part of the beat as drawn: where it starts and how long it lasts, in seconds, and on which track."""

    name: str
    label: str
    start_s: float
    length_s: float
    track: str
    path: str | None


@dataclass(frozen=True)
class BeatAnswer:
    """One cycle against its interval, and its parts in the order of time."""

    cycle: Cycle
    parts: tuple[Part, ...]
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer, path: PathAnswer) -> BeatAnswer | None:
    """The beat; None while the clip is open."""
    if clip.solution is None:
        return None
    one = beat_measure.measure(plan, path.longest_step, clip.solution.interval)
    snags = beat_snags.too_slow(plan, path.longest_step, one) + beat_snags.too_short(plan, one)
    return BeatAnswer(one, _parts(one), beat_measure.figures(one), snags)


def _parts(one: Cycle) -> tuple[Part, ...]:
    beat = one.beat
    parts, now = [], 0.0
    for name, label in (("wake", "wake"), ("lag", "shutter lag"), ("exposure", "exposure")):
        length = float(getattr(beat, f"{name}_s"))
        parts.append(Part(name, label, now, length, "outer", f"beat.{name}_s"))
        now += length
    parts.append(Part("write", "write to card", now, float(beat.write_s), "outer", "beat.write_s"))
    inner = "inner" if beat.write_while_moving else "outer"
    moving = now if beat.write_while_moving else now + float(beat.write_s)
    parts.append(Part("move", "move", moving, one.move_s, inner, None))
    parts.append(Part("settle", "settle", moving + one.move_s, one.settle_s, inner, "beat.settle_s"))
    free = float(one.interval_s) - one.margin_s
    parts.append(Part("spare", "spare", one.need_s, max(0.0, free - one.need_s), "outer", None))
    # Where the beat does not fit, the margin is what it overruns by besides.
    parts.append(Part("margin", "margin kept", max(one.need_s, free), one.margin_s, "outer", "beat.margin"))
    return tuple(parts)
