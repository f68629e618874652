"""What begins when a person asks for it, what goes when it is taken away, and a rig to begin with."""

from fractions import Fraction as F
from typing import get_args
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks import chain
from bridle.core.asks.changes import Begin, Drop, PutOn, make
from bridle.core.asks.shelf import Like, made
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, apply, dump, look
from bridle.core.plan.kit import CARD_TYPES, AnyCard
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Follow, Keyframe, Move
from bridle.core.plan.new import new_plan
from bridle.core.plan.rig import Axis, Rig
from bridle.core.plan.shoot import ShootKind
from tests.strategies import START, plan_of

HELD: dict[str, F] = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
RAIL = Axis(name="slide", kind="linear", low=0, high=900, top_speed=30, acceleration=60)
ZOOM = Axis(name="zoom", kind="rotary", low=0, high=90, top_speed=30, acceleration=60)
MARKS = tuple(Mark(name=name) for name in ("post", "boat", "wall"))


def begun(plan: Plan, path: str, kind: str = "") -> object:
    """What stands at a path after it has begun."""
    return look(dump(make(plan, [Begin(do="begin", path=path, kind=kind)])[0]), path)


def a_plan(**sections: object) -> Plan:
    """Half an hour's walk along a rail, with three marks."""
    keys = (Keyframe(slide_mm=100, pan_deg=10, tilt_deg=2), Keyframe(slide_mm=700, pan_deg=-20))
    move = Move(keyframes=keys, marks=MARKS, follow=Follow(mark=1))
    return plan_of(HELD, **{"move": move, "rig": Rig(axes=(RAIL, ZOOM)), **sections})


class Beginnings(TestCase):
    def test_begin_with_what_is_usual(self) -> None:
        plan = a_plan()
        for path, expected in (
            ("beat.stack", {"near_mm": 400, "far_mm": 800, "overlap": "1/5", "move_s": "1/2", "settle_s": "1/2"}),
            ("beat.uncoupled", {"between_starts_s": "20", "drift_ppm": 50}),
            ("clip.crossing", {"cross_s": "300", "screen_s": "8"}),
            ("clip.trial", {"apart_s": "7200", "moved_px": "140", "step_px": "2"}),
            ("rig.lead", {"length_mm": 1500, "area_mm2": 0.5, "ohm_per_m": None}),
            ("rig.normal_bearing_deg", 0),
            ("move.post.end.width", None),
        ):
            with self.subTest(path):
                if expected is None:
                    self.assertRaises(PathError, begun, plan, path)
                else:
                    self.assertEqual(begun(plan, path), expected)
        post = begun(plan, "move.post")
        assert isinstance(post, dict)
        self.assertEqual((post["start"]["width"], post["end"]["width"]), (1, 0.7))

    def test_begin_from_how_the_plan_stands(self) -> None:
        plan = a_plan()
        # 361 frames at 25 a second are 14.44 s of clip.
        self.assertEqual(begun(plan, "move.live_s"), "14")
        self.assertEqual(begun(plan_of({}), "move.live_s"), "20")
        mark = begun(plan, "move.marks")
        assert isinstance(mark, list)
        self.assertEqual((mark[3]["name"], mark[3]["x_mm"], mark[3]["y_mm"]), ("mark 4", 450, 1440))
        aimed = look(dump(make(plan, [Begin(do="begin", path="move.marks.2.aimed")])[0]), "move.marks.2.aimed")
        self.assertEqual(
            [aimed[k] for k in ("slide_1_mm", "pan_1_deg", "slide_2_mm", "pan_2_deg")], [100, 10, 700, -20]
        )
        passes = begun(make(plan, [Begin(do="begin", path="move.passes")])[0], "move.passes")
        assert isinstance(passes, list)
        self.assertEqual([one["name"] for one in passes], ["pass 2", "pass 3"])

    def test_two_aims_are_never_from_one_place(self) -> None:
        still = a_plan(move=Move(keyframes=(Keyframe(slide_mm=300), Keyframe(slide_mm=300)), marks=MARKS))
        aimed = begun(still, "move.marks.0.aimed")
        assert isinstance(aimed, dict)
        self.assertEqual((aimed["slide_1_mm"], aimed["slide_2_mm"]), (300, 800))

    def test_rounds_of_each_kind(self) -> None:
        plan = a_plan()
        for kind, check in (("row", "sweep_deg"), ("stereo", "base_mm"), ("stations", "stations")):
            with self.subTest(kind):
                made = begun(plan, "move.visits", kind)
                assert isinstance(made, dict)
                self.assertEqual((made["kind"], check in made), (kind, True))
        self.assertIsNone(
            begun(make(plan, [Begin(do="begin", path="move.visits", kind="row")])[0], "move.visits", "none")
        )
        stations, _ = make(plan, [Begin(do="begin", path="move.visits", kind="stations")])
        more = begun(stations, "move.visits.stations")
        assert isinstance(more, list)
        told = [(one["name"], one["slide_mm"], one["pan_deg"], one["tilt_deg"]) for one in more]
        self.assertEqual(told, [("station A", 100, 10, 2), ("station B", 700, -20, 0), ("station C", 100, 10, 2)])
        self.assertRaises(PathError, begun, plan, "move.visits", "carousel")
        self.assertRaises(PathError, begun, plan, "move.visits.stations")

    def test_rings_of_the_lens_and_of_nothing_else(self) -> None:
        plan = a_plan()
        ring = begun(plan, "rig.axes.1.ring")
        assert isinstance(ring, list)
        self.assertEqual([(one["turn_deg"], one["value_mm"]) for one in ring], [(0, 24), (90, 70)])
        for path in ("rig.axes.0.ring", "rig.axes.7.ring", "move.marks.9.aimed", "shoot.name", "beat"):
            with self.subTest(path):
                self.assertRaises(PathError, begun, plan, path)

    def test_errands_come_first_and_events_past_the_middle_on_a_whole_minute(self) -> None:
        plan = a_plan()
        errands = begun(plan, "shoot.clock.errands")
        assert isinstance(errands, list)
        self.assertEqual((errands[0]["name"], errands[0]["length_s"]), ("something to do", "600"))
        after, _ = make(plan, [Begin(do="begin", path="shoot.clock.events")])
        (event,) = after.shoot.clock.events
        self.assertEqual((event.at - START).total_seconds(), 36 * 60)
        (early,) = make(plan_of({}), [Begin(do="begin", path="shoot.clock.events")])[0].shoot.clock.events
        self.assertEqual(early.at, START)

    def test_whatever_begins_can_be_told_and_undone(self) -> None:
        plan = a_plan()
        for path in (
            "beat.stack",
            "beat.uncoupled",
            "rig.lead",
            "move.live_s",
            "move.marks",
            "move.passes",
            "move.post",
        ):
            with self.subTest(path):
                after, back = make(plan, [Begin(do="begin", path=path)])
                self.assertNotEqual(after, plan)
                evaluate(after)
                self.assertEqual(apply(after, back)[0], plan)


class Dropping(TestCase):
    @given(st.integers(0, 2), st.integers(0, 2))
    def test_the_same_mark_is_followed_under_its_new_number_or_none(self, followed: int, gone: int) -> None:
        move = Move(marks=MARKS, follow=Follow(mark=followed, every_frame=True))
        after, _ = make(a_plan(move=move), [Drop(do="drop", path=f"move.marks.{gone}")])
        left = [mark.name for mark in after.move.marks]
        self.assertEqual(left, [mark.name for n, mark in enumerate(MARKS) if n != gone])
        follow = after.move.follow
        if followed == gone:
            self.assertIsNone(follow)
        else:
            assert follow is not None
            self.assertEqual((left[follow.mark], follow.every_frame), (MARKS[followed].name, True))

    def test_takes_one_and_only_one(self) -> None:
        plan, _ = make(a_plan(), [Begin(do="begin", path="move.passes"), Begin(do="begin", path="move.passes")])
        after, _ = make(plan, [Drop(do="drop", path="move.passes.0")])
        self.assertEqual([one.name for one in after.move.passes], ["pass 3"])
        for path in ("move.passes.2", "move.passes.x", "move.marks", "shoot.name.0", "3"):
            with self.subTest(path):
                self.assertRaises(PathError, make, plan, [Drop(do="drop", path=path)])


class ARigToBeginWith(TestCase):
    def test_is_the_first_of_each_usual_kind_from_the_ground_up(self) -> None:
        shelf = [CARD_TYPES[kind](name=kind) for kind in ("lamp", "body", "axis", "body", "support", "axis", "lens")]
        self.assertEqual(chain.starters(shelf), [4, 2, 1, 6])
        self.assertEqual(chain.starters([]), [])

    def test_of_the_usual_cards_stands_and_moves(self) -> None:
        cards = [chain.Taken(card=card) for card in chain.lacking([])]
        plan, _ = make(a_plan(rig=Rig()), [PutOn(do="put", cards=tuple(cards))])
        told = evaluate(plan)
        assert told.rig is not None
        self.assertEqual({part.kind for part in told.rig.parts}, {"support", "axis", "body"})
        self.assertEqual([axis.name for axis in plan.rig.axes], ["slide"])
        self.assertIs(told.rig.tips, any(snag.code == "rig-tips" for snag in told.snags))

    def test_fits_the_kind_of_shoot(self) -> None:
        """A head where it turns, a rail where it slides, and nothing that moves where it stands for months."""
        moving: dict[ShootKind, list[str]] = {"turn": ["pan"], "slide": ["slide"], "night": ["slide"], "site": []}
        for kind, axes in moving.items():
            with self.subTest(kind):
                made = chain.lacking([], kind)
                plan = make(
                    a_plan(rig=Rig(axes=())), [PutOn(do="put", cards=tuple(chain.Taken(card=c) for c in made))]
                )[0]
                self.assertEqual([axis.name for axis in plan.rig.axes], axes)
                self.assertEqual(chain.lacking(made, kind), [])
                self.assertEqual(chain.starters(made, kind), list(range(len(made))))

    def test_of_every_kind_is_whole_and_has_no_snag_of_its_own(self) -> None:
        for kind in get_args(ShootKind):
            plan = new_plan("quay", "", "", "Europe/London", START, kind)
            whole, _ = make(plan, [_put(chain.lacking([], kind))])
            with self.subTest(kind):
                self.assertEqual([snag.code for snag in evaluate(whole).snags if snag.chapter == "rig"], [])
                self.assertEqual(evaluate(whole).lacks, ())
                self.assertEqual(evaluate(plan).lacks, (), "nothing is missing where nobody has begun")
            if kind == "turn":
                swept, _ = apply(whole, [Edit(path="move.keyframes.1.pan_deg", value=20.0)])
                self.assertNotIn("steps-uneven", {snag.code for snag in evaluate(swept).snags})

    def test_what_is_missing_is_named_until_it_is_there(self) -> None:
        cases: tuple[tuple[ShootKind, tuple[Like, ...], tuple[str, ...]], ...] = (
            ("slide", ("support", "body"), ("a rail", "a lens", "a trigger")),
            ("slide", ("support", "turning axis", "body", "lens"), ("a trigger",)),
            ("turn", ("spring", "phone"), ("a tripod", "a trigger")),
            ("site", ("support",), ("a ball head", "a camera body", "a lens", "a trigger")),
            ("site", ("support", "camera with its own lens", "trigger"), ()),
        )
        for kind, likes, lacks in cases:
            plan = new_plan("quay", "", "", "Europe/London", START, kind)
            with self.subTest(likes):
                self.assertEqual(evaluate(make(plan, [_put([made(like) for like in likes])])[0]).lacks, lacks)


def _put(cards: list[AnyCard]) -> PutOn:
    return PutOn(do="put", cards=tuple(chain.Taken(card=card) for card in cards))


class KindsOfShoot(TestCase):
    def test_each_begins_with_a_sheet_that_finds_no_fault_but_what_it_still_lacks(self) -> None:
        """What slides or turns has nothing that moves yet, and a print no file."""
        lacking = {"slide": ["nothing-moves"], "turn": ["nothing-moves"], "print": ["no-print-calls"]}
        told = {}
        for kind in get_args(ShootKind):
            with self.subTest(kind):
                plan = new_plan("quay", "", "", "Europe/London", START, kind)
                told[kind] = evaluate(plan)
                self.assertEqual([snag.code for snag in told[kind].snags], lacking.get(kind, []))
                self.assertEqual((plan.shoot.kind, plan.rig.axes), (kind, ()))
                self.assertTrue(plan.shoot.clock.errands)
        frames = {kind: one.frames for kind, one in told.items()}
        # An hour at 10 s; half an hour at 5 s; three hours at 20 s; a week at 10 min; 26 weeks at half an hour; layers;
        # half an hour twenty times faster at 25 a second.
        self.assertEqual(frames, {"slide": 360, "turn": 360, "night": 540, "grow": 1008, "site": 8736, "print": 300,
                                  "video": 2250})  # fmt: skip

    def test_in_a_room_nobody_is_warned_of_the_tide(self) -> None:
        for kind in get_args(ShootKind):
            said = " ".join(evaluate(new_plan("quay", "", "", "UTC", START, kind)).review.cautions)
            self.assertEqual("tide" in said, kind not in ("grow", "print"), kind)
            self.assertEqual("nothing that burns" in said, kind in ("grow", "print"), kind)
