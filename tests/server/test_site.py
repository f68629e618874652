"""Months on the stand-ins: a battery under the sky, a card that fills, cuts of the power, and somebody who comes."""

import threading
from collections.abc import Callable
from typing import Any
from unittest import mock

from django.test import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.run.events import TASK_END, Visited
from bridle.core.run.programme import LEAD_S, programme
from bridle.server.runs.book import ENDED
from bridle.server.runs.driver import Drive
from bridle.server.runs.models import Run
from bridle.server.runs.site import CUT_S, site_of_run
from bridle.server.shoots.models import keep
from tests.core.test_staying import stays
from tests.provoked_staying import BATTERY, CARD, PANEL, another, camera
from tests.strategies import shooting

HOUR_S = 3600


def run_of(plan: Plan, **more: Any) -> Drive:
    """A run of a plan that goes as fast as it can, asked to start."""
    data, frames = plan.model_dump(mode="json"), shooting(plan).frames
    run = Run.objects.create(shoot=keep(plan), plan=data, frames=frames, speed=0, asked=["start"], **more)
    return Drive(run.pk, threading.Event())


def until(drive: Drive, done: Callable[[Drive], bool]) -> Drive:
    """Drive until something holds, as the run's own loop does."""
    while not done(drive):
        assert drive.state.phase not in ENDED, f"it has ended, with {drive.state.missed} missed"
        drive._hear()
        if drive._wait():
            drive._next()
    return drive


def missed(drive: Drive) -> list[tuple[float, str]]:
    """When frames did not come (seconds after the first), and why."""
    rows = drive.run.events.filter(kind="missed").order_by("number").values_list("at_s", "said")
    return [(at_s - LEAD_S, said) for at_s, said in rows]


def with_cut(after: str) -> Plan:
    """A camera that does so when the power comes back."""
    plan = camera(CARD, another(BATTERY, amp_hours=400.0)).model_dump(mode="json")
    for copy in plan["kit"]["copies"]:
        if copy["card"]["kind"] in ("body", "trigger"):
            copy["card"]["after_cut"] = after
    return Plan.model_validate(plan)


class Months(TestCase):
    def test_as_planned_every_frame_comes_and_card_and_battery_are_as_they_were_told(self) -> None:
        plan = camera(another(CARD, gigabytes=8.0), BATTERY, PANEL, days=("2026-03-02", "2026-04-12"))
        drive = run_of(plan)
        drive.go()
        self.assertEqual((drive.state.phase, drive.state.taken), ("finished", 42 * 60))
        done = list(drive.run.events.filter(kind="visit").values_list("said", flat=True))
        self.assertEqual(
            [tuple(said.split(TASK_END)) for said in done], [visit.tasks for visit in stays(plan).coming.visits]
        )
        levels, site = evaluate(plan).season.levels, drive.bench.site
        assert levels is not None and site is not None and site.fill is not None and site.charge is not None
        self.assertAlmostEqual(site.fill, levels.fill[-1] / 1000, delta=0.005)
        self.assertAlmostEqual(site.charge, stays(plan).coming.charged.levels[-1] / stays(plan).power.usable_wh, 2)

    def test_a_task_with_a_comma_in_its_name_is_one(self) -> None:
        """What somebody calls a task is kept as it is called: nothing in it swaps a card."""
        drive = run_of(camera(another(CARD, gigabytes=4.0)), comes=False)
        until(drive, lambda one: one.state.taken == 20)
        for tasks, swapped in ((("look, swap the card, go",), 0), (("wipe it, both sides", "swap the card"), 20)):
            drive._handle(Visited(tasks))
            site = site_of_run(drive.run, drive.programme)
            assert site is not None
            with self.subTest(tasks):
                self.assertEqual(site.swapped, swapped)

    def test_a_card_that_nobody_swaps_is_full_and_a_visit_ticked_off_empties_it(self) -> None:
        """4 GB are 128 pictures of 31.2 MB, to the last of them."""
        drive = run_of(camera(another(CARD, gigabytes=4.0)), comes=False)
        until(drive, lambda one: one.state.missed == 5)
        self.assertEqual(drive.state.taken, 128)
        self.assertEqual({why for _, why in missed(drive)}, {"the card is full"})
        Run.objects.filter(pk=drive.run.pk).update(asked=["visit"])
        until(drive, lambda one: one.state.taken == 150)
        self.assertEqual(drive.state.missed, 5)

    def test_the_battery_is_empty_when_it_was_told(self) -> None:
        plan = camera(BATTERY, days=("2026-06-01", "2026-06-28"), visiting={"swaps_battery": False})
        lasts_h = stays(plan).power.lasts_h
        assert lasts_h is not None
        drive = until(run_of(plan), lambda one: one.state.missed == 2)
        at, why = missed(drive)[0]
        self.assertEqual(why, "the battery is empty")
        # It is found at the first frame of the hour after; by night no frame asks.
        self.assertTrue(lasts_h - 1 <= at / HOUR_S <= lasts_h + 15, (at / HOUR_S, lasts_h))

    def test_after_a_cut_it_goes_on_or_stays_off_until_somebody_comes(self) -> None:
        for after, lost in (("goes on", 36), ("stays off", 120)):
            with self.subTest(after):
                drive = until(run_of(with_cut(after), comes=False), lambda one: one.state.taken == 12)
                Run.objects.filter(pk=drive.run.pk).update(asked=["cut"])
                until(drive, lambda one: one.state.missed == 120 or one.state.taken == 13)
                if after == "stays off":
                    Run.objects.filter(pk=drive.run.pk).update(asked=["visit"])
                until(drive, lambda one: one.state.taken == 13)
                self.assertEqual(drive.state.missed, lost)
                self.assertEqual(drive.run.events.get(kind="cut").seconds, CUT_S)

    def test_the_sky_of_the_stand_in_is_its_own(self) -> None:
        """Three weather seeds give three charges; dark weeks leave less than uneven days do."""
        plan = camera(BATTERY, another(PANEL, watts=20.0), days=("2026-02-01", "2026-03-20"))
        lowest = {}
        for weather in ("as planned", "uneven days", "dark weeks"):
            site = site_of_run(run_of(plan, weather=weather).run, programme(plan))
            assert site is not None
            charges = []
            for hour in range(40 * 24):
                site.to(hour * HOUR_S)
                charges.append(site.charge or 0.0)
            lowest[weather] = min(charges)
        self.assertLess(lowest["dark weeks"], lowest["uneven days"])
        self.assertEqual(len(set(lowest.values())), 3)

    def test_a_server_that_comes_back_finds_the_site_as_it_was(self) -> None:
        plan = camera(another(CARD, gigabytes=8.0), BATTERY, PANEL, days=("2026-03-02", "2026-03-22"))
        drive = until(run_of(plan), lambda one: one.state.taken == 400)
        before = drive.bench.site
        again = Drive(drive.run.pk, threading.Event())
        after = again.bench.site
        assert before is not None and after is not None
        self.assertEqual(after.swapped, before.swapped)
        self.assertAlmostEqual(after.charge or 0, before.charge or 0, 6)
        with mock.patch.object(again, "_hear"):
            again.go()
        self.assertEqual((again.state.phase, again.state.taken, again.state.missed), ("finished", 21 * 60, 0))

    def test_windows_do_not_wait_for_a_run_that_stood_still(self) -> None:
        """A pause of ten days: what has gone by is left out, and the next frame comes at its own hour."""
        drive = until(run_of(camera(CARD)), lambda one: one.state.taken == 30)
        Run.objects.filter(pk=drive.run.pk).update(asked=["pause"])
        until(drive, lambda one: one.state.phase == "paused")
        drive.bench.now_s += 3 * 86_400
        Run.objects.filter(pk=drive.run.pk).update(asked=["go on"])
        until(drive, lambda one: one.state.taken == 31)
        skipped = drive.run.events.get(kind="skipped")
        self.assertEqual(skipped.seconds, drive.state.missed)
        self.assertEqual(drive.state.missed, 3 * 60)
        self.assertEqual(drive.state.shift_s, 0)
