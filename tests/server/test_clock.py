"""A clock that is wrong: what is old by it alone is not cleared; what running time has passed over is."""

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import mock

from django.test import TestCase

from bridle.core.plan.edit import Edit, apply
from bridle.server.house import clock
from bridle.server.house.clock import PASSED_S, RunningTime
from bridle.server.house.models import House
from bridle.server.keeping import BIN_DAYS, Revision, empty_bin, thin_all
from bridle.server.prints import care
from bridle.server.prints.models import Print
from bridle.server.shoots.models import Shoot, keep
from tests.server.test_api import Page
from tests.server.test_keeping import HARBOUR

START = datetime(2026, 12, 1, 9, tzinfo=UTC)
HOUR, DAY = timedelta(hours=1), timedelta(days=1)


class Wrong(TestCase):
    """A server whose clock and whose running time the test sets."""

    def setUp(self) -> None:
        self.now, self.ran = START, 0.0
        for target in ("django.utils.timezone.now", "bridle.server.keeping.timezone.now"):
            patched = mock.patch(target, side_effect=lambda: self.now)
            patched.start()
            self.addCleanup(patched.stop)
        self.running = RunningTime(lambda: self.ran)
        patched_running = mock.patch.object(clock, "RUNNING", self.running)
        patched_running.start()
        self.addCleanup(patched_running.stop)

    def start(self) -> None:
        """A server starts, as `serve` does it."""
        self.running.__init__(lambda: self.ran)  # type: ignore[misc]
        self.running.start(clock.newest_of((Shoot, "changed_at"), (Revision, "made_at")))
        self.tidy()

    def tidy(self) -> None:
        empty_bin(Shoot)
        thin_all()
        care.clear()

    def runs(self, time: timedelta, step: timedelta = HOUR) -> None:
        """The server runs for so long, and looks at its clock meanwhile."""
        while time > timedelta(0):
            self.now += step
            self.ran += step.total_seconds()
            self.running.look()
            time -= step

    def saves(self, count: int, every: timedelta = timedelta(minutes=1)) -> None:
        for number in range(count):
            shoot = Shoot.objects.get(binned_at=None)
            plan, _ = apply(shoot.read(), [Edit(path="camera.iso", value=100 + shoot.version + number)])
            shoot.put(plan, shoot.version)
            self.now += every
            self.ran += every.total_seconds()

    def made(self) -> None:
        """A day of work: a shoot with many revisions, one in the bin, an upload that was begun."""
        self.start()
        keep(HARBOUR)
        keep(HARBOUR).to_bin()
        Print.objects.create(name="begun.gcode", size=9, touched_at=self.now)
        self.saves(60)
        self.running.look()

    def left(self) -> tuple[int, int, int]:
        return Revision.objects.count(), Shoot.objects.exclude(binned_at=None).count(), Print.objects.count()

    def test_a_clock_far_ahead_at_the_start_clears_nothing_until_a_day_of_running_has_passed(self) -> None:
        self.made()
        whole = self.left()
        self.assertEqual(whole, (60, 1, 1))
        self.now += 40 * DAY
        for _ in range(3):
            self.start()
            self.assertEqual(self.left(), whole, "started again and again with the wrong clock")
            self.saves(1)
            whole = self.left()
        told = Page().get("/api/house").json()["jumped"]
        self.assertEqual((told["from"][:10], told["to"][:10], told["read"]), ("2026-12-01", "2027-01-10", False))
        # Put right again, and wrong a second time: that is another jump.
        self.now -= 40 * DAY
        self.start()
        self.assertEqual(self.left(), whole)
        self.now += 40 * DAY
        self.start()
        self.assertEqual(self.left(), whole)
        self.runs(timedelta(seconds=PASSED_S) + 2 * HOUR)
        self.tidy()
        self.assertEqual(self.left()[1:], (0, 0), "the bin and the upload that was given up")
        self.assertLess(self.left()[0], 10)

    def test_a_clock_that_jumps_while_the_server_runs_and_one_that_goes_back(self) -> None:
        self.made()
        whole = self.left()
        self.now += 40 * DAY
        self.runs(HOUR)
        self.tidy()
        self.assertEqual(self.left(), whole)
        self.now -= 80 * DAY
        self.runs(HOUR)
        self.tidy()
        self.assertEqual(self.left(), whole)

    def test_without_a_jump_things_go_when_they_are_old(self) -> None:
        self.made()
        for _ in range(BIN_DAYS + 2):
            self.runs(23 * HOUR)
            self.now += HOUR
            self.start()
        self.assertEqual(self.left()[1:], (0, 0))
        self.assertIsNone(Page().get("/api/house").json()["jumped"])

    def test_an_hour_a_week_has_bounded_growth(self) -> None:
        self.start()
        keep(HARBOUR)
        most = 0
        for _ in range(60):
            self.saves(6, timedelta(minutes=10))
            self.running.look()
            self.now += 7 * DAY
            self.start()
            most = max(most, Revision.objects.count())
        # 24 hours of running are some 24 weeks, all kept; what is older is one a week.
        self.assertLess(most, 6 * 26 + 60)
        self.assertGreater(Revision.objects.count(), 6 * 23)
        self.assertIsNotNone(House.objects.get().jumped_ran_s)

    def test_the_notice_is_put_away_and_comes_again_with_the_next_jump(self) -> None:
        page: Any = Page()
        jumped: Callable[[], Any] = lambda: page.get("/api/house").json()["jumped"]  # noqa: E731
        self.made()
        self.assertIsNone(jumped())
        self.now += 3 * DAY
        self.start()
        self.assertFalse(jumped()["read"])
        self.assertEqual(page.send("POST", "/api/house/clock-read", {}).status_code, 200)
        self.assertTrue(jumped()["read"])
        self.now += 3 * DAY
        self.start()
        self.assertFalse(jumped()["read"])
