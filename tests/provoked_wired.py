"""A plan that provokes each kind of snag of the chain from what fires to the camera, sound in everything else."""

from typing import Any

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from tests.wired import BODY, CHAINS, LISTENS, OPTO, chain

REMOTE = ("remote-timer", BODY)
SLOW: dict[str, Any] = {"rate": 25, "shoot": 36_000, "interval": 120}
SWITCHED = [{"lamp": "grow-lamp", "lit": "for the frame"}]


def lit(lamp: Any = None, use: Any = None, beat: Any = None, more: tuple[str, ...] = (), **changed: Any) -> Plan:
    """A remote, a camera and a lamp that is switched for the frame."""
    trigger = {"lamps": [{**SWITCHED[0], **(use or {})}]}
    beat = {"warm_s": "1", **(beat or {})}
    return chain(*REMOTE, "grow-lamp", *more, trigger=trigger, beat=beat, grow_lamp=lamp or {}, **changed)


def sliding(beat: dict[str, Any]) -> Plan:
    """A rail that goes half a metre in two hours, ten seconds a frame."""
    plan = chain(BODY, "belt-rail", beat=beat, held={"rate": 25, "shoot": 7200, "interval": 10})
    return apply(plan, [Edit(path="move.keyframes.1.slide_mm", value=500.0)])[0]


def table(name: str) -> Plan:
    return CHAINS[name][0]


WIRED: dict[str, Plan] = {
    "lamp-level-unused": lit(use={"levels": [1, 0]}),
    "lamp-needs-dimmer": lit(use={"levels": [1, 0, 0.5]}, beat={"bracket_frames": 3}),
    "wires-not-known": table("lead cut open, not sounded"),
    "switch-not-known": chain("print-switch", BODY, trigger={"switch": {"wires": ["left", "middle", "right"]}}),
    "pin-voltage-not-read": table("voltage of the pin not read"),
    "app-key-not-tried": table("nobody has tried the key"),
    "focus-for-shutter": table("switch on the focus contact"),
    "shutter-held": table("normally closed contact"),
    "shutter-at-half-press": table("focus and shutter changed over"),
    "half-press-missing": table("a camera that needs the half press"),
    "press-not-heard": table("switch without a ground"),
    "light-backwards": table("light the wrong way round"),
    "light-too-weak": table("too much before the light"),
    "coil-too-weak": table("relay board on three volts"),
    "no-headset-key": chain(
        "print-switch", "volume-resistor", "phone", phone=LISTENS, volume_resistor={"contact_ohm": 330}
    ),
    "relay-not-fed": table("relay board without its supply"),
    "relay-fed-too-low": table("relay board on a supply pin of three volts"),
    "coil-without-diode": chain(
        "microcontroller", "relay", BODY, microcontroller={"half_press": False, "volts": 12.0, "pin_ma": 200},
        relay={"diode": False},
    ),
    "wrong-headset-key": chain(
        "print-switch", "volume-resistor", "phone", phone=LISTENS, volume_resistor={"contact_ohm": 470}
    ),
    "chain-never-rests": chain(
        "microcontroller",
        "relay-board",
        BODY,
        microcontroller={"half_press": False},
        joins=[("source.pin", "coupling.common"), ("coupling.closed", "coupling.plus"),
               ("source.ground", "coupling.minus"), ("source.supply", "coupling.supply")],
    ),
    "circuits-tied": table("grounds tied besides"),
    "foreign-voltage": chain("microcontroller", BODY, microcontroller={"half_press": False}),
    "pin-overloaded": table("bare relay on twelve volts"),
    "pin-in-use": chain(*OPTO, trigger={"pin": "P1"}),
    "relay-wears-out": chain(
        "microcontroller", "relay-board", BODY, microcontroller={"half_press": False}, relay_board={"presses": 300}
    ),
    "ground-lifted": chain(*REMOTE, "grow-lamp", trigger={"ground_mm": 5000}),
    "lamp-lead-loses": chain(*REMOTE, "grow-lamp", trigger={"ground_mm": 12_000, "ground_ohm_per_m": 0.05}),
    "press-too-short": chain(*REMOTE, beat={"press_s": "1/20"}),
    "press-not-released": chain(*REMOTE, beat={"press_s": "12"}),
    "camera-asleep": chain(*REMOTE, held=SLOW),
    "falls-asleep": chain(
        "radio-remote", BODY, held=SLOW, beat={"half_s": "2/5"},
        radio_remote={"sleeps_after_s": "60", "link_drops": "goes on by itself"},
    ),
    "dwell-too-short": chain(*OPTO, trigger={"dwell_s": "1/20"}),
    "focus-blocks-release": chain(*REMOTE, trigger={"autofocus": True}),
    "autofocus-left-on": chain(*REMOTE, trigger={"autofocus": True}, full_frame_body={"priority": "release"}),
    "stabiliser-left-on": chain(*REMOTE, trigger={"stabiliser": True}),
    "lamp-not-warm": lit(use={"before_s": "1/2"}),
    "warm-up-not-in-beat": lit(beat={"warm_s": "0"}),
    "toggle-loses-count": lit({"switch": "toggle", "on_after_power_up": False}),
    "lamp-on-after-power-cut": lit({"switch": "level", "on_after_power_up": True}),
    "lamp-supply-too-weak": lit(more=("lamp-supply",), lamp_supply={"gives_a": 1}),
    "out-of-range": chain("radio-remote", BODY, trigger={"distance_mm": 50_000}),
    "link-may-drop": chain("radio-remote", BODY),
    "two-starts-no-room": sliding({"uncoupled": {}, "exposure_s": "32/5"}),
    "shutter-falls-into-move": sliding({"uncoupled": {"drift_ppm": 5000}}),
}  # fmt: skip
