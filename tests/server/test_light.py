"""Places, the sky of a day, weather over the stand-ins, and what a run's camera is set to, as the page gets them."""

from datetime import datetime
from typing import Any
from unittest import TestCase as Plain
from zoneinfo import ZoneInfo

import numpy as np
from django.test import TestCase

from bridle.core.plan.document import Plan
from bridle.server.runs.api import _pictures
from bridle.server.runs.models import Run
from bridle.standins.weather import MOST_STOPS, WEATHERS, cloud_stops, outcome
from tests.provoked import dusk
from tests.strategies import shooting


class Weather(Plain):
    def test_what_it_takes_of_the_light(self) -> None:
        share = np.linspace(0, 1, 500)
        for seed in range(5):
            cloud = {weather: cloud_stops(weather, share, 0.5, seed) for weather in WEATHERS}
            self.assertTrue((cloud["as planned"] == 0.5).all())
            passing = cloud["passing cloud"] - 0.5
            self.assertLess(passing[:100].max() + passing[400:].max(), 1e-9)
            self.assertGreater(passing[240], 2)
            self.assertTrue((np.diff(cloud["dull evening"]) >= 0).all())
            self.assertTrue(((cloud["haze"] - 0.5 > 0.4) & (cloud["haze"] - 0.5 < 1)).all())
            self.assertLessEqual(max(values.max() for values in cloud.values()), MOST_STOPS)

    def test_a_ramp_goes_wrong_by_what_the_cloud_takes_and_a_camera_by_itself_follows(self) -> None:
        ramped, automatic = (dusk(school=school, minutes=60) for school in ("ramped", "automatic"))
        planned, cloudy = outcome(ramped, "as planned"), outcome(ramped, "passing cloud")
        assert planned is not None and cloudy is not None
        known = shooting(ramped)
        share = known.timeline.starts_s / known.timeline.starts_s[-1]
        # Without lamps it comes out darker by what the cloud takes, stop for stop.
        np.testing.assert_allclose(planned.bright - cloudy.bright, cloud_stops("passing cloud", share, 0.0), atol=1e-9)
        self.assertLess(float(np.abs(cloudy.metered_ev * 10 - np.round(cloudy.metered_ev * 10)).max()), 1e-6)
        followed = [outcome(automatic, weather) for weather in ("as planned", "passing cloud")]
        assert followed[0] is not None and followed[1] is not None
        np.testing.assert_allclose(followed[0].bright, followed[1].bright)


class Asked(TestCase):
    def test_a_place_is_read_with_the_zone_of_its_clock(self) -> None:
        answer = self.client.post("/api/places/read", {"text": "33.87 S 151.21 E"}, "application/json")
        self.assertEqual(
            answer.json(), {"latitude_deg": -33.87, "longitude_deg": 151.21, "name": "", "zone": "Australia/Sydney"}
        )
        answer = self.client.post("/api/places/read", {"text": "over there"}, "application/json")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("latitude and longitude such as", answer.json()["problems"][0]["expected"])

    def test_places_are_remembered_once_each_the_last_first(self) -> None:
        from bridle.server.shoots.models import keep  # noqa: PLC0415  # needs the database

        for plan in (dusk(), dusk(where=(10.0, 20.0)), dusk(school="ramped")):
            keep(plan)
        places = self.client.get("/api/places").json()
        self.assertEqual(
            [(one["latitude_deg"], one["longitude_deg"]) for one in places], [(57.32, -6.18), (10.0, 20.0)]
        )

    def test_the_sky_of_a_day_and_what_is_not_to_be_had(self) -> None:
        for where, day, zone, words in (
            ((57.32, -6.18), "2026-09-12", "Europe/London", []),
            ((78.2, 15.6), "2026-06-21", "Arctic/Longyearbyen", ["does not set", "does not rise at this latitude"]),
            ((57.32, -6.18), "2026-06-21", "Europe/London", ["not get darker than nautical twilight"]),
        ):
            query: dict[str, Any] = {"latitude": where[0], "longitude": where[1], "day": day, "zone": zone}
            told = self.client.get("/api/sky", query).json()
            self.assertEqual(len(told["words"]), len(words), told["words"])
            for one, said in zip(told["words"], words, strict=True):
                self.assertIn(said, one)
            self.assertEqual(datetime.fromtimestamp(told["start"], ZoneInfo(zone)).isoformat()[:16], f"{day}T12:00")
        self.assertEqual(self.client.get("/api/sky", {**query, "day": "1700-01-01"}).status_code, 422)
        self.assertEqual(self.client.get("/api/sky", {**query, "zone": "Mars/Base"}).status_code, 422)

    def test_weather_is_told_along_the_frames_or_why_not(self) -> None:
        plan = dusk(school="ramped", minutes=30)
        body: dict[str, Any] = {"plan": plan.model_dump(mode="json"), "weather": "dull evening"}
        told = self.client.post("/api/weather", body, "application/json").json()
        found = outcome(plan, "dull evening")
        assert found is not None
        np.testing.assert_allclose(told["bright"]["values"], found.bright, atol=1e-3)
        nowhere = Plan.model_validate({**body["plan"], "light": {"daylight": False}})
        answer = self.client.post("/api/weather", {**body, "plan": nowhere.model_dump(mode="json")}, "application/json")
        self.assertEqual(answer.status_code, 422)

    def test_the_camera_of_a_run_is_set_as_the_ramp_has_it(self) -> None:
        plan = dusk(school="ramped", minutes=60)
        run = Run.objects.create(plan=plan.model_dump(mode="json"), frames=180, weather="haze")
        followed, found = shooting(plan).followed, outcome(plan, "haze")
        assert followed is not None and found is not None
        for frame in (0, 60, 179):
            setting = _pictures(run.pk)(frame)
            self.assertEqual(setting.shutter_s, followed.label("shutter", frame))
            self.assertEqual(setting.iso, followed.label("iso", frame))
            self.assertAlmostEqual(setting.bright or 0, float(found.bright[frame]), 3)
