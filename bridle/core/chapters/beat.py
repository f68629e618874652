"""What has to fit inside one interval, and whether it does."""

from dataclasses import dataclass, field

from bridle.core.chapters import beat_measure, beat_snags
from bridle.core.chapters.beat_measure import Cycle
from bridle.core.chapters.clip import ClipAnswer
from bridle.core.chapters.path import PathAnswer
from bridle.core.chapters.travels import longest_steps
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
    figure: str | None = None


@dataclass(frozen=True)
class BeatAnswer:
    """The tightest cycle against its interval, and its parts in the order of time."""

    cycle: Cycle
    parts: tuple[Part, ...]
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer, path: PathAnswer) -> BeatAnswer | None:
    """The beat; None while the clip is open."""
    if clip.solution is None:
        return None
    one = beat_measure.measure(plan, clip.solution, clip.pace, places=path.positions)
    slots = beat_measure.slots_of(clip.solution, clip.pace)
    steps = longest_steps(plan, path.positions)
    snags = [
        *beat_snags.too_slow(plan, steps, slots),
        *beat_snags.too_short(plan, one),
        *beat_snags.too_near(plan),
        *beat_snags.dark_frames(plan, one, clip.solution),
    ]
    return BeatAnswer(one, _parts(one), beat_measure.figures(one, plan.camera), snags)


def _parts(one: Cycle) -> tuple[Part, ...]:
    beat = one.beat
    parts, now = [Part("wake", "wake", 0.0, float(beat.wake_s), "outer", "beat.wake_s")], float(beat.wake_s)
    for move_s in one.travels_s:
        now = _visit(parts, one, now, move_s)
    free = float(one.interval_s) - one.margin_s
    parts.append(Part("spare", "spare", one.need_s, max(0.0, free - one.need_s), "outer", None, "beat.spare"))
    # Where the beat does not fit, the margin is what it overruns by besides.
    parts.append(
        Part("margin", "margin kept", max(one.need_s, free), one.margin_s, "outer", "beat.margin", "beat.margin")
    )
    return tuple(parts)


def _visit(parts: list[Part], one: Cycle, now: float, move_s: float) -> float:
    """Exposing at one place, storing, and moving on; returns when the next place can be exposed."""
    beat, told = one.beat, one.exposures
    before = (
        ("lag", "shutter lag", float(beat.lag_s), "beat.lag_s", None),
        (
            "exposure",
            "exposure",
            told.busy_s,
            "beat.exposure_s",
            "beat.exposures" if told.busy_s != float(beat.exposure_s) else None,
        ),
    )
    for name, label, length, place, figure in before:
        parts.append(Part(name, label, now, length, "outer", place, figure))
        now += length
    store = now
    if told.processing_s:
        parts.append(Part("process", "processing", store, told.processing_s, "outer", None, "beat.processing"))
        store += told.processing_s
    if one.write_s:
        parts.append(Part("write", "write to card", store, one.write_s, "outer", "beat.write_s"))
    if not beat.continuous:
        inner = "inner" if beat.write_while_moving else "outer"
        moving = now if beat.write_while_moving else store + one.write_s
        settle = one.settle_s if move_s else 0.0
        parts.append(Part("move", "move", moving, move_s, inner, None, "beat.move"))
        parts.append(Part("settle", "settle", moving + move_s, settle, inner, "beat.settle_s"))
        return max(store + one.write_s, moving + move_s + settle)
    return store + one.write_s
