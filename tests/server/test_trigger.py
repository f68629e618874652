"""The bench test with the simulated camera, and a run whose frames do not come, as the page gets them."""

from typing import Any

from django.test import TestCase

from bridle.core.plan.document import Plan
from bridle.server.runs.book import record
from bridle.server.runs.driver import Drive
from bridle.server.runs.models import AS_FAST_AS_IT_GOES, LogEntry, Run
from tests.wired import BODY, chain

FEW = {"rate": 25, "frames": 12, "interval": 10}
DEAF = [("source.open", "camera.focus"), ("source.common", "camera.ground")]


class Bench(TestCase):
    """Pressed so often, a beat apart."""

    def tried(self, plan: Plan, **asked: Any) -> Any:
        body = {"plan": plan.model_dump(mode="json"), "asked": 20, **asked}
        return self.client.post("/api/trigger/try", body, "application/json")

    def test_what_came_of_the_presses(self) -> None:
        good, deaf = chain("print-switch", BODY, held=FEW), chain("print-switch", BODY, held=FEW, joins=DEAF)
        for plan, fault, came, first, why in (
            (good, "none", 20, None, ""), (good, "misses", 17, 2, "It missed that one."),
            (good, "fires twice", 23, None, ""),
            (deaf, "none", 0, 0, "Its focus contact closed, and its shutter never did."),
        ):  # fmt: skip
            told = self.tried(plan, fault=fault).json()
            self.assertEqual((told["came"], told["first_lost"], told["why"]), (came, first, why))

    def test_what_cannot_be_pressed_or_not_so_often_is_refused(self) -> None:
        self.assertEqual(self.tried(chain("phone-app", "phone", held=FEW)).status_code, 422)
        good = chain("print-switch", BODY, held=FEW)
        for asked in (0, 100_001):
            self.assertEqual(self.tried(good, asked=asked).status_code, 422)


class Runs(TestCase):
    """What did not come is kept, with its reason."""

    def run_of(self, plan: Plan) -> Run:
        import threading  # noqa: PLC0415  # here alone

        from bridle.server.shoots.models import keep  # noqa: PLC0415  # needs the database

        shoot = keep(plan)
        kept = plan.model_dump(mode="json")
        run = Run.objects.create(shoot=shoot, plan=kept, frames=12, speed=AS_FAST_AS_IT_GOES, asked=["start"])
        drive = Drive(run.pk, threading.Event())
        for _ in range(400):
            drive._hear()
            if drive.state.phase in ("fault", "finished") or not drive._wait():
                break
            drive._next()
        record(drive.run, drive.programme, drive.state, drive.bench.now_s, [])
        return Run.objects.get(pk=run.pk)

    def test_a_deaf_camera_is_told_with_its_reason(self) -> None:
        run = self.run_of(chain("print-switch", BODY, held=FEW, joins=DEAF))
        told = self.client.get(f"/api/runs/{run.pk}").json()
        self.assertEqual((told["phase"], told["taken"], told["missed"]), ("fault", 0, 3))
        kinds = [event["kind"] for event in told["events"]]
        self.assertEqual((kinds.count("missed"), kinds[-1]), (3, "deaf"))
        self.assertIn("focus contact closed", told["events"][-1]["said"])

    def test_a_run_with_holes_ends_and_the_log_counts_what_came(self) -> None:
        """Asleep after a minute, pressed every two: the first frame comes, three do not, and it stands still."""
        slow = {**FEW, "interval": 120}
        run = self.run_of(chain("remote-timer", BODY, held=slow))
        self.assertEqual((run.read_state().phase, run.read_state().taken, run.read_state().missed), ("fault", 1, 3))
        self.assertFalse(LogEntry.objects.filter(run=run).exists())
        whole = self.run_of(chain("remote-timer", BODY, held=slow, beat={"half_s": "2/5"}))
        entry = LogEntry.objects.get(run=whole)
        self.assertEqual((entry.taken_frames, entry.planned_frames), (12, 12))
