"""Runs on the real server: a power cut loses nothing and doubles nothing; a run ends in the logbook."""

import json
import random
import socket
import time
import urllib.error
import urllib.request
from http.cookiejar import CookieJar
from typing import Any
from unittest import TestCase, mock

from waitress.channel import HTTPChannel

from bridle.server import web
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

    def piece(self, number: int, at: int, body: bytes) -> int:
        """Send a piece of a print's file; returns how many bytes are there then."""
        request = urllib.request.Request(f"{self.address}/api/prints/{number}/bytes?at={at}", body, method="PUT")
        request.add_header("Content-Type", "application/octet-stream")
        for cookie in self.jar:
            request.add_header("X-CSRFToken", cookie.value or "")
        with self.opener.open(request, timeout=30) as answer:
            return int(json.loads(answer.read())["here"])

    def status(self, method: str, path: str, raw: bytes) -> int:
        """The status that bytes are answered with, whatever they are."""
        request = urllib.request.Request(self.address + path, raw, method=method)
        request.add_header("Content-Type", "application/json")
        for cookie in self.jar:
            request.add_header("X-CSRFToken", cookie.value or "")
        try:
            with self.opener.open(request, timeout=60) as answer:
                return int(answer.status)
        except urllib.error.HTTPError as refused:
            return refused.code

    def file(self, path: str) -> bytes:
        """A file."""
        with self.opener.open(self.address + path, timeout=30) as answer:
            return bytes(answer.read())


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
        while (under := self.call("GET", f"/api/runs/{run}"))["taken"] < 3:
            time.sleep(0.05)
        self.assertEqual((under["clock_rate"], under["left_rate"]), (600, 600))
        self.call("POST", f"/api/runs/{run}/ask", {"what": "pause"})
        paused = self.wait(run, ("paused",))
        held = paused["taken"]
        # The clock of the shoot goes on while a run is paused; what is left does not get less.
        self.assertEqual((paused["clock_rate"], paused["left_rate"]), (600, 0))
        self.server.kill()
        self.server.start()
        self.assertEqual(self.wait(run, ("paused",))["taken"], held)
        self.call("POST", f"/api/runs/{run}/ask", {"what": "go on", "speed": 0})
        self.wait(run, ("preparing", "waiting", "exposing", "finished"))
        self.call("POST", f"/api/runs/{run}/ask", {"what": "stop"})
        ended = self.wait(run, ("stopped", "finished"))
        self.assertEqual((ended["clock_rate"], ended["left_rate"], ended["left_s"]), (0, 0, 0))
        entries = [e for e in self.call("GET", "/api/log")["entries"] if e["id"] == ended["entry_id"]]
        self.assertEqual([entry["taken_frames"] for entry in entries], [ended["taken"]])
        note = {"version": 1, "note": "ballast"}
        self.assertEqual(self.call("PUT", f"/api/log/{ended['entry_id']}", note)["note"], "ballast")
        with self.assertRaises(urllib.error.HTTPError) as stale:
            self.call("PUT", f"/api/log/{ended['entry_id']}", {"version": 1, "note": "other"})
        self.assertEqual(stale.exception.code, 409)

    def made(self, **edits: Any) -> int:
        """A shoot of its own, with values put at paths of the demo's plan."""
        made = self.call("POST", f"/api/shoots/{self.shoot}/duplicate", {})
        changes = [{"do": "set", "path": path.replace("__", "."), "value": value} for path, value in edits.items()]
        plan = self.call("POST", "/api/evaluate", {"plan": made["plan"], "changes": changes})["plan"]
        self.call("PUT", f"/api/shoots/{made['id']}", {"version": 1, "plan": plan})
        return int(made["id"])

    def entry(self, view: dict[str, Any]) -> dict[str, Any]:
        entries = self.call("GET", "/api/log")["entries"]
        return next(entry for entry in entries if entry["id"] == view["entry_id"])

    def test_killed_right_after_its_start_it_starts_all_the_same(self) -> None:
        for _ in range(3):
            run = self.call("POST", f"/api/shoots/{self.made()}/runs", {"speed": 0})["id"]
            self.server.kill()
            self.server.start()
            self.assertEqual(self.wait(run, ("finished",))["taken"], 720)

    def test_the_logbook_says_what_the_clock_of_the_run_says(self) -> None:
        pair = self.made(move__visits={"kind": "stereo", "base_mm": 60.0}, clip__pegs=[
            {"quantity": "frames", "value": "60"}, {"quantity": "interval", "value": "40"},
            {"quantity": "rate", "value": "25"}])  # fmt: skip
        done = self.wait(self.call("POST", f"/api/shoots/{pair}/runs", {"speed": 0})["id"], ("finished",))
        entry = self.entry(done)
        self.assertEqual((entry["planned_frames"], entry["taken_frames"]), (120, 120))
        self.assertEqual(entry["planned_s"], 2400)
        self.assertAlmostEqual(entry["taken_s"], 2400 + entry["delayed_s"], 6)
        self.assertEqual((entry["clip_planned_s"], entry["clip_taken_s"]), (2.4, 2.4))
        shown = {figure["key"]: figure["value"] for figure in entry["figures"]}
        self.assertEqual((shown["log.taken"], shown["log.clip_taken"]), (entry["taken_s"], 2.4))

        slow_then_fast = {
            "source": "changing",
            "segments": [{"length_s": "900", "interval_s": "15"}, {"length_s": "900", "interval_s": "9"}],
        }
        changing = self.made(frames=slow_then_fast)
        run = self.call("POST", f"/api/shoots/{changing}/runs", {"speed": 600})["id"]
        while self.call("GET", f"/api/runs/{run}")["taken"] < 31:
            time.sleep(0.02)
        self.call("POST", f"/api/runs/{run}/ask", {"what": "stop"})
        ended = self.wait(run, ("stopped",))
        entry = self.entry(ended)
        self.assertAlmostEqual(entry["taken_s"], ended["now_s"] - 5, 6, "the clock begins five seconds before frame 1")
        self.assertGreater(entry["taken_s"], (entry["taken_frames"] - 1) * 15 - 1)
        self.assertLess(entry["taken_s"], entry["taken_frames"] * 15 + 15)

    def test_what_was_asked_is_shown_until_it_is_obeyed(self) -> None:
        shoot = self.made(beat__exposure_s="6")
        run = self.call("POST", f"/api/shoots/{shoot}/runs", {"speed": 1})["id"]
        # The first frame is exposed from the fifth to the eleventh second.
        while self.call("GET", f"/api/runs/{run}")["now_s"] < 6:
            time.sleep(0.1)
        view = self.call("POST", f"/api/runs/{run}/ask", {"what": "pause"})
        self.assertEqual(view["pending"], ["pause"])
        time.sleep(1)
        self.assertEqual(self.call("GET", f"/api/runs/{run}")["pending"], ["pause"], "heard, and held until then")
        self.call("POST", f"/api/runs/{run}/ask", {"what": None, "speed": 600})
        self.assertEqual(self.wait(run, ("paused",))["pending"], [])
        self.call("POST", f"/api/runs/{run}/ask", {"what": "stop"})
        self.wait(run, ("stopped",))

    def test_what_was_said_to_be_saved_is_there_after_a_power_cut(self) -> None:
        shoot = self.made()
        version = self.call("GET", f"/api/shoots/{shoot}")["version"]
        plan = self.call("GET", f"/api/shoots/{shoot}")["plan"]
        for iso in (200, 400, 800):
            plan["camera"]["iso"] = iso
            version = self.call("PUT", f"/api/shoots/{shoot}", {"version": version, "plan": plan})["version"]
            self.server.kill()
            self.server.start()
            opened = self.call("GET", f"/api/shoots/{shoot}")
            self.assertEqual((opened["version"], opened["plan"]["camera"]["iso"]), (version, iso))
            # The answer may have been lost: sending the same once more is no conflict.
            again = self.call("PUT", f"/api/shoots/{shoot}", {"version": version - 1, "plan": plan})
            self.assertEqual(again["version"], version)

    def test_half_a_request_holds_nobody_up(self) -> None:
        port, half = self.server.port, []
        for _ in range(40):
            one = socket.create_connection(("127.0.0.1", port), timeout=5)
            one.sendall(b"POST /api/evaluate HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 9000\r\n\r\n{")
            self.addCleanup(one.close)
            half.append(one)
        self.call("GET", "/api/starting-points")


class WholeRequests(TestCase):
    def test_a_request_that_trickles_for_too_long_is_closed(self) -> None:
        channel: Any = web.Channel.__new__(web.Channel)
        channel.request, channel.will_close, channel.began = object(), False, time.monotonic() - 1
        channel.requests, channel.close_when_flushed, channel.total_outbufs_len = [], False, 0
        with mock.patch.object(HTTPChannel, "readable", return_value=True):
            self.assertTrue(channel.readable())
            channel.began -= web.WHOLE_WITHIN_S
            self.assertFalse(channel.readable())
        self.assertTrue(channel.will_close)
