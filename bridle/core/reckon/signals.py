"""What a chain really sends to the camera with every press, as plain numbers for whoever listens."""

from dataclasses import dataclass

from bridle.core.plan.document import Plan
from bridle.core.reckon.calls import heard_press_s
from bridle.core.reckon.hearing import Hearing, Seen


@dataclass(frozen=True)
class Signal:
    """One press: the contacts at rest, at half and at full press; how long each lasts, in seconds.

    `least_s` is the shortest press that the camera notices; it sleeps after `sleeps_s` (0: never) and wakes in
    `wake_s`; `keeps_s` is how often something keeps it awake (0: nothing does). `fires_on` is the key of a phone's app.
    The camera hears the full press `after_s` from the beginning of its beat.
    """

    rest: Seen
    half: Seen
    full: Seen
    half_s: float
    press_s: float
    least_s: float
    half_first: bool
    sleeps_s: float
    wake_s: float
    keeps_s: float
    fires_on: str
    verdict: str
    after_s: float = 0.0


def signal(plan: Plan, found: Hearing, after_s: float = 0.0) -> Signal:
    """What a chain that is solved sends to the camera of a plan."""
    camera, beat = found.wiring.parts.camera, plan.beat
    assert camera is not None
    keeps = plan.trigger.keep_awake_s
    return Signal(
        rest=found.stages["rest"],
        half=found.stages["half"],
        full=found.stages["full"],
        half_s=float(beat.half_s),
        press_s=heard_press_s(plan),
        least_s=float(camera.least_press_s) if camera.least_press_s is not None else 0.0,
        half_first=camera.hears == "half and full press" and camera.half_first == "yes",
        sleeps_s=float(camera.sleeps_after_s),
        wake_s=float(beat.wake_s),
        keeps_s=float(keeps) if keeps else 0.0,
        fires_on=camera.fires_on if camera.hears == "headset button" else "",
        verdict=found.verdict,
        after_s=after_s,
    )
