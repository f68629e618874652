"""Older plans: the demo's plans of every version, with the figures that they had then.

older.json.xz holds them as the last Bridle of each version had them: plans and figures by version and name.
"""

import json
import lzma
import math
from pathlib import Path
from typing import Any
from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.older import changed
from bridle.core.plan.changed import CHANGES
from bridle.core.plan.document import VERSION
from bridle.formats.plan_json import read_with_version
from tests.server.test_keeping import HARBOUR

OLDER: dict[str, dict[str, Any]] = json.loads(lzma.decompress((Path(__file__).parent / "older.json.xz").read_bytes()))


def alike(one: float, other: float) -> bool:
    """Whether people who are shown three digits see the same figure; the almanac is finer now in its fifth."""
    return math.isclose(one, other, rel_tol=2e-3, abs_tol=1e-9)


class Older(TestCase):
    def test_every_figure_that_is_another_now_is_told_and_none_is_told_that_is_not(self) -> None:
        self.assertEqual(set(OLDER), {str(version) for version in range(1, VERSION)})
        told = set()
        for version, plans in OLDER.items():
            for name, old in plans.items():
                with self.subTest(f"{name}, version {version}"):
                    plan, written = read_with_version(json.dumps(old["plan"]))
                    self.assertEqual(written, int(version))
                    now = evaluate(plan)
                    other = {
                        key for key, value in old["figures"].items()
                        if key in now.figures and not alike(now.figures[key].value, value)
                    }  # fmt: skip
                    said = changed(written, plan, now)
                    live = [one for one in CHANGES if any(one.why[1:] in sentence for sentence in said)]
                    self.assertEqual(len(live), len(said), said)
                    self.assertLessEqual(other, {key for one in live for key in one.keys}, "changed and not told")
                    for one in live:
                        if one.sure:
                            self.assertTrue(other & set(one.keys), f"told and not changed: {one.why}")
                        if one.sure and (before := one.was(plan, now.figures[one.keys[0]].value)) is not None:
                            self.assertTrue(alike(before, old["figures"][one.keys[0]]))
                    told |= {one.why for one in live}
        # No demo plan has two starts with stops, broken windows, or windows by the sun: those are tested by themselves.
        alone = {one.why for one in CHANGES if one.keys[0] in ("clip.frames", "trigger.apart")}
        self.assertEqual(told | alone, {one.why for one in CHANGES}, "each of the others is met by a demo plan")

    def test_every_drive_that_lost_its_top_speed_is_told_and_no_other(self) -> None:
        """The last Bridle of version 4 said 0.79 s for each of these drives alike."""
        for kind, need in (("belt", 0.79), ("gear", 0.79), ("clockwork", 0.702), ("rated", 0.702), ("stepped", 0.702),
                           ("dial", 0.702), ("hand", 0.702)):  # fmt: skip
            with self.subTest(kind):
                old = json.loads(json.dumps(OLDER["4"]["market-morning"]["plan"]))
                for copy in old["kit"]["copies"]:
                    if copy["card"]["kind"] == "axis":
                        copy["card"]["drive"] = {"kind": kind}
                plan, written = read_with_version(json.dumps(old))
                now = evaluate(plan)
                self.assertTrue(alike(now.figures["school.shoot-move-shoot.need"].value, need))
                said = [one for one in changed(written, plan, now) if "no top speed" in one]
                self.assertEqual(len(said), need == 0.702, said)

    def test_windows_that_the_interval_does_not_divide(self) -> None:
        old = OLDER["8"]["mill-weir-footbridge"]["plan"]
        windows = {"source": "windows", "opens_min": 480, "closes_min": 1050, "weekdays": [0, 1, 2],
                   "first": "2026-03-02", "last": "2026-04-02"}  # fmt: skip
        for every, said in (("900", 0), ("1000", 1)):
            plan, written = read_with_version(json.dumps({**old, "frames": {**windows, "every_s": every}}))
            sentences = changed(written, plan, evaluate(plan))
            self.assertEqual(len([one for one in sentences if "last frame too" in one]), said, sentences)

    def test_a_circle_that_was_typed_is_kept_and_the_usual_one_follows_the_sensor(self) -> None:
        """A phone's sensor of 7 × 5.25 mm and 4000 pixels: 8.75 mm of diagonal over 1500, where 0.03 was counted."""
        old = OLDER["10"]["market-morning"]["plan"]
        for typed, circle, count in ((0.03, 8.75 / 1500, 1), (0.02, 0.02, 0)):
            data = {**old, "camera": {**old["camera"], "circle_mm": typed}}
            plan, written = read_with_version(json.dumps(data))
            self.assertAlmostEqual(plan.camera.circle, circle, 6)
            said = [one for one in changed(written, plan, evaluate(plan)) if "passes for sharp" in one]
            self.assertEqual(len(said), count)

    def test_two_starts_and_windows_by_the_sun_are_told(self) -> None:
        old = OLDER["10"]["harbour-refloat"]["plan"]
        apart = {**old, "beat": {**old["beat"], "uncoupled": {}}}
        windows = {"source": "windows", "every_s": "900", "first": "2026-03-02", "last": "2026-04-02",
                   "rules": [{"opens": {"by": "sunrise"}, "closes": {"by": "clock", "minutes": 480}}]}  # fmt: skip
        mill = {**OLDER["10"]["mill-weir-footbridge"]["plan"], "frames": windows}
        for data, words in ((apart, "on one side of the move"), (mill, "the sun's own day")):
            plan, written = read_with_version(json.dumps(data))
            self.assertEqual(len([one for one in changed(written, plan, evaluate(plan)) if words in one]), 1, words)

    def test_it_reads_as_people_say_it_and_today_s_plans_are_told_nothing(self) -> None:
        old = OLDER["3"]["fern-frond-uncurling"]["plan"]
        plan, written = read_with_version(json.dumps(old))
        self.assertIn(
            "Gaps: 14.4 s now. A focus stack waits for the card between its pictures where the camera has no buffer.",
            changed(written, plan, evaluate(plan)),
        )
        for version in (VERSION, VERSION + 1, 0, None, True, "3"):
            self.assertEqual(changed(version, HARBOUR, evaluate(HARBOUR)), [])
