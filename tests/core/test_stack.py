"""The rig as it is drawn: every part where a tape measure finds it, its masses, and what of it a stereo pair needs."""

from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.chapters.rig.state import RigDrawn
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig, Standing
from bridle.core.plan.rounds import Stations, StereoPair
from bridle.core.reckon.loads import carriages, hold, lean_mm, over_mm, reach_mm, slide_ends, span_mm
from bridle.core.reckon.stack import stack
from tests.provoked import fixes_work
from tests.strategies import copies, fitted, plan_of

HELD = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
SLID = Move(keyframes=(Keyframe(slide_mm=20), Keyframe(slide_mm=880)))
# A tripod of 1180 mm, a rail of 1040 mm that is 62 mm high, an adapter of 6 mm, a body with a lens of 360 g.
CHAIN = ("tripod", "belt-rail", "down-bush", "full-frame-body", "35mm")
TRIPOD_G, RAIL_G, RIDING_G = 2100, 1900 - 320, 320 + 12 + 680 + 360


def rig(*names: str, move: Move = SLID, **changed: Any) -> tuple[Plan, RigDrawn]:
    plan = fitted(plan_of(HELD, move=move), copies(*names, **changed))
    drawn = evaluate(plan).rig
    assert drawn is not None
    return plan, drawn


def places(drawn: RigDrawn) -> dict[str, tuple[float, float]]:
    """Where each part stands; the carriage of a rail beside the rail itself."""
    return {
        f"{part.key}{' carriage' if part.rides and part.kind == 'axis' else ''}": (part.x_mm, part.y_mm)
        for part in drawn.parts
    }


class Drawn(TestCase):
    def test_parts_stand_on_one_another_with_the_carriage_at_the_low_end(self) -> None:
        _, drawn = rig(*CHAIN)
        low = -1040 / 2 + 15 + 100 / 2
        self.assertEqual(
            places(drawn),
            {
                "tripod": (0, 0),
                "belt-rail": (0, 1180),
                "belt-rail carriage": (low, 1180 + 31),
                "down-bush": (low, 1180 + 62),
                "full-frame-body": (low, 1180 + 62 + 6),
            },
        )
        self.assertEqual(drawn.ends_mm, (low, low + 900))
        self.assertEqual(drawn.carriage_mm, (low + 20, low + 880))

    def test_masses_ride_where_they_are_and_the_lens_is_part_of_the_body(self) -> None:
        _, drawn = rig(*CHAIN)
        self.assertEqual(sum(part.mass_g for part in drawn.parts), TRIPOD_G + RAIL_G + RIDING_G)
        self.assertEqual(sum(part.mass_g for part in drawn.parts if part.rides), RIDING_G)
        total = TRIPOD_G + RAIL_G + RIDING_G
        for end, centre in zip(drawn.ends_mm, drawn.centre_mm, strict=True):
            self.assertAlmostEqual(centre[0], end * RIDING_G / total)
        up = TRIPOD_G * 590 + RAIL_G * (1180 + 15.5) + 320 * (1211 + 15.5) + 12 * (1242 + 3) + 1040 * (1248 + 95 / 2)
        self.assertAlmostEqual(drawn.centre_mm[0][1], up / total)

    def test_the_joint_below_each_part_is_named(self) -> None:
        _, drawn = rig(*CHAIN)
        joints = {part.key: part.joint for part in drawn.parts}
        self.assertEqual(
            joints,
            {
                "tripod": "",
                "belt-rail": "three eighths, 16 an inch",
                "down-bush": "three eighths, 16 an inch",
                "full-frame-body": "quarter inch, 20 an inch",
            },
        )

    def test_a_second_support_stands_under_the_other_end(self) -> None:
        """Each a twentieth of the rail from its end; the rail lies between them."""
        plan, drawn = rig("tripod", "light-tripod", *CHAIN[1:])
        self.assertEqual(places(drawn)["light-tripod"], (1040 * 0.9, 0))
        self.assertEqual(places(drawn)["belt-rail"], (1040 * 0.45, 1180))
        self.assertAlmostEqual(span_mm(stack(plan)), 1040 * 0.9)
        self.assertEqual(hold(stack(plan)), (-235, 1040 * 0.9 + 235))

    def test_the_weakest_part_is_the_one_with_the_least_in_hand(self) -> None:
        def weakest(**changed: Any) -> list[str]:
            return [part.key for part in rig(*CHAIN, **changed)[1].parts if part.weakest and not part.rides]

        # 2952 g of 8000 on the tripod, 1052 of 5000 on the rail; then the rail with less than it carries on its card.
        self.assertEqual(weakest(), ["tripod"])
        self.assertEqual(weakest(belt_rail={"carries_g": 1500}), ["belt-rail"])

    def test_what_cannot_be_joined_is_drawn_so(self) -> None:
        _, drawn = rig("tripod", "belt-rail", "full-frame-body")
        self.assertEqual([part.key for part in drawn.parts if part.bad], ["full-frame-body"])

    def test_beside_its_middle_a_rail_stands_as_far_as_it_is_told(self) -> None:
        plan = plan_of(HELD, move=SLID, rig=Rig(standing=Standing(rail_at=0.2)))
        drawn = evaluate(fitted(plan, copies(*CHAIN))).rig
        assert drawn is not None
        self.assertAlmostEqual(places(drawn)["belt-rail"][0], 1040 / 2 - 0.2 * 1040)

    def test_nothing_is_drawn_of_a_rig_that_is_not_there(self) -> None:
        self.assertIsNone(evaluate(plan_of(HELD)).rig)


class Ends(TestCase):
    """How far the carriage really comes: keyframes, stations, and both pictures of a pair."""

    def ends(self, move: Move) -> tuple[float, float]:
        return slide_ends(fitted(plan_of(HELD, move=move), copies(*CHAIN)))

    def test_of_a_move_its_outermost_keyframes(self) -> None:
        keys = (Keyframe(slide_mm=400), Keyframe(slide_mm=880), Keyframe(slide_mm=20))
        self.assertEqual(self.ends(Move(keyframes=keys)), (20, 880))

    def test_of_a_pair_half_its_base_more_on_both_sides(self) -> None:
        keys = (Keyframe(slide_mm=100), Keyframe(slide_mm=500))
        self.assertEqual(self.ends(Move(keyframes=keys, visits=StereoPair(base_mm=60))), (70, 530))

    def test_of_stations_the_outermost_of_them(self) -> None:
        visits = Stations.model_validate({"stations": [{"name": "A", "slide_mm": 300}, {"name": "B", "slide_mm": 50}]})
        self.assertEqual(self.ends(Move(keyframes=SLID.keyframes, visits=visits)), (50, 300))

    def test_none_without_a_rail(self) -> None:
        self.assertEqual(slide_ends(plan_of(HELD, move=SLID, rig=Rig(axes=()))), (0, 0))

    @given(st.floats(0, 900), st.floats(0, 900))
    def test_it_reaches_out_as_far_as_the_further_of_its_ends(self, first: float, last: float) -> None:
        move = Move(keyframes=(Keyframe(slide_mm=first), Keyframe(slide_mm=last)))
        plan = fitted(plan_of(HELD, move=move), copies(*CHAIN))
        put = stack(plan)
        self.assertAlmostEqual(reach_mm(plan, put), max(abs(end - 455) for end in (first, last)))
        low, high = carriages(plan, put)
        self.assertLessEqual(low, high)

    @given(st.floats(-900, 900), st.floats(0, 4))
    def test_a_base_that_leans_holds_less_on_both_sides(self, carriage: float, lean: float) -> None:
        plan = plan_of(HELD, move=SLID, rig=Rig(standing=Standing(level_error_deg=lean)))
        plan = fitted(plan, copies(*CHAIN))
        put = stack(plan)
        level = plan.model_copy(update={"rig": plan.rig.model_copy(update={"standing": Standing()})})
        aside = lean_mm(plan, put.centre(carriage).y_mm)
        self.assertAlmostEqual(over_mm(plan, put, carriage), over_mm(level, put, carriage) + aside)


class Tipping(TestCase):
    def test_a_shorter_way_is_offered_only_where_it_helps(self) -> None:
        """A dolly beside its light tripod wherever it goes: what rides weighs nothing, so nothing moves it."""
        cards = ("light-tripod", "ball-head", "switch-dolly")
        move = Move(keyframes=(Keyframe(), Keyframe(slide_mm=-1)))
        plan = plan_of(HELD, move=move, rig=Rig(standing=Standing(rail_at=0.2)))
        made = fitted(plan, copies(*cards, light_tripod={"feet_radius_mm": 200}))
        found = [snag for snag in evaluate(made).snags if snag.code == "rig-tips"]
        self.assertTrue(found)
        for snag in found:
            fixes_work(self, made, snag)
            self.assertNotIn("Stop the travel at {stop}", [fix.label for fix in snag.fixes])
