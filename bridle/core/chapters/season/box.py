"""The box: how warm it gets, whether the lens fits behind its glass, fog, holes, and what wind does on a mast."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Body, Lens, Phone, Support
from bridle.core.plan.outdoors import Box
from bridle.core.quantity import listed
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.season.draws import battery_v
from bridle.core.reckon.season.season import Staying
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import dew
from bridle.core.subjects.power import box as heat
from bridle.core.subjects.strength import wind

HOT = SnagKind(
    "box-too-hot",
    "mind",
    "season",
    "In the sun it gets {inside} in the box; the {camera} is made for {limit} at most.",
    "It switches itself off, or pictures get noisy; batteries age in a summer.",
)
LONG = SnagKind(
    "lens-meets-glass",
    "stop",
    "season",
    "The lens is {long} at its longest, and there are {room} from the mount to the glass.",
    "When it zooms or focuses it pushes against the window: the seal opens, or the focus is off.",
)
CORNERS = SnagKind(
    "window-cuts-corners",
    "mind",
    "season",
    "The lens sees through {needed} of glass at its front; the window is clear over {there}.",
    "Its rim darkens the corners of the picture, and glints when the sun is on it.",
)
HOLES = SnagKind(
    "holes-open",
    "mind",
    "season",
    "{open} of the {holes} holes of the box have neither gland nor plug.",
    "Rain is driven in by wind, insects come by themselves.",
)
DRIPS = SnagKind(
    "no-drip-loop",
    "note",
    "season",
    "Nobody says that the leads hang in a loop below their glands.",
    "Water runs along a lead; from the lowest point of a loop it drips off before the hole.",
)
FOGS = SnagKind(
    "glass-fogs-over",
    "mind",
    "season",
    "At {coldest} the glass is colder than the dew point of the air, {dew}.",
    "It fogs over from the side where the damp air is: frames of cold mornings are lost.",
)
SWAYS = SnagKind(
    "mast-sways",
    "mind",
    "season",
    "In wind of {wind} the top of the mast leans by {lean}: {px} of the picture.",
    "From frame to frame the picture jumps by up to as much, and the crop for steadying it costs picture.",
)
KINDS = (HOT, LONG, CORNERS, HOLES, DRIPS, FOGS, SWAYS)

SUN = Formula("1000 * shadow * taken * left", "full sun on its shadow, and the share that the wall takes up")
LEAN_PX = Formula("tan(radians(lean)) * focal * width / sensor", "at the middle of the picture")
FRONT = Formula("front + 2 * gap * tan(radians(field / 2))", "the front of the lens, and what it sees beside it")
MOST_SWAY_PX = 2.0
# What keeps a box cool: the value on its card, and what is done for it.
COOLER: dict[str, tuple[str | bool, str]] = {
    "shade": ("white", "paint it white"),
    "roof": (True, "put a roof over it that stands off"),
    "vented": (True, "let air through it"),
}
SPARE_MM = 5


@dataclass(frozen=True)
class Boxed:
    """A box of the kit and its place there."""

    at: int
    card: Box

    @property
    def path(self) -> str:
        """Where its card stands in the plan."""
        return f"kit.copies.{self.at}.card"


def box_of(plan: Plan) -> Boxed | None:
    """The first box of the kit."""
    return next((Boxed(n, copy.card) for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Box)), None)


def findings(plan: Plan, stay: Staying) -> Iterator[Figure | Snag]:
    """All of the box that is known; nothing without one."""
    boxed = box_of(plan)
    if boxed is None:
        return
    yield from _heat(plan, stay, boxed)
    yield from _glass(plan, boxed)
    yield from _holes(boxed)
    yield from _fog(plan, boxed)
    yield from _wind(plan, boxed)


def _heat(plan: Plan, stay: Staying, boxed: Boxed) -> Iterator[Figure | Snag]:
    card, warmest = boxed.card, plan.season.climate.warmest_c
    sides = card.wide_mm, card.tall_mm, card.deep_mm
    walls, shadow = heat.walls_m2(*sides), heat.sunlit_m2(*sides)
    sun_w = _sun_w(card)
    shaded = term("shadow", "shadow of the box", shadow, "m²")
    taken = term("taken", f"taken up by {card.shade}", heat.TAKEN_UP[card.shade], "share")
    left = term("left", "left by a roof" if card.roof else "no roof", heat.ROOFED if card.roof else 1.0, "share")
    yield figure("box.sun", "taken up from the sun", sun_w, "W", SUN, shaded, taken, left)
    camera_w = _camera_w(stay)
    if warmest is None or camera_w is None:
        return
    loss = _lost_w(plan, camera_w)
    if loss is not None:
        yield loss
    lost = loss.value if loss else 0.0
    passes = heat.VENTED_W_M2K if card.vented else heat.WALL_W_M2K
    inside = heat.inside_c(warmest, camera_w + lost, sun_w, walls, card.vented)
    yield figure(
        "box.inside", "inside, in the sun", inside, "°C", heat.WARMTH, term("warmest", "warmest day", warmest, "°C"),
        term("inside", "camera and regulator", camera_w + lost, "W"), term("sun", "from the sun", sun_w, "W"),
        term("passes", "the walls give off", passes, "W/m²K"), term("walls", "outside of the box", walls, "m²"),
    )  # fmt: skip
    cameras = ((n, copy.card) for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Body | Phone))
    camera_at, camera = next(cameras, (0, None))
    limit = camera.warmest_c if camera else None
    if camera is not None and limit is not None and inside > limit:
        slots = {"inside": slot(inside, "°C"), "camera": slot(camera.name), "limit": slot(limit, "°C")}
        yield HOT.at(f"{boxed.path}.shade", slots, list(_cooler(boxed, warmest, camera_w + lost, limit, camera_at)))


def _camera_w(stay: Staying) -> float | None:
    """What the camera turns into heat on average while windows are open; None where nobody knows what it draws."""
    power = stay.power
    if power.missing or not power.draws:
        return None
    return float(power.by_draw_w[0]) / (1 + power.draws[0].lost)


def _lost_w(plan: Plan, camera_w: float) -> Figure | None:
    power, volts = plan.season.powering, battery_v(plan)
    drawn = term("drawn", "the camera draws", camera_w, "W")
    if volts is None or power.regulator == "none":
        return None
    if power.regulator == "switching":
        lost = camera_w * heat.SWITCHING_LOSS
        return figure("box.regulator", "lost in the regulator", lost, "W", heat.SWITCHED, drawn)
    lost = heat.linear_loss_w(volts, power.camera_v, camera_w)
    ends = term("from_v", "battery", max(volts, power.camera_v), "V"), term("to_v", "camera", power.camera_v, "V")
    return figure("box.regulator", "lost in the regulator", lost, "W", heat.LINEAR, *ends, drawn)


def _sun_w(card: Box) -> float:
    """What a box takes up from full sun, in watts."""
    shadow = heat.sunlit_m2(card.wide_mm, card.tall_mm, card.deep_mm)
    return heat.SUN_W_M2 * shadow * heat.TAKEN_UP[card.shade] * (heat.ROOFED if card.roof else 1.0)


def _inside_c(card: Box, warmest: float, inside_w: float) -> float:
    walls = heat.walls_m2(card.wide_mm, card.tall_mm, card.deep_mm)
    return heat.inside_c(warmest, inside_w, _sun_w(card), walls, card.vented)


def _cooler(boxed: Boxed, warmest: float, inside_w: float, limit: float, camera_at: int) -> Iterator[Fix]:
    """White paint, a roof, air: each that is enough, else all that help together; else another camera."""
    card, enough = boxed.card, False
    for names in (("shade",), ("roof",), ("vented",), ("shade", "roof"), ("shade", "roof", "vented")):
        changes = {name: COOLER[name][0] for name in names if getattr(card, name) != COOLER[name][0]}
        after = _inside_c(card.model_copy(update=changes), warmest, inside_w)
        if len(changes) < len(names) or after > limit or (enough and len(names) > 1):
            continue
        enough = True
        yield Fix(
            label=listed([COOLER[name][1] for name in names]).capitalize(),
            consequence="{after} inside then."
            + ("" if "vented" not in names else " Holes for air face down, with mesh."),
            slots={"after": slot(after, "°C")},
            edits=tuple(Edit(path=f"{boxed.path}.{name}", value=value) for name, value in changes.items()),
        )
    if enough:
        return
    warm = math.ceil(_inside_c(card, warmest, inside_w))
    yield Fix(
        label="Plan with a camera that is made for {warm}",
        consequence="To be read in its papers. It gets that warm in full sun, without wind.",
        slots={"warm": slot(warm, "°C")},
        edits=(Edit(path=f"kit.copies.{camera_at}.card.warmest_c", value=float(warm)),),
    )


def _glass(plan: Plan, boxed: Boxed) -> Iterator[Figure | Snag]:
    lens = next((copy.card for copy in plan.kit.copies if isinstance(copy.card, Lens)), None)
    if lens is None:
        return
    long = lens.length_mm + lens.grows_mm + (plan.camera.extension_mm or 0.0)
    gap = boxed.card.room_mm - long
    if gap < 0:
        room = float(math.ceil(long + SPARE_MM))
        fix = Fix(
            label="Plan with {room} from the mount to the glass",
            consequence="A deeper box, or the camera farther back in it.",
            slots={"room": slot(room, "mm")},
            edits=(Edit(path=f"{boxed.path}.room_mm", value=room),),
        )
        slots = {"long": slot(long, "mm"), "room": slot(boxed.card.room_mm, "mm")}
        yield LONG.at(f"{boxed.path}.room_mm", slots, [fix])
        return
    field = _diagonal_deg(plan)
    needed = lens.diameter_mm + 2 * gap * math.tan(math.radians(field / 2))
    yield figure(
        "box.window", "glass that the lens sees through", needed, "mm", FRONT,
        term("front", "front of the lens", lens.diameter_mm, "mm"), term("gap", "lens to glass", gap, "mm"),
        term("field", "across the corners", field, "deg"),
    )  # fmt: skip
    if needed <= boxed.card.window_mm:
        return
    clear = float(math.ceil(needed))
    fix = Fix(
        label="A window that is clear over {clear}",
        consequence="The lens close to the glass needs less; a ring of black foam around it keeps glints out.",
        slots={"clear": slot(clear, "mm")},
        edits=(Edit(path=f"{boxed.path}.window_mm", value=clear),),
    )
    slots = {"needed": slot(needed, "mm"), "there": slot(boxed.card.window_mm, "mm")}
    yield CORNERS.at(f"{boxed.path}.window_mm", slots, [fix])


def _diagonal_deg(plan: Plan) -> float:
    """The widest field that the camera sees, across the corners."""
    half = math.hypot(plan.camera.sensor_width_mm, plan.camera.sensor_height_mm) / 2
    return 2 * math.degrees(math.atan(half / plan.camera.focal_mm))


def _holes(boxed: Boxed) -> Iterator[Snag]:
    card = boxed.card
    if card.closed < card.holes:
        fix = Fix(
            label="A gland or a plug for each",
            consequence="Glands face down. What is drilled later counts too.",
            slots={},
            edits=(Edit(path=f"{boxed.path}.closed", value=card.holes),),
        )
        slots = {"open": slot(str(card.holes - card.closed)), "holes": slot(str(card.holes))}
        yield HOLES.at(f"{boxed.path}.closed", slots, [fix])
    if card.holes and card.drip_loop != "yes":
        fix = Fix(
            label="They hang in a loop",
            consequence="It goes onto the list of what is looked at on each visit.",
            slots={},
            edits=(Edit(path=f"{boxed.path}.drip_loop", value="yes"),),
        )
        yield DRIPS.at(f"{boxed.path}.drip_loop", {}, [fix])


def _fog(plan: Plan, boxed: Boxed) -> Iterator[Figure | Snag]:
    air, damp, coldest = plan.light.air_c, plan.light.humidity, plan.season.climate.coldest_c
    if air is None or damp is None:
        return
    point = dew.dew_point_c(air, damp)
    humid = term("air", "air", air, "°C"), term("humidity", "humidity", damp, "share")
    yield figure("box.dew", "dew point of the air", point, "°C", dew.DEW, *humid)
    heated = plan.season.powering.heater != "never" and boxed.card.heater_w
    if coldest is None or coldest >= point or heated:
        return
    fix = Fix(
        label="A heater of {watts} before the glass, below the dew point",
        consequence="Some degrees are enough. It is in the balance of the battery from then on.",
        slots={"watts": slot(boxed.card.heater_w or 3.0, "W")},
        edits=(
            Edit(path="season.powering.heater", value="below the dew point"),
            Edit(path=f"{boxed.path}.heater_w", value=boxed.card.heater_w or 3.0),
        ),
    )
    yield FOGS.at("season.powering.heater", {"coldest": slot(coldest, "°C"), "dew": slot(point, "°C")}, [fix])


def _wind(plan: Plan, boxed: Boxed) -> Iterator[Figure | Snag]:
    speed, card = plan.season.climate.wind_m_s, boxed.card
    face = max(card.wide_mm, card.deep_mm) * card.tall_mm / 1e6
    push = wind.push_n(speed, face)
    blows = term("wind", "wind", speed, "m/s"), term("face", "side of the box", face, "m²")
    yield figure("wind.push", "push of the wind on the box", push, "N", wind.PUSH, *blows)
    at, support = next(((n, c.card) for n, c in enumerate(plan.kit.copies) if isinstance(c.card, Support)), (0, None))
    if support is None or support.tube is None or support.free_mm is None:
        return
    bends = wind.second_moment_mm4(support.tube.outer_mm, support.tube.inner_mm) * support.tube.count
    mast = wind.mast_push_n(speed, support.tube.outer_mm, support.free_mm)
    pushes = term("push", "push on the box", push, "N"), term("mast", "push on the tube", mast, "N")
    free = term("free", "stands free", support.free_mm, "mm")
    wide = term("wide", "tube", support.tube.outer_mm, "mm")
    yield figure("wind.mast", "push of the wind on the mast", mast, "N", wind.MAST_PUSH, blows[0], wide, free)
    turn = (push + mast / 2) * support.free_mm / 1000
    yield figure("wind.turn", "turns at its clamp with", turn, "N·m", wind.TURN, *pushes, free)
    lean = wind.lean_deg(push, mast, support.free_mm, support.tube.modulus_gpa, bends)
    yield figure(
        "wind.lean", "the mast leans", lean, "deg", wind.LEAN, *pushes, free,
        term("stiff", "stiffness", support.tube.modulus_gpa * 1000, "N/mm²"),
        term("bend", "of the tube", bends, "mm⁴"),
    )  # fmt: skip
    camera = longest_lens(plan)
    pixels = math.tan(math.radians(lean)) * camera.focal_mm * camera.picture_width_px / camera.sensor_width_mm
    yield figure(
        "wind.px", "of the picture", pixels, "px", LEAN_PX, term("lean", "the mast leans", lean, "deg"),
        term("focal", "focal length", camera.focal_mm, "focal"), term("width", "width", camera.picture_width_px, "px"),
        term("sensor", "sensor", camera.sensor_width_mm, "mm"),
    )  # fmt: skip
    if pixels <= MOST_SWAY_PX:
        return
    # The push along the tube gets less with it too: by the square root it is enough.
    shorter = float(math.floor(support.free_mm * math.sqrt(MOST_SWAY_PX / pixels) * 0.99))
    fix = Fix(
        label="Guy it so that the mast stands free over {free}",
        consequence="By somebody who is trained for masts. Guys are marked so that nobody walks into them.",
        slots={"free": slot(shorter, "mm")},
        edits=(Edit(path=f"kit.copies.{at}.card.free_mm", value=shorter),),
    )
    slots = {"wind": slot(speed, "m/s"), "lean": slot(lean, "deg"), "px": slot(pixels, "px")}
    yield SWAYS.at(f"kit.copies.{at}.card.free_mm", slots, [fix])
