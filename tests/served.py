"""The real server in a process of its own, with data of its own, to be looked at, killed and started again."""

import atexit
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory

ROOT = Path(__file__).parents[1]
LONGEST_START_S = 60


@cache
def _demo() -> Path:
    """Data in which the demo is loaded: once for all servers of this process, each of which has a copy."""
    folder = TemporaryDirectory()
    atexit.register(folder.cleanup)
    made = Served(Path(folder.name))
    made.stop()
    return made.data


class Served:
    """`bridle` as `make demo` serves it, on a free port; in a folder of its own, or in one that is given."""

    def __init__(self, data: Path | None = None, demo: bool = True, start: bool = True) -> None:
        self.folder = TemporaryDirectory()
        self.data = data or Path(self.folder.name)
        self.demo = demo
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.environment = {
            **os.environ,
            "BRIDLE_DATA": str(self.data),
            "BRIDLE_KEY_FILE": f"{self.folder.name}/key",
            "DJANGO_SETTINGS_MODULE": "bridle.server.settings",
        }
        self.said = Path(self.folder.name) / "said"
        if demo and data is None and start:
            shutil.copytree(_demo(), self.data, dirs_exist_ok=True)
        if start:
            self.start()

    def command(self, *arguments: str) -> "subprocess.CompletedProcess[str]":
        """What a command of its own says, on the same data."""
        command = [sys.executable, *arguments]
        return subprocess.run(command, cwd=ROOT, env=self.environment, capture_output=True, text=True, timeout=60)

    def begun(self, *arguments: str) -> "subprocess.Popen[bytes]":
        """A command on the same data that goes on by itself, to be killed."""
        command = [sys.executable, *arguments]
        with self.said.open("a") as said:
            return subprocess.Popen(command, cwd=ROOT, env=self.environment, stdout=said, stderr=said)

    def start(self) -> None:
        command = [sys.executable, "manage.py", "serve", "--port", str(self.port), *(["--demo"] if self.demo else [])]
        with self.said.open("a") as said:
            self.process = subprocess.Popen(command, cwd=ROOT, env=self.environment, stdout=said, stderr=said)
        until = time.monotonic() + LONGEST_START_S
        while time.monotonic() < until:
            try:
                urllib.request.urlopen(f"{self.address}/api/starting-points", timeout=2).close()
                return
            except urllib.error.HTTPError:
                return
            except OSError:
                time.sleep(0.05)
            if self.process.poll() is not None:
                break
        raise RuntimeError(f"the server did not start: {self.said.read_text()}")

    def kill(self) -> None:
        """As a power cut does it: no goodbye."""
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def stop(self) -> None:
        self.kill()
        for _ in range(50):
            try:
                self.folder.cleanup()
                return
            except OSError:  # What it had begun beside itself has not heard yet that it is gone.
                time.sleep(0.1)
        self.folder.cleanup()
