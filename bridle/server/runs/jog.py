"""Jogging the simulated controller from the page, and rehearsing the drive's program on it."""

import threading
from collections import OrderedDict
from typing import Any

import numpy as np
from django.http import HttpRequest
from ninja import Router

from bridle.core.lists.hand_marks import mark_lines
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import AxisName
from bridle.core.quantity import QuantityError, read
from bridle.core.reckon.parts import by_hand
from bridle.core.reckon.path import ring_values, shown_unit
from bridle.core.reckon.reckoning import reckon
from bridle.core.subjects.gcode.reader import GcodeError
from bridle.formats.drive_program import program
from bridle.formats.nothing import NothingToWriteError
from bridle.server.errors import ChangeRefusedError, Trouble
from bridle.server.runs.schemas import AskJog, AskProgram, Jogged, MarkedAxis, MarksToSet, MarkToSet, Rehearsal
from bridle.standins.jog import JogRig, UnreferencedError
from bridle.standins.program import rehearse

router = Router(tags=["rig"])

# Like the real one, it forgets where it stands when it is switched off.
_rigs: OrderedDict[int, JogRig] = OrderedDict()
_lock = threading.Lock()
MOST_RIGS = 50


def _rig(shoot_id: int) -> JogRig:
    with _lock:
        rig = _rigs.setdefault(shoot_id, JogRig())
        _rigs.move_to_end(shoot_id)
        while len(_rigs) > MOST_RIGS:
            _rigs.popitem(last=False)
        return rig


@router.post("/jog", response={200: Jogged, 422: Trouble}, operation_id="jog")
def jog(request: HttpRequest, ask: AskJog) -> Any:
    """Reference an axis, jog it by a step, or send it to a place; without an axis, only look."""
    rig, seconds = _rig(ask.shoot), 0.0
    try:
        for name in ask.axes:
            if ask.do == "reference":
                seconds = max(seconds, rig.reference(ask.plan, name))
            elif ask.do == "by":
                seconds = max(seconds, rig.by(ask.plan, name, ask.amounts.get(name, 0.0)))
            elif ask.do == "go":
                seconds = max(seconds, rig.go(ask.plan, name, ask.amounts.get(name, 0.0)))
            elif ask.do == "type":
                seconds = max(seconds, rig.go(ask.plan, name, _typed(ask, name)))
    except (UnreferencedError, QuantityError) as error:
        raise ChangeRefusedError("jog", error) from error
    return _told(ask.plan, rig, seconds)


def _typed(ask: AskJog, name: AxisName) -> float:
    axis = ask.plan.rig.axis(name)
    return float(read(ask.text, "length" if axis is not None and axis.unit == "mm" else "angle", ask.imperial))


def _told(plan: Plan, rig: JogRig, seconds: float) -> Jogged:
    here = {axis.name: rig.at[axis.name] for axis in plan.rig.axes if axis.name in rig.at}
    lens = {axis.name for axis in plan.rig.axes if axis.on_lens}
    stands = {
        name: float(ring_values(axis, np.array([at]))[0]) if name in lens else at
        for name, at in here.items()
        for axis in plan.rig.axes
        if axis.name == name
    }
    ends = {axis.name: [axis.low, axis.high] for axis in plan.rig.axes}
    at_end = [name for name, at in here.items() if at <= ends[name][0] or at >= ends[name][1]]
    return Jogged(at=here, stands=stands, at_end=at_end, seconds=seconds)


MOST_LINES = 2000


@router.post("/marks-to-set", response={200: MarksToSet, 422: Trouble}, operation_id="marks_to_set")
def marks_to_set(request: HttpRequest, ask: AskProgram) -> Any:
    """The marks that somebody sets by hand, frame by frame."""
    shooting = reckon(ask.plan).shooting
    if shooting is None:
        raise ChangeRefusedError("marks", ValueError("the clip leaves something open, so there are no frames yet"))
    lines = mark_lines(ask.plan, shooting.positions, shooting.timeline)
    return MarksToSet(
        axes=[MarkedAxis(name=axis.name, unit=shown_unit(axis)) for axis in by_hand(ask.plan)],
        lines=[MarkToSet(frame=line.frame, clock=line.clock, marks=list(line.marks)) for line in lines[:MOST_LINES]],
        left=max(0, len(lines) - MOST_LINES),
    )


@router.post("/rehearse-program", response={200: Rehearsal, 422: Trouble}, operation_id="rehearse_program")
def rehearse_program(request: HttpRequest, ask: AskProgram) -> Any:
    """Write the drive's program, run that very text on the simulated controller, and tell what came of it."""
    try:
        lines = list(program(ask.plan))
        rehearsed = rehearse(ask.plan, lines)
    except (NothingToWriteError, GcodeError) as error:
        raise ChangeRefusedError("program", error) from error
    return Rehearsal(
        lines=len(lines),
        opening="".join(lines[:60]),
        pictures=len(rehearsed.fired_s),
        off_steps=rehearsed.off_steps,
        fastest=rehearsed.fastest,
        late_s=rehearsed.late_s,
        ends_s=rehearsed.ends_s,
    )
