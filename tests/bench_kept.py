"""What keeping costs: a small request beside large ones, a first list of many shoots, the room that saves take."""

import json
import sqlite3
import statistics
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import closing
from functools import partial
from pathlib import Path
from typing import Any

from bridle.datafolder.where import database
from tests.served import Served
from tests.server.test_runs import Caller

LARGE, MANY, SAVES = 8, 300, 1000
Line = tuple[str, str, str]


def measured() -> Iterator[Line]:
    """Each figure with its promise."""
    server = Served()
    try:
        call = Caller(server.address)
        ids = {one["name"]: one["id"] for one in call("GET", "/api/shoots")["shoots"]}
        opened = call("GET", f"/api/shoots/{ids['Harbour refloat']}")
        yield beside_large_ones(server, call, opened["plan"])
        yield from refused(server, opened["plan"])
        yield saved(server, call, opened)
        yield first_list(server, call, ids["Harbour refloat"])
    finally:
        server.stop()


def took(does: Callable[[], object]) -> float:
    began = time.monotonic()
    does()
    return (time.monotonic() - began) * 1000


def beside_large_ones(server: Served, call: Caller, plan: dict[str, object]) -> Line:
    """A small request, again and again, while eight large shoots are worked out."""
    pegs = [{"quantity": name, "value": value} for name, value in
            (("frames", "100000"), ("rate", "25"), ("interval", "16"))]  # fmt: skip
    body = {"plan": {**plan, "clip": {"pegs": pegs}}, "changes": []}

    def large() -> None:
        Caller(server.address)("POST", "/api/evaluate", body)

    asked = [threading.Thread(target=large) for _ in range(LARGE)]
    for one in asked:
        one.start()
    time.sleep(0.3)
    waits = [0.0]
    while any(one.is_alive() for one in asked):
        waits.append(took(lambda: call("GET", "/api/starting-points")))
        time.sleep(0.05)
    return (f"a small request beside {LARGE} large ones, median / most",
            f"{statistics.median(waits):.0f} / {max(waits):.0f} ms", "50 / 300 ms")  # fmt: skip


def refused(server: Served, plan: dict[str, object]) -> Iterator[Line]:
    """What is too much is refused before much is spent on it."""
    many = json.dumps({**plan, "move": {"keyframes": [{}] * 240_000}}).encode()
    twice = ("{" + ",".join(f'"a{n}": 1' for n in range(35_000)) + ', "a7": 2}').encode()
    for name, raw in (("240 000 keyframes", many), ("a key twice among 35 000", twice)):
        yield f"{name}, refused", f"{took(partial(status, Caller(server.address), raw)):.0f} ms", "2000 ms"
    caller = Caller(server.address)
    yield "the API's description", f"{took(lambda: caller('GET', '/api/openapi.json')):.0f} ms", "200 ms"


def status(caller: Caller, raw: bytes) -> int:
    """What an import is answered with."""
    return caller.status("POST", "/api/shoots/import", raw)


def saved(server: Served, call: Caller, opened: dict[str, Any]) -> Line:
    """What so many saves add to the database before any is thinned."""
    file, version, plan = database(server.data), opened["version"], opened["plan"]
    before = size_of(file)
    for number in range(SAVES):
        plan["camera"]["iso"] = 100 + number
        version = call("PUT", f"/api/shoots/{opened['id']}", {"version": version, "plan": plan})["version"]
    return f"{SAVES} saves of a plan, before thinning", f"{(size_of(file) - before) / 1e6:.1f} MB", "6 MB"


def size_of(file: Path) -> int:
    """Bytes of a database with its journal."""
    return sum(one.stat().st_size for one in file.parent.glob(f"{file.name}*"))


def first_list(server: Served, call: Caller, shoot: int) -> Line:
    """The first answer of a list of shoots of which no line has been worked out."""
    for _ in range(MANY):
        call("POST", f"/api/shoots/{shoot}/duplicate", {})
    server.kill()
    with closing(sqlite3.connect(database(server.data))) as opened:
        opened.execute("UPDATE shoots_shoot SET summary = '', summary_of = ''")
        opened.commit()
    server.start()
    answer = took(lambda: call("GET", "/api/shoots"))
    return f"a list of {MANY} shoots, nothing worked out yet", f"{answer:.0f} ms", "1000 ms"
