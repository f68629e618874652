"""What the field card says of the trigger: the press, the lamps, and how the chain was tried."""

from collections.abc import Iterator

from bridle.core.chapters.review.lines import line, some
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.plan.document import Plan
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
    return some("Trigger", [*_pressed(shooting), *_lamps(shooting.plan)])


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


def _lamps(plan: Plan) -> Iterator[SettingLine]:
    for _, lamp, use in lamps_of(plan):
        if use is None or use.lit == "always":
            continue
        before = lamp.warm_up_s if use.before_s is None else use.before_s
        on = "off" if use.lit == "between frames" else "on"
        by = f", pin {use.pin}" if use.pin else ""
        which = listed([str(number) for number in use.exposures])
        of = f"exposure {which}" if use.exposures else "the frame"
        level = "" if use.level == 1 else f", at {write(use.level, 'share')}"
        yield line(lamp.name, slot(f"{on} {write(before, 's')} ahead of {of}{level}{by}"))


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
