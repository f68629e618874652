"""The data folder: whose it is, whether it is well, copies of it; and a disk that is full."""

import shutil
import sqlite3
import subprocess
import sys
import time
import urllib.error
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase, skipUnless

from bridle.datafolder import copies, health, where
from bridle.datafolder.lock import TakenError, take
from bridle.datafolder.where import database, for_its_owner_only
from tests.cuts import cuts
from tests.served import Served
from tests.server.test_runs import Caller


def small_disk(folder: Path, megabytes: int) -> bool:
    """Whether a disk of its own, so small, could be put there."""
    options = ["-t", "tmpfs", "-o", f"size={megabytes}m", "tmpfs", str(folder)]
    return bool(shutil.which("mount")) and not subprocess.run(["mount", *options], capture_output=True).returncode


def can_mount() -> bool:
    with TemporaryDirectory() as folder:
        made = small_disk(Path(folder), 1)
        if made:
            subprocess.run(["umount", folder], check=True)
        return made


def made(folder: Path, shoots: int = 3) -> Path:
    """A database with a table by whose name it is known, and some rows."""
    with closing(sqlite3.connect(database(folder))) as opened:
        opened.execute(f"CREATE TABLE {health.SIGN} (id INTEGER PRIMARY KEY, name TEXT)")
        opened.executemany(f"INSERT INTO {health.SIGN} (name) VALUES (?)", [(f"shoot {n}",) for n in range(shoots)])
        opened.commit()
    return database(folder)


def names(file: Path) -> list[str]:
    with closing(sqlite3.connect(file)) as opened:
        return [name for (name,) in opened.execute(f"SELECT name FROM {health.SIGN} ORDER BY id")]


class Folder(TestCase):
    def setUp(self) -> None:
        holder = TemporaryDirectory()
        self.addCleanup(holder.cleanup)
        self.folder = Path(holder.name)

    def test_a_database_that_is_not_well_is_told_and_stays_as_it_is(self) -> None:
        self.assertFalse(health.check(self.folder), "none yet: it is made")
        for name, content, said in (
            ("empty", b"", "with nothing in it"),
            ("noise", bytes(range(256)) * 40, "is damaged"),
            ("no database of ours", None, "none of Bridle's tables"),
            ("cut", made(self.folder).read_bytes()[:5000], "is damaged"),
        ):
            with self.subTest(name):
                file = database(self.folder)
                file.unlink(missing_ok=True)
                if content is None:
                    sqlite3.connect(file).executescript("CREATE TABLE other (x)").close()
                else:
                    file.write_bytes(content)
                before = file.read_bytes()
                with self.assertRaises(health.UnwellError) as told:
                    health.check(self.folder)
                self.assertIn(said, str(told.exception))
                self.assertIn("Nothing was overwritten", str(told.exception))
                self.assertIn("bridle restore", str(told.exception))
                self.assertEqual(file.read_bytes(), before)

    def test_what_sqlite_says_is_said_in_a_sentence(self) -> None:
        file = made(self.folder)
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as read_only:
            self.assertEqual(self.why(read_only, "CREATE TABLE x (y)"), (503, health.READ_ONLY))
        with closing(sqlite3.connect(file)) as full:
            full.execute("PRAGMA max_page_count = 2")
            self.assertEqual(self.why(full, "CREATE TABLE x AS SELECT zeroblob(100000)"), (507, health.FULL))
            self.assertEqual(self.why(full, "SELECT * FROM nowhere"), (503, health.EMPTY))
        file.write_bytes(b"no database at all, but some words" * 100)
        with closing(sqlite3.connect(file)) as noise:
            self.assertEqual(self.why(noise, "SELECT 1 FROM sqlite_master"), (503, health.DAMAGED))
        self.assertEqual(self.why(_Away(), ""), (503, health.AWAY))

    def why(self, opened: "sqlite3.Connection | _Away", sql: str) -> tuple[int, str]:
        with self.assertRaises(sqlite3.Error) as error:
            opened.execute(sql)
        return health.why_not(error.exception)

    def test_copies_overwrite_nothing_are_whole_and_the_last_three_of_an_update_stay(self) -> None:
        file, to = made(self.folder), self.folder / "copy.sqlite3"
        with closing(sqlite3.connect(file)) as writing:
            writing.execute("PRAGMA journal_mode=WAL")
            writing.execute(f"INSERT INTO {health.SIGN} (name) VALUES ('in the log still')")
            writing.commit()
            copies.backup(self.folder, to)
        self.assertEqual(names(to)[-1], "in the log still")
        self.assertEqual(to.stat().st_mode & 0o077, 0)
        with self.assertRaises(FileExistsError):
            copies.backup(self.folder, to)
        for number in range(5):
            self.change(f"before update {number}")
            for _ in range(2):
                copies.set_aside(self.folder, copies.UPDATE)
        kept = copies.copies_of(self.folder, copies.UPDATE)
        self.assertEqual([names(one)[-1] for one in kept], [f"before update {number}" for number in (2, 3, 4)])

    def change(self, name: str) -> None:
        with closing(sqlite3.connect(database(self.folder))) as writing:
            writing.execute(f"INSERT INTO {health.SIGN} (name) VALUES (?)", (name,))
            writing.commit()

    def restored(self, source: Path, tried: copies.Tried = lambda trial: None) -> Path | None:
        return copies.restore(self.folder, source, tried)

    def test_however_often_copies_are_brought_back_no_work_goes_by_itself(self) -> None:
        made(self.folder)
        old = self.folder / "old.sqlite3"
        copies.backup(self.folder, old)
        work = []
        for round_ in range(6):
            work.append(f"work {round_}")
            self.change(work[-1])
            before = self.restored(old)
            assert before is not None
            self.assertEqual((names(before)[-1], len(names(database(self.folder)))), (work[-1], 3))
            self.assertIsNone(self.restored(old), "what is brought back twice is no work that needs a copy")
            copies.set_aside(self.folder, copies.UPDATE)
        kept = copies.copies_of(self.folder, copies.RESTORE)
        self.assertEqual([names(one)[-1] for one in kept], work)
        for _ in range(2):
            self.restored(kept[0])
            self.restored(old)
        self.assertEqual(len(copies.copies_of(self.folder, copies.RESTORE)), len(work) + 1, "the old one, once")

    def test_a_copy_counts_once_it_has_been_tried(self) -> None:
        file = made(self.folder)
        good = self.folder / "good"
        good.write_bytes(made_elsewhere(5))

        def fails(trial: Path) -> None:
            self.assertEqual(len(names(database(trial))), 5)
            raise health.UnwellError("it does not start")

        with self.assertRaises(health.UnwellError):
            self.restored(good, fails)
        self.assertEqual(len(names(file)), 3)
        self.assertEqual(sorted(one.name for one in self.folder.iterdir()), ["bridle.sqlite3", "good"])

    def test_killed_at_any_step_a_restore_leaves_the_old_or_the_new_and_no_save_is_lost(self) -> None:
        """With a journal that holds the last save, as a server that was killed leaves it."""
        good = self.folder / "good"
        good.write_bytes(made_elsewhere(5))
        seen = set()
        file = database(self.folder)

        def again() -> None:
            for one in (file, *(file.with_name(file.name + ending) for ending in where.BESIDE)):
                one.unlink(missing_ok=True)
            shutil.rmtree(self.folder / copies.FOLDER, ignore_errors=True)
            made(self.folder)
            script = f"""
import os, sqlite3
opened = sqlite3.connect({str(file)!r})
opened.execute("PRAGMA journal_mode=WAL")
opened.execute("INSERT INTO {health.SIGN} (name) VALUES ('the last save')")
opened.commit()
os._exit(0)
"""
            subprocess.run([sys.executable, "-c", script], check=True)
            self.assertTrue(file.with_name(file.name + "-wal").stat().st_size)

        again()
        for _ in cuts(lambda: copies.restore(self.folder, good, lambda trial: None), str(self.folder)):
            now = len(names(file))
            seen.add(now)
            kept = [names(one)[-1] for one in copies.copies_of(self.folder, copies.RESTORE)]
            if now == 5:
                self.assertEqual(kept, ["the last save"])
            else:
                self.assertEqual(names(file)[-1], "the last save")
            copies.clear_halves(self.folder)
            left = [one.name for one in self.folder.rglob("*") if "half" in one.name or one.name == copies.TRIAL]
            self.assertEqual(left, [])
            again()
        self.assertEqual(seen, {4, 5})

    def test_what_is_no_copy_is_not_restored(self) -> None:
        file, wrong = made(self.folder), self.folder / "wrong"
        for content in (b"", b"text", made_elsewhere()[:6000]):
            wrong.write_bytes(content)
            with self.assertRaises(health.UnwellError):
                self.restored(wrong)
        with self.assertRaises(health.UnwellError):
            self.restored(self.folder / "nothing there")
        self.assertEqual(len(names(file)), 3)
        file.write_bytes(b"damaged beyond reading")
        file.with_name(file.name + "-wal").write_bytes(b"and its journal")
        good = self.folder / "good"
        good.write_bytes(made_elsewhere())
        before = self.restored(good)
        assert before is not None
        self.assertEqual((before.read_bytes(), len(names(file))), (b"damaged beyond reading", 3))
        self.assertEqual(before.with_name(before.name + "-wal").read_bytes(), b"and its journal")
        self.assertFalse(file.with_name(file.name + "-wal").exists())

    def test_the_lock_names_who_has_it_and_goes_with_its_process(self) -> None:
        lock = take(self.folder, address="http://127.0.0.1:1")
        with self.assertRaises(TakenError) as taken:
            take(self.folder)
        self.assertRegex(str(taken.exception), r"process \d+, since 20.*at http://127.0.0.1:1")
        lock.let_go()
        take(self.folder).let_go()

    def test_nobody_else_may_read_it(self) -> None:
        self.folder.chmod(0o755)
        made(self.folder).chmod(0o644)
        for_its_owner_only(self.folder)
        modes = [path.stat().st_mode & 0o777 for path in (self.folder, database(self.folder))]
        self.assertEqual(modes, [0o700, 0o600])


class _Away:
    """A database whose folder is gone."""

    def execute(self, sql: str) -> None:
        sqlite3.connect("/no/such/folder/bridle.sqlite3")


def made_elsewhere(shoots: int = 3) -> bytes:
    with TemporaryDirectory() as folder:
        return made(Path(folder), shoots).read_bytes()


class Started(TestCase):
    def test_one_server_has_the_data_and_a_server_starts_on_nothing_but_good_data(self) -> None:
        server = Served(demo=False)
        self.addCleanup(server.stop)
        call = Caller(server.address)
        plan = call("POST", "/api/shoots", {"name": "Kept", "start": "2026-12-01T07:00:00Z"})
        second = server.command("manage.py", "serve", "--port", str(server.port + 1))
        self.assertEqual((second.returncode, f"at {server.address}" in second.stderr), (1, True), second.stderr)
        copy = server.data / "copy.sqlite3"
        lying = server.data / "prints" / "1" / "original.gcode"
        lying.parent.mkdir(parents=True)
        lying.write_bytes(b"G28\n" * 500_000)
        told = server.command("-m", "bridle.cli", "backup", str(copy)).stdout
        self.assertRegex(told, "is copied into .*\n.*so many: 1, 2.0 MB. are not in it")
        refused = server.command("-m", "bridle.cli", "restore", str(copy))
        self.assertEqual((refused.returncode, "in use by another Bridle" in refused.stderr), (1, True))
        call("PUT", f"/api/shoots/{plan['id']}", {"version": 1, "plan": {**plan["plan"], "camera": {"iso": 800}}})
        server.kill()
        for content in (b"", b"noise" * 1000):
            file = database(server.data)
            kept = file.read_bytes()
            file.write_bytes(content)
            failed = server.command("manage.py", "serve", "--port", str(server.port))
            self.assertEqual((failed.returncode, "Nothing was overwritten" in failed.stderr), (1, True), failed.stderr)
            self.assertEqual(file.read_bytes(), content)
            file.write_bytes(kept)
        self.assertEqual(server.command("-m", "bridle.cli", "restore", str(copy)).returncode, 0)
        server.start()
        self.assertEqual(Caller(server.address)("GET", f"/api/shoots/{plan['id']}")["plan"]["camera"]["iso"], 100)

    def test_a_copy_is_made_before_the_database_is_brought_up_to_date(self) -> None:
        server = Served(demo=False)
        self.addCleanup(server.stop)
        server.kill()
        server.command("manage.py", "migrate", "runs", "0001")
        server.start()
        (copy,) = copies.copies_of(server.data, copies.UPDATE)
        self.assertIn(str(copy), server.said.read_text())
        with closing(sqlite3.connect(copy)) as opened:
            columns = [row[1] for row in opened.execute("PRAGMA table_info(runs_logentry)")]
        self.assertNotIn("visits", columns)
        server.kill()
        with closing(sqlite3.connect(database(server.data))) as opened:
            opened.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('runs', '0999_later', '2030')")
            opened.commit()
        newer = server.command("manage.py", "serve", "--port", str(server.port))
        self.assertEqual((newer.returncode, "newer Bridle" in newer.stderr), (1, True), newer.stderr)


@skipUnless(can_mount(), "a small disk can be mounted by root only")
class FullDisk(TestCase):
    def test_a_full_disk_is_told_loses_nothing_and_a_run_goes_on_when_there_is_room(self) -> None:
        holder = TemporaryDirectory()
        self.addCleanup(holder.cleanup)
        disk = Path(holder.name)
        small_disk(disk, 12)
        self.addCleanup(subprocess.run, ["umount", "-l", str(disk)], check=True)
        server = Served(disk)
        self.addCleanup(server.stop)
        call = Caller(server.address)
        shoot = next(s["id"] for s in call("GET", "/api/shoots")["shoots"] if s["name"] == "Harbour refloat")
        opened = call("GET", f"/api/shoots/{shoot}")
        run = call("POST", f"/api/shoots/{shoot}/runs", {"speed": 600})["id"]
        paths = (*(f"/api/{name}" for name in ("shoots", "kit", "log", "prints", "places")), f"/api/runs/{run}")
        number = call("POST", "/api/prints", {"name": "cup.gcode", "size": 900_000})["id"]
        filler = disk / "filler"
        with filler.open("wb", buffering=0) as file:
            for size in (65_536, 512):
                while True:
                    try:
                        file.write(b"\0" * size)
                    except OSError:
                        break
        self.wait(lambda: "disk is full" in call("GET", f"/api/runs/{run}")["trouble"], "the run says so")
        stuck = call("GET", f"/api/runs/{run}")["taken"]
        with self.assertRaises(urllib.error.HTTPError) as refused:
            big = {**opened["plan"], "shoot": {**opened["plan"]["shoot"], "subject": "x" * 400}}
            for iso in range(100, 200):
                opened["version"] = call(
                    "PUT",
                    f"/api/shoots/{shoot}",
                    {"version": opened["version"], "plan": {**big, "camera": {**big["camera"], "iso": iso}}},
                )["version"]
        self.assertEqual(refused.exception.code, 507)
        self.assertIn("disk is full", refused.exception.read().decode())
        with self.assertRaises(urllib.error.HTTPError) as refused:
            call("PUT", f"/api/prints/{number}/bytes?at=0", "x" * 890_000)
        self.assertEqual((refused.exception.code, b"disk is full" in refused.exception.read()), (507, True))
        for path in paths:
            call("GET", path)
        server.kill()
        server.start()
        call = Caller(server.address)
        for path in paths:
            call("GET", path)
        self.assertNotIn("Traceback", server.said.read_text())
        filler.unlink()
        self.wait(lambda: call("GET", f"/api/runs/{run}")["taken"] > stuck, "it goes on by itself")
        self.assertEqual(call("GET", f"/api/runs/{run}")["trouble"], "")
        call("POST", f"/api/runs/{run}/ask", {"what": None, "speed": 0})
        self.wait(lambda: call("GET", f"/api/runs/{run}")["phase"] == "finished", "and to its end")

    def wait(self, holds: Callable[[], bool], what: str) -> None:
        until = time.monotonic() + 40
        while time.monotonic() < until:
            if holds():
                return
            time.sleep(0.1)
        raise AssertionError(f"not within 40 s: {what}")
