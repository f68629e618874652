# ruff: noqa: E501
"""The controller from the page: jogging, marks to set by hand, rehearsing the program; the line of a shoot in the list."""

import json
from datetime import UTC, datetime, timedelta
from fractions import Fraction as F
from typing import Any

from django.test import TestCase

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.server.runs.models import Run, ready
from bridle.server.shoots.models import Shoot, keep
from tests.server.test_api import Page
from tests.strategies import RINGS, copies, fitted, plan_of

HELD = {"rate": F(25), "frames": F(11), "interval": F(20)}
ALONG = Move(keyframes=(Keyframe(slide_mm=100, focus_mm=900), Keyframe(slide_mm=110, focus_mm=3000)))


def sent(plan: Plan) -> dict[str, Any]:
    return dict(json.loads(plan.model_dump_json()))


class Controller(TestCase):
    # The simulated rigs are told apart by the shoot, and outlive a test.
    shoots = iter(range(700_000, 800_000))

    def setUp(self) -> None:
        self.page, self.shoot = Page(), next(self.shoots)
        self.plan = plan_of(HELD, rig=Rig(axes=RINGS), move=ALONG)

    def jog(self, do: str, axes: list[str], status: int = 200, **amounts: float) -> dict[str, Any]:
        body = {"shoot": self.shoot, "plan": sent(self.plan), "do": do, "axes": axes, "amounts": amounts}
        answer = self.page.send("POST", "/api/jog", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return dict(answer.json())

    def test_it_knows_nothing_until_it_is_referenced(self) -> None:
        self.assertEqual(self.jog("look", []), {"at": {}, "stands": {}, "at_end": [], "seconds": 0})
        refused = self.jog("by", ["slide"], status=422, slide=10)
        self.assertIn("reference it first", refused["message"] + str(refused.get("problems")))
        both = self.jog("reference", ["slide", "pan"])
        self.assertEqual((both["at"], both["at_end"]), ({"slide": 0, "pan": -170}, ["slide", "pan"]))
        # Both at once: as long as the slower of them, 340° at 20 °/s and 40 °/s².
        self.assertAlmostEqual(both["seconds"], max(900 / 25 + 25 / 80, 340 / 20 + 20 / 40))

    def test_it_goes_by_steps_and_to_places_within_its_travel(self) -> None:
        self.jog("reference", ["slide"])
        self.assertAlmostEqual(self.jog("by", ["slide"], slide=12.5)["at"]["slide"], 12.5)
        typed = {"shoot": self.shoot, "plan": sent(self.plan), "do": "type", "axes": ["slide"]}
        for text, imperial, at in (("30 cm", False, 300), ("2", True, 50.8)):
            told = self.page.send("POST", "/api/jog", {**typed, "text": text, "imperial": imperial}).json()
            self.assertAlmostEqual(told["at"]["slide"], at, delta=0.01)
        refused = self.page.send("POST", "/api/jog", {**typed, "text": "far"})
        self.assertEqual((refused.status_code, b"a length such as 900" in refused.content), (422, True))
        there = self.jog("go", ["slide"], slide=5000)
        self.assertEqual((there["at"]["slide"], there["at_end"]), (900, ["slide"]))
        self.assertEqual(self.jog("look", [])["at"], {"slide": 900}, "it stays where it is")

    def test_a_lens_ring_is_told_as_what_it_sets(self) -> None:
        """A ring that turns has a place in degrees, and a distance that it stands for."""
        self.jog("reference", ["focus", "zoom"])
        near = self.jog("look", [])
        far = self.jog("go", ["focus"], focus=90)
        self.assertEqual((near["at"]["focus"], far["at"]["focus"]), (0, 90))
        self.assertGreater(far["stands"]["focus"], near["stands"]["focus"])
        self.assertGreater(near["stands"]["zoom"], 1)

    def test_two_shoots_have_two_rigs(self) -> None:
        self.jog("reference", ["slide"])
        self.shoot = next(self.shoots)
        self.assertEqual(self.jog("look", [])["at"], {})

    def test_marks_to_set_by_hand(self) -> None:
        """Ten millimetres over eleven frames, a scale in millimetres: one line a frame, each set after the one before."""
        plan = plan_of(HELD, rig=Rig(axes=RINGS[:1]), move=ALONG)
        told = self.page.send("POST", "/api/marks-to-set", {"plan": sent(plan)}).json()
        self.assertEqual(told["axes"], [{"name": "slide", "unit": "mm"}])
        self.assertEqual([line["frame"] for line in told["lines"]], list(range(1, 12)))
        self.assertEqual([line["marks"] for line in told["lines"]], [[100.0 + n] for n in range(11)])
        first = told["lines"][0]["clock"]
        self.assertEqual([line["clock"] - first for line in told["lines"]], [0, *(20 * n for n in range(10))])
        self.assertEqual(told["left"], 0)
        coarse = fitted(plan_of(HELD, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=4)))), copies("marked-base"))
        lines = self.page.send("POST", "/api/marks-to-set", {"plan": sent(coarse)}).json()["lines"]
        self.assertEqual([line["marks"][0] for line in lines], [0, 1, 2, 3, 4])

    def test_a_very_long_list_of_marks_is_cut_and_says_so(self) -> None:
        far = Move(keyframes=(Keyframe(slide_mm=0), Keyframe(slide_mm=900)))
        axis = RINGS[0].model_copy(update={"high": 9000})
        keys = tuple(key.model_copy(update={"slide_mm": key.slide_mm * 10}) for key in far.keyframes)
        plan = plan_of({**HELD, "frames": F(5000)}, rig=Rig(axes=(axis,)), move=Move(keyframes=keys))
        told = self.page.send("POST", "/api/marks-to-set", {"plan": sent(plan)}).json()
        self.assertEqual((len(told["lines"]), told["left"]), (2000, 3000))

    def test_the_program_is_rehearsed(self) -> None:
        told = self.page.send("POST", "/api/rehearse-program", {"plan": sent(self.plan)}).json()
        self.assertEqual(told["pictures"], 11)
        self.assertEqual(set(told["off_steps"]), {axis.name for axis in RINGS})
        self.assertLessEqual(max(told["off_steps"].values()), 0.51)
        self.assertLess(told["late_s"], 0.02)
        self.assertEqual(told["opening"].count("\n"), min(60, told["lines"]))

    def test_what_leaves_something_open_says_so(self) -> None:
        free = sent(plan_of({"rate": F(25)}, rig=Rig(axes=RINGS)))
        for path in ("/api/marks-to-set", "/api/rehearse-program"):
            answer = self.page.send("POST", path, {"plan": free})
            self.assertEqual((answer.status_code, "open" in answer.content.decode()), (422, True), path)


class Lines(TestCase):
    """A shoot in the list: what it comes to, what is wrong with it, and how far it has come."""

    def setUp(self) -> None:
        self.page = Page()
        self.shoot = keep(plan_of(HELD, rig=Rig(axes=RINGS[:2]), move=ALONG))

    def line(self) -> dict[str, Any]:
        # On a machine that others use too a line is worked out at a later request.
        for _ in range(20):
            (line,) = self.page.get("/api/shoots").json()["shoots"]
            if not line["stale"]:
                break
        return dict(line)

    def changed(self, *edits: Edit) -> None:
        plan, version = self.shoot.read(), self.shoot.version
        body = {"version": version, "plan": sent(apply(plan, edits)[0])}
        answer = self.page.send("PUT", f"/api/shoots/{self.shoot.pk}", body)
        self.assertEqual(answer.status_code, 200, answer.content)
        self.shoot = Shoot.objects.get(pk=self.shoot.pk)

    def test_it_tells_what_the_shoot_comes_to(self) -> None:
        line = self.line()
        self.assertEqual(
            {name: line[name] for name in ("name", "frames", "interval_s", "shoot_s", "clip_s", "rate", "state", "taken")},
            {"name": "Trial", "frames": 11, "interval_s": 20, "shoot_s": 220, "clip_s": 0.44, "rate": 25,
             "state": "planned", "taken": None},
        )  # fmt: skip
        self.assertEqual(datetime.fromisoformat(line["start"]), datetime(2026, 9, 27, 5, 10, tzinfo=UTC))
        self.assertEqual(line["traces"]["slide"]["values"][0], 100)
        self.assertEqual(line["traces"]["slide"]["values"][-1], 110)

    def test_it_follows_each_change_and_names_the_worst(self) -> None:
        self.assertNotEqual((self.line()["worst"] or {}).get("severity"), "stop")
        self.changed(Edit(path="beat.exposure_s", value="40"))
        worst = self.line()["worst"]
        self.assertEqual(worst["severity"], "stop")
        self.assertIn("One beat needs", worst["what"])
        self.changed(Edit(path="clip.pegs", value=[]))
        line = self.line()
        self.assertEqual((line["frames"], line["shoot_s"], line["figures"]), (None, None, []))

    def test_its_day_has_passed_when_its_last_frame_has(self) -> None:
        """By the second: 220 seconds after its first frame; not while nobody knows how long it is."""
        for ago, past in ((3600, True), (221, True), (200, False), (-60, False)):
            with self.subTest(ago):
                self.changed(
                    Edit(path="shoot.clock.at", value=(datetime.now(UTC) - timedelta(seconds=ago)).isoformat())
                )
                self.assertEqual(self.line()["past"], past)
        self.changed(Edit(path="shoot.clock.at", value="2020-05-01T06:00:00+00:00"), Edit(path="clip.pegs", value=[]))
        self.assertFalse(self.line()["past"])

    def test_a_run_is_told_while_it_is_under_way_and_a_whole_one_as_a_rehearsal(self) -> None:
        def run(phase: str, taken: int, ended: bool) -> None:
            Run.objects.all().delete()
            state = {**ready(), "phase": phase, "taken": taken}
            done = datetime.now(UTC) if ended else None
            Run.objects.create(shoot=self.shoot, plan=sent(self.shoot.read()), frames=11, state=state, ended_at=done)

        for phase, taken, ended, state in (
            ("exposing", 3, False, "running"),
            ("finished", 11, True, "rehearsed"),
            ("stopped", 5, True, "planned"),
        ):
            with self.subTest(phase):
                run(phase, taken, ended)
                line = self.line()
                self.assertEqual((line["state"], line["taken"]), (state, taken))
                self.assertEqual(bool(line["rehearsed_at"]), state == "rehearsed")
                self.assertFalse(line["changed_since"])
        run("finished", 11, ended=True)
        self.changed(Edit(path="beat.exposure_s", value="1/8"))
        self.assertEqual((self.line()["state"], self.line()["changed_since"]), ("rehearsed", True))

    def test_a_plan_that_cannot_be_read_keeps_its_line_and_says_so(self) -> None:
        Shoot.objects.filter(pk=self.shoot.pk).update(plan={"bridle_plan": 99}, version=7)
        line = self.line()
        self.assertIn("newer Bridle", line["broken"])
        Shoot.objects.filter(pk=self.shoot.pk).update(plan={"nonsense": True}, version=8)
        self.assertTrue(self.line()["broken"])
