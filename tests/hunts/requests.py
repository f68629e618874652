"""A general fuzzer over the whole API as it is described: no fault of the server's, no status that is not declared."""

import subprocess
import sys
from pathlib import Path

from tests.served import ROOT, Served
from tests.server.test_runs import Caller

CHECKS = "not_a_server_error,status_code_conformance,content_type_conformance,response_schema_conformance"


def hunt(examples: int, seconds: int) -> int:
    """Ask every operation so many times at the most; returns the fuzzer's exit code."""
    server = Served()
    try:
        caller = Caller(server.address)
        token = next(cookie.value for cookie in caller.jar)
        command = [
            str(Path(sys.executable).with_name("schemathesis")),
            "run",
            str(ROOT / "frontend/src/api/openapi.json"),
            f"--url={server.address}",
            f"--checks={CHECKS}",
            "--phases=examples,coverage,fuzzing",
            f"--max-examples={examples}",
            f"--max-time={seconds}",
            "--suppress-health-check=all",
            "--generation-database=none",
            "--warnings=off",
            "--continue-on-failure",
            f"--header=X-CSRFToken: {token}",
            f"--header=Cookie: csrftoken={token}",
        ]
        return subprocess.run(command, cwd=server.folder.name, check=False).returncode
    finally:
        server.stop()


if __name__ == "__main__":
    sys.exit(hunt(examples=200, seconds=600))
