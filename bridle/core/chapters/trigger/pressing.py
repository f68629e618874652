"""The press in time: long enough, over before the next, with a camera that is awake, and frames that do not wait."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.clip_offers import clip_fixes
from bridle.core.asks.pegs import no_shorter
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Imager, Phone
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.calls import call_of, heard_press_s, longest_gap_s, needed_press_s, sleeps
from bridle.core.reckon.hearing import Hearing
from bridle.core.reckon.printing import layered, stays_s
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.wiring import parts_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.rounding import ceil_to

SHORT = SnagKind(
    "press-too-short",
    "stop",
    "trigger",
    "The {camera} hears the press for {heard}; it takes no notice of less than {needed}.",
    "It looks at its contacts now and then: what is gone by then was never there.",
)
LONG = SnagKind(
    "press-not-released",
    "stop",
    "trigger",
    "The press lasts until {until} of a beat of {interval}: it is not let go before the next.",
    "The camera fires when a contact closes. One that stays closed fires once, or goes on firing by itself.",
)
ASLEEP = SnagKind(
    "camera-asleep",
    "stop",
    "trigger",
    "The {camera} sleeps after {sleeps}; the longest gap is {gap}, and nothing wakes it before the press.",
    "The press that wakes it takes no frame: it needs {wake}, and hears the full press for {heard}.",
)
IDLE = SnagKind(
    "falls-asleep",
    "stop",
    "trigger",
    "The {device} sleeps after {sleeps}; the longest gap is {gap}.",
    "What sleeps calls nothing. Something has to be pressed in between that takes no frame, or its sleep be switched "
    "off.",
)
DWELL = SnagKind(
    "dwell-too-short",
    "stop",
    "trigger",
    "What calls the frames goes on after {dwell}; the shutter closes {closed} after the press.",
    "It moves into the exposure: the frame is blurred.",
)
FOCUSES = SnagKind(
    "focus-blocks-release",
    "stop",
    "trigger",
    "The {camera} focuses before every frame, and does not release until it has found focus.",
    "In the dark, in fog, on a blank wall it never does: the frame is missing, and nobody is told.",
)
HUNTS = SnagKind(
    "autofocus-left-on",
    "mind",
    "trigger",
    "The {camera} focuses anew for every frame.",
    "Each frame is focused a little differently: the clip breathes, and now and then one is not sharp at all.",
)
STABLE = SnagKind(
    "stabiliser-left-on",
    "mind",
    "trigger",
    "The stabiliser is left on.",
    "On something that stands still it looks for movement and makes some: the picture wanders by a few pixels.",
)
KINDS = (SHORT, LONG, ASLEEP, IDLE, DWELL, FOCUSES, HUNTS, STABLE)

TENTH_S = Fraction(1, 10)
HEARD = Formula("press + release - operate", "a relay is late both ways, by what it takes to pull in and to let go")
CLOSED = Formula("couple + lag + exposures", "from the press to the closed shutter")
KEEP = Formula("sleeps * share", "well inside of what it stays awake for")
AWAKE_SHARE = Fraction(4, 5)


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """The press against the camera, the next press, sleep, and what calls."""
    found = shooting.hearing
    if found is not None:
        yield from _figures(shooting)
    if found is not None and found.verdict == "takes":
        camera = found.wiring.parts.camera
        assert camera is not None
        yield from _awake(shooting, found, camera)
        yield from _released(shooting)
    yield from _idle(shooting)
    yield from _dwells(shooting)
    yield from _left_on(shooting)


def _figures(shooting: Shooting) -> Iterator[Figure]:
    plan, call, coupling = shooting.plan, call_of(shooting), parts_of(shooting.plan).coupling
    terms = (
        term("press", "pressed for", plan.beat.press_s, "s"),
        term("release", "the coupling lets go in", coupling.release_s if coupling else Fraction(0), "s"),
        term("operate", "the coupling closes in", plan.beat.couple_s if coupling else Fraction(0), "s"),
    )
    yield figure("trigger.heard", "the camera hears the press for", heard_press_s(plan), "s", HEARD, *terms)
    closed = (
        term("couple", "until the contact closes", plan.beat.call_s + plan.beat.couple_s, "s"),
        term("lag", "shutter lag", plan.beat.lag_s, "s"),
        term("exposures", "exposures and what lies between", call.closed - call.opens, "s"),
    )
    until = call.closed - float(plan.beat.ready_s)
    yield figure("trigger.closed", "from the press to the closed shutter", until, "s", CLOSED, *closed)


def _awake(shooting: Shooting, found: Hearing, camera: Imager) -> Iterator[Snag]:
    """Long enough for a camera that is awake, and ahead of it enough for one that is not."""
    plan, heard = shooting.plan, heard_press_s(shooting.plan)
    gap, wake = longest_gap_s(shooting), float(plan.beat.wake_s)
    asleep = sleeps(shooting)
    woken = bool(found.stages["half"].focus) and float(plan.beat.half_s) >= wake
    needed = needed_press_s(camera, asleep, woken, wake)
    slots = {"camera": slot(camera.name), "heard": slot(heard, "s")}
    least = needed_press_s(camera, False, False, wake)
    if heard < least - 1e-9:
        yield SHORT.at("beat.press_s", {**slots, "needed": slot(least, "s")}, [_longer(shooting, least)])
    elif heard < needed - 1e-9:
        told = {**slots, "sleeps": slot(camera.sleeps_after_s, "s"), "gap": slot(gap, "s"), "wake": slot(wake, "s")}
        yield ASLEEP.at("beat.half_s", told, list(_waking(shooting, found, camera, needed)))


def _longer(shooting: Shooting, needed: float) -> Fix:
    late = heard_press_s(shooting.plan) - float(shooting.plan.beat.press_s)
    press = ceil_to(needed - late + 1e-9, TENTH_S)
    return Fix(
        label="Press for {press}",
        consequence="Released well before the next press.",
        slots={"press": slot(press, "s")},
        edits=(Edit(path="beat.press_s", value=str(press)),),
    )


def _waking(shooting: Shooting, found: Hearing, camera: Imager, needed: float) -> Iterator[Fix]:
    wake = shooting.plan.beat.wake_s
    if found.stages["half"].focus:
        yield Fix(
            label="Half press {wake} ahead",
            consequence="It wakes the camera; the full press then finds it ready.",
            slots={"wake": slot(wake, "s")},
            edits=(Edit(path="beat.half_s", value=str(wake)),),
        )
    yield _longer(shooting, needed)
    yield _kept_awake(camera.sleeps_after_s)


def _kept_awake(sleeps: Fraction) -> Fix:
    often = max(Fraction(1), Fraction(int(sleeps * AWAKE_SHARE)))
    return Fix(
        label="Press something every {often} to keep it awake",
        consequence="A half press, or a touch that takes no frame; it costs some charge.",
        slots={"often": slot(often, "s")},
        edits=(Edit(path="trigger.keep_awake_s", value=str(often)),),
    )


def _idle(shooting: Shooting) -> Iterator[Figure | Snag]:
    """What calls must not fall asleep itself: a remote's cell, a phone, an app."""
    sleeper = _sleeper(shooting)
    if sleeper is None:
        return
    gap = longest_gap_s(shooting)
    sleeps, share = sleeper.sleeps_after_s, term("share", "share of it", AWAKE_SHARE, "share")
    keeps = term("sleeps", "sleeps after", sleeps, "s"), share
    yield figure("trigger.keep", "to keep it awake, every", sleeps * AWAKE_SHARE, "s", KEEP, *keeps)
    if float(sleeps) >= gap:
        return
    slots = {"device": slot(sleeper.name), "sleeps": slot(sleeps, "s"), "gap": slot(gap, "s")}
    yield IDLE.at("trigger.keep_awake_s", slots, [_kept_awake(sleeps)])


def _sleeper(shooting: Shooting) -> Trigger | Phone | None:
    """Whichever falls asleep first: what calls, or a phone that takes the pictures by an app of its own."""
    parts = parts_of(shooting.plan)
    own = parts.camera if isinstance(parts.camera, Phone) and shooting.hearing is None else None
    both = [one for one in (parts.source, own) if one is not None and one.sleeps_after_s]
    return min(both, key=lambda one: one.sleeps_after_s, default=None)


def _released(shooting: Shooting) -> Iterator[Snag]:
    call, plan = call_of(shooting), shooting.plan
    shortest = float(shooting.timeline.rooms_s.min())
    # The next press begins where this one began, one beat on; its half press ahead of that.
    begins = (call.half if call.half is not None else call.full) + shortest
    if call.unheard < begins - 1e-9:
        return
    room = begins - call.full - (call.unheard - call.off)
    press = Fraction(int(room * 5)) / 10
    slots = {"until": slot(call.unheard, "s"), "interval": slot(shortest, "s")}
    fits = press > 0 and press < plan.beat.press_s
    shorter = Fix(
        label="Press for {press}",
        consequence="Half of what is free: time to let go before the next.",
        slots={"press": slot(press, "s")},
        edits=(Edit(path="beat.press_s", value=str(press)),),
    )
    longer = ceil_to(call.unheard - call.full + float(plan.beat.half_s) + 0.1, plan.clip.interval_step_s or TENTH_S)
    slower = clip_fixes(plan, "Beat of {fitting}", no_shorter(plan, longer), {"fitting": slot(longer, "s")})
    yield LONG.at("beat.press_s", slots, [shorter] if fits else slower)


def _dwells(shooting: Shooting) -> Iterator[Snag]:
    plan, dwell = shooting.plan, shooting.plan.trigger.dwell_s
    if dwell is None:
        return
    call = call_of(shooting)
    closed = call.closed - float(plan.beat.ready_s)
    # The head of a printer waits once it has let go: until then it stays as well.
    stays = stays_s(plan) if layered(plan) else None
    after = float(dwell) if stays is None else stays
    if after >= closed - 1e-9:
        return
    enough = ceil_to(max(0.1, closed + 0.1 - (after - float(dwell))), TENTH_S)
    fix = Fix(
        label="Let it wait {enough}",
        consequence="The shutter has closed by then, with a tenth of a second to spare.",
        slots={"enough": slot(enough, "s")},
        edits=(Edit(path="trigger.dwell_s", value=str(enough)),),
    )
    yield DWELL.at("trigger.dwell_s", {"dwell": slot(after, "s"), "closed": slot(closed, "s")}, [fix])


def _left_on(shooting: Shooting) -> Iterator[Snag]:
    plan, camera = shooting.plan, parts_of(shooting.plan).camera
    name = slot(camera.name if camera else "camera")
    if plan.trigger.autofocus:
        manual = Fix(
            label="Focus by hand, and leave it",
            consequence="One focus for all frames, unless the plan drives it.",
            slots={},
            edits=(Edit(path="trigger.autofocus", value=False),),
        )
        blocks = camera is not None and camera.priority != "release"
        yield (FOCUSES if blocks else HUNTS).at("trigger.autofocus", {"camera": name}, [manual])
    if plan.trigger.stabiliser:
        off = Fix(
            label="Switch it off",
            consequence="On the lens, on the camera, or both.",
            slots={},
            edits=(Edit(path="trigger.stabiliser", value=False),),
        )
        yield STABLE.at("trigger.stabiliser", {}, [off])
