"""Who draws from the battery: all the time, while windows are open, at night, and with every frame."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard, Body, Phone
from bridle.core.plan.outdoors import Box
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.calls import lit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.hours import Hours
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.power.box import SWITCHING_LOSS

COPIES = "kit.copies"


@dataclass(frozen=True)
class Draw:
    """A consumer: watts all the time, in work windows, at night; joules with every frame.

    `missing` are the fields of its card that nobody knows (paths in the plan), with what is usual. `lost` is the share
    that a regulator before it takes on top.
    """

    name: str
    always_w: float = 0.0
    open_w: float = 0.0
    night_w: float = 0.0
    frame_j: float = 0.0
    lost: float = 0.0
    missing: tuple[tuple[str, str, float], ...] = ()

    def hourly_wh(self, hours: Hours) -> Floats:
        """What it draws in each hour, in watt hours, the regulator's loss counted."""
        night = hours.night
        steady = self.always_w + self.open_w * hours.open_share
        dark = 0.0 if night is None else self.night_w * night
        return np.asarray((steady + dark + self.frame_j * hours.frames / 3600) * (1 + self.lost))


def draws_of(shooting: Shooting, hours: Hours) -> tuple[Draw, ...]:
    """Every consumer of the plan that is not fed by the mains itself."""
    plan = shooting.plan
    found = [*_camera(shooting), *_controller(plan), *_link(plan), *_motors(shooting), *lamps(shooting)]
    return (*found, *_heater(plan, hours))


def _camera(shooting: Shooting) -> Iterator[Draw]:
    plan, power = shooting.plan, shooting.plan.season.powering
    for index, copy in enumerate(plan.kit.copies):
        card = copy.card
        if not isinstance(card, Body | Phone):
            continue
        waits, picture = card.standby_w or 0.0, card.picture_j or 0.0
        missing = []
        if card.standby_w is None:
            missing.append((f"{COPIES}.{index}.card.standby_w", "W", 0.3))
        if card.picture_j is None:
            missing.append((f"{COPIES}.{index}.card.picture_j", "J", 12.0))
        yield Draw(
            card.name,
            always_w=0.0 if power.timer else waits,
            open_w=waits if power.timer else 0.0,
            frame_j=picture * pictures_a_frame(shooting),
            lost=regulator_share(plan, battery_v(plan)),
            missing=tuple(missing),
        )
        return


def pictures_a_frame(shooting: Shooting) -> int:
    """How many pictures a frame is: brackets, stacks and rounds counted."""
    return shooting.cycle.exposures.pictures * len(shooting.cycle.travels_s)


def battery_v(plan: Plan) -> float | None:
    """The voltage of the battery that feeds it; None where there is none."""
    return next((copy.card.volts for copy in plan.kit.copies if copy.card.kind == "battery"), None)


def regulator_share(plan: Plan, from_v: float | None) -> float:
    """What a regulator loses of what the camera draws behind it, as a share of that."""
    power = plan.season.powering
    if power.regulator == "none" or from_v is None:
        return 0.0
    if power.regulator == "switching":
        return SWITCHING_LOSS
    return max(0.0, from_v - power.camera_v) / power.camera_v


def _controller(plan: Plan) -> Iterator[Draw]:
    for index, copy in enumerate(plan.kit.copies):
        card = copy.card
        if isinstance(card, Trigger) and card.source != "camera timer":
            missing = ((f"{COPIES}.{index}.card.draws_w", "W", 0.05),) if card.draws_w is None else ()
            yield Draw(card.name, always_w=card.draws_w or 0.0, missing=missing)
            return


def _link(plan: Plan) -> Iterator[Draw]:
    if plan.trigger.look is not None:
        yield Draw("link", always_w=plan.trigger.look.link_w)


def _motors(shooting: Shooting) -> Iterator[Draw]:
    plan = shooting.plan
    moving_s = sum(shooting.cycle.travels_s)
    for index, copy in enumerate(plan.kit.copies):
        card = copy.card
        if not isinstance(card, AxisCard) or not any(axis.name for axis in plan.rig.axes):
            continue
        missing = []
        if card.power_w is None and moving_s:
            missing.append((f"{COPIES}.{index}.card.power_w", "W", 6.0))
        if card.holding_w is None:
            missing.append((f"{COPIES}.{index}.card.holding_w", "W", 0.0))
        holds = card.holding_w or 0.0
        yield Draw(
            card.name,
            always_w=holds,
            frame_j=max(0.0, (card.power_w or 0.0) - holds) * moving_s,
            missing=tuple(missing),
        )


def lamps(shooting: Shooting) -> Iterator[Draw]:
    """Those that no mains feeds: lit as they are used, and dimmed as they are set."""
    interval = float(shooting.timeline.interval_s)
    for one in lit(shooting):
        if one.lamp.on_mains:
            continue
        watts = one.lamp.watts * one.level
        if one.use is None or not one.switched:
            yield Draw(one.lamp.name, always_w=watts)
        elif one.use.lit == "between frames":
            yield Draw(one.lamp.name, frame_j=watts * max(0.0, interval - one.lit_s))
        else:
            yield Draw(one.lamp.name, frame_j=watts * one.lit_s)


def _heater(plan: Plan, hours: Hours) -> Iterator[Draw]:
    heats, dewy = plan.season.powering.heater, plan.season.climate.dewy
    if heats == "never":
        return
    for index, copy in enumerate(plan.kit.copies):
        card = copy.card
        if not isinstance(card, Box):
            continue
        missing = ((f"{COPIES}.{index}.card.heater_w", "W", 3.0),) if card.heater_w is None else ()
        watts = card.heater_w or 0.0
        if heats == "always":
            yield Draw("heater", always_w=watts, missing=missing)
        elif hours.night is not None:
            yield Draw("heater", night_w=watts * (dewy if heats == "below the dew point" else 1.0), missing=missing)
        return
