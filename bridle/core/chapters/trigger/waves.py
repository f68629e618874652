"""The time of one frame: a line for each contact, lamp and shutter, on when it is closed, lit or open."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.state import Wave
from bridle.core.reckon.calls import Call, Span, call_of, lit
from bridle.core.reckon.exposed import Exposures
from bridle.core.reckon.hearing import Hearing
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.wiring import parts_of

# More exposures than this are one bar.
MOST_BARS = 60
# What is on the wires of a source, as the drawing calls it.
PRESSED = {"buttons": "contact", "switch": "switch", "pin": "pin", "headset": "button", "nothing": ""}
OWN = {
    "camera timer": "the camera's own timer",
    "app": "the app",
    "computer": "the computer, over its cable",
    "camera board": "the camera board's own clock",
}


def waves(shooting: Shooting) -> Iterator[Wave]:
    """All lines, from what fires to what is lit."""
    call, found = call_of(shooting), shooting.hearing
    source = parts_of(shooting.plan).source
    if found is not None:
        yield from _pressed(shooting, call, found)
    elif source is not None:
        yield Wave(
            name="call", label=OWN.get(source.source, source.source), on=((call.full, call.opens),), kind="source"
        )
    yield from _camera(call, found, shooting.cycle.exposures)
    for one in lit(shooting):
        label = one.lamp.name
        if not one.switched or one.use is None:
            yield Wave(name=f"lamp-{one.index}", label=label, on=((0.0, call.interval),), kind="lamp", note="always on")
            continue
        between = ((0.0, one.on), (one.off, call.interval))
        spans = tuple(_joined(one.spans)) if one.use.lit == "for the frame" else between
        kept = tuple((max(0.0, a), min(b, call.interval)) for a, b in spans if b > a)
        yield Wave(name=f"lamp-{one.index}", label=label, on=kept, kind="lamp", note=one.use.lit)


def _joined(spans: tuple[Span, ...]) -> Iterator[tuple[float, float]]:
    """What goes on from one to the next at another level is lit all along."""
    on, off, _ = spans[0]
    for span in spans[1:]:
        if span.on > off:
            yield on, off
            on = span.on
        off = span.off
    yield on, off


def _pressed(shooting: Shooting, call: Call, found: Hearing) -> Iterator[Wave]:
    """What the source does, and what of it the camera hears."""
    word, wired = PRESSED[found.wiring.output], found.wiring
    if wired.parts.source is not None and wired.parts.source.half_press and wired.output in ("buttons", "pin"):
        begins = call.half if call.half is not None else call.full
        yield Wave(name="half", label=f"half press, {word}", on=((begins, call.off),), kind="source")
    yield Wave(name="full", label=f"full press, {word}", on=((call.full, call.off),), kind="source")
    late, rest = call.heard - call.full, found.stages["rest"]
    if found.verdict == "not known":
        return
    for contact in ("focus", "shutter"):
        held = [getattr(found.stages[stage], contact) for stage in ("rest", "half", "full")]
        if contact in _listens(found):
            yield Wave(
                name=f"hears-{contact}",
                label=f"camera hears {contact}",
                kind="camera",
                on=tuple(_closed(call, held, late)),
                note="held" if getattr(rest, contact) else "",
            )


def _listens(found: Hearing) -> tuple[str, ...]:
    camera = found.wiring.parts.camera
    assert camera is not None
    return {"half and full press": ("focus", "shutter"), "full press": ("shutter",)}.get(camera.hears, ())


def _closed(call: Call, held: list[bool], late: float) -> Iterator[tuple[float, float]]:
    """When a contact is closed, from what it does at rest, at half and at full press."""
    half = (call.half if call.half is not None else call.full) + late
    stages = (
        (0.0, half, held[0]),
        (half, call.heard, held[1]),
        (call.heard, call.unheard, held[2]),
        (call.unheard, call.interval, held[0]),
    )
    begun: float | None = None
    for start, end, closed in stages:
        if closed and begun is None:
            begun = start
        if not closed and begun is not None:
            yield begun, start
            begun = None
        if closed and end == call.interval and begun is not None:
            yield begun, end


def _camera(call: Call, found: Hearing | None, exposing: Exposures) -> Iterator[Wave]:
    takes = found is None or found.verdict == "takes"
    if call.wakes is not None and call.wakes[1] > call.wakes[0] and takes:
        yield Wave(name="wake", label="camera wakes", on=(call.wakes,), kind="busy")
    opens = tuple(_exposed(call, exposing)) if takes else ()
    yield Wave(name="shutter", label="shutter open", on=opens, kind="shutter", note="" if takes else "no frame")


def _exposed(call: Call, exposing: Exposures) -> Iterator[tuple[float, float]]:
    """Each exposure of the beat; too many to be told apart are one."""
    if exposing.count > MOST_BARS:
        yield call.opens, call.closed
        return
    now = call.opens
    for exposure, gap in exposing.in_turn():
        yield now, now + exposure
        now += exposure + gap
