"""The bench's API: a file in pieces, read, given its stops, proven; stopped, killed, refused."""

import io
import json
import os
import signal
import threading
import time
import urllib.request
from collections.abc import Callable
from contextlib import suppress
from datetime import timedelta
from http.cookiejar import CookieJar
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase as PlainTestCase
from unittest.mock import Mock, patch

from django.core.management import call_command
from django.db import OperationalError, connection
from django.test import TestCase, override_settings
from django.utils import timezone

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.printing import print_digest
from bridle.core.subjects.parking.blocks import strip
from bridle.demo.lantern import lantern
from bridle.server.keeping import BIN_DAYS
from bridle.server.prints import care, loop, performing
from bridle.server.prints.care import PrintsCare, clear, close
from bridle.server.prints.loop import do_all, next_work, wake_demos
from bridle.server.prints.models import Print, Work
from bridle.server.prints.performing import perform
from tests.gcode import Dialect, program
from tests.prints.test_files import SQUARE
from tests.provoked_print import printed
from tests.served import Served
from tests.server.test_runs import Caller

TEXT = program(Dialect(), SQUARE * 2)


class OwnFolder(TestCase):
    """Tests that run beside one another do not meet in one folder."""

    def setUp(self) -> None:
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        own = override_settings(DATA=Path(folder.name))
        own.enable()
        self.addCleanup(own.disable)


class Bench(OwnFolder):
    """Work is done when the test says so: no process of its own."""

    def post(self, path: str, body: Any = None, status: int = 201) -> Any:
        answer = self.client.post(f"/api{path}", json.dumps(body), content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def arrive(self, text: bytes = TEXT, name: str = "cup.gcode", pieces: int = 3) -> Print:
        made = self.post("/prints", {"name": name, "size": len(text)})
        step = len(text) // pieces + 1
        for at in range(0, len(text), step):
            piece = text[at : at + step]
            answer = self.client.put(
                f"/api/prints/{made['id']}/bytes?at={at}", piece, content_type="application/octet-stream"
            )
            self.assertEqual(answer.json(), {"here": at + len(piece)})
        return Print.objects.get(pk=made["id"])

    def work(self) -> None:
        for work in Work.objects.filter(state="waiting"):
            perform(work.pk)

    def made(self, kept: Print, plan: Any, kind: str = "change") -> Any:
        work = self.post(f"/prints/{kept.pk}/work", {"kind": kind, "plan": plan.model_dump(mode="json")})
        perform(work["id"])
        return self.client.get(f"/api/prints/{kept.pk}").json()["works"][0]

    def sent(self, plan: Plan) -> Any:
        """What a plan comes to, as the page is told."""
        body = {"plan": plan.model_dump(mode="json"), "changes": []}
        return self.post("/evaluate", body, status=200)["evaluation"]

    def test_a_file_becomes_a_shoot_and_a_proven_file(self) -> None:
        kept = self.arrive()
        self.assertEqual(kept.whole.read_bytes(), TEXT)
        self.work()
        told = self.client.get(f"/api/prints/{kept.pk}").json()
        self.assertEqual((told["state"], told["layers"], told["height_mm"]), ("read", 12, 2.4))
        self.assertEqual(told["shoot_name"], "Cup")
        plan = printed(file=told["facts"]["file"], layers={"layers_s": ("10",) * 12, "every": 3})
        done = self.made(kept, plan)
        self.assertEqual((done["state"], done["result"]["stands"], done["result"]["presses"]), ("done", "proven", 4))
        # What is sent of the shoot knows of it, from the bench's own record; a plan that says so of itself does not.
        told = self.sent(plan)
        self.assertEqual(told["printing"]["proof"], "proven")
        card = {row["label"]: row["value"]["value"] for s in told["review"]["sheets"] for row in s["settings"]}
        digest = done["result"]["digest"]
        self.assertEqual((card["its digest begins"], card["it is"][:8]), (digest[:8], "proven, "))
        self.assertEqual(self.sent(apply(plan, [Edit(path="frames.every", value=2)])[0])["printing"]["proof"], "older")
        Work.objects.filter(kind="change").update(result={**done["result"], "judge": 1})
        self.assertEqual(self.sent(plan)["printing"]["proof"], "none")
        out = self.client.get(f"/api/prints/{kept.pk}/file/change")
        self.assertIn('filename="cup with stops.gcode"', out["Content-Disposition"])
        changed = b"".join(out.streaming_content)  # type: ignore[attr-defined]
        self.assertEqual((changed.count(b"G1 X236.4 "), b"".join(strip([changed]))), (4, TEXT))
        trial = self.made(kept, plan, "trial")
        self.assertEqual((trial["result"]["stands"], trial["result"]["due"]), ("proven", 10))

    def test_a_file_with_stops_of_somebody_else_is_proven_as_it_came_beside_its_original(self) -> None:
        plan = printed(layers={"layers_s": ("10",) * 12, "every": 1})
        way = next(one for one in evaluate(plan).printing.ways if one.by == "slicer")
        snippet = "\n".join(way.lines).encode() + b"\n"
        # Each layer's first move names both axes: it starts where the snippet cannot know of.
        named = TEXT.replace(b"G0 Y80.000000 Z", b"G0 X80.000000 Y80.000000 Z")
        head, first, *rest = named.split(b";LAYER:")
        kept = self.arrive(b";LAYER:".join([head, first + snippet, *(one + snippet for one in rest[:-1]), rest[-1]]))
        self.work()
        facts = self.client.get(f"/api/prints/{kept.pk}").json()["facts"]
        self.assertEqual((facts["file"]["parks"], len(facts["frames"]["layers_s"])), (11, 12))
        upto = printed(file=facts["file"], layers={"layers_s": ("10",) * 12, "every": 1, "last_layer": 11})
        told = self.made(kept, upto, "prove")["result"]
        self.assertEqual((told["stands"], told["failures"], told["presses"]), ("incomplete", [], 11))
        self.assertIn("was not compared", told["said"])
        # With the file as it was before on the bench, it is; and with another one it is not the same print.
        for text, stands in ((named, "proven"), (named.replace(b"Y110.", b"Y110.1"), "failed")):
            before = self.arrive(text, "before.gcode")
            self.work()
            body = {"kind": "prove", "plan": upto.model_dump(mode="json"), "beside": before.pk}
            work = self.post(f"/prints/{kept.pk}/work", body)["id"]
            perform(work)
            told = self.client.get(f"/api/prints/{kept.pk}").json()["works"][0]["result"]
            self.assertEqual((told["stands"], told["presses"]), (stands, 11), told["failures"])
        # Taken off the bench it is not compared with; nothing is claimed instead.
        gone = self.post(f"/prints/{kept.pk}/work", body)["id"]
        Print.objects.get(pk=before.pk).original.unlink()
        perform(gone)
        self.assertIn("put it in again", Work.objects.get(pk=gone).said)

    def test_the_same_file_put_in_twice_is_noticed(self) -> None:
        for name in ("cup.gcode", "again.gcode", "other.gcode"):
            self.arrive(TEXT + (b"M107\n" if "other" in name else b""), name)
            self.work()
        twins = {one["name"]: one["twin"] for one in self.client.get("/api/prints").json()}
        self.assertEqual(twins, {"cup.gcode": "", "again.gcode": "Cup", "other.gcode": ""})

    def test_small_files_do_not_wait_for_large_ones_and_large_ones_wait_for_each_other(self) -> None:
        big, small, further = (Print.objects.create(name=name, size=size) for name, size in (
            ("big", loop.LARGE + 1), ("small", loop.LARGE), ("further", 300_000_000)))  # fmt: skip
        works = [Work.objects.create(print=one, kind="read") for one in (big, small, further)]
        self.assertEqual([next_work(large) for large in (None, True, False)], [works[0].pk, works[0].pk, works[1].pk])
        # Of two that ran at once when the process died, the larger is blamed.
        Work.objects.filter(pk__in=[works[0].pk, works[1].pk]).update(state="running")
        PrintsCare().after_death("by signal 9")
        self.assertEqual([Work.objects.get(pk=one.pk).deaths for one in works], [1, 0, 0])

    def test_what_a_proof_finds_is_told_with_line_and_layer(self) -> None:
        """The switch stands on the way home, and the head does not wait for the picture."""
        kept = self.arrive()
        self.work()
        facts = self.client.get(f"/api/prints/{kept.pk}").json()["facts"]["file"]
        close = printed(file=facts, layers={"every": 3}, switch={"side": "low", "clicks_mm": 40}, trigger__dwell_s="0")
        close = close.model_copy(update={"beat": close.beat.model_copy(update={"exposure_s": 2})})
        result = self.made(kept, close)["result"]
        self.assertEqual(result["stands"], "failed")
        by_kind = {one["kind"]: one for one in result["failures"]}
        self.assertIn("touches the body of the switch", by_kind["touch"]["said"])
        self.assertEqual(by_kind["touch"]["line"], 5)
        self.assertIn("it takes 2.0", by_kind["too short"]["said"])
        self.assertEqual(by_kind["too short"]["fixes"][0]["edits"], [{"path": "trigger.dwell_s", "value": None}])
        self.assertIn("UNPROVEN", self.client.get(f"/api/prints/{kept.pk}/file/change")["Content-Disposition"])

    def test_what_cannot_be_read_is_told(self) -> None:
        for name, (text, said) in {
            "packed": (b"PK\x03\x04" + b"x" * 90, "This is a packed archive"),
            "nought": (TEXT[:400] + b"\0" + TEXT[400:], "A nought byte"),
            "edited": (
                b";{ bridle stop 1 of 1, layer 1\nG4 P1\n;} bridle 9 bytes 00000000\n" + TEXT,
                "Line 1: this stop was",
            ),
        }.items():
            with self.subTest(name):
                kept = self.arrive(text, name)
                self.work()
                kept.refresh_from_db()
                self.assertEqual(kept.state, "refused")
                self.assertIn(said, kept.said)

    def test_after_an_older_copy_was_brought_back_the_file_is_asked_for_and_numbers_are_used_again(self) -> None:
        kept = self.arrive()
        self.work()
        kept.original.unlink()
        (line,) = self.client.get("/api/prints").json()
        self.assertEqual((line["state"], line["layers"]), ("refused", 12))
        self.assertIn("Put it in again", line["said"])
        self.assertIn("Put it in again", self.post(f"/prints/{kept.pk}/work", {"kind": "read"}, 409)["message"])
        again = self.arrive()
        self.assertEqual((again.pk, again.folder == kept.folder), (kept.pk + 1, False))
        # What a number that is used again had in its folder is nobody's, and goes once nobody can want it back.
        left = kept.folder.parent / "p0123"
        left.mkdir()
        (left / "original.gcode").write_bytes(b"another's")
        clear()
        late = timezone.now() + timedelta(days=BIN_DAYS + 1)
        for ran_s, now, there in ((1e6, timezone.now(), True), (1e3, late, True), (1e6, late, False)):
            with patch.object(care, "stamp", return_value=ran_s), patch("django.utils.timezone.now", return_value=now):
                clear()
            self.assertEqual(left.exists(), there)
        self.assertTrue(again.original.exists() or again.arriving.exists())

    def test_what_does_not_fit_is_refused(self) -> None:
        self.assertIn("at most 300 MB", self.post("/prints", {"name": "a", "size": 300_000_001}, 409)["message"])
        made = self.post("/prints", {"name": "a", "size": 10})
        for at, body, said in ((5, b"x", "would leave a gap"), (0, b"x" * 11, "More bytes came")):
            answer = self.client.put(
                f"/api/prints/{made['id']}/bytes?at={at}", body, content_type="application/octet-stream"
            )
            self.assertEqual(answer.status_code, 409)
            self.assertIn(said, answer.json()["message"])
        self.post(f"/prints/{made['id']}/work", {"kind": "read"}, 409)

    def test_it_is_stopped_and_leaves_nothing_half_made(self) -> None:
        kept = self.arrive()
        self.work()
        facts = self.client.get(f"/api/prints/{kept.pk}").json()["facts"]["file"]
        plan = printed(file=facts).model_dump(mode="json")
        asked = self.post(f"/prints/{kept.pk}/work", {"kind": "change", "plan": plan})
        self.assertIn("already", self.post(f"/prints/{kept.pk}/work", {"kind": "read"}, 409)["message"])
        with patch.object(performing, "TELL_S", 0):
            Work.objects.filter(pk=asked["id"]).update(asked_stop=True)
            perform(asked["id"])
        self.assertEqual(Work.objects.get(pk=asked["id"]).state, "stopped")
        self.assertFalse(Work.objects.get(pk=asked["id"]).makes.exists())
        waiting = self.post(f"/prints/{kept.pk}/work", {"kind": "trial", "plan": plan})
        self.assertEqual(self.post(f"/prints/work/{waiting['id']}/stop", status=200)["state"], "stopped")

    def test_what_was_not_finished_starts_over(self) -> None:
        kept = self.arrive()
        Work.objects.update(state="running")
        self.assertEqual(next_work(), Work.objects.get().pk)
        perform(Work.objects.get().pk)
        kept.refresh_from_db()
        self.assertEqual(kept.state, "read")


class Died(OwnFolder):
    """What becomes of work whose process has died."""

    def work(self, **values: Any) -> Work:
        kept = Print.objects.create(name="a", size=1, state="reading")
        return Work.objects.create(print=kept, kind="read", state="running", **values)

    def test_it_is_begun_again_given_up_in_words_or_stopped_where_somebody_asked(self) -> None:
        work = self.work()
        for deaths, state in ((1, "running"), (2, "running"), (3, "failed")):
            PrintsCare().after_death("by signal 9")
            work.refresh_from_db()
            self.assertEqual(work.state, state)
            if state == "running":
                self.assertEqual((work.deaths, work.doing), (deaths, "begun again: its process ended by signal 9"))
        self.assertIn("ended 3 times over this file, the last time by signal 9", work.said)
        self.assertEqual((work.print.__class__.objects.get().state, next_work()), ("refused", None))
        stopped = self.work(asked_stop=True)
        PrintsCare().after_death("with status 1")
        stopped.refresh_from_db()
        self.assertEqual((stopped.state, stopped.said), ("stopped", "Stopped. Nothing half-made is left."))
        self.assertFalse(close(stopped, "failed", "too late"), "what has ended stays as it ended")

    def test_what_does_not_stop_is_noticed(self) -> None:
        work, looks = self.work(), PrintsCare()
        self.assertFalse(looks.does_not_stop())
        Work.objects.filter(pk=work.pk).update(asked_stop=True)
        self.assertFalse(looks.does_not_stop(), "it has some seconds to stop by itself")
        with patch("time.monotonic", return_value=time.monotonic() + care.STOP_S + 1):
            self.assertTrue(looks.does_not_stop())

    def test_a_disk_that_is_full_is_said_at_the_work_and_waited_for_where_not_even_that_can_be_kept(self) -> None:
        work = self.work()
        for error, said in (
            (OSError(28, "No space left on device"), "The disk is full."),
            (OSError(13, "Permission denied"), "may not write into its folder"),
        ):
            Work.objects.update(state="running")
            with patch.dict(performing.DOES, {"read": Mock(side_effect=error)}), self.assertLogs("bridle.prints"):
                perform(work.pk)
            self.assertEqual((Work.objects.get().state, said in Work.objects.get().said), ("failed", True))
        Work.objects.update(state="running")
        ended, tries = threading.Event(), []

        def full(*_: Any) -> None:
            tries.append(next_work())
            if len(tries) == 2:
                ended.set()
            raise OperationalError("database or disk is full")

        with (
            patch.dict(performing.DOES, {"read": full}),
            patch.object(loop, "AGAIN_S", 0),
            patch.object(connection, "close"),
            self.assertLogs("bridle.prints"),
        ):
            do_all(threading.Event(), ended)
        self.assertEqual(tries, [work.pk, work.pk])


class Demo(OwnFolder):
    def test_the_demo_s_file_is_made_read_and_proven_when_somebody_looks(self) -> None:
        call_command("loaddemo", stdout=io.StringIO())
        (line,) = self.client.get("/api/prints").json()
        self.assertEqual((line["state"], line["shoot_name"]), ("asleep", "Lattice lantern"))
        self.assertFalse(Work.objects.exists(), "looking writes nothing; the process for long work is told of it")
        for _ in range(2):
            wake_demos()
            (work,) = Work.objects.filter(state="waiting")
            perform(work.pk)
        self.assertEqual([one.kind for one in Work.objects.order_by("pk")], ["read", "change"])
        told = self.client.get(f"/api/prints/{line['id']}").json()
        proof = told["works"][0]["result"]
        self.assertEqual(
            (told["layers"], proof["stands"], proof["presses"], proof["failures"]), (700, "proven", 350, [])
        )
        plan = Print.objects.get().shoot.read()  # type: ignore[union-attr]
        self.assertEqual(told["works"][0]["of"], print_digest(plan))
        paths = self.client.get(f"/api/prints/{line['id']}/paths").json()
        points = self.client.get(f"/api/prints/{line['id']}/points").content
        self.assertEqual((len(paths["counts"]), len(points)), (700, sum(paths["counts"]) * 6))


class Killed(PlainTestCase):
    """The real server with its process for long work."""

    def test_a_server_killed_while_it_reads_reads_on_when_it_is_back(self) -> None:
        text = "".join(lantern(160)).encode()
        served = Served(demo=False)
        self.addCleanup(served.stop)
        jar = CookieJar()
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

        def call(method: str, path: str, body: bytes = b"", kind: str = "application/json") -> Any:
            request = urllib.request.Request(f"{served.address}/api{path}", body or None, method=method)
            request.add_header("Content-Type", kind)
            request.add_header("X-CSRFToken", next((one.value or "" for one in jar if one.name == "csrftoken"), ""))
            return json.loads(opener.open(request, timeout=30).read())

        call("GET", "/prints")
        made = call("POST", "/prints", json.dumps({"name": "lantern.gcode", "size": len(text)}).encode())
        half = len(text) // 2
        call("PUT", f"/prints/{made['id']}/bytes?at=0", text[:half], "application/octet-stream")
        served.kill()
        served.start()
        self.assertEqual(call("GET", f"/prints/{made['id']}")["here"], half)
        call("PUT", f"/prints/{made['id']}/bytes?at={half}", text[half:], "application/octet-stream")
        served.kill()
        served.start()
        until = time.monotonic() + 60
        while (told := call("GET", f"/prints/{made['id']}"))["state"] == "reading" and time.monotonic() < until:
            time.sleep(0.1)
        self.assertEqual((told["state"], told["layers"]), ("read", 160), told)

    def test_a_process_for_long_work_that_is_killed_is_begun_again_and_stop_ends_it(self) -> None:
        text = "".join(lantern(300)).encode()
        served = Served(demo=False)
        self.addCleanup(served.stop)
        call = Caller(served.address)
        number = call("POST", "/api/prints", {"name": "lantern.gcode", "size": len(text)})["id"]
        for at in range(0, len(text), 4_000_000):
            call.piece(number, at, text[at : at + 4_000_000])
        self.until(lambda: call("GET", f"/api/prints/{number}")["works"][0]["state"] == "running")
        self.kill_worker(served)
        self.until(lambda: call("GET", f"/api/prints/{number}")["state"] == "read")
        self.assertEqual(call("GET", f"/api/prints/{number}")["layers"], 300)
        work = call("POST", f"/api/prints/{number}/work", {"kind": "read"})
        call("POST", f"/api/prints/work/{work['id']}/stop")
        self.kill_worker(served)
        ended = ("stopped", "done")
        self.until(lambda: call("GET", f"/api/prints/{number}")["works"][0]["state"] in ended)

    def until(self, holds: Callable[[], bool]) -> None:
        until = time.monotonic() + 90
        while not holds():
            self.assertLess(time.monotonic(), until)
            time.sleep(0.05)

    def kill_worker(self, served: Served) -> None:
        """As the system does it when memory runs out."""
        for folder in Path("/proc").glob("[0-9]*"):
            with suppress(OSError):
                words = (folder / "cmdline").read_bytes().split(b"\0")
                parent = (folder / "stat").read_text().rsplit(")", 1)[1].split()[1]
                if b"work" in words and int(parent) == served.process.pid:
                    os.kill(int(folder.name), signal.SIGKILL)
                    return
        self.fail("there is no such process")
