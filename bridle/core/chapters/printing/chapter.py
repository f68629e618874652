"""A layered shoot: the print as the source of its frames, the stop at each, and how the file was proven."""

from collections.abc import Callable, Iterable, Iterator
from typing import TypeAlias

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.printing import file, firing, proving, reaching, seeing, starting, stopping
from bridle.core.chapters.printing.drawn import bed
from bridle.core.chapters.printing.figures import figures
from bridle.core.chapters.printing.framed import framed
from bridle.core.chapters.printing.places import places
from bridle.core.chapters.printing.state import Every, Missing, PrintingState, StopStep, Way
from bridle.core.chapters.printing.turns import turns
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Layers
from bridle.core.reckon.frames.found import rate_of
from bridle.core.reckon.printing import (
    chosen,
    even_step_mm,
    layered,
    print_digest,
    printer_of,
    steps_of,
    stop_of,
    stop_s,
    switch_of,
)
from bridle.core.reckon.proved import proof_stands
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.snag import Snag
from bridle.core.subjects.motion.calibration import click_of
from bridle.core.subjects.parking.snippet import after, before, snippet

KINDS = (*file.KINDS, *firing.KINDS, *proving.KINDS, *stopping.KINDS, *starting.KINDS, *reaching.KINDS, *seeing.KINDS)
Family: TypeAlias = Callable[[Reckoning], Iterable[Figure | Snag]]
OFFERED = (1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20)


def tell(known: Reckoning) -> Answer[PrintingState]:
    """The print, its stop and what is wrong; nothing where no layers call the frames."""
    if not known.ask(_layered):
        return answer(PrintingState(), known.of_plan(file.without))
    return answer(known.ask(_state), [one for family in FAMILIES for one in known.every(family)])


def _layered(known: Reckoning) -> bool:
    return layered(known.plan) is not None


def _of_plan(family: Callable[[Plan], Iterable[Figure | Snag]]) -> Family:
    return lambda known: family(known.plan)


def _figures(known: Reckoning) -> Iterable[Figure]:
    frames = layered(known.plan)
    return () if frames is None else figures(known.plan, frames)


FAMILIES: tuple[Family, ...] = (
    _figures,
    _of_plan(file.findings),
    lambda known: proving.findings(known.plan, known.given),
    _of_plan(reaching.findings),
    _of_plan(starting.findings),
    lambda known: stopping.findings(known.plan, known.given),
    _of_plan(firing.findings),
    seeing.findings,
)


def _state(known: Reckoning) -> PrintingState:
    plan, frames = known.plan, layered(known.plan)
    assert frames is not None  # the layers call the frames
    switch = switch_of(plan)
    return PrintingState(
        layered=True,
        missing=tuple(_missing(plan)),
        layers=len(frames.layers_s),
        chosen=chosen(frames),
        steps=tuple(StopStep(what=step.what, far_mm=step.far_mm, seconds=step.seconds) for step in steps_of(plan)),
        stop_s=float(stop_s(plan)),
        bed=bed(plan),
        offers=tuple(_offers(plan, frames)),
        ways=tuple(_ways(plan)),
        places=tuple(places(plan)),
        framed=framed(known),
        turns=tuple(turns(plan)),
        reading=None if switch is None else click_of(switch.axis),
        equal_mm=even_step_mm(frames),
        of=print_digest(plan),
        proof=proof_stands(plan, known.given),
    )


def _missing(plan: Plan) -> Iterator[Missing]:
    printer, switch = printer_of(plan), switch_of(plan)
    if plan.printing.file is None:
        yield "file"
    if printer is None:
        yield "printer"
    elif printer.fires == "switch" and switch is None:
        yield "switch"
    elif printer.fires == "switch" and switch is not None and switch.clicks_mm is None:
        yield "coordinate"


def _offers(plan: Plan, frames: Layers) -> Iterator[Every]:
    """What every how many layers would come to."""
    bare, stop, rate = float(sum(frames.layers_s)), float(stop_s(plan)), float(rate_of(plan))
    for every in sorted({*OFFERED, frames.every}):
        if every > len(frames.layers_s):
            break
        count = len(chosen(frames.model_copy(update={"every": every, "equal_mm": None})))
        yield Every(every=every, frames=count, clip_s=count / rate, print_s=bare + stop * count)


def _ways(plan: Plan) -> Iterator[Way]:
    """The stop as text for a slicer's field and for a host's commands."""
    stop, told = stop_of(plan), plan.printing.file
    if stop is None:
        return
    absolute_e = not (told.relative_e if told else False)
    yield Way(by="slicer", lines=tuple(snippet(stop, absolute_e)))
    yield Way(by="host before", lines=tuple(before(stop, absolute_e)))
    yield Way(by="host after", lines=tuple(after(stop, absolute_e)))
