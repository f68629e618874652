"""Which pinned version has a newer one: `make outdated`. It says what is there, and changes nothing."""

import json
import re
import subprocess
import sys
from typing import Any

from tests.served import ROOT

NAMED = ("requirements-pip.txt", "requirements.txt", "requirements-dev.txt")


def named() -> set[str]:
    """The packages that are asked for by name; the others come along with these."""
    lines = "\n".join((ROOT / name).read_text() for name in NAMED).splitlines()
    return {_plain(line.split("==")[0]) for line in lines if re.match(r"[A-Za-z]", line)}


def _plain(name: str) -> str:
    return re.sub(r"[-_.]+", "-", name).lower().split("[")[0]


def told(command: list[str], folder: str = "") -> Any:
    """What a command says as JSON. Raises a RuntimeError where it says none."""
    ran = subprocess.run(command, cwd=ROOT / folder, capture_output=True, text=True, check=False)
    try:
        return json.loads(ran.stdout or "{}")
    except ValueError as error:
        raise RuntimeError(f"{' '.join(command[-3:])}: {ran.stderr.strip()[-300:]}") from error


def main() -> int:
    """Print a line for each; returns 1 where nobody could be asked."""
    try:
        python = told([sys.executable, "-m", "pip", "list", "--outdated", "--format=json"])
        page = told(["npm", "outdated", "--json"], "frontend")
    except RuntimeError as error:
        print(f"The newest versions cannot be asked for: {error}")
        return 1
    asked = named()
    lines = [(one["name"], one["version"], one["latest_version"]) for one in python]
    lines.sort(key=lambda line: (_plain(line[0]) not in asked, line[0].lower()))
    lines += [(name, one.get("current", "none"), one["latest"]) for name, one in sorted(page.items())]
    for name, current, latest in lines:
        along = "" if _plain(name) in asked or name in page else "  (comes along)"
        print(f"{name:32} {current:16} newer: {latest}{along}")
    print(f"{len(lines)} pinned versions have a newer one." if lines else "Every pinned version is the newest.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
