"""Whether a shoot is ready: what stops it, what nobody knows, and what was checked of it."""

from datetime import UTC, date, datetime
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from bridle.core.asks.changes import PutOn, make
from bridle.core.chapters.review.state import Readiness
from bridle.core.evaluate import evaluate
from bridle.core.given import Given, Proved
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.new import new_plan
from bridle.core.plan.printing import Proven
from bridle.core.reckon.printing import print_digest
from bridle.core.snag import fill
from tests.core.test_trigger import demo
from tests.provoked import PROVOKE, provoked
from tests.strategies import CARDS, plan_of

START = datetime(2026, 9, 26, 6, 10, tzinfo=UTC)
DEMOS = (
    "harbour-refloat", "lamps-along-the-quay", "fern-frond-uncurling", "mill-weir-footbridge", "lattice-lantern",
    "market-morning", "moonlight-over-the-salt-barn",
)  # fmt: skip


def ready(plan: Plan, now: datetime | None = None, proofs: tuple[Proved, ...] = ()) -> Readiness:
    """The judgement, as it is asked at a moment, with what the bench has proven."""
    told = evaluate(plan, given=Given(now_s=now.timestamp() if now else None, proofs=proofs)).review.ready
    assert told is not None
    return told


def proved(plan: Plan, **more: Any) -> Proved:
    """A proof of a plan's changed file, as the bench keeps it."""
    return Proved(**{"of": print_digest(plan), "stands": "proven", "on": date(2026, 9, 1), **more})


def on_the_rig(*names: str, **changed: Any) -> Plan:
    """A new sheet of no kind with these cards put on."""
    plan = new_plan("quay", "", "", "Europe/London", START, "slide")
    plan = plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"kind": None})})
    cards = [{"card": {**CARDS[name], **changed.get(name.replace("-", "_"), {})}} for name in names]
    return make(plan, [PutOn.model_validate({"do": "put", "cards": cards})])[0]


class Judged(TestCase):
    def test_the_demo_shoots_are_ready_and_each_says_what_was_checked_of_it(self) -> None:
        for name in DEMOS:
            with self.subTest(name):
                plan = demo(name)
                told = ready(plan, proofs=(proved(plan),))
                self.assertEqual((told.stands, told.doubts), ("ready", ()))
                self.assertEqual("the print" in told.checked, name == "lattice-lantern")
                self.assertEqual("the long run" in told.checked, "Fern" in plan.shoot.name or "Mill" in plan.shoot.name)
                self.assertEqual("the move" in told.checked, bool(plan.rig.axes))

    def test_nothing_that_stops_a_shoot_is_called_ready(self) -> None:
        """Every plan that provokes a stop, whatever its kind; and a clip that is open."""
        for code, plan in PROVOKE.items():
            stops = [snag for snag in provoked(code).snags if snag.severity == "stop"]
            with self.subTest(code):
                told = ready(plan)
                self.assertEqual(told.stands == "not ready", bool(stops) or provoked(code).frames is None)
                if len(stops) > 1:
                    self.assertEqual(fill(told.title, told.slots), f"Not ready: {len(stops)} things stop this shoot")
        self.assertEqual(ready(plan_of({"rate": F(25)})).stands, "not ready")

    def test_a_shoot_whose_day_has_gone_by_is_past_and_not_ready(self) -> None:
        """An hour from 06:10 in summer: at its end it is not past yet, a second later it is; nobody asks, it is not."""
        plan = _without_stops(on_the_rig("tripod", "full-frame-body", "remote-timer"))
        end = datetime(2026, 9, 26, 7, 10, tzinfo=UTC)
        for now, stands in (
            (end, "ready but"),
            (datetime(2026, 9, 26, 7, 10, 1, tzinfo=UTC), "past"),
            (None, "ready but"),
        ):
            self.assertEqual(ready(plan, now).stands, stands)
        past = ready(plan, datetime(2027, 1, 1, tzinfo=UTC))
        self.assertEqual(fill(past.title, past.slots, "Europe/London"), "Past: its last frame was due 26 Sep, 08:09:50")

    def test_what_nobody_knows_is_named_and_what_does_not_concern_a_rig_is_not(self) -> None:
        here = {"shoot.place.latitude_deg": 57.32, "shoot.place.longitude_deg": -6.18}
        bare = new_plan("quay", "", "", "Europe/London", START, "night")
        cases: tuple[tuple[Plan, set[str]], ...] = (
            (bare, {"where on earth the place is", "which parts it is"}),
            (placed(bare, here), {"which parts it is"}),
            (placed(on_the_rig("tripod", "full-frame-body", "remote-timer"), here), set()),
            (placed(on_the_rig("tripod", "full-frame-body", "remote-timer",
                               full_frame_body={"write_s": None, "lag_s": None}), here),
             {"its write time and shutter lag"}),
            (placed(on_the_rig("light-tripod", "turntable", "phone", turntable={"typed": []}), here),
             {"which way the wind-up turntable, two-hour turns"}),
            (placed(on_the_rig("light-tripod", "turntable", "phone"), here), set()),
        )  # fmt: skip
        for plan, lacks in cases:
            if ready(plan).stands == "not ready":
                plan = _without_stops(plan)
            with self.subTest(lacks):
                told = ready(plan)
                self.assertEqual({doubt.lacks for doubt in told.doubts}, lacks)
                self.assertEqual(told.stands, "ready but" if lacks else "ready")

    def test_a_print_that_has_not_been_proven_is_not_called_ready(self) -> None:
        """Only the bench's own last proof of just this counts; what a plan says of itself makes nothing ready."""
        lantern = demo("lattice-lantern")
        good, other = proved(lantern), proved(lantern, of="0" * 16)
        failed, half = proved(lantern, stands="failed", failures=3), proved(lantern, stands="incomplete")
        says = Proven(of=print_digest(lantern), stands="proven", on=date(2026, 9, 1), presses=350)
        saying = lantern.model_copy(update={"printing": lantern.printing.model_copy(update={"proof": says})})
        for plan, proofs, stands, shown in (
            (lantern, (), "ready but", "none"),
            (lantern, (good,), "ready", "proven"),
            (lantern, (half,), "ready but", "incomplete"),
            (lantern, (failed,), "not ready", "failed"),
            (lantern, (other,), "ready but", "older"),
            (lantern, (good, other), "ready", "proven"),
            (lantern, (good, failed), "not ready", "failed"),
            (lantern, (failed, good), "ready", "proven"),
            (saying, (), "ready but", "said"),
            (saying, (failed,), "not ready", "failed"),
            (saying, (other,), "ready but", "said"),
        ):
            with self.subTest(proofs=proofs, says=plan is saying):
                told = evaluate(plan, given=Given(proofs=proofs))
                assert told.review.ready is not None
                self.assertEqual((told.review.ready.stands, told.printing.proof), (stands, shown))


def placed(plan: Plan, here: dict[str, float]) -> Plan:
    return apply(plan, [Edit(path=path, value=value) for path, value in here.items()])[0]


def _without_stops(plan: Plan) -> Plan:
    """With the first fix of each stop taken."""
    for _ in range(6):
        stop = next((one for one in evaluate(plan).snags if one.severity == "stop" and one.fixes), None)
        if stop is None:
            break
        plan, _ = apply(plan, stop.fixes[0].edits)
    return plan
