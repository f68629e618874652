"""Runs the tests of the page's arithmetic, and reports each of them as one of Django's."""

import json
import os
import subprocess
from datetime import datetime
from functools import lru_cache
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase
from zoneinfo import ZoneInfo

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import CARD_TYPES
from bridle.core.quantity import write
from bridle.server.shoots.sent import sent
from tests.served import ROOT
from tests.strategies import CARDS

FRONTEND = ROOT / "frontend"
ZONES = ("UTC", "Europe/London", "Asia/Kolkata", "America/St_Johns", "Pacific/Chatham", "Australia/Lord_Howe")
VALUES = (0, 0.004, 0.25, 1, 59.9996, 60, 90.5, 3599, 3600, 11520, 86_400, 90_061, 1e6, -75)
UNITS = (
    "",
    "s",
    "shutter",
    "mm",
    "focal",
    "deg",
    "deg/s",
    "g",
    "px",
    "frames",
    "moment",
    "rate",
    "share",
    "times",
    "f-number",
    "V",
)
# Twice a week through a year, at midnight and at noon: both sides of every change of the clocks.
MOMENTS = [1_767_225_600 + 3600 * 12 * n for n in range(0, 730, 7)]


def expected() -> dict[str, Any]:
    """What the page has to say, told by the server: quantities, zones, the demo shoots and cards."""
    offsets = {zone: {str(moment): _offset_s(moment, zone) for moment in MOMENTS} for zone in ZONES}
    written = [[value, unit, write(value, unit)] for unit in UNITS for value in VALUES if _possible(value, unit)]
    shoots = {}
    for path in sorted((ROOT / "bridle" / "demo" / "shoots").glob("*.json")):
        plan = Plan.model_validate_json(path.read_text())
        shoots[path.stem] = _told(plan)
        if path.stem == "lamps-along-the-quay":
            shoots["lamps-on-a-thin-rail"] = _told(_on_thin_rods(plan))
    cards = {
        name: CARD_TYPES[card["kind"]].model_validate(card).model_dump(mode="json") for name, card in CARDS.items()
    }
    return {"offsets": offsets, "written": written, "shoots": shoots, "cards": cards}


def _told(plan: Plan) -> dict[str, Any]:
    told = sent(evaluate(plan)).model_dump_json()
    return {"plan": plan.model_dump(mode="json"), "evaluation": json.loads(told)}


def _on_thin_rods(plan: Plan) -> Plan:
    """The same on a rail of rods of 14 mm."""
    data = plan.model_dump(mode="json")
    for one in data["kit"]["copies"]:
        if one["card"].get("beam"):
            one["card"]["beam"].update(outer_mm=14, inner_mm=0)
    return Plan.model_validate(data)


def _offset_s(moment: int, zone: str) -> float:
    offset = datetime.fromtimestamp(moment, ZoneInfo(zone)).utcoffset()
    return offset.total_seconds() if offset else 0.0


def _possible(value: float, unit: str) -> bool:
    return (unit != "rate" or value > 0) and (unit != "frames" or value == int(value))


@lru_cache(maxsize=1)
def report() -> dict[str, Any]:
    """The report of vitest, run once."""
    with TemporaryDirectory() as folder:
        told, out = Path(folder) / "expected.json", Path(folder) / "report.json"
        told.write_text(json.dumps(expected()), encoding="utf-8")
        command = ["npx", "--no-install", "vitest", "run", "--reporter=json", f"--outputFile={out}"]
        environment = {**os.environ, "CI": "1", "BRIDLE_EXPECTED": str(told)}
        ran = subprocess.run(command, cwd=FRONTEND, capture_output=True, text=True, env=environment)
        return json.loads(out.read_text()) if out.exists() else {"testResults": [], "said": ran.stdout + ran.stderr}


class TypeScript(TestCase):
    def test_each_of_them(self) -> None:
        tests = [test for file in report()["testResults"] for test in file["assertionResults"]]
        self.assertGreater(len(tests), 20, report().get("said"))
        for test in tests:
            with self.subTest(test["fullName"]):
                self.assertEqual(test["status"], "passed", "\n".join(test["failureMessages"]))
        for file in report()["testResults"]:
            self.assertEqual(file["status"], "passed", file.get("message"))
