"""A plan that provokes each kind of snag of a camera that stays: its power, its box, its clock, its visits."""

from fractions import Fraction
from typing import Any

from bridle.core.plan.document import Plan
from tests.strategies import plan_of

BODY: dict[str, Any] = {
    "kind": "body", "name": "site body", "standby_w": 0.5, "picture_j": 20.0, "warmest_c": 40.0, "after_cut": "goes on",
}  # fmt: skip
TIMER: dict[str, Any] = {
    "kind": "trigger", "name": "site timer", "source": "wired remote", "draws_w": 0.1, "after_cut": "goes on",
    "schedule": {"follows_change": "yes", "numbers": "go on"},
}  # fmt: skip
BATTERY: dict[str, Any] = {
    "kind": "battery", "name": "lead battery", "volts": 12.0, "amp_hours": 40.0, "usable": 0.5, "lithium": False,
    "mass_g": 12_500.0,
}  # fmt: skip
BOX: dict[str, Any] = {
    "kind": "box", "name": "camera box", "shade": "white", "vented": True, "drip_loop": "yes", "lock": True,
}  # fmt: skip
PANEL: dict[str, Any] = {"kind": "panel", "name": "panel", "watts": 60.0}
CARD: dict[str, Any] = {"kind": "card", "name": "card", "gigabytes": 64.0}
LENS: dict[str, Any] = {"kind": "lens", "name": "short zoom", "length_mm": 95.0, "diameter_mm": 78.0}
MAINS: dict[str, Any] = {"kind": "supply", "name": "plug-in supply"}
DAYLIGHT = {"weekdays": [0, 1, 2, 3, 4, 5, 6], "opens": {"minutes": 480}, "closes": {"minutes": 1080}}


def camera(*cards: dict[str, Any], days: tuple[str, str] = ("2026-06-01", "2026-06-14"), **season: Any) -> Plan:
    """A camera with its timer and these cards at Port Ellary, a frame every ten minutes of the day."""
    frames = {
        "source": "windows", "every_s": str(season.pop("every_s", 600)), "rules": [DAYLIGHT], "first": days[0],
        "last": days[1],
    }  # fmt: skip
    copies = [{"key": f"part-{n}", "card": card} for n, card in enumerate([*cards, BODY, TIMER])]
    light, picture = season.pop("light", {}), season.pop("picture", {})
    plan = plan_of(
        {"rate": Fraction(25)}, clip={"frames": frames}, kit={"copies": copies}, season=season, light=light,
        picture=picture,
        camera={"focal_mm": 24.0}, rig={"axes": []}, move={"keyframes": [{}, {}]},
    )  # fmt: skip
    place = plan.shoot.place.model_copy(update={"latitude_deg": 57.32, "longitude_deg": -6.18})
    return plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place, "kind": "site"})})


def another(card: dict[str, Any], **more: Any) -> dict[str, Any]:
    """A card with other figures."""
    return {**card, **more}


def with_camera(**more: Any) -> Plan:
    """The camera's own card with other figures."""
    plan = camera(CARD)
    copies = tuple(
        copy.model_copy(update={"card": copy.card.model_copy(update=more)}) if copy.card.kind == "body" else copy
        for copy in plan.kit.copies
    )
    return plan.model_copy(update={"kit": plan.kit.model_copy(update={"copies": copies})})


def with_timer(days: tuple[str, str] = ("2026-06-01", "2026-06-14"), **more: Any) -> Plan:
    """The timer's card with other figures."""
    copies = [{"key": "body", "card": BODY}, {"key": "timer", "card": another(TIMER, **more)}]
    return Plan.model_validate({**camera(days=days).model_dump(mode="json"), "kit": {"copies": copies}})


STAYING: dict[str, Plan] = {
    "shutter-worn-out": with_camera(shutter_done=149_500, shutter_rated=150_000.0),
    "card-holds-no-frame": camera(another(CARD, gigabytes=0.02)),
    "draw-not-known": camera(BATTERY, another(BOX), powering={"heater": "at night"}),
    "battery-runs-out": camera(BATTERY, visiting={"swaps_battery": False}),
    "cut-not-bridged": camera(another(BATTERY, amp_hours=0.5), MAINS),
    "lithium-charged-in-frost": camera(
        another(BATTERY, lithium=True), PANEL, climate={"coldest_c": -6.0, "warmest_c": 20.0}
    ),
    "box-too-hot": camera(
        BATTERY, another(BOX, shade="black", vented=False), climate={"coldest_c": 5.0, "warmest_c": 30.0}
    ),
    "lens-meets-glass": camera(another(BOX, room_mm=90.0), LENS),
    "window-cuts-corners": camera(another(BOX, window_mm=80.0), LENS),
    "holes-open": camera(another(BOX, holes=3, closed=1)),
    "no-drip-loop": camera(another(BOX, drip_loop="not known")),
    "glass-fogs-over": camera(
        BOX, climate={"coldest_c": 2.0}, light={"air_c": 12.0, "humidity": 0.9, "heater": True}
    ),
    "mast-sways": camera(
        BOX,
        {"kind": "support", "name": "mast", "form": "mast", "tube": {"count": 1, "outer_mm": 48.0, "inner_mm": 42.0},
         "free_mm": 2500.0},
    ),
    "restart-not-tried": with_camera(after_cut="not known"),
    "does-not-restart": with_camera(after_cut="forgets its settings"),
    "numbers-overwrite": with_timer(schedule={"numbers": "overwrite"}),
    "controller-has-no-hours": with_timer(schedule=None),
    "controller-clock-change": with_timer(("2026-10-19", "2026-11-01"), schedule={"follows_change": "not known"}),
    "controller-misses-frames": with_timer(step_s="400"),
    "aim-eats-picture": camera(
        CARD, picture={"width_px": 5600}, aims=[{"on": "2026-06-03", "across_px": 900.0, "turned_deg": 1.0}],
    ),
    "stands-in-view": camera(
        CARD, obstacles=[{"name": "the alder", "from_day": "2026-06-01", "tall_mm": 700.0, "grows_mm_month": 600.0,
                          "away_mm": 8000.0}],
    ),
    "nobody-looks": camera(CARD, days=("2026-06-01", "2026-06-28"), visiting={"clean_days": 10}),
    "visit-too-late": camera(another(CARD, gigabytes=1.0)),
    "visit-off-its-day": camera(
        another(CARD, gigabytes=8.0), visiting={"weekdays": [0]}, storing={"frame_mb": 31.0}
    ),
    "visits-without-end": camera(
        another(CARD, gigabytes=2.0), days=("2026-01-01", "2028-06-30"), every_s=1200, storing={"frame_mb": 40.0}
    ),
}  # fmt: skip
