"""Every path that the page changes a figure at stands in a plan: a name that is mistyped would show nothing at all."""

import re
from collections.abc import Iterator
from typing import Any
from unittest import TestCase

from bridle.core.asks import unscrewing
from bridle.core.asks.beginnings import BEGINNINGS
from bridle.core.asks.changes import Begin, make
from bridle.core.plan.clip import QUANTITIES
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import PathError, dump
from tests.mutated import DEMO
from tests.served import ROOT

PAGE = ROOT / "frontend" / "src"
# Where a path is given to what changes it: an attribute, or the first argument of a call.
GIVEN = re.compile(r"""\bpath="([a-z][\w.{}$ +]*)"|\b(?:put|set|begin|drop|type)\(\s*['`]([a-z]+\.[\w.{}$ +]*)['`]""")
SECTIONS = set(Plan.model_fields)


def asked() -> Iterator[tuple[str, str]]:
    """The paths on the page with the file in which they stand; what is filled in as `*`."""
    for file in sorted([*PAGE.rglob("*.svelte"), *PAGE.rglob("*.ts")]):
        for match in GIVEN.finditer(file.read_text()):
            path = re.sub(r"\$?\{[^}]*\}", "*", match[1] or match[2])
            if path.split(".")[0] in SECTIONS:
                yield path, file.name


def standing() -> set[str]:
    """Every path of the demo plans, and of plans in which everything has begun that can; numbers as `*`."""
    found: set[str] = {*(f"clip.{quantity}" for quantity in QUANTITIES), *unscrewing.KINDS}
    for file in DEMO.glob("shoots/*.json"):
        plan = Plan.model_validate_json(file.read_text())
        found |= set(_paths(dump(plan)))
        for pattern in BEGINNINGS:
            path = pattern.replace("\\", "").replace("(d+)", "0")
            try:
                found |= set(_paths(dump(make(plan, [Begin(do="begin", path=path)])[0])))
            except PathError:
                continue
        for path in ("frames", "frames.rules", "frames.off"):
            plan = make(plan, [Begin(do="begin", path=path)])[0]
        found |= set(_paths(dump(plan)))
        for kind in ("stations", "row", "stereo"):
            found |= set(_paths(dump(make(plan, [Begin(do="begin", path="move.visits", kind=kind)])[0])))
    return found


def _paths(data: Any, at: str = "") -> Iterator[str]:
    if at:
        yield at
    if isinstance(data, dict):
        for key, value in data.items():
            yield from _paths(value, f"{at}.{key}" if at else key)
    if isinstance(data, list):
        for value in data:
            yield from _paths(value, f"{at}.*")


class Paths(TestCase):
    def test_of_the_page_stand_in_a_plan(self) -> None:
        known, seen = standing(), list(asked())
        self.assertGreater(len(seen), 70)
        for path, file in seen:
            with self.subTest(path, file=file):
                shape = re.compile(r"\.".join(re.escape(step).replace(r"\*", r"[\w*]+") for step in path.split(".")))
                self.assertTrue(any(shape.fullmatch(one) for one in known), f"{path} in {file}")

    def test_a_mistyped_one_would_be_found(self) -> None:
        self.assertNotIn("beat.setle_s", standing())
        self.assertIn("move.marks.*.aimed.slide_1_mm", standing())
