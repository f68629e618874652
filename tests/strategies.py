"""Plans and parts of plans for property tests."""

import json
from datetime import datetime, timedelta
from fractions import Fraction
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

from hypothesis import strategies as st

from bridle.core.asks.fitting import fit
from bridle.core.plan.anchors import Anchor
from bridle.core.plan.beat import Beat, Stack, Uncoupled
from bridle.core.plan.camera import Camera
from bridle.core.plan.clip import QUANTITIES, Clip, Peg, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.kit import Kit
from bridle.core.plan.light import Density, Light, Proof
from bridle.core.plan.marks import Aimed, Mark
from bridle.core.plan.move import Follow, Keyframe, Move, OnClip, OnFrame, Pass
from bridle.core.plan.picture import Crop, Picture, Post
from bridle.core.plan.rig import USUAL_RINGS, Axis, Rig, Standing
from bridle.core.plan.rounds import PanoramaRow, Station, Stations, StereoPair
from bridle.core.plan.shoot import Clock, Place, Shoot
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.subjects.time.sentence import RATES, still_free

START = datetime(2026, 9, 27, 6, 10, tzinfo=ZoneInfo("Europe/London"))


def tenths(low: float, high: float) -> st.SearchStrategy[Fraction]:
    """Exact decimals as people type them."""
    return st.integers(int(low * 10), int(high * 10)).map(lambda n: Fraction(n, 10))


VALUES: dict[str, st.SearchStrategy[Fraction]] = {
    "shoot": tenths(10, 40_000),
    "interval": tenths(0.5, 600),
    "frames": st.integers(1, 5_000).map(Fraction),
    "rate": st.sampled_from(RATES),
    "clip": tenths(0.5, 300),
    "speed_up": tenths(1, 5_000),
}


@st.composite
def holds(draw: st.DrawFn, most: int = 6) -> dict[str, Fraction]:
    """Any held quantities, contradictions and all."""
    names = draw(st.lists(st.sampled_from(QUANTITIES), unique=True, max_size=most))
    return {name: draw(VALUES[name]) for name in names}


INDEPENDENT: list[tuple[Quantity, ...]] = [
    (a, b, c)
    for i, a in enumerate(QUANTITIES)
    for j, b in enumerate(QUANTITIES[i + 1 :], i + 1)
    for c in QUANTITIES[j + 1 :]
    if not still_free(dict.fromkeys((a, b, c), Fraction(1)))
]


@st.composite
def enough_holds(draw: st.DrawFn) -> dict[str, Fraction]:
    """Three held quantities that fix the rest."""
    return {name: draw(VALUES[name]) for name in draw(st.sampled_from(INDEPENDENT))}


def shooting(plan: Plan) -> Shooting:
    """The numbers of a plan whose clip is solved."""
    known = reckon(plan).shooting
    assert known is not None
    return known


def pegs(held: dict[str, Fraction]) -> tuple[Peg, ...]:
    """Holds as pegs."""
    return tuple(Peg.model_validate({"quantity": name, "value": value}) for name, value in held.items())


def plan_of(held: dict[str, Fraction], **sections: Any) -> Plan:
    """A plan with these holds and otherwise sound defaults."""
    step = sections.pop("step", Fraction(1, 10))
    more: dict[str, Any] = dict(sections.pop("clip", {}))
    frames = more.pop("frames", {"source": "even"})
    clip = Clip.model_validate({"pegs": pegs(held), "interval_step_s": step, **more})
    clock = Clock.model_validate({"at": START, **sections.pop("clock", {})})
    shoot = Shoot(name="Trial", place=Place(zone="Europe/London"), clock=clock)
    return Plan.model_validate({"shoot": shoot, "clip": clip, "frames": frames, **sections})


whens = st.one_of(
    st.none(),
    st.builds(OnFrame, frame=st.integers(1, 900)),
    st.builds(OnClip, at_s=tenths(0, 60)),
)
keyframes = st.builds(
    Keyframe,
    when=whens,
    slide_mm=st.floats(-200, 1200),
    pan_deg=st.floats(-200, 200),
    tilt_deg=st.floats(-60, 60),
    roll_deg=st.floats(-20, 20),
    focus_mm=st.floats(300, 20_000),
    zoom_mm=st.one_of(st.none(), st.floats(20, 90)),
    passing=st.sampled_from(["through", "stop"]),
    hold_frames=st.sampled_from([0, 0, 5, 60]),
)
visits = st.one_of(
    st.none(),
    st.none(),
    st.builds(
        Stations,
        stations=st.lists(
            st.builds(Station, name=st.just("A"), slide_mm=st.floats(-50, 950), pan_deg=st.floats(-180, 180)),
            min_size=1,
            max_size=4,
        ),
    ),
    st.builds(PanoramaRow, sweep_deg=st.floats(1, 360), overlap=st.floats(0, 0.6), closed=st.booleans()),
    st.builds(StereoPair, base_mm=st.floats(1, 300)),
)
crops = st.builds(Crop, across=st.floats(0, 1), down=st.floats(0, 1), width=st.floats(0.05, 1))
marks = st.builds(
    Mark,
    name=st.just("post"),
    form=st.sampled_from(["point", "post", "block", "person", "bearing"]),
    x_mm=st.floats(-5000, 6000),
    y_mm=st.floats(-500, 9000),
    z_mm=st.floats(-1500, 3000),
    bearing_deg=st.floats(0, 360),
    cue=st.booleans(),
    aimed=st.one_of(
        st.none(),
        st.builds(
            Aimed,
            slide_1_mm=st.just(0.0),
            pan_1_deg=st.floats(-89, 89),
            slide_2_mm=st.floats(-100, 900),
            pan_2_deg=st.floats(-89, 89),
        ),
    ),
)
moves = st.builds(
    lambda follow, marks, **more: Move(marks=tuple(marks), follow=follow if marks else None, **more),
    follow=st.one_of(
        st.none(),
        st.builds(Follow, across=st.sampled_from(["left third", "centre", "right third"]), every_frame=st.booleans()),
    ),
    visits=visits,
    post=st.one_of(st.none(), st.none(), st.builds(Post, start=crops, end=crops)),
    live_s=st.one_of(st.none(), tenths(1, 300)),
    passes=st.lists(st.builds(Pass, name=st.just("again"), interval_s=st.one_of(st.none(), tenths(1, 20))), max_size=1),
    keyframes=st.lists(keyframes, min_size=2, max_size=5),
    ease_in_frames=st.integers(0, 400),
    ease_out_frames=st.integers(0, 400),
    ease_in_s=st.one_of(st.none(), tenths(0, 20)),
    curve=st.sampled_from(["constant", "s-curve"]),
    legs=st.sampled_from([1, 1, 1, 2, 3]),
    marks=st.lists(marks, max_size=2),
)
beats = st.builds(
    Beat,
    wake_s=tenths(0, 3),
    exposure_s=tenths(0.1, 40),
    write_s=tenths(0, 6),
    settle_s=tenths(0, 5),
    write_while_moving=st.booleans(),
    margin=st.sampled_from([Fraction(0), Fraction(1, 10), Fraction(1, 4)]),
    school=st.sampled_from(["shoot-move-shoot", "continuous"]),
    bracket_frames=st.sampled_from([1, 1, 3, 5]),
    bracket_step_stops=st.sampled_from([0.0, 1.0, 2.0]),
    noise_reduction=st.booleans(),
    merge_s=tenths(0, 2),
    buffer_frames=st.sampled_from([0, 0, 5, 22]),
    stack=st.one_of(st.none(), st.just(Stack(near_mm=300, far_mm=500)), st.just(Stack(near_mm=20, far_mm=500))),
    uncoupled=st.one_of(st.none(), st.builds(Uncoupled, between_starts_s=tenths(0, 60))),
)


def ramp(*segments: tuple[Any, Any], blend: int = 0) -> dict[str, Any]:
    """An interval that changes, from lengths and intervals in seconds."""
    made = [{"length_s": length, "interval_s": interval} for length, interval in segments]
    return {"source": "changing", "segments": made, "blend_frames": blend}


ramps = st.builds(
    lambda segments, blend: ramp(*segments, blend=blend),
    st.lists(st.tuples(tenths(5, 9000), tenths(0.5, 120)), min_size=2, max_size=5),
    st.integers(0, 120),
)
clips = st.fixed_dictionaries(
    {},
    optional={
        "frames": ramps,
        "handle_in_frames": st.integers(0, 60),
        "handle_out_frames": st.integers(0, 60),
        "spare": st.sampled_from([Fraction(1, 20), Fraction(1, 4), Fraction(1, 2)]),
        "school": st.sampled_from(["stills", "movie", "video"]),
        "called_by": st.sampled_from(["clock", "event"]),
        "trial": st.fixed_dictionaries(
            {"apart_s": tenths(1, 9000), "moved_px": tenths(1, 300), "step_px": tenths(1, 20)}
        ),
        "crossing": st.fixed_dictionaries({"cross_s": tenths(1, 9000), "screen_s": tenths(1, 20)}),
    },
)
anchors = st.one_of(
    st.none(),
    st.none(),
    st.builds(
        Anchor,
        to=st.sampled_from(
            ["sunrise", "sunset", "nautical dusk", "astronomical dawn", "moonrise", "moon up", "sun down"]
        ),
        offset_s=st.sampled_from([Fraction(0), Fraction(-2400), Fraction(900)]),
        altitude_deg=st.sampled_from([0.0, 10.0, -4.0]),
    ),
)
clocks = st.fixed_dictionaries(
    {},
    optional={
        "holds": st.sampled_from(["start", "finish"]),
        "start_delay_s": tenths(0, 60),
        "tied": anchors,
        "until": anchors,
        "events": st.lists(
            st.builds(
                lambda s, tied: {"name": "tide", "at": START + timedelta(seconds=s), "tied": tied},
                st.integers(-9000, 20_000),
                anchors,
            ),
            max_size=2,
        ),
    },
)
KIT_FILE = Path(__file__).parents[1] / "bridle" / "demo" / "kit.json"
CARDS: dict[str, Any] = json.loads(KIT_FILE.read_text())["cards"]


def copies(*names: str, **changed: dict[str, Any]) -> list[dict[str, Any]]:
    """Copies of demo cards, some of them with other figures."""
    return [{"key": name, "card": {**CARDS[name], **changed.get(name.replace("-", "_"), {})}} for name in names]


def fitted(plan: Plan, made: list[dict[str, Any]]) -> Plan:
    """A plan with these copies put in, as the page does it."""
    kit = Kit.model_validate({"copies": made})
    return apply(plan, fit(plan, kit.copies))[0]


kits = st.lists(st.sampled_from(sorted(CARDS)), unique=True, max_size=9).map(lambda names: copies(*names))
standings = st.builds(
    Standing,
    slope_deg=st.sampled_from([0.0, 0.0, 8.0, -25.0, 60.0]),
    level_error_deg=st.sampled_from([0.0, 0.5, 3.0]),
    rail_at=st.sampled_from([0.5, 0.2, 1.0]),
)
RINGS = (
    Axis(name="slide", kind="linear", low=0, high=900, top_speed=25, acceleration=80, backlash=0.2),
    Axis(name="pan", kind="rotary", low=-170, high=170, top_speed=20, acceleration=40, backlash=0.1),
    Axis(name="tilt", kind="rotary", low=-45, high=60, top_speed=12, acceleration=30),
    Axis(name="roll", kind="rotary", low=-15, high=15, top_speed=12, acceleration=30),
    Axis(name="focus", kind="rotary", low=0, high=90, top_speed=30, acceleration=60, ring=USUAL_RINGS["focus"]),
    Axis(name="zoom", kind="rotary", low=0, high=90, top_speed=30, acceleration=60, ring=USUAL_RINGS["zoom"]),
)


def leant(lean: float | None, toward: float = 0.0, axes: tuple[Axis, ...] = RINGS) -> tuple[Axis, ...]:
    """Axes of which the pan leans."""
    update = {"lean_deg": lean, "lean_toward_deg": toward}
    return tuple(axis.model_copy(update=update) if axis.name == "pan" else axis for axis in axes)


rigs = st.builds(
    Rig,
    axes=st.builds(
        leant,
        st.sampled_from([None, None, 0.0, 12.0, 35.0]),
        st.sampled_from([0.0, -90.0, 130.0]),
        st.sampled_from([RINGS[:2], RINGS[:3], RINGS, RINGS[1:2], ()]),
    ),
    normal_bearing_deg=st.one_of(st.none(), st.floats(0, 360)),
    standing=standings,
)
pictures = st.builds(
    Picture,
    shape=st.sampled_from(["as shot", "16:9", "9:16", "1:1"]),
    width_px=st.one_of(st.none(), st.sampled_from([1920, 3840, 7680])),
    level_deg=st.sampled_from([0.0, 0.0, 2.0, -7.5]),
    reserve=st.sampled_from([0.0, 0.1]),
)
cameras = st.builds(
    Camera,
    upright=st.booleans(),
    focal_mm=st.sampled_from([14.0, 35.0, 35.0, 200.0]),
    corrected=st.sampled_from([1.0, 0.96]),
    lens_px=st.one_of(st.none(), st.just(4000)),
)


def located(plan: Plan, where: tuple[float, float] | None) -> Plan:
    """A plan whose place on earth is known."""
    if where is None:
        return plan
    place = plan.shoot.place.model_copy(update={"latitude_deg": where[0], "longitude_deg": where[1]})
    return plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place})})


proofs = st.builds(
    Proof,
    at=st.integers(-7200, 20_000).map(lambda s: START + timedelta(seconds=s)),
    shutter_s=st.sampled_from([Fraction(1, 1000), Fraction(1, 60), Fraction(2), Fraction(25)]),
    iso=st.sampled_from([100, 640, 6400]),
    aperture=st.sampled_from([1.8, 5.6, 11.0]),
    density_stops=st.sampled_from([0.0, 0.0, 6.0]),
)
densities = st.builds(Density, stops=st.sampled_from([1.0, 3.0, 10.0]), first_frame=st.integers(1, 700))
lights = st.builds(
    Light,
    school=st.sampled_from(["locked", "ramped", "ramped", "automatic"]),
    daylight=st.sampled_from([None, None, True, False]),
    cloud_stops=st.sampled_from([0.0, 1.5, 4.0]),
    town_lx=st.sampled_from([0.0, 0.0, 0.5, 30.0]),
    offset_stops=st.sampled_from([0.0, 2.0, -1.0]),
    proofs=st.lists(proofs, max_size=2),
    night_stops=st.sampled_from([0.0, 1.0, 2.5]),
    step=st.sampled_from(["third", "half", "full"]),
    order=st.sampled_from([("shutter", "iso"), ("shutter",), ("iso", "shutter"), ("aperture", "shutter", "iso")]),
    shutter_short_s=st.sampled_from([Fraction(1, 8000), Fraction(1, 250)]),
    shutter_long_s=st.sampled_from([Fraction(1, 30), Fraction(4), Fraction(30)]),
    iso_high=st.sampled_from([400, 3200, 25_600]),
    aperture_wide=st.sampled_from([1.8, 4.0]),
    aperture_narrow=st.sampled_from([8.0, 16.0]),
    stars_px=st.sampled_from([None, 2.0, 8.0]),
    over_stops=st.sampled_from([0.0, 2.0]),
    densities=st.lists(densities, max_size=2),
)

# A chain from what fires to the camera, and how it is joined, read, lit and tried; what hangs in the air included.
wired_kits = st.builds(
    lambda source, between, lead, camera, lamps: copies(source, *between, *lead, camera, *lamps),
    st.sampled_from(["remote-timer", "print-switch", "printer-pin", "microcontroller", "print-host", "radio-remote",
                     "headset-button", "camera-board", "phone-app", "controller"]),
    st.lists(st.sampled_from(["optocoupler", "relay", "relay-board", "two-optocouplers", "volume-resistor"]),
             unique=True, max_size=2),
    st.lists(st.sampled_from(["release-lead", "cut-lead"]), max_size=1),
    st.sampled_from(["full-frame-body", "crop-body", "compact", "phone"]),
    st.lists(st.sampled_from(["grow-lamp", "bench-lamp", "lamp-supply"]), unique=True, max_size=3),
)  # fmt: skip
ENDS = ["source.shutter", "source.ground", "source.open", "source.closed", "source.common", "source.pin",
        "coupling.plus", "coupling.minus", "coupling.high", "coupling.low", "camera.shutter", "camera.focus",
        "camera.ground", "wire.0", "wire.1", "wire.2"]  # fmt: skip
meters = st.builds(
    lambda ask, stage, pair, yes: {"ask": ask, "stage": stage, "a": pair[0], "b": pair[1], "yes": yes},
    st.sampled_from(["closed", "closed", "above"]), st.sampled_from(["rest", "half", "full"]),
    st.sampled_from([(0, 1), (1, 2), (2, 0)]), st.booleans(),
)  # fmt: skip
sounded = st.one_of(st.none(), st.builds(lambda readings: {"wires": ["red", "white", "blue"], "readings": readings},
                                         st.lists(meters, max_size=5)))  # fmt: skip
lamp_uses = st.builds(
    lambda lamp, lit, before: {"lamp": lamp, "lit": lit, "before_s": before, "pin": "D2"},
    st.sampled_from(["grow-lamp", "bench-lamp"]), st.sampled_from(["always", "for the frame", "between frames"]),
    st.sampled_from([None, "0", "1/2", "5"]),
)  # fmt: skip
triggers = st.fixed_dictionaries({
    "lead": sounded, "switch": sounded, "pin": st.sampled_from(["", "D2", "P1"]),
    "joins": st.one_of(st.none(), st.none(), st.lists(
        st.builds(lambda a, b: {"a": a, "b": b}, st.sampled_from(ENDS), st.sampled_from(ENDS)), max_size=4)),
    "dwell_s": st.sampled_from([None, None, "0", "2"]), "keep_awake_s": st.sampled_from([None, None, "30"]),
    "distance_mm": st.sampled_from([None, 4000.0, 90_000.0]), "ground_mm": st.sampled_from([0.0, 0.0, 4000.0]),
    "autofocus": st.booleans(), "stabiliser": st.booleans(),
    "lamps": st.lists(lamp_uses, max_size=2), "may_miss": st.sampled_from([None, 1, 500]),
    "look": st.sampled_from([None, {"every_frames": 3}]),
})  # fmt: skip
presses = st.fixed_dictionaries({
    "half_s": st.sampled_from(["0", "0", "1/2"]), "warm_s": st.sampled_from(["0", "0", "2"]),
    "press_s": st.sampled_from(["1/5", "1/5", "1/20", "4"]),
})  # fmt: skip


def pressed(beat: Beat, how: dict[str, str]) -> Beat:
    """A beat with another press."""
    return Beat.model_validate({**beat.model_dump(), **how})


plans = st.builds(
    lambda held, move, beat, press, step, clip, clock, kit, rig, picture, camera, light, trigger, where: located(
        fitted(
            plan_of(
                held,
                move=move,
                beat=pressed(beat, press),
                step=step,
                clip=clip,
                clock=clock,
                rig=rig,
                picture=picture,
                camera=camera,
                light=light,
                trigger=trigger,
            ),
            kit,
        ),
        where,
    ),
    st.one_of(holds(), enough_holds()),
    moves,
    beats,
    presses,
    st.sampled_from([Fraction(0), Fraction(1, 10), Fraction(1, 2), Fraction(1)]),
    clips,
    clocks,
    st.one_of(st.just([]), kits, wired_kits),
    rigs,
    pictures,
    cameras,
    lights,
    triggers,
    st.sampled_from([None, (57.32, -6.18), (-33.0, 151.0), (78.2, 15.6)]),
)
