"""Shoot, interval, frames, rate, clip and speed-up: any three independent ones fix the rest.

With `D` shoot length, `T` interval, `N` frames, `f` playback rate, `C` clip length and `S` speed-up the
equations are `D = N·T`, `C = N/f`, `S = T·f`, hence `D = S·C`. Every quantity is an exact `Fraction`
(seconds, frames, frames a second, times). Where a share of the frames is to be culled, `keep` is the share
that stays: `N = ⌈⌈C·f⌉ / keep⌉` frames are shot and `⌊N·keep⌋` make the clip.
"""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import NamedTuple

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.rounding import floor_to

Holds = Mapping[str, Fraction]
NAMES = ("shoot", "interval", "frames", "rate", "clip", "speed_up")
HALF = Fraction(1, 2)
ALL = Fraction(1)
# Holds that fix no frame count are compared as ratios; a part in ten thousand is no contradiction.
RATIO_TOLERANCE = Fraction(1, 10_000)

# product = factor × factor; each group fixes its third quantity from the other two.
TRIANGLES = (
    ("shoot", "frames", "interval"),
    ("frames", "clip", "rate"),
    ("speed_up", "interval", "rate"),
    ("shoot", "speed_up", "clip"),
)
# Ways to a frame count: multiplied quantities over divided ones.
WAYS: tuple[tuple[tuple[str, ...], tuple[str, ...]], ...] = (
    (("frames",), ()),
    (("clip", "rate"), ()),
    (("shoot",), ("interval",)),
    (("shoot", "rate"), ("speed_up",)),
    (("clip", "speed_up"), ("interval",)),
)

SHOOT = Formula("frames * interval", "each frame owns one slot of the interval")
CLIP = Formula("frames / rate", "frames over playback rate")
KEPT = Formula("max(1, floor(frames * (1 - spare)))", "the frames that stay when the spare ones have been culled")
CLIP_KEPT = Formula(
    "max(1, floor(frames * (1 - spare))) / rate", "the frames that stay after culling, over playback rate"
)
SPEED_UP = Formula("interval * rate", "real time over clip time, frame by frame")
INTERVAL_SHARED = Formula(
    "max(step, down_to(shoot / frames, step))",
    "the shoot shared among the frames, down to the step that can be dialled",
)
INTERVAL_SPEED = Formula("speed_up / rate", "speed-up over playback rate")
RATE_CLIP = Formula("frames / clip", "frames over clip length")
RATE_CLIP_KEPT = Formula("max(1, floor(frames * (1 - spare))) / clip", "the frames that stay, over clip length")
RATE_SPEED = Formula("speed_up / interval", "speed-up over interval")
RATE_ENDS = Formula("speed_up * frames / shoot", "speed-up over the interval that the shoot leaves each frame")
SAME_FRAMES = Formula("frames / other", "the same frames read at another rate")
FRAMES_HELD = Formula("frames", "held as typed")
FRAMES_EXPRESSIONS = {
    ("clip", "rate"): "clip * rate",
    ("shoot", "interval"): "shoot / interval",
    ("shoot", "rate", "speed_up"): "shoot * rate / speed_up",
    ("clip", "speed_up", "interval"): "clip * speed_up / interval",
}

RATES = (
    Fraction(24000, 1001),
    Fraction(24),
    Fraction(25),
    Fraction(30000, 1001),
    Fraction(30),
    Fraction(48),
    Fraction(50),
    Fraction(60000, 1001),
    Fraction(60),
)


class Estimate(NamedTuple):
    """A frame count that follows from some of the holds."""

    names: tuple[str, ...]
    frames: Fraction


class Conflict(NamedTuple):
    """Two groups of holds that cannot both be true, with what each gives for the same quantity."""

    first: tuple[str, ...]
    first_value: Fraction
    second: tuple[str, ...]
    second_value: Fraction
    quantity: str

    @property
    def names(self) -> tuple[str, ...]:
        """All held quantities that take part, in their usual order."""
        return tuple(name for name in NAMES if name in self.first + self.second)


@dataclass(frozen=True)
class Solution:
    """All six quantities. Held `shoot` and `clip` may differ from what was asked by the rounding."""

    shoot: Fraction
    interval: Fraction
    frames: int
    rate: Fraction
    clip: Fraction
    speed_up: Fraction
    frames_from: Estimate
    kept: int

    def value(self, name: str) -> Fraction:
        """One quantity by its name."""
        return Fraction(getattr(self, name))


def estimates(holds: Holds, keep: Fraction = ALL) -> list[Estimate]:
    """Every frame count that the holds give, before rounding; the spare frames come on top of a held clip."""
    found = []
    for over, under in WAYS:
        if all(name in holds for name in over + under):
            count = math.prod((holds[n] for n in over), start=Fraction(1)) / math.prod(holds[n] for n in under)
            if "clip" in over and keep != ALL:
                count = math.ceil(count) / keep
            found.append(Estimate(over + under, count))
    return found


def known(names: Iterable[str]) -> set[str]:
    """The quantities that follow from the named ones, themselves included."""
    found = set(names)
    for _ in NAMES:
        for triangle in TRIANGLES:
            if len(found & set(triangle)) == 2:
                found |= set(triangle)
    return found


def still_free(holds: Holds) -> tuple[str, ...]:
    """The quantities that the holds leave open."""
    return tuple(name for name in NAMES if name not in known(holds))


def conflict(holds: Holds, keep: Fraction = ALL) -> Conflict | None:
    """The worst disagreement: no whole frame count meets all holds within half a frame; None if they agree."""
    found = estimates(holds, keep)
    if not found or candidates(found):
        return _ratio_conflict(holds, keep, max(found, key=_count).frames if found else None)
    low, high = min(found, key=_count), max(found, key=_count)
    return Conflict(low.names, low.frames, high.names, high.frames, "frames")


def _count(estimate: Estimate) -> Fraction:
    return estimate.frames


def _ratio_conflict(holds: Holds, keep: Fraction, frames: Fraction | None) -> Conflict | None:
    """A speed-up that the interval and the rate, or both lengths, do not give. Lengths are of whole frames only."""
    rounding = 1 / max(ALL, frames * keep) if frames is not None else Fraction(0)
    for (product, one, other), more in ((TRIANGLES[2], Fraction(0)), (TRIANGLES[3], rounding)):
        if product in holds and one in holds and other in holds:
            made = holds[one] * holds[other] / (keep if other == "clip" else ALL)
            if abs(made - holds[product]) > (RATIO_TOLERANCE + more) * made:
                return Conflict((product,), holds[product], (one, other), made, product)
    return None


def candidates(found: list[Estimate]) -> list[int]:
    """The whole frame counts, at least 1, within half a frame of every estimate.

    A single estimate, or several that say the same, have no contradiction to fear: they round either way.
    """
    if len({estimate.frames for estimate in found}) == 1:
        return [max(1, math.floor(found[0].frames)), max(1, math.ceil(found[0].frames))]
    low = max(estimate.frames for estimate in found) - HALF
    high = min(estimate.frames for estimate in found) + HALF
    return list(range(max(1, math.ceil(low)), math.floor(high) + 1))[:2]


def solve(holds: Holds, step: Fraction = Fraction(0), keep: Fraction = ALL) -> Solution:
    """Solve holds that fix everything and agree. Raises ValueError where they do not."""
    if still_free(holds) or conflict(holds, keep):
        raise ValueError("the holds leave something free or contradict one another")
    chosen, frames = _whole_frames(holds, keep)
    kept = kept_frames(frames, keep)
    rate = _rate(holds, frames, kept)
    interval = _interval(holds, frames, rate, step)
    return Solution(frames * interval, interval, frames, rate, kept / rate, interval * rate, chosen, kept)


def kept_frames(frames: int, keep: Fraction) -> int:
    """The frames that make the clip once the spare ones have been culled; at least one."""
    return max(1, math.floor(frames * keep))


def _whole_frames(holds: Holds, keep: Fraction) -> tuple[Estimate, int]:
    """Clip held: up. Shoot held: down. Frames held: as they are. The rest cannot need rounding."""
    found = estimates(holds, keep)
    whole = candidates(found)
    chosen = next((e for e in found if "frames" in e.names), None)
    chosen = chosen or next((e for e in found if "clip" in e.names), found[0])
    if len({estimate.frames for estimate in found}) > 1 or chosen.names == ("frames",):
        return chosen, min(whole, key=lambda n: (abs(n - chosen.frames), -n))
    return chosen, whole[-1] if "clip" in chosen.names else whole[0]


def _rate(holds: Holds, frames: int, kept: int) -> Fraction:
    if "rate" in holds:
        return holds["rate"]
    if "speed_up" in holds and "interval" in holds:
        return holds["speed_up"] / holds["interval"]
    return kept / holds["clip"] if "clip" in holds else _rate_from_ends(holds, frames)


def _rate_from_ends(holds: Holds, frames: int) -> Fraction:
    """Shoot, frames and speed-up held: the rate that gives the speed-up with the shared interval."""
    return holds["speed_up"] * frames / holds["shoot"]


def _interval(holds: Holds, frames: int, rate: Fraction, step: Fraction) -> Fraction:
    if "interval" in holds:
        return holds["interval"]
    if "speed_up" in holds:
        return holds["speed_up"] / rate
    return floor_to(holds["shoot"] / frames, step) or step


def frames_formula(solution: Solution, keep: Fraction = ALL) -> Formula:
    """The rule that gave the frame count: up for a held clip, down for a held shoot, else to the nearest."""
    names, raw = solution.frames_from
    if names == ("frames",):
        return FRAMES_HELD
    expression = FRAMES_EXPRESSIONS[names]
    if "clip" in names and keep != ALL:
        expression = f"ceil({expression}) / (1 - spare)"
    rules = [
        ("ceil", math.ceil(raw), "rounded up, so that the clip is not too short"),
        ("floor", math.floor(raw), "rounded down, so that the shoot ends in time"),
    ]
    if "clip" not in names:
        rules.reverse()
    for word, count, reason in rules:
        if max(1, count) == solution.frames:
            return Formula(f"max(1, {word}({expression}))", reason)
    return Formula(f"round({expression})", "the whole number that all holds agree on")


def rate_formula(holds: Holds, keep: Fraction = ALL) -> Formula:
    """The rule that gave the playback rate, where it is not held."""
    if "speed_up" in holds and "interval" in holds:
        return RATE_SPEED
    if "clip" in holds:
        return RATE_CLIP if keep == ALL else RATE_CLIP_KEPT
    return RATE_ENDS


def nearest_rate(rate: Fraction) -> Fraction:
    """The rate in common use that lies nearest."""
    return min(RATES, key=lambda other: abs(other - rate))
