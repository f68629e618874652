"""Killed right here: at every step between a file and its row, or two rows; what the next start makes of it."""

import io
import json
import shutil
import threading
from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.core.management import call_command
from django.test import Client, TransactionTestCase, override_settings

from bridle.core.plan.edit import Edit, apply
from bridle.core.subjects.parking.blocks import strip
from bridle.server.keeping import Revision
from bridle.server.prints.care import clear
from bridle.server.prints.loop import next_work
from bridle.server.prints.models import Print, Work
from bridle.server.prints.performing import perform
from bridle.server.runs.driver import Drive
from bridle.server.runs.models import LogEntry, Run
from bridle.server.shoots.models import Shoot, keep
from tests.cuts import cuts
from tests.gcode import Dialect, program
from tests.prints.test_files import SQUARE
from tests.provoked_print import printed
from tests.provoked_staying import BATTERY, CARD, another, camera
from tests.server.test_keeping import HARBOUR
from tests.server.test_site import run_of, until

TEXT = program(Dialect(), SQUARE * 2)
PIECE = len(TEXT) // 3 + 1

PEGS = [{"quantity": name, "value": value} for name, value in (("rate", "25"), ("interval", "16"), ("frames", "4"))]


class Cuts(TransactionTestCase):
    """Real commits, in a process that really ends."""

    def setUp(self) -> None:
        folder = TemporaryDirectory(prefix="cuts-")
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name)
        own = override_settings(DATA=self.data)
        own.enable()
        self.addCleanup(own.disable)

    def each(self, does: Callable[[], object], again: Callable[[], object], holds: Callable[[], object]) -> int:
        """Set up by `again`, cut at every step of `does`, see that it `holds`; returns how many cuts there were."""
        again()
        count = 0
        for step in cuts(does, self.data.name):
            with self.subTest(step=step):
                holds()
            count += 1
            again()
        self.assertGreater(count, 2, "nothing was cut")
        return count

    def nothing(self) -> None:
        for model in (Work, Print, LogEntry, Run, Revision, Shoot):
            model.objects.all().delete()

    # --- prints ---

    def send(self, heard: Callable[[int], object], at: int = 0, number: int = 0) -> None:
        """Upload as the page does, from what was heard last; `heard` is told how many bytes were acknowledged."""
        client = Client()
        if not number:
            made = client.post("/api/prints", json.dumps({"name": "cup.gcode", "size": len(TEXT)}), "application/json")
            number = made.json()["id"]
            heard(0)
        while at < len(TEXT):
            piece = TEXT[at : at + PIECE]
            answer = client.put(f"/api/prints/{number}/bytes?at={at}", piece, "application/octet-stream")
            assert answer.status_code == 200, answer.content
            at = answer.json()["here"]
            heard(at)

    def finish(self) -> None:
        while (work := next_work()) is not None:
            perform(work)

    def test_an_upload_that_is_cut_anywhere_goes_on_from_what_was_acknowledged(self) -> None:
        with TemporaryDirectory() as outside:
            acknowledged = Path(outside) / "heard"

            def again() -> None:
                self.nothing()
                acknowledged.write_text("-1")

            def does() -> None:
                self.send(lambda at: acknowledged.write_text(str(at)))

            def holds() -> None:
                heard = int(acknowledged.read_text())
                known = Print.objects.order_by("pk").first()
                if heard >= 0:
                    assert known is not None
                    here = Client().get(f"/api/prints/{known.pk}").json()["here"]
                    self.assertGreaterEqual(here, heard, "acknowledged bytes are there")
                # The page sends the piece again whose answer it has not heard, or begins anew.
                self.send(lambda at: None, max(heard, 0), known.pk if known and heard >= 0 else 0)
                self.finish()
                kept = Print.objects.order_by("-pk")[0]
                self.assertEqual((kept.state, kept.original.read_bytes(), kept.works.count()), ("read", TEXT, 1))
                self.assertEqual(Shoot.objects.count(), 1)
                self.assertEqual([one.name for one in kept.folder.glob("*half*")], [])
                # Once more, after all that: the last answer was lost.
                last = (len(TEXT) - 1) // PIECE * PIECE
                self.send(lambda at: self.assertEqual(at, len(TEXT)), last, kept.pk)

            self.assertGreater(self.each(does, again, holds), 8)

    def asked(self, every: int) -> None:
        kept = Print.objects.get()
        assert kept.facts is not None
        plan = printed(file=kept.facts["file"], layers={"layers_s": ("10",) * 12, "every": every})
        Work.objects.create(print=kept, kind="change", plan=plan.model_dump(mode="json"))

    def test_work_that_is_cut_anywhere_is_done_once_and_a_file_is_never_shown_with_another_s_proof(self) -> None:
        def arrived() -> None:
            self.nothing()
            self.send(lambda at: None)

        def is_read() -> None:
            self.finish()
            kept = Print.objects.get()
            self.assertEqual((kept.state, Shoot.objects.count()), ("read", 1))
            self.assertTrue(kept.picture.exists())

        self.each(self.finish, arrived, is_read)

        def changed_once() -> None:
            arrived()
            self.finish()
            self.asked(3)
            self.finish()
            self.asked(2)

        def one_or_the_other() -> None:
            kept = Print.objects.get()
            for _ in range(2):
                done = kept.last_done("change")
                out = Client().get(f"/api/prints/{kept.pk}/file/change")
                text = b"".join(out.streaming_content)  # type: ignore[attr-defined]
                assert done is not None and isinstance(done.result, dict)
                self.assertEqual(text.count(b"G1 X236.4 "), done.result["presses"])
                self.assertEqual(b"".join(strip([text])), TEXT)
                self.finish()
            self.assertEqual(kept.last_done("change").result["presses"], 6)  # type: ignore[union-attr]
            clear()
            left = sorted(one.name.split("-")[0] for one in kept.folder.iterdir())
            self.assertEqual(left, ["change", "original.gcode", "picture.npz"])

        self.each(self.finish, changed_once, one_or_the_other)

    def test_a_print_that_is_thrown_away_is_there_or_gone(self) -> None:
        def read() -> None:
            self.nothing()
            self.send(lambda at: None)
            self.finish()

        def holds() -> None:
            client = Client()
            for line in client.get("/api/prints").json():
                self.assertEqual((line["state"], line["layers"]), ("read", 12))
                self.assertEqual(client.delete(f"/api/prints/{line['id']}").status_code, 204)
            self.assertEqual(client.get("/api/prints").json(), [])

        self.each(lambda: Client().delete(f"/api/prints/{Print.objects.get().pk}"), read, holds)

    # --- runs ---

    def test_a_visit_and_a_cut_of_power_are_logged_once_and_are_not_lost(self) -> None:
        plan = camera(CARD, another(BATTERY, amp_hours=400.0))
        for what in ("visit", "cut", "pause"):
            with self.subTest(what):

                def again(what: str = what) -> None:
                    self.nothing()
                    drive = until(run_of(plan, comes=False), lambda one: one.state.taken == 3)
                    Run.objects.filter(pk=drive.run.pk).update(asked=[what, what])

                def does() -> None:
                    Drive(Run.objects.get().pk, threading.Event())._hear()

                def holds(what: str = what) -> None:
                    drive = Drive(Run.objects.get().pk, threading.Event())
                    drive._hear()
                    drive.run.refresh_from_db()
                    # Two were asked for: two visits are two, a pause that is asked for twice is one.
                    count = drive.run.events.filter(kind=what).count()
                    self.assertEqual((count, drive.run.wishes), (1 if what == "pause" else 2, []))

                self.each(does, again, holds)

    def test_a_run_that_is_cut_anywhere_at_its_end_has_every_frame_once_and_one_entry(self) -> None:
        plan, _ = apply(HARBOUR, [Edit(path="clip.pegs", value=PEGS)])

        def again() -> None:
            self.nothing()
            until(run_of(plan), lambda one: one.state.taken == 2)

        def holds() -> None:
            run = Run.objects.get()
            if run.ended_at is None:
                Drive(run.pk, threading.Event()).go()
            self.assertEqual(list(run.events.filter(kind="taken").values_list("frame", flat=True)), [0, 1, 2, 3])
            self.assertEqual([(one.taken_frames, one.outcome) for one in LogEntry.objects.all()], [(4, "finished")])

        self.each(lambda: Drive(Run.objects.get().pk, threading.Event()).go(), again, holds)

    # --- saves ---

    def test_a_save_is_there_with_its_revision_or_not_at_all(self) -> None:
        plan, _ = apply(HARBOUR, [Edit(path="camera.iso", value=400)])

        def again() -> None:
            self.nothing()
            keep(HARBOUR)

        def holds() -> None:
            shoot = Shoot.objects.get()
            self.assertEqual((shoot.version, Revision.objects.count(), shoot.read().camera.iso),
                             (2, 1, 400) if shoot.version == 2 else (1, 0, HARBOUR.camera.iso))  # fmt: skip
            self.assertEqual(shoot.put(plan, 1).version, 2, "what was sent is sent again")

        self.each(lambda: Shoot.objects.get().put(plan, 1), again, holds)

    def test_the_demo_is_loaded_whole_however_often_its_loading_is_cut(self) -> None:
        from bridle.server.commands.management.commands import loaddemo  # noqa: PLC0415

        demo = self.data.parent / f"{self.data.name}-demo"
        (demo / "shoots").mkdir(parents=True)
        for name in ("kit.json", "shoots/lattice-lantern.json", "shoots/lamps-along-the-quay.json"):
            (demo / name).symlink_to(loaddemo.DEMO / name)
        self.addCleanup(shutil.rmtree, demo)
        before, loaddemo.DEMO = loaddemo.DEMO, demo
        self.addCleanup(setattr, loaddemo, "DEMO", before)
        rehearsed, loaddemo._rehearse = loaddemo._rehearse, lambda run: None
        self.addCleanup(setattr, loaddemo, "_rehearse", rehearsed)
        self.nothing()
        seen: set[tuple[Any, ...]] = set()
        # Not set up anew: each round is cut a step later, on what the last one left.
        for _ in cuts(lambda: call_command("loaddemo", verbosity=0, stdout=io.StringIO()), "no file"):
            seen.add((Shoot.objects.count(), Print.objects.count(), Run.objects.count()))
        self.assertLessEqual(seen, {(0, 0, 0), (1, 0, 0), (1, 1, 0), (2, 1, 1), (2, 1, 0)})
        self.assertEqual((Shoot.objects.count(), Print.objects.count(), Run.objects.count()), (2, 1, 1))
        self.assertEqual(Run.objects.get().wishes, ["start"])
