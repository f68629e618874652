"""Power cuts at many moments: nothing that was acknowledged is lost, nothing is taken twice."""

import json
import os
import random
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.error
from collections.abc import Callable
from contextlib import closing
from http.client import HTTPException
from pathlib import Path
from typing import Any

from bridle.datafolder.where import BESIDE, database
from tests.gcode import Dialect, program
from tests.prints.test_files import SQUARE
from tests.provoked_print import printed
from tests.served import Served
from tests.server.test_runs import Caller

KILLS = int(os.environ.get("BRIDLE_KILLS", "30"))
SEED = 20261125
# How long each start after a kill took, in seconds.
STARTS: list[float] = []


def saves(server: Served, kills: int, dice: random.Random) -> int:
    """Save again and again while the server is killed; returns how many saves were acknowledged. All are there."""
    call = Caller(server.address)
    shoot = call("GET", "/api/shoots")["shoots"][0]["id"]
    opened = call("GET", f"/api/shoots/{shoot}")
    version, plan, acknowledged = opened["version"], opened["plan"], 0
    last: Any = None
    for kill in range(kills):
        cut = threading.Timer(dice.uniform(0.01, 0.3), server.kill)
        cut.start()
        for number in range(10_000):
            plan["camera"]["iso"] = 100 + (kill * 1000 + number) % 900_000
            try:
                version = call("PUT", f"/api/shoots/{shoot}", {"version": version, "plan": plan})["version"]
            except (OSError, HTTPException):
                break
            acknowledged, last = acknowledged + 1, plan["camera"]["iso"]
        cut.join()
        restarted(server)
        call = Caller(server.address)
        kept = call("GET", f"/api/shoots/{shoot}")
        sent = plan["camera"]["iso"]
        assert kept["plan"]["camera"]["iso"] in (last, sent), f"kill {kill}: {last} was acknowledged"
        assert kept["version"] >= version, f"kill {kill}: version {version} was acknowledged"
        # What was sent last may be kept or not; sending it again is no conflict.
        version = call("PUT", f"/api/shoots/{shoot}", {"version": version, "plan": plan})["version"]
        last = sent
    return acknowledged


def runs(server: Served, kills: int, dice: random.Random) -> int:
    """Runs that are killed and go on by themselves; returns how many ended. Each frame is taken once."""
    call = Caller(server.address)
    shoot = next(one["id"] for one in call("GET", "/api/shoots")["shoots"] if one["name"] == "Harbour refloat")
    run, reached, ended, killed = 0, 0, 0, 0
    while killed < kills or run:
        if not run:
            run, reached = call("POST", f"/api/shoots/{shoot}/runs", {"speed": 0})["id"], 0
        time.sleep(dice.choice((0.0, dice.uniform(0, 0.05), dice.uniform(0, 0.6))))
        view = call("GET", f"/api/runs/{run}")
        assert view["taken"] >= reached, f"run {run}: frame {reached} had been reached"
        reached = view["taken"]
        if view["phase"] == "finished":
            whole(call, server.data, run, view)
            run, ended = 0, ended + 1
        elif killed < kills:
            server.kill()
            restarted(server)
            killed += 1
            call = Caller(server.address)
        assert view["phase"] != "fault", f"run {run} is at fault"
    return ended


def whole(call: Caller, data: Path, run: int, view: dict[str, Any]) -> None:
    """Every frame was taken once, in its order, and the logbook says so."""
    query = "SELECT frame FROM runs_runevent WHERE run_id = ? AND kind = 'taken' ORDER BY number"
    with closing(sqlite3.connect(database(data), timeout=20)) as opened:
        taken = [frame for (frame,) in opened.execute(query, (run,))]
    assert taken == list(range(view["frames"])), f"run {run}: {len(taken)} frames"
    entry = next(one for one in call("GET", "/api/log")["entries"] if one["id"] == view["entry_id"])
    assert (entry["taken_frames"], entry["outcome"]) == (view["frames"], "finished")


def asks(server: Served, kills: int, dice: random.Random) -> int:
    """A site of months, visits and cuts asked for at any time: each is logged once. Returns how many were asked."""
    call = Caller(server.address)
    shoot = next(one["id"] for one in call("GET", "/api/shoots")["shoots"] if one["name"] == "Mill Weir footbridge")
    asked: dict[int, list[str]] = {}
    for _ in range(kills):
        runs = call("GET", f"/api/shoots/{shoot}/runs")["runs"]
        under = next((run["id"] for run in runs if run["phase"] not in ("finished", "stopped")), None)
        run = under or call("POST", f"/api/shoots/{shoot}/runs", {"speed": 86400, "comes": False})["id"]
        cut = threading.Timer(dice.uniform(0.0, 0.5), server.kill)
        cut.start()
        for what in ("visit", "cut") * 40:
            try:
                call("POST", f"/api/runs/{run}/ask", {"what": what})
            except urllib.error.HTTPError as refused:
                assert refused.code == 409, "the run has ended"
                break
            except (OSError, HTTPException):
                # Asked or not: nobody can know, and neither is wrong.
                asked.setdefault(run, []).append(f"{what}?")
                break
            asked.setdefault(run, []).append(what)
        cut.join()
        restarted(server)
        call = Caller(server.address)
    for run, wishes in asked.items():
        until = time.monotonic() + 60
        while call("GET", f"/api/runs/{run}")["pending"] and time.monotonic() < until:
            time.sleep(0.1)
        query = "SELECT kind, count(*) FROM runs_runevent WHERE run_id = ? AND kind IN ('visit', 'cut') GROUP BY kind"
        with closing(sqlite3.connect(database(server.data), timeout=20)) as opened:
            logged = dict(opened.execute(query, (run,)))
        for what in ("visit", "cut"):
            sure, unsure = wishes.count(what), wishes.count(f"{what}?")
            said = f"run {run}: {what} {logged} of {sure} and {unsure} unsure"
            assert logged.get(what, 0) <= sure + unsure, said
            # One that was asked for again before the first was heard is one.
            ended = call("GET", f"/api/runs/{run}")["phase"] in ("finished", "stopped")
            assert ended or logged.get(what, 0) >= sure - kills, said
    return sum(map(len, asked.values()))


def restarted(server: Served) -> float:
    """Started again; how long that took. The last start that was slowest is told at the end."""
    began = time.monotonic()
    server.start()
    took = time.monotonic() - began
    STARTS.append(took)
    return took


def uploads(server: Served, kills: int, dice: random.Random) -> int:
    """Files that come in pieces, are read and given their stops while the server is killed; returns how many ended."""
    text = program(Dialect(), SQUARE * 40)
    call, ended, killed = Caller(server.address), 0, 0
    while killed < kills:
        cut = threading.Timer(dice.uniform(0.0, 8.0), server.kill)
        cut.start()
        number, at = 0, 0
        while True:
            try:
                if not number:
                    number = call("POST", "/api/prints", {"name": "cup.gcode", "size": len(text)})["id"]
                while at < len(text):
                    at = call.piece(number, at, text[at : at + len(text) // 7 + 1])
                line = call("GET", f"/api/prints/{number}")
                if line["state"] == "read":
                    break
                assert line["state"] == "reading", line
                time.sleep(0.02)
            except urllib.error.HTTPError:
                raise
            except (OSError, HTTPException):
                cut.join()
                killed += 1
                restarted(server)
                call = Caller(server.address)
                # Reading begins anew after each kill: one that comes too soon every time would never let it end.
                cut = threading.Timer(dice.uniform(0.0, 8.0), server.kill if killed < kills else int)
                cut.start()
        cut.cancel()
        cut.join()
        if server.process.poll() is not None:
            killed += 1
            restarted(server)
            call = Caller(server.address)
        told = call("GET", f"/api/prints/{number}")
        assert (told["layers"], told["size"]) == (240, len(text)), told["layers"]
        assert call.file(f"/api/prints/{number}/file/original") == text
        proved(server, number, dice)
        call = Caller(server.address)
        ended += 1
    return ended


def proved(server: Served, number: int, dice: random.Random) -> None:
    """Its stops are put in and proven, with a kill meanwhile."""
    call = Caller(server.address)
    facts = call("GET", f"/api/prints/{number}")["facts"]["file"]
    plan = printed(file=facts, layers={"layers_s": ("10",) * 240, "z_mm": (), "every": 20}).model_dump(mode="json")
    try:
        call("POST", f"/api/prints/{number}/work", {"kind": "change", "plan": plan})
    except urllib.error.HTTPError as refused:
        raise AssertionError(refused.read()) from refused
    time.sleep(dice.uniform(0.0, 1.5))
    server.kill()
    restarted(server)
    call = Caller(server.address)
    until = time.monotonic() + 90
    while (work := call("GET", f"/api/prints/{number}")["works"][0])["state"] in ("waiting", "running"):
        assert time.monotonic() < until, work
        time.sleep(0.05)
    assert (work["state"], work["result"]["presses"]) == ("done", 12), work
    assert call.file(f"/api/prints/{number}/file/change").count(b"G1 X236.4 ") == 12


def imports(server: Served, kills: int, dice: random.Random) -> int:
    """Plans taken in while the server is killed: what was acknowledged is there, and nothing is there by half."""
    call, acknowledged = Caller(server.address), set()
    plan = call("GET", f"/api/shoots/{call('GET', '/api/shoots')['shoots'][0]['id']}")["plan"]
    for _ in range(kills):
        cut = threading.Timer(dice.uniform(0.0, 0.4), server.kill)
        cut.start()
        for _ in range(200):
            try:
                acknowledged.add(call("POST", "/api/shoots/import", plan)["id"])
            except (OSError, HTTPException):
                break
        cut.join()
        restarted(server)
        call = Caller(server.address)
        there = {one["id"]: one["broken"] for one in call("GET", "/api/shoots")["shoots"]}
        assert acknowledged <= there.keys(), acknowledged - there.keys()
        assert not any(there.values())
    return len(acknowledged)


def backups(server: Served, kills: int, dice: random.Random) -> int:
    """Copies made, and brought back, while their own process is killed: any copy is whole, and so is the data."""
    made, copy = 0, server.data / "first.sqlite3"
    assert server.command("-m", "bridle.cli", "backup", str(copy)).returncode == 0
    server.kill()
    work = {}
    for number in range(kills):
        # Something that is only in the database, and in its journal still.
        with closing(sqlite3.connect(database(server.data), timeout=20)) as opened:
            opened.execute("PRAGMA journal_mode=WAL")
            opened.execute("UPDATE shoots_shoot SET name = ? WHERE id = 1", (f"work {number}",))
            opened.commit()
        to = server.data / f"copy-{number}.sqlite3"
        for command, file, longest in (("backup", to, 0.15), ("restore", copy, 8.0)):
            process = server.begun("-m", "bridle.cli", command, str(file))
            at_work(server.data, process)
            time.sleep(dice.uniform(0.0, longest))
            process.kill()
            process.wait()
        names = [name_in(one) for one in server.data.rglob("copies/before-restore/*.sqlite3")]
        now = name_in(database(server.data))
        assert now == f"work {number}" or f"work {number}" in names, f"work {number} is gone"
        if to.exists():
            assert name_in(to) == f"work {number}"
            made += 1
        work[number] = now
    server.start()
    left = [one for one in server.data.rglob("*") if one.name.endswith((".half", ".part")) or one.name == "restoring"]
    assert not left, left
    return made


def at_work(data: Path, process: "subprocess.Popen[bytes]") -> None:
    """Wait until a copy is under way: what comes before is only the interpreter's start."""
    while process.poll() is None and not (data / "restoring").exists() and not list(data.glob(".*.half")):
        time.sleep(0.002)


def name_in(file: Path) -> str:
    """The name of the first shoot in a database that is whole."""
    with closing(sqlite3.connect(file, timeout=20)) as opened:
        assert opened.execute("PRAGMA integrity_check").fetchone()[0] == "ok", file
        return str(opened.execute("SELECT name FROM shoots_shoot WHERE id = 1").fetchone()[0])


def migrations(server: Served, kills: int, dice: random.Random) -> int:
    """An older database is brought up to date, and killed meanwhile: it starts after that, with all that was in it."""
    server.kill()
    with closing(sqlite3.connect(database(server.data))) as opened:
        before = opened.execute("SELECT id, name FROM shoots_shoot ORDER BY id").fetchall()
    assert server.command("manage.py", "migrate", "shoots", "0002").returncode == 0
    older = database(server.data).read_bytes()
    for _ in range(kills):
        database(server.data).write_bytes(older)
        for ending in BESIDE:
            database(server.data).with_name(database(server.data).name + ending).unlink(missing_ok=True)
        process = server.begun("manage.py", "serve", "--port", str(server.port))
        time.sleep(dice.uniform(0.5, 4.0))
        process.kill()
        process.wait()
        restarted(server)
        with closing(sqlite3.connect(database(server.data))) as opened:
            assert opened.execute("SELECT id, name FROM shoots_shoot ORDER BY id").fetchall() == before
        server.kill()
    server.start()
    return kills


HUNTS: dict[str, tuple[Callable[[Served, int, random.Random], int], str]] = {
    "saves": (saves, "saves acknowledged, none lost"),
    "runs": (runs, "runs ended, each frame taken once"),
    "asks": (asks, "visits and cuts asked for, none logged twice"),
    "uploads": (uploads, "files whole, read and proven"),
    "imports": (imports, "plans taken in, none lost and none by half"),
    "backups": (backups, "copies whole, no work lost by a restore"),
    "migrations": (migrations, "databases brought up to date after it"),
}


def main() -> None:
    """Kill at so many moments of each kind; with names, of those alone."""
    wanted = sys.argv[1:] or list(HUNTS)
    for name in wanted:
        hunt, what = HUNTS[name]
        server, began = Served(), time.monotonic()
        STARTS.clear()
        try:
            found = hunt(server, KILLS, random.Random(SEED))
        except (urllib.error.HTTPError, json.JSONDecodeError) as error:
            raise AssertionError(f"{name}: {error}\n{server.said.read_text()[-3000:]}") from error
        finally:
            server.stop()
        slowest = f"; slowest start {max(STARTS):.1f} s" if STARTS else ""
        print(f"{name}: killed {KILLS} times, {found} {what}; {time.monotonic() - began:.0f} s{slowest}", flush=True)


if __name__ == "__main__":
    main()
