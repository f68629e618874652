"""Plan files: the round trip is exact, and what is no plan is told where and why."""

import json
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from jsonschema import validators
from jsonschema.protocols import Validator

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.formats.json_places import lines_of
from bridle.formats.plan_json import PlanFileError, read_plan, write_plan
from bridle.formats.snag_list import snag_list
from bridle.server.schema import schema_text
from tests.strategies import plan_of, plans

ROOT = Path(__file__).parents[2]
GOOD = write_plan(plan_of({}))


def changed(**values: object) -> str:
    return json.dumps({**json.loads(GOOD), **values}, indent=1)


REFUSED: dict[str, tuple[bytes | str, str, str]] = {
    "empty": ("", "not JSON", "line 1"),
    "text": ("Dear planner,\n", "not JSON", "line 1, column 1: found “Dear planner,”"),
    "cut short": (GOOD[:300], "not JSON", "line"),
    "binary": (b"\xff\xfe\x00", "not text", ""),
    "a list": ("[]", "not a Bridle plan", "bridle_plan"),
    "newer": (changed(bridle_plan=13), "version 13; this Bridle reads versions up to 12", "newer"),
    "version as text": (changed(bridle_plan="one"), 'version "one"', ""),
    "no number": (GOOD.replace('"4000"', "4000").replace("4000", "NaN", 1), "not a plan", ""),
    "unknown field": (
        changed(weather="fine"),
        "do not belong",
        'weather: found "fine"; version 12 knows no such field',
    ),
    "text for a number": (
        changed(camera={"iso": "high"}),
        "do not belong",
        'camera.iso: found "high"; expected: a valid',
    ),
    "absurd": (changed(camera={"focal_mm": -35}), "do not belong", "camera.focal_mm: found -35"),
    "exponent": (changed(beat={"exposure_s": "1e999999999"}), "do not belong", "beat.exposure_s"),
    "deep": ("[" * 100_000, "nested too deep", ""),
    "missing": (json.dumps({"bridle_plan": 1}), "do not belong", "shoot: nothing stood there"),
    "large": (b" " * 50_000_000, "has 50 MB; a plan has at most 1 MB", ""),
}


BOTH = ("market-morning", "harbour-refloat")


def _later(old: dict[str, Any]) -> None:
    """Take out the sections that no old plan has."""
    for section in ("trigger", "printing", "season"):
        old.pop(section, None)


@cache
def _by_schema() -> Validator:
    """The published schema, itself a sound one; made once, which takes longer than asking it."""
    schema = json.loads(schema_text())
    kind = validators.validator_for(schema)
    kind.check_schema(schema)
    return kind(schema)


class PlanFiles(TestCase):
    @settings(max_examples=30, deadline=None)
    @given(plans)
    def test_the_round_trip_is_exact_and_fits_the_schema(self, plan: Plan) -> None:
        text = write_plan(plan)
        self.assertEqual(read_plan(text), plan)
        self.assertEqual(write_plan(read_plan(text.encode())), text)
        _by_schema().validate(json.loads(text))

    def test_a_plan_of_version_1_is_read_as_it_was_meant(self) -> None:
        old = json.loads(GOOD)
        clock = old["shoot"].pop("clock")
        for section, fields in (("beat", ("wake_s", "exposure_s", "write_s")), ("clip", ("pegs", "interval_step_s"))):
            old[section] = {field: old[section][field] for field in fields}
        # A row of keyframes is of version 3: no older plan has it, and none is thrown away.
        first, last = old["move"].pop("keyframes")
        old["move"] |= {"start": first, "end": last}
        del (
            old["kit"],
            old["camera"]["circle_mm"],
            old["rig"]["standing"],
            old["rig"]["lead"],
            old["frames"],
            old["light"],
        )
        _later(old)
        plan = read_plan(json.dumps({**old, "bridle_plan": 1, "shoot": {**old["shoot"], "start": clock["at"]}}))
        self.assertEqual((plan.bridle_plan, plan.shoot.clock.holds), (12, "start"))
        self.assertEqual(plan.shoot.clock.at, datetime.fromisoformat(clock["at"]))
        self.assertEqual(plan.move, read_plan(GOOD).move)
        self.assertEqual(evaluate(plan).frames, evaluate(read_plan(GOOD)).frames)

    def test_a_plan_of_version_3_keeps_its_segments(self) -> None:
        new = json.loads(GOOD)
        segments = [{"length_s": "600", "interval_s": "10"}, {"length_s": "900", "interval_s": "5"}]
        for ramp, frames in (
            (
                {"segments": segments, "blend_frames": 12},
                {"source": "changing", "segments": segments, "blend_frames": 12},
            ),
            ({"segments": segments}, {"source": "changing", "segments": segments, "blend_frames": 0}),
            ({"segments": [], "blend_frames": 7}, {"source": "even"}),
            (None, {"source": "even"}),
        ):
            old = {**new, "bridle_plan": 3, "clip": {**new["clip"], **({"ramp": ramp} if ramp is not None else {})}}
            del old["frames"], old["light"]
            _later(old)
            self.assertEqual(read_plan(json.dumps(old)), read_plan(json.dumps({**new, "frames": frames})))

    def test_a_plan_of_version_4_forgets_limits_that_its_drives_do_not_have(self) -> None:
        """A spring had a top speed from its card; one that was typed over it stays, and a belt keeps all."""
        market, harbour = (json.loads((ROOT / f"bridle/demo/shoots/{name}.json").read_text()) for name in BOTH)
        (pan,) = market["rig"]["axes"]
        pan |= {"top_speed": 0.2, "acceleration": 7.0}
        for old in (market, harbour):
            old.pop("light")
            _later(old)
        read = read_plan(json.dumps({**market, "bridle_plan": 4})).rig.axes[0]
        self.assertEqual((read.top_speed, read.acceleration), (None, 7.0))
        self.assertEqual(read_plan(json.dumps({**harbour, "bridle_plan": 4})), read_plan(json.dumps(harbour)))

    def test_what_is_no_plan_is_told(self) -> None:
        for name, (raw, sentence, problem) in REFUSED.items():
            with self.subTest(name), self.assertRaises(PlanFileError) as caught:
                read_plan(raw)
            self.assertIn(sentence, str(caught.exception))
            self.assertIn(problem, str(caught.exception))

    def test_a_file_cut_off_anywhere_is_told_with_its_line(self) -> None:
        text = (ROOT / "bridle/demo/shoots/harbour-refloat.json").read_text(encoding="utf-8")
        ends = [at for at, letter in enumerate(text) if letter == "\n"][:-1]
        for cut in (*ends, *range(1, len(text) - 2, 97)):
            with self.assertRaises(PlanFileError) as caught:
                read_plan(text[:cut])
            self.assertRegex(
                caught.exception.problems[0], r"^line \d+, column \d+: found .+, expected JSON", text[:cut][-40:]
            )

    def test_what_is_said_twice_or_was_never_known_is_refused_at_its_line(self) -> None:
        for text, problem in (
            (
                '{"bridle_plan": 3,\n "shoot": {"name": "a",\n  "name": "b"}}',
                "line 3: “name” stands here a second time",
            ),
            ('{"bridle_plan": 1,\n "shoot": {"name": "a",\n  "clock": {}}}', "line 3, shoot.clock: version 1 knows no"),
            ('{"bridle_plan": 2, "shoot": {},\n "move": {\n  "keyframes": []}}', "line 3, move.keyframes: version 2"),
            (
                '{"bridle_plan": 3,\n "clip": {\n  "ramp": {\n   "steps": 2}}}',
                "line 4, clip.ramp.steps: version 3 knows",
            ),
            ('{"bridle_plan": 3,\n "frames": {}}', "line 2, frames: version 3 knows no"),
            ('{"bridle_plan": 3,\n "shoot": {"name": "\u200b\u00ad"}}', "line 2, shoot.name"),
        ):
            with self.subTest(problem), self.assertRaises(PlanFileError) as caught:
                read_plan(text)
            self.assertTrue(any(problem in one for one in caught.exception.problems), caught.exception.problems)

    def test_the_line_of_a_problem_is_right(self) -> None:
        text = (
            '{\n "bridle_plan": 1,\n "shoot": {"name": "A",\n  "start": "2026-09-27T06:10:00Z",\n  "extra": [1,\n 2]}}'
        )
        self.assertEqual(lines_of(text)[("shoot", "extra", 1)], 6)
        with self.assertRaises(PlanFileError) as caught:
            read_plan(text)
        self.assertIn("line 5, shoot.extra: found [1, 2]", caught.exception.problems[0])

    def test_what_the_docs_have_from_the_code_is_true(self) -> None:
        self.assertEqual((ROOT / "docs/snags.md").read_text(), snag_list())
        self.assertEqual((ROOT / "docs/formats/plan-12.schema.json").read_text(), schema_text())
