"""What comes from outside, however it is made: bounded before it is read, refused at its place, never a fault."""

import copy
import json
import os
import random
import socket
import threading
from typing import Any
from unittest import TestCase as PlainCase
from unittest import mock

from django.test import TestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.formats.plan_json import PlanFileError, read_plan
from bridle.formats.strict_json import MOST_ENTRIES, MOST_PLAIN, TooManyError, count, glimpse, loads
from bridle.server import turns
from bridle.server.kit.models import KitCard
from tests.mutated import CARDS, PLANS
from tests.served import Served
from tests.server.test_api import Page
from tests.server.test_keeping import HARBOUR

PLAN = HARBOUR.model_dump(mode="json")
TEXT = json.dumps(PLAN)


def with_value(text: str) -> bytes:
    """A plan file in which the first keyframe slides to what is given."""
    plan = json.loads(TEXT)
    plan["move"]["keyframes"][0]["slide_mm"] = 12345
    return json.dumps(plan).replace("12345", text).encode()


class Files(PlainCase):
    def test_what_is_too_much_is_told_at_its_place(self) -> None:
        many = {**PLAN, "move": {**PLAN["move"], "keyframes": [{}] * 240_000}}
        twice = "{" + ",".join(f'"a{n}": 1' for n in range(35_000)) + ', "a7": 2}'
        for name, raw, said in (
            ("keyframes", json.dumps(many, separators=(",", ":")), "move.keyframes: 240,000 entries stand here"),
            ("keys", twice, "line 1: “a7” stands here a second time"),
            ("the same key", "{" + '"a": 1, ' * 90_000 + '"a": 1}', "line 1: “a” stands here a second time"),
            ("lists", json.dumps({**PLAN, "more": [[]] * 200_000}), "more: 200,000 entries stand here"),
            ("values", json.dumps([1] * 450_000), "the plan: 450,000 entries stand here"),
        ):
            with self.subTest(name):
                with self.assertRaises(PlanFileError) as refused:
                    read_plan(raw[:1_000_000] if name == "values" else raw.encode())
                if name != "values":
                    self.assertIn(said, refused.exception.problems[0])

    def test_numbers_that_are_none_are_told_at_their_place(self) -> None:
        for text in ("1e400", "-1e400", "1" + "0" * 400, "NaN", "Infinity", "9" * 5000):
            with self.subTest(text[:8]), self.assertRaises(PlanFileError) as refused:
                read_plan(with_value(text))
            if text[0] in "1-":
                self.assertIn("move.keyframes.0.slide_mm", refused.exception.problems[0])
        with self.assertRaises(PlanFileError):
            read_plan(TEXT.replace("Harbour", "\\ud83d").encode())

    @settings(max_examples=60, deadline=None)
    @given(st.recursive(st.none() | st.integers() | st.text(max_size=8), lambda each: st.lists(each, max_size=5)
                        | st.dictionaries(st.text(max_size=5), each, max_size=5), max_leaves=40))  # fmt: skip
    def test_what_is_within_bounds_is_read_as_json_reads_it(self, value: Any) -> None:
        text = json.dumps(value)
        try:
            self.assertEqual(loads(text), value)
        except ValueError as error:
            self.assertRegex(str(error), "larger than any number|half a character")
        self.assertTrue(text.startswith(glimpse(value)[:1]))

    def test_counting(self) -> None:
        self.assertEqual(count([1] * MOST_PLAIN), 1)
        for value, path in (
            ({"a": [1] * (MOST_PLAIN + 1)}, ("a",)),
            ([[]] * (MOST_ENTRIES + 1), ()),
            ({"b": [{str(n): 1 for n in range(MOST_ENTRIES + 1)}]}, ("b", 0)),
        ):
            with self.assertRaises(TooManyError) as refused:
                count(value)
            self.assertEqual(refused.exception.path, path)
        with self.assertRaises(TooManyError):
            count([[[0, []] * 200 for _ in range(400)] for _ in range(400)])


class Requests(TestCase):
    def setUp(self) -> None:
        self.page = Page()

    def test_no_body_is_a_fault(self) -> None:
        card = json.loads(json.dumps(KitCard(card=CARDS[0]).read().model_dump(mode="json")))
        measured = {"field": "x", "on": "2026-01-01", "readings": [1.5], "mean": 1.0, "spread": 0.0}
        infinite = json.dumps({"version": 1, "card": {**card, "measured": [measured]}}).replace("1.5", "1e400")
        half = json.dumps({"plan": PLAN, "changes": []}).replace("Harbour", "\\udc00")
        multipart = "--x\r\nContent-Disposition: form-data; name=plan\r\n\r\n{}\r\n--x--\r\n"
        for name, path, body, kind in (
            ("infinity", "/api/kit/type", infinite, "application/json"),
            ("half a character", "/api/evaluate", half, "application/json"),
            ("multipart", "/api/evaluate", multipart, "multipart/form-data; boundary=x"),
            ("multipart plan", "/api/shoots/import", multipart, "multipart/form-data; boundary=x"),
            ("form", "/api/evaluate", "plan=1", "application/x-www-form-urlencoded"),
            ("no text", "/api/evaluate", b"\xff\xfe{}", "application/json"),
            ("half in a plan", "/api/shoots/import", TEXT.replace("Harbour", "\\udc00"), "application/json"),
            ("a huge number", "/api/evaluate", '{"plan": 1' + "0" * 500 + "}", "application/json"),
            ("many edits", "/api/evaluate", json.dumps({"plan": PLAN, "changes": [{}] * 401}), "application/json"),
        ):
            with self.subTest(name):
                answer = self.page.post(path, body, kind, headers={"X-CSRFToken": self.page.token})
                self.assertIn(answer.status_code, (400, 422), answer.content)
                self.assertTrue(answer.json()["message"])

    def test_damaged_plans_are_refused_or_worked_out(self) -> None:
        """Plans cut, joined and with values put in that belong elsewhere: any answer but a fault."""
        dice = random.Random(28)
        values: tuple[Any, ...] = (
            10**400,
            -1,
            1e308,
            "",
            "x" * 500,
            None,
            [],
            {},
            True,
            [[]],
            "1/0",
            "2026-13-01",
            "\u0000",
            {"a": 1},
        )
        for _ in range(int(os.environ.get("BRIDLE_EXAMPLES", "120"))):
            plan = json.loads(json.dumps(dice.choice(PLANS)))
            for _ in range(dice.randrange(1, 4)):
                place: Any = plan
                while isinstance(place, dict | list) and place:
                    key = dice.choice(list(place)) if isinstance(place, dict) else dice.randrange(len(place))
                    if not isinstance(place[key], dict | list) or dice.random() < 0.15:
                        place[key] = copy.deepcopy(dice.choice(values))
                        break
                    place = place[key]
            answer = self.page.send("POST", "/api/shoots/import", json.dumps(plan).encode())
            self.assertIn(answer.status_code, (201, 422), answer.content[:300])

    def test_descriptions_are_files(self) -> None:
        for path in ("/api/openapi.json", "/schema/plan-12.json"):
            answer: Any = self.page.get(path)
            self.assertEqual(answer.status_code, 200)
            json.loads(b"".join(answer.streaming_content))


class Lengths(PlainCase):
    def test_what_is_too_long_is_refused_before_it_is_read(self) -> None:
        served = Served(demo=False)
        self.addCleanup(served.stop)
        for method, path in (("POST", "/api/evaluate"), ("PUT", "/api/prints/1/bytes?at=0"), ("POST", "/")):
            with self.subTest(path), socket.create_connection(("127.0.0.1", served.port), timeout=10) as line:
                head = f"{method} {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 700000000\r\n"
                line.sendall(f"{head}Content-Type: application/json\r\n\r\n".encode() + b"x" * 1000)
                answer = b""
                while piece := line.recv(65536):
                    answer += piece
                self.assertIn(b"413", answer.split(b"\r\n")[0])
                self.assertIn("too large", json.loads(answer.split(b"\r\n\r\n", 1)[1])["message"])


class Taking(PlainCase):
    def test_large_ones_wait_for_their_turn_and_small_ones_for_nobody(self) -> None:
        seasons = [Plan.model_validate(one) for one in PLANS if one["frames"].get("source") == "windows"]
        pegs = [{"quantity": name, "value": value} for name, value in
                (("rate", "25"), ("interval", "16"), ("frames", str(turns.LARGE_FRAMES + 1)))]  # fmt: skip
        large, _ = apply(HARBOUR, [Edit(path="clip.pegs", value=pegs)])
        self.assertTrue(seasons)
        self.assertTrue(all(map(turns.large, [large, *seasons])))
        self.assertFalse(turns.large(HARBOUR))
        mine, inside, done = turns.Turns(), threading.Barrier(turns.AT_ONCE + 1), threading.Event()

        def takes() -> None:
            with mine.take():
                inside.wait(10)
                done.wait(10)

        threads = [threading.Thread(target=takes) for _ in range(turns.AT_ONCE)]
        for thread in threads:
            thread.start()
        inside.wait(10)
        with mock.patch.object(turns, "LONGEST_WAIT_S", 0.01), self.assertRaises(turns.BusyError), mine.take():
            self.fail("there was a third turn")
        with mock.patch.object(turns, "MOST_WAITING", 0), self.assertRaises(turns.BusyError), mine.take():
            self.fail("it did not wait, and was not refused")
        with mock.patch.object(turns, "TURNS", mine), turns.turn(HARBOUR):
            pass
        done.set()
        for thread in threads:
            thread.join()
        with mine.take():
            self.assertEqual(mine.waiting, 0)


class TooMany(TestCase):
    def test_whoever_comes_too_late_is_told(self) -> None:
        with mock.patch.object(turns.TURNS, "waiting", turns.MOST_WAITING):
            season = next(one for one in PLANS if one["frames"].get("source") == "windows")
            answer = Page().send("POST", "/api/evaluate", {"plan": season, "changes": []})
        self.assertEqual((answer.status_code, answer.json()["message"]), (503, turns.BUSY))
