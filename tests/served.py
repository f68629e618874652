"""The real server in a process of its own, with data of its own, to be looked at, killed and started again."""

import os
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from tempfile import TemporaryDirectory

ROOT = Path(__file__).parents[1]
LONGEST_START_S = 30


class Served:
    """`bridle` as `make demo` serves it, on a free port."""

    def __init__(self) -> None:
        self.folder = TemporaryDirectory()
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.environment = {
            **os.environ,
            "BRIDLE_DATA": self.folder.name,
            "BRIDLE_KEY_FILE": f"{self.folder.name}/key",
            "DJANGO_SETTINGS_MODULE": "bridle.server.settings",
        }
        self._manage("migrate", "--verbosity", "0")
        self._manage("loaddemo")
        self.start()

    def _manage(self, *arguments: str) -> None:
        command = [sys.executable, "manage.py", *arguments]
        subprocess.run(command, cwd=ROOT, env=self.environment, check=True, stdout=subprocess.DEVNULL)

    def start(self) -> None:
        command = [sys.executable, "manage.py", "serve", "--port", str(self.port)]
        self.process = subprocess.Popen(command, cwd=ROOT, env=self.environment, stdout=subprocess.DEVNULL)
        until = time.monotonic() + LONGEST_START_S
        while time.monotonic() < until:
            try:
                urllib.request.urlopen(f"{self.address}/api/shoots", timeout=2).close()
                return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        """As a power cut does it: no goodbye."""
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def stop(self) -> None:
        self.kill()
        self.folder.cleanup()
