"""A plan that provokes each kind of snag of a print, sound in everything else."""

import json
from datetime import date, datetime
from fractions import Fraction
from typing import Any

from bridle.core.asks.shelf import made
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.frames import Layers
from bridle.core.plan.kit import Copy, Kit
from bridle.core.plan.printer import HeadPart, HeadSwitch, Macro, Printer
from bridle.core.plan.printing import Already, PrintFile, Printing, Proven, Unread
from bridle.core.reckon.printing import print_digest
from tests.strategies import plan_of

HEAD = (
    HeadPart(name="nozzle", left_mm=-4, right_mm=4, front_mm=-4, back_mm=4, low_mm=0, high_mm=10),
    HeadPart(name="shroud", left_mm=-28, right_mm=32, front_mm=-30, back_mm=25, low_mm=8, high_mm=60, presses=True),
)
PRINTER = Printer(name="bed printer", head=HEAD, high_x_mm=240, park_y_mm=200, idle_s=Fraction(600))
SWITCH = HeadSwitch(name="lever switch", clicks_mm=236)
FILE = PrintFile(
    name="cup.gcode",
    digest="0" * 64,
    bytes=1000,
    lines=100,
    announced="numbered",
    extents_mm=(80, 120, 80, 110),
    infills=10,
)
LAYERS = Layers(layers_s=(Fraction(40),) * 12, z_mm=tuple(round(0.2 * (n + 1), 2) for n in range(12)), every=2)


def printed(
    file: Any = None, printer: Any = None, switch: Any = None, layers: Any = None, stop: Any = None, **more: Any
) -> Plan:
    """A print of twelve layers with changes to its parts; `more` are edits by path, with `__` for a dot."""
    plan = plan_of({"rate": Fraction(25)})
    cards = PRINTER.model_copy(update=printer or {}), SWITCH.model_copy(update=switch or {})
    made = plan.model_copy(
        update={
            "frames": LAYERS.model_copy(update=layers or {}),
            "kit": Kit(copies=tuple(Copy(key=f"p{n}", card=card) for n, card in enumerate(cards))),
            "printing": Printing(file=PrintFile.model_validate({**FILE.model_dump(), **(file or {})})),
        }
    )
    edits = [Edit(path=f"printing.stop.{name}", value=value) for name, value in (stop or {}).items()]
    edits += [Edit(path=path.replace("__", "."), value=value) for path, value in more.items()]
    return apply(Plan.model_validate(json.loads(made.model_dump_json())), edits)[0]


def failed(plan: Plan) -> Plan:
    """A print whose changed file has not passed its proof."""
    proof = Proven(of=print_digest(plan), stands="failed", on=date(2026, 9, 1), failures=3)
    return plan.model_copy(update={"printing": plan.printing.model_copy(update={"proof": proof})})


def lit_for_the_frame() -> Plan:
    """A print with a lamp that is to be lit for the frame alone."""
    plan = printed()
    lamp = Copy(key="lamp", card=made("lamp"))
    return apply(
        plan.model_copy(update={"kit": Kit(copies=(*plan.kit.copies, lamp))}),
        [Edit(path="trigger.lamps", value=[{"lamp": "lamp", "lit": "for the frame"}])],
    )[0]


def twice_switched() -> Plan:
    """A print whose one switch has a card as what the head meets and another as what fires."""
    plan = printed()
    fires = Copy(key="fires", card=made("switch"))
    return plan.model_copy(update={"kit": Kit(copies=(*plan.kit.copies, fires))})


def by_remote(cell: float | None = None, **more: Any) -> Plan:
    """A print whose head works a bought radio remote."""
    plan = printed()
    card = made("trigger").model_copy(
        update={
            "name": "radio remote",
            "source": "wireless remote",
            "link_drops": "goes on by itself",
            "cell_presses": cell,
        }
    )
    remote = plan.model_copy(update={"kit": Kit(copies=(*plan.kit.copies, Copy(key="remote", card=card)))})
    return apply(remote, [Edit(path=path.replace("__", "."), value=value) for path, value in more.items()])[0]


def deaf() -> Plan:
    """A print whose head presses a switch, and a phone that listens to none."""
    plan = printed()
    copies = (*plan.kit.copies, Copy(key="phone", card=made("phone")))
    return plan.model_copy(update={"kit": Kit(copies=tuple(one for one in copies if one.card.kind != "body"))})


def command(name: str, sort: str, count: int, layers: int, line: int = 40) -> Already:
    return Already(name=name, sort=sort, count=count, layers=layers, line=line)


CUP = {"name": "cup", "form": "block", "x_mm": 0, "y_mm": 300, "z_mm": -100, "width_mm": 40, "depth_mm": 30}
NOON = {
    "shoot__place__latitude_deg": 51.5,
    "shoot__place__longitude_deg": 0.1,
    "shoot__clock__at": "2026-09-27T11:00:00Z",
}
WRONG = Unread(line=4012, stood="G1 X1O.5", expected="a letter with a number behind it")
READ, REFITTED = datetime(2026, 10, 3).date(), datetime(2026, 10, 4).date()
PRINTED: dict[str, Plan] = {
    "proof-failed": failed(printed()),
    "print-not-proven": printed(),
    "print-spiral": printed(file={"spiral": True}),
    "print-lines-unread": printed(file={"unread": (WRONG,), "unread_count": 3}),
    "print-commands-unknown": printed(file={"already": (command("PREHEAT", "unknown", 1, 0, 12),)}),
    "print-stops-already": printed(file={"already": (command("M240", "fire", 12, 12),), "parks": 11}),
    "print-has-tower": printed(file={"tower_mm": (20, 45, 150.5, 180)}),
    "print-pauses": printed(file={"already": (command("M600", "pause", 1, 1, 71),)}),
    "print-several-tools": printed(file={"tools": (0, 1)}),
    "print-layers-vary": printed(layers={"z_mm": (0.2, 0.4, 0.6, 0.7, 0.8, 1.0, 1.2, 1.4, 1.5, 1.6, 1.8, 2.0)}),
    "print-not-in-picture": printed(printing__distance_mm=80, camera__focal_mm=50),
    "print-out-of-focus": printed(printing__distance_mm=300, camera__focal_mm=50, camera__aperture=5.6),
    "print-leaves-picture": printed(move__marks=[CUP], printing__mark=0, camera__focal_mm=50),
    "print-head-in-picture": printed(printing__distance_mm=900, camera__focal_mm=50),
    "print-in-daylight": printed(**NOON),
    "stop-oozes": printed(printer={"extruder": "long tube"}),
    "stop-grinds": printed(stop={"back_mm": 6}),
    "stop-raises": printed(stop={"raise_mm": 10}),
    "stop-hits-neighbours": printed(file={"things": 2}),
    "stop-no-infill": printed(file={"infills": 2}, stop={"where": "infill"}),
    "stop-heater-off": printed(printer={"idle_s": Fraction(20)}, trigger__dwell_s="30"),
    "stop-delivered-twice": printed(printing__by=["file", "slicer"]),
    "camera-on-printer": printed(printing__camera_rides="on the printer"),
    "command-lets-go-too-soon": printed(
        printer={"fires": "commands", "fire_on": ("M240",), "hold_s": Fraction(1, 10)}, beat__wake_s="1/2"
    ),
    "stop-leaves-lamps-dark": lit_for_the_frame(),
    "pause-waits": printed(printer={"fires": "pause"}),
    "switch-on-two-cards": twice_switched(),
    "camera-hears-no-contact": deaf(),
    "stop-parks-anywhere": printed(printer={"park_y_mm": None}),
    "pads-not-known": by_remote(trigger__pads={"wires": ["left", "middle", "right"]}),
    "remote-runs-empty": by_remote(cell=4),
    "switch-refitted": printed(switch={"read_on": READ, "refitted_on": REFITTED}),
    "switch-pushed-too-far": printed(stop={"over_mm": 2.5}),
    "switch-barely-pressed": printed(stop={"over_mm": 0.05}),
    "switch-out-of-reach": printed(printer={"high_x_mm": 230}),
    "switch-not-let-go": printed(stop={"off_mm": 0.3}),
    "print-meets-switch": printed(file={"extents_mm": (80, 239, 80, 110)}),
    "switch-at-one-height": printed(switch={"rides": "frame", "up_mm": 0.5, "tall_mm": 2}),
    "start-meets-switch": printed(file={"start_way": ((20, 20, 5), (239, 20, 0.3), (20, 20, 0.3))}),
    "start-presses-switch": printed(file={"end_way": ((20, 20, 5), (237, 20, 10), (0, 20, 10))}),
    "macro-has-conditions": printed(
        file={"already": (command("PREHEAT", "unknown", 1, 0, 12),)},
        printer={"macros": (Macro(name="PREHEAT", text="{% if hot %}\nG28\n{% endif %}"),)},
    ),
    "switch-held-by-tape": printed(switch={"fixed": "taped"}),
}
