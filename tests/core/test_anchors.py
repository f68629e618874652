"""Hours that the sky gives: read as people write them, moved by moving the date, let go of by hand or by a fix."""

from datetime import datetime, timedelta
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import numpy as np

from bridle.core.asks.changes import MakeEdits, SetValue, TypeText, make
from bridle.core.chapters.move.drawn import _bodies
from bridle.core.evaluate import evaluate
from bridle.core.plan.anchors import Anchor, read_anchor
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.quantity import QuantityError
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.stretches import on_the_clock
from bridle.core.subjects.light import sky
from tests.provoked import dusk
from tests.strategies import plan_of, shooting

WRITTEN: dict[str, tuple[str, int, float]] = {
    "sunset": ("sunset", 0, 0),
    "40 min before sunset": ("sunset", -2400, 0),
    "1h30 after the sunrise": ("sunrise", 5400, 0),
    "until nautical dusk": ("nautical dusk", 0, 0),
    "dusk": ("civil dusk", 0, 0),
    "when the moon is 10° up": ("moon up", 0, 10),
    "15 min before moonrise": ("moonrise", -900, 0),
    "when the sun has sunk to −6°": ("sun down", 0, -6),
    "the moon at 12.5 setting": ("moon down", 0, 12.5),
}


def typed(plan: Plan, path: str, text: str) -> Plan:
    return make(plan, [TypeText(do="type", path=path, text=text)])[0]


def start(plan: Plan) -> datetime:
    return shooting(plan).timeline.start


class Read(TestCase):
    def test_as_people_write_them(self) -> None:
        for text, (to, offset, height) in WRITTEN.items():
            with self.subTest(text):
                found = read_anchor(text)
                self.assertEqual((found.to, found.offset_s, found.altitude_deg), (to, offset, height))
                # What is said of it is read as the same again.
                self.assertEqual(read_anchor(found.words), found)

    def test_what_is_none_is_told(self) -> None:
        for text in ("blue hour", "soon", "40 before sunset and a bit", "half an hour before the boats"):
            with self.assertRaises(QuantityError):
                read_anchor(text)


class Tied(TestCase):
    """At Port Ellary the sun sets on 12 September 2026 at 19:51:49, and at −12° it stands at 21:19:00."""

    def setUp(self) -> None:
        self.plan = dusk(minutes=60)

    def test_the_start_goes_with_the_sun(self) -> None:
        plan = typed(self.plan, "shoot.clock.at", "40 min before sunset")
        self.assertLess(abs(start(plan) - datetime.fromisoformat("2026-09-12T19:11:49+01:00")), timedelta(seconds=31))
        later, _ = make(plan, [SetValue(do="set", path="shoot.clock.at", value="2026-11-12T19:30:00+00:00")])
        sets = np.array([start(later).timestamp() + 2400])
        self.assertEqual(start(later).date().isoformat(), "2026-11-12")
        self.assertAlmostEqual(float(sky.sun(57.32, -6.18, sets)[1][0]), -0.833, 1)
        figure = evaluate(plan).figures["tied.shoot.clock"]
        self.assertEqual((figure.label, figure.value), ("40 min before sunset", start(plan).timestamp()))

    def test_an_hour_that_is_typed_lets_go_of_the_sky(self) -> None:
        plan = typed(typed(self.plan, "shoot.clock.at", "sunset"), "shoot.clock.at", "20:15")
        self.assertIsNone(plan.shoot.clock.tied)
        self.assertEqual(start(plan).strftime("%H:%M"), "20:15")

    def test_it_lasts_until_the_sky_says_so_and_the_sentence_follows(self) -> None:
        plan = typed(typed(self.plan, "shoot.clock.at", "sunset"), "shoot.clock.until", "until nautical dusk")
        told = evaluate(plan)
        length = next(one for one in told.clip.quantities if one.quantity == "shoot").value or 0
        self.assertLess(abs(length - (27 * 60 + 3600 + 11)), 62)
        self.assertEqual(told.frames, length // 20)
        # Typed over, the peg is a peg again.
        freed = typed(plan, "clip.shoot", "1h")
        self.assertIsNone(freed.shoot.clock.until)
        self.assertEqual(evaluate(freed).frames, 180)

    def test_the_end_that_is_held_can_be_tied_and_changes_ends(self) -> None:
        plan, _ = make(self.plan, [MakeEdits(do="edits", edits=(Edit(path="shoot.clock.holds", value="finish"),))])
        plan = typed(plan, "shoot.clock.at", "sunset")
        finish = shooting(plan).timeline.clock(10**6)
        self.assertLess(abs(finish - datetime.fromisoformat("2026-09-12T19:51:49+01:00")), timedelta(seconds=31))

    def test_an_event_goes_with_the_sky_and_without_a_place_it_is_said(self) -> None:
        events = [{"name": "the moon", "at": "2026-09-12T19:40+01:00", "tied": {"to": "sunset", "offset_s": "-60"}}]
        plan = dusk(clock={"events": events})
        self.assertAlmostEqual(evaluate(plan).figures["event.0.frame"].value, (21 * 60 - 11) / 20 + 1, delta=1.6)
        nowhere = plan_of({"rate": F(25), "shoot": F(3600), "interval": F(10)}, clock={"events": events})
        (snag,) = [one for one in evaluate(nowhere).snags if one.code == "sky-needs-a-place"]
        self.assertEqual(snag.path, "shoot.clock.events.0.tied")

    def test_at_every_latitude_and_through_the_change_of_the_clocks_it_stays_an_instant(self) -> None:
        for latitude in (-78.0, -33.0, 0.0, 51.5, 69.6, 85.0):
            for at in ("2026-03-29T01:30+00:00", "2026-06-21T23:00+00:00", "2026-10-25T01:30+00:00"):
                clock: dict[str, Any] = {"tied": {"to": "sunrise"}, "until": {"to": "sunset"}}
                plan = dusk(at, where=(latitude, 10.0), clock=clock)
                told = evaluate(plan)
                given = "tied.shoot.clock" in told.figures
                self.assertNotEqual(given, "sky-gives-no-hour" in {snag.code for snag in told.snags})

    def test_anchors_are_causes_and_what_follows_is_not_kept(self) -> None:
        plan = typed(self.plan, "shoot.clock.at", "sunset")
        self.assertEqual(plan.shoot.clock.at, self.plan.shoot.clock.at)
        self.assertEqual(plan.shoot.clock.tied, Anchor(to="sunset"))
        self.assertNotEqual(reckon(plan).plan.shoot.clock.at, plan.shoot.clock.at)


class Told(TestCase):
    def test_stretches_that_come_each_evening_are_told_together(self) -> None:
        windows = {"source": "windows", "every_s": 600,
                   "first": "2026-05-03", "last": "2026-05-19"}  # fmt: skip
        times = shooting(plan_of({"rate": F(25)}, clip={"frames": windows})).timeline
        day = 144
        runs = [(day * n + 112, day * n + 114) for n in range(17)]
        self.assertEqual(on_the_clock(times, runs), "each evening from 3 to 19 May, about 18:40 to 19:00")
        self.assertEqual(on_the_clock(times, runs[:1]), "from 18:40 to 19:00")
        self.assertEqual(
            on_the_clock(times, [runs[0], runs[2]]), "from 3 May, 18:40 to 19:00 and from 5 May, 18:40 to 19:00"
        )
        gapped = [*runs[:4], *runs[6:12]]
        self.assertEqual(
            on_the_clock(times, gapped),
            "each evening from 3 to 6 May, about 18:40 to 19:00; each evening from 9 to 14 May, about 18:40 to 19:00",
        )

    def test_the_moon_is_in_the_picture_while_its_direction_lies_in_it(self) -> None:
        """Looking the way the moon stands at the middle of an hour: it is in, and behind the back it is not."""
        plan = dusk("2026-12-23T16:30+00:00", minutes=60, interval=60)
        moon = shooting(plan).moon
        assert moon is not None
        azimuth, altitude = float(moon.azimuth[30]) % 360, float(moon.altitude[30])
        keys = [{"tilt_deg": altitude}, {"tilt_deg": altitude}]
        for turn, seen in ((0.0, True), (180.0, False)):
            edits = (
                Edit(path="rig.normal_bearing_deg", value=(azimuth + turn) % 360),
                Edit(path="move.keyframes", value=[{**plan.move.start.model_dump(mode="json"), **key} for key in keys]),
            )
            facing, _ = make(plan, [MakeEdits(do="edits", edits=edits)])
            told = {body.name: body for body in _bodies(shooting(facing))}
            self.assertEqual(told["moon"].frames == 60, seen)
            self.assertEqual(told["moon"].words, "from 16:30 to 17:29" if seen else "")
