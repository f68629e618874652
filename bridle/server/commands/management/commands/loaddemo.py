"""Load the demo shoots that are not there yet."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from bridle.formats.plan_json import read_plan
from bridle.server.shoots.models import Shoot, keep

DEMO = Path(__file__).resolve().parents[4] / "demo"


class Command(BaseCommand):
    """What was changed, or put into the bin, stays as it is."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Keep each demo plan once, under the name of its file."""
        for file in sorted(DEMO.glob("*.json"), reverse=True):
            if not Shoot.objects.filter(demo=file.stem).exists():
                keep(read_plan(file.read_bytes()), demo=file.stem)
                self.stdout.write(f"demo shoot {file.stem}")
