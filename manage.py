#!/usr/bin/env python
"""Django's command line for Bridle."""

import os
import sys

from django.core.management import execute_from_command_line

from bridle.datafolder.health import UnwellError


def main() -> int:
    """Run a command; what keeps Bridle from starting at all is one sentence."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "bridle.server.settings")
    try:
        execute_from_command_line(sys.argv)
    except UnwellError as error:
        sys.stderr.write(f"Bridle cannot start. {error}\n")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
