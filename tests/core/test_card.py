"""The field card: the positions that are driven, a section for each drive, and all that has to be packed."""

import math
from datetime import timedelta
from fractions import Fraction as F
from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.plan.beat import Beat, Stack
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Follow, Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.core.plan.rounds import PanoramaRow, Station, Stations, StereoPair
from bridle.core.quantity import write
from tests.strategies import START, copies, fitted, plan_of
from tests.workings import worked_out

HELD = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
POST = Mark(name="post", form="post", x_mm=400, y_mm=1500, z_mm=0)


def card(plan: Plan) -> dict[str, dict[str, str]]:
    """The sections of the card, each with its lines as they are read."""
    made: dict[str, dict[str, str]] = {}
    for sheet in evaluate(plan).review.sheets:
        lines = {line.label: line.value for line in sheet.settings}
        made[sheet.title] = {
            label: at.value if isinstance(at.value, str) else write(at.value, at.unit) for label, at in lines.items()
        }
    return made


class Positions(TestCase):
    def test_what_is_followed_stands_where_it_is_driven_and_not_where_its_keyframe_was_typed(self) -> None:
        keys = (Keyframe(slide_mm=0, pan_deg=50), Keyframe(slide_mm=800, pan_deg=50))
        move = Move(keyframes=keys, marks=(POST,), follow=Follow(mark=0, every_frame=True))
        told = card(plan_of(HELD, move=move))
        for title, slide in (("First keyframe, frame 1", 0), ("Last keyframe, frame 360", 800)):
            pan = math.degrees(math.atan2(400 - slide, 1500))
            ends = ", its very end" if slide == 0 else ""
            self.assertEqual(told[title], {"slide": f"{write(slide, 'mm')}{ends}", "pan": write(round(pan, 3), "deg")})

    def test_stations_rows_pairs_and_turns_are_on_it(self) -> None:
        stations = Stations(
            stations=(Station(name="door", slide_mm=100, pan_deg=-20), Station(name="well", slide_mm=600))
        )
        told = card(plan_of(HELD, move=Move(visits=stations)))
        self.assertEqual(told["Station 1: door"], {"slide": "100 mm", "pan": "−20°"})
        self.assertEqual(told["Station 2: well"], {"slide": "600 mm", "pan": "0°"})
        self.assertFalse([title for title in told if "keyframe" in title])

        row = Move(
            keyframes=(Keyframe(pan_deg=10), Keyframe(pan_deg=10)), visits=PanoramaRow(sweep_deg=120, overlap=0.3)
        )
        # 54.43° a picture, a third of it shared: three pictures, (120 − 54.43) / 2 from one to the next.
        apart = (120 - 2 * math.degrees(math.atan(18 / 35))) / 2
        self.assertEqual(
            card(plan_of(HELD, move=row))["Row at frame 1"],
            {f"picture {n}, pan": write(round(10 + apart * (n - 2), 3), "deg") for n in (1, 2, 3)},
        )
        pair = Move(keyframes=(Keyframe(slide_mm=100), Keyframe(slide_mm=500)), visits=StereoPair(base_mm=60))
        told = card(plan_of(HELD, move=pair))
        self.assertEqual(told["Pair at frame 1"], {"picture 1, slide": "70 mm", "picture 2, slide": "130 mm"})
        self.assertEqual(told["Pair at frame 360"], {"picture 1, slide": "470 mm", "picture 2, slide": "530 mm"})
        there_and_back = Move(keyframes=(Keyframe(), Keyframe(slide_mm=500)), legs=3)
        self.assertEqual(len(card(plan_of(HELD, move=there_and_back))["There and back, 3 ways"]), 2)

    def test_each_distance_of_a_focus_stack_is_on_it(self) -> None:
        told = card(plan_of(HELD, beat=Beat(stack=Stack(near_mm=300, far_mm=500, overlap=F(0)))))
        stack = told["Focus stack, near to far"]
        self.assertEqual(len(stack), 4)
        self.assertEqual(next(iter(stack)), "position 1 of 4")
        distances = [float(value.removesuffix(" mm")) for value in stack.values()]
        self.assertEqual(distances, sorted(distances))
        self.assertTrue(300 < distances[0] < 330 and 440 < distances[-1] < 500, distances)


class DrivesAndPacking(TestCase):
    def test_a_drive_of_its_own_pace_has_a_section_with_where_it_really_ends(self) -> None:
        move = Move(keyframes=(Keyframe(pan_deg=-45), Keyframe(pan_deg=45)))
        plan = fitted(plan_of(HELD, move=move, beat=Beat(school="continuous")), copies("star-mount", "turntable"))
        told = card(fitted(plan_of(HELD, move=move, beat=Beat(school="continuous")), copies("star-mount")))
        section = told["The pan: rate from a menu"]
        self.assertEqual(section["set it"], "key 1, setting 6")
        self.assertEqual(section["sets off at"], "−45°")
        self.assertEqual(section["really ends at"], write(-45 + 0.251 * 6 * 3590 / 60, "deg"))
        self.assertIn("Pack", card(plan))

    def test_a_spring_that_turns_the_wrong_way_is_hung_or_the_footage_reversed_and_the_card_says_so(self) -> None:
        move = Move(keyframes=(Keyframe(pan_deg=100), Keyframe(pan_deg=-100)))
        held = {"rate": F(25), "shoot": F(3000), "interval": F(10)}
        plan = fitted(plan_of(held, move=move, beat=Beat(school="continuous")), copies("turntable"))
        (wrong,) = [snag for snag in evaluate(plan).snags if snag.code == "turns-the-other-way"]
        self.assertEqual(wrong.severity, "stop")
        mirrored, hung, reversed_ = (apply(plan, fix.edits)[0] for fix in wrong.fixes)
        self.assertEqual([key.pan_deg for key in mirrored.move.keyframes], [-100, 100])
        self.assertFalse(mirrored.clip.backwards)
        for after in (mirrored, hung, reversed_):
            self.assertNotIn("turns-the-other-way", {snag.code for snag in evaluate(after).snags})
        told = card(hung)
        self.assertEqual(told["Not to forget"], {"pan": "hung upside down"})
        self.assertEqual(
            told["The pan: spring"]["set it"],
            "hang it upside down, wind it fully, start at 100°; it turns to the left by itself",
        )
        self.assertEqual(told["The pan: spring"]["really ends at"], write(100 - 4 * 2990 / 60, "deg"))
        self.assertIn("played in reverse", card(reversed_)["Not to forget"]["footage"])
        self.assertEqual([key.pan_deg for key in reversed_.move.keyframes], [-100, 100])

    def test_an_event_of_footage_played_in_reverse_comes_as_long_before_its_end(self) -> None:
        """Two thirds into 360 frames; at 25 a second that is 9.6 s, and 4.8 s from the other end."""
        clock = {"events": [{"name": "tide", "at": START + timedelta(seconds=2400)}]}
        for backwards, wanted in ((False, 9.6), (True, 4.8)):
            told = evaluate(plan_of(HELD, clip={"backwards": backwards}, clock=clock)).figures["event.0.clip"]
            self.assertAlmostEqual(told.value, wanted)
            self.assertAlmostEqual(worked_out(told), wanted)

    def test_what_a_fix_puts_on_the_rig_has_to_be_packed(self) -> None:
        plan = fitted(plan_of(HELD), copies("light-tripod", "belt-rail", "full-frame-body"))
        wrong = next(snag for snag in evaluate(plan).snags if snag.code == "thread-mismatch")
        before, after = (
            made["Pack"]["□"].split(" · ") for made in (card(plan), card(apply(plan, wrong.fixes[0].edits)[0]))
        )
        (new,) = set(after) - set(before)
        self.assertIn("adapter", new)
        self.assertIn("900 mm belt rail", before)

    def test_a_camera_that_stands_still_is_told_of_no_way_to_move(self) -> None:
        self.assertNotIn("works by", card(plan_of(HELD, rig=Rig(axes=())))["The shoot"])
        self.assertIn("works by", card(plan_of(HELD))["Controller"])

    def test_a_stepper_is_told_by_its_program_and_has_no_section(self) -> None:
        told = card(fitted(plan_of(HELD), copies("tripod", "belt-rail", "down-bush", "full-frame-body")))
        self.assertFalse([title for title in told if title.startswith("The ")])
