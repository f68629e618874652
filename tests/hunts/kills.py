"""Power cuts at many moments: nothing that was acknowledged is lost, nothing is taken twice."""

import json
import random
import sqlite3
import threading
import time
import urllib.error
from contextlib import closing
from http.client import HTTPException
from pathlib import Path
from typing import Any

from bridle.datafolder.where import database
from tests.served import Served
from tests.server.test_runs import Caller

KILLS = 50
SEED = 20261125


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
        server.start()
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
            server.start()
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


def main() -> None:
    """Kill at so many moments of each kind."""
    for name, hunt in (("saves", saves), ("runs", runs)):
        server, began = Served(), time.monotonic()
        try:
            found = hunt(server, KILLS, random.Random(SEED))
        except (urllib.error.HTTPError, json.JSONDecodeError) as error:
            raise AssertionError(f"{name}: {error}") from error
        finally:
            server.stop()
        what = "saves acknowledged, none lost" if name == "saves" else "runs ended, each frame taken once"
        print(f"{name}: killed {KILLS} times, {found} {what}; {time.monotonic() - began:.0f} s", flush=True)


if __name__ == "__main__":
    main()
