"""Who tells the camera, and whether it hears."""

from collections.abc import Callable, Iterable
from typing import Literal

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.trigger import (
    afar,
    apart,
    bench,
    called,
    circuits,
    contacts,
    lamps,
    links,
    pressing,
    remotes,
    timer,
    unread,
)
from bridle.core.chapters.trigger.diagram import diagram
from bridle.core.chapters.trigger.lamp_circuits import lamp_circuits
from bridle.core.chapters.trigger.preparing import preparing
from bridle.core.chapters.trigger.state import HeadsetKey, MeterNext, SoundedState, TriggerState, WireNamed
from bridle.core.chapters.trigger.waves import waves
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.trigger import Sounded
from bridle.core.reckon.hearing import STAGES, Hearing, Verdict
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.soldering import pads_open, solderable
from bridle.core.reckon.tested import chain_digest
from bridle.core.reckon.wiring import output_of, parts_of, sounded
from bridle.core.snag import Snag
from bridle.core.subjects.circuits.contacts import Named, Thing
from bridle.core.subjects.circuits.headset import OHMS, READ_AS

KINDS = (
    *timer.KINDS,
    *unread.KINDS,
    *contacts.KINDS,
    *circuits.KINDS,
    *pressing.KINDS,
    *lamps.KINDS,
    *links.KINDS,
    *apart.KINDS,
    *called.KINDS,
    *remotes.KINDS,
)
FAMILIES: tuple[Callable[[Shooting], Iterable[Figure | Snag]], ...] = (
    timer.findings,
    called.findings,
    contacts.findings,
    circuits.findings,
    pressing.findings,
    lamps.findings,
    apart.findings,
    afar.findings,
    remotes.findings,
)


def tell(known: Reckoning) -> Answer[TriggerState]:
    """The chain, its snags and its figures; nothing while the clip is open."""
    shooting = known.shooting
    if shooting is None:
        return answer(TriggerState(), ())
    found = [one for family in FAMILIES for one in shooting.every(family)]
    found += [*known.of_plan(links.findings), *shooting.every(_bench)]
    return answer(shooting.ask(_state), found)


def _bench(shooting: Shooting) -> Iterable[Figure]:
    return bench.figures(shooting) if parts_of(shooting.plan).source else ()


def _state(shooting: Shooting) -> TriggerState:
    plan, found = shooting.plan, shooting.hearing
    source = parts_of(plan).source
    if source is None:
        return TriggerState(
            waves=tuple(waves(shooting)),
            interval_s=float(shooting.cycle.interval_s),
            lamps=tuple(lamp_circuits(plan)),
        )
    wired = found.wiring if found else None
    return TriggerState(
        source=source.source,
        output=output_of(source),
        verdict=_verdict(plan, found),
        ends=tuple(f"{part}.{end}" for part, ends in wired.ends.items() for end in ends) if wired else (),
        joins=tuple((join.a, join.b) for join in wired.joins) if wired else (),
        seen=_seen(found) if found else (),
        diagram=diagram(plan, wired) if wired else None,
        lamps=tuple(lamp_circuits(plan)),
        waves=tuple(waves(shooting)),
        interval_s=float(shooting.cycle.interval_s),
        lead=_sounded("release", plan.trigger.lead),
        switch=_sounded("switch", plan.trigger.switch),
        pads=_sounded("pads", plan.trigger.pads),
        remote=remote.name if (remote := solderable(plan)) else "",
        bench=tuple(bench.bench(shooting)),
        digest=chain_digest(plan),
        prepare=tuple(preparing(plan)),
        keys=_keys(plan),
    )


def _verdict(plan: Plan, found: Hearing | None) -> Verdict | Literal[""]:
    """What the camera makes of a press; open while nobody knows what the switch on a remote's button presses."""
    return "not known" if pads_open(plan) else found.verdict if found else ""


def _keys(plan: Plan) -> tuple[HeadsetKey, ...]:
    """The keys on which an app can fire, where the camera listens to a headset."""
    camera = parts_of(plan).camera
    if camera is None or camera.hears != "headset button":
        return ()
    fires = [one for one in READ_AS if one[0] != "assistant"]
    return tuple(HeadsetKey(key=key, ohms=OHMS[key], low=low, high=high) for key, low, high in fires)


def _seen(found: Hearing) -> tuple[str, ...]:
    """What the camera hears at rest, at half and at full press, in words."""
    return tuple(_said(found, stage) for stage in STAGES)


def _said(found: Hearing, stage: str) -> str:
    seen = found.stages[stage]  # type: ignore[index]  # one of the three
    if seen.key is not None:
        return seen.key
    closed = [name for name in ("focus", "shutter") if getattr(seen, name)]
    return " and ".join(closed) or "nothing"


def _sounded(thing: Thing, what: Sounded | None) -> SoundedState | None:
    said: Named | None = sounded(thing, what)
    if what is None or said is None:
        return None
    left = {(one.ask, one.stage, one.a, one.b, one.yes) for one in said.against}
    against = tuple(n for n, one in enumerate(what.readings) if (one.ask, one.stage, one.a, one.b, one.yes) in left)
    after = said.next
    return SoundedState(
        wires=tuple(WireNamed(name=name, role=role) for name, role in zip(what.wires, said.roles, strict=True)),
        left=said.left,
        against=against,
        next=MeterNext(ask=after.ask, stage=after.stage, a=after.a, b=after.b, settles=said.settles) if after else None,
    )
