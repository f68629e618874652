"""What the camera hears: its contacts at rest, at half and at full press, and whether a frame comes of it."""

from dataclasses import dataclass
from typing import Literal

from bridle.core.figure import Formula
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Imager
from bridle.core.reckon.circuit import BIAS_OHM, BIAS_V, network
from bridle.core.reckon.wiring import Wiring, called, wiring
from bridle.core.subjects.circuits.contacts import Named, Stage
from bridle.core.subjects.circuits.headset import Key, key_of
from bridle.core.subjects.circuits.network import Solved, solve

STAGES: tuple[Stage, ...] = ("rest", "half", "full")
# A contact below this share of the camera's own voltage counts as closed.
CLOSED_BELOW = 0.3
# Volts beyond the camera's own that its contacts may see.
FOREIGN_V = 0.3
PRESSED_OHM = Formula("bias_ohm * volts / (bias - volts)", "what a phone reads off the voltage at its microphone")

# Beyond this nobody would call it a button.
NO_BUTTON_OHM = 50_000.0

Verdict = Literal[
    "takes", "not known", "nothing", "focus alone", "held", "early", "half press missing", "wrong key", "no key",
    "restless",
]  # fmt: skip


@dataclass(frozen=True)
class Seen:
    """The camera's contacts at one stage: which are closed, the key and the ohms that a phone reads, foreign volts."""

    focus: bool
    shutter: bool
    key: Key | None = None
    foreign_v: float = 0.0
    ohms: float | None = None


@dataclass(frozen=True)
class Hearing:
    """A chain as the camera hears it. `pin_a` is the most that a pin gives; `led_a`, `coil_a` and `input_a` (of the
    driver of a relay board) flow at full press; `tied` says that the camera shares a circuit with a device of another
    supply."""

    wiring: Wiring
    stages: dict[Stage, Seen]
    pin_a: float
    led_a: float | None
    coil_a: float | None
    input_a: float | None
    tied: bool
    verdict: Verdict


def hearing(plan: Plan) -> Hearing | None:
    """What the camera of a plan hears; None where nothing presses its contacts."""
    wired = wiring(plan)
    return None if wired is None else heard(wired)


def heard(wired: Wiring) -> Hearing:
    """What the camera at the end of a chain hears."""
    solved = {stage: solve(network(wired, stage)) for stage in STAGES}
    camera = wired.parts.camera
    assert camera is not None
    stages = {stage: _seen(camera, here) for stage, here in solved.items()}
    full = solved["full"]
    return Hearing(
        wiring=wired,
        stages=stages,
        pin_a=max((abs(here.amps.get(pin, 0.0)) for here in solved.values() for pin in ("pin", "half")), default=0.0),
        led_a=full.amps.get("led"),
        coil_a=None if "coil" not in full.amps else abs(full.amps["coil"]),
        input_a=None if "input" not in full.amps else abs(full.amps["input"]),
        tied=wired.output == "pin" and full.joined(called(wired.pairs)("source.ground"), "inside.ground"),
        verdict=_verdict(wired, camera, stages, all(here.rests for here in solved.values())),
    )


def _seen(camera: Imager, here: Solved) -> Seen:
    if camera.hears == "headset button":
        volts = here.across("inside.mic", "inside.ground")
        ohms = None if volts is None or volts >= BIAS_V * 0.999 else BIAS_OHM * max(volts, 0.0) / (BIAS_V - volts)
        return Seen(False, False, key_of(ohms), _foreign(volts, BIAS_V), ohms)
    closed, foreign = {}, 0.0
    for contact in ("focus", "shutter"):
        volts = here.across(f"inside.{contact}", "inside.ground")
        closed[contact] = volts is not None and volts < CLOSED_BELOW * camera.input_v
        foreign = max(foreign, _foreign(volts, camera.input_v))
    return Seen(closed["focus"], closed["shutter"], None, foreign)


def _foreign(volts: float | None, own: float) -> float:
    """How far a contact stands outside of the camera's own voltage."""
    return 0.0 if volts is None else max(0.0, volts - own - FOREIGN_V, -volts - FOREIGN_V)


def _verdict(wired: Wiring, camera: Imager, stages: dict[Stage, Seen], rests: bool) -> Verdict:
    if _unknown(wired, camera):
        return "not known"
    if not rests:
        return "restless"
    rest, full = stages["rest"], stages["full"]
    if camera.hears == "headset button":
        if rest.key is not None:
            return "held"
        if full.key is None:
            return "nothing" if full.ohms is None or full.ohms > NO_BUTTON_OHM else "no key"
        return "takes" if full.key == camera.fires_on else "wrong key"
    if rest.shutter:
        return "held"
    if not full.shutter:
        return "focus alone" if full.focus else "nothing"
    if stages["half"].shutter:
        return "early"
    missing = camera.hears == "half and full press" and camera.half_first == "yes" and not full.focus
    return "half press missing" if missing else "takes"


def _unknown(wired: Wiring, camera: Imager) -> bool:
    """Whether something has to be read off first: a pin's voltage, a wire, the key on which an app fires."""
    source, lead, switch = wired.parts.source, wired.lead, wired.switch
    if wired.output == "pin" and source is not None and source.volts is None:
        return True
    if wired.parts.cable is not None and wired.parts.cable.made == "cut open" and _open(lead, "shutter", "ground"):
        return True
    if switch is not None and switch_open(switch):
        return True
    return camera.hears == "headset button" and camera.fires_on == "not known"


def switch_open(switch: Named) -> bool:
    """Whether a reading is left that tells more of a switch, or nothing says that it has a contact that closes."""
    return switch.next is not None or "normally open" not in switch.surely


def _open(of: object, *roles: str) -> bool:
    found = getattr(of, "roles", ())
    return not set(roles) <= set(found)
