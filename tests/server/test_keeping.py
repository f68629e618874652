"""What is kept: a revision for every save, a bin with an end, a schema that fits the models."""

from datetime import timedelta
from io import StringIO
from pathlib import Path

from django.core.management import call_command
from django.test import TestCase
from django.utils import timezone

from bridle.core.lists.sides import Side, side_by_side
from bridle.core.plan.edit import Edit, apply
from bridle.formats.plan_json import read_plan
from bridle.server.keeping import BIN_DAYS, Revision, StaleError, empty_bin
from bridle.server.runs.models import LogEntry, Run
from bridle.server.shoots.models import Shoot, keep

HARBOUR = read_plan((Path(__file__).parents[2] / "bridle/demo/shoots/harbour-refloat.json").read_bytes())


class Keeping(TestCase):
    def test_every_save_keeps_what_was_there_before(self) -> None:
        shoot = keep(HARBOUR)
        for version, exposure in enumerate(("1", "2", "2", "4"), 1):
            plan, _ = apply(shoot.read(), [Edit(path="beat.exposure_s", value=exposure)])
            shoot = shoot.put(plan, shoot.version)
            self.assertLessEqual(shoot.version, version + 1)
        kept = [r.content["plan"]["beat"]["exposure_s"] for r in Revision.objects.order_by("version")]
        self.assertEqual((kept, shoot.version), (["5/2", "1", "2"], 4), "saving the same again keeps nothing new")

    def test_an_old_version_overwrites_nothing(self) -> None:
        shoot = keep(HARBOUR)
        plan, _ = apply(HARBOUR, [Edit(path="camera.iso", value=400)])
        shoot.put(plan, 1)
        with self.assertRaises(StaleError) as stale:
            shoot.put(HARBOUR, 1)
        self.assertEqual(stale.exception.kept.version, 2)
        self.assertEqual(Shoot.objects.get(pk=shoot.pk).read().camera.iso, 400)

    def test_the_bin_is_emptied_only_of_what_is_old(self) -> None:
        fresh, old, out = keep(HARBOUR), keep(HARBOUR), keep(HARBOUR)
        for shoot in (fresh, old):
            shoot.to_bin()
        long_ago = timezone.now() - timedelta(days=BIN_DAYS, minutes=1)
        Shoot.objects.filter(pk=old.pk).update(binned_at=long_ago)
        empty_bin(Shoot)
        self.assertEqual(set(Shoot.objects.values_list("pk", flat=True)), {fresh.pk, out.pk})

    def test_the_history_of_what_has_the_same_number_stays(self) -> None:
        """A shoot and a card may both be number seven."""
        gone, kept = keep(HARBOUR), keep(HARBOUR)
        for kind, number in (("shoots.shoot", gone.pk), ("kit.card", gone.pk), ("shoots.shoot", kept.pk)):
            Revision.objects.create(kind=kind, kept_id=number, version=1, made_at=timezone.now(), content={})
        gone.to_bin()
        Shoot.objects.update(binned_at=timezone.now() - timedelta(days=BIN_DAYS, minutes=1))
        Shoot.objects.filter(pk=kept.pk).update(binned_at=None)
        empty_bin(Shoot)
        left = set(Revision.objects.values_list("kind", "kept_id"))
        self.assertEqual(left, {("kit.card", gone.pk), ("shoots.shoot", kept.pk)})

    def test_versions_side_by_side_in_words(self) -> None:
        plan, _ = apply(
            HARBOUR,
            [
                Edit(path="clip.pegs", value=[]),
                Edit(path="move.keyframes.1.slide_mm", value=700.0),
                Edit(path="beat.exposure_s", value="1/50"),
                Edit(path="shoot.subject", value=""),
                Edit(path="move.marks", value=[]),
                Edit(path="move.follow", value=None),
            ],
        )
        self.assertEqual(
            side_by_side(plan, HARBOUR),
            [
                Side(
                    path="clip.pegs",
                    place="held in the sentence",
                    mine="nothing",
                    theirs="25 a second, 3 h 12 min and 16 s",
                ),
                Side(
                    path="shoot.subject",
                    place="shoot, subject",
                    mine="nothing",
                    theirs="boats lift as the tide comes in",
                ),
                Side(path="beat.exposure_s", place="beat, exposure", mine="0.02 s", theirs="2.5 s"),
                Side(path="move.keyframes.1.slide_mm", place="move, keyframe 2, slide", mine="700 mm", theirs="450 mm"),
                Side(
                    path="move.follow",
                    place="move, follow",
                    mine="nothing",
                    theirs="mark 0, across centre, every frame no",
                ),
                Side(path="move.marks", place="move, marks", mine="nothing", theirs="5 of them"),
            ],
        )

    def test_the_demo_is_loaded_once_and_rehearsed(self) -> None:
        for _ in range(2):
            call_command("loaddemo", stdout=StringIO())
        self.assertEqual((Shoot.objects.count(), Run.objects.count()), (7, 1))
        entry = LogEntry.objects.get()
        self.assertEqual((entry.planned_frames, entry.taken_frames, entry.late_frames), (480, 480, 0))
        Shoot.objects.get(demo="harbour-refloat").to_bin()
        call_command("loaddemo", stdout=StringIO())
        self.assertEqual(Shoot.objects.count(), 7, "what lies in the bin does not come back by itself")

    def test_the_migrations_fit_the_models(self) -> None:
        call_command("makemigrations", check=True, dry_run=True, verbosity=0)
