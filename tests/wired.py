"""Chains from what fires to the camera, right and wrong ones, as tests need them."""

from typing import Any

from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from tests.strategies import copies, fitted, plan_of

THREE: dict[str, Any] = {"rate": 25, "shoot": 3600, "interval": 10}
BODY = "full-frame-body"
OPTO = ("printer-pin", "optocoupler", BODY)
LISTENS = {"hears": "headset button", "socket": "3.5 mm", "fires_on": "volume up"}
NEEDS = {"half_first": "yes"}
# Joins of the switch and of the optocoupler as they belong, to be changed one by one.
SWITCH = [("source.open", "camera.shutter"), ("source.open", "camera.focus"), ("source.common", "camera.ground")]
FED = [("source.pin", "coupling.plus"), ("source.ground", "coupling.minus")]
SUPPLIED = ("source.supply", "coupling.supply")
HEARD = [("coupling.high", "camera.shutter"), ("coupling.low", "camera.ground")]
# White is the ground, red the focus, yellow the shutter: what a meter says of the lead that was cut open.
CUT = {
    "wires": ["white", "red", "yellow"],
    "readings": [
        {"stage": "half", "a": 0, "b": 1}, {"stage": "half", "a": 0, "b": 2, "yes": False},
        {"stage": "full", "a": 0, "b": 2}, {"ask": "above", "stage": "rest", "a": 1, "b": 0},
    ],
}  # fmt: skip
ROLES = ("ground", "focus", "shutter")


def chain(
    *names: str, joins: Any = None, lead: Any = None, held: Any = None, beat: Any = None, trigger: Any = None,
    **changed: Any,
) -> Plan:  # fmt: skip
    """A plan with these cards of the demo kit, some with other figures, joined as they belong or otherwise."""
    own = None if joins is None else [{"a": a, "b": b} for a, b in joins]
    plan = plan_of(held or THREE, trigger={"joins": own, "lead": lead, **(trigger or {})})
    plan = fitted(plan, copies(*names, **changed))
    return plan.model_copy(update={"beat": Beat.model_validate({**plan.beat.model_dump(), **(beat or {})})})


# The chain; what the camera sees at rest, at half and at full press; whether it is tied to another supply; the verdict.
CHAINS: dict[str, tuple[Plan, tuple[str, str, str], bool, str]] = {
    "wired remote": (chain("remote-timer", BODY), ("", "f", "fs"), False, "takes"),
    "remote without a half press": (
        chain("remote-timer", BODY, remote_timer={"half_press": False}), ("", "", "fs"), False, "takes"),
    "wireless remote": (chain("radio-remote", "release-lead", BODY), ("", "f", "fs"), False, "takes"),
    "controller with optocouplers": (chain("controller", "release-lead", BODY), ("", "f", "fs"), False, "takes"),
    "focus and shutter changed over": (
        chain("remote-timer", BODY, joins=[("source.focus", "camera.shutter"), ("source.shutter", "camera.focus"),
              ("source.ground", "camera.ground")]), ("", "s", "fs"), False, "early"),
    "switch": (chain("print-switch", BODY), ("", "", "fs"), False, "takes"),
    "switch on the focus contact": (
        chain("print-switch", BODY, joins=[SWITCH[1], SWITCH[2]]), ("", "", "f"), False, "focus alone"),
    "switch on the shutter alone": (
        chain("print-switch", BODY, joins=[SWITCH[0], SWITCH[2]]), ("", "", "s"), False, "takes"),
    "a camera that needs the half press": (
        chain("print-switch", BODY, joins=[SWITCH[0], SWITCH[2]], full_frame_body=NEEDS), ("", "", "s"), False,
        "half press missing"),
    "normally closed contact": (
        chain("print-switch", BODY, joins=[("source.closed", "camera.shutter"), SWITCH[2]]), ("s", "s", ""), False,
        "held"),
    "switch without a ground": (chain("print-switch", BODY, joins=SWITCH[:2]), ("", "", ""), False, "nothing"),
    "open and closed contact together": (
        chain("print-switch", BODY, joins=[*SWITCH, ("source.closed", "camera.shutter")]), ("fs", "fs", "fs"), False,
        "held"),
    "pin and optocoupler": (chain(*OPTO), ("", "", "fs"), False, "takes"),
    "light the wrong way round": (
        chain(*OPTO, joins=[("source.pin", "coupling.minus"), ("source.ground", "coupling.plus"), *HEARD]),
        ("", "", ""), False, "nothing"),
    "output the wrong way round": (
        chain(*OPTO, joins=[*FED, ("coupling.low", "camera.shutter"), ("coupling.high", "camera.ground")]),
        ("", "", ""), False, "nothing"),
    "too much before the light": (chain(*OPTO, optocoupler={"series_ohm": 4700}), ("", "", ""), False, "nothing"),
    "pin straight on the camera": (chain("printer-pin", BODY), ("fs", "fs", ""), True, "held"),
    "grounds tied besides": (
        chain(*OPTO, joins=[*FED, *HEARD, ("source.ground", "camera.ground")]), ("", "", "s"), True, "takes"),
    "bare relay on five volts": (
        chain("microcontroller", "relay", BODY, microcontroller={"half_press": False}), ("", "", ""), False, "nothing"),
    "bare relay on twelve volts": (
        chain("microcontroller", "relay", BODY, microcontroller={"half_press": False, "volts": 12.0}),
        ("", "", "fs"), False, "takes"),
    "bare relay on three volts": (chain("printer-pin", "relay", BODY), ("", "", ""), False, "nothing"),
    "relay, its normally closed contact": (
        chain("microcontroller", "relay-board", BODY, microcontroller={"half_press": False},
              joins=[SUPPLIED, *FED, ("coupling.closed", "camera.shutter"), ("coupling.common", "camera.ground")]),
        ("s", "s", ""), False, "held"),
    "relay board on three volts": (chain("printer-pin", "relay-board", BODY), ("", "", ""), False, "nothing"),
    "relay board without its supply": (
        chain("microcontroller", "relay-board", BODY, microcontroller={"half_press": False},
              joins=[*FED, ("coupling.open", "camera.shutter"), ("coupling.common", "camera.ground")]),
        ("", "", ""), False, "nothing"),
    "relay board on a supply pin of three volts": (
        chain("microcontroller", "relay-board", BODY, microcontroller={"half_press": False, "supply_v": 3.3}),
        ("", "", ""), False, "nothing"),
    "two optocouplers": (chain("microcontroller", "two-optocouplers", BODY), ("", "f", "fs"), False, "takes"),
    "controller's bare pins": (
        chain("controller", "optocoupler", BODY, controller={"coupling": "none", "volts": 5.0, "half_press": False}),
        ("", "", "fs"), False, "takes"),
    "lead cut open, sounded": (chain(*OPTO, "cut-lead", lead=CUT), ("", "", "fs"), False, "takes"),
    "lead cut open, by its colours": (
        chain(*OPTO, "cut-lead", lead=CUT, joins=[*FED, ("coupling.high", "wire.1"), ("coupling.low", "wire.0")]),
        ("", "", "f"), False, "focus alone"),
    "lead cut open, not sounded": (chain(*OPTO, "cut-lead"), ("", "", ""), False, "not known"),
    "a very long thin lead": (
        chain("print-switch", "release-lead", BODY, release_lead={"length_mm": 900_000, "ohm_per_m": 20}),
        ("", "", ""), False, "nothing"),
    "headset's volume button": (
        chain("headset-button", "phone", phone=LISTENS), ("", "", "240"), False, "takes"),
    "switch and resistor on a phone": (
        chain("print-switch", "volume-resistor", "phone", phone=LISTENS), ("", "", "240"), False, "takes"),
    "switch on a phone, no resistor": (
        chain("print-switch", "phone", phone=LISTENS), ("", "", "0"), False, "wrong key"),
    "resistor that no key has": (
        chain("print-switch", "volume-resistor", "phone", phone=LISTENS, volume_resistor={"contact_ohm": 1000}),
        ("", "", "1000"), False, "no key"),
    "nobody has tried the key": (
        chain("headset-button", "phone", phone={**LISTENS, "fires_on": "not known"}), ("", "", "240"), False,
        "not known"),
    "voltage of the pin not read": (chain(*OPTO, printer_pin={"volts": None}), ("", "", ""), False, "not known"),
    "command of the print host": (
        chain("print-host", "optocoupler", "release-lead", BODY), ("", "", "fs"), False, "takes"),
}  # fmt: skip
