"""Plans and parts of plans for property tests."""

from datetime import datetime
from fractions import Fraction
from zoneinfo import ZoneInfo

from hypothesis import strategies as st

from bridle.core.plan.beat import Beat
from bridle.core.plan.clip import QUANTITIES, Clip, Peg, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Mark, Move
from bridle.core.plan.shoot import Place, Shoot
from bridle.core.subjects.clip import RATES, still_free

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


def pegs(held: dict[str, Fraction]) -> tuple[Peg, ...]:
    """Holds as pegs."""
    return tuple(Peg.model_validate({"quantity": name, "value": value}) for name, value in held.items())


def plan_of(held: dict[str, Fraction], **sections: object) -> Plan:
    """A plan with these holds and otherwise sound defaults."""
    step = sections.pop("step", Fraction(1, 10))
    clip = Clip.model_validate({"pegs": pegs(held), "interval_step_s": step})
    shoot = Shoot(name="Trial", place=Place(zone="Europe/London"), start=START)
    return Plan.model_validate({"shoot": shoot, "clip": clip, **sections})


marks = st.builds(Mark, name=st.just("post"), x_mm=st.floats(-500, 1500), y_mm=st.floats(1, 9000))
keyframes = st.builds(Keyframe, slide_mm=st.floats(-200, 1200), pan_deg=st.floats(-200, 200))
moves = st.builds(
    Move,
    start=keyframes,
    end=keyframes,
    ease_in_frames=st.integers(0, 400),
    ease_out_frames=st.integers(0, 400),
    marks=st.lists(
        st.builds(Mark, name=st.just("post"), x_mm=st.floats(-500, 1500), y_mm=st.floats(1, 9000)), max_size=2
    ),
)
beats = st.builds(
    Beat,
    wake_s=tenths(0, 3),
    exposure_s=tenths(0.1, 40),
    write_s=tenths(0, 6),
    settle_s=tenths(0, 5),
    write_while_moving=st.booleans(),
    margin=st.sampled_from([Fraction(0), Fraction(1, 10), Fraction(1, 4)]),
)
plans = st.builds(
    lambda held, move, beat, step: plan_of(held, move=move, beat=beat, step=step),
    st.one_of(holds(), enough_holds()),
    moves,
    beats,
    st.sampled_from([Fraction(0), Fraction(1, 10), Fraction(1, 2), Fraction(1)]),
)
