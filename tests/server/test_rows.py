"""One bad row: it says so on its own line, with its text to take along, and takes no other down."""

import os
import random
import subprocess
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.db import connection
from django.test import TransactionTestCase
from django.utils import timezone

from bridle.server.house.room import give_back, let_it_vacuum_itself, vacuums_itself
from bridle.server.keeping import Revision
from bridle.server.kit.models import KitCard, keep_card
from bridle.server.prints.models import Print, Work
from bridle.server.rows import KeptJSON, packed, unpacked
from bridle.server.runs import driver
from bridle.server.runs.models import LogEntry, Run
from bridle.server.shoots.models import Shoot, keep
from tests.mutated import CARDS
from tests.served import ROOT
from tests.server.test_api import Page
from tests.server.test_keeping import HARBOUR

LISTS = ("/api/shoots", "/api/kit", "/api/log", "/api/prints", "/api/places")
# What damage, an older hand or another program may have put into a column.
TEXTS = ("", "{", "null", "[]", '"text"', "{}", '{"phase": 7}', "\x00\x01", "1e999", "9" * 400)
NOUGHT = dict.fromkeys(("planned_s", "taken_s", "delayed_s", "clip_planned_s", "clip_taken_s"), 1.0)
COUNTS = dict.fromkeys(("planned_frames", "taken_frames", "late_frames", "restarts"), 1)


class Rows(TransactionTestCase):
    def setUp(self) -> None:
        self.page = Page()
        self.good = keep(HARBOUR)
        self.bad = keep(HARBOUR)
        self.bad.put(self.bad.read().model_copy(update={"shoot": HARBOUR.shoot.model_copy(update={"name": "Two"})}), 1)
        keep_card(KitCard(card=CARDS[0]).read())
        self.card = keep_card(KitCard(card=CARDS[0]).read())
        self.run_ = Run.objects.create(shoot=self.bad, plan=HARBOUR.model_dump(mode="json"), frames=720)
        self.entry = LogEntry.objects.create(run=self.run_, name="x", outcome="finished", **NOUGHT, **COUNTS)
        LogEntry.objects.create(name="y", outcome="finished", **NOUGHT, **COUNTS)
        self.print_ = Print.objects.create(name="a", size=1, state="read", shoot=self.bad)
        Print.objects.create(name="b", size=1)
        self.work = Work.objects.create(print=self.print_, kind="change", state="done")

    @contextmanager
    def holding(self, model: type[Any], pk: int, column: str, value: Any) -> Iterator[None]:
        table = model._meta.db_table
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA ignore_check_constraints = ON")
            cursor.execute(f'SELECT "{column}" FROM "{table}" WHERE id = %s', [pk])
            (before,) = cursor.fetchone()
            cursor.execute(f'UPDATE "{table}" SET "{column}" = %s WHERE id = %s', [value, pk])
            try:
                yield
            finally:
                cursor.execute(f'UPDATE "{table}" SET "{column}" = %s WHERE id = %s', [before, pk])

    def columns(self) -> Iterator[tuple[type[Any], int, Any]]:
        """Everything that is text, JSON, a number or a time in the rows that lists are made of."""
        for kept in (self.bad, self.card, self.run_, self.entry, self.print_, self.work):
            for field in kept._meta.concrete_fields:
                if not field.primary_key and not field.is_relation:
                    yield type(kept), kept.pk, field.column

    def test_no_damage_to_one_row_takes_a_list_down(self) -> None:
        names = {"/api/shoots": "shoots", "/api/kit": "cards", "/api/log": "entries"}
        whole_hunt = "BRIDLE_EXAMPLES" in os.environ
        for number, (model, pk, column) in enumerate(self.columns()):
            for text in TEXTS if whole_hunt else (TEXTS[number % len(TEXTS)],):
                with self.subTest(f"{model.__name__}.{column}", text=text[:12]), self.holding(model, pk, column, text):
                    for path in LISTS:
                        answer = self.page.get(path)
                        self.assertEqual(answer.status_code, 200, answer.content[:300])
                        lines = answer.json()
                        whole = lines[names[path]] if path in names else lines
                        self.assertTrue(whole, f"{path}: the other one is told")
                    told = self.page.get(f"/api/shoots/{self.bad.pk}/runs")
                    self.assertEqual(told.status_code, 200, told.content[:300])
                    driver.resume_all()

    def test_what_cannot_be_read_says_so_with_its_text_to_take_along(self) -> None:
        for model, pk, column, text, path, kind in (
            (Shoot, self.bad.pk, "changed_at", "2026-13-45 00:00:00", "/api/shoots", "shoot"),
            (KitCard, self.card.pk, "card", '{"kind": "axis"', "/api/kit", "card"),
            (Run, self.run_.pk, "state", '{"phase": "waiting", "told": 1}', f"/api/shoots/{self.bad.pk}/runs", "run"),
            (LogEntry, self.entry.pk, "planned_s", "many", "/api/log", "log"),
            (Print, self.print_.pk, "made_at", "2026-13-45 00:00:00", "/api/prints", "print"),
        ):
            with self.subTest(kind), self.holding(model, pk, column, text):
                told = self.page.get(path).json()
                if kind == "shoot":
                    (line,) = [one for one in told["shoots"] if one["damaged"]]
                elif kind == "print":
                    (line,) = [one for one in told if one["state"] == "damaged"]
                else:
                    (line,) = told["broken" if kind == "card" else "damaged"]
                self.assertEqual(line["id"], pk)
                self.assertRegex(line.get("said") or line["broken"], "cannot be read")
                taken = self.page.get(f"/files/rows/{kind}/{pk}.txt")
                self.assertIn(f"{column}: {text}\n", taken.content.decode())
        self.assertEqual(self.page.get("/files/rows/shoot/999.txt").status_code, 404)
        self.assertEqual(self.page.get("/files/rows/user/1.txt").status_code, 404)

    def test_a_damaged_run_ends_no_start_and_can_be_given_up(self) -> None:
        ask = f"/api/shoots/{self.bad.pk}/runs"
        for text in ("{", "{}", '{"phase": "waiting"}', '{"phase": "waiting", "taken": 1, "new": 2}',
                     '{"phase": "waiting", "taken": "1"}', '{"phase": "elsewhere", "taken": 1}'):  # fmt: skip
            with self.subTest(text), self.holding(Run, self.run_.pk, "state", text):
                driver._damaged.clear()
                with self.assertLogs("bridle.runs"):
                    self.assertEqual(driver.resume_all(), [])
                refused = self.page.send("POST", ask, {"speed": 0})
                self.assertEqual((refused.status_code, "Give it up first" in refused.json()["message"]), (409, True))
                self.assertEqual(self.page.get(f"/api/runs/{self.run_.pk}").status_code, 409)
                self.assertEqual(self.page.send("POST", f"/api/runs/{self.run_.pk}/give-up", {}).status_code, 200)
                self.assertFalse(self.page.get(ask).json()["damaged"][0]["under_way"])
                Run.objects.filter(pk=self.run_.pk).update(ended_at=None)
        self.assertEqual(
            self.page.send("POST", f"/api/runs/{self.run_.pk}/give-up", {}).status_code, 409, "it is whole"
        )

    def test_revisions_are_kept_packed_and_a_damaged_one_says_so(self) -> None:
        (revision,) = Revision.objects.all()
        self.assertEqual(revision.content["plan"], HARBOUR.model_dump(mode="json"))
        with connection.cursor() as cursor:
            cursor.execute("SELECT typeof(content), length(content) FROM shoots_revision")
            kind, size = cursor.fetchone()
        self.assertEqual(kind, "blob")
        self.assertLess(size, len(str(revision.content)) / 3)
        self.assertEqual(unpacked(packed({"a": ["ü", 1.5]})), {"a": ["ü", 1.5]})
        with self.holding(Revision, revision.pk, "content", b"\x00damaged"):
            lines = self.page.get(f"/api/shoots/{self.bad.pk}/revisions").json()["revisions"]
            self.assertEqual([line["changed"] for line in lines][1:], [["as it was begun"]])
            self.assertEqual(lines[0]["changed"], ["it cannot be read by this Bridle"])
            self.assertEqual(self.page.get(f"/api/shoots/{self.bad.pk}/revisions/1").status_code, 422)

    def test_the_logbook_comes_page_by_page(self) -> None:
        LogEntry.objects.all().delete()
        for number in range(230):
            LogEntry.objects.create(name=f"entry {number}", outcome="finished", **NOUGHT, **COUNTS)
        seen, before, pages = [], "", 0
        while before is not None:
            page = self.page.get(f"/api/log{before and f'?before={before}'}").json()
            seen += [entry["name"] for entry in page["entries"]]
            before, pages = page["before"], pages + 1
        self.assertEqual((seen, pages), ([f"entry {number}" for number in range(229, -1, -1)], 3))
        one = LogEntry.objects.get(name="entry 7")
        self.assertEqual(self.page.get(f"/api/log/{one.pk}").json()["name"], "entry 7")

    def test_room_that_is_not_needed_any_more_is_given_back(self) -> None:
        let_it_vacuum_itself()
        self.assertTrue(vacuums_itself())
        noise = [{"n": random.Random(number).random()} for number in range(4000)]
        Revision.objects.bulk_create(
            Revision(kind="x", kept_id=1, version=version, made_at=timezone.now(), content={"noise": noise})
            for version in range(60)
        )
        full = self.size()
        Revision.objects.filter(kind="x").delete()
        self.assertEqual(self.size(), full, "SQLite keeps the room for itself")
        self.assertGreater(give_back(), 250)
        self.assertLess(self.size(), full / 2)

    def size(self) -> int:
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA page_count")
            return int(cursor.fetchone()[0])

    def test_every_column_of_json_is_read_by_itself(self) -> None:
        for model in (Shoot, KitCard, Run, Print, Work):
            for field in model._meta.concrete_fields:
                if field.get_internal_type() == "JSONField":
                    self.assertIsInstance(field, KeptJSON, f"{model.__name__}.{field.name}")


class InTheWay(TransactionTestCase):
    """What stands where something of Bridle's should be: one sentence, no traceback."""

    def test_a_start_says_what_is_in_the_way(self) -> None:
        cases: tuple[tuple[str, Callable[[Path, Path], object], str], ...] = (
            ("data is a file", lambda data, key: data.write_text("x"), "in the way: a folder"),
            ("the key is a folder", lambda data, key: key.mkdir(), "in the way: a file"),
            ("the data is a folder", lambda data, key: (data / "bridle.sqlite3").mkdir(parents=True), "is a folder"),
            ("the lock is a folder", lambda data, key: (data / "lock").mkdir(parents=True), "in the way: a file"),
        )
        for name, made, said in cases:
            with self.subTest(name), TemporaryDirectory() as folder:
                data, key = Path(folder) / "data", Path(folder) / "key"
                made(data, key)
                ended = self.start(data, key, "serve", "--port", "8431")
                self.assertEqual((ended.returncode, ended.stderr.count("Traceback")), (1, 0), ended.stderr)
                self.assertIn(said, ended.stderr)

    def start(self, data: Path, key: Path, *arguments: str) -> "subprocess.CompletedProcess[str]":
        environment = {**os.environ, "BRIDLE_DATA": str(data), "BRIDLE_KEY_FILE": str(key)}
        command = [sys.executable, "manage.py", *arguments]
        return subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, text=True, timeout=60)

    def test_a_key_that_is_none_is_put_aside_and_made_anew(self) -> None:
        for content in (b"\xff\xfe\x00", b"short", b"two\nlines" * 10):
            with self.subTest(content), TemporaryDirectory() as folder:
                data, key = Path(folder) / "data", Path(folder) / "key"
                key.write_bytes(content)
                ended = self.start(data, key, "check")
                self.assertEqual(ended.returncode, 0, ended.stderr)
                self.assertEqual(key.with_name("key.was-no-key").read_bytes(), content)
                self.assertGreater(len(key.read_text()), 40)
