"""What the field card says of the trigger: the press, the lamps, and how the chain was tried."""

from collections.abc import Iterator

from bridle.core.chapters.review.lines import line, some
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.plan.document import Plan
from bridle.core.plan.trigger import LampUse
from bridle.core.plan.wired import Lamp, Trigger
from bridle.core.quantity import listed, write
from bridle.core.reckon.calls import lamps_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.tested import Step, steps
from bridle.core.reckon.wiring import parts_of
from bridle.core.snag import slot

# What has a cell of its own, which is empty on the day.
WITH_CELL = ("wired remote", "wireless remote")
STANDS = {
    "missed": "not passed",
    "older": "older than a change of the chain: once more",
    "never": "not done yet",
    "fewer": "fewer presses than this many frames ask for",
    "simulated": "with the simulated camera alone",
}


def firing(shooting: Shooting) -> list[SettingSheet]:
    """A section of its own where a person has wired or set what presses; what is bought presses as it was made to."""
    return some("Trigger", [*_pressed(shooting), *_lamps(shooting)])


def bench_test(shooting: Shooting) -> Iterator[SettingLine]:
    """How the chain stands on the bench; nothing where none is wired."""
    if shooting.hearing is not None:
        yield line("bench test", slot(_tried(steps(shooting.plan, shooting.frames))))


def _pressed(shooting: Shooting) -> Iterator[SettingLine]:
    chain, beat = shooting.plan.trigger, shooting.plan.beat
    if chain.keep_awake_s is not None:
        yield line("keep it awake", slot(f"press every {write(chain.keep_awake_s, 's')}"))
    found = shooting.hearing
    if found is None:
        return
    if found.wiring.output == "buttons":
        if beat.half_s:
            yield line("half press ahead", slot(beat.half_s, "s"))
        return
    if chain.pin:
        yield line("pin", slot(chain.pin))
    if beat.half_s:
        yield line("half press ahead", slot(beat.half_s, "s"))
    yield line("press for", slot(beat.press_s, "s"), "trigger.heard")
    if chain.dwell_s is not None:
        yield line("wait for the frame", slot(chain.dwell_s, "s"), "trigger.closed")


def _tried(done: tuple[Step, ...]) -> str:
    """The worst that is to be said of the tests."""
    if all(step.stand == "never" for step in done):
        return "not done yet"
    for stand in ("missed", "older", "never", "fewer", "simulated"):
        left = [f"{step.what}{f' ({step.asked})' if step.what == 'many presses' else ''}" for step in done
                if step.stand == stand]  # fmt: skip
        if left:
            return f"{listed(left)}: {STANDS[stand]}"
    last = max(step.last.on for step in done if step.last)
    return f"passed, {last.day} {last:%b %Y}"


def _lamps(shooting: Shooting) -> Iterator[SettingLine]:
    exposures = len(shooting.cycle.exposures.bracket_s)
    for _, lamp, use in lamps_of(shooting.plan):
        if use is None or use.lit == "always":
            continue
        before = lamp.warm_up_s if use.before_s is None else use.before_s
        on = "off" if use.lit == "between frames" else "on"
        by = f", pin {use.pin}" if use.pin else ""
        yield line(lamp.name, slot(f"{on} {write(before, 's')} ahead of {_lit_for(use, exposures)}{by}"))


def _lit_for(use: LampUse, exposures: int) -> str:
    """The frame, or which exposures of it; and how bright, where that is not full."""
    each = range(1, exposures + 1)
    levels = [use.level(number) for number in each] if use.lit == "for the frame" else [use.brightest]
    lit = [number for number, level in enumerate(levels, 1) if level]
    bright = {levels[number - 1] for number in lit}
    if len(bright) > 1:
        return listed([f"exposure {number} at {write(levels[number - 1], 'share')}" for number in lit])
    numbers = listed([str(number) for number in lit])
    of = "the frame" if len(lit) == len(levels) else f"exposure{'s' if len(lit) > 1 else ''} {numbers}"
    level = next(iter(bright), 1.0)
    return of if level == 1 else f"{of}, at {write(level, 'share')}"


def to_pack(plan: Plan) -> Iterator[str]:
    """What a chain needs besides its parts: an adapter lead, a spare cell."""
    parts = parts_of(plan)
    source, camera, cable = parts.source, parts.camera, parts.cable
    if isinstance(source, Trigger) and camera is not None:
        plug = cable.to_plug if cable is not None else source.socket
        wired = source.source in ("wired remote", "controller", "switch", "headset")
        if wired and "none" not in (plug, camera.socket) and plug != camera.socket:
            yield f"adapter lead, {plug} to {camera.socket}"
    if isinstance(source, Trigger) and source.source in WITH_CELL:
        yield f"spare cell for the {source.name}"
    if any(isinstance(copy.card, Lamp) for copy in plan.kit.copies) and plan.trigger.lamps:
        yield "a spare fuse for the lamps"
