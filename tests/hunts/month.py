"""A month of saves and runs: what is kept, and what a server holds in memory, stay within bounds."""

import random
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path
from unittest import mock

from django.core.management import call_command
from django.db import connection

from bridle.core.plan.edit import Edit, apply
from bridle.datafolder.where import database
from bridle.server.keeping import Revision
from bridle.server.shoots.models import Shoot
from tests.served import Served
from tests.server.test_runs import Caller

DAYS, SAVES_A_DAY, RUNS = 30, 200, 30
SEED = 7


def memory_mb(process: int) -> float:
    """What a process holds in memory."""
    pages = int(Path(f"/proc/{process}/statm").read_text().split()[1])
    return pages * 4096 / 1e6


def simulated_saves() -> tuple[float, int]:
    """Saves over the days, with the clock set on; returns the database's megabytes and the revisions kept."""
    call_command("migrate", verbosity=0)
    call_command("loaddemo", verbosity=0)
    dice, shoot = random.Random(SEED), Shoot.objects.order_by("pk")[0]
    now = datetime(2026, 10, 1, 8, tzinfo=UTC)
    with mock.patch("django.utils.timezone.now", side_effect=lambda: now):
        for day in range(DAYS):
            for number in range(SAVES_A_DAY):
                now = datetime(2026, 10, 1, 8, tzinfo=UTC) + timedelta(days=day, seconds=number * 120)
                edit = Edit(path="camera.iso", value=dice.randrange(100, 900_000))
                shoot = shoot.put(apply(shoot.read(), [edit])[0], shoot.version)
    kept = Revision.objects.count()
    connection.close()
    return database().stat().st_size / 1e6, kept


def served_runs() -> tuple[float, float]:
    """Runs and many opened versions on one server; returns its memory before and after, in megabytes."""
    server = Served()
    try:
        call = Caller(server.address)
        shoot = next(one["id"] for one in call("GET", "/api/shoots")["shoots"] if one["name"] == "Harbour refloat")
        opened = call("GET", f"/api/shoots/{shoot}")
        before = memory_mb(server.process.pid)
        for number in range(RUNS):
            run = call("POST", f"/api/shoots/{shoot}/runs", {"speed": 0})["id"]
            for step in range(40):
                opened["plan"]["camera"]["iso"] = 100 + number * 40 + step
                body = {"version": opened["version"], "plan": opened["plan"]}
                opened["version"] = call("PUT", f"/api/shoots/{shoot}", body)["version"]
                call("GET", f"/api/shoots/{shoot}")
            while call("GET", f"/api/runs/{run}")["phase"] != "finished":
                time.sleep(0.05)
        return before, memory_mb(server.process.pid)
    finally:
        server.stop()


def main() -> None:
    """Simulate both, and hold them against their bounds."""
    size, kept = simulated_saves()
    most = SAVES_A_DAY * 2 + 7 * 24 + DAYS + 20
    print(f"a month: {DAYS * SAVES_A_DAY} saves, {kept} revisions kept, database {size:.1f} MB", flush=True)
    assert kept <= most, f"{kept} revisions, at most {most}"
    assert size < most * 0.02 + 5, f"{size} MB"
    before, after = served_runs()
    print(f"{RUNS} runs and {RUNS * 40} opened versions: memory {before:.0f} MB, then {after:.0f} MB", flush=True)
    assert after - before < 150, "a server's memory grows without bound"
