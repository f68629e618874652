"""Runs on the real server: a power cut loses nothing and doubles nothing; a run ends in the logbook."""

import json
import random
import time
import urllib.error
import urllib.request
from http.cookiejar import CookieJar
from typing import Any
from unittest import TestCase

from tests.served import Served

LONGEST_S = 60


class Caller:
    """Calls the API as the page does."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.jar = CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self("GET", "/api/shoots")

    def __call__(self, method: str, path: str, body: Any = None) -> Any:
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(self.address + path, data=data, method=method)
        request.add_header("Content-Type", "application/json")
        for cookie in self.jar:
            request.add_header("X-CSRFToken", cookie.value or "")
        with self.opener.open(request, timeout=30) as answer:
            return json.loads(answer.read())


class Runs(TestCase):
    server: Served

    @classmethod
    def setUpClass(cls) -> None:
        cls.server = Served()
        cls.addClassCleanup(cls.server.stop)

    def setUp(self) -> None:
        self.call = Caller(self.server.address)
        names = {shoot["name"]: shoot["id"] for shoot in self.call("GET", "/api/shoots")["shoots"]}
        self.shoot = names["Harbour refloat"]

    def wait(self, run: int, phases: tuple[str, ...]) -> dict[str, Any]:
        until = time.monotonic() + LONGEST_S
        while time.monotonic() < until:
            view: dict[str, Any] = self.call("GET", f"/api/runs/{run}")
            if view["phase"] in phases:
                return view
            time.sleep(0.05)
        raise AssertionError(f"the run is still {view['phase']} at frame {view['taken']}")

    def test_killed_again_and_again_every_frame_is_taken_once(self) -> None:
        run = self.call("POST", f"/api/shoots/{self.shoot}/runs", {"speed": 0})["id"]
        dice, reached = random.Random(8), 0
        for _ in range(4):
            time.sleep(dice.uniform(0.1, 0.6))
            self.server.kill()
            self.server.start()
            now = self.call("GET", f"/api/runs/{run}")["taken"]
            self.assertGreaterEqual(now, reached)
            reached = now
        done = self.wait(run, ("finished", "fault", "stopped"))
        self.assertEqual((done["phase"], done["taken"]), ("finished", 720))
        events: list[dict[str, Any]] = []
        after = 0
        while after < done["events_count"]:
            page = self.call("GET", f"/api/runs/{run}?after={after}")["events"]
            events, after = events + page, page[-1]["number"] + 1
        taken = [event["frame"] for event in events if event["kind"] == "taken"]
        self.assertEqual(taken, sorted(set(taken)))
        self.assertEqual(taken[-1], 719)
        entry = next(e for e in self.call("GET", "/api/log")["entries"] if e["id"] == done["entry_id"])
        self.assertEqual((entry["planned_frames"], entry["taken_frames"], entry["outcome"]), (720, 720, "finished"))
        self.assertGreaterEqual(entry["restarts"], 1)

    def test_pause_go_on_another_speed_and_stop(self) -> None:
        copy = self.call("POST", f"/api/shoots/{self.shoot}/duplicate", {})["id"]
        run = self.call("POST", f"/api/shoots/{copy}/runs", {"speed": 600})["id"]
        with self.assertRaises(urllib.error.HTTPError) as refused:
            self.call("POST", f"/api/shoots/{copy}/runs", {"speed": 600})
        self.assertEqual(refused.exception.code, 409)
        while self.call("GET", f"/api/runs/{run}")["taken"] < 3:
            time.sleep(0.05)
        self.call("POST", f"/api/runs/{run}/ask", {"what": "pause"})
        held = self.wait(run, ("paused",))["taken"]
        self.server.kill()
        self.server.start()
        self.assertEqual(self.wait(run, ("paused",))["taken"], held)
        self.call("POST", f"/api/runs/{run}/ask", {"what": "go on", "speed": 0})
        self.wait(run, ("preparing", "waiting", "exposing", "finished"))
        self.call("POST", f"/api/runs/{run}/ask", {"what": "stop"})
        ended = self.wait(run, ("stopped", "finished"))
        entries = [e for e in self.call("GET", "/api/log")["entries"] if e["id"] == ended["entry_id"]]
        self.assertEqual([entry["taken_frames"] for entry in entries], [ended["taken"]])
        note = {"version": 1, "note": "ballast"}
        self.assertEqual(self.call("PUT", f"/api/log/{ended['entry_id']}", note)["note"], "ballast")
        with self.assertRaises(urllib.error.HTTPError) as stale:
            self.call("PUT", f"/api/log/{ended['entry_id']}", {"version": 1, "note": "other"})
        self.assertEqual(stale.exception.code, 409)
