"""Load the demo shoots that are not there yet."""

import json
import threading
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Kit
from bridle.core.run.programme import programme
from bridle.formats.plan_json import read_plan
from bridle.server.kit.models import CARD, KitCard, keep_card
from bridle.server.prints.models import Print
from bridle.server.runs.driver import Drive
from bridle.server.runs.models import AS_FAST_AS_IT_GOES, LogEntry, Run
from bridle.server.shoots.lines import refresh
from bridle.server.shoots.models import Shoot, keep

DEMO = Path(__file__).resolve().parents[4] / "demo"
# This one has been rehearsed on the stand-ins, so that the logbook has something to show.
REHEARSED = "lamps-along-the-quay"
NOTE = "Rehearsed at the kitchen table. Level the rail again once the tripod has settled into the shingle."


class Command(BaseCommand):
    """What was changed, or put into the bin, stays as it is."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Keep each demo card once, and each demo plan once, under the name of its file."""
        shelf = _shelf()
        for file in sorted((DEMO / "shoots").glob("*.json"), reverse=True):
            if not Shoot.objects.filter(demo=file.stem).exists():
                # With all that belongs to it or not at all: what is there is not looked at again.
                with transaction.atomic():
                    shoot = keep(_from_shelf(read_plan(file.read_bytes()), shelf), demo=file.stem)
                    _print_of(shoot, file.stem)
                    run = _run_of(shoot) if file.stem == REHEARSED else None
                self.stdout.write(f"demo shoot {shoot.name}")
                # A process for long work would cost more than these few lines.
                refresh(shoot)
                if run is not None:
                    _rehearse(run)


def _shelf() -> dict[str, KitCard]:
    """The demo cards by their names in the file; those that are not there yet are made."""
    cards = json.loads((DEMO / "kit.json").read_text(encoding="utf-8"))["cards"]
    for name, data in cards.items():
        if not KitCard.objects.filter(demo=name).exists():
            keep_card(CARD.validate_python(data), demo=name)
    return {kept.demo: kept for kept in KitCard.objects.exclude(demo="")}


def _from_shelf(plan: Plan, shelf: dict[str, KitCard]) -> Plan:
    """The plan whose copies know which cards they were made from."""
    copies = tuple(
        copy.model_copy(update={"card_id": shelf[copy.key].pk, "version": shelf[copy.key].version})
        if copy.key in shelf
        else copy
        for copy in plan.kit.copies
    )
    return plan.model_copy(update={"kit": Kit(copies=copies)})


def _print_of(shoot: Shoot, demo: str) -> None:
    """The file of a print, asleep: it is made by its generator, read and proven when somebody first looks at it."""
    plan = shoot.read()
    told = plan.printing.file
    if told is not None:
        Print.objects.create(
            shoot=shoot, name=told.name, size=told.bytes, digest=told.digest, state="asleep", demo=demo
        )


def _run_of(shoot: Shoot) -> Run:
    """A run that has been asked to start; where it is not taken at once, the watch of the runs finds it."""
    frames = programme(shoot.read()).frames
    return Run.objects.create(shoot=shoot, plan=shoot.plan, frames=frames, speed=AS_FAST_AS_IT_GOES, asked=["start"])


def _rehearse(run: Run) -> None:
    """Take the shoot on the stand-ins, from its first frame to its logbook entry."""
    Drive(run.pk, threading.Event()).go()
    LogEntry.objects.filter(run=run).update(note=NOTE)
